// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/structure_parts.h"
#include "core/units/kind.h"

#include <string>

namespace gantry::words {

/// A beam by its outline and its real sizes: "slotted profile 40 × 80 mm, on edge".
std::string sectionName(const Section& section, units::System system);

} // namespace gantry::words
