// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motion/profile.h"

#include <optional>

namespace gantry::motion {

/// One mode of what an axis carries: x″ + 2ζω x′ + ω² x = −a(t).
struct Mode {
    double frequency = 5.0; ///< [Hz] undamped, > 0
    double damping = 0.0;   ///< [1] of critical, 0 ≤ ζ < 1

    friend bool operator==(const Mode&, const Mode&) = default;
};

/// Amplitude [U] of the rocking that a profile leaves at its end: |Σ Δj_k e^{s(T−t_k)}| / (ω² ω_d) over its
/// steps of jerk, s = −ζω + iω_d; steps of acceleration count |s| times as much. (Biagiotti & Melchiorri,
/// Trajectory Planning, ch. 7; docs/models/rocking.md.) Exact for the mode.
double rockingAfter(const Profile& profile, const Mode& mode);

/// The most that can be left at the end whatever the frequency really is: 4j/ω³, 2a/ω² or v/ω of the ramp
/// out, the least of them, and what is left of the same for the ramp in. For frequencies that are put
/// together from estimates, whose phases mean nothing.
double mostRockingAfter(const Profile& profile, const Mode& mode);

/// Largest deflection [U] while the profile runs, about a/ω² plus the rocking of its ramps: twice a/ω² at
/// most with steps of acceleration.
double rockingDuring(const Profile& profile, const Mode& mode);

/// Seconds until an amplitude has died down to `tolerance`: ln(A/tol)/(ζω); 0 if it is below already, nothing
/// without damping.
std::optional<double> settlingTime(double amplitude, double tolerance, const Mode& mode);

/// Ramp to a speed whose jerk phases last exactly one period: it leaves nothing behind when undamped. With
/// less acceleration than allowed where the speed does not need it.
Ramp tunedRamp(double speed, double acceleration, double period);

/// Rest to rest with such ramps: the period is kept also where the distance is too short to reach the speed
/// or the acceleration, for the null needs the ramp that is really driven.
Profile planTuned(double distance, const Limits& limits, double period);

/// Trapezoid whose ramps last a whole number of periods, the fewest that keep the acceleration: what vibrates
/// least without a jerk limit. Ramps only where the distance allows, with less speed.
Profile planTunedTrapezoid(double distance, const Limits& limits, double period);

/// Half-sine ramps: acceleration A sin(πt/T), speed 2AT/π. Peak acceleration and largest jerk within the
/// limits.
Profile planHalfSine(double distance, const Limits& limits);

} // namespace gantry::motion
