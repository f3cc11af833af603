// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string_view>

namespace gantry::motor {

/// What a stepper of a frame size is screwed to. The sizes are those that most makers keep to (frame size is
/// the flange in tenths of an inch); long motors of size 23 and up also come with thicker shafts, so a shaft
/// is to be measured before a pulley is bored.
struct Frame {
    int size;          ///< 17
    double flange;     ///< [m] across the square
    double boltSquare; ///< [m] between neighbouring bolts
    double pilot;      ///< [m] diameter of the round step that centres it
    double shaft;      ///< [m] diameter; one flat on it
};

/// The frame that a motor's name tells: "Stepper size 17, 40 mm, 1.8°, 1.7 A". Nothing where it tells none,
/// or one that is not listed.
std::optional<Frame> frameOf(std::string_view name);

} // namespace gantry::motor
