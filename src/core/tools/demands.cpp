// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/demands.h"

#include "core/evaluate/shot/shot_steps.h"

namespace gantry {

AxisDemands demandsOf(const Project& project, const AxisEvaluation& evaluation) {
    AxisDemands out;
    const auto take = [](Demand& d, const Figure& value, ShotIndex shot, bool larger) {
        if (!value || (d.shot && !(larger ? less(d.value, value) : less(value, d.value)))) return;
        d = {value, shot};
    };
    for (const ShotEvaluation& s : evaluation.shots) {
        if (s.problem != Reason::None) continue;
        const Shot& shot = project.shots[s.shot.at()];
        take(out.fastest, s.motion.topSpeed, s.shot, true);
        take(out.slowest, s.motion.topSpeed, s.shot, false);
        take(out.steepest, s.motion.acceleration, s.shot, true);
        take(out.finest, stepwise(shot) ? Figure(s.profile.distance) : s.motion.topSpeed / shot.frameRate,
             s.shot, false);
    }
    return out;
}

} // namespace gantry
