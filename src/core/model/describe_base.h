// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <array>
#include <concepts>
#include <string_view>

/// What descriptions of parts are made of; see describe.h.
namespace gantry {

/// How far the value of a field may lie off what is entered.
enum class Certainty {
    Uncertain, ///< by the tolerance of its entry
    Rating,    ///< not at all: a setting that keeps within a rating keeps within it
    SteelRule  ///< by its tolerance, which for a length measured with a steel rule is 0.5 mm + 0.1 %
};

/// A field: its key in the file (the unit in it), its name on screen, its kind, the range that is accepted
/// and the range that is usual (outside of it the program asks back). All in SI.
struct FieldInfo {
    std::string_view key;
    std::string_view label;
    units::Kind kind = units::Kind::Count;
    double min = 0.0;
    double max = 0.0;
    double usualMin = 0.0;
    double usualMax = 0.0;
    Certainty certainty = Certainty::Uncertain;
};

/// Keys in the file and names on screen of an enum's members.
template <class E>
struct ChoiceNames;

/// The "kind" that a variant's alternative has in the file, and its name on screen.
template <class T>
struct KindName;

/// S is T or const T: one description serves readers and writers.
template <class S, class T>
concept Of = std::same_as<std::remove_const_t<S>, T>;

using K = units::Kind;
constexpr FieldInfo textField(std::string_view key, std::string_view label) {
    return {key, label, K::Count, 0, 0, 0, 0};
}

} // namespace gantry
