// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/shot/focus_axis.h"
#include "core/model/edit_moves.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/moves/move_view.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

using rules::SegmentView;

constexpr Message inTime{"“{part}” in {0}"};
constexpr Message asFast{"“{part}” as fast as it may"};
constexpr Message gentler{"“{part}” with ease of {0} at both ends"};
constexpr Message raised{"top speed {0}, acceleration {1}"};
constexpr Message aimedAt{"“{part}” aimed"};
constexpr Message inside{"poses of “{part}” within the travel"};
constexpr Message stops{"stop at every pose of “{part}”"};
constexpr Message wholeIn{"“{part}” in {0} in all"};
constexpr Message lensOf{"a lens of {0} for “{shot}”"};
constexpr Message pulled{"focus pulled with the aim in “{part}”"};
constexpr Message startsIn{"first pose of “{part}” {0} farther from the soft limit"};
constexpr Message onLinks{"{part} with parallel links, which keep the head level"};
constexpr Message between{"“{part}” without going past its poses"};
constexpr Message straightOn{"“{part}” straight, from stop to stop"};
constexpr Message evenAxes{"“{part}” with even speed of the axes"};
constexpr Message zoomedTo{"“{part}” zoomed to {0}"};
constexpr Message blockAt{"block of “{part}” at {0}"};
constexpr Message focused{"focus on the target at every pose of “{part}”"};

SegmentView tooFast(const Problem& p) {
    return rules::worstSegment(p.now.evaluation,
                               [](std::size_t, const MoveSegmentResults& s) { return rules::limitRatio(s); });
}

/// A tenth of a second is what people set; nothing shorter than needed.
double settable(double time) {
    return std::ceil(time * 10.0 - 1e-6) / 10.0;
}

/// Every segment of the move that is too quick in its least time.
Candidates slower(const Problem& p) {
    Candidates out;
    const SegmentView worst = tooFast(p);
    if (!worst) return out;
    const MoveResults& r = p.now.evaluation.moves[worst.move];
    add(out, p, FixCost::SettingOnly, inTime, {{{Kind::Time, settable(worst.results->least.value()), 6}}},
        [&](Project& q) {
            RigMove& move = q.moves[worst.move];
            for (const MoveSegmentResults& s : r.segments) {
                if (!less(rules::limitRatio(s), 1.0)) continue;
                move.poses[s.pose].arrive.pace = SegmentPace::Time;
                move.poses[s.pose].arrive.time = settable(s.least.value());
            }
        });
    out.back().part = rules::segmentName(p.project, worst.move, worst.results->pose);
    return out;
}

/// More of the segment's time for speeding up and braking; its time stays.
Candidates gentlerEase(const Problem& p) {
    Candidates out;
    const SegmentView worst = tooFast(p);
    if (!worst || !worst.results->quickest || less(worst.results->time, worst.results->quickest)) return out;
    for (const double share : {0.2, 0.25, 0.3, 0.35, 0.4, 0.5}) {
        add(out, p, FixCost::SettingOnly, gentler, {{{Kind::Percentage, share}}}, [&](Project& q) {
            MoveSegment& s = q.moves[worst.move].poses[worst.results->pose].arrive;
            s.ease = EaseKind::S;
            s.easeIn = s.easeOut = share;
        });
        out.back().part = rules::segmentName(p.project, worst.move, worst.results->pose);
    }
    return out;
}

Candidates fastestPace(const Problem& p) {
    Candidates out;
    const SegmentView worst = tooFast(p);
    if (!worst) return out;
    add(out, p, FixCost::SettingOnly, asFast, {}, [&](Project& q) {
        q.moves[worst.move].poses[worst.results->pose].arrive.pace = SegmentPace::Fastest;
    });
    out.back().part = rules::segmentName(p.project, worst.move, worst.results->pose);
    return out;
}

