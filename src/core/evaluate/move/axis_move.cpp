// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/axis_move.h"

#include "core/drivetrain/back_drive.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// What hangs on a drive at a moment. A weight of which the side is not known counts where it hurts.
double steadyAt(const DriveModel& m, const AxisMoment& moment, int direction) {
    return m.lasting.at(m.lowPlace + moment.place + moment.leans) + moment.carried +
           direction * m.lasting.unknown;
}

/// Torque [N·m] to break away, the way it goes or, where nothing tells, the harder one.
double breakawayAt(const DriveModel& m, const AxisMoment& moment, int direction) {
    drivetrain::Chain still = m.chain;
    still.load.steady = steadyAt(m, moment, direction);
    still.load.coulomb = m.staticFriction;
    for (drivetrain::Stage& s : still.stages)
        if (s.startEfficiency > 0.0) s.efficiency = s.startEfficiency;
    return std::abs(drivetrain::motorTorque(still, 0.0, 0.0, direction));
}

/// @param chain of the drive, whose steady load is set to that of the moment
double torqueOf(const DriveModel& m, drivetrain::Chain& chain, const AxisMoment& moment, int direction) {
    chain.load.steady = steadyAt(m, moment, direction);
    return std::abs(drivetrain::motorTorque(chain, std::abs(moment.speed) / m.outputPerRad,
                                            moment.acceleration / m.outputPerRad, direction));
}

int directionOf(const AxisMoment& moment) {
    const double way = moment.speed != 0.0 ? moment.speed : moment.acceleration;
    return way < 0.0 ? -1 : 1;
}

/// Margins over all moments, with one of the two ends of a drum.
void fillTorque(AxisMoveResults& out, const DriveModel& m, std::span<const AxisMoment> moments,
                double topSpeed) {
    const double unbounded = 1e6;
    drivetrain::Chain chain = m.chain;                           // one for all moments
    const double least = m.available(topSpeed / m.outputPerRad); // no motor gives more the faster it turns
    for (std::size_t i = 0; i < moments.size(); ++i) {
        const AxisMoment& now = moments[i];
        const bool still = stands(now, topSpeed);
        // It breaks away where it stands and moves at the next moment.
        const AxisMoment* next = i + 1 < moments.size() ? &moments[i + 1] : nullptr;
        const bool starts = still && next != nullptr && !stands(*next, topSpeed);
        if (still && !starts) continue; // held, or just come to rest, which friction helps to
        const int direction = directionOf(starts ? *next : now);
        const double moving = torqueOf(m, chain, now, direction),
                     needed = starts ? std::max(moving, breakawayAt(m, now, direction)) : moving;
        if (out.margin && least >= (1.0 + 1e-12) * needed * out.margin.value()) continue;
        const double available = m.available(std::abs(now.speed) / m.outputPerRad);
        if (!std::isfinite(available)) continue;
        const double margin = needed > 0.0 ? std::min(available / needed, unbounded) : unbounded;
        if (out.margin && margin >= out.margin.value()) continue;
        out.margin = Figure::of(margin);
        out.needed = Figure::of(needed);
        out.available = Figure::of(available);
        out.at = Figure::of(now.time);
        out.carried = Figure::of(direction * now.carried);
        out.starts = starts && needed > moving;
    }
}

