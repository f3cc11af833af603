// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/evaluate/shot/plan.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/overload.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message atRate{"“{shot}” at {0}"};
constexpr Message inTime{"“{shot}” in {0}"};
constexpr Message withRamps{"“{shot}” with ramps of {0}"};
constexpr Message togetherAtRate{"“{shot}” at {0}, its other axes retimed with it"};
constexpr Message togetherInTime{"“{shot}” in {0}, its other axes retimed with it"};
constexpr Message togetherWithRamps{"“{shot}” with ramps of {0}, its other axes retimed with it"};
constexpr Message jerk{"jerk {0}"};
constexpr Message wait{"wait {0} before the picture counts"};
constexpr Message subjectAt{"subject at {0}"};
constexpr Message oneWayOnly{"film “{shot}” one way only, and take the backlash up before it starts"};

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

/// A movement over the same way in `longer` times the time, every instant of it.
void slowDown(Movement& movement, double longer) {
    std::visit(overload{[&]<AxisKind K>(BySpeed<K>& m) {
                            m.speed /= longer;
                            m.acceleration /= longer * longer;
                        },
                        [&]<AxisKind K>(ByTime<K>& m) {
                            m.time *= longer;
                            m.easeIn *= longer;
                            m.easeOut *= longer;
                        }},
               movement);
}

/// The other axes whose movements end with the verdict's in a shot: they belong together. Steps between two
/// pictures begin and end as they may.
std::vector<const Axis*> endingWith(const Problem& p, const ShotEvaluation& e) {
    constexpr double alike = 0.01; // [1] of the time
    std::vector<const Axis*> out;
    if (stepwise(p.entered(e)) || !e.motion.time) return out;
    for (std::size_t i = 0; i < p.project.axes.size(); ++i) {
        const Axis& axis = p.project.axes[i];
        if (axis.id == p.axis().id || findMovement(p.entered(e), axis.id) == nullptr) continue;
        for (const ShotEvaluation& other : p.now.evaluation.axes[i].shots)
            if (other.shot == e.shot && other.motion.time &&
                std::abs(other.motion.time.value() - e.motion.time.value()) <= alike * e.motion.time.value())
                out.push_back(&axis);
    }
    return out;
}

/// A change of the verdict's movement in a shot, and the same time for those that ended with it.
struct Labels {
    Message alone, together;
};
template <class Change>
void addRetimed(Candidates& out, const Problem& p, const ShotEvaluation& e, const Labels& label,
                words::Arguments shown, Change change) {
    const std::vector<const Axis*> others = endingWith(p, e);
    add(
        out, p, FixCost::SettingOnly, others.empty() ? label.alone : label.together, shown,
        [&](Shot& s) {
            change(s);
            if (others.empty()) return;
            const PlannedShot planned = planShot(movementIn(s, p), p.evaluation().model.settings);
            if (planned.problem != Reason::None) return; // refused when it is tried
            const double longer = planned.profile.time() / e.motion.time.value();
            for (const Axis* axis : others)
                for (ShotMove& m : s.moves)
                    if (m.axis == axis->id) slowDown(m.movement, longer);
        },
        &e);
}
constexpr Labels rateLabels{atRate, togetherAtRate}, timeLabels{inTime, togetherInTime},
    rampLabels{withRamps, togetherWithRamps};

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
                            [&]<AxisKind K>(ByTime<K>&) { slowDown(movementIn(s, p), longer); }},
                   movementIn(s, p));
    };
    std::visit(overload{[&]<AxisKind K>(const BySpeed<K>&) {
                            addRetimed(out, p, e, rateLabels, {{{p.speedKind(), speed}}}, change);
                        },
                        [&]<AxisKind K>(const ByTime<K>& m) {
                            addRetimed(out, p, e, timeLabels, {{{Kind::Time, m.time * longer}}}, change);
                        }},
               *now);
}

/// Of a movement that is given by its time: more of it for the ramps, at most half each; and where they have
/// that, the whole movement in more time.
Candidates longerEase(const Problem& p, const ShotEvaluation& e, const Movement& movement) {
    Candidates out;
    std::visit(overload{[]<AxisKind K>(const BySpeed<K>&) {},
                        [&]<AxisKind K>(const ByTime<K>& m) {
                            for (const double share : {0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5}) {
                                const double ramp = rounded(share * m.time, 0.1, false);
                                if (ramp <= std::max(m.easeIn, m.easeOut)) continue;
                                addRetimed(out, p, e, rampLabels, {{{Kind::Time, ramp}}}, [&](Shot& s) {
                                    auto& changed = std::get<ByTime<K>>(movementIn(s, p));
                                    changed.easeIn = changed.easeOut = ramp;
                                });
                            }
                        }},
               movement);
    return out;
}

Candidates gentlerRamps(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.acceleration) return out;
    const Movement* m = movementOf(p, *e);
    if (m == nullptr) return out;
    if (!givenBySpeed(*m)) return longerEase(p, *e, *m);
    std::vector<double> wishes;
    if (e->torque.maxAcceleration) wishes.push_back(e->torque.maxAcceleration.value());
    for (const double share : gentler) wishes.push_back(e->motion.acceleration.value() * share);
    for (const double wish : wishes) {
        const double a = rounded(wish, p.setIn(), false);
        if (a > 0.0 && a < e->motion.acceleration.value())
            addRetimed(out, p, *e, rateLabels, {{{p.accelerationKind(), a}}}, toAcceleration(p, a));
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
                addRetimed(out, p, *e, rateLabels, {{{p.accelerationKind(), a}}}, toAcceleration(p, a));
            continue;
        }
        const auto change = [&](Shot& s) {
            std::visit(overload{[]<AxisKind K>(BySpeed<K>&) {},
                                [&]<AxisKind K>(ByTime<K>& m) { m.easeIn = m.easeOut = ramp; }},
                       movementIn(s, p));
        };
        addRetimed(out, p, *e, rampLabels, {{{Kind::Time, ramp}}}, change);
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
        constexpr double farthest = 3.0; // of where it is: a studio has walls
        if (distance > now && distance <= farthest * now)
            add(
                out, p, FixCost::SettingOnly, subjectAt, {{{Kind::Length, distance}}},
                [&](Shot& s) { s.subjectDistance = distance; }, e);
    }
    return out;
}

Candidates filmedOneWay(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e != nullptr && p.entered(*e).thereAndBack)
        add(
            out, p, FixCost::SettingOnly, oneWayOnly, {}, [](Shot& s) { s.thereAndBack = false; }, e);
    return out;
}

constexpr std::array speedTexts{atRate, togetherAtRate, inTime, togetherInTime};
constexpr std::array rampTexts{atRate, togetherAtRate, withRamps, togetherWithRamps};
constexpr std::array tunedTexts{atRate, togetherAtRate, withRamps, togetherWithRamps, jerk};

} // namespace

constinit const Family shotAcceleration{"shot_acceleration", rampTexts, gentlerRamps};
constinit const Family tunedRamps{"tuned_ramps", tunedTexts, rampsOfWholePeriods};
constinit const Family slowerShot{"slower_shot", speedTexts, slowerSpeeds};
constinit const Family fasterShot{"faster_shot", speedTexts, fasterSpeeds};
constinit const Family oneWay{"one_way", words::listOf<oneWayOnly>, filmedOneWay};
constinit const Family slowerSteps{"slower_steps", words::listOf<withRamps>, slowerStepTimes};
constinit const Family longerSettle{"longer_settle", words::listOf<wait>, longerWaits};
constinit const Family subjectDistance{"subject_distance", words::listOf<subjectAt>, fartherSubject};

} // namespace gantry::fixes
