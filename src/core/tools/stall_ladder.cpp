// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/stall_ladder.h"
#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gantry {
namespace {

constexpr double easiest = 3.2, hardest = 0.7, step = 0.82;

bool fits(const DriveModel& m, Rung& r) {
    r.distance = r.speed * r.speed / r.acceleration + 0.3 * r.speed;
    return r.distance <= m.travel && r.distance > 0.0 && std::isfinite(r.distance);
}

} // namespace

std::vector<Rung> stallLadder(const AxisEvaluation& e) {
    const DriveModel& m = e.model;
    std::vector<Rung> out;
    if (m.missing != Reason::None || !(m.travel > 0.0)) return out;
    double speed = 0.0, gentle = std::numeric_limits<double>::infinity();
    for (const ShotEvaluation& s : e.shots) {
        if (s.problem != Reason::None) continue;
        speed = std::max(speed, s.motion.topSpeed.valueOr(0.0));
        gentle = std::min(gentle, s.motion.acceleration.valueOr(gentle));
    }
    if (speed <= 0.0) {
        speed = m.settings.speed;
        gentle = m.settings.acceleration;
    }
    const auto add = [&](double v, double a) {
        Rung r{v, a, 0.0, m.margin(v, a)};
        if (!fits(m, r) || !std::isfinite(r.margin) || r.margin <= 0.0) return;
        // Rungs that foresee about the same tell nothing new.
        if (!out.empty() && std::abs(out.back().margin / r.margin - 1.0) < 0.02) return;
        out.push_back(r);
    };
    DriveModel wanted = m;
    for (double margin = easiest; margin > hardest; margin *= step) {
        wanted.wantedMargin = margin;
        const double a = wanted.largestAcceleration(speed);
        if (a > 0.0 && std::isfinite(a)) add(speed, a);
    }
    // Faster, as gently as the travel allows.
    const std::size_t ramps = out.size();
    double v = speed;
    for (int faster = 0; faster < 26 && out.size() < ramps + 10; ++faster) { // up to about 40 times as fast
        v *= 1.15;
        const double a = std::max(gentle, 2.0 * v * v / m.travel);
        const double margin = m.margin(v, a);
        if (margin < hardest) break;
        if (margin < easiest &&
            (out.empty() || out.size() == ramps || margin < step * 1.02 * out.back().margin))
            add(v, a);
    }
    return out;
}

TorqueFactor torqueFactor(std::span<const Rung> ladder, std::span<const Outcome> outcomes) {
    TorqueFactor f;
    f.high = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < ladder.size() && i < outcomes.size(); ++i) {
        const double bound = 1.0 / ladder[i].margin;
        if (outcomes[i] == Outcome::Passed) f.low = std::max(f.low, bound);
        if (outcomes[i] == Outcome::LostSteps) f.high = std::min(f.high, bound);
    }
    f.contradictory = f.low >= f.high;
    // Everything failed: all that is known is that it is weaker than the easiest rung needs.
    return f;
}

bool applyTorqueFactor(Axis& axis, const TorqueFactor& f) {
    if (!f.known()) return false;
    const bool bounded = std::isfinite(f.high);
    const double middle = bounded ? 0.5 * (f.low + f.high) : f.low;
    const double tolerance = bounded ? std::max(0.02, (f.high - f.low) / (f.high + f.low)) : 0.1;
    const auto set = [&](Estimate& e) { e = {e.value * middle, Source::Measured, tolerance}; };
    std::visit(overload{[&](Stepper& m) { set(m.holdingTorque); }, [&](ServoMotor& m) { set(m.peakTorque); },
                        [&](DcServo& m) { set(m.figures.stallTorque); },
                        [&](GearedDc& m) { set(m.figures.stallTorque); },
                        [&](HobbyServo& m) { set(m.stallTorque); }},
               axis.motor);
    return true;
}

} // namespace gantry
