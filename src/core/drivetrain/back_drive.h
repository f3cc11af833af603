// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/chain.h"

#include <cstddef>
#include <optional>

namespace gantry::drivetrain {

/// First stage from the motor that the load cannot turn (back efficiency zero or less); none if it can turn
/// them all.
std::optional<std::size_t> lockedBy(const Chain& chain);

/// What it takes to turn a drive by its load, as a hand does that pushes a carriage.
struct BackDriven {
    double motorTorque = 0.0; ///< [N·m] ≥ 0 with which the motors resist: detent at rest, drag when turning
    double friction = 0.0;    ///< [N] or [N·m] ≥ 0 of the load
    double acceleration = 0.0; ///< [U/s²] ≥ 0 of the load
};

/// Force [N] or torque [N·m] at the load. From the motor to the load each stage multiplies by its ratio and
/// divides by its back efficiency; inertias count where they sit, that of the motors with `motorInertia` of
/// the chain. Infinite where the drive locks. Derivation: docs/models/drive-chain.md.
double forceToBackDrive(const Chain& chain, const BackDriven& pushed);

} // namespace gantry::drivetrain
