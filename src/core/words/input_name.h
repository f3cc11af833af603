// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/units/kind.h"

#include <string>
#include <string_view>

namespace gantry::words {

/// An uncertain input as a sentence names it: "the running friction (9 N ±50 %, guess)", with the part of the
/// drive or the thing it belongs to, and its axis where that is another than `axis`. Empty where the project
/// has no such field.
std::string inputName(const Project& project, std::string_view path, std::string_view axis,
                      units::System system);
/// The same without what is entered: "the running friction".
std::string inputLabel(const Project& project, std::string_view path, std::string_view axis);

} // namespace gantry::words
