// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/timers.h"

#include <algorithm>
#include <cmath>

namespace gantry::intervals {
namespace {

/// Beats of the rig that begin before a time, as a count from its first.
double beatsBefore(const TwoTimers& t, double time) {
    return std::max(0.0, std::ceil((time - t.offset) / t.rig.period()));
}

} // namespace

bool spoiled(const TwoTimers& t, std::int64_t k) {
    const double opens = static_cast<double>(k) * t.camera.period(), period = t.rig.period();
    // The least m ≥ 0 whose movement ends after the shutter opens: does it begin before it closes?
    const double m = std::max(0.0, std::floor((opens - t.offset - t.moveAndSettle) / period) + 1.0);
    return m * period + t.offset < opens + t.exposure;
}

Drift driftOf(const TwoTimers& t) {
    Drift out;
    const double camera = t.camera.period(), rig = t.rig.period();
    out.perPicture = rig - camera;
    out.perDay = out.perPicture * 86400.0 / camera;
    if (out.perPicture != 0.0) out.beat = camera * rig / std::abs(out.perPicture);
    out.longRunShare = std::min(1.0, (t.exposure + t.moveAndSettle) / rig);
    return out;
}

Collisions collisionsOf(const TwoTimers& t, std::size_t most) {
    Collisions out;
    const double camera = t.camera.period();
    bool inRun = false;
    double before = beatsBefore(t, 0.0);
    for (std::int64_t k = 0; k < t.pictures; ++k) {
        const bool bad = spoiled(t, k);
        if (bad) {
            ++out.spoiled;
            if (!out.first) out.first = k;
            if (!inRun && out.runs.size() < most) out.runs.emplace_back(k, k);
            if (out.runs.size() <= most && inRun && !out.runs.empty() && out.runs.back().second == k - 1)
                out.runs.back().second = k;
        }
        inRun = bad;
        if (k + 1 == t.pictures) break;
        const double now = beatsBefore(t, static_cast<double>(k + 1) * camera), begun = now - before;
        before = now;
        if (begun < 1.0) ++out.gapsWithout;
        if (begun > 1.0) ++out.gapsWithMore;
    }
    return out;
}

} // namespace gantry::intervals
