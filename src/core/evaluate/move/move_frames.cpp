// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_frames.h"

#include <algorithm>
#include <cmath>

namespace gantry {

MoveFrame frameAt(const MoveScene& scene, const trajectory::Trajectory& t, double time) {
    MoveFrame out;
    out.time = time;
    for (std::size_t a = 0; a < t.axisCount(); ++a) out.axes.push_back(t.at(a, time));
    out.camera = cameraAt(scene, t, time);
    out.focalLength = focalLengthAt(scene, t, time);
    return out;
}

std::vector<MoveFrame> framesOf(const RigMove& move, const MoveScene& scene, const MovePlan& plan,
                                double rate) {
    std::vector<MoveFrame> out;
    if (plan.trajectory.empty()) return out;
    const double recorded = move.preRoll + plan.trajectory.duration() + move.postRoll;
    const double step = std::max(1.0 / rate, recorded / mostFrames);
    const auto count = static_cast<std::size_t>(std::floor(recorded / step + 1e-6)) + 1;
    out.reserve(count);
    for (std::size_t i = 0; i < count; ++i)
        out.push_back(frameAt(scene, plan.trajectory, static_cast<double>(i) * step - move.preRoll));
    return out;
}

} // namespace gantry
