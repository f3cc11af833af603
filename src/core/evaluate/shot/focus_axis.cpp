// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/focus_axis.h"

#include <algorithm>
#include <utility>
#include <vector>

namespace gantry {

/// The ring that an axis turns, if it has a part and its scale can be relied on; else null.
static const LensRingOutput* reliableRing(const Axis& axis, Role part) {
    const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
    const auto* output = rotary != nullptr ? std::get_if<LensRingOutput>(&rotary->output) : nullptr;
    return axis.role == part && output != nullptr && output->steadyElectronics ? output : nullptr;
}

std::optional<FocusAxis> focusAxisOf(std::span<const Axis> axes) {
    for (std::size_t a = 0; a < axes.size(); ++a) {
        const LensRingOutput* output = reliableRing(axes[a], Role::Focus);
        if (output == nullptr) continue;
        std::vector<optics::FocusMark> marks;
        for (const RingMark& m : output->marks) marks.push_back({m.angle, m.reading});
        if (auto ring = optics::FocusRing::of(marks)) return FocusAxis{a, *ring};
    }
    return std::nullopt;
}

std::optional<ZoomAxis> zoomAxisOf(std::span<const Axis> axes) {
    for (std::size_t a = 0; a < axes.size(); ++a) {
        const LensRingOutput* output = reliableRing(axes[a], Role::Zoom);
        if (output == nullptr) continue;
        std::vector<optics::ZoomMark> marks;
        for (const RingMark& m : output->marks) marks.push_back({m.angle, m.reading});
        if (auto ring = optics::ZoomRing::of(marks)) return ZoomAxis{a, std::move(marks), std::move(*ring)};
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
