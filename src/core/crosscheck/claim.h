// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::crosscheck {

/// What somebody said or typed about one axis, as far as it belongs together: "2.2 N·m at 1500 rpm". Empty
/// what is not said. U is m or rad, of the axis.
struct Claim {
    std::string text;     ///< as it was written
    std::size_t line = 0; ///< in which of the lines
    bool atMotor = false; ///< said of the motor, not of what moves
    bool partly = false;  ///< some number in it is not understood, or says a second time what one said before

    std::optional<double> stepsPerUnit; ///< [1/U]
    /// [1] of one turn of the motor or, of a turning axis, of the axis: what they were counted on is not
    /// said.
    std::optional<double> stepsPerTurn;
    std::optional<double> current;      ///< [A rms]; what is said to be a peak is divided by √2
    std::optional<double> torque;       ///< [N·m]
    std::optional<double> force;        ///< [N]
    std::optional<double> motorSpeed;   ///< [rad/s]
    std::optional<double> speed;        ///< [U/s]
    std::optional<double> acceleration; ///< [U/s²]
    std::optional<double> mass;         ///< [kg]
    std::optional<double> power;        ///< [W]
    std::optional<double> ratio;        ///< [1] motor turns for one of the axis or the last shaft

    /// Whether anything in it is a number whose meaning is known here.
    bool understood() const;

    friend bool operator==(const Claim&, const Claim&) = default;
};

/// Reads what people write: "steps/mm = 80", "200 steps = 1 mm", "2400 steps a turn", "current: 1,7 A", "top
/// speed 15000", "0.8 N·m at 3000 rpm", "lifts 8 kg at 1.5 m/s", "50:1". Every unit that fields take, decimal
/// point or comma. A number without a unit is read by its name, in mm or °, seconds, A, N·m, W, kg. What is
/// parted by a semicolon, a comma and a blank, or a new line, is a claim of its own. Pieces without a number
/// are left out; a number that could mean two things, or that nothing names, makes a claim that is not
/// understood.
std::vector<Claim> readClaims(std::span<const std::string> lines, AxisKind kind);

/// The claims of an axis. They are kept while their lines stay the same, since an axis is judged over and
/// over.
const std::vector<Claim>& claimsOf(const Axis& axis);

/// Lines of a text.
std::vector<std::string> linesOf(std::string_view text);

} // namespace gantry::crosscheck
