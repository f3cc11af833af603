// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/model/overload.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message moveOf{"“{shot}” over {0}"};
constexpr Message beginsAt{"“{shot}” begins at {0}"};
constexpr Message noMargin{"no soft-limit margin"};
constexpr Message margin{"soft-limit margin {0}"};
constexpr Message railLong{"rail {0} long"};
constexpr Message stopsGently{"emergency stop by a ramp too, acceleration setting {0}"};
constexpr Message byHand{"move it by hand no faster than {0}, or unplug the motor first"};

ShotMove* moveIn(Shot& shot, const Problem& p) {
    const auto it = std::find_if(shot.moves.begin(), shot.moves.end(),
                                 [&](const ShotMove& m) { return m.axis == p.axis().id; });
    return it == shot.moves.end() ? nullptr : &*it;
}

double marginOf(const Axis& axis) {
    return std::visit([](const auto& m) { return m.motion.softLimitMargin; }, axis.mechanism);
}

/// As long as there is room, in the same time; then shorter still, for what needs room behind the end.
Candidates shorterMove(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    const double room = p.evaluation().model.travel - 2.0 * marginOf(p.axis());
    if (e == nullptr || !(room > 0.0) || !e->distance || findMovement(p.entered(*e), p.axis().id) == nullptr)
        return out;
    const auto offer = [&](double way) {
        add(
            out, p, FixCost::SettingOnly, moveOf, {{{p.linear() ? Kind::Length : Kind::Angle, way}}},
            [&](Shot& s) {
                std::visit(
                    [&](auto& m) {
                        m.distance = std::copysign(way, m.distance);
                        m.placed = false;
                    },
                    moveIn(s, p)->movement);
            },
            e);
    };
    const double now = e->distance.value();
    if (now > room) offer(room);
    for (const double share : {0.95, 0.9, 0.8, 0.7}) {
        const double way = rounded(share * std::min(now, room), p.setIn(), false);
        if (way > 0.0 && way < now) offer(way);
    }
    return out;
}

/// Moved along until it ends inside.
Candidates movedAlong(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    const double edge = marginOf(p.axis()), room = p.evaluation().model.travel - 2.0 * edge;
    if (e == nullptr || !e->distance || e->distance.value() > room) return out;
    const Movement* movement = findMovement(p.entered(*e), p.axis().id);
    if (movement == nullptr || !startOf(*movement)) return out;
    const double way = distanceOf(*movement), low = edge + std::max(0.0, -way),
                 high = edge + room - std::max(0.0, way), start = std::clamp(*startOf(*movement), low, high);
    add(
        out, p, FixCost::SettingOnly, beginsAt, {{{p.linear() ? Kind::Length : Kind::Angle, start}}},
        [&](Shot& s) { std::visit([&](auto& m) { m.start = start; }, moveIn(s, p)->movement); }, e);
    return out;
}

Candidates lessMargin(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    const double now = marginOf(p.axis());
    if (e == nullptr || !e->distance || !(now > 0.0)) return out;
    const double left = 0.5 * (p.evaluation().model.travel - e->distance.value());
    if (left < 0.0 || left >= now) return out;
    const double to = left < 1e-4 ? 0.0 : std::floor(left * 1e3) * 1e-3;
    add(out, p, FixCost::SettingOnly, to > 0.0 ? margin : noMargin,
        {{{p.linear() ? Kind::Length : Kind::Angle, to}}},
        [&](Axis& a) { std::visit([&](auto& m) { m.motion.softLimitMargin = to; }, a.mechanism); });
    return out;
}

/// The next hundred millimetres that suffice; what stands under the far end moves out with it.
Candidates longerRail(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (e == nullptr || linear == nullptr || !e->distance) return out;
    const double missing = std::max(0.0, e->distance.value() + 2.0 * linear->motion.softLimitMargin -
                                             p.evaluation().model.travel);
    for (const double more : {0.0, 0.1, 0.3}) {
        const double length = std::ceil((linear->railLength + missing + more) * 10.0 - 1e-6) / 10.0;
        if (length <= linear->railLength) continue;
        add(out, p, FixCost::ToBuy, railLong, {{{Kind::Length, length}}}, [&](Axis& a) {
            LinearMechanism& l = std::get<LinearMechanism>(a.mechanism);
            l.rail.secondStand += length - l.railLength;
            l.railLength = length;
        });
    }
    return out;
}

/// Emergency stops by a ramp that does not tip the rig, in place of as hard as drive and controller can.
Candidates gentleStops(const Problem& p) {
    Candidates out;
    const RigSetup rig = setupOf(p.project, Courses::No);
    for (std::size_t i = 0; i < p.project.axes.size(); ++i) {
        const auto limit = accelerationBeforeTipping(rig, i, p.now.evaluation.axes[i]);
        if (!limit) continue;
        const bool linear = kindOf(p.project.axes[i]) == AxisKind::Linear;
        const double now =
            std::visit([](const auto& m) { return m.motion.maxAcceleration; }, p.project.axes[i].mechanism);
        for (const double share : {1.0, 0.8, 0.6}) {
            const double a = std::min(now, rounded(*limit * share, linear ? 1e-3 : units::degree, false));
            if (!(a > 0.0)) continue;
            add(out, p, FixCost::SettingOnly, stopsGently,
                {{{linear ? Kind::Acceleration : Kind::AngularAcceleration, a}}}, [&](Project& q) {
                    q.axes[i].onStop = OnStop::RampsDown;
                    std::visit([&](auto& m) { m.motion.maxAcceleration = a; }, q.axes[i].mechanism);
                });
        }
    }
    return out;
}

Candidates slowlyByHand(const Problem& p) {
    Candidates out;
    const Figure& limit = p.evaluation().handSpeedLimit;
    if (!limit) return out;
    const double speed = rounded(limit.value(), 1e-3, false);
    if (speed > 0.0 && speed < p.project.conditions.handSpeed)
        add(out, p, FixCost::SettingOnly, byHand, {{{Kind::Speed, speed}}},
            [&](Project& q) { q.conditions.handSpeed = speed; });
    return out;
}

} // namespace

constinit const Family shorterTravel{"shorter_travel", words::listOf<moveOf>, shorterMove};
constinit const Family otherStart{"other_start", words::listOf<beginsAt>, movedAlong};
constinit const Family softMargin{"soft_margin", words::listOf<noMargin, margin>, lessMargin};
constinit const Family railLength{"rail_length", words::listOf<railLong>, longerRail};
constinit const Family gentleStop{"gentle_stop", words::listOf<stopsGently>, gentleStops};
constinit const Family handSpeed{"hand_speed", words::listOf<byHand>, slowlyByHand};

} // namespace gantry::fixes
