// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/carriage.h"
#include "core/solve/root.h"

#include <cmath>
#include <limits>

namespace gantry::drivetrain {

double playRotation(double play, double wheelbase) {
    return play / wheelbase;
}

double bindingRatio(double wheelbase, double pushOffset, double friction) {
    const double limit = 2.0 * friction * std::abs(pushOffset);
    return limit > 0.0 ? wheelbase / limit : std::numeric_limits<double>::infinity();
}

double bearingLoad(double normalForce, double momentAlong, double momentAcross, double wheelbase,
                   double track) {
    return normalForce / 4.0 + std::abs(momentAlong) / (2.0 * wheelbase) +
           std::abs(momentAcross) / (2.0 * track);
}

double tractionLimit(double friction, double drivenShare, double normalForce) {
    return friction * drivenShare * normalForce;
}

double turningRadius(double wheelbase, double steeringAngle) {
    const double t = std::abs(std::tan(steeringAngle));
    return t > 0.0 ? wheelbase / t : std::numeric_limits<double>::infinity();
}

std::optional<double> panBarAngle(const PanBarGeometry& g, double position) {
    const double reach = (g.offset + position * std::tan(g.angle)) * std::cos(g.angle) / g.armLength;
    if (!(std::abs(reach) <= 1.0)) return std::nullopt;
    return g.angle + std::asin(reach);
}

std::optional<double> panBarRate(const PanBarGeometry& g, double position) {
    const std::optional<double> angle = panBarAngle(g, position);
    const double square = angle ? std::cos(*angle - g.angle) : 0.0;
    if (!(square > 1e-6)) return std::nullopt;
    return std::sin(g.angle) / (g.armLength * square);
}

std::optional<double> barAngleForPan(PanBarGeometry g, double from, double to, double pan) {
    const auto turned = [&](double angle) -> std::optional<double> {
        g.angle = angle;
        const auto a = panBarAngle(g, from), b = panBarAngle(g, to);
        if (!a || !b) return std::nullopt;
        return *b - *a;
    };
    // The turn grows with the bar's angle from zero on; walk out until it is bracketed or the arm no longer
    // reaches.
    const double sense = pan * (to - from) < 0.0 ? -1.0 : 1.0;
    double low = 0.0;
    for (double a = 0.01; a < 1.4; a += 0.01) {
        const auto t = turned(sense * a);
        if (!t) return std::nullopt;
        if (std::abs(*t) < std::abs(pan)) {
            low = a;
            continue;
        }
        const auto beyond = [&](double x) {
            return std::abs(turned(sense * x).value_or(0.0)) - std::abs(pan);
        };
        return sense * solve::rootBetween(beyond, low, a).value_or(a);
    }
    return std::nullopt;
}

} // namespace gantry::drivetrain