/// The settings of the axis up to what the move asks, as far as its drive has it.
Candidates higherSettings(const Problem& p) {
    Candidates out;
    const SegmentView worst = tooFast(p);
    if (!worst || worst.results->axis != p.verdict.axis) return out;
    const MoveAxisResults& asks =
        p.now.evaluation.moves[worst.move].axes[static_cast<std::size_t>(p.verdict.axis)];
    const double unit = p.setIn(), speed = std::ceil(asks.topSpeed.value() / unit - 1e-6) * unit,
                 acceleration = std::ceil(asks.acceleration.value() / unit - 1e-6) * unit;
    std::visit(
        [&](const auto& m) {
            const double top = std::max(m.motion.maxSpeed, speed),
                         rise = std::max(m.motion.maxAcceleration, acceleration);
            if (p.evaluation().maxSpeed && top > p.evaluation().maxSpeed.value()) return;
            add(out, p, FixCost::SettingOnly, raised, {{{p.speedKind(), top}, {p.accelerationKind(), rise}}},
                [&](Axis& a) {
                    std::visit(
                        [&](auto& mechanism) {
                            mechanism.motion.maxSpeed = top;
                            mechanism.motion.maxAcceleration = rise;
                            if (mechanism.motion.jerk > 0.0)
                                mechanism.motion.jerk = std::max(mechanism.motion.jerk, asks.jerk.value());
                        },
                        a.mechanism);
                });
        },
        p.axis().mechanism);
    return out;
}

Candidates aiming(const Problem& p) {
    Candidates out;
    const SegmentView worst =
        rules::worstSegment(p.now.evaluation, [&](std::size_t m, const MoveSegmentResults& s) {
            return rules::allowedOver(rules::driftAllowed(p.project, m), s.drift);
        });
    if (!worst || worst.results->aimed || p.project.moves[worst.move].targets.empty()) return out;
    add(out, p, FixCost::SettingOnly, aimedAt, {}, [&](Project& q) {
        RigMove& move = q.moves[worst.move];
        MoveSegment& s = move.poses[worst.results->pose].arrive;
        s.kind = SegmentKind::Aimed;
        if (s.target.empty()) s.target = move.targets.front().id;
    });
    out.back().part = rules::segmentName(p.project, worst.move, worst.results->pose);
    return out;
}

/// Index of the move that leaves an axis' travel by most; −1 if none does.
int leavesTravel(const Problem& p) {
    int out = -1;
    for (std::size_t m = 0; m < p.now.evaluation.moves.size(); ++m) {
        const Figure room = p.now.evaluation.moves[m].travelRoom;
        if (less(room, 1.0) &&
            (out < 0 || less(room, p.now.evaluation.moves[static_cast<std::size_t>(out)].travelRoom)))
            out = static_cast<int>(m);
    }
    return out;
}

Candidates withinTravel(const Problem& p) {
    Candidates out;
    const int move = leavesTravel(p);
    if (move < 0) return out;
    const RigMove& of = p.project.moves[static_cast<std::size_t>(move)];
    add(out, p, FixCost::SettingOnly, inside, {}, [&](Project& q) {
        for (KeyPose& pose : q.moves[static_cast<std::size_t>(move)].poses)
            for (PosePlace& place : pose.places)
                std::visit(
                    [&](auto& at) {
                        const Axis* axis = findAxis(q, place.axis);
                        if (axis != nullptr && at.from != PlaceFrom::PoseBefore)
                            at.at = std::clamp(at.at, softEnds(*axis).low, softEnds(*axis).high);
                    },
                    place.place);
    });
    out.back().part = of.name;
    return out;
}

Candidates stopping(const Problem& p) {
    Candidates out;
    const int move = leavesTravel(p);
    if (move < 0) return out;
    add(out, p, FixCost::SettingOnly, stops, {}, [&](Project& q) {
        for (KeyPose& pose : q.moves[static_cast<std::size_t>(move)].poses) pose.passes = false;
    });
    out.back().part = p.project.moves[static_cast<std::size_t>(move)].name;
    return out;
}

