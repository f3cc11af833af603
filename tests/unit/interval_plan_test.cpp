// SPDX-License-Identifier: GPL-3.0-or-later
// An interval plan of a rig: its figures by hand, by marching, and by counting every picture.
#include "core/criteria/criteria.h"
#include "core/units/constants.h"
#include "io/report/interval_table.h"
#include "io/report/plan_sheet.h"
#include "support/dice.h"
#include "support/near.h"
#include "support/plans.h"

#include <QTest>
#include <cmath>
#include <numbers>

using namespace gantry;
using namespace rigplans;

namespace {

constexpr double pi = std::numbers::pi;

double firstExposure(const Project& p) {
    return p.plans[0].exposure;
}

/// Amplitude that a movement of this jerk-limited form leaves of x″ + 2ζωx′ + ω²x = −a(t), marched.
double marched(double distance, double jerk, double frequency, double damping) {
    // Too short for its acceleration and speed: four phases of jerk.
    const double phase = std::cbrt(distance / (2.0 * jerk)), whole = 4.0 * phase, w = 2.0 * pi * frequency;
    const auto acceleration = [&](double t) {
        if (t >= whole) return 0.0;
        const double k = t / phase;
        return jerk * phase * (k < 1.0 ? k : k < 3.0 ? 2.0 - k : k - 4.0);
    };
    double x = 0.0, v = 0.0;
    const int steps = 40000;
    const double h = whole / steps;
    const auto rate = [&](double t, double place, double speed) {
        return -acceleration(t) - 2.0 * damping * w * speed - w * w * place;
    };
    for (int i = 0; i < steps; ++i) {
        const double t = i * h;
        const double a1 = rate(t, x, v), a2 = rate(t + h / 2, x + h / 2 * v, v + h / 2 * a1),
                     a3 = rate(t + h / 2, x + h / 2 * v + h * h / 4 * a1, v + h / 2 * a2),
                     a4 = rate(t + h, x + h * v + h * h / 2 * a2, v + h * a3);
        x += h * v + h * h / 6 * (a1 + a2 + a3);
        v += h / 6 * (a1 + 2 * a2 + 2 * a3 + a4);
    }
    const double wd = w * std::sqrt(1.0 - damping * damping);
    return std::hypot(x, (v + damping * w * x) / wd);
}

} // namespace

