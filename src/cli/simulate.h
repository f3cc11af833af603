// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

/// simulate FILE [--axis ID] [--shot ID] [--json]: every shot of every axis, or those that are named. Exit
/// code 1 when one loses steps, 2 for a name that the project does not have.
struct SimulateCall {
    std::string axis, shot;
    bool json = false;
};
int simulate(const SimulateCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
