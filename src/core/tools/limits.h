// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <optional>
#include <string_view>
#include <vector>

namespace gantry {

/// Why an axis should go no faster, no harder, no more abruptly.
enum class LimitReason {
    Torque,     ///< wanted margin at nominal voltage
    LowBattery, ///< the same at the lowest supply voltage
    PulseRate,
    MotorTop,     ///< the motor has nothing left
    Whirl,        ///< a screw whips; a fifth is kept clear of it
    Judder,       ///< detail crosses the picture too fast
    PeopleSpeed,  ///< the cap that people near the rig set
    PeopleEnergy, ///< the same for the energy of what moves
    PartSpeed,    ///< belts and teeth at their pitch circle
    PartStrength,
    Slip, ///< roller or wheel
    CordSlack,
    Tipping,     ///< the whole rig comes down to its floor against tipping
    RampPicture, ///< what rocks on the axis leans more than the jitter limit while it speeds up
    OnePeriod    ///< jerk phases as long as one period of what rocks
};

/// Plain words for a reason: "pulse rate".
std::string_view limitName(LimitReason reason);

struct Limit {
    LimitReason reason = LimitReason::Torque;
    double value = 0.0; ///< [U/s], [U/s²] or [U/s³]
};

struct Triple {
    double speed = 0.0, acceleration = 0.0, jerk = 0.0; ///< jerk 0: the controller has no such setting
};

/// How an axis is best ramped by the controller at hand.
enum class RampAdvice {
    NoRamps,        ///< stay below the start-stop rate
    Trapezoid,      ///< nothing rocks that is known
    TunedTrapezoid, ///< ramps of a whole number of periods
    SCurve,
    TunedSCurve ///< jerk phases of one period
};

enum class BandReason {
    RotorResonance,
    RotorOnDrive,
    FullStepsOnMode,
    MicrostepsOnMode,
    VisibleSteps,
    Noise
};

/// Speeds [U/s] to stay out of.
struct SpeedBand {
    BandReason reason = BandReason::RotorResonance;
    double low = 0.0, high = 0.0;
};

/// A shot on the speed strip, with the nearest speed outside of all bands if its own lies in one.
struct StripShot {
    ShotIndex shot;
    double speed = 0.0, acceleration = 0.0;
    std::optional<double> better;
    bool tooFast = false, tooHard = false; ///< beyond the recommended limits, since the axis cannot follow it
};

/// Largest accelerations [U/s²] at a speed, along the whole ramp up to it.
struct EnvelopePoint {
    double speed = 0.0, atOne = 0.0, atWanted = 0.0;
    double stopsIn = 0.0;   ///< [U] from this speed with the set ramp
    double stopsHard = 0.0; ///< [U] from this speed with all the torque there is; 0: not at all
};

struct AxisLimits {
    Reason problem = Reason::None; ///< what is missing; nothing else is filled then
    std::optional<motion::Mode> mode;
    bool modeMeasured = false;
    /// Each ascending: the first one binds. Accelerations hold at the recommended speed.
    std::vector<Limit> speed, acceleration, jerk;
    Triple largest;     ///< the binding ones
    Triple recommended; ///< with room: what the shots need and a quarter more, never above `largest`; every
                        ///< shot that the axis can follow runs within it
    RampAdvice ramps = RampAdvice::Trapezoid;
    Figure instantStep; ///< [U/s] for controllers that start and corner with a jump in place of a jerk limit
    Figure startStop;   ///< [U/s] that it jumps to and from without a ramp
    Figure stoppingOrdinary;  ///< [U] from the recommended speed with the recommended ramp
    Figure stoppingEmergency; ///< [U] from there with all the torque there is
    Figure finestMove;        ///< [U] that really moves after a reversal against friction
    int usefulMicrosteps = 0; ///< beyond which finer only costs pulse rate; 0 where it has no meaning
    Figure
        stickSlipPixels; ///< [px] by which it jumps when static friction lets go: twice what the springs hold
    Figure ripplePixels; ///< [px] by which detent torque bends the course, peak to peak
    Figure powerUpPixels; ///< [px] that switching on may jump: two full steps
    std::vector<SpeedBand> bands;
    std::vector<StripShot> shots;
    std::vector<EnvelopePoint> envelope; ///< speeds evenly spaced on a logarithm
};

template <class V, Of<AxisLimits>... S>
void describe(V& v, S&... s) {
    v.figure(result("start_stop_m_s", K::Speed, "start_stop_rad_s", K::AngularSpeed, "start-stop speed"),
             s.startStop...);
    v.figure(result("instant_speed_step_m_s", K::Speed, "instant_speed_step_rad_s", K::AngularSpeed,
                    "instant speed step"),
             s.instantStep...);
    v.figure(result("stopping_ordinary_m", K::Length, "stopping_ordinary_rad", K::Angle,
                    "stopping distance, recommended ramp"),
             s.stoppingOrdinary...);
    v.figure(result("stopping_emergency_m", K::Length, "stopping_emergency_rad", K::Angle,
                    "stopping distance, full torque"),
             s.stoppingEmergency...);
    v.figure(result("finest_move_m", K::Length, "finest_move_rad", K::Angle, "smallest reliable move"),
             s.finestMove...);
    v.rank(mark("useful_microsteps", "useful microsteps"), s.usefulMicrosteps...);
    v.figure(result("detent_ripple_px", "detent ripple, peak to peak", K::Pixels), s.ripplePixels...);
    v.figure(result("stick_slip_px", "stick-slip jump", K::Pixels), s.stickSlipPixels...);
    v.figure(result("power_up_jump_px", "maximum jump at power-up", K::Pixels), s.powerUpPixels...);
}

/// Pure; for the chosen axis, on demand. Every acceleration is exact to 1e-9, speeds to 1e-6 relative.
AxisLimits axisLimits(const Project& project, const Axis& axis, const AxisEvaluation& evaluation);

/// Recommended triples of all axes with one ramp time for all, so that they feel alike: the gentlest axis
/// sets it, the others ramp no harder than they may. Axes with a problem keep zeros.
std::vector<Triple> alike(const std::vector<AxisLimits>& limits);

} // namespace gantry
