// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/aimed_run.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

using kinematics::Aim;
using kinematics::Aimed;
using trajectory::Quintic;
using trajectory::State;
using trajectory::Trajectory;

/// Between this many moments of an aimed segment the head is refitted: 0.001 px on all rigs that were tried.
constexpr int aimedPieces = 40;

class Aimer {
public:
    Aimer(const MoveScene& scene, const SegmentAims& aims, std::span<const std::vector<double>> poses)
        : scene_(scene), aims_(aims), poses_(poses), axes_(poses.front().size()) {}

    Trajectory along(std::size_t first, std::size_t last, std::span<const double> times,
                     const Trajectory& run) {
        std::vector<Stretch> stretches;
        for (std::size_t i = 0; i < run.pieceCount(); ++i) {
            const double low = run.times()[i], high = run.times()[i + 1], middle = 0.5 * (low + high);
            const auto above = std::upper_bound(times.begin() + 1, times.end() - 1, middle);
            const std::size_t pose = first + static_cast<std::size_t>(above - times.begin());
            const double whole = times[pose - first] - times[pose - first - 1];
            const int parts =
                aims_.target(pose) == nullptr
                    ? 1
                    : std::max(1, static_cast<int>(std::ceil((high - low) / whole * aimedPieces)));
            for (int k = 0; k < parts; ++k)
                stretches.push_back(
                    {low + (high - low) * k / parts, low + (high - low) * (k + 1) / parts, i, pose, {}, {}});
        }
        const auto statesOf = [&](const Stretch& s, double at) {
            std::vector<State> out(axes_);
            for (std::size_t a = 0; a < axes_; ++a)
                out[a] = run.pieces(a)[s.piece].at(at - run.times()[s.piece]);
            return out;
        };
        std::vector<Way> ways;
        for (std::size_t i = first + 1; i <= last; ++i)
            ways.push_back(aims_.target(i) != nullptr ? wayOf(i, times[i - first] - times[i - first - 1])
                                                      : Way{});
        std::vector<double> head = poses_[first]; // where it was last, for the count of whole turns
        for (std::size_t i = 0; i < stretches.size(); ++i) {
            Stretch& s = stretches[i];
            const Stretch* before = i > 0 ? &stretches[i - 1] : nullptr;
            s.to = statesOf(s, s.high);
            s.from = before != nullptr && before->piece == s.piece ? before->to : statesOf(s, s.low);
            if (aims_.target(s.pose) == nullptr) {
                head = poses_[s.pose];
                continue;
            }
            const double start = times[s.pose - first - 1];
            const Way& way = ways[s.pose - first - 1];
            if (before == nullptr || before->piece != s.piece)
                aimNode(s.pose, s.low - start, way, s.from, head);
            aimNode(s.pose, s.high - start, way, s.to, head);
        }
        // Between two aimed segments the head comes from the one and goes on as the other does.
        for (std::size_t i = 0; i < stretches.size(); ++i) {
            if (aims_.target(stretches[i].pose) != nullptr) continue;
            for (std::size_t a = 0; a < axes_; ++a) {
                if (i > 0 && aims_.target(stretches[i - 1].pose) != nullptr &&
                    aims_.leads(stretches[i - 1].pose, a))
                    stretches[i].from[a] = stretches[i - 1].to[a];
                if (i + 1 < stretches.size() && aims_.target(stretches[i + 1].pose) != nullptr &&
                    aims_.leads(stretches[i + 1].pose, a))
                    stretches[i].to[a] = stretches[i + 1].from[a];
            }
        }
        std::vector<double> at{0.0};
        std::vector<std::vector<Quintic>> pieces(axes_);
        for (const Stretch& s : stretches) {
            at.push_back(s.high);
            for (std::size_t a = 0; a < axes_; ++a)
                pieces[a].push_back(Quintic::between(s.from[a], s.to[a], s.high - s.low));
        }
        return Trajectory(std::move(at), std::move(pieces));
    }
    std::vector<AimFailure> failures() { return std::move(failures_); }

private:
    /// Where the target shall be in the picture along an aimed segment: from where the first pose shows it to
    /// where the second does, smoothly; the same place where both hold it there.
    struct Way {
        kinematics::PicturePlace from, to;
        double time = 1.0;
        kinematics::PicturePlace at(double t) const {
            const double x = std::clamp(t / time, 0.0, 1.0), s = x * x * x * (10.0 - 15.0 * x + 6.0 * x * x);
            return {from.u + s * (to.u - from.u), from.v + s * (to.v - from.v)};
        }
    };
    Way wayOf(std::size_t pose, double time) const {
        const auto from = shownAt(scene_, poses_[pose - 1], *aims_.target(pose)),
                   to = shownAt(scene_, poses_[pose], *aims_.target(pose));
        if (from && to) return {*from, *to, time};
        const kinematics::PicturePlace held = aims_.aim(pose, poses_[pose]).place;
        return {held, held, time};
    }

    /// A stretch of a run within one of its pieces and one segment, and how all axes begin and end it.
    struct Stretch {
        double low, high;
        std::size_t piece; ///< of the run
        std::size_t pose;  ///< of the segment
        std::vector<State> from, to;
    };

