// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/evaluate/shot/shot_steps.h"
#include "core/model/overload.h"

#include <algorithm>

namespace gantry::fixes {
namespace {

constexpr Message atRate{"“{shot}” at {0}"};
constexpr Message inTime{"“{shot}” in {0}"};
constexpr Message withRamps{"“{shot}” with ramps of {0}"};
constexpr Message jerk{"jerk {0}"};
constexpr Message wait{"wait {0} before the picture counts"};
constexpr Message subjectAt{"subject at {0}"};

/// What is tried of a shot's acceleration and of its speed.
constexpr std::array gentler{0.8, 0.6, 0.45, 0.3, 0.2, 0.1};
constexpr std::array slower{0.9, 0.8, 0.7, 0.55, 0.4, 0.25, 0.15};
constexpr std::array faster{1.15, 1.3, 1.5, 1.75, 2.0};
constexpr int mostPeriods = 12; ///< of what rocks, in one ramp

/// The movement of the verdict's axis in a shot of a candidate.
Movement& movementIn(Shot& shot, const Problem& p) {
    const auto it = std::find_if(shot.moves.begin(), shot.moves.end(),
                                 [&](const ShotMove& m) { return m.axis == p.axis().id; });
    return it->movement;
}

/// Whether a shot has a movement of its own for the axis, which a fix may change, and not only follows.
const Movement* movementOf(const Problem& p, const ShotEvaluation& e) {
    return findMovement(p.entered(e), p.axis().id);
}

bool givenBySpeed(const Movement& m) {
    return std::visit(overload{[]<AxisKind K>(const BySpeed<K>&) { return true; },
                               []<AxisKind K>(const ByTime<K>&) { return false; }},
                      m);
}

/// Changes the acceleration of a movement that is given by its speed.
auto toAcceleration(const Problem& p, double a) {
    return [&p, a](Shot& s) {
        std::visit(
            overload{[&]<AxisKind K>(BySpeed<K>& m) { m.acceleration = a; }, []<AxisKind K>(ByTime<K>&) {}},
            movementIn(s, p));
    };
}

/// The verdict's shot at another top speed: the speed itself, or all times of a timed movement in proportion.
void addSpeed(Candidates& out, const Problem& p, const ShotEvaluation& e, double speed) {
    const Movement* now = movementOf(p, e);
    if (!(speed > 0.0) || !e.motion.topSpeed || now == nullptr) return;
    const double longer = e.motion.topSpeed.value() / speed;
    const auto change = [&](Shot& s) {
        std::visit(overload{[&]<AxisKind K>(BySpeed<K>& m) { m.speed = speed; },
                            [&]<AxisKind K>(ByTime<K>& m) {
                                m.time *= longer;
                                m.easeIn *= longer;
                                m.easeOut *= longer;
                            }},
                   movementIn(s, p));
    };
    std::visit(
        overload{[&]<AxisKind K>(const BySpeed<K>&) {
                     add(out, p, FixCost::SettingOnly, atRate, {{{p.speedKind(), speed}}}, change, &e);
                 },
                 [&]<AxisKind K>(const ByTime<K>& m) {
                     add(out, p, FixCost::SettingOnly, inTime, {{{Kind::Time, m.time * longer}}}, change, &e);
                 }},
        *now);
}

Candidates gentlerRamps(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.acceleration) return out;
    if (const Movement* m = movementOf(p, *e); m == nullptr || !givenBySpeed(*m)) return out;
    std::vector<double> wishes;
    if (e->torque.maxAcceleration) wishes.push_back(e->torque.maxAcceleration.value());
    for (const double share : gentler) wishes.push_back(e->motion.acceleration.value() * share);
    for (const double wish : wishes) {
        const double a = rounded(wish, p.setIn(), false);
        if (a > 0.0 && a < e->motion.acceleration.value())
            add(out, p, FixCost::SettingOnly, atRate, {{{p.accelerationKind(), a}}}, toAcceleration(p, a), e);
    }
    return out;
}

/// Ramps that last whole periods of what rocks, the shortest first; with a jerk limit also jerk phases of one
/// period.
Candidates rampsOfWholePeriods(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    const auto& mode = p.evaluation().model.mode;
    if (e == nullptr || !e->motion.acceleration || !e->motion.topSpeed || !mode) return out;
    const Movement* now = movementOf(p, *e);
    const double period = 1.0 / mode->frequency, speed = e->motion.topSpeed.value();
    if (p.project.controller.ramps == RampKind::SCurve) {
        const double limit = e->motion.acceleration.value() / period;
        add(out, p, FixCost::SettingOnly, jerk, {{{p.jerkKind(), limit}}}, [&](Axis& axis) {
            std::visit([&](auto& mechanism) { mechanism.motion.jerk = limit; }, axis.mechanism);
        });
    }
    for (int n = 1; now != nullptr && n <= mostPeriods; ++n) {
        const double ramp = n * period;
        if (givenBySpeed(*now)) {
            const double a = speed / ramp;
            if (a < e->motion.acceleration.value() * 1.2)
                add(out, p, FixCost::SettingOnly, atRate, {{{p.accelerationKind(), a}}}, toAcceleration(p, a),
                    e);
            continue;
        }
        const auto change = [&](Shot& s) {
            std::visit(overload{[]<AxisKind K>(BySpeed<K>&) {},
                                [&]<AxisKind K>(ByTime<K>& m) { m.easeIn = m.easeOut = ramp; }},
                       movementIn(s, p));
        };
        add(out, p, FixCost::SettingOnly, withRamps, {{{Kind::Time, ramp}}}, change, e);
    }
    return out;
}

Candidates slowerSpeeds(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed) return out;
    const double now = e->motion.topSpeed.value();
    std::vector<double> wishes;
    // A ratio that goes with the inverse of speed says at once how slow would be fine, and how slow would do.
    const Figure& ratio = p.verdict.ratio;
    for (const double goal : {p.verdict.bounds.wanted, 1.0})
        if (less(ratio, goal)) wishes.push_back(now * ratio.value() / goal);
    for (const double share : slower) wishes.push_back(now * share);
    for (const double wish : wishes) addSpeed(out, p, *e, rounded(wish, p.setIn(), false));
    return out;
}

