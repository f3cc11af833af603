// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/focus_pull.h"

#include "core/evaluate/shot/focus_axis.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>

namespace gantry {
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
    const auto focus = focusAxisOf(rig.axes);
    if (!focus) return out;
    const double from = focus->ring.at(shot.subjectDistance).angle, to = focus->ring.at(*end).angle;
    out.turn = Figure::of(to - from);
    if (const Movement* m = findMovement(shot, rig.axes[focus->axis].id)) {
        // Beyond infinity it is as if focused there.
        const double focused = std::min(focus->ring.distanceAt(from + distanceOf(*m)), 1e6);
        if (focused > 1.05 * shot.focalLength) out.left = Figure::of(blur(1.0 / focused, last));
    }
    return out;
}

} // namespace gantry
