// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/project.h"

#include <string>

namespace gantry {

/// Why a project could not be written to a file and read again: a number outside its field's range, a list or
/// a text that is too long, a text that is not UTF-8, ids that are missing or doubled. One sentence that
/// names the place, the value, the limit and what to do; empty if there is nothing.
std::string objectionTo(const Project& project);

/// As every project is kept: numbers that are smaller than anything of their kind can be are 0, and texts
/// hold nothing that cannot be shown; keys that are not understood stand in the order of their places. The
/// reader does the same.
void settle(Project& project);

/// Brings every number of a link into the range of its field, as a link needs that the program made from
/// another.
void clampToFields(Link& link);

/// A number as a field of this kind keeps it: 0 if it is smaller than anything of its kind can be.
double settled(const FieldInfo& info, double value);

/// About how many bytes a project takes in its file, never less than it does.
std::size_t writtenSizeAtMost(const Project& project);

} // namespace gantry
