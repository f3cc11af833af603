// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/drive_model.h"

#include "core/motor/stepper_motion.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gantry {

double DriveModel::availableAtLowVoltage(double motorSpeed) const {
    return motors * motor::peakTorque(motor::atVoltage(curve, lowVoltage), motorSpeed);
}

double DriveModel::lag(double torque, double motorSpeed) const {
    if (const motor::StepperParams* p = stepper())
        return motor::rotorLag(p->rotorTeeth, motors * torqueAmplitude, torque);
    return followDelay * motorSpeed + followCompliance * torque / motors;
}

double DriveModel::rampTorque(double speed, double acceleration) const {
    return drivetrain::worstTorque(chain, speed / outputPerRad, acceleration / outputPerRad);
}

double DriveModel::inertiaToSpeedUp() const {
    constexpr double much = 1e6; // [rad/s²], so that gravity does not decide which way power flows
    return (drivetrain::motorTorque(chain, 0.0, much, 1) - drivetrain::motorTorque(chain, 0.0, 0.0, 1)) /
           much;
}

double DriveModel::slowingTorque(double speed) const {
    const auto one = [&](int direction) {
        return direction * drivetrain::motorTorque(chain, speed / outputPerRad, 0.0, direction);
    };
    return std::max(0.0, std::min(one(1), one(-1)));
}

double DriveModel::hardestBraking(double extra) const {
    const double torque = available(0.0) + extra;
    if (!std::isfinite(torque)) return std::numeric_limits<double>::infinity();
    // While the load drives, torque is straight in the deceleration.
    constexpr double much = 1e7; // [rad/s²]
    double most = 0.0;
    for (const int direction : {1, -1}) {
        const auto asked = [&](double deceleration) {
            return -direction * drivetrain::motorTorque(chain, 0.0, -direction * deceleration, direction);
        };
        const double once = asked(much), slope = (asked(2.0 * much) - once) / much;
        most = std::max(most, (torque - (once - slope * much)) / slope);
    }
    return most * outputPerRad;
}

double DriveModel::fieldStiffness() const {
    const motor::StepperParams* p = stepper();
    const double field =
        p != nullptr ? motor::fieldStiffness(p->rotorTeeth, motors * torqueAmplitude, 0.0) : 0.0;
    return field > 0.0 ? field / (outputPerRad * outputPerRad) : std::numeric_limits<double>::infinity();
}

drivetrain::Sprung DriveModel::sprung() const {
    // Wind and disturbance push alike at rest and in motion.
    return {outputStiffness, friction, staticFriction - (chain.load.coulomb - friction),
            std::max(std::abs(gravityLow), std::abs(gravityHigh))};
}

DriveModel DriveModel::withBareDrum() const {
    DriveModel out = *this;
    out.chain.stages.back().ratio *= layerSpread();
    out.outputPerRad /= layerSpread();
    return out;
}

double DriveModel::breakawayTorque() const {
    // The recursion again, with static in place of running friction and flanks that have not begun to slide.
    drivetrain::Chain still = chain;
    still.load.coulomb = staticFriction;
    for (drivetrain::Stage& s : still.stages)
        if (s.startEfficiency > 0.0) s.efficiency = s.startEfficiency;
    return drivetrain::worstTorque(still, 0.0, 0.0);
}

double DriveModel::margin(double speed, double acceleration) const {
    const double ramp = available(speed / outputPerRad) / rampTorque(speed, acceleration);
    const double start = available(0.0) / breakawayTorque();
    return std::min(ramp, start);
}

double DriveModel::largestAcceleration(double speed) const {
    // Torque only falls with speed and the need only grows with it, so the ramp's end binds;
    // break-away binds at its start, before any acceleration.
    if (available(0.0) < wantedMargin * breakawayTorque()) return 0.0;
    const double motorSpeed = speed / outputPerRad;
    return drivetrain::largestAcceleration(chain, motorSpeed, available(motorSpeed) / wantedMargin) *
           outputPerRad;
}

} // namespace gantry