/// Axes that may go past poses kept between them, where that takes one out of its travel.
Candidates keptBetween(const Problem& p) {
    Candidates out;
    const int move = leavesTravel(p);
    if (move < 0 || !p.project.moves[static_cast<std::size_t>(move)].overshoots) return out;
    add(out, p, FixCost::SettingOnly, between, {},
        [&](Project& q) { q.moves[static_cast<std::size_t>(move)].overshoots = false; });
    out.back().part = p.project.moves[static_cast<std::size_t>(move)].name;
    return out;
}

/// A time as it is typed.
double inHundredths(double time) {
    return std::max(0.01, std::round(time * 100.0) / 100.0);
}

/// Every segment of the move in the time that its nearest fixed speed or time makes of it.
Candidates toChoices(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0) return out;
    const auto m = static_cast<std::size_t>(move);
    const MoveResults& r = p.now.evaluation.moves[m];
    const auto set = [](Project& q, std::size_t at, std::size_t pose, double time) {
        q.moves[at].poses[pose].arrive.pace = SegmentPace::Time;
        q.moves[at].poses[pose].arrive.time = inHundredths(time);
    };
    if (!r.segments.empty() && r.segments.front().choice) {
        double whole = r.time.value();
        for (const MoveSegmentResults& s : r.segments)
            whole += inHundredths(s.choice.value()) - s.time.value();
        add(out, p, FixCost::SettingOnly, wholeIn, {{{Kind::Time, whole, 6}}}, [&](Project& q) {
            for (const MoveSegmentResults& s : r.segments) set(q, m, s.pose, s.choice.value());
        });
        out.back().part = p.project.moves[m].name;
    }
    for (const MoveAxisResults& a : r.axes) {
        if (!a.choiceTime) continue;
        add(out, p, FixCost::SettingOnly, inTime, {{{Kind::Time, inHundredths(a.choiceTime.value()), 6}}},
            [&](Project& q) { set(q, m, a.choicePose, a.choiceTime.value()); });
        out.back().part = rules::segmentName(p.project, m, a.choicePose);
    }
    return out;
}

/// Every time of the move by a factor, so that it stays the same way at another pace.
Candidates retimed(const Problem& p, std::initializer_list<double> factors) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0) return out;
    const double time = p.now.evaluation.moves[static_cast<std::size_t>(move)].time.valueOr(0.0);
    for (const double factor : factors) {
        add(out, p, FixCost::SettingOnly, wholeIn, {{{Kind::Time, factor * time}}},
            [&](Project& q) { retimeMove(q, move, factor); });
        out.back().part = p.project.moves[static_cast<std::size_t>(move)].name;
    }
    return out;
}
Candidates slowerMove(const Problem& p) {
    return retimed(p, {1.1, 1.25, 1.5, 1.75, 2.0, 2.5, 3.0, 4.0, 6.0});
}
Candidates fasterMove(const Problem& p) {
    return retimed(p, {0.9, 0.8, 0.7, 0.6, 0.5, 0.35, 0.25, 0.15, 0.1});
}

/// Focal lengths that lenses have [m].
Candidates narrower(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0) return out;
    const Shot* shot = shotOf(p.project.shots, p.project.moves[static_cast<std::size_t>(move)]);
    if (shot == nullptr) return out;
    const auto index = static_cast<std::size_t>(shot - p.project.shots.data());
    for (const double focal : {0.024, 0.028, 0.035, 0.05, 0.065, 0.085, 0.1}) {
        if (focal <= 1.05 * shot->focalLength || focal > 2.5 * shot->focalLength) continue;
        add(out, p, FixCost::PartOnHand, lensOf, {{{Kind::Length, focal}}},
            [&](Project& q) { q.shots[index].focalLength = focal; });
        out.back().shot = ShotIndex(index);
    }
    return out;
}

Candidates pulledFocus(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0 || !focusAxisOf(p.project.axes)) return out;
    add(out, p, FixCost::SettingOnly, pulled, {}, [&](Project& q) {
        for (KeyPose& pose : q.moves[static_cast<std::size_t>(move)].poses) pose.arrive.pullsFocus = true;
    });
    out.back().part = p.project.moves[static_cast<std::size_t>(move)].name;
    return out;
}

