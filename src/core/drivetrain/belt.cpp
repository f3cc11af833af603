// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/belt.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::drivetrain {
namespace {
using std::numbers::pi;
double radiusOf(int teeth, double pitch) {
    return teeth * pitch / (2.0 * pi);
}
} // namespace

std::optional<ClosedBelt> beltForCentre(int teethA, int teethB, double pitch, double centre) {
    const double small = radiusOf(std::min(teethA, teethB), pitch),
                 large = radiusOf(std::max(teethA, teethB), pitch);
    if (!(centre > large - small) || !(pitch > 0.0)) return std::nullopt;
    const double lean = std::asin((large - small) / centre);
    ClosedBelt b;
    b.length = 2.0 * centre * std::cos(lean) + pi * (small + large) + 2.0 * lean * (large - small);
    b.teeth = b.length / pitch;
    b.teethInMeshSmall = std::min(teethA, teethB) * (pi - 2.0 * lean) / (2.0 * pi);
    return b;
}

std::optional<double> centreForBelt(int teethA, int teethB, double pitch, int beltTeeth) {
    const double wanted = beltTeeth * pitch;
    // Pulleys that just touch each other's shafts: the length there is the least that makes sense.
    const double least = std::abs(radiusOf(teethA, pitch) - radiusOf(teethB, pitch)) + 1e-9;
    const auto excess = [&](double centre) {
        const auto belt = beltForCentre(teethA, teethB, pitch, centre);
        return belt ? belt->length - wanted : std::numeric_limits<double>::quiet_NaN();
    };
    if (!(pitch > 0.0) || excess(least) > 0.0) return std::nullopt;
    const double most = wanted / 2.0 + least;
    return solve::rootBetween(excess, least, most);
}

double spanTension(double massPerMetre, double span, double frequency) {
    return 4.0 * massPerMetre * span * span * frequency * frequency;
}

double leastOpenBeltStiffness(double tensileStiffness, double freeLength) {
    return 4.0 * tensileStiffness / freeLength;
}

double allowedBeltPull(double pitch, double width, double teethInMesh) {
    const double perWidth = 7e3 * std::pow(pitch / 0.002, 1.47);
    return perWidth * width * std::clamp(teethInMesh / 6.0, 0.0, 1.0);
}

} // namespace gantry::drivetrain
