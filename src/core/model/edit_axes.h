// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

namespace gantry {

/// Edits that keep a project consistent. Indices are checked; a wrong one changes nothing.

/// Adds an axis for a role at the lens end, with a drive and an output that such axes usually have; `linear`
/// decides for Role::Other alone. Returns its index.
int addAxis(Project& project, Role role, bool linear = true);

/// Name of a role as an axis is called: "Boom tilt".
std::string nameOfRole(Role role);

/// Copies an axis with all its shots' movements behind itself; returns the index of the copy, −1 if there is
/// none to copy.
int copyAxis(Project& project, int axis);

/// Moves an axis by `step` places towards the lens (positive) or the base; returns its new index.
int moveAxis(Project& project, int axis, int step);

/// Removes an axis and what the shots ask of it.
void removeAxis(Project& project, int axis);

/// Moves a link by `step` places towards the load; returns its new index.
int moveLink(Axis& axis, int link, int step);

/// Adds a default link of the kind at `kind` of kindsOf<Link>() next to the output.
void addLink(Project& project, int axis, std::size_t kind);
void removeLink(Project& project, int axis, int link);

/// Adds an item to what an axis carries, or takes the last one away.
void addItem(Project& project, int axis);
void removeItem(Project& project, int axis);

/// Adds a mark to a lens ring, a copy of the last one, or takes the last one away. Nothing on other outputs.
void addRingMark(Project& project, int axis);
void removeRingMark(Project& project, int axis);

/// Adds a speed to those that an axis runs at, or a time to those that the controller offers, half as much
/// again as the last; or takes the last one away.
void addFixedSpeed(Project& project, int axis);
void removeFixedSpeed(Project& project, int axis);
void addFixedTime(Project& project);
void removeFixedTime(Project& project);

/// At most this many drives per axis, the one in use among them.
inline constexpr int mostCandidates = 6;

/// Keeps the drive in use as a further candidate and goes on with a copy of it under the next letter that no
/// drive of this axis had. Keys of the file that are not understood are copied too. Returns the letter; empty
/// if there are six already or the axis is not there.
std::string addCandidate(Project& project, int axis);

/// Puts a candidate into use; the one in use takes its place, each with its own keys that are not understood.
/// Returns whether there is such a letter.
bool useCandidate(Project& project, int axis, std::string_view letter);

/// Drops a candidate that is not in use.
void dropCandidate(Project& project, int axis, std::string_view letter);

/// The axis with a candidate in use, for comparing; the axis itself for its own letter.
Axis withCandidate(const Axis& axis, std::string_view letter);

/// Letters of all drives of an axis in order.
std::vector<std::string> candidateLetters(const Axis& axis);

} // namespace gantry
