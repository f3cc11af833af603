// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <span>
#include <string_view>
#include <vector>

namespace gantry::recipes {

/// One reading that a recipe asks for.
struct Reading {
    std::string_view label;
    units::Kind kind = units::Kind::Length;
    double start = 0.0; ///< SI, offered at first
    std::string_view takenFrom =
        {}; ///< last part of the field path in the same axis whose value is offered instead
};

/// How to find a value with household tools. A recipe is added by one entry in recipe.cpp.
struct Recipe {
    std::string_view id;
    std::string_view field; ///< last part of the field paths that it serves: "running_friction_N"
    std::string_view title;
    std::string_view steps;      ///< what to do, in order
    std::string_view precaution; ///< what could hurt, said first; empty if nothing
    std::vector<Reading> readings;
    double (*value)(std::span<const double> readings); ///< SI; not finite where the readings make no sense
    double tolerance = 0.05;                           ///< [1] that such a measurement usually has
};

const std::vector<Recipe>& all();

/// Recipes that serve a field, by its path.
std::vector<const Recipe*> forField(std::string_view path);

/// How to take a value straight from an instrument, for fields without a recipe of their own: one reading of
/// the field's kind, offered at `value`.
Recipe directReading(std::string_view label, units::Kind kind, double value, double tolerance);

} // namespace gantry::recipes
