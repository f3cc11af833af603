// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/working/influence.h"

#include <string>
#include <vector>

/// Workings as they are read: window and command line print the same.
namespace gantry::working {

/// One quantity as a line.
struct Row {
    std::string symbol;  ///< "F_g"
    std::string formula; ///< "m · g · sin(β)"; of an input and of what is looked up: empty
    std::string value;   ///< "3.2 N"
    std::string label;   ///< "weight along the rail"
    std::string from;    ///< "±40 %, assumed"; "plan of the shot"; of what is computed here: empty
    bool input = false;
};

/// Every quantity in its order, the figure last.
std::vector<Row> rowsOf(const Working& working, const Project& project, units::System system);

/// "torque needed at the motor: 98.8 mN·m"
std::string headline(const Working& working, units::System system);

/// What moves it most: "The running friction (2 N ±40 %, assumed) moves it most: from 0.08 N·m to 0.12 N·m."
std::string influenceSentence(const std::vector<Influence>& influences, const Project& project,
                              const PlacedFigure& figure, units::System system);

/// A value with its unit, of the kind's own or of the quantity.
std::string valueText(const Quantity& quantity, units::System system);

} // namespace gantry::working
