// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/later.h"

#include "core/evaluate/rig/arm_masses.h"

#include <algorithm>

namespace gantry {

std::vector<LaterChange> whatChanges(const Project& project, const Assessment& now, const LaterAxis& later) {
    Project with = project;
    MassItem item;
    item.id = "later-addition";
    item.mass = later.mass;
    bool carried = false;
    for (const Axis& axis : project.axes) carried = carried || axis.carriesPayload;
    if (carried)
        with.payload.push_back(item);
    else
        for (std::size_t a = 0; a < with.axes.size(); ++a) {
            Axis& axis = with.axes[a];
            if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
                linear->items.push_back(item);
            } else if (axis.role == Role::BoomTilt || axis.role == Role::Swing) {
                MassItem out = item;
                out.along = armReach(project.axes, a);
                std::get<RotaryMechanism>(axis.mechanism).items.push_back(out);
            }
        }
    const Assessment then = assess(with, {}, Poses::Search, now.evaluation.known());
    std::vector<LaterChange> out;
    for (const Verdict& after : then.verdicts) {
        const auto before = std::find_if(now.verdicts.begin(), now.verdicts.end(), [&](const Verdict& v) {
            return v.rule == after.rule && v.axis == after.axis;
        });
        if (before != now.verdicts.end() && before->state != after.state) out.push_back({*before, after});
    }
    std::sort(out.begin(), out.end(),
              [](const LaterChange& a, const LaterChange& b) { return worseThan(a.after, b.after); });
    return out;
}

} // namespace gantry
