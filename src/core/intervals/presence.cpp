// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/presence.h"

#include "core/intervals/wholes.h"

#include <algorithm>
#include <cmath>

namespace gantry::intervals {
namespace {

using Stretch = std::pair<double, double>;

/// When any output is on, joined.
std::vector<Stretch> stretchesOf(std::span<const Sensor> sensors, double end) {
    std::vector<Stretch> all;
    for (const Sensor& s : sensors) {
        if (s.warmUp > 0.0) all.emplace_back(0.0, s.warmUp);
        for (const double at : s.detections)
            if (at >= s.warmUp) all.emplace_back(at, at + s.hold);
    }
    std::sort(all.begin(), all.end());
    std::vector<Stretch> out;
    for (const Stretch& s : all) {
        if (s.first >= end || !(s.second > s.first)) continue;
        if (!out.empty() && s.first <= out.back().second)
            out.back().second = std::max(out.back().second, s.second);
        else
            out.push_back(s);
    }
    for (Stretch& s : out) s.second = std::min(s.second, end);
    return out;
}

/// The last detection that counts in a stretch; before its beginning where there is none.
double lastSeen(std::span<const Sensor> sensors, const Stretch& within) {
    double out = within.first - 1.0;
    for (const Sensor& s : sensors) {
        const auto after = std::upper_bound(s.detections.begin(), s.detections.end(), within.second);
        if (after == s.detections.begin()) continue;
        const double last = *(after - 1);
        if (last >= s.warmUp && last >= within.first) out = std::max(out, last);
    }
    return out;
}

} // namespace

PresenceLog presenceOf(std::span<const Sensor> sensors, double end, double interval, bool goesBack) {
    PresenceLog out;
    std::int64_t position = 0;
    double ran = 0.0;
    const std::vector<Stretch> stretches = stretchesOf(sensors, end);
    if (!stretches.empty()) out.begins = stretches.front().first;
    for (std::size_t i = 0; i < stretches.size(); ++i) {
        const Stretch& s = stretches[i];
        ran += s.second - s.first;
        const double seen = lastSeen(sensors, s);
        std::int64_t lost = 0;
        for (std::int64_t k = 0;; ++k) {
            const double begins = s.first + static_cast<double>(k) * interval;
            if (!(begins < s.second)) break;
            const std::int64_t picture = out.pictures++;
            if (begins > seen) {
                out.deleted.push_back(picture);
                ++lost;
            } else {
                if (!out.kept.empty())
                    out.largestJump = std::max(out.largestJump, position - out.kept.back().position);
                out.kept.push_back({picture, position});
            }
            ++position;
        }
        if (goesBack) position -= lost;
        const double next = i + 1 < stretches.size() ? stretches[i + 1].first : end;
        if (next > s.second) out.pauses.emplace_back(s.second, next);
    }
    out.ran = end > 0.0 ? ran / end : 0.0;
    return out;
}

FalseStops falseStopsOf(std::span<const Seldom> sensors) {
    double rates = 0.0, held = 0.0;
    for (const Seldom& s : sensors) {
        rates += s.rate;
        held += s.rate * s.hold;
    }
    // It stops where no sensor has seen anything for its hold, and stands until one does.
    return {rates * std::exp(-held), std::exp(-held), rates > 0.0 ? 1.0 / rates : 0.0};
}

double holdFor(std::span<const Seldom> sensors, double perSecond) {
    double rates = 0.0;
    for (const Seldom& s : sensors) rates += s.rate;
    return rates > perSecond ? std::log(rates / perSecond) / rates : 0.0;
}

std::optional<double> extraPictures(double interval, double hold, double p, bool blind) {
    const auto r = static_cast<double>(wholes(hold / interval));
    if (blind || p <= 0.0) return r;
    if (r < 1.0) return 0.0;
    if (p >= 1.0) return std::nullopt;
    // Until r moves in a row have not triggered it.
    const double none = std::pow(1.0 - p, r);
    return (1.0 - none) / (p * none);
}

} // namespace gantry::intervals
