// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/model/fields.h"

#include <algorithm>
#include <cmath>

/// How fast and how hard an axis moves in a shot.
namespace gantry::working {

using units::Kind;

/// An entered number where it is what the shot really does, else what was planned.
Term AxisSheet::entered(const std::string& symbol, const char* label, Kind kind, double value,
                        const char* linearField, const char* rotaryField, const char* origin) {
    const std::string path =
        ofShot("moves/" + axis_.id + "/movement/") + (linear() ? linearField : rotaryField);
    if (const std::optional<double> typed = numberAt(project(), path); typed && *typed == value)
        return input(symbol, path);
    return found(symbol, label, kind, value, origin);
}

Term AxisSheet::topSpeed() {
    return entered("v", "top speed", speedKind(), shot_->motion.topSpeed.value(), "speed_m_s", "speed_rad_s",
                   m_.oneSpeed ? "where the motor's torque meets the load's" : "plan of the shot");
}

Term AxisSheet::acceleration() {
    // A drive without a ramp is asked for none by the plan; its first moment is its own affair.
    const double planned = m_.atOnce
                               ? std::max(shot_->profile.in.acceleration, shot_->profile.out.acceleration)
                               : shot_->motion.acceleration.value();
    if (planned == 0.0) return 0.0;
    return entered("a", "acceleration of the ramps", accelerationKind(), planned, "acceleration_m_s2",
                   "acceleration_rad_s2", "plan of the shot");
}

Term AxisSheet::firstAcceleration() {
    if (!m_.atOnce) return acceleration();
    const double first = shot_->motion.acceleration.valueOr(0.0);
    return first == 0.0 ? Term(0.0)
                        : found("a_0", "acceleration of the first moment", accelerationKind(), first,
                                "docs/models/no-ramps.md");
}

Term AxisSheet::motorSpeed() {
    return named("ω", "speed of the motor", Kind::RotationRate, topSpeed() / travelPerRad());
}

Term AxisSheet::pulseRate() {
    return named("f_p", "pulse rate", Kind::Frequency, topSpeed() / microstep());
}

} // namespace gantry::working
