// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include <cmath>

namespace gantry::fixes {

double rounded(double value, double unit, bool up) {
    if (!(value > 0.0) || !std::isfinite(value)) return value;
    const double x = value / unit;
    const double grid = std::pow(10.0, std::floor(std::log10(x)) - 1.0);
    return (up ? std::ceil(x / grid - 1e-9) : std::floor(x / grid + 1e-9)) * grid * unit;
}

const ShotEvaluation* Problem::shot() const {
    const auto& shots = evaluation().shots;
    // What a part stands is judged by all shots together, and most by the one that pulls hardest.
    const ShotEvaluation* hardest = nullptr;
    for (const ShotEvaluation& s : shots) {
        if (s.shot == verdict.shot) return &s;
        if (!verdict.shot && s.torque.force &&
            (hardest == nullptr || s.torque.force.value() > hardest->torque.force.value()))
            hardest = &s;
    }
    return hardest;
}

} // namespace gantry::fixes