    /// The head's states at a moment of an aimed segment, those of all other axes given.
    void aimNode(std::size_t pose, double since, const Way& way, std::vector<State>& states,
                 std::vector<double>& head) {
        const AimTarget& target = *aims_.target(pose);
        std::vector<double> places(axes_), speeds(axes_), rises(axes_);
        for (std::size_t a = 0; a < axes_; ++a) {
            places[a] = aims_.leads(pose, a) ? head[a] : states[a].place;
            speeds[a] = states[a].speed;
            rises[a] = states[a].acceleration;
        }
        const kinematics::Point point = pointOf(scene_, target, {places, speeds, rises});
        Aim aim = aims_.aim(pose, places);
        aim.place = way.at(since);
        const Aimed angles = kinematics::aimAt(scene_.links, scene_.head, places, point.at, aim);
        if (!angles) {
            if (failures_.empty() || failures_.back().pose != pose) failures_.push_back({angles.no, pose});
            return;
        }
        aims_.turnHead(places, angles);
        head = places;
        const auto rates =
            kinematics::ratesToHold(scene_.links, scene_.head, {places, speeds, rises}, point, aim);
        kinematics::HeadRates by = rates.value_or(kinematics::HeadRates{});
        // Held beside the middle of a picture that is zoomed, it moves as well, as an angle.
        constexpr double moves = 1e-6; // [px]
        const bool zooms = scene_.focalMotion({places, speeds, rises}).rate != 0.0 &&
                           std::hypot(aim.place.u, aim.place.v) > moves;
        if (zooms || std::hypot(way.to.u - way.from.u, way.to.v - way.from.v) > moves)
            addWay(places, speeds, rises, target, aim, way, since, by);
        const auto keep = [&](int link, double rate, double rise) {
            if (link >= 0) states[aims_.axisOf(link)] = {places[aims_.axisOf(link)], rate, rise, 0.0};
        };
        keep(scene_.head.pan, by.pan, by.panRises);
        keep(scene_.head.tilt, by.tilt, by.tiltRises);
        keep(scene_.head.roll, by.roll, by.rollRises);
        if (aims_.pullsFocus(pose)) keepFocus(target, states);
    }
    /// The focus as the target comes and goes along the lens, the states of all else given.
    void keepFocus(const AimTarget& target, std::vector<State>& states) const {
        AxisStates now(axes_);
        for (std::size_t a = 0; a < axes_; ++a) {
            now.places[a] = states[a].place;
            now.speeds[a] = states[a].speed;
            now.rises[a] = states[a].acceleration;
        }
        const kinematics::InPicture p = targetSeen(scene_, target, now.motion());
        if (!p.inFront) return;
        const optics::RingMotion ring =
            scene_.focus->ring.at(p.depth + scene_.pupilToSensor, p.depthSpeed, p.depthRises);
        states[scene_.focus->axis] = {ring.angle, ring.rate, ring.rises, 0.0};
    }
    /// Speeds and accelerations of a head that follows a place that moves in the picture: by differences of
    /// angles that are exact at each moment.
    void addWay(std::vector<double> places, const std::vector<double>& speeds,
                const std::vector<double>& rises, const AimTarget& target, Aim aim, const Way& way,
                double since, kinematics::HeadRates& by) const {
        const double h = 1e-3 * way.time;
        const std::vector<double> middle = places;
        const auto anglesAt = [&](double dt) {
            for (std::size_t a = 0; a < axes_; ++a)
                places[a] = middle[a] + speeds[a] * dt + 0.5 * rises[a] * dt * dt;
            for (const int link : aims_.headLinks()) places[aims_.axisOf(link)] = middle[aims_.axisOf(link)];
            aim.place = way.at(since + dt);
            aim.focal = scene_.focal(places);
            const kinematics::Point point = pointOf(scene_, target, {places, {}, {}});
            return kinematics::aimFrom(scene_.links, scene_.head, places, point.at, aim);
        };
        const Aimed before = anglesAt(-h), now = anglesAt(0.0), after = anglesAt(h);
        if (!before || !now || !after) return;
        const auto differ = [&](double Aimed::*angle, double& rate, double& rise) {
            const double b = before.*angle, n = now.*angle, a = after.*angle;
            rate = (a - b) / (2.0 * h);
            rise = (a - 2.0 * n + b) / (h * h);
        };
        differ(&Aimed::pan, by.pan, by.panRises);
        differ(&Aimed::tilt, by.tilt, by.tiltRises);
        differ(&Aimed::roll, by.roll, by.rollRises);
    }

    const MoveScene& scene_;
    const SegmentAims& aims_;
    std::span<const std::vector<double>> poses_;
    std::size_t axes_;
    std::vector<AimFailure> failures_;
};

} // namespace

AimedRun aimedRun(const MoveScene& scene, const SegmentAims& aims, std::span<const std::vector<double>> poses,
                  std::size_t first, std::size_t last, std::span<const double> times, const Trajectory& run) {
    bool any = false;
    for (std::size_t i = first + 1; i <= last; ++i) any = any || aims.target(i) != nullptr;
    if (!any || run.empty()) return {run, {}};
    Aimer aimer(scene, aims, poses);
    Trajectory aimed = aimer.along(first, last, times, run);
    return {std::move(aimed), aimer.failures()};
}

} // namespace gantry
