// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_scene.h"

#include "core/evaluate/rig/rig_layout.h"

#include <algorithm>
#include <cmath>

namespace gantry {

const Shot* shotOf(std::span<const Shot> shots, const RigMove& move) {
    for (const Shot& s : shots)
        if (s.id == move.shot) return &s;
    return shots.empty() ? nullptr : &shots.front();
}

SoftEnds softEnds(const Axis& axis) {
    const double travel = usableTravel(axis);
    const double margin = std::min(
        std::visit([](const auto& m) { return m.motion.softLimitMargin; }, axis.mechanism), 0.5 * travel);
    return {margin, travel - margin};
}

std::vector<double> fixedSpeeds(const Axis& axis) {
    std::vector<double> out;
    std::visit(
        [&](const auto& m) {
            for (const auto& s : m.motion.speeds) out.push_back(s.speed);
        },
        axis.mechanism);
    return out;
}

bool hasBlock(const RigMove& move, const Axis& axis) {
    return std::any_of(move.blocks.begin(), move.blocks.end(),
                       [&](const AxisBlock& b) { return b.axis == axis.id; });
}

MoveScene sceneOf(const RigSetup& rig, const RigMove& move) {
    MoveScene out;
    const RigChain chain = chainOf(rig);
    out.links = chain.links;
    out.linkOf = chain.linkOf;
    // The pupil lies behind the front of the lens.
    kinematics::Link pupil;
    pupil.on = chain.lensOn;
    pupil.shift = geometry::plus(chain.lens, {-rig.head.pupilBack.value, 0.0, 0.0});
    out.links.push_back(pupil);
    out.head.lens = static_cast<int>(out.links.size()) - 1;
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const Axis& axis = rig.axes[a];
        out.axes.push_back(
            {axis.id, kindOf(axis), !fixedSpeeds(axis).empty(), startsAtOnce(axis, rig.controller.ramps)});
        out.limits.push_back(keptLimits(axis, rig.controller.ramps));
        out.travels.push_back(usableTravel(axis));
        out.ends.push_back(softEnds(axis));
        if (axis.role == Role::Turntable) out.turntables.push_back({axis.id, a});
        const int link = out.linkOf[a];
        if (link < 0) continue;
        // The uppermost of each kind points the camera; a second pan below it is as good as a swing.
        if (axis.role == Role::Pan) out.head.pan = link;
        if (axis.role == Role::Tilt) out.head.tilt = link;
        if (axis.role == Role::Roll) out.head.roll = link;
    }
    out.shown = shownPose(rig.axes);
    for (std::size_t a = 0; a < out.shown.size(); ++a)
        out.shown[a] = std::clamp(out.shown[a], out.ends[a].low, out.ends[a].high);
    out.focus = focusAxisOf(rig.axes);
    out.pupilToSensor = pupilToSensor(rig.head);
    out.zoom = zoomAxisOf(rig.axes);
    out.pixelsPerMetre = rig.camera.deliveredWidth / rig.camera.sensorWidth;
    if (const Shot* shot = shotOf(rig.shots, move)) {
        out.shotLens = shot->focalLength;
        out.frameRate = shot->frameRate;
    } else {
        out.shotLens = rig.camera.sensorWidth; // it shows 53° across
    }
    return out;
}

static double axisOr(std::span<const double> list, std::size_t axis) {
    return axis < list.size() ? list[axis] : 0.0;
}

double MoveScene::focalLength(std::span<const double> places) const {
    return zoom ? zoom->ring.focalAt(axisOr(places, zoom->axis)) : shotLens;
}

double MoveScene::focal(std::span<const double> places) const {
    return pixelsPerMetre * focalLength(places);
}

kinematics::Focal MoveScene::focalMotion(const kinematics::AxisMotion& motion) const {
    if (!zoom) return {pixelsPerMetre * shotLens};
    const optics::FocalMotion now =
        zoom->ring.at({axisOr(motion.places, zoom->axis), axisOr(motion.speeds, zoom->axis),
                       axisOr(motion.accelerations, zoom->axis)});
    return {pixelsPerMetre * now.length, pixelsPerMetre * now.rate, pixelsPerMetre * now.rises};
}

