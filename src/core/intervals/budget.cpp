// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/budget.h"

#include <algorithm>

namespace gantry::intervals {

BudgetResults budgetOf(const Budget& b, std::span<const CameraTimes> cameras) {
    BudgetResults out;
    std::size_t closesLast = 0, readyLast = 0;
    for (std::size_t i = 1; i < cameras.size(); ++i) {
        if (cameras[i].toClosed() > cameras[closesLast].toClosed()) closesLast = i;
        if (cameras[i].toReady() > cameras[readyLast].toReady()) readyLast = i;
    }
    const bool moves = b.move > 0.0;
    const double settle = moves ? b.settle : 0.0;
    // How long the rig has to stand still for a picture.
    const double stands = b.writesWhileMoving ? cameras[closesLast].toClosed() : cameras[readyLast].toReady();
    out.rig = b.move + settle + stands;
    out.camera = cameras[readyLast].toReady();
    out.binds = out.rig >= out.camera ? Binds::Rig : Binds::Camera;
    out.least = std::max(out.rig, out.camera) + b.spare;
    out.slowest = out.binds == Binds::Rig && b.writesWhileMoving ? closesLast : readyLast;

    const double begins = b.order == Order::MoveFirst ? 0.0 : stands;
    out.move = {begins, begins + b.move};
    out.settle = {out.move.to, out.move.to + settle};
    const double trigger = b.order == Order::MoveFirst ? out.settle.to : 0.0;
    for (const CameraTimes& c : cameras) {
        const double opens = trigger + c.focus + c.lag, closes = opens + c.exposure;
        out.exposures.push_back({opens, closes});
        out.writes.push_back({closes, closes + c.write});
    }
    return out;
}

double pressFor(const Bulb& b, double exposure) {
    return exposure + b.openLag - b.closeLag;
}
double exposureFor(const Bulb& b, double press) {
    return press - b.openLag + b.closeLag;
}
double shortestExposure(const Bulb& b) {
    return std::max(0.0, exposureFor(b, b.leastPress));
}
double longestExposure(const Bulb& b, double interval) {
    return exposureFor(b, interval - b.leastGap);
}

} // namespace gantry::intervals
