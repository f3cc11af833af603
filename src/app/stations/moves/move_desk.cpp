// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/move_desk.h"

#include "core/tools/carry_lens.h"

#include <algorithm>
#include <cmath>

namespace gantry::app {

MoveDesk::MoveDesk(const Context& context, QObject* parent) : QObject(parent), context_(context) {}

const RigMove* MoveDesk::current() const {
    const auto& moves = context_.document.project().moves;
    return move_ >= 0 && move_ < static_cast<int>(moves.size()) ? &moves[static_cast<std::size_t>(move_)]
                                                                : nullptr;
}

const PlannedMove* MoveDesk::planned() const {
    return current() != nullptr ? &context_.document.results().move(static_cast<std::size_t>(move_))
                                : nullptr;
}

const MoveResults* MoveDesk::results() const {
    const auto& all = context_.document.results().evaluation().moves;
    return move_ >= 0 && move_ < static_cast<int>(all.size()) ? &all[static_cast<std::size_t>(move_)]
                                                              : nullptr;
}

const MoveScene& MoveDesk::scene() const {
    if (const PlannedMove* p = planned()) return p->scene;
    standing_ = sceneOf(setupOf(context_.document.project(), Courses::No), RigMove{});
    return standing_;
}

double MoveDesk::duration() const {
    const PlannedMove* p = planned();
    return p != nullptr ? p->plan.trajectory.duration() : 0.0;
}

double MoveDesk::frameTime() const {
    const PlannedMove* p = planned();
    return 1.0 / (p != nullptr ? p->scene.frameRate : 25.0);
}

std::vector<double> MoveDesk::places() const {
    if (jogged_) return *jogged_;
    const PlannedMove* p = planned();
    if (p == nullptr) return scene().shown;
    if (p->plan.trajectory.empty()) return p->plan.poses.empty() ? p->scene.shown : p->plan.poses.front();
    std::vector<double> out;
    for (std::size_t a = 0; a < p->plan.trajectory.axisCount(); ++a)
        out.push_back(p->plan.trajectory.at(a, time_).place);
    return out;
}

kinematics::Moving MoveDesk::camera() const {
    const MoveScene& s = scene();
    const PlannedMove* p = planned();
    if (!jogged_ && p != nullptr && !p->plan.trajectory.empty())
        return cameraAt(s, p->plan.trajectory, time_);
    const std::vector<double> at = places();
    return cameraAt(s, {at, {}, {}});
}

geometry::Place MoveDesk::placeOf(const AimTarget& target) const {
    const std::vector<double> at = places();
    return pointOf(scene(), target, {at, {}, {}}).at;
}

double MoveDesk::focal() const {
    return scene().focal(places());
}

kinematics::InPicture MoveDesk::seen(const AimTarget& target) const {
    const std::vector<double> at = places();
    return gantry::targetSeen(scene(), target, {at, {}, {}});
}

int MoveDesk::segmentPose() const {
    const PlannedMove* p = planned();
    if (p == nullptr) return -1;
    for (const SegmentPlan& s : p->plan.segments)
        if (time_ <= s.to) return static_cast<int>(s.pose);
    return p->plan.segments.empty() ? -1 : static_cast<int>(p->plan.segments.back().pose);
}

const AimTarget* MoveDesk::target() const {
    const RigMove* m = current();
    if (m == nullptr || m->targets.empty()) return nullptr;
    if (const int pose = segmentPose(); pose > 0)
        for (const AimTarget& t : m->targets)
            if (t.id == m->poses[static_cast<std::size_t>(pose)].arrive.target) return &t;
    return &m->targets.front();
}

void MoveDesk::setMove(int move) {
    if (move == move_) return;
    move_ = move;
    pose_ = -1;
    time_ = 0.0;
    jogged_.reset();
    fit();
    emit changed();
}

void MoveDesk::setPose(int pose) {
    const RigMove* m = current();
    if (m == nullptr) return;
    pose_ = std::clamp(pose, -1, static_cast<int>(m->poses.size()) - 1);
    jogged_.reset();
    if (const PlannedMove* p = planned(); pose_ >= 0 && pose_ < static_cast<int>(p->plan.poseTimes.size()))
        time_ = p->plan.poseTimes[static_cast<std::size_t>(pose_)];
    emit changed();
}

void MoveDesk::setTime(double time) {
    const double frame = frameTime();
    time_ = std::clamp(std::round(time / frame) * frame, 0.0, duration());
    jogged_.reset();
    emit headMoved();
}

void MoveDesk::step(int frames) {
    // From between two frames the next one on that side.
    const double at = time_ / frameTime();
    const double next = frames > 0 ? std::floor(at + 1e-6) + frames : std::ceil(at - 1e-6) + frames;
    setTime(next * frameTime());
}

void MoveDesk::jog(int axis, double place) {
    std::vector<double> now = places();
    const auto& axes = context_.document.project().axes;
    if (axis < 0 || axis >= static_cast<int>(axes.size()) || axis >= static_cast<int>(now.size())) return;
    now[static_cast<std::size_t>(axis)] =
        std::clamp(place, 0.0, usableTravel(axes[static_cast<std::size_t>(axis)]));
    jogged_ = std::move(now);
    emit headMoved();
}

bool MoveDesk::jogLens(double ahead, double left, double up) {
    const geometry::Frame lens = camera().frame;
    const geometry::Place way{ahead * lens.ahead.x + left * lens.left.x,
                              ahead * lens.ahead.y + left * lens.left.y,
                              ahead * lens.ahead.z + left * lens.left.z + up};
    std::vector<double> now =
        carryLens(context_.document.project().axes, scene(), places(), geometry::plus(lens.at, way));
    const geometry::Place went = geometry::minus(cameraAt(scene(), {now, {}, {}}).frame.at, lens.at);
    if (2.0 * dot(went, way) < dot(way, way)) return false;
    jogged_ = std::move(now);
    emit headMoved();
    return true;
}

void MoveDesk::storeView() {
    const geometry::Frame lens = camera().frame;
    views_.push_back({lens.at, lens.ahead});
}

void MoveDesk::forgetViews() {
    views_.clear();
}

void MoveDesk::goTo(int pose) {
    const PlannedMove* p = planned();
    if (p == nullptr || pose < 0 || pose >= static_cast<int>(p->plan.poses.size())) return;
    setPose(pose);
    jogged_ = p->plan.poses[static_cast<std::size_t>(pose)];
    emit headMoved();
}

void MoveDesk::fit() {
    const auto& moves = context_.document.project().moves;
    move_ = std::clamp(move_, 0, std::max(0, static_cast<int>(moves.size()) - 1));
    const RigMove* m = current();
    pose_ = m == nullptr ? -1 : std::clamp(pose_, -1, static_cast<int>(m->poses.size()) - 1);
    time_ = std::clamp(time_, 0.0, duration());
    if (jogged_ && jogged_->size() != context_.document.project().axes.size()) jogged_.reset();
}

} // namespace gantry::app
