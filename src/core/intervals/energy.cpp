// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/energy.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gantry::intervals {

Draw drawOf(std::span<const Consumer> consumers, double interval, double efficiency) {
    Draw out;
    double most = -1.0;
    for (std::size_t i = 0; i < consumers.size(); ++i) {
        const Consumer& c = consumers[i];
        const double on = std::clamp(c.onTime, 0.0, interval),
                     energy = c.on * on + c.otherwise * (interval - on);
        out.perInterval += energy;
        out.peak += std::max(c.on, c.otherwise);
        if (energy > most) {
            most = energy;
            out.biggest = i;
        }
    }
    out.perInterval /= efficiency;
    out.peak /= efficiency;
    out.average = out.perInterval / interval;
    return out;
}

std::optional<double> voltageUnder(const Pack& p, double taken, double power) {
    const double open = p.fullVoltage - (p.fullVoltage - p.emptyVoltage) * taken;
    const double under = open * open - 4.0 * p.resistance * power;
    if (!(under >= 0.0) || taken > 1.0) return std::nullopt;
    return 0.5 * (open + std::sqrt(under));
}

double takenAtVoltage(const Pack& p, double voltage, double power) {
    // At constant power the open voltage is V + R P / V; below half the open voltage no more power comes out,
    // whatever its resistance.
    const double least = std::sqrt(p.resistance * power), under = std::max(voltage, least);
    const double open = under > 0.0 ? under + p.resistance * power / under : 0.0;
    const double fall = p.fullVoltage - p.emptyVoltage;
    if (fall > 0.0) return (p.fullVoltage - open) / fall;
    return p.fullVoltage <= open ? -1.0 : std::numeric_limits<double>::infinity();
}

double TakenEnergy::at(double picture) const {
    const auto after =
        std::upper_bound(pictures.begin() + 1, pictures.end() - 1, picture,
                         [](double at, std::int64_t k) { return at < static_cast<double>(k); });
    const auto i = static_cast<std::size_t>(after - pictures.begin());
    const auto from = static_cast<double>(pictures[i - 1]), to = static_cast<double>(pictures[i]);
    const double share = to > from ? std::clamp((picture - from) / (to - from), 0.0, 1.0) : 1.0;
    return energy[i - 1] + share * (energy[i] - energy[i - 1]);
}

std::optional<std::int64_t> TakenEnergy::pictureOf(double limit) const {
    const auto reached = std::lower_bound(energy.begin(), energy.end(), limit);
    if (reached == energy.end()) return std::nullopt;
    const auto i = static_cast<std::size_t>(reached - energy.begin());
    if (i == 0) return pictures[0];
    const double share = (limit - energy[i - 1]) / (energy[i] - energy[i - 1]);
    const auto apart = static_cast<double>(pictures[i] - pictures[i - 1]);
    return pictures[i - 1] + static_cast<std::int64_t>(std::ceil(share * apart - 1e-9));
}

std::optional<double> timeToVoltage(const Pack& p, const Draw& draw, double voltage) {
    if (!(voltage > 0.0) || !(draw.average > 0.0)) return std::nullopt;
    const double taken = takenAtVoltage(p, voltage, draw.peak);
    if (taken <= 0.0) return 0.0;
    if (taken >= p.usable) return std::nullopt;
    return taken * p.energy / draw.average;
}

} // namespace gantry::intervals
