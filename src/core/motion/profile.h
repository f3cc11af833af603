// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace gantry::motion {

/// Limits of one axis in its own unit U (m or rad). A jerk of 0 means none: constant acceleration.
struct Limits {
    double speed = 0.0;        ///< [U/s] > 0
    double acceleration = 0.0; ///< [U/s²] > 0
    double jerk = 0.0;         ///< [U/s³] ≥ 0

    friend bool operator==(const Limits&, const Limits&) = default;
};

/// From rest to a speed or back: jerk phase, constant acceleration, jerk phase; or half a sine.
struct Ramp {
    double acceleration = 0.0; ///< [U/s²] peak, positive
    double jerkTime = 0.0;     ///< [s] of each jerk phase; 0 without jerk limit
    double constantTime = 0.0; ///< [s]
    bool halfSine = false;     ///< acceleration is A sin(πt/T) over T = constantTime instead

    double time() const { return 2.0 * jerkTime + constantTime; }
    double speed() const { return acceleration * (jerkTime + constantTime) * (halfSine ? 2.0 / pi : 1.0); }
    double jerk() const {
        if (halfSine) return constantTime > 0.0 ? acceleration * pi / constantTime : 0.0;
        return jerkTime > 0.0 ? acceleration / jerkTime : 0.0;
    }
    static constexpr double pi = 3.14159265358979323846;
    bool operator==(const Ramp&) const = default;
};

struct MotionState {
    double position = 0.0, speed = 0.0, acceleration = 0.0; ///< [U], [U/s], [U/s²]
};

/// Rest to rest over `distance` ≥ 0: ramp in, cruise, ramp out.
struct Profile {
    double distance = 0.0;   ///< [U]
    double peakSpeed = 0.0;  ///< [U/s]
    double cruiseTime = 0.0; ///< [s]
    Ramp in, out;

    double time() const { return in.time() + cruiseTime + out.time(); }
    /// State at time t [s]; clamped to the start and the end.
    MotionState at(double t) const;
    bool operator==(const Profile&) const = default;
};

/// The ramp that reaches `speed` [U/s] soonest within the limits' acceleration and jerk.
Ramp fastestRamp(double speed, const Limits& limits);

/// A ramp that reaches `speed` in exactly `time` [s] > 0. Keeps to the jerk if that is possible; otherwise it
/// spends the whole time in jerk phases, which asks the least jerk (the caller compares Ramp::jerk with its
/// limit).
Ramp rampInTime(double speed, double time, double jerk);

/// Distance [U] covered from `speed` to rest by the fastest ramp: v·T/2, since the ramp is symmetric.
double stoppingDistance(double speed, const Limits& limits);

/// Time-optimal profile, closed form in all degenerate cases (acceleration not reached, speed not reached,
/// neither). Biagiotti & Melchiorri, Trajectory Planning, ch. 3. Zero distance gives the empty profile.
Profile plan(double distance, const Limits& limits);

/// Profile that takes exactly `time` [s] under the limits' acceleration and jerk by a slower cruise (the
/// smaller root). Nothing if `time` is below the minimum.
std::optional<Profile> planInTime(double distance, double time, const Limits& limits);

/// Profile with given ramps to one cruise speed; nothing if the ramps alone are longer than the distance.
std::optional<Profile> planWithRamps(double distance, const Ramp& in, const Ramp& out);

/// A distance with the limits of the axis that covers it.
struct AxisMove {
    double distance = 0.0;
    Limits limits;
};

/// Profiles of several axes that start and arrive together: the slowest axis sets the time, the others lower
/// their cruise speed and keep their own acceleration and jerk.
std::vector<Profile> synchronise(std::span<const AxisMove> moves);

} // namespace gantry::motion
