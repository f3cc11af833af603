// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/interval_course.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/intervals/plan_view.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message durationFollows{"duration of “{part}” as it follows"};
constexpr Message evenInterval{"interval of “{part}” even"};
constexpr Message intervalOf{"“{part}” every {0}"};
constexpr Message byHand{"“{part}” focused by hand"};
constexpr Message writesThen{"“{part}” writing while it moves"};
constexpr Message even{"“{part}” in even steps"};
constexpr Message picturesOf{"“{part}” in {0} pictures"};
constexpr Message settles{"“{part}” settling as long as it takes"};
constexpr Message wayOf{"{0} of {axis} in “{shot}”"};
constexpr Message pulseOf{"pulses of {0} in “{part}”"};
constexpr Message stopsFor{"“{part}” with a stop for each picture"};
constexpr Message holds{"current that holds between pictures of “{part}”"};
constexpr Message cardOf{"card of {0}"};
constexpr Message holdShare{"hold currents of what cannot fall down to {0}"};
constexpr Message cut{"current cut at full steps between pictures of “{part}”"};
constexpr Message batteryOf{"battery of {0}"};
constexpr Message otherBattery{"battery of {0}, without the readings of the old one"};
constexpr Message turnsBy{"independent head turning by {0}"};
constexpr Message oneFor{"one trigger for camera and rig in “{part}”"};
constexpr Message timed{"exposures of “{part}” timed by the camera"};
constexpr Message picturesFirst{"picture before the move in “{part}”"};
constexpr Message activeFor{"way of “{part}” in {0} of presence"};
constexpr Message backAgain{"“{part}” turning back at the end of its way"};
constexpr Message geared{"gear ratio of the pulsed motor times {0}"};
constexpr Message deaf{"sensors of “{part}” not heard while it moves"};

/// The plan that a verdict is about.
struct PlanInHand {
    std::size_t index = 0;
    const IntervalPlan* plan = nullptr;
    const IntervalResults* results = nullptr;
    explicit operator bool() const { return plan != nullptr; }
};
PlanInHand planOf(const Problem& p) {
    if (p.verdict.plan < 0) return {};
    const auto i = static_cast<std::size_t>(p.verdict.plan);
    return {i, &p.project.plans[i], &p.now.evaluation.plans[i]};
}

/// One setting of the plan in hand.
template <class Change>
void set(Candidates& out, const Problem& p, const PlanInHand& of, Message label, words::Arguments shown,
         Change change, FixCost cost = FixCost::SettingOnly) {
    add(out, p, cost, label, shown, [&](Project& q) { change(q.plans[of.index]); });
    out.back().part = of.plan->name;
}

/// A tenth of a second is what people set; nothing shorter than needed.
double settable(double time) {
    return std::ceil(time * 10.0 - 1e-6) / 10.0;
}

Candidates mended(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of) return out;
    for (const PlanTrouble trouble : of.results->troubles) {
        if (trouble == PlanTrouble::NoFacts)
            set(out, p, of, durationFollows, {},
                [](IntervalPlan& q) { q.follows = FollowingFact::Duration; });
        if (trouble == PlanTrouble::HoursNeedEven)
            set(out, p, of, evenInterval, {}, [](IntervalPlan& q) { q.gaps = GapsGo::Even; });
        if (trouble == PlanTrouble::NoSlide)
            set(out, p, of, stopsFor, {}, [](IntervalPlan& q) { q.mode = IntervalMode::Stops; });
    }
    return out;
}

/// All gaps longer in step; the run then takes longer, whichever of its facts is entered.
void stretch(IntervalPlan& q, double by, double first) {
    q.lastInterval *= by;
    q.interval = first;
    if (q.follows == FollowingFact::Interval) q.follows = FollowingFact::Duration;
    q.duration *= by;
}

Candidates longer(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || !of.results->interval) return out;
    const PlanLanes& l = of.results->lanes;
    const double now = of.results->interval.value();
    const auto offer = [&](double by) {
        if (!(by > 1.0) || !std::isfinite(by)) return;
        const double first = settable(now * by);
        set(out, p, of, intervalOf, {{{Kind::Time, first, 6}}},
            [&](IntervalPlan& q) { stretch(q, first / now, first); });
    };
    if (l.room) {
        offer(1.0 / l.room.value());
        offer(criteria::planRoom.value / l.room.value());
    }
    // Moving on it smears less the slower it goes; a held trigger has to be let go.
    if (of.results->sharp.smear && of.plan->mode == IntervalMode::Runs)
        offer(1.02 * of.results->sharp.smear.value() / criteria::sharpness.value);
    for (const PlanCameraResults& c : of.results->cameras)
        if (c.longest && c.press) offer((now + c.press.value() - c.longest.value()) / now);
    return out;
}

