// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/demands.h"

#include "core/evaluate/shot/shot_steps.h"

namespace gantry {

AxisDemands demandsOf(const Project& project, const AxisEvaluation& evaluation) {
    AxisDemands out;
    const auto take = [](Demand& d, double value, int shot, bool larger) {
        if (d.shot >= 0 && (larger ? value <= d.value.value() : value >= d.value.value())) return;
        d = {Figure::of(value), shot};
    };
    for (const ShotEvaluation& s : evaluation.shots) {
        if (s.problem != Reason::None) continue;
        const Shot& shot = project.shots[static_cast<std::size_t>(s.shot)];
        take(out.fastest, s.motion.topSpeed.value(), s.shot, true);
        take(out.slowest, s.motion.topSpeed.value(), s.shot, false);
        take(out.steepest, s.motion.acceleration.value(), s.shot, true);
        take(out.finest, stepwise(shot) ? s.profile.distance : s.motion.topSpeed.value() / shot.frameRate,
             s.shot, false);
    }
    return out;
}

} // namespace gantry
