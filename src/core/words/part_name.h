// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <string>

namespace gantry::words {

/// A part of the drive as one would point to it, without an article: "20:60 belt", "20T belt", "worm 40:1".
/// @param link index of the link; below 0: the output
std::string partName(const Axis& axis, int link);

} // namespace gantry::words