/// The distance of the target from the sensor, in every pose.
Candidates focusedAtPoses(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0 || !focusAxisOf(p.project.axes) || p.now.evaluation.planned == nullptr) return out;
    const RigMove& of = p.project.moves[static_cast<std::size_t>(move)];
    const PlannedMove& planned = (*p.now.evaluation.planned)[static_cast<std::size_t>(move)];
    add(out, p, FixCost::SettingOnly, focused, {}, [&](Project& q) {
        for (std::size_t i = 0; i < of.poses.size() && i < planned.plan.poseTimes.size(); ++i) {
            const AimTarget* target = targetOf(of, of.poses[i].arrive);
            if (target == nullptr) continue;
            const kinematics::InPicture seen =
                targetSeen(planned.scene, *target, planned.plan.trajectory, planned.plan.poseTimes[i]);
            if (!seen.inFront) continue;
            constexpr double centimetre = 0.01;
            q.moves[static_cast<std::size_t>(move)].poses[i].focus =
                std::round((seen.depth + planned.scene.pupilToSensor) / centimetre) * centimetre;
        }
    });
    out.back().part = p.project.moves[static_cast<std::size_t>(move)].name;
    return out;
}

/// What the plan lacks, where a setting mends it: the first trouble that the verdict can be about.
Candidates mendedPlan(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0) return out;
    const auto m = static_cast<std::size_t>(move);
    const RigMove& of = p.project.moves[m];
    for (const MoveTrouble& t : p.now.evaluation.moves[m].troubles) {
        if (rules::troubleMessage(t.kind).text != p.verdict.sentence.text) continue;
        const std::size_t at = t.pose; // of the pose that a segment comes to, or of the block
        const auto segment = [&](const words::Message& label, const words::Arguments& said, auto how) {
            add(out, p, FixCost::SettingOnly, label, said,
                [&](Project& q) { how(q.moves[m], q.moves[m].poses[at].arrive); });
            out.back().part = rules::segmentName(p.project, m, at);
        };
        switch (t.kind) {
        case MoveTroubleKind::CannotFollow:
            segment(straightOn, {}, [&](RigMove& q, MoveSegment& s) {
                s.kind = SegmentKind::Straight;
                s.even = EvenSpeed::Axes;
                q.poses[at].passes = q.poses[at - 1].passes = false;
            });
            break;
        case MoveTroubleKind::StandsInPicture:
        case MoveTroubleKind::LensStands:
        case MoveTroubleKind::EvenPassing:
            segment(evenAxes, {}, [](RigMove&, MoveSegment& s) { s.even = EvenSpeed::Axes; });
            break;
        case MoveTroubleKind::RampsTooLong: {
            constexpr double halves = 0.5;
            segment(gentler, {{{Kind::Percentage, halves}}},
                    [](RigMove&, MoveSegment& s) { s.easeIn = s.easeOut = halves; });
            break;
        }
        case MoveTroubleKind::NoSuchZoom:
            add(out, p, FixCost::SettingOnly, zoomedTo, {{{Kind::PartLength, t.limit}}},
                [&](Project& q) { q.moves[m].poses[at].focal = t.limit; });
            out.back().part = of.name + ", pose " + poseLetter(at);
            break;
        case MoveTroubleKind::BlocksOverlap:
        case MoveTroubleKind::BlockPastEnd: {
            const AxisBlock& block = of.blocks[at];
            const double start =
                t.kind == MoveTroubleKind::BlocksOverlap ? t.limit : std::max(0.0, t.limit - block.length);
            add(out, p, FixCost::SettingOnly, blockAt, {{{Kind::Time, start, 6}}},
                [&](Project& q) { q.moves[m].blocks[at].start = start; });
            out.back().part = p.project.axes[static_cast<std::size_t>(t.axis)].name;
            break;
        }
        default:
            break;
        }
        break;
    }
    return out;
}

