// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_picture.h"

#include "core/optics/picture.h"

#include <cmath>

namespace gantry {

MovePicture::MovePicture(const RigSetup& rig, const RigMove& move, const PlannedMove& planned)
    : camera_(rig.camera), move_(move), scene_(planned.scene), plan_(planned.plan),
      shot_(shotOf(rig.shots, move)) {
    for (const SegmentPlan& s : plan_.segments) {
        const AimTarget* target = targetOf(move_, move_.poses[s.pose].arrive);
        ways_.push_back(target != nullptr ? wayInPicture(scene_, plan_, s, *target) : std::nullopt);
    }
    if (const auto first = at(0.0)) firstFocus_ = first->targetAt;
}

std::optional<PictureMoment> MovePicture::at(double time) const {
    const SegmentPlan* segment = nullptr;
    for (const SegmentPlan& s : plan_.segments)
        if (segment == nullptr || time >= s.from) segment = &s;
    if (segment == nullptr || shot_ == nullptr || plan_.trajectory.empty()) return std::nullopt;
    const AimTarget* target = targetOf(move_, move_.poses[segment->pose].arrive);
    if (target == nullptr) return std::nullopt;
    PictureMoment out;
    out.target = targetSeen(scene_, *target, plan_.trajectory, time);
    if (!out.target.inFront) return std::nullopt;
    const double half = 0.5 * camera_.deliveredWidth;
    out.inFrame = std::abs(out.target.u) <= half && std::abs(out.target.v) <= half * optics::pictureShape;
    if (const auto& way = ways_[static_cast<std::size_t>(segment - plan_.segments.data())])
        out.off = way->off(out.target.u, out.target.v);
    out.targetAt = out.target.depth + scene_.pupilToSensor;
    out.focusedAt = scene_.focus
                        ? scene_.focus->ring.distanceAt(plan_.trajectory.at(scene_.focus->axis, time).place)
                    : firstFocus_ > 0.0 ? firstFocus_
                                        : out.targetAt;
    const double lens = focalLengthAt(scene_, plan_.trajectory, time);
    const double nearest = 1.05 * lens;
    if (out.targetAt > nearest && out.focusedAt > nearest) {
        const double focused = std::isfinite(out.focusedAt) ? 1.0 / out.focusedAt : 0.0;
        out.focusBlur = optics::defocusPixels(lens, shot_->fNumber, out.focusedAt,
                                              std::abs(1.0 / out.targetAt - focused), scene_.pixelsPerMetre);
    }
    return out;
}

} // namespace gantry
