// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/curves.h"

namespace gantry {

TorqueCurves torqueCurves(const DriveModel& model, double topSpeed, int points) {
    TorqueCurves out;
    if (model.missing != Reason::None || points < 2 || !(topSpeed > 0.0)) return out;
    for (int i = 0; i < points; ++i) {
        const double speed = topSpeed * i / (points - 1);
        out.nominal.push_back({speed, model.available(speed)});
        out.continuous.push_back({speed, model.continuous(speed)});
        out.lowVoltage.push_back({speed, model.availableAtLowVoltage(speed)});
        out.atBest.push_back({speed, model.motors * motor::torqueAtBest(model.curve, speed)});
    }
    return out;
}

std::vector<TorquePoint> shotPath(const DriveModel& model, const motion::Profile& profile, int direction,
                                  int points) {
    std::vector<TorquePoint> out;
    const double time = profile.time();
    if (!(time > 0.0) || points < 2) return out;
    out.reserve(static_cast<std::size_t>(points) * 2);
    // Cruise is one point; the ramps deserve all the others.
    const double sense = direction < 0 ? -1.0 : 1.0;
    const auto add = [&](double t) {
        const motion::MotionState s = profile.at(t);
        const double torque = drivetrain::motorTorque(model.chain, s.speed / model.outputPerRad,
                                                      sense * s.acceleration / model.outputPerRad, direction);
        out.push_back({s.speed / model.outputPerRad, torque * sense});
    };
    for (int i = 0; i < points; ++i) add(profile.in.time() * i / (points - 1));
    for (int i = 0; i < points; ++i) add(time - profile.out.time() * (points - 1 - i) / (points - 1));
    return out;
}

} // namespace gantry