Candidates focused(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || std::all_of(of.plan->cameras.begin(), of.plan->cameras.end(),
                           [](const PlanCamera& c) { return c.focus <= 0.0; }))
        return out;
    set(out, p, of, byHand, {}, [](IntervalPlan& q) {
        for (PlanCamera& c : q.cameras) c.focus = 0.0;
    });
    return out;
}

Candidates writing(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && !of.plan->writesWhileMoving)
        set(out, p, of, writesThen, {}, [](IntervalPlan& q) { q.writesWhileMoving = true; });
    return out;
}

Candidates evenWay(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->steps != StepsGo::Even)
        set(out, p, of, even, {}, [](IntervalPlan& q) { q.steps = StepsGo::Even; });
    return out;
}

/// More pictures over the same way are smaller steps.
Candidates morePicturesOf(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || of.plan->follows == FollowingFact::Pictures) return out;
    for (const double by : {1.5, 2.0, 3.0}) {
        const double n = std::ceil(of.plan->pictures * by / 10.0) * 10.0;
        if (n > 1e6) break;
        set(out, p, of, picturesOf, {{{Kind::Count, n, 7}}}, [&](IntervalPlan& q) {
            q.pictures = static_cast<int>(n);
            // At the same interval, whichever fact followed.
            if (q.follows == FollowingFact::Interval && of.results->interval) {
                q.follows = FollowingFact::Duration;
                q.interval = of.results->interval.value();
            }
        });
    }
    return out;
}

Candidates settling(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->settleBy == SettleBy::Entered)
        set(out, p, of, settles, {}, [](IntervalPlan& q) { q.settleBy = SettleBy::Computed; });
    return out;
}

/// The distances of the shot, as far as the travel has them.
Candidates shorter(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || !of.plan->move.empty() || !p.verdict.ratio) return out;
    const Shot* shot = shotOf(p.project.shots, p.project.moves, *of.plan);
    const Movement* m = shot != nullptr ? findMovement(*shot, p.axis().id) : nullptr;
    if (m == nullptr || of.results->others.pulsesFit) return out;
    const double unit = p.setIn(), way = std::abs(distanceOf(*m));
    const double less = std::floor(way * p.verdict.ratio.value() / unit - 1e-3) * unit;
    if (!(less > 0.0) || !(less < way)) return out;
    const auto index = static_cast<std::size_t>(shot - p.project.shots.data());
    add(out, p, FixCost::SettingOnly, wayOf, {{{p.linear() ? Kind::Length : Kind::Angle, less}}},
        [&](Project& q) {
            for (ShotMove& move : q.shots[index].moves)
                if (move.axis == p.axis().id)
                    std::visit([&](auto& how) { how.distance *= less / way; }, move.movement);
        });
    out.back().shot = ShotIndex(index);
    return out;
}

Candidates pulsed(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || !of.results->others.pulseCure) return out;
    // By the mean, and so that they surely fit.
    for (const double share : {1.0, 0.9, 0.8, 0.7, 0.6}) {
        const double way = of.results->others.pulseWanted.value() * share;
        const double pulse = std::floor(intervals::pulseFor(pulsedMotor(*of.plan), way) * 1e3) / 1e3;
        set(out, p, of, pulseOf, {{{Kind::Time, pulse}}}, [&](IntervalPlan& q) { q.pulses.pulse = pulse; });
    }
    return out;
}

/// Its motor geared down: all that it does comes out slower by as much.
Candidates gearedDown(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || !of.results->others.ratioCure) return out;
    for (const double surely : {1.0, 1.1, 1.25, 1.5}) {
        const double times = std::ceil(of.results->others.ratioCure.value() * surely * 10.0 - 1e-6) / 10.0;
        if (!(times > 1.0) || times > 100.0) continue;
        set(
            out, p, of, geared, {{{Kind::Ratio, times}}},
            [&](IntervalPlan& q) {
                q.pulses.speed.value /= times;
                q.pulses.coastBrake.value /= times;
            },
            FixCost::ToBuy);
    }
    return out;
}

