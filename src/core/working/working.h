// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/working/figure_path.h"
#include "core/working/sheet.h"

#include <optional>

/// How figures come about: formulas in standard symbols, with what was put in, made while computing.
namespace gantry::working {

/// Whether a working gives a figure: to 1e-9 of it.
bool meets(double value, double figure);

/// Whether the working of a figure is shown wherever it has a number.
bool isExplained(const PlacedFigure& figure);

/// The working of a figure of an evaluation of that project. Its last quantity is the figure to 1e-9 (what
/// does not meet it is not shown). Nothing where the figure has no number or no working.
std::optional<Working> workingOf(const Project& project, const Evaluation& evaluation,
                                 const PlacedFigure& figure);

} // namespace gantry::working
