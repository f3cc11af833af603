// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

/// stall-ladder FILE --axis ID [--outcomes pppl] [--json]: the rungs to test and, with one letter a rung
/// (p passed, l lost steps, - not run), what they say of the motor's torque. Exit code 2 for names or letters
/// that do not do, 1 when the outcomes contradict each other.
struct LadderCall {
    std::string axis, outcomes;
    bool json = false;
};
int stallLadder(const LadderCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
