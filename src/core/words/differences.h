// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/project.h"
#include "core/units/kind.h"

#include <string>
#include <string_view>
#include <vector>

namespace gantry::words {

/// Which kind of part a variant holds, where that is told like a field.
inline constexpr FieldInfo kindField = textField("kind", "Kind");

/// A project, and what a sentence calls it: "the file".
struct NamedProject {
    const Project& project;
    std::string_view name;
};

/// What tells two projects apart, one line for each difference, in the order of the file: "Slide, Moving
/// mass: 3 kg → 4.1 kg", "Pan: only in the file". At most `most` lines; `total` gets how many there are.
std::vector<std::string> differences(const NamedProject& from, const NamedProject& to, units::System system,
                                     std::size_t most, std::size_t& total);

} // namespace gantry::words