/// What is left of an interval then goes to settling.
Candidates pictureBefore(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->order == PictureOrder::MoveFirst && of.plan->settleBy == SettleBy::Entered)
        set(out, p, of, picturesFirst, {}, [](IntervalPlan& q) { q.order = PictureOrder::PictureFirst; });
    return out;
}

Candidates paced(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || !of.results->others.active) return out;
    const double time = std::round(of.results->others.active.value());
    set(out, p, of, activeFor, {{{Kind::Time, time}}}, [&](IntervalPlan& q) { q.activeTime = time; });
    return out;
}

Candidates turnsRound(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->atEnd == AtWayEnd::Stays)
        set(out, p, of, backAgain, {}, [](IntervalPlan& q) { q.atEnd = AtWayEnd::TurnsBack; });
    return out;
}

Candidates stopping(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->mode == IntervalMode::Runs)
        set(out, p, of, stopsFor, {}, [](IntervalPlan& q) { q.mode = IntervalMode::Stops; });
    return out;
}

Candidates holding(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->wholeSteps) set(out, p, of, holds, {}, [](IntervalPlan& q) { q.wholeSteps = false; });
    return out;
}

Candidates cards(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of) return out;
    for (const double bytes : {32e9, 64e9, 128e9, 256e9, 512e9, 1e12, 2e12, 4e12})
        set(
            out, p, of, cardOf, {{{Kind::Storage, bytes}}},
            [&](IntervalPlan& q) {
                for (PlanCamera& c : q.cameras)
                    if (c.card > 0.0) c.card = std::max(c.card, bytes);
            },
            FixCost::ToBuy);
    return out;
}

/// Never of an axis that its current holds up.
Candidates lowerHolding(const Problem& p) {
    Candidates out;
    for (const double share : {0.7, 0.5, 0.3}) {
        bool any = false;
        add(out, p, FixCost::SettingOnly, holdShare, {{{Kind::Percentage, share}}}, [&](Project& q) {
            for (std::size_t a = 0; a < q.axes.size(); ++a) {
                if (p.now.evaluation.axes[a].powerOff.falls ||
                    !std::holds_alternative<Stepper>(q.axes[a].motor))
                    continue;
                Driver& driver = q.axes[a].driver;
                const double amps = rounded(share * driver.runCurrent, 1.0, true);
                if (!(amps < driver.holdCurrent)) continue;
                driver.holdCurrent = amps;
                any = true;
            }
        });
        if (!any) out.pop_back();
    }
    return out;
}

Candidates cutting(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || of.plan->wholeSteps) return out;
    for (const AxisEvaluation& axis : p.now.evaluation.axes)
        if (axis.powerOff.falls) return out;
    set(out, p, of, cut, {}, [](IntervalPlan& q) { q.wholeSteps = true; });
    return out;
}

Candidates batteries(const Problem& p) {
    Candidates out;
    constexpr std::array hours{2.0, 4.0, 7.0, 10.0, 14.0, 20.0, 30.0, 50.0, 75.0, 100.0, 150.0, 200.0};
    constexpr double hour = 3600.0;
    // By the readings of the pack there is it may take more than is computed; of another there are none.
    const PlanInHand of = planOf(p);
    const double needed = of ? p.project.supply.capacity / of.results->energy.room.valueOr(1.0) : 0.0;
    const bool read = std::any_of(p.project.plans.begin(), p.project.plans.end(),
                                  [](const IntervalPlan& plan) { return !plan.readings.empty(); });
    for (const double h : hours)
        if (h * hour > std::max(p.project.supply.capacity, needed))
            add(out, p, FixCost::ToBuy, read ? otherBattery : batteryOf, {{{Kind::Charge, h * hour}}},
                [&](Project& q) {
                    q.supply.capacity = h * hour;
                    for (IntervalPlan& plan : q.plans) plan.readings.clear();
                });
    return out;
}

