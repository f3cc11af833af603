// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/energy.h"

#include <algorithm>
#include <cmath>

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

std::optional<double> timeToVoltage(const Pack& p, const Draw& draw, double voltage) {
    if (!(voltage > 0.0) || !(draw.average > 0.0)) return std::nullopt;
    // At constant power the open voltage is V + R P / V.
    const double open = voltage + p.resistance * draw.peak / voltage, fall = p.fullVoltage - p.emptyVoltage;
    // Below half the open voltage no more power comes out, whatever its resistance.
    const double needed = std::max(open, 2.0 * std::sqrt(p.resistance * draw.peak));
    if (p.fullVoltage <= needed) return 0.0;
    if (!(fall > 0.0)) return std::nullopt;
    const double taken = (p.fullVoltage - needed) / fall;
    if (taken >= p.usable) return std::nullopt;
    return taken * p.energy / draw.average;
}

} // namespace gantry::intervals
