// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/segment_aims.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {

const AimTarget* SegmentAims::target(std::size_t pose) const {
    if (pose == 0 || pose >= move_.poses.size() || !hasHead()) return nullptr;
    const MoveSegment& segment = move_.poses[pose].arrive;
    return segment.kind == SegmentKind::Aimed ? namedTarget(move_, segment) : nullptr;
}

kinematics::Aim SegmentAims::aim(std::size_t pose, std::span<const double> places) const {
    const MoveSegment& segment = move_.poses[pose].arrive;
    return {{segment.placeRight, segment.placeUp}, scene_.focal(places), scene_.head.roll >= 0};
}

bool SegmentAims::pullsFocus(std::size_t pose) const {
    return scene_.focus && move_.poses[pose].arrive.pullsFocus;
}

bool SegmentAims::leads(std::size_t pose, std::size_t axis) const {
    const std::vector<int> head = headLinks();
    return std::any_of(head.begin(), head.end(), [&](int link) { return axisOf(link) == axis; }) ||
           (pullsFocus(pose) && scene_.focus->axis == axis);
}

std::vector<int> SegmentAims::headLinks() const {
    std::vector<int> out;
    for (const int link : {scene_.head.pan, scene_.head.tilt, scene_.head.roll})
        if (link >= 0) out.push_back(link);
    return out;
}

std::size_t SegmentAims::axisOf(int link) const {
    return static_cast<std::size_t>(scene_.links[static_cast<std::size_t>(link)].axis);
}

void SegmentAims::turnHead(std::vector<double>& places, const kinematics::Aimed& aimed) const {
    const auto set = [&](int link, double angle) {
        if (link < 0) return;
        double& at = places[axisOf(link)];
        at += std::remainder(angle - at, 2.0 * std::numbers::pi);
    };
    set(scene_.head.pan, aimed.pan);
    set(scene_.head.tilt, aimed.tilt);
    set(scene_.head.roll, aimed.roll);
}

void SegmentAims::focusOn(std::size_t pose, std::vector<double>& places) const {
    if (!pullsFocus(pose)) return;
    const kinematics::InPicture p = targetSeen(scene_, *target(pose), {places, {}, {}});
    if (p.inFront) places[scene_.focus->axis] = scene_.focus->ring.at(p.depth + scene_.pupilToSensor).angle;
}

std::optional<kinematics::PicturePlace> shownAt(const MoveScene& scene, std::span<const double> places,
                                                const AimTarget& target) {
    const kinematics::InPicture p = targetSeen(scene, target, {places, {}, {}});
    if (!p.inFront) return std::nullopt;
    return kinematics::PicturePlace{p.u, p.v};
}

} // namespace gantry
