// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

struct IntervalsCall {
    std::string plan; ///< id; empty: lists the plans
    bool json = false;
    bool csv = false;
};
/// An interval plan, and what fails first. 1: it cannot run as it is meant, or fails before its last picture;
/// 2: there is no such plan.
int intervals(const IntervalsCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
