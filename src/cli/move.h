// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

struct MoveCall {
    std::string move; ///< id; empty: lists the moves
    bool json = false;
    bool csv = false;
    bool least = false; ///< search for the least time over the planned path
    double rate = 0.0;  ///< [1/s] of the lines; 0: the frame rate of its shot
};
/// A move as it is planned. 1: it cannot run as it is meant, or asks more than is set; 2: there is no such
/// move.
int move(const MoveCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
