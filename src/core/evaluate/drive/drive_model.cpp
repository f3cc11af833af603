// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/drive_model.h"

#include "core/motor/stepper_motion.h"

#include <algorithm>

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

double DriveModel::breakawayTorque() const {
    // The recursion again, with static in place of running friction; cheap enough to build a copy of the load
    // only.
    drivetrain::Chain still = chain;
    still.load.coulomb = staticFriction;
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
