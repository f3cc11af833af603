// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/focus_pull.h"

#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// A focus ring's marks in order of angle, straight in 1/distance between them and beyond the last.
class FocusScale {
public:
    explicit FocusScale(std::vector<RingMark> marks) : marks_(std::move(marks)) {
        std::sort(marks_.begin(), marks_.end(),
                  [](const RingMark& a, const RingMark& b) { return a.angle < b.angle; });
    }
    /// Ring angle [rad] for 1/distance [1/m].
    std::optional<double> angleAt(double inverse) const {
        return along([](const RingMark& m) { return 1.0 / m.reading; },
                     [](const RingMark& m) { return m.angle; }, inverse);
    }
    std::optional<double> inverseAt(double angle) const {
        return along([](const RingMark& m) { return m.angle; },
                     [](const RingMark& m) { return 1.0 / m.reading; }, angle);
    }

private:
    template <class From, class To>
    std::optional<double> along(From from, To to, double x) const {
        std::optional<double> out;
        double nearest = 0.0;
        for (std::size_t i = 1; i < marks_.size(); ++i) {
            const double a = from(marks_[i - 1]), b = from(marks_[i]);
            if (a == b) continue;
            const auto [low, high] = std::minmax(a, b);
            const double outside = std::max({0.0, low - x, x - high});
            if (out && outside >= nearest) continue;
            nearest = outside;
            out = to(marks_[i - 1]) + (to(marks_[i]) - to(marks_[i - 1])) * (x - a) / (b - a);
        }
        return out;
    }
    std::vector<RingMark> marks_;
};

/// The focus axis whose scale can be relied on; null if the rig has none.
const Axis* focusAxis(std::span<const Axis> axes, const LensRingOutput*& ring) {
    for (const Axis& axis : axes) {
        const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
        ring = rotary != nullptr ? std::get_if<LensRingOutput>(&rotary->output) : nullptr;
        if (axis.role == Role::Focus && ring != nullptr && ring->steadyElectronics) return &axis;
    }
    return nullptr;
}

} // namespace

std::optional<double> endDistance(const Shot& shot, const Movement& movement) {
    const double end = shot.subjectDistance - distanceOf(movement);
    if (!(std::min(end, shot.subjectDistance) > 1.05 * shot.focalLength)) return std::nullopt;
    return end;
}

FocusPull focusPull(const RigSetup& rig, const Shot& shot, const Movement& movement) {
    FocusPull out;
    if (!shot.towards) return out;
    const std::optional<double> end = endDistance(shot, movement);
    if (!end) {
        out.nearest = out.blur = out.left = Figure::none(Reason::OutOfRange);
        return out;
    }
    const double first = 1.0 / shot.subjectDistance, last = 1.0 / *end;
    // Focused at a distance, the subject at the other; px per 1/m of error.
    const auto blur = [&](double focused, double inverse) {
        return optics::defocusPixels(shot.focalLength, shot.fNumber, 1.0 / focused,
                                     std::abs(inverse - focused),
                                     rig.camera.deliveredWidth / rig.camera.sensorWidth);
    };
    out.nearest = Figure::of(std::min(shot.subjectDistance, *end));
    out.blur = out.left = Figure::of(blur(first, last));
    const LensRingOutput* ring = nullptr;
    const Axis* axis = focusAxis(rig.axes, ring);
    if (axis == nullptr) return out;
    const FocusScale scale(ring->marks);
    const auto from = scale.angleAt(first), to = scale.angleAt(last);
    if (!from || !to) return out;
    out.turn = Figure::of(*to - *from);
    if (const Movement* m = findMovement(shot, axis->id)) {
        const auto reached = scale.inverseAt(*from + distanceOf(*m));
        // Beyond infinity it is as if focused there.
        const double focused = std::max(reached.value_or(first), 1e-6);
        if (1.0 / focused > 1.05 * shot.focalLength) out.left = Figure::of(blur(focused, last));
    }
    return out;
}

} // namespace gantry
