// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/evaluate/shot/shot_steps.h"
#include "core/motion/rocking.h"

#include <algorithm>
#include <cmath>
#include <limits>

/// What a drive does to the picture, as docs/models/picture.md has it.
namespace gantry::working {

using units::Kind;

Term AxisSheet::focalPixels() {
    return named("F", "focal length in pixels", "px/rad",
                 input("f_lens", ofShot("focal_length_m")) / input("w_s", "camera/sensor_width_m") *
                     input("W", "camera/delivered_width"));
}

Term AxisSheet::pixelsPerUnit() {
    const char *label = "pixels for a unit of travel", *unit = linear() ? "px/m" : "px/rad";
    const double known = shot_->pixelsPerUnit;
    const auto lateral = [&] { return focalPixels() / input("s_subj", ofShot("subject_distance_m")); };
    const auto reach = [&] {
        return found("x_cam", "distance of the camera from the axis", Kind::Length, rig_.masses[index_].reach,
                     "arm and payload");
    };
    Term out = std::numeric_limits<double>::quiet_NaN();
    if (linear()) {
        if (!shot().towards || axis_.role == Role::Lift) out = lateral();
    } else if (axis_.role == Role::Roll) {
        out = input("W", "camera/delivered_width") / 2.0 * sqrt(1.0 + squared(Term(9.0) / 16.0));
    } else if (axis_.role == Role::Swing || axis_.role == Role::BoomTilt) {
        out = focalPixels() + lateral() * reach();
    } else if (axis_.role == Role::Turntable) {
        out = lateral() * (rig_.masses[index_].reach > 0.0 ? reach()
                                                           : found("x_cam", "half the size of the subject",
                                                                   Kind::Length, 0.1, "nothing is listed"));
    } else if (axis_.role != Role::Focus && axis_.role != Role::Zoom) {
        out = focalPixels();
    }
    if (std::abs(out.value() - known) <= 1e-9 * known) return named("P", label, unit, out);
    return found("P", label, unit, known, "docs/models/picture.md");
}

Term AxisSheet::jumpAngle() {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    Term command = commandAngle();
    if (m_.stepper() != nullptr) return command;
    if (std::holds_alternative<HobbyServo>(axis_.motor))
        return max(command,
                   in("φ_range", "range_rad") * in("t_dead", "dead_band_s") / in("t_span", "pulse_span_s"));
    return max(command, 2.0 * pi() / in("N_enc", "loop/counts_per_turn"));
}

Term AxisSheet::angleError() {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    if (m_.stepper() != nullptr) {
        commandAngle(); // writes the full step down
        return in("c_step", "step_accuracy") * *known("θ_full");
    }
    if (std::holds_alternative<HobbyServo>(axis_.motor))
        return 0.5 * (commandAngle() + in("φ_range", "range_rad") * in("t_dead", "dead_band_s") /
                                           in("t_span", "pulse_span_s"));
    return 2.0 * pi() / in("N_enc", "loop/counts_per_turn");
}

Term AxisSheet::stepAccuracyPixels() {
    return named("e_acc", "error of a step, either way", Kind::Pixels,
                 angleError() * travelPerRad() * pixelsPerUnit());
}

Term AxisSheet::steppingPixels() {
    const Term accuracy = stepAccuracyPixels(),
               jump = named("s_j", "travel of one jump", travelKind(), jumpAngle() * travelPerRad()),
               pixels = named("e_jump", "one jump in the picture", Kind::Pixels, jump * pixelsPerUnit());
    const char* label = "stepping after exposure, peak to peak";
    if (stepwise(shot())) {
        const bool hobby = std::holds_alternative<HobbyServo>(axis_.motor);
        return named("e_step", label, Kind::Pixels, hobby ? 2.0 * accuracy : pixels + 2.0 * accuracy);
    }
    const Term exposure = input("t_exp", ofShot("exposure_s")),
               during =
                   named("N_exp", "jumps during the exposure", Kind::Ratio, topSpeed() / jump * exposure);
    Term stepping = pixels * (during.value() < 0.5 ? 1.0 - during : 0.25 / during);
    if (m_.stepper() != nullptr) {
        const Term frequency = named("f_full", "full steps a second", Kind::Frequency,
                                     topSpeed() / (*known("θ_full") * travelPerRad()));
        stepping = stepping + 2.0 * accuracy *
                                  min(1.0, pi() * frequency / input("f_img", ofShot("frame_rate_hz"))) /
                                  max(1.0, pi() * frequency * exposure);
    }
    return named("e_step", label, Kind::Pixels, stepping);
}

Term AxisSheet::lagPixels() {
    const Term torque = torqueNeeded(acceleration());
    return named("e_lag", "lag of the rotor", Kind::Pixels,
                 lag(torque, motorSpeed()) * travelPerRad() * pixelsPerUnit());
}

Term AxisSheet::frictionBandPixels() {
    const Term torque = named("T_f", "friction at the motor", Kind::Torque, opposing() * travelPerRad());
    return named("e_band", "friction band of the rotor", Kind::Pixels,
                 lag(torque, 0.0) * travelPerRad() * pixelsPerUnit());
}

Term AxisSheet::idleShiftPixels() {
    if (m_.stepper() == nullptr) return 0.0;
    const Term gravity = worstGravity();
    if (gravity.value() == 0.0) return 0.0;
    const Term torque = named("T_gm", "gravity at the motor", Kind::Torque, gravity * travelPerRad());
    const Term teeth = input("N_r", at("motor/rotor_teeth")), running = lag(torque, 0.0);
    Term held = pi() / (2.0 * teeth);
    if (m_.holdAmplitude > 0.0) {
        const Term amplitude = holdTorque();
        held = asin(min(1.0, torque / amplitude)) / teeth;
    }
    return named("e_idle", "shift when the current falls to hold", Kind::Pixels,
                 (held - running) * travelPerRad() * pixelsPerUnit());
}

Term AxisSheet::speedPerFrame() {
    const Term rate = input("f_img", ofShot("frame_rate_hz"));
    if (!stepwise(shot()))
        return named("e_frame", "movement for each frame", Kind::PixelsPerFrame,
                     topSpeed() * pixelsPerUnit() / rate);
    // Taken standing still, the clip moves by one step a picture.
    const Term step = found("s_img", "step between two pictures", travelKind(), shot_->profile.distance,
                            "plan of the shot");
    return named("e_frame", "movement for each frame", Kind::PixelsPerFrame, step * pixelsPerUnit());
}

Term AxisSheet::backlashPixels() {
    const double play = shot_->flank.play.valueOr(0.0);
    if (play == 0.0) return 0.0;
    const Term all = backlash();
    const Term loose =
        std::abs(all.value() - play) <= 1e-9 * play
            ? all
            : found("b_loose", "backlash that opens", travelKind(), play, "docs/models/backlash.md");
    return named("e_play", "backlash let go", Kind::Pixels, loose * pixelsPerUnit());
}

Term AxisSheet::stretchTravel() {
    const Term acceleration = firstAcceleration();
    if (!std::isfinite(m_.outputStiffness) || acceleration.value() == 0.0) return 0.0;
    return named("u", "give between speeding up and braking", travelKind(),
                 2.0 * loadInertia() * acceleration / outputStiffness());
}

Term AxisSheet::stretchPixels() {
    const Term travel = stretchTravel();
    return travel.value() == 0.0
               ? travel
               : named("e_give", "give of the drive", Kind::Pixels, travel * pixelsPerUnit());
}

Term AxisSheet::driftPixels() {
    if (m_.atOnce) return 0.0;
    const Term give = stretchPixels();
    if (give.value() == 0.0) return 0.0;
    const double jerk = std::min(shot_->profile.in.jerkTime, shot_->profile.out.jerkTime);
    const Term rate = input("f_img", ofShot("frame_rate_hz"));
    const Term frames = jerk == 0.0 ? Term(1.0)
                                    : max(1.0, found("t_j", "time in which the acceleration changes",
                                                     Kind::Time, jerk, "plan of the shot") *
                                                   rate);
    const Term slow = give / 2.0 / frames;
    if (!m_.mode) return named("e_drift", "drift", Kind::PixelsPerFrame, slow);
    return named("e_drift", "drift", Kind::PixelsPerFrame,
                 min(slow, give * sin(pi() * min(0.5, modeFrequency() / rate))));
}

Term AxisSheet::jitterPixels() {
    std::vector<Term> parts;
    if (shot_->place.stepping) parts.push_back(steppingPixels());
    if (shot_->windUp.jumpPixels.valueOr(0.0) != 0.0) {
        const Term jump = named("u_jump", "jump at breaking away", travelKind(),
                                2.0 * (still() - friction()) / outputStiffness());
        parts.push_back(named("e_stick", "sticking and slipping", Kind::Pixels, jump * pixelsPerUnit()));
    }
    parts.push_back(backlashPixels());
    return named("e_jit", "jitter, peak to peak", Kind::Pixels, sum(parts));
}

/// What has to be overcome at rest by the drive's springs alone: wind pushes alike at rest and in motion.
Term AxisSheet::still() {
    Term all = breakaway();
    const Term running = friction(), pushed = opposing();
    if (pushed.text() == running.text()) return all;
    return named(linear() ? "F_rel" : "T_rel", "friction at rest", forceKind(), all - (pushed - running));
}

Term AxisSheet::repeatPixels() {
    std::vector<Term> parts{backlashPixels()};
    if (shot_->windUp.repeat.valueOr(0.0) != 0.0) {
        const Term travel = shot().thereAndBack ? 2.0 * friction() / outputStiffness()
                                                : 2.0 * (still() - friction()) / outputStiffness();
        parts.push_back(
            named("e_spring", "springs of the drive", Kind::Pixels, abs(travel) * pixelsPerUnit()));
    }
    if (shot_->place.frictionBand.valueOr(0.0) != 0.0) parts.push_back(frictionBandPixels());
    if (shot_->place.idleShift.valueOr(0.0) != 0.0) {
        const Term shift = idleShiftPixels();
        parts.push_back(shift.value() < 0.0 ? -shift : shift);
    }
    return named("e_rep", "repeat error", Kind::Pixels, sum(parts));
}

Term AxisSheet::windUpTravel() {
    return (friction() + worstGravity()) / outputStiffness();
}

Term AxisSheet::framingPixels() {
    std::vector<Term> parts;
    if (shot_->place.lag.valueOr(0.0) != 0.0) parts.push_back(lagPixels());
    if (shot_->windUp.travel.valueOr(0.0) != 0.0)
        parts.push_back(
            named("e_wind", "wind-up of the drive", Kind::Pixels, windUpTravel() * pixelsPerUnit()));
    if (shot_->place.accuracy.valueOr(0.0) != 0.0) parts.push_back(stepAccuracyPixels());
    if (shot_->roundingPixels.valueOr(0.0) != 0.0) parts.push_back(roundingPixels());
    return named("e_fr", "framing error", Kind::Pixels, sum(parts));
}

Term AxisSheet::roundingPixels() {
    const Term distance =
        found("D_shot", "distance of the shot", travelKind(), shot_->distance.value(), "the shot's movement");
    return named("e_round", "rounded steps per unit", Kind::Pixels,
                 abs(stepsKept() / stepsPerUnit() - 1.0) * distance * pixelsPerUnit());
}

Term AxisSheet::modeFrequency() {
    if (axis_.vibration.frequency.value > 0.0) return input("f_meas", at("vibration/frequency_hz"));
    if (e_.structure.frequency) return axisFrequency();
    const Term give = m_.stepper() != nullptr && m_.torqueAmplitude > 0.0
                          ? 1.0 / outputStiffness() + squared(travelPerRad()) / fieldStiffness()
                          : 1.0 / outputStiffness();
    return named("f_drive", "natural frequency on the drive's spring", Kind::Frequency,
                 sqrt(1.0 / give / loadInertia()) / (2.0 * pi()));
}

Term AxisSheet::swingBand() {
    if (m_.swingBand == 0.0) return 0.0;
    return named("x_F", "half the band in which friction holds it", travelKind(),
                 friction() / (loadInertia() * squared(2.0 * pi() * modeFrequency())));
}

/// [U] of the swing that the stop leaves, what friction holds back taken off.
Term AxisSheet::swingLeft() {
    const char* label = "swing at the end of the ramp";
    if (shot().swingSeen > 0.0)
        return named("x_s", label, travelKind(), input("e_seen", ofShot("swing_seen_px")) / pixelsPerUnit());
    const motion::Profile& p = shot_->profile;
    const bool measured = axis_.vibration.frequency.value > 0.0;
    Term left = 0.0;
    if (m_.atOnce) {
        const Term rate = 2.0 * pi() * modeFrequency(), first = firstAcceleration();
        left =
            topSpeed() / (first.value() > 0.0 ? rate * sqrt(1.0 + squared(rate * topSpeed() / first)) : rate);
    } else {
        left = found("x_left", measured ? "swing that the ramps leave" : "swing that the ramps leave at most",
                     travelKind(),
                     measured ? motion::rockingAfter(p, *m_.mode) : motion::mostRockingAfter(p, *m_.mode),
                     "docs/models/rocking.md");
    }
    const Term band = swingBand();
    return named("x_s", label, travelKind(), band.value() == 0.0 ? left : max(0.0, left - band));
}

Term AxisSheet::rockingPixels() {
    const char* label = "residual vibration, peak to peak";
    const Term swing = swingLeft();
    if (shot_->rocking.pixels.value() == 0.0 && m_.swingBand > 0.0) // friction does not let it begin
        return named("e_swing", label, Kind::Pixels, max(0.0, swing - swingBand()) * pixelsPerUnit());
    return named("e_swing", label, Kind::Pixels, 2.0 * swing * pixelsPerUnit());
}

Term AxisSheet::settlingTime() {
    const char* label = "settling time to the jitter limit";
    const Term swing = swingLeft(),
               allowed = named("x_a", "swing that is allowed, either way", travelKind(),
                               0.5 * input("e_max", ofShot("limits/jitter_px")) / pixelsPerUnit());
    const Term rate = modeFrequency(), damping = dampingRatio();
    const Term dies = ln(swing / allowed) / (damping * 2.0 * pi() * rate);
    if (swing.value() <= allowed.value()) return named("t_settle", label, Kind::Time, max(0.0, dies));
    if (m_.swingBand == 0.0) return named("t_settle", label, Kind::Time, dies);
    const Term half = named("t_half", "time of half a swing", Kind::Time,
                            1.0 / (2.0 * rate * sqrt(1.0 - squared(damping))));
    const double known = shot_->rocking.settling.value();
    if (known == 0.0) // friction holds it
        return named("t_settle", label, Kind::Time, max(0.0, swing / swingBand() - 1.0) * half);
    const double count = std::floor(known / half.value() * (1.0 + 1e-12));
    const Term whole =
        found("N_half", "whole half periods until then", Kind::Count, count, "docs/models/settling.md");
    return named("t_settle", label, Kind::Time,
                 whole * half + found("t_rest", "from there until it stays within", Kind::Time,
                                      known - count * half.value(), "docs/models/settling.md"));
}

Term AxisSheet::dampingRatio() {
    if (axis_.vibration.frequency.value > 0.0 || !e_.structure.frequency)
        return input("ζ", at("vibration/damping"));
    return found("ζ", "damping of all that gives way", Kind::Percentage, m_.mode->damping,
                 "weighted by what each part gives way");
}

} // namespace gantry::working