class IntervalPlanTest : public QObject, Dice {
    Q_OBJECT
public:
    IntervalPlanTest() : Dice(17) {}

private slots:
    /// Any two facts give the third, however the interval changes.
    void factsGiveTheThird() {
        for (const GapsGo gaps : {GapsGo::Even, GapsGo::Linear, GapsGo::Geometric})
            for (int i = 0; i < 40; ++i) {
                Project p = planned();
                IntervalPlan& plan = p.plans[0];
                plan.gaps = gaps;
                plan.pictures = 2 + static_cast<int>(within(0.0, 800.0));
                plan.interval = within(2.0, 40.0);
                plan.lastInterval = within(2.0, 40.0);
                plan.exposure = within(0.01, 1.5);
                const Desk free(p);
                const double whole = free.results().duration.value();
                double sum = firstExposure(p);
                for (std::int64_t k = 0; k + 1 < free.course.pictures(); ++k)
                    sum += free.course.gaps().gap(k);
                VERIFY_NEAR(whole, sum, 1e-9);

                plan.follows = FollowingFact::Interval;
                plan.duration = 1.5 * whole;
                const Desk stretched(p);
                VERIFY_NEAR(stretched.results().duration.value(), 1.5 * whole, 1e-9);
                QCOMPARE(stretched.course.pictures(), free.course.pictures());
                if (gaps != GapsGo::Even && plan.pictures > 3)
                    VERIFY_NEAR(stretched.course.gaps().last / stretched.course.gaps().first,
                                plan.lastInterval / plan.interval, 1e-9);

                plan.follows = FollowingFact::Pictures;
                plan.duration = whole;
                if (gaps == GapsGo::Even) QCOMPARE(Desk(p).course.pictures(), std::int64_t(plan.pictures));
                const Desk fitted(p);
                QVERIFY(fitted.results().duration.value() <= whole * (1.0 + 1e-9));
                // One more would not fit.
                IntervalPlan& more = p.plans[0];
                more.follows = FollowingFact::Duration;
                more.pictures = static_cast<int>(fitted.course.pictures()) + 1;
                QVERIFY(Desk(p).results().duration.value() > whole * (1.0 - 1e-9));
            }
        Project p = planned();
        p.plans[0].follows = FollowingFact::Interval;
        p.plans[0].duration = 0.2; // shorter than its exposure
        QCOMPARE(Desk(p).results().troubles.front(), PlanTrouble::NoFacts);
        // A clip at its rate, on twos, and how much faster.
        p = planned();
        p.plans[0].heldFor = 2;
        p.plans[0].clipRate = 24.0;
        VERIFY_NEAR(Desk(p).results().clip.value(), 201 * 2 / 24.0, 1e-12);
        VERIFY_NEAR(Desk(p).results().speedUp.value(), 6.0 * 24.0 / 2.0, 1e-12);
    }
    /// One interval from its parts, with a move whose jerk alone limits it.
    void lanesByHand() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        plan.cameras = {PlanCamera{"a"}, PlanCamera{"b"}};
        plan.cameras[0].focus = 0.3;
        plan.cameras[0].lag = 0.1;
        plan.cameras[0].write = 0.4;
        plan.cameras[1].focus = 0.0;
        plan.cameras[1].lag = 0.2;
        plan.cameras[1].write = 5.0;
        plan.exposure = 1.5;
        plan.settleBy = SettleBy::Entered;
        plan.settle = 0.7;
        plan.spare = 0.25;
        const double step = 0.8 / 200.0, move = 4.0 * std::cbrt(step / (2.0 * 2.0)); // jerk 2 m/s³
        const Desk d(p);
        const PlanLanes& l = d.results().lanes;
        VERIFY_NEAR(l.move.value(), move, 1e-9);
        VERIFY_NEAR(l.settle.value(), 0.7, 1e-12);
        // Writing of the second camera is longer than anything that the rig does.
        const double rig = move + 0.7 + 0.3 + 0.1 + 1.5, camera = 0.2 + 1.5 + 5.0;
        VERIFY_NEAR(l.least.value(), std::max(rig, camera) + 0.25, 1e-9);
        QVERIFY(l.camera);
        VERIFY_NEAR(l.spare.value(), 6.0 - std::max(rig, camera), 1e-9);
        VERIFY_NEAR(l.room.value(), 6.0 / (camera + 0.25), 1e-9);
        QCOMPARE(l.failsAt.valueOr(0.0), 1.0);
        plan.writesWhileMoving = false;
        VERIFY_NEAR(Desk(p).results().lanes.least.value(), move + 0.7 + 6.7 + 0.25, 1e-9);
        // Moving on, the rig needs no time of its own.
        plan.mode = IntervalMode::Runs;
        VERIFY_NEAR(Desk(p).results().lanes.least.value(), camera + 0.25, 1e-9);
        QCOMPARE(Desk(p).results().lanes.move.value(), 0.0);
    }
    /// What rocks after a step, marched, and how long it takes to die down.
    void settlingIsThatOfTheStep() {
        Project p = planned();
        p.axes[0].vibration.frequency = estimate(2.48, Source::Measured);
        p.axes[0].vibration.damping = estimate(0.02, Source::Measured);
        auto& slide = std::get<LinearMechanism>(p.axes[0].mechanism);
        slide.runningFriction.value = slide.staticFriction.value = 0.0;
        slide.cableDrag.value = 0.0;
        Desk d(p);
        QVERIFY(d.evaluation.axes[0].model.mode.has_value());
        QCOMPARE(d.evaluation.axes[0].model.swingBand, 0.0);
        const double step = 0.8 / 200.0, px = d.course.pixelsPerUnit(0);
        const double amplitude = marched(step, 2.0, 2.48, 0.02);
        VERIFY_NEAR(d.course.swingAfter(d.course.step(0), 0.0), 2.0 * amplitude * px, 1e-3);
        const double rate = 0.02 * 2.0 * pi * 2.48;
        VERIFY_NEAR(d.course.swingAfter(d.course.step(0), 3.0), 2.0 * amplitude * px * std::exp(-rate * 3.0),
                    2e-2);
        const double limit = 0.5 / criteria::planStill;
        const double settle = std::log(2.0 * amplitude * px / limit) / rate;
        QVERIFY(settle > 1.0);
        VERIFY_NEAR(d.results().lanes.settle.value(), settle, 2e-2);
        QVERIFY(d.results().sharp.left.value() < 0.5 && d.results().sharp.left.value() > 0.3);
        // Entered shorter, more is left; the verdict says it and its fix takes as long as it needs.
        p.plans[0].settleBy = SettleBy::Entered;
        p.plans[0].settle = 0.5;
        const Desk hasty(p);
        VERIFY_NEAR(hasty.results().sharp.left.value(), 2.0 * amplitude * px * std::exp(-rate * 0.5), 2e-2);
        // Before the move, a picture has the rest of the interval to come to rest; the interval needs no
        // more.
        p.plans[0].order = PictureOrder::PictureFirst;
        const Desk before(p);
        const PlanLanes& l = before.results().lanes;
        const double rests = 6.0 - l.move.value() - 0.08 - p.plans[0].exposure;
        QVERIFY(rests > 3.0);
        VERIFY_NEAR(before.results().sharp.left.value(), 2.0 * amplitude * px * std::exp(-rate * rests),
                    3e-2);
        QCOMPARE(l.least.value(), hasty.results().lanes.least.value());
        // Where cards have to be written before it moves, they have less.
        p.plans[0].writesWhileMoving = false;
        VERIFY_NEAR(Desk(p).results().sharp.left.value(),
                    2.0 * amplitude * px * std::exp(-rate * (rests - p.plans[0].cameras[0].write)), 3e-2);
    }
    /// What moving on is compared with is the same plan with stops, and the other way round.
    void bothWaysAreCompared() {
        Project p = planned();
        p.axes[0].vibration.frequency = estimate(2.48, Source::Measured);
        auto& slide = std::get<LinearMechanism>(p.axes[0].mechanism);
        slide.runningFriction.value = slide.staticFriction.value = slide.cableDrag.value = 0.0;
        p.plans[0].exposure = 1.0;
        const Desk stops(p);
        p.plans[0].mode = IntervalMode::Runs;
        const Desk runs(p);
        QVERIFY(stops.results().sharp.smear.value() > 0.1);
        VERIFY_NEAR(runs.results().sharp.otherWay.value(), stops.results().sharp.smear.value(), 1e-12);
        VERIFY_NEAR(runs.results().sharp.smear.value(), stops.results().sharp.otherWay.value(), 1e-12);
        const double pace = 0.8 / 200.0 / 6.0 * runs.course.pixelsPerUnit(0);
        VERIFY_NEAR(runs.results().sharp.smear.value(), pace * 1.0, 1e-6);
        QCOMPARE(runs.results().sharp.better, stops.results().sharp.better);
    }
    /// The first picture of each kind of failure, by going through all of them.
    void failuresAreTheFirst() {
        for (int i = 0; i < 25; ++i) {
            Project p = planned();
            IntervalPlan& plan = p.plans[0];
            plan.gaps = i % 2 == 0 ? GapsGo::Linear : GapsGo::Geometric;
            plan.pictures = 150 + static_cast<int>(within(0.0, 300.0));
            plan.interval = within(4.0, 7.0);
            plan.lastInterval = within(0.8, 4.0);
            plan.steps = i % 3 == 0 ? StepsGo::Ramps : StepsGo::Smooth;
            plan.exposure = 0.05;
            plan.exposures = {ExposureMark{"x", plan.pictures / 2, within(0.1, 1.5)},
                              ExposureMark{"y", plan.pictures - 10, within(0.1, 2.5)}};
            plan.settleBy = SettleBy::Entered;
            plan.settle = 0.4;
            p.supply.capacity = within(0.05, 0.6) * 3600.0;
            plan.cameras[0].card = within(1e9, 12e9);
            auto& way = std::get<BySpeed<AxisKind::Linear>>(p.shots[0].moves[0].movement);
            way.distance = within(0.9, 1.2); // of 1 m
            const Desk d(p);
            const std::int64_t n = d.course.pictures();
            std::optional<std::int64_t> room, outside;
            for (std::int64_t k = 0; k < n; ++k) {
                const double at = d.course.placesAt(k)[0];
                if (!outside && (at < -1e-9 || at > 1.0 + 1e-9)) outside = k;
                if (k + 1 < n && !room && d.course.gaps().gap(k) < d.course.budgetAt(k).least) room = k;
            }
            QCOMPARE(d.results().axes[0].outsideAt.valueOr(0.0), outside ? *outside + 1.0 : 0.0);
            // It is looked at every few pictures, and found by halving between them.
            if (room)
                QVERIFY(std::abs(d.results().lanes.failsAt.value() - (*room + 1.0)) <=
                        (d.results().lanes.failsAt.value() == *room + 1.0 ? 0.0 : double(n) / 120.0 + 1.0));
            else
                QVERIFY(!d.results().lanes.failsAt);
            const double perCard = std::floor(plan.cameras[0].card / plan.cameras[0].picture);
            QCOMPARE(d.results().cameras[0].cardFullAt.valueOr(0.0),
                     perCard < double(n) ? perCard + 1.0 : 0.0);
            // The earliest of all is what fails first.
            double first = 1e18;
            for (const Figure& f : {d.results().lanes.failsAt, d.results().cameras[0].cardFullAt,
                                    d.results().axes[0].outsideAt, d.results().energy.flatAt})
                first = std::min(first, f.valueOr(1e18));
            QCOMPARE(d.results().firstAt.valueOr(1e18), first);
            if (d.results().firstAt)
                VERIFY_NEAR(d.results().firstClock.value(),
                            64800.0 + d.course.gaps().timeOf(static_cast<std::int64_t>(first) - 1), 1e-9);
        }
    }
    /// Charge summed interval by interval: motors by their copper, everything else by when it draws.
    void chargeAddsUp() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        plan.settleBy = SettleBy::Entered;
        plan.settle = 0.4;
        plan.exposure = 1.0;
        plan.cameras[0].focus = 0.2;
        plan.cameras[0].lag = 0.1;
        plan.cameras[0].write = 0.7;
        PlanConsumer camera, heater, lamp;
        camera.id = "camera";
        camera.when = DrawsWhen::Awake;
        camera.power.value = 6.0;
        camera.otherwise = 0.3;
        heater.id = "heater";
        heater.power.value = 4.0;
        lamp.id = "lamp";
        lamp.when = DrawsWhen::Exposing;
        lamp.power.value = 10.0;
        plan.consumers = {camera, heater, lamp};
        p.supply.voltage.value = 12.0;
        p.supply.lowVoltage.value = 10.5;
        p.supply.capacity = 0.4 * 3600.0;
        p.supply.usable = 0.8;
        p.supply.peukert.value = 1.0;
        const Desk d(p);
        const double move = d.results().lanes.move.value(), gap = 6.0;
        double each = 4.0 * gap + 10.0 * 1.0 + 6.0 * 2.0 + 0.3 * (gap - 2.0);
        double holding = 0.0;
        for (std::size_t a = 0; a < p.axes.size(); ++a) {
            const auto& m = std::get<Stepper>(p.axes[a].motor);
            const Driver& driver = p.axes[a].driver;
            const double ohms = m.resistance.value + driver.bridgeResistance.value;
            const double hold = 2.0 * driver.holdCurrent * driver.holdCurrent * ohms,
                         runs = 2.0 * driver.runCurrent * driver.runCurrent * ohms;
            holding += hold;
            const double on = a == 0 ? move + std::min(driver.idleDelay, gap - move) : 0.0;
            each += runs * on + hold * (gap - on);
        }
        each /= criteria::supplyEfficiency;
        VERIFY_NEAR(d.results().energy.perPicture.value(), each, 1e-9);
        VERIFY_NEAR(d.results().energy.average.value(), each / gap, 1e-9);
        VERIFY_NEAR(d.results().energy.needed.value(), each * 200.0, 1e-9);
        const double there = 0.8 * 0.4 * 3600.0 * 12.0;
        VERIFY_NEAR(d.results().energy.there.value(), there, 1e-9);
        VERIFY_NEAR(d.results().energy.flatAt.value(), std::ceil(there / each) + 1.0, 1e-12);
        VERIFY_NEAR(d.results().energy.flatAfter.value(), std::ceil(there / each) * gap, 1e-9);
        // Nights count, too.
        p.supply.capacity = 500.0 * 3600.0;
        p.plans[0].hours.kept = true;
        p.plans[0].hours.open = 8.0 * 3600.0;
        p.plans[0].hours.close = 8.0 * 3600.0 + 600.0; // a hundred pictures a day
        const Desk nights(p);
        const double perDay = nights.results().perDay.value();
        const double days = std::floor(200.0 / perDay);
        const double standing = (holding + 0.3 + 4.0) / criteria::supplyEfficiency;
        VERIFY_NEAR(nights.results().energy.needed.value(),
                    each * 200.0 + days * (86400.0 - perDay * gap) * standing, 1e-9);
        VERIFY_NEAR(nights.results().days.value(), days + 1.0, 1e-12);
        // Warning and parking come before the end, in this order.
        p = planned();
        p.supply.voltage.value = 12.0;
        p.supply.lowVoltage.value = 10.5;
        p.supply.capacity = 1800.0;
        p.supply.sourceResistance.value = 0.0;
        p.plans[0].warnVoltage = 12.0;
        p.plans[0].parkVoltage = 11.0;
        p.plans[0].pictures = 3000;
        const Desk warned(p);
        const PlanEnergy& e = warned.results().energy;
        VERIFY_NEAR_ABS(e.warnAt.value() / e.flatAt.value(), 0.5, 0.01); // straight from 13.5 V to 10.5 V
        VERIFY_NEAR_ABS(e.parkAt.value() / e.flatAt.value(), 2.5 / 3.0, 0.01);
    }
    /// A reading of the pack below what was computed is believed, one above it is not.
    void readingsAreBelieved() {
        Project p = planned();
        p.supply.voltage.value = 12.0;
        p.supply.lowVoltage.value = 10.5; // straight from 13.5 V
        p.supply.capacity = 3600.0;
        p.supply.peukert.value = 1.0;
        p.supply.usable = 1.0;
        p.supply.sourceResistance.value = 0.2;
        IntervalPlan& plan = p.plans[0];
        plan.pictures = 3000;
        const Desk d(p);
        const PlanEnergy& e = d.results().energy;
        const double each = e.perPicture.value(), there = e.there.value();
        const double flat = std::ceil(there / each);
        QVERIFY2(flat > 200.0 && flat < 2500.0, qPrintable(QString::number(flat)));
        QCOMPARE(e.flatAt.value(), flat + 1.0);
        QCOMPARE(e.read.reason(), Reason::NotApplicable);
        // The voltage under the average power with so much taken, by the current: V = U − R·P/V.
        const auto volts = [&](double taken) {
            const double open = 13.5 - 3.0 * taken;
            double v = open;
            for (int i = 0; i < 100; ++i) v = open - 0.2 * e.average.value() / v;
            return v;
        };
        const int at = static_cast<int>(0.3 * flat);
        const double then = at * each / there; // taken by picture at + 1
        plan.readings = {PackReading{"r", at + 1, volts(1.5 * then)}};
        const Desk low(p);
        VERIFY_NEAR(low.results().energy.read.value(), 1.5, 1e-6);
        QVERIFY(low.results().readingErrors[0].value() < 0.0);
        VERIFY_NEAR_ABS(low.results().energy.flatAt.value(), std::ceil(flat / 1.5) + 1.0, 1.01);
        VERIFY_NEAR(low.results().energy.room.value() * 1.5, e.room.value(), 1e-6);
        // The last one counts, in whatever order they were entered.
        plan.readings.insert(plan.readings.begin(),
                             PackReading{"s", at + 100, volts(1.2 * (at + 99) * each / there)});
        VERIFY_NEAR(Desk(p).results().energy.read.value(), 1.2, 1e-6);
        plan.readings = {PackReading{"r", at + 1, volts(0.5 * then)}};
        const Desk high(p);
        QVERIFY(high.results().readingErrors[0].value() > 0.0);
        QCOMPARE(high.results().energy.flatAt.value(), flat + 1.0);
        // Of a pack that is nearly full it tells nothing.
        plan.readings = {PackReading{"r", 2, volts(0.05)}};
        QCOMPARE(Desk(p).results().energy.flatAt.value(), flat + 1.0);
        // Lower still, it was not full when the run began; what it then takes is what was computed.
        plan.readings = {PackReading{"r", 2, volts(0.25)}};
        VERIFY_NEAR_ABS(Desk(p).results().energy.flatAt.value(), 0.75 * flat + 1.0, 2.5);
        // Two far apart tell both: a sixth was missing from the start, and it goes a quarter faster.
        const int first = static_cast<int>(0.2 * flat), last = static_cast<int>(0.5 * flat);
        const auto then2 = [&](int k) { return 1.0 / 6.0 + 1.25 * k * each / there; };
        plan.readings = {PackReading{"b", last + 1, volts(then2(last))},
                         PackReading{"a", first + 1, volts(then2(first))}};
        VERIFY_NEAR_ABS(Desk(p).results().energy.flatAt.value(), 5.0 / 6.0 / 1.25 * flat + 1.0, 2.5);
    }
    /// A way laid out for the time that somebody is there: covered by then, left early, outlasted.
    void presenceSetsThePace() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        PlanSensor s;
        s.id = "door";
        s.hold = 60.0;
        s.warmUp = 0.0;
        s.seenEvery = 6.0;
        plan.sensors = {s};
        plan.pauses = {PlanPause{"out", 603.0, 1e6}}; // seen last at 600 s: 101 pictures are kept of 201
        const auto kept = [](const Desk& d) {
            const IntervalRun run = d.run();
            std::vector<double> places;
            for (std::int64_t k = 0; k < run.frames(); ++k)
                if (const IntervalFrame f = run.at(k); !f.deleted) places.push_back(f.places[0]);
            return places;
        };
        const Desk whole(p);
        QCOMPARE(kept(whole).size(), std::size_t(101));
        QCOMPARE(whole.results().others.wayShown.value(), 0.5);
        VERIFY_NEAR_ABS(kept(whole).back() - kept(whole).front(), 0.4, 1e-4);
        // Laid out for 300 s it is covered by picture 51 and stays there …
        p.plans[0].activeTime = 300.0;
        const Desk half(p);
        QCOMPARE(half.results().others.wayShown.value(), 2.0);
        QCOMPARE(half.results().others.wayPictures.value(), 51.0);
        QCOMPARE(half.results().others.active.value(), 606.0);
        VERIFY_NEAR_ABS(kept(half)[50] - kept(half)[0], 0.8, 1e-4);
        QCOMPARE(kept(half)[100], kept(half)[50]);
        // … or turns back, and every step is as long as on the way out.
        p.plans[0].atEnd = AtWayEnd::TurnsBack;
        const Desk back(p);
        for (std::size_t k = 0; k <= 50; ++k) QCOMPARE(kept(back)[100 - k], kept(back)[k]);
        VERIFY_NEAR(back.results().axes[0].largestStep.value(), 0.8 / 50.0, 1e-9);
        // Without a sensor nothing of it counts.
        p.plans[0].sensors.clear();
        VERIFY_NEAR(Desk(p).results().axes[0].largestStep.value(), 0.8 / 200.0, 1e-9);
        QVERIFY(!Desk(p).results().others.wayShown);
    }
    /// Positions of every picture: within half a step of where it should be, at both ends exactly, late by
    /// what was put off, and deleted where nobody was there.
    void framesAreTrue() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        plan.steps = StepsGo::Ramps;
        plan.pauses = {PlanPause{"a", 300.0, 120.0}};
        plan.faults = {PlanFault{"f", 20, 2, 0.0}, PlanFault{"g", 90, 1, 0.0}};
        plan.ifMissed = IfMissed::Skips;
        const Desk d(p);
        const IntervalRun run = d.run();
        QCOMPARE(run.frames(), std::int64_t(201));
        const double micro = d.evaluation.axes[0].model.microstep();
        double before = 0.0;
        for (std::int64_t k = 0; k < run.frames(); ++k) {
            const IntervalFrame f = run.at(k);
            QVERIFY(std::abs(f.places[0] - d.course.placesAt(k)[0]) <= 0.5 * micro + 1e-12);
            VERIFY_NEAR_ABS(f.places[0], d.course.placesAt(0)[0] + double(f.steps[0]) * micro, 1e-12);
            QVERIFY(f.opens >= before);
            before = f.opens;
            QCOMPARE(f.deleted, k == 19 || k == 89);
        }
        QCOMPARE(run.deleted(), std::int64_t(2));
        // Picture 51 would have opened at 300 s, and waits until the pause is over.
        VERIFY_NEAR(run.at(50).opens - run.at(0).opens, 420.0, 1e-9);
        VERIFY_NEAR(run.at(49).opens - run.at(0).opens, 294.0, 1e-9);
        VERIFY_NEAR(run.at(51).opens - run.at(50).opens, 6.0, 1e-9);
        // It stops at the first that is missed.
        p.plans[0].ifMissed = IfMissed::Stops;
        QCOMPARE(Desk(p).run().frames(), std::int64_t(20));
        // With its current cut it stands at full steps, more evenly than by rounding.
        p = planned();
        p.plans[0].wholeSteps = true;
        p.plans[0].steps = StepsGo::Smooth;
        const Desk whole(p);
        const IntervalRun steps = whole.run();
        const double full = whole.evaluation.axes[0].model.fullStep();
        for (std::int64_t k = 0; k < steps.frames(); ++k)
            QVERIFY(std::abs(steps.at(k).places[0] - whole.course.placesAt(k)[0]) <= full + 1e-9);
        VERIFY_NEAR_ABS(steps.at(200).places[0], whole.course.placesAt(200)[0], 0.5 * full + 1e-9);
    }
    void presenceDeletesAndGoesBack() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        PlanSensor s;
        s.id = "door";
        s.hold = 60.0;
        s.warmUp = 0.0;
        s.seenEvery = 10.0;
        plan.sensors = {s};
        plan.pauses = {PlanPause{"out", 400.0, 200.0}};
        const Desk d(p);
        const IntervalRun run = d.run();
        QVERIFY(run.deleted() >= 9 && run.deleted() <= 11); // a hold of 60 s holds ten pictures
        QCOMPARE(double(run.deleted()), d.results().others.deleted.value());
        std::int64_t last = -1;
        for (std::int64_t k = 0; k < run.frames(); ++k) {
            const IntervalFrame f = run.at(k);
            if (f.deleted) continue;
            // What is kept goes on as if nothing had been.
            const double step = double(f.steps[0]) * d.evaluation.axes[0].model.microstep();
            const auto position = static_cast<std::int64_t>(std::llround(step / (0.8 / 200.0)));
            QCOMPARE(position, last + 1);
            last = position;
        }
        QCOMPARE(d.results().others.largestJump.value(), 1.0);
        p.plans[0].goesBack = false;
        QVERIFY(Desk(p).results().others.largestJump.value() > 5.0);
        // Somebody comes late: the first picture is taken when he does.
        p.plans[0].goesBack = true;
        p.plans[0].pauses = {PlanPause{"late", 0.0, 240.0}};
        const Desk late(p);
        const IntervalRun lateRun = late.run();
        QVERIFY(lateRun.frames() > 100);
        VERIFY_NEAR(lateRun.at(0).opens - late.course.clockAt(0), 240.0, 1e-9);
        VERIFY_NEAR(lateRun.at(1).opens - lateRun.at(0).opens, 6.0, 1e-9);
        // Nobody comes at all: no picture, and nothing to go on with.
        p.plans[0].pauses = {PlanPause{"out", 0.0, 1e6}};
        const Desk alone(p);
        QCOMPARE(alone.run().frames(), std::int64_t(0));
        QCOMPARE(alone.run().deleted(), std::int64_t(0));
        QVERIFY(io::goingOn(p, 0, alone.evaluation, 7, units::System::Metric).find("Nobody") == 0);
        // Pauses that touch, lie in each other, or end where no number is exact, are left again.
        for (int i = 0; i < 50; ++i) {
            p.plans[0].pauses.clear();
            for (int k = 0; k < 5; ++k)
                p.plans[0].pauses.push_back(
                    {"p" + std::to_string(k), within(0.0, 1000.0), within(0.001, 300.0)});
            p.plans[0].sensors[0].seenEvery = within(0.05, 20.0);
            QVERIFY(Desk(p).run().frames() > 0);
        }
        p.plans[0].pauses = {PlanPause{"out", 400.0, 200.0}};
        p.plans[0].sensors[0].seenEvery = 10.0;
        // A sensor that sees every move never lets it stop.
        p.plans[0].sensors[0].triggersItself = 1.0;
        QCOMPARE(Desk(p).results().others.ownPictures.reason(), Reason::Unbounded);
        p.plans[0].sensors[0].deafWhileMoving = true;
        QCOMPARE(Desk(p).results().others.ownPictures.value(), 0.0);
    }
    /// Pulses, clocks and a head by itself meet the formulas of their rooms with the plan's own numbers.
    void otherWaysOfWorking() {
        Project p = planned();
        IntervalPlan& plan = p.plans[0];
        plan.mode = IntervalMode::Pulses;
        const Desk pulses(p);
        const double way = intervals::wayOf(pulsedMotor(p.plans[0]), plan.pulses.pulse).way();
        VERIFY_NEAR(pulses.results().others.pulseWay.value(), way, 1e-12);
        VERIFY_NEAR(pulses.results().others.pulseWanted.value(), 0.8 / 200.0, 1e-9);
        VERIFY_NEAR(
            intervals::wayOf(pulsedMotor(p.plans[0]), pulses.results().others.pulseCure.value()).way(),
            0.8 / 200.0, 1e-9);
        VERIFY_NEAR(pulses.course.placesAt(7)[0] - pulses.course.placesAt(0)[0], 7.0 * way, 1e-9);
        plan.mode = IntervalMode::Timers;
        plan.exposure = 0.5;
        plan.clocks.rigInterval = 6.0;
        plan.clocks.rigSlow = 1e-3;
        plan.clocks.cameraSlow = 0.0;
        plan.clocks.offset = 1.0;
        plan.pictures = 2000;
        const Desk timers(p);
        // The rig falls behind by 6 ms a picture; its move begins 1 s after the shutter opens, so that its
        // end comes to the next picture's opening first.
        const double busy = timers.results().lanes.move.valueOr(0.0);
        QCOMPARE(busy, 0.0); // they do not wait for each other
        const double moves = timers.course.step(0).moveTime + timers.course.step(0).settle;
        std::int64_t first = -1;
        for (std::int64_t k = 0; k < 2000 && first < 0; ++k)
            for (std::int64_t m = 0; m <= k + 1; ++m) {
                const double begins = double(m) * 6.006 + 1.0, opens = double(k) * 6.0;
                if (begins < opens + 0.5 && begins + moves > opens) first = k;
            }
        QCOMPARE(timers.results().others.firstSpoiled.valueOr(0.0), double(first) + 1.0);
        VERIFY_NEAR(timers.results().others.driftPpm.value(), 1000.0, 1e-6);
        plan.mode = IntervalMode::SeparateHead;
        plan.pictures = 201;
        plan.head.turn = 2.0 * std::atan2(0.4, p.shots[0].subjectDistance);
        plan.head.longest = 600.0;
        const Desk head(p);
        VERIFY_NEAR(head.results().others.headTime.value(), 600.0, 1e-12);
        QCOMPARE(head.results().others.headStopsAt.value(), 101.0);
        plan.head.longest = 1e5;
        VERIFY_NEAR_ABS(Desk(p).results().others.headErrorEnd.value(), 0.0, 1e-6);
    }
    void whatCannotRunIsSaid() {
        const auto trouble = [](auto change) {
            Project p = planned();
            change(p);
            const Desk d(p);
            if (d.results().troubles.empty()) return std::string();
            return io::planTroubles(p, 0, d.results()).front();
        };
        QVERIFY(trouble([](Project&) {}).empty());
        for (const auto& said :
             {trouble([](Project& p) { p.shots.clear(); }),
              trouble([](Project& p) { p.shots[0].moves.clear(); }), trouble([](Project& p) {
                  p.plans[0].hours.kept = true;
                  p.plans[0].gaps = GapsGo::Linear;
              }),
              trouble([](Project& p) {
                  p.plans[0].hours.kept = true;
                  p.plans[0].hours.close = p.plans[0].hours.open;
              }),
              trouble([](Project& p) {
                  p.plans[0].mode = IntervalMode::Pulses;
                  p.shots[0].moves = {{p.axes[1].id, BySpeed<AxisKind::Rotary>{1.0, 0.1, 0.5}}};
              }),
              trouble([](Project& p) {
                  addMove(p);
                  p.plans[0].move = p.moves[0].id; // without poses
              })})
            QVERIFY(said.find("Growth") != std::string::npos);
    }
    /// Along a move the pictures stand where the move has them, and its target's way is what is seen.
    void goesTheWayOfAMove() {
        Project p = planned();
        addMove(p);
        auto places = rigmoves::half(p);
        places[0] = 0.1;
        rigmoves::pose(p, places);
        places[0] = 0.9;
        rigmoves::pose(p, places, 8.0);
        addTarget(p, 0, 0.5, 1.2, 1.0);
        p.plans[0].move = p.moves[0].id;
        const Desk d(p);
        QVERIFY(d.results().troubles.empty());
        VERIFY_NEAR(d.course.placesAt(0)[0], 0.1, 1e-9);
        VERIFY_NEAR(d.course.placesAt(200)[0], 0.9, 1e-9);
        VERIFY_NEAR(d.course.placesAt(100)[0], 0.5, 1e-6); // eased alike at both ends
        QVERIFY(d.course.step(100).inPicture > 1.0);
        VERIFY_NEAR(d.results().axes[0].to.value(), 0.9, 1e-9);
    }
    void sheetsSayIt() {
        Project p = planned();
        p.plans[0].name = "Growth | of *moss*";
        p.supply.capacity = 3600.0;
        const Desk d(p);
        const std::string sheet = io::planSheet(p, 0, d.evaluation, units::System::Metric);
        QVERIFY(sheet.find("# Growth \\| of \\*moss\\*") == 0);
        QVERIFY(sheet.find("201 (200 gaps)") != std::string::npos);
        QVERIFY(sheet.find("- [ ] Battery full") != std::string::npos);
        const std::string on = io::goingOn(p, 0, d.evaluation, 100, units::System::Metric);
        QVERIFY(on.find("Picture 101 of 201") == 0);
        QVERIFY(on.find("come from") != std::string::npos);
        QVERIFY(on.find("101 pictures are left") != std::string::npos);
        const std::string csv = io::intervalCsv(p, 0, d.evaluation);
        QCOMPARE(std::count(csv.begin(), csv.end(), '\n'), std::ptrdiff_t(202));
        QVERIFY(csv.find("number,time_of_day,opens_s,exposure_s,slide_mm,slide_steps") == 0);
        QVERIFY(csv.find("\r\n1,18:00,0,0.5,") != std::string::npos);
    }
    /// A year of pictures, every two minutes of it, is looked at within a breath.
    void aYearIsQuick() {
        Project p = planned();
        p.plans[0].pictures = 500'000;
        p.plans[0].interval = 60.0;
        p.plans[0].hours.kept = true;
        const Desk d(p);
        QVERIFY(d.results().days.value() > 300.0);
        const auto looks = d.course.samples();
        QVERIFY(looks.size() < 200);
        QCOMPARE(looks.back(), std::int64_t(499'999));
    }
};

QTEST_APPLESS_MAIN(IntervalPlanTest)
#include "interval_plan_test.moc"
