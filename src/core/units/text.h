// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <string>
#include <variant>

namespace gantry::units {

/// Why a text could not be read, as a sentence for the person who typed it.
struct ParseError {
    std::string sentence;
};
using ParseResult = std::variant<double, ParseError>;

/// Reads what people type into a field and returns the SI value.
///
/// Accepts decimal point or comma, fractions ("3 1/8 in", "1/50 s"), compounds ("2h30m", "5 ft 3 in"),
/// distances in times ("1 ft in 15 min", "20 cm over 30 s") and every unit of the kind in both systems. A
/// bare number is in the unit that `system` shows for the kind. Refuses wrong kinds, nonsense, and a number
/// with exactly three digits behind a single mark ("1,100"), which could mean either thousand or decimal.
/// Never throws.
ParseResult parse(std::string_view text, Kind kind, System system);

/// A result on screen: `significant` digits in the unit that suits the magnitude, with the unit.
/// Not finite: "–".
std::string format(double si, Kind kind, System system, int significant = 3);

/// As format, but the number alone, in the given kind's ordinary unit (no switching by magnitude).
std::string formatNumber(double si, Kind kind, System system, int significant = 3);

/// The content of an input field: the shortest text, in the kind's ordinary unit and without the unit, that
/// parses back to the same value to 9 significant digits.
std::string formatForEditing(double si, Kind kind, System system);

/// The content of a field that is not being edited: at most 5 significant digits, in the kind's ordinary unit
/// and without the unit.
std::string formatForField(double si, Kind kind, System system);

/// Plain number with a point, at most `decimals` decimals, trailing zeros removed: for files and exports.
std::string plainNumber(double value, int decimals);

} // namespace gantry::units
