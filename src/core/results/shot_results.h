// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/shot_index.h"
#include "core/motion/profile.h"
#include "core/motor/noise.h"
#include "core/results/describe_figures.h"

/// What one shot asks of one axis and what the picture makes of it, in parts that have numbers, a reason why
/// not, or no meaning for a drive as a whole. U is m or rad.
namespace gantry {

struct ShotMotion {
    Figure topSpeed;         ///< [U/s]
    Figure acceleration;     ///< [U/s²] peak
    Figure jerk;             ///< [U/s³] that the ramps need
    Figure time;             ///< [s]
    Figure stoppingDistance; ///< [U] from the shot's top speed with its own ramp out
    Figure motorSpeed;       ///< [rad/s]
    Figure energy;           ///< [J] of all that moves with it, at top speed
};
template <class V, Of<ShotMotion>... S>
void describe(V& v, S&... s) {
    v.figure(result("top_speed_m_s", K::Speed, "top_speed_rad_s", K::AngularSpeed, "top speed"),
             s.topSpeed...);
    v.figure(result("acceleration_m_s2", K::Acceleration, "acceleration_rad_s2", K::AngularAcceleration,
                    "peak acceleration"),
             s.acceleration...);
    v.figure(result("jerk_m_s3", K::Jerk, "jerk_rad_s3", K::AngularJerk, "jerk"), s.jerk...);
    v.figure(result("time_s", "time", K::Time), s.time...);
    v.figure(result("stopping_distance_m", K::Length, "stopping_distance_rad", K::Angle,
                    "stopping distance from top speed"),
             s.stoppingDistance...);
    v.figure(result("motor_speed_rpm", "motor speed", K::RotationRate, perMinute), s.motorSpeed...);
    v.figure(result("kinetic_energy_J", "kinetic energy at top speed", K::Energy), s.energy...);
}

/// Torque asked and there, at the motor unless said otherwise.
struct ShotTorque {
    Figure force;           ///< [N] or [N·m] at the mechanism, largest on the ramp
    Figure lastShaft;       ///< [N·m] at the last shaft of the drive, largest on the ramp
    Figure needed;          ///< [N·m] largest on the ramp
    Figure breakaway;       ///< [N·m]
    Figure available;       ///< [N·m] at the motor speed
    Figure availableLow;    ///< [N·m] at the motor speed and the lowest supply voltage
    Figure margin;          ///< [1] available over needed, ramp and break-away
    Figure leastCurrent;    ///< [A rms] that still gives the wanted margin
    Figure rms;             ///< [N·m] over the shot
    Figure continuous;      ///< [N·m] that the motor stands for hours at the motor speed
    Figure maxAcceleration; ///< [U/s²] with the wanted margin along the ramp to top speed
    Figure electricalPower; ///< [W] from the supply at its worst
};
template <class V, Of<ShotTorque>... S>
void describe(V& v, S&... s) {
    v.figure(result("force_needed_N", K::Force, "load_torque_needed_Nm", K::Torque,
                    "force or torque needed at the load"),
             s.force...);
    v.figure(result("last_shaft_torque_Nm", "torque needed at the last shaft", K::Torque), s.lastShaft...);
    v.figure(result("torque_needed_Nm", "torque needed at the motor", K::Torque), s.needed...);
    v.figure(result("breakaway_torque_Nm", "break-away torque at the motor", K::Torque), s.breakaway...);
    v.figure(result("torque_available_Nm", "torque available at motor speed", K::Torque), s.available...);
    v.figure(
        result("torque_available_low_voltage_Nm", "torque available at the lowest supply voltage", K::Torque),
        s.availableLow...);
    v.figure(result("torque_margin", "torque margin", K::Ratio), s.margin...);
    v.figure(result("least_current_rms_A", "min. current for the target margin", K::Current),
             s.leastCurrent...);
    v.figure(result("torque_rms_Nm", "rms torque over the shot", K::Torque), s.rms...);
    v.figure(result("torque_continuous_Nm", "continuous torque of the motor", K::Torque), s.continuous...);
    v.figure(result("max_acceleration_m_s2", K::Acceleration, "max_acceleration_rad_s2",
                    K::AngularAcceleration, "max. acceleration at the target margin"),
             s.maxAcceleration...);
    v.figure(result("electrical_power_W", "maximum power from the supply", K::Power), s.electricalPower...);
}

/// Of a motor whose speed is set by hand or by a share of its voltage.
struct SpeedKnob {
    Figure setting; ///< [1] of full speed: the knob or duty that gives the top speed
    Figure slowest; ///< [1] of the shot's top speed, the least that runs steadily
};
template <class V, Of<SpeedKnob>... S>
void describe(V& v, S&... s) {
    v.figure(result("speed_setting", "speed setting", K::Percentage), s.setting...);
    v.figure(result("slowest_setting", "lowest steady speed over top speed", K::Percentage), s.slowest...);
}

/// Of a drive that starts without a ramp.
struct SuddenStart {
    Figure time;       ///< [s] to 95 % of its speed
    Figure lost;       ///< [U] behind one that ran at once
    Figure current;    ///< [A] of a brushed motor at the moment of switching on, or of reversing
    Figure supplyDrop; ///< [V] of the supply then
    Figure share;      ///< [1] torque at its setting over break-away torque, at rest
    Figure catchSpeed; ///< [U/s] up to which a stepper's field still catches the rotor
};
template <class V, Of<SuddenStart>... S>
void describe(V& v, S&... s) {
    v.figure(result("start_time_s", "time to reach 95 % of its speed without a ramp", K::Time), s.time...);
    v.figure(result("start_lost_m", K::Length, "start_lost_rad", K::Angle, "travel lost in starting so"),
             s.lost...);
    v.figure(result("start_current_A", "highest current of starting and stopping", K::Current), s.current...);
    v.figure(result("start_supply_drop_V", "voltage drop at switching on", K::Voltage), s.supplyDrop...);
    v.figure(result("start_ratio", "torque at the setting over break-away torque", K::Ratio), s.share...);
    v.figure(result("catch_speed_m_s", K::Speed, "catch_speed_rad_s", K::AngularSpeed,
                    "speed at which the field still catches the rotor"),
             s.catchSpeed...);
}

/// By how much the springs of the drive wind up. U is m or rad.
struct WindUp {
    Figure travel;       ///< [U] that the load trails in steady motion, by friction and gravity
    Figure reversalLost; ///< [U] before the load turns round
    Figure jump;         ///< [U] by which it breaks away, the smallest reliable move
    Figure smoothFrom;   ///< [U/s] below which it sticks and slips; none where friction does not rise at rest
    Figure startDelay;   ///< [s] before it moves at all
    Figure repeat;       ///< [U] by which stops differ: of a jump, or of a reversal where it stops both ways
    Figure jumpPixels;   ///< [px] of a jump, where the shot sticks and slips; else 0
};
template <class V, Of<WindUp>... S>
void describe(V& v, S&... s) {
    v.figure(result("wind_up_m", K::Length, "wind_up_rad", K::Angle, "wind-up of the drive in steady motion"),
             s.travel...);
    v.figure(result("reversal_lost_m", K::Length, "reversal_lost_rad", K::Angle, "travel lost at reversal"),
             s.reversalLost...);
    v.figure(result("smallest_move_m", K::Length, "smallest_move_rad", K::Angle, "smallest reliable move"),
             s.jump...);
    v.figure(result("smooth_from_m_s", K::Speed, "smooth_from_rad_s", K::AngularSpeed,
                    "speed below which it sticks and slips"),
             s.smoothFrom...);
    v.figure(result("start_delay_s", "delay before the load moves", K::Time), s.startDelay...);
    v.figure(result("springs_repeat_m", K::Length, "springs_repeat_rad", K::Angle,
                    "difference of stops by the drive's springs"),
             s.repeat...);
    v.figure(result("stick_slip_px", "jump by sticking and slipping", K::Pixels), s.jumpPixels...);
}

struct RegulatorHeat {
    Figure heat;        ///< [W] lasting
    Figure temperature; ///< [°C] of its chip
};
template <class V, Of<RegulatorHeat>... S>
void describe(V& v, S&... s) {
    v.figure(result("regulator_heat_W", "heat in the regulator", K::Power), s.heat...);
    v.figure(result("regulator_temperature_C", "temperature of the regulator's chip", K::Celsius),
             s.temperature...);
}

/// Of a drive that is told places: by how far the rotor trails its command.
struct RotorLag {
    Figure angle;  ///< [rad] of the rotor
    Figure travel; ///< [U]
};
template <class V, Of<RotorLag>... S>
void describe(V& v, S&... s) {
    v.figure(result("lag_rad", "rotor lag", K::Angle), s.angle...);
    v.figure(result("lag_m", K::Length, "lag_travel_rad", K::Angle, "rotor lag, as travel"), s.travel...);
}

/// Of a drive that is told places: how finely and truly it keeps them, in the picture.
struct PlaceErrors {
    Figure lag;          ///< [px]
    Figure step;         ///< [px] of one microstep
    Figure stepping;     ///< [px] peak to peak left of microsteps and full-step error after exposure
    Figure accuracy;     ///< [px] ± error of a full step
    Figure frictionBand; ///< [px] within which the rotor may come to rest
    Figure idleShift;    ///< [px] when run current falls to hold current
};
template <class V, Of<PlaceErrors>... S>
void describe(V& v, S&... s) {
    v.figure(result("lag_px", "rotor lag", K::Pixels), s.lag...);
    v.figure(result("step_px", "one microstep", K::Pixels), s.step...);
    v.figure(result("stepping_px", "stepping after exposure, peak to peak", K::Pixels), s.stepping...);
    v.figure(result("step_accuracy_px", "full-step error, ±", K::Pixels), s.accuracy...);
    v.figure(result("friction_band_px", "friction dead band", K::Pixels), s.frictionBand...);
    v.figure(result("idle_shift_px", "shift when current falls to hold", K::Pixels), s.idleShift...);
}

/// What play and springs do to the picture, and the four kinds of error they add up to.
struct PictureErrors {
    Figure backlash; ///< [px] that gets loose; 0 where it is kept on one side
    Figure stretch;  ///< [px]
    Figure drift;    ///< [px/frame]
    Figure jitter;   ///< [px] peak to peak
    Figure repeat;   ///< [px]
    Figure framing;  ///< [px]
};
template <class V, Of<PictureErrors>... S>
void describe(V& v, S&... s) {
    v.figure(result("backlash_px", "backlash", K::Pixels), s.backlash...);
    v.figure(result("stretch_px", "elastic travel between acceleration and braking", K::Pixels),
             s.stretch...);
    v.figure(result("drift_px_per_frame", "slow drift", K::PixelsPerFrame), s.drift...);
    v.figure(result("jitter_px", "jitter, peak to peak", K::Pixels), s.jitter...);
    v.figure(result("repeat_px", "repeat error", K::Pixels), s.repeat...);
    v.figure(result("framing_px", "framing error", K::Pixels), s.framing...);
}

/// What keeps the play of a drive on one side through a shot, in the unit of the load's force.
struct FlankHold {
    Figure holding;    ///< [N] or [N·m] what rests on the flank at its weakest; 0 where it turns over
    Figure disturbing; ///< [N] or [N·m] what ramps and disturbances need against it
    Figure ratio;      ///< [1] the one over the other
    Figure play;       ///< [U] that gets loose; none where it is held
    Figure missing;    ///< [N] or [N·m] to one side that would hold it; none where it is held
    Figure place;      ///< [U] from the low end where it lets go first; none where the moment decides
    Figure moment;     ///< [s] after the start, where the place does not decide
};
template <class V, Of<FlankHold>... S>
void describe(V& v, S&... s) {
    v.figure(result("flank_holding_N", K::Force, "flank_holding_Nm", K::Torque,
                    "what keeps the backlash on one side"),
             s.holding...);
    v.figure(result("flank_disturbing_N", K::Force, "flank_disturbing_Nm", K::Torque,
                    "what may take it off there"),
             s.disturbing...);
    v.figure(result("flank_ratio", "the one over the other", K::Ratio), s.ratio...);
    v.figure(result("flank_play_m", K::Length, "flank_play_rad", K::Angle, "backlash that comes loose"),
             s.play...);
    v.figure(result("flank_missing_N", K::Force, "flank_missing_Nm", K::Torque,
                    "spring to one side that would hold the backlash"),
             s.missing...);
    v.figure(
        result("lets_go_at_m", K::Length, "lets_go_at_rad", K::Angle, "where the backlash comes loose first"),
        s.place...);
    v.figure(result("lets_go_at_s", "when it does so, where no place decides", K::Time), s.moment...);
}

/// How the picture moves.
struct PictureMotion {
    Figure speed;        ///< [px/s]
    Figure perFrame;     ///< [px]
    Figure blur;         ///< [px]
    Figure crossingTime; ///< [s] for detail to cross the picture
};
template <class V, Of<PictureMotion>... S>
void describe(V& v, S&... s) {
    v.figure(result("picture_speed_px_s", "speed of the picture", K::PixelsPerSecond), s.speed...);
    v.figure(result("picture_speed_px_per_frame", "speed of the picture, each frame", K::PixelsPerFrame),
             s.perFrame...);
    v.figure(result("blur_px", "blur", K::Pixels), s.blur...);
    v.figure(result("crossing_time_s", "time for details to cross the frame", K::Time), s.crossingTime...);
}

/// What goes on rocking when the axis has stopped.
struct Rocking {
    Figure pixels;   ///< [px] peak to peak, left when the ramp out ends
    Figure settling; ///< [s] after it until only the jitter limit is left
    Figure rest;     ///< [px] off the place where friction leaves it; none where no friction stops it
};
template <class V, Of<Rocking>... S>
void describe(V& v, S&... s) {
    v.figure(result("rocking_px", "residual vibration, peak to peak", K::Pixels), s.pixels...);
    v.figure(result("rocking_time_s", "settling time to the jitter limit", K::Time), s.settling...);
    v.figure(result("rest_offset_px", "offset at which friction stops the swing", K::Pixels), s.rest...);
}

/// What rail or arm do to the picture by bending.
struct PictureSag {
    Figure pixels; ///< [px] by which it shifts and turns over the travel
    Figure drift;  ///< [px/frame] of it at the shot's top speed
};
template <class V, Of<PictureSag>... S>
void describe(V& v, S&... s) {
    v.figure(result("sag_px", "picture shift by deflection over the travel", K::Pixels), s.pixels...);
    v.figure(result("sag_px_per_frame", "picture drift by deflection", K::PixelsPerFrame), s.drift...);
}

/// What a slide along the lens asks of the focus.
struct FocusPull {
    Figure nearest; ///< [m] from the subject, at the nearer end
    Figure blur;    ///< [px] of the subject at the end with the focus left where it began
    Figure turn;    ///< [rad] of a focus axis' ring that keeps it sharp, signed
    Figure left;    ///< [px] of blur with the movement that this axis has in the shot
};
template <class V, Of<FocusPull>... S>
void describe(V& v, S&... s) {
    v.figure(result("nearest_subject_m", "nearest distance of the subject", K::Length), s.nearest...);
    v.figure(result("unpulled_blur_px", "blur without pulling the focus", K::Pixels), s.blur...);
    v.figure(result("focus_turn_rad", "ring rotation that keeps the subject in focus", K::Angle), s.turn...);
    v.figure(result("focus_blur_px", "blur with the focus axis as it moves", K::Pixels), s.left...);
}

struct ShotEvaluation {
    ShotIndex shot;
    Reason problem = Reason::None; ///< why there is no profile, if so
    motion::Profile profile;       ///< empty if there is a problem
    bool jerkExceeded = false;     ///< the ease is shorter than the jerk setting allows
    bool follows = false;          ///< no movement of its own: it keeps the subject framed
    bool fromMove = false;         ///< its speeds, accelerations and distance are those of a planned move
    double pixelsPerUnit = 0.0;    ///< [px/U] in the delivered picture; 0 where nothing says
    motor::Noise noise;

