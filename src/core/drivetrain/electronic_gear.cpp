// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/electronic_gear.h"

#include <cmath>

namespace gantry::drivetrain {

std::optional<Ratio> nearestFraction(double value, std::int64_t largestTerm) {
    if (!(value > 0.0) || !std::isfinite(value) || largestTerm < 1) return std::nullopt;
    // Walk down the continued fraction; the last convergent, or the last semiconvergent that still fits, is
    // nearest.
    std::int64_t p0 = 0, q0 = 1, p1 = 1, q1 = 0;
    double rest = value;
    std::optional<Ratio> best;
    const auto consider = [&](std::int64_t p, std::int64_t q) {
        if (p < 1 || q < 1 || p > largestTerm || q > largestTerm) return;
        const auto r = Ratio::of(p, q);
        if (r && (!best || std::abs(r->value() - value) < std::abs(best->value() - value))) best = r;
    };
    for (int i = 0; i < 64; ++i) {
        const double whole = std::floor(rest);
        if (whole > 4e18) break;
        std::int64_t digit = static_cast<std::int64_t>(whole);
        // Largest digit that keeps both terms within the limit.
        const std::int64_t byP = p1 > 0 ? (largestTerm - p0) / p1 : digit,
                           byQ = q1 > 0 ? (largestTerm - q0) / q1 : digit;
        const std::int64_t fits = std::min(digit, std::min(byP, byQ));
        for (std::int64_t d = std::max<std::int64_t>(0, fits - 1); d <= fits; ++d)
            consider(p0 + d * p1, q0 + d * q1);
        if (fits < digit) break;
        const std::int64_t p2 = p0 + digit * p1, q2 = q0 + digit * q1;
        p0 = p1, q0 = q1, p1 = p2, q1 = q2;
        const double fraction = rest - whole;
        if (fraction < 1e-12) break;
        rest = 1.0 / fraction;
    }
    return best;
}

std::optional<GearSetting> solveElectronicGear(std::int64_t countsPerTurn, const Ratio& turnsPerUnit,
                                               const Ratio& stepsPerUnit, std::int64_t largestTerm) {
    const auto counts = Ratio::of(countsPerTurn, 1);
    const auto countsPerUnit = counts ? counts->times(turnsPerUnit) : std::nullopt;
    if (!countsPerUnit) return std::nullopt;
    const auto exact = countsPerUnit->dividedBy(stepsPerUnit);
    if (exact && exact->numerator() <= largestTerm && exact->denominator() <= largestTerm)
        return GearSetting{exact->numerator(), exact->denominator(), true};
    const auto near = nearestFraction(countsPerUnit->value() / stepsPerUnit.value(), largestTerm);
    const double wanted = countsPerUnit->value() / stepsPerUnit.value();
    if (!near || std::abs(near->value() / wanted - 1.0) > 0.01) return std::nullopt;
    return GearSetting{near->numerator(), near->denominator(), false};
}

} // namespace gantry::drivetrain
