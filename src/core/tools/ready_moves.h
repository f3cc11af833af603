// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <span>
#include <string_view>

namespace gantry {

/// Moves that are often wanted, fitted to a rig: its travels, its limits, the subject of its first shot.
enum class ReadyMove { Reveal, SlidePast, PushIn, Orbit, Rise, Overhead };

struct ReadyMoveInfo {
    ReadyMove kind;
    std::string_view name;
    std::string_view effect; ///< on depth and attention, in one line
};
std::span<const ReadyMoveInfo> readyMoves();

/// Whether the rig has the axes that a move wants.
bool suits(const Project& project, ReadyMove move);

/// Adds it behind the project's moves: two or three poses within the travels, in a time that its limits have
/// room for. Returns its index; −1 where the rig has not the axes, or
/// cannot turn its head so far.
int addReadyMove(Project& project, ReadyMove move);

} // namespace gantry