/// The first pose of the axis away from the end, by what its backlash lacks.
Candidates fartherStart(const Problem& p) {
    Candidates out;
    const int move = p.verdict.move;
    if (move < 0) return out;
    const auto m = static_cast<std::size_t>(move), a = static_cast<std::size_t>(p.verdict.axis);
    const double backlash = p.evaluation().model.backlash,
                 room = p.now.evaluation.moves[m].axes[a].approachRoom.valueOr(1.0),
                 lacks = (1.0 - room) * backlash, unit = p.setIn();
    if (!(lacks > 0.0) || p.now.evaluation.planned == nullptr) return out;
    const double by = std::ceil(lacks / unit - 1e-6) * unit;
    const int way = (*p.now.evaluation.planned)[m].plan.trajectory.firstDirection(a);
    const Kind kind = p.linear() ? Kind::Length : Kind::Angle;
    add(out, p, FixCost::SettingOnly, startsIn, {{{kind, by}}}, [&](Project& q) {
        if (q.moves[m].poses.empty()) return;
        for (PosePlace& place : q.moves[m].poses.front().places)
            if (place.axis == p.axis().id)
                std::visit([&](auto& at) { at.at += (at.from == PlaceFrom::HighEnd ? -way : way) * by; },
                           place.place);
    });
    out.back().part = p.project.moves[m].name;
    return out;
}

/// Arms whose head nods with them, on parallel links instead.
Candidates levelHeads(const Problem& p) {
    Candidates out;
    for (std::size_t a = 0; a < p.project.axes.size(); ++a) {
        const auto* r = std::get_if<RotaryMechanism>(&p.project.axes[a].mechanism);
        if (r == nullptr || p.project.axes[a].role != Role::BoomTilt || r->boom.arm == ArmKind::ParallelLinks)
            continue;
        add(out, p, FixCost::ToBuy, onLinks, {}, [&](Project& q) {
            std::get<RotaryMechanism>(q.axes[a].mechanism).boom.arm = ArmKind::ParallelLinks;
        });
        out.back().part = p.project.axes[a].name;
    }
    return out;
}

} // namespace

constinit const Family moveInLeastTime{"move_in_least_time", words::listOf<inTime>, slower};
constinit const Family moveGentler{"move_gentler", words::listOf<gentler>, gentlerEase};
constinit const Family moveFastest{"move_fastest", words::listOf<asFast>, fastestPace};
constinit const Family settingsToMove{"settings_to_move", words::listOf<raised>, higherSettings};
constinit const Family aimSegment{"aim_segment", words::listOf<aimedAt>, aiming};
constinit const Family posesIntoTravel{"poses_into_travel", words::listOf<inside>, withinTravel};
constinit const Family stopAtPoses{"stop_at_poses", words::listOf<stops>, stopping};
constinit const Family keepBetweenPoses{"keep_between_poses", words::listOf<between>, keptBetween};
constinit const Family mendPlan{"mend_plan", words::listOf<straightOn, evenAxes, gentler, zoomedTo, blockAt>,
                                mendedPlan};
constinit const Family moveToChoice{"move_to_choice", words::listOf<inTime, wholeIn>, toChoices};
constinit const Family moveSlower{"move_slower", words::listOf<wholeIn>, slowerMove};
constinit const Family moveFaster{"move_faster", words::listOf<wholeIn>, fasterMove};
constinit const Family longerLens{"longer_lens", words::listOf<lensOf>, narrower};
constinit const Family pullFocus{"pull_focus", words::listOf<pulled>, pulledFocus};
constinit const Family startFarther{"start_farther", words::listOf<startsIn>, fartherStart};
constinit const Family headOnLinks{"head_on_links", words::listOf<onLinks>, levelHeads};
constinit const Family focusAtPoses{"focus_at_poses", words::listOf<focused>, focusedAtPoses};

} // namespace gantry::fixes
