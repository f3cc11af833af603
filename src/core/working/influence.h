// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/working/figure_path.h"
#include "core/working/sheet.h"

#include <string>
#include <vector>

namespace gantry::working {

/// What one input does to a figure while all others stay as entered.
struct Influence {
    std::string path;      ///< of the input
    Figure low, high;      ///< the figure with the input at the low and at the high end of its tolerance
    bool uncertain = true; ///< false: nothing is uncertain; moved by 1 % either way instead

    /// How far the figure moves, the farther way; 0 where it has no number at either end.
    double moves(double figure) const;
};

/// What moves a figure most, the largest first, those that do not move it left out: every uncertain input of
/// its axis, or of the rig, to both ends of its tolerance; where none of these moves it, the inputs of its
/// working by 1 %. Computed anew for each, so it takes some milliseconds.
std::vector<Influence> influences(const Project& project, const PlacedFigure& figure, const Working& working);

} // namespace gantry::working
