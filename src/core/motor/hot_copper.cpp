// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/hot_copper.h"

namespace gantry::motor {
namespace {
constexpr double perKelvin = 0.00393, reference = 20.0;
}

double copperResistance(double temperature) {
    return 1.0 + perKelvin * (temperature - reference);
}

std::optional<Warmth> hotCopper(const WindingHeat& h) {
    const double rise = h.coldLoss * (h.toCase + h.caseToAir);
    if (perKelvin * rise >= 1.0) return std::nullopt;
    Warmth out;
    out.winding = (h.ambient + h.ironLoss * h.caseToAir + rise * (1.0 - perKelvin * reference)) /
                  (1.0 - perKelvin * rise);
    out.resistance = copperResistance(out.winding);
    out.loss = h.coldLoss * out.resistance;
    out.housing = h.ambient + (out.loss + h.ironLoss) * h.caseToAir;
    return out;
}

} // namespace gantry::motor
