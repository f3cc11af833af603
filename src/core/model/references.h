// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <string>
#include <string_view>
#include <vector>

namespace gantry {

/// What a text field may name: an id, or nothing, and how that is called.
struct NamedId {
    std::string id;
    std::string name;

    friend bool operator==(const NamedId&, const NamedId&) = default;
};

/// What the text field at a path may name; empty for a field that takes any text. Of a move these are its
/// shot, the target of a segment, the axis whose speed is given, and the turntable that a target rides on.
std::vector<NamedId> namesFor(const Project& project, std::string_view path);

} // namespace gantry