/// The longest time without a break in which the speed stays between two; speeds run straight between
/// moments.
void fillStay(AxisMoveResults& out, std::span<const AxisMoment> moments, double low, double high) {
    double since = 0.0, longest = 0.0, from = 0.0;
    bool inside = false;
    const auto leave = [&](double at) {
        if (inside && at - since > longest) {
            longest = at - since;
            from = since;
        }
        inside = false;
    };
    for (std::size_t i = 1; i < moments.size(); ++i) {
        const double a = std::abs(moments[i - 1].speed), b = std::abs(moments[i].speed),
                     t = moments[i - 1].time, span = moments[i].time - t;
        if (!(span > 0.0)) continue;
        // The part of this stretch within the band, as shares of it.
        double first = 0.0, last = 1.0;
        if (a != b) {
            const double x = (low - a) / (b - a), y = (high - a) / (b - a);
            first = std::max(0.0, std::min(x, y));
            last = std::min(1.0, std::max(x, y));
        } else if (a < low || a > high) {
            last = -1.0;
        }
        if (!(last > first)) {
            leave(t);
            continue;
        }
        if (first > 0.0) leave(t);
        if (!inside) since = t + first * span;
        inside = true;
        if (last < 1.0) leave(t + last * span);
    }
    leave(moments.back().time);
    out.stay = Figure::of(longest);
    out.stayAt = longest > 0.0 ? Figure::of(from) : Figure::none(Reason::NotApplicable);
}

AxisMoveResults nothingOf(std::size_t move) {
    AxisMoveResults out;
    out.move = move;
    for (Figure* f : {&out.margin, &out.needed,   &out.available,     &out.at,         &out.carried,
                      &out.held,   &out.holds,    &out.pushed,        &out.pulseRate,  &out.stay,
                      &out.stayAt, &out.stepping, &out.steppingSpeed, &out.steppingAt, &out.jitter,
                      &out.slip,   &out.letGo,    &out.jitterAt,      &out.drift,      &out.driftAt})
        *f = Figure::none(Reason::NotApplicable);
    return out;
}

} // namespace

bool stands(const AxisMoment& moment, double topSpeed) {
    return std::abs(moment.speed) <= 1e-4 * topSpeed;
}

double torqueAt(const DriveModel& drive, const AxisMoment& moment) {
    drivetrain::Chain chain = drive.chain;
    return torqueOf(drive, chain, moment, directionOf(moment));
}

AxisMoveResults evaluateAxisMove(const DriveModel& m, const RotorResonance& resonance,
                                 const PlannedMove& planned, std::size_t axis, std::size_t move) {
    AxisMoveResults out = nothingOf(move);
    const std::span<const AxisMoment> moments = planned.axes[axis];
    const double topSpeed = planned.topSpeeds[axis];
    // What is switched or set by hand follows no plan; the plan says so.
    if (m.oneSpeed || m.atOnce) return out;
    if (m.missing != Reason::None) {
        out.margin = out.needed = out.available = Figure::none(m.missing);
    } else {
        fillTorque(out, m, moments, topSpeed);
        // With its drum empty a winch turns faster and pulls at a shorter radius.
        if (m.layerSpread() > 1.0) fillTorque(out, m.withBareDrum(), moments, topSpeed);
    }
    if (m.pulses) out.pulseRate = Figure::of(topSpeed * m.layerSpread() / m.microstep());
    if (m.stepper() != nullptr && resonance.low && resonance.high)
        fillStay(out, moments, resonance.low.value(), resonance.high.value());
    return out;
}

AxisMoveResults evaluateHeld(const DriveModel& m, const PlannedMove& planned, std::size_t axis,
                             std::size_t move) {
    AxisMoveResults out = nothingOf(move);
    if (m.missing != Reason::None || !(m.holdAmplitude > 0.0)) return out;
    const double holds =
        drivetrain::forceToBackDrive(m.chain, {m.motors * m.holdAmplitude, m.staticFriction, 0.0});
    if (!std::isfinite(holds)) return out; // it locks
    double most = 0.0;
    for (const AxisMoment& now : planned.still[axis]) {
        const double pushed =
            std::abs(m.lasting.at(m.lowPlace + now.place + now.leans) + now.carried) + m.lasting.unknown;
        if (pushed <= most) continue;
        most = pushed;
        out.at = Figure::of(now.time);
        out.carried = Figure::of(now.carried);
    }
    if (!(most > 0.0)) return out;
    out.holds = Figure::of(holds);
    out.pushed = Figure::of(most);
    out.held = Figure::of(holds / most);
    return out;
}

} // namespace gantry
