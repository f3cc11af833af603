// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>

/// A geared motor that is switched on for a pulse between pictures, and a head that turns by itself. Lengths
/// in m, times in s.
namespace gantry::intervals {

struct PulsedMotor {
    double speed = 0.0;      ///< [m/s] > 0 that it comes to
    double deadTime = 0.0;   ///< before it moves at all
    double runUp = 0.0;      ///< time constant of coming to speed
    double coastTime = 0.0;  ///< time constant of coasting; 0: friction alone slows it
    double coastBrake = 0.0; ///< [m/s²] > 0 by which friction slows it
};
struct PulseWay {
    double driven = 0.0, coasted = 0.0; ///< [m]
    double coasting = 0.0;              ///< [s]
    double perSecond = 0.0;             ///< [m/s] more way for a longer pulse
    double perSpeed = 0.0;              ///< [m] more way for twice the speed, to first order
    double way() const { return driven + coasted; }
};
/// Way of one pulse: v(q − τ(1 − e^(−q/τ))) driven in q past the dead time, then coasting τc v₀ − a τc² ln(1
/// + v₀/(a τc)). Nothing for a pulse no longer than the dead time.
PulseWay wayOf(const PulsedMotor& motor, double pulse);
/// The pulse for a way [m] > 0, to 1e-12.
double pulseFor(const PulsedMotor& motor, double way);

struct PulseScatter {
    double pulse = 0.0;    ///< [s] standard deviation of the timer's pulse
    double speed = 0.0;    ///< [1] … of the speed, from one pulse to the next
    double deadTime = 0.0; ///< [s] … of the dead time
};
/// Standard deviation [m] of the way of one pulse, to first order.
double scatterOf(const PulsedMotor& motor, double pulse, const PulseScatter& scatter);

/// Moves that fit on a rail: by the mean; and surely, with a speed that is `drift` [1] high all the time and
/// z standard deviations of their sum, m s + z σ √m ≤ rail.
struct MovesThatFit {
    std::int64_t byMean = 0, surely = 0;
};
MovesThatFit movesThatFit(const PulsedMotor& motor, double pulse, const PulseScatter& scatter, double rail,
                          double drift, double z);

/// A head that turns by itself while a slide runs past a subject, and has a longest time of its own.
struct SeparateHead {
    double slideTime = 0.0, travel = 0.0; ///< [s], [m] > 0
    double subject = 0.0;                 ///< [m] square to the middle of the travel, > 0
    double turn = 0.0;                    ///< [rad] that it makes in its time
    double longest = 0.0;                 ///< [s] that it can be set to
    double delay = 0.0;                   ///< [s] after the slide
    double focal = 0.0;                   ///< [px]
    double interval = 0.0;                ///< [s] > 0
};
struct SeparateHeadResults {
    double time = 0.0;                          ///< [s] that it turns
    double frozenShare = 0.0;                   ///< [1] of the slide's time in which it no longer does
    std::int64_t lastTurning = 0;               ///< picture, the last at or before it stops
    double errorAtStop = 0.0, errorAtEnd = 0.0; ///< [px] positive: it lags
};
SeparateHeadResults followedBy(const SeparateHead& head);

} // namespace gantry::intervals