/// The run over before the head stops.
Candidates withinHead(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of || of.plan->pictures < 2) return out;
    const double most = of.plan->head.longest + of.plan->head.delay;
    const double interval = std::floor(most / (of.plan->pictures - 1.0) * 10.0 + 1e-6) / 10.0;
    if (!(interval > 0.0) || !less(interval, of.results->interval)) return out;
    set(out, p, of, intervalOf, {{{Kind::Time, interval, 6}}}, [&](IntervalPlan& q) {
        q.interval = q.lastInterval = interval;
        q.follows = FollowingFact::Duration;
    });
    return out;
}

/// As far as the subject asks, from one end of the travel to the other.
Candidates turning(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    const Shot* shot = of ? shotOf(p.project.shots, p.project.moves, *of.plan) : nullptr;
    if (shot == nullptr) return out;
    double travel = 0.0;
    for (std::size_t a = of.results->axes.size(); a-- > 0;)
        if (of.results->axes[a].moves && kindOf(p.project.axes[a]) == AxisKind::Linear)
            travel = of.results->axes[a].to.value() - of.results->axes[a].from.value();
    const double turn =
        std::round(2.0 * std::atan2(0.5 * travel, shot->subjectDistance) / units::degree) * units::degree;
    set(out, p, of, turnsBy, {{{Kind::Angle, turn}}}, [&](IntervalPlan& q) { q.head.turn = turn; });
    return out;
}

Candidates triggered(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (of && of.plan->mode == IntervalMode::Timers)
        set(out, p, of, oneFor, {}, [](IntervalPlan& q) { q.mode = IntervalMode::Stops; });
    return out;
}

Candidates timedByCamera(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of) return out;
    set(out, p, of, timed, {}, [](IntervalPlan& q) {
        for (PlanCamera& c : q.cameras) c.bulb = false;
    });
    return out;
}

Candidates notHeard(const Problem& p) {
    Candidates out;
    const PlanInHand of = planOf(p);
    if (!of) return out;
    set(out, p, of, deaf, {}, [](IntervalPlan& q) {
        for (PlanSensor& s : q.sensors) s.deafWhileMoving = true;
    });
    return out;
}

} // namespace

constinit const Family mendRun{"mend_run", words::listOf<durationFollows, evenInterval, stopsFor>, mended};
constinit const Family longerInterval{"longer_interval", words::listOf<intervalOf>, longer};
constinit const Family focusByHand{"focus_by_hand", words::listOf<byHand>, focused};
constinit const Family writesInMoves{"writes_in_moves", words::listOf<writesThen>, writing};
constinit const Family evenSteps{"even_steps", words::listOf<even>, evenWay};
constinit const Family morePictures{"more_pictures", words::listOf<picturesOf>, morePicturesOf};
constinit const Family settleLonger{"settle_longer", words::listOf<settles>, settling};
constinit const Family shorterWay{"shorter_way", words::listOf<wayOf>, shorter};
constinit const Family pulseInTime{"pulse_in_time", words::listOf<pulseOf>, pulsed};
constinit const Family stopForPictures{"stop_for_pictures", words::listOf<stopsFor>, stopping};
constinit const Family currentHolds{"current_holds", words::listOf<holds>, holding};
constinit const Family largerCard{"larger_card", words::listOf<cardOf>, cards};
constinit const Family lessHoldCurrent{"less_hold_current", words::listOf<holdShare>, lowerHolding};
constinit const Family cutCurrent{"cut_current", words::listOf<cut>, cutting};
constinit const Family largerBattery{"larger_battery", words::listOf<batteryOf, otherBattery>, batteries};
constinit const Family runWithinHead{"run_within_head", words::listOf<intervalOf>, withinHead};
constinit const Family headTurn{"head_turn", words::listOf<turnsBy>, turning};
constinit const Family oneTrigger{"one_trigger", words::listOf<oneFor>, triggered};
constinit const Family cameraTimes{"camera_times", words::listOf<timed>, timedByCamera};
constinit const Family pictureFirst{"picture_first", words::listOf<picturesFirst>, pictureBefore};
constinit const Family paceByPresence{"pace_by_presence", words::listOf<activeFor>, paced};
constinit const Family turnsBack{"turns_back", words::listOf<backAgain>, turnsRound};
constinit const Family gearOfPulses{"gear_of_pulses", words::listOf<geared>, gearedDown};
constinit const Family sensorDeaf{"sensor_deaf", words::listOf<deaf>, notHeard};

} // namespace gantry::fixes
