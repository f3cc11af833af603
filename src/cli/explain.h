// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

struct ExplainCall {
    std::string path; ///< of a figure or a verdict; empty: lists what can be explained
    bool json = false;
};
/// How a figure comes about. 1: it has no number, or its working is not written down; 2: there is no such
/// path.
int explain(const ExplainCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
