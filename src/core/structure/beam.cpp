// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/beam.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::structure {
namespace {

using std::numbers::pi;

/// Macaulay bracket ⟨x⟩.
double bracket(double x) {
    return x > 0.0 ? x : 0.0;
}

/// EI times the double integral of the bending moment, up to the two constants: sag counts downwards, so an
/// upward force bends it back.
Bend integral(const Beam& beam, const TwoSupports& s, const Reactions& r, std::span<const PointLoad> loads,
              double x) {
    Bend out;
    const auto add = [&](double at, double down) {
        const double b = bracket(x - at);
        out.sag += down * b * b * b / 6.0;
        out.slope += down * b * b / 2.0;
    };
    add(s.first, -r.first);
    add(s.second, -r.second);
    for (const PointLoad& load : loads) add(std::clamp(load.at, 0.0, beam.length), load.force);
    out.sag += beam.weight * x * x * x * x / 24.0;
    out.slope += beam.weight * x * x * x / 6.0;
    return out;
}

double momentAt(const Beam& beam, const TwoSupports& s, const Reactions& r, std::span<const PointLoad> loads,
                double x) {
    double m = r.first * bracket(x - s.first) + r.second * bracket(x - s.second) - beam.weight * x * x / 2.0;
    for (const PointLoad& load : loads) m -= load.force * bracket(x - std::clamp(load.at, 0.0, beam.length));
    return m;
}

/// One arm of a centrally clamped beam: its free length, and each load's distance from the clamp.
struct Arm {
    double length = 0.0, moment = 0.0;
};
Arm armOf(const Beam& beam, double at, std::span<const PointLoad> loads, bool right) {
    Arm arm{std::max(0.0, right ? beam.length - at : at), 0.0};
    arm.moment = beam.weight * arm.length * arm.length / 2.0;
    for (const PointLoad& load : loads) {
        const double from = std::clamp(load.at, 0.0, beam.length) - at;
        if ((from > 0.0) == right) arm.moment += load.force * std::abs(from);
    }
    return arm;
}

} // namespace

Reactions reactions(const Beam& beam, const TwoSupports& s, std::span<const PointLoad> loads) {
    double total = beam.weight * beam.length, moment = total * (0.5 * beam.length - s.first);
    for (const PointLoad& load : loads) {
        total += load.force;
        moment += load.force * (std::clamp(load.at, 0.0, beam.length) - s.first);
    }
    const double second = moment / (s.second - s.first);
    return {total - second, second};
}

Bend bendAt(const Beam& beam, const TwoSupports& s, std::span<const PointLoad> loads, double x) {
    const Reactions r = reactions(beam, s, loads);
    const double first = integral(beam, s, r, loads, s.first).sag,
                 second = integral(beam, s, r, loads, s.second).sag;
    const double turn = -(second - first) / (s.second - s.first);
    const Bend raw = integral(beam, s, r, loads, x);
    return {(raw.sag - first + turn * (x - s.first)) / beam.bendingStiffness,
            (raw.slope + turn) / beam.bendingStiffness};
}

Bend bendAt(const Beam& beam, const CentralSupport& support, std::span<const PointLoad> loads, double x) {
    const double at = std::clamp(support.at, 0.0, beam.length);
    const bool right = x >= at;
    const double s = std::abs(x - at);
    const Arm arm = armOf(beam, at, loads, right);
    Bend out;
    const double over = 1.0 / beam.bendingStiffness;
    const double w = beam.weight, length = arm.length;
    out.sag = w * s * s * (6.0 * length * length - 4.0 * length * s + s * s) / 24.0 * over;
    out.slope = w * s * (3.0 * length * length - 3.0 * length * s + s * s) / 6.0 * over;
    for (const PointLoad& load : loads) {
        const double from = std::clamp(load.at, 0.0, beam.length) - at;
        if ((from > 0.0) != right) continue;
        const double a = std::abs(from);
        if (s <= a) {
            out.sag += load.force * s * s * (3.0 * a - s) / 6.0 * over;
            out.slope += load.force * s * (2.0 * a - s) / 2.0 * over;
        } else {
            out.sag += load.force * a * a * (3.0 * s - a) / 6.0 * over;
            out.slope += load.force * a * a / 2.0 * over;
        }
    }
    // The head turns towards the heavier arm.
    if (support.turning > 0.0) {
        const double turn = (armOf(beam, at, loads, true).moment - armOf(beam, at, loads, false).moment) /
                            support.turning * (right ? 1.0 : -1.0);
        out.sag += turn * s;
        out.slope += turn;
    }
    if (!right) out.slope = -out.slope;
    return out;
}

double largestMoment(const Beam& beam, const TwoSupports& s, std::span<const PointLoad> loads) {
    const Reactions r = reactions(beam, s, loads);
    double most = 0.0;
    const auto look = [&](double x) { most = std::max(most, std::abs(momentAt(beam, s, r, loads, x))); };
    look(s.first);
    look(s.second);
    for (const PointLoad& load : loads) look(std::clamp(load.at, 0.0, beam.length));
    for (int i = 0; i <= 20; ++i) look(beam.length * i / 20.0);
    return most;
}

double largestMoment(const Beam& beam, const CentralSupport& support, std::span<const PointLoad> loads) {
    const double at = std::clamp(support.at, 0.0, beam.length);
    return std::max(armOf(beam, at, loads, true).moment, armOf(beam, at, loads, false).moment);
}

Bend cantileverTip(const Cantilever& c, double gravity) {
    const double force = c.tipMass * gravity, moment = force * c.tipOffset, own = c.mass * gravity;
    const double l = c.length, over = 1.0 / c.bendingStiffness;
    return {(force * l * l * l / 3.0 + moment * l * l / 2.0 + own * l * l * l / 8.0) * over,
            (force * l * l / 2.0 + moment * l + own * l * l / 6.0) * over};
}

double cantileverFrequency(const Cantilever& c) {
    return cantileverFrequency(c, 0.0);
}

double cantileverFrequency(const Cantilever& c, double clampStiffness) {
    const double l = c.length, d = c.tipOffset;
    double inverse =
        ((l * l * l / 3.0 + l * l * d + l * d * d) * c.tipMass + 0.24 * c.mass * l * l * l / 3.0) /
        c.bendingStiffness;
    if (clampStiffness > 0.0)
        inverse += (c.tipMass * (l + d) * (l + d) + c.mass * l * l / 3.0) / clampStiffness;
    return inverse > 0.0 ? 1.0 / (2.0 * pi * std::sqrt(inverse)) : 0.0;
}

} // namespace gantry::structure
