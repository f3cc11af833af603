// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <optional>
#include <span>
#include <string>

namespace gantry::units {

/// One spelling of a unit. `spelling` is already normalised (see normaliseUnit).
struct Unit {
    Kind kind;
    std::string_view spelling;
    double factor; ///< SI value of one unit
};

/// All spellings, in no particular order.
std::span<const Unit> unitTable();

/// Folds the ways people write a unit into one: no blanks, dots or stars; `²` and `^2` become `2`; `°`
/// becomes `deg`, `"` `in`, `'` `ft`, `µ` `u`, `Ω` `ohm`.
std::string normaliseUnit(std::string_view text);

/// Looks a normalised spelling up within a kind: exact first, then regardless of case if that is unambiguous.
std::optional<double> unitFactor(Kind kind, std::string_view normalised);

/// The kind that a normalised spelling belongs to, for messages about wrong kinds.
std::optional<Kind> kindOfUnit(std::string_view normalised);

/// A unit chosen for showing: text as it is printed, and its SI value.
struct ShownUnit {
    std::string_view text;
    double factor;
};

/// The unit in which a system shows a value of this magnitude.
/// Fields pass the default magnitude 0 to get the kind's ordinary unit.
ShownUnit shownUnit(Kind kind, System system, double magnitude = 0.0);

} // namespace gantry::units
