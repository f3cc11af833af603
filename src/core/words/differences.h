// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/units/kind.h"

#include <string>
#include <vector>

namespace gantry::words {

/// What tells two projects apart, one line for each difference, in the order of the file: "Slide, Moving
/// mass: 3 kg → 4.1 kg", "Pan: only in the second". At most `most` lines; `total` gets how many there are.
std::vector<std::string> differences(const Project& first, const Project& second, units::System system,
                                     std::size_t most, std::size_t& total);

} // namespace gantry::words
