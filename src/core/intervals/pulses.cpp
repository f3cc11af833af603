// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/pulses.h"

#include "core/intervals/wholes.h"
#include "core/solve/root.h"

#include <algorithm>
#include <cmath>

namespace gantry::intervals {
namespace {

double coastFrom(const PulsedMotor& m, double speed) {
    if (!(m.coastTime > 0.0)) return speed * speed / (2.0 * m.coastBrake);
    return m.coastTime * speed -
           m.coastBrake * m.coastTime * m.coastTime * std::log1p(speed / (m.coastBrake * m.coastTime));
}

} // namespace

PulseWay wayOf(const PulsedMotor& m, double pulse) {
    PulseWay out;
    const double q = pulse - m.deadTime;
    if (!(q > 0.0)) return out;
    const double lacks = m.runUp > 0.0 ? std::exp(-q / m.runUp) : 0.0, reached = m.speed * (1.0 - lacks);
    out.driven = m.speed * (q - m.runUp * (1.0 - lacks));
    out.coasted = coastFrom(m, reached);
    out.coasting = m.coastTime > 0.0 ? m.coastTime * std::log1p(reached / (m.coastBrake * m.coastTime))
                                     : reached / m.coastBrake;
    // Slope of the coasting against the speed it begins with.
    const double perReached = reached / (m.coastBrake + (m.coastTime > 0.0 ? reached / m.coastTime : 0.0));
    out.perSecond = reached + (m.runUp > 0.0 ? perReached * m.speed / m.runUp * lacks : 0.0);
    out.perSpeed = out.driven + perReached * reached;
    return out;
}

double pulseFor(const PulsedMotor& m, double way) {
    double high = m.deadTime + m.runUp + way / m.speed;
    while (wayOf(m, high).way() < way) high += way / m.speed + m.runUp;
    const auto lacks = [&](double pulse) { return wayOf(m, pulse).way() - way; };
    return solve::rootBetween(lacks, m.deadTime, high).value_or(high);
}

double scatterOf(const PulsedMotor& m, double pulse, const PulseScatter& s) {
    const PulseWay w = wayOf(m, pulse);
    return std::hypot(w.perSecond * s.pulse, w.perSpeed * s.speed, w.perSecond * s.deadTime);
}

MovesThatFit movesThatFit(const PulsedMotor& m, double pulse, const PulseScatter& scatter, double rail,
                          double drift, double z) {
    MovesThatFit out;
    const double way = wayOf(m, pulse).way();
    if (!(way > 0.0)) return out;
    out.byMean = wholes(rail / way);
    const double worst = way * (1.0 + drift), spread = z * scatterOf(m, pulse, scatter);
    // The root of worst x² + spread x = rail in x = √m.
    const double x = (std::sqrt(spread * spread + 4.0 * worst * rail) - spread) / (2.0 * worst);
    out.surely = wholes(x * x);
    return out;
}

SeparateHeadResults followedBy(const SeparateHead& h) {
    SeparateHeadResults out;
    out.time = std::min(h.longest, h.slideTime);
    const double stops = h.delay + out.time;
    out.frozenShare = std::max(0.0, h.slideTime - stops) / h.slideTime;
    out.lastTurning = wholes(stops / h.interval);
    const double half = 0.5 * h.travel;
    const auto error = [&](double time) {
        const double along = h.travel * std::clamp(time / h.slideTime, 0.0, 1.0);
        const double wanted = std::atan2(half, h.subject) - std::atan2(half - along, h.subject);
        const double turned =
            out.time > 0.0 ? h.turn * std::clamp((time - h.delay) / out.time, 0.0, 1.0) : 0.0;
        return h.focal * std::tan(wanted - turned);
    };
    out.errorAtStop = error(std::min(stops, h.slideTime));
    out.errorAtEnd = error(h.slideTime);
    return out;
}

} // namespace gantry::intervals