    Figure distance; ///< [U] without sign
    Figure carried;  ///< [N] or [N·m] from the axes below moving in the same shot
    ShotMotion motion;
    Figure pulseRate; ///< [Hz] of a drive that takes pulses
    ShotTorque torque;
    Figure sourceCurrent; ///< [A] that a brushed motor draws at its worst
    SpeedKnob knob;
    SuddenStart start;
    WindUp windUp;
    RegulatorHeat regulator;
    Figure slackDeceleration; ///< [U/s²] at which a cord goes slack

    RotorLag lag;
    PlaceErrors place;
    bool loadReverses = false; ///< the backlash lets go within the shot
    FlankHold flank;
    Figure stretchTravel;  ///< [U] between speeding up and braking
    Figure guidePixels;    ///< [px] by which play of the guides turns the picture
    Figure roundingPixels; ///< [px] over the shot, from rounded steps per unit
    PictureErrors errors;
    PictureMotion picture;
    Rocking rocking;
    PictureSag sag;
    FocusPull focus;
};
template <class V, Of<ShotEvaluation>... S>
void describe(V& v, S&... s) {
    v.figure(result("distance_m", K::Length, "distance_rad", K::Angle, "distance"), s.distance...);
    v.figure(result("carried_N", K::Force, "carried_Nm", K::Torque, "load from the axes below"),
             s.carried...);
    describe(v, s.motion...);
    v.figure(result("pulse_rate_hz", "pulse rate", K::Frequency), s.pulseRate...);
    describe(v, s.torque...);
    v.figure(result("source_current_A", "maximum current of the brushed motor", K::Current),
             s.sourceCurrent...);
    describe(v, s.knob...);
    describe(v, s.start...);
    describe(v, s.windUp...);
    describe(v, s.regulator...);
    v.figure(result("slack_deceleration_m_s2", "deceleration at which the cord goes slack", K::Acceleration),
             s.slackDeceleration...);
    describe(v, s.lag...);
    describe(v, s.place...);
    v.flag(mark("load_reverses", "backlash comes loose within the shot"), s.loadReverses...);
    describe(v, s.flank...);
    v.figure(result("stretch_m", K::Length, "stretch_rad", K::Angle,
                    "elastic travel between acceleration and braking, at the axis"),
             s.stretchTravel...);
    v.figure(result("guide_px", "rotation by play of the guides", K::Pixels), s.guidePixels...);
    v.figure(result("rounding_px", "error from rounded steps per unit", K::Pixels), s.roundingPixels...);
    describe(v, s.errors...);
    describe(v, s.picture...);
    describe(v, s.rocking...);
    describe(v, s.sag...);
    describe(v, s.focus...);
    v.flag(mark("follows_subject", "follows the subject without a move of its own"), s.follows...);
    v.flag(mark("from_move", "as a planned move runs it"), s.fromMove...);
    v.rank(mark("noise_rank", "noise rank, 1 silent to 4 loud"), s.noise.rank...);
}

} // namespace gantry
