// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/hot_copper.h"

#include "core/motor/curve.h"
#include "core/solve/root.h"

#include <algorithm>
#include <cmath>

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

double hotResistance(double cold, const WindingDrive& drive, double ambient, double toAir, double limit) {
    const double hottest = std::max(ambient, limit);
    if (drive.current > 0.0) {
        const auto warm = hotCopper({stepperHeat(drive.current, cold), 0.0, ambient, 0.0, toAir});
        return cold * copperResistance(warm ? std::min(warm->winding, hottest) : hottest);
    }
    // The hotter it is, the less it draws, so it always settles.
    const auto left = [&](double temperature) {
        const double hot = cold * copperResistance(temperature);
        // Two phases on at once carry what one at its peak would with a sine.
        const double current = drive.voltage / (hot + drive.before);
        return temperature - ambient - toAir * 2.0 * current * current * hot;
    };
    return cold * copperResistance(solve::rootBetween(left, ambient, hottest).value_or(hottest));
}

double ratingInAir(double air, double ratedAir, double limit, double ironShare) {
    const double room = (limit - air) / (limit - ratedAir);
    return std::sqrt(std::clamp((room - ironShare) / (1.0 - ironShare), 0.0, 1.0));
}

} // namespace gantry::motor
