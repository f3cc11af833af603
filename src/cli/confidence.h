// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

/// confidence FILE [--axis ID] [--samples N] [--json]: chances of a stall, of passing a limit and of visible
/// rocking within the tolerances, and the inputs that matter most. 10,000 samples with one fixed seed unless
/// told otherwise. Exit code 2 for a name or number that does not do.
struct ConfidenceCall {
    std::string axis;
    int samples = 10000; ///< 100 to 1,000,000
    bool json = false;
};
int confidence(const ConfidenceCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
