// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/shot_steps.h"

#include <algorithm>
#include <cmath>

namespace gantry {

bool stepwise(const Shot& shot) {
    return shot.kind == ShotKind::Interval || shot.kind == ShotKind::StopMotion;
}

int picturesOf(const Shot& shot) {
    double n = shot.frames;
    if (shot.kind == ShotKind::StopMotion) n = std::round(shot.clipTime * shot.frameRate);
    if (!stepwise(shot)) {
        double time = 0.0;
        for (const ShotMove& m : shot.moves)
            std::visit(
                [&](const auto& movement) {
                    if constexpr (requires { movement.time; })
                        time = std::max(time, movement.time);
                    else if (movement.speed > 0.0)
                        time = std::max(time, std::abs(movement.distance) / movement.speed);
                },
                m.movement);
        if (shot.thereAndBack) time *= 2.0; // filmed both ways
        n = std::round(time * shot.frameRate);
    }
    return static_cast<int>(std::clamp(n, 2.0, 1e8));
}

Movement demandedMovement(const Shot& shot, const Movement& movement) {
    if (!stepwise(shot)) return movement;
    const double step = distanceOf(movement) / (picturesOf(shot) - 1), ease = rampShareOfStep * shot.stepTime;
    if (kindOf(movement) == AxisKind::Linear)
        return ByTime<AxisKind::Linear>{step, shot.stepTime, ease, ease};
    return ByTime<AxisKind::Rotary>{step, shot.stepTime, ease, ease};
}

double shownTime(const Shot& shot) {
    return picturesOf(shot) / shot.frameRate;
}

double shootingTime(const Shot& shot) {
    return shot.kind == ShotKind::Interval ? (picturesOf(shot) - 1) * shot.interval + shot.exposure
                                           : shownTime(shot);
}

} // namespace gantry