Candidates fasterSpeeds(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed) return out;
    for (const double share : faster)
        addSpeed(out, p, *e, rounded(e->motion.topSpeed.value() * share, p.setIn(), true));
    return out;
}

Candidates slowerStepTimes(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr) return out;
    const Shot& shot = p.entered(*e);
    if (!stepwise(shot)) return out;
    for (const double factor : {1.5, 2.0, 3.0, 5.0}) {
        const double time = rounded(shot.stepTime * factor, 1.0, true);
        // Within the interval something must be left for the picture.
        if (shot.kind == ShotKind::Interval && time + shot.settle + shot.exposure > shot.interval) break;
        add(
            out, p, FixCost::SettingOnly, withRamps, {{{Kind::Time, rampShareOfStep * time}}},
            [&](Shot& s) { s.stepTime = time; }, e);
    }
    return out;
}

Candidates longerWaits(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->rocking.settling) return out;
    const Shot& shot = p.entered(*e);
    // As long as the nominal swing wants, and as long as the low end of what is known of it wants.
    std::vector<double> wishes{1.35 * e->rocking.settling.value(), 2.0 * e->rocking.settling.value()};
    if (p.verdict.low > 0.0)
        for (const double more : {1.02, 1.5})
            wishes.push_back(more * shot.settle * p.verdict.bounds.wanted / p.verdict.low);
    for (const double wish : wishes) {
        const double time = rounded(wish, 1.0, true);
        if (time > shot.settle)
            add(
                out, p, FixCost::SettingOnly, wait, {{{Kind::Time, time}}}, [&](Shot& s) { s.settle = time; },
                e);
    }
    return out;
}

Candidates fartherSubject(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !p.linear() || !p.verdict.ratio) return out;
    const double now = p.entered(*e).subjectDistance;
    for (const double goal : {p.verdict.bounds.wanted, 1.0}) {
        const double distance = rounded(now * goal / p.verdict.ratio.value(), 1.0, true);
        if (distance > now)
            add(
                out, p, FixCost::SettingOnly, subjectAt, {{{Kind::Length, distance}}},
                [&](Shot& s) { s.subjectDistance = distance; }, e);
    }
    return out;
}

} // namespace

constinit const Family shotAcceleration{"shot_acceleration", words::listOf<atRate>, gentlerRamps};
constinit const Family tunedRamps{"tuned_ramps", words::listOf<atRate, withRamps, jerk>, rampsOfWholePeriods};
constinit const Family slowerShot{"slower_shot", words::listOf<atRate, inTime>, slowerSpeeds};
constinit const Family fasterShot{"faster_shot", words::listOf<atRate, inTime>, fasterSpeeds};
constinit const Family slowerSteps{"slower_steps", words::listOf<withRamps>, slowerStepTimes};
constinit const Family longerSettle{"longer_settle", words::listOf<wait>, longerWaits};
constinit const Family subjectDistance{"subject_distance", words::listOf<subjectAt>, fartherSubject};

} // namespace gantry::fixes