AxisStates statesAt(const MoveScene& scene, const trajectory::Trajectory& t, double at) {
    AxisStates out(scene.travels.size());
    for (std::size_t a = 0; a < out.places.size() && a < t.axisCount(); ++a) {
        const trajectory::State s = t.at(a, at);
        out.places[a] = s.place;
        out.speeds[a] = s.speed;
        out.rises[a] = s.acceleration;
    }
    return out;
}

std::vector<double> placesAt(const trajectory::Trajectory& t, double at) {
    std::vector<double> out(t.axisCount());
    for (std::size_t a = 0; a < out.size(); ++a) out[a] = t.at(a, at).place;
    return out;
}

double focalLengthAt(const MoveScene& scene, const trajectory::Trajectory& t, double at) {
    return scene.zoom ? scene.zoom->ring.focalAt(t.at(scene.zoom->axis, at).place) : scene.shotLens;
}

kinematics::Moving cameraAt(const MoveScene& scene, const kinematics::AxisMotion& motion) {
    std::vector<kinematics::Moving> links(scene.links.size());
    kinematics::forwardMotion(scene.links, motion, links);
    return links.back();
}

kinematics::Moving cameraAt(const MoveScene& scene, const trajectory::Trajectory& t, double at) {
    return cameraAt(scene, statesAt(scene, t, at).motion());
}

/// The turntable that a target rides on; null where it stands still.
static const Turntable* tableOf(const MoveScene& scene, const AimTarget& target) {
    const auto table = std::find_if(scene.turntables.begin(), scene.turntables.end(),
                                    [&](const Turntable& t) { return t.id == target.rides; });
    return table != scene.turntables.end() ? &*table : nullptr;
}

kinematics::Point pointOf(const MoveScene& scene, const AimTarget& target,
                          const kinematics::AxisMotion& motion) {
    kinematics::Point out{{target.x, target.y, target.z}, {}, {}};
    const Turntable* table = tableOf(scene, target);
    if (table == nullptr) return out;
    const double angle = axisOr(motion.places, table->axis), turning = axisOr(motion.speeds, table->axis),
                 rises = axisOr(motion.accelerations, table->axis);
    const double x = target.x - target.aboutX, y = target.y - target.aboutY;
    const double ahead = x * std::cos(angle) - y * std::sin(angle),
                 left = x * std::sin(angle) + y * std::cos(angle);
    out.at = {target.aboutX + ahead, target.aboutY + left, target.z};
    out.velocity = {-turning * left, turning * ahead, 0.0};
    out.acceleration = {-rises * left - turning * turning * ahead, rises * ahead - turning * turning * left,
                        0.0};
    return out;
}

geometry::Place ridingBack(const MoveScene& scene, const AimTarget& target, std::span<const double> places,
                           geometry::Place at) {
    const Turntable* table = tableOf(scene, target);
    if (table == nullptr) return at;
    const double angle = -axisOr(places, table->axis);
    const double x = at.x - target.aboutX, y = at.y - target.aboutY;
    return {target.aboutX + x * std::cos(angle) - y * std::sin(angle),
            target.aboutY + x * std::sin(angle) + y * std::cos(angle), at.z};
}

kinematics::InPicture targetSeen(const MoveScene& scene, const AimTarget& target,
                                 const kinematics::AxisMotion& motion) {
    return kinematics::pictureOf(cameraAt(scene, motion), pointOf(scene, target, motion),
                                 scene.focalMotion(motion));
}

kinematics::InPicture targetSeen(const MoveScene& scene, const AimTarget& target,
                                 const trajectory::Trajectory& t, double at) {
    return targetSeen(scene, target, statesAt(scene, t, at).motion());
}

const AimTarget* targetOf(const RigMove& move, const MoveSegment& segment) {
    const AimTarget* named = namedTarget(move, segment);
    return named != nullptr || move.targets.empty() ? named : &move.targets.front();
}

const AimTarget* namedTarget(const RigMove& move, const MoveSegment& segment) {
    const auto it = std::find_if(move.targets.begin(), move.targets.end(),
                                 [&](const AimTarget& t) { return t.id == segment.target; });
    return it != move.targets.end() ? &*it : nullptr;
}

} // namespace gantry
