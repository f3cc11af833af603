// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/focus_axis.h"

#include <algorithm>
#include <vector>

namespace gantry {

std::optional<FocusAxis> focusAxisOf(std::span<const Axis> axes) {
    for (std::size_t a = 0; a < axes.size(); ++a) {
        const auto* rotary = std::get_if<RotaryMechanism>(&axes[a].mechanism);
        const auto* output = rotary != nullptr ? std::get_if<LensRingOutput>(&rotary->output) : nullptr;
        if (axes[a].role != Role::Focus || output == nullptr || !output->steadyElectronics) continue;
        std::vector<optics::FocusMark> marks;
        for (const RingMark& m : output->marks) marks.push_back({m.angle, m.reading});
        if (auto ring = optics::FocusRing::of(marks)) return FocusAxis{a, *ring};
    }
    return std::nullopt;
}

double pupilToSensor(const Head& head) {
    constexpr double behindFront = 0.02; // [m] of the body
    const double pupil = head.lensFront.value - head.pupilBack.value,
                 sensor = head.cameraDepth.value - head.cameraBack.value - behindFront;
    return std::max(0.0, pupil - sensor);
}

} // namespace gantry
