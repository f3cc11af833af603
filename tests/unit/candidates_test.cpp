// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/rigs/rigs.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/ranges.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <functional>

using namespace gantry;
using namespace hand;

namespace {

using fixes::Candidate;
using fixes::Candidates;
using fixes::Family;

/// A family's candidates for a rig, for a made-up verdict.
struct Asked {
    Project project;
    Verdict verdict{};
    std::vector<parts::Part> library{}, shelf{};

    Candidates of(const Family& family) const {
        const Assessment now = assess(project);
        return family.candidates({project, now, verdict, {library, shelf}});
    }
    Axis& axis() { return project.axes[static_cast<std::size_t>(verdict.axis)]; }
    AxisEvaluation evaluation() const {
        return evaluate(project).axes[static_cast<std::size_t>(verdict.axis)];
    }
};

/// A level slide of which one shot asks 0.2 m/s with ramps of 0.5 m/s².
Asked slide() {
    Asked a{slider()};
    a.project.shots.resize(1);
    Shot& s = a.project.shots[0];
    s.kind = ShotKind::Live;
    s.keepFramed = false;
    s.moves = {{a.project.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 0.5}}};
    a.verdict.shot = ShotIndex(0);
    return a;
}
/// The same by its time: 0.6 m in 5 s, eased over 0.5 and 1 s.
Asked timedSlide() {
    Asked a = slide();
    a.project.shots[0].moves = {{a.project.axes[0].id, ByTime<AxisKind::Linear>{0.6, 5.0, 0.5, 1.0}}};
    return a;
}
const BySpeed<AxisKind::Linear>& bySpeed(const Project& p) {
    return std::get<BySpeed<AxisKind::Linear>>(p.shots[0].moves[0].movement);
}
const ByTime<AxisKind::Linear>& byTime(const Project& p) {
    return std::get<ByTime<AxisKind::Linear>>(p.shots[0].moves[0].movement);
}
parts::Part part(const char* family, std::vector<std::pair<std::string, double>> numbers, int count = 0) {
    return {family, "One", count, 0.0, {}, std::move(numbers), {}};
}

bool same(const Candidates& found, const std::vector<double>& wanted,
          const std::function<double(const Project&)>& read) {
    bool same = found.size() == wanted.size();
    for (std::size_t i = 0; same && i < wanted.size(); ++i)
        same = isNear(read(found[i].result), wanted[i], 1e-9);
    if (!same) {
        QString told = "found";
        for (const Candidate& c : found) told += ' ' + QString::number(read(c.result), 'g', 8);
        qInfo("%s", qPrintable(told));
    }
    return same;
}
bool costs(const Candidates& found, FixCost cost) {
    return std::all_of(found.begin(), found.end(), [&](const Candidate& c) { return c.cost == cost; });
}

} // namespace

/// What each family of fixes tries, in which order, worked out from what stands in the project.
class CandidatesTest : public QObject {
    Q_OBJECT
private slots:
    void roundedAsPeopleSetThings() {
        VERIFY_NEAR(fixes::rounded(0.1234, 1e-3, false), 0.12, 1e-12);
        VERIFY_NEAR(fixes::rounded(0.1234, 1e-3, true), 0.13, 1e-12);
        VERIFY_NEAR(fixes::rounded(7.81, 1.0, true), 7.9, 1e-12);
        VERIFY_NEAR(fixes::rounded(781.0, 1.0, false), 780.0, 1e-12);
        VERIFY_NEAR(fixes::rounded(0.5, 1e-3, true), 0.5, 1e-12); // is round already
        VERIFY_NEAR(fixes::rounded(0.5, 1e-3, false), 0.5, 1e-12);
        QCOMPARE(fixes::rounded(0.0, 1.0, true), 0.0);
        QCOMPARE(fixes::rounded(-3.14, 1.0, true), -3.14);
    }
    void theShotThatIsMeant() {
        Asked a = slide();
        a.project.shots.push_back(a.project.shots[0]);
        a.project.shots[1].id = "harder";
        a.project.shots[1].moves = {{a.project.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 2.0}}};
        const Assessment now = assess(a.project);
        fixes::Problem p{a.project, now, a.verdict};
        QCOMPARE(p.shot()->shot, ShotIndex(0));
        a.verdict.shot = {};
        QCOMPARE((fixes::Problem{a.project, now, a.verdict}).shot()->shot, ShotIndex(1)); // pulls hardest
        std::swap(a.project.shots[0], a.project.shots[1]);
        const Assessment swapped = assess(a.project);
        QCOMPARE((fixes::Problem{a.project, swapped, a.verdict}).shot()->shot, ShotIndex(0));
    }
    void gentlerRamps() {
        const Asked a = slide();
        const auto acceleration = [](const Project& p) { return bySpeed(p).acceleration; };
        // First what the wanted margin allows, if that is less; here it is more.
        QVERIFY(a.evaluation().shots[0].torque.maxAcceleration.value() > 0.5);
        QVERIFY(same(a.of(fixes::shotAcceleration), {0.4, 0.3, 0.22, 0.15, 0.1, 0.05}, acceleration));
        Asked heavy = slide();
        rail(heavy.project).movingMass.value = 60.0;
        const double most = heavy.evaluation().shots[0].torque.maxAcceleration.value();
        QVERIFY(most < 0.5);
        const Candidates found = heavy.of(fixes::shotAcceleration);
        QCOMPARE(found.size(), std::size_t(7));
        VERIFY_NEAR(acceleration(found[0].result), fixes::rounded(most, 1e-3, false), 1e-12);
        QVERIFY(costs(found, FixCost::SettingOnly) && found[0].shot == ShotIndex(0));
        // In a given time the ramps take more of it, up to half each: they last 0.5 and 1 of 5 s now.
        QVERIFY(same(timedSlide().of(fixes::shotAcceleration), {1.2, 1.5, 1.7, 2.0, 2.2, 2.5},
                     [](const Project& p) { return byTime(p).easeIn; }));
    }
    void wholePeriods() {
        Asked a = slide();
        a.axis().vibration.frequency = estimate(4.0, Source::Measured); // a quarter of a second
        a.project.controller.ramps = RampKind::Trapezoid;
        // Up to a fifth more than now: 0.8 m/s² is too much.
        QVERIFY(same(a.of(fixes::tunedRamps),
                     {0.4, 0.8 / 3, 0.2, 0.16, 0.8 / 6, 0.8 / 7, 0.1, 0.8 / 9, 0.08, 0.8 / 11, 0.8 / 12},
                     [](const Project& p) { return bySpeed(p).acceleration; }));
        a.project.shots[0].moves = {{a.project.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 0.7}}};
        QCOMPARE(a.of(fixes::tunedRamps).size(), std::size_t(12)); // 0.8 is within a fifth of 0.7
        a.project.controller.ramps = RampKind::SCurve;
        const Candidates curved = a.of(fixes::tunedRamps);
        QCOMPARE(curved.size(), std::size_t(13));
        VERIFY_NEAR(rail(const_cast<Project&>(curved[0].result)).motion.jerk, 0.7 * 4.0, 1e-9);
        Asked timed = timedSlide();
        timed.axis().vibration.frequency = estimate(4.0, Source::Measured);
        timed.project.controller.ramps = RampKind::Trapezoid;
        const std::vector<double> periods{0.25, 0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.25, 2.5, 2.75, 3};
        QVERIFY(
            same(timed.of(fixes::tunedRamps), periods, [](const Project& p) { return byTime(p).easeIn; }));
        QVERIFY(
            same(timed.of(fixes::tunedRamps), periods, [](const Project& p) { return byTime(p).easeOut; }));
    }
    void otherSpeeds() {
        Asked a = slide();
        const auto speed = [](const Project& p) { return bySpeed(p).speed; };
        const std::vector<double> shares{0.18, 0.16, 0.14, 0.11, 0.08, 0.05, 0.03};
        a.verdict.ratio = 2.0;
        a.verdict.bounds.wanted = 1.5;
        QVERIFY(same(a.of(fixes::slowerShot), shares, speed));
        // 0.6 of what is wanted thrice: 0.04 m/s would be fine, 0.12 would do.
        a.verdict.ratio = 0.6;
        a.verdict.bounds.wanted = 3.0;
        std::vector<double> wanted{0.04, 0.12};
        wanted.insert(wanted.end(), shares.begin(), shares.end());
        QVERIFY(same(a.of(fixes::slowerShot), wanted, speed));
        QVERIFY(same(a.of(fixes::fasterShot), {0.23, 0.26, 0.3, 0.35, 0.4}, speed));
        // By time, all of its times in proportion.
        Asked timed = timedSlide();
        timed.verdict.ratio = 9.0;
        const double top = timed.evaluation().shots[0].motion.topSpeed.value();
        for (const Candidate& c : timed.of(fixes::slowerShot)) {
            const double longer = byTime(c.result).time / 5.0;
            QVERIFY(longer > 1.1);
            VERIFY_NEAR(byTime(c.result).easeIn, 0.5 * longer, 1e-9);
            VERIFY_NEAR(byTime(c.result).easeOut, 1.0 * longer, 1e-9);
            const double slower = evaluate(c.result).axes[0].shots[0].motion.topSpeed.value();
            VERIFY_NEAR(slower, top / longer, 1e-6);
            VERIFY_NEAR(fixes::rounded(slower, 1e-3, false), slower, 1e-6); // a speed that people would set
        }
        QCOMPARE(timed.of(fixes::slowerShot).size(), std::size_t(7));
        // A shot that only follows has no speed of its own.
        Asked following = slide();
        following.project.shots[0].moves.clear();
        QVERIFY(following.of(fixes::slowerShot).empty() && following.of(fixes::fasterShot).empty());
    }
    void stepTimes() {
        Asked a = slide();
        Shot& s = a.project.shots[0];
        s.kind = ShotKind::Interval;
        s.stepTime = 0.4;
        s.settle = 0.3;
        s.exposure = 0.5;
        s.interval = 10.0;
        const auto time = [](const Project& p) { return p.shots[0].stepTime; };
        QVERIFY(same(a.of(fixes::slowerSteps), {0.6, 0.8, 1.2, 2.0}, time));
        s.interval = 2.0; // 1.2 + 0.3 + 0.5 just fits
        QVERIFY(same(a.of(fixes::slowerSteps), {0.6, 0.8, 1.2}, time));
        s.interval = 1.99;
        QVERIFY(same(a.of(fixes::slowerSteps), {0.6, 0.8}, time));
        s.kind = ShotKind::StopMotion; // nobody waits
        QVERIFY(same(a.of(fixes::slowerSteps), {0.6, 0.8, 1.2, 2.0}, time));
        QVERIFY(slide().of(fixes::slowerSteps).empty());
    }
    void waits() {
        Asked a = slide();
        a.axis().vibration.frequency = estimate(3.0, Source::Measured);
        a.axis().vibration.damping.value = 0.02;
        a.project.shots[0].settle = 0.2;
        a.project.shots[0].limits.jitter = 0.05;
        a.project.shots[0].subjectDistance = 1.0;
        const double settling = a.evaluation().shots[0].rocking.settling.value();
        QVERIFY(settling > 0.5);
        a.verdict.low = 0.1;
        a.verdict.bounds.wanted = 1.2;
        const auto up = [](double x) { return fixes::rounded(x, 1.0, true); };
        QVERIFY(same(a.of(fixes::longerSettle),
                     {up(1.35 * settling), up(2 * settling), 2.5, 3.6}, // 1.02 and 1.5 times 0.2·12
                     [](const Project& p) { return p.shots[0].settle; }));
        a.verdict.low = 0.0;
        QCOMPARE(a.of(fixes::longerSettle).size(), std::size_t(2));
        a.project.shots[0].settle = up(1.35 * settling);
        QCOMPARE(a.of(fixes::longerSettle).size(), std::size_t(1));
    }
    void fartherAway() {
        Asked a = slide();
        a.project.shots[0].subjectDistance = 2.0;
        a.verdict.ratio = 0.5;
        a.verdict.bounds.wanted = 1.3;
        QVERIFY(same(a.of(fixes::subjectDistance), {5.2, 4.0},
                     [](const Project& p) { return p.shots[0].subjectDistance; }));
        a.verdict.ratio = 1.1;
        QVERIFY(same(a.of(fixes::subjectDistance), {2.4},
                     [](const Project& p) { return p.shots[0].subjectDistance; }));
        a.verdict.ratio = Figure::none(Reason::NoShot);
        QVERIFY(a.of(fixes::subjectDistance).empty());
    }
    void wheelsNearestFirst() {
        Asked a = slide();
        auto& belt = std::get<BeltOutput>(rail(a.project).output);
        belt.teeth = 20;
        belt.pitch.value = 0.002;
        for (const double teeth : {16.0, 20.0, 40.0, 30.0, 18.0})
            a.library.push_back(part("pulley", {{"teeth", teeth}, {"pitch_m", 0.002}}));
        a.library.push_back(part("pulley", {{"teeth", 24}, {"pitch_m", 0.003}})); // does not fit
        a.library.push_back(part("gear", {{"teeth", 22}, {"module_m", 0.001}}));
        a.shelf.push_back(part("pulley", {{"teeth", 23}, {"pitch_m", 0.002}}, 1));
        const Candidates found = a.of(fixes::outputTeeth);
        QVERIFY(same(found, {18, 23, 16, 30, 40}, [](const Project& p) {
            return std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).teeth;
        }));
        QVERIFY(found[1].cost == FixCost::PartOnHand && found[0].cost == FixCost::ToBuy);
        rail(a.project).output = ScrewOutput{};
        QVERIFY(a.of(fixes::outputTeeth).empty());
    }
    void stagesInFront() {
        Asked a = slide();
        const double pitch = BeltStage{}.pitch.value;
        // 1:1.5 by 20 and 30 rather than by 16 and 24; 1:2 by 16 and 32, since 20 has no 40; 1:3 by 20 and
        // 60; no other: a wheel of 12 is too small.
        for (const double teeth : {12.0, 16.0, 20.0, 24.0, 30.0, 32.0, 60.0})
            a.library.push_back(part("pulley", {{"teeth", teeth}, {"pitch_m", pitch}}));
        const Candidates found = a.of(fixes::reduction);
        const auto stage = [](const Project& p) { return std::get<BeltStage>(p.axes[0].links.front()); };
        // Last two of 1:3 in a row.
        QVERIFY(same(found, {20, 16, 20, 20}, [&](const Project& p) { return stage(p).motorTeeth; }));
        QVERIFY(same(found, {30, 32, 60, 60}, [&](const Project& p) { return stage(p).loadTeeth; }));
        QCOMPARE(found[3].result.axes[0].links.size(), a.project.axes[0].links.size() + 2);
        QVERIFY(costs(found, FixCost::ToBuy));
        QCOMPARE(found[0].result.axes[0].links.size(), a.project.axes[0].links.size() + 1);
    }
    void controllers() {
        Asked a = slide();
        const auto microsteps = [](const Project& p) { return p.axes[0].driver.microsteps; };
        a.axis().driver.microsteps = 16;
        QVERIFY(same(a.of(fixes::finerMicrosteps), {32, 64, 128, 256}, microsteps));
        QVERIFY(same(a.of(fixes::coarserMicrosteps), {8, 4, 2, 1}, microsteps));
        a.axis().driver.microsteps = 256;
        QVERIFY(a.of(fixes::finerMicrosteps).empty());
        std::get<Stepper>(a.axis().motor).winding = Winding::Unipolar;
        QVERIFY(a.of(fixes::coarserMicrosteps).empty());
        a.axis().motor = ServoMotor{};
        QVERIFY(a.of(fixes::coarserMicrosteps).empty());

        a = slide();
        a.project.controller.pulseCeiling = 40e3;
        const auto ceiling = [](const Project& p) { return p.controller.pulseCeiling; };
        QVERIFY(same(a.of(fixes::controllerPulses), {100e3, 200e3, 500e3}, ceiling));
        a.project.controller.pulseCeiling = 30e3;
        QVERIFY(same(a.of(fixes::controllerPulses), {40e3, 100e3, 200e3, 500e3}, ceiling));
        QVERIFY(costs(a.of(fixes::controllerPulses), FixCost::ToBuy));
        a.project.controller.decimalsKept = 3;
        QVERIFY(same(a.of(fixes::controllerDecimals), {4, 5, 6},
                     [](const Project& p) { return p.controller.decimalsKept; }));

        auto& motion = rail(a.project).motion;
        motion.maxSpeed = 0.15;
        motion.maxAcceleration = 1.5;
        const auto limit = [](auto member) {
            return [=](const Project& p) {
                return std::get<LinearMechanism>(p.axes[0].mechanism).motion.*member;
            };
        };
        QVERIFY(
            same(a.of(fixes::settingsUpToShot), {0.2}, limit(&MotionSettings<AxisKind::Linear>::maxSpeed)));
        QVERIFY(same(a.of(fixes::settingsUpToShot), {1.5},
                     limit(&MotionSettings<AxisKind::Linear>::maxAcceleration)));
        motion.maxSpeed = 0.3;
        motion.maxAcceleration = 0.4;
        QVERIFY(
            same(a.of(fixes::settingsUpToShot), {0.3}, limit(&MotionSettings<AxisKind::Linear>::maxSpeed)));
        QVERIFY(same(a.of(fixes::settingsUpToShot), {0.5},
                     limit(&MotionSettings<AxisKind::Linear>::maxAcceleration)));
    }
    void currents() {
        Asked a = slide();
        auto& stepper = std::get<Stepper>(a.axis().motor);
        Driver& d = a.axis().driver;
        stepper.ratedCurrent.value = 1.7;
        d.maxCurrent = 2.0;
        d.runCurrent = 0.8;
        d.holdCurrent = 0.4;
        const auto run = [](const Project& p) { return p.axes[0].driver.runCurrent; };
        const auto hold = [](const Project& p) { return p.axes[0].driver.holdCurrent; };
        QVERIFY(a.evaluation().shots[0].torque.leastCurrent.value() < 0.8);
        QVERIFY(same(a.of(fixes::runCurrent), {1.7}, run)); // the rating that is less
        d.maxCurrent = 1.5;
        QVERIFY(same(a.of(fixes::runCurrent), {1.5}, run));
        rail(a.project).movingMass.value = 30.0;
        const double least = fixes::rounded(a.evaluation().shots[0].torque.leastCurrent.value(), 1.0, true);
        d.runCurrent = 0.5 * least;
        QVERIFY(least < 1.5);
        QVERIFY(same(a.of(fixes::runCurrent), {least, 1.5}, run));
        d.runCurrent = 1.0;
        QVERIFY(same(a.of(fixes::lowerRunCurrent), {0.9, 0.8, 0.7, 0.6, 0.5}, run));

        d.runCurrent = 1.2;
        a.verdict.ratio = 0.8;
        a.verdict.bounds.wanted = 2.0;
        // 0.4 · 2 / 0.8, and never more than the axis runs with.
        QVERIFY(same(a.of(fixes::holdCurrent), {1.0, 1.2}, hold));
        a.verdict.ratio = 0.4; // 2 A are more than there may be
        QVERIFY(same(a.of(fixes::holdCurrent), {1.2}, hold));
        a.verdict.ratio = 0.0;
        QVERIFY(same(a.of(fixes::holdCurrent), {1.2}, hold));
        d.holdCurrent = 1.2;
        QVERIFY(a.of(fixes::holdCurrent).empty());
        a.axis().motor = ServoMotor{};
        QVERIFY(a.of(fixes::holdCurrent).empty() && a.of(fixes::runCurrent).empty());
    }
    void motorsAndSupplies() {
        Asked a = slide();
        GearedDc motor;
        motor.knob = 0.6;
        a.axis().motor = motor;
        QVERIFY(same(a.of(fixes::knobUp), {1.0},
                     [](const Project& p) { return std::get<GearedDc>(p.axes[0].motor).knob; }));
        std::get<GearedDc>(a.axis().motor).knob = 1.0;
        QVERIFY(a.of(fixes::knobUp).empty());
        a = slide();
        QVERIFY(a.of(fixes::knobUp).empty());

        a.project.supply.voltage.value = 24.0;
        a.project.supply.lowVoltage.value = 21.6;
        a.axis().driver.maxVoltage = 40.0;
        for (const double volts : {12.0, 24.0, 36.0, 48.0, 40.0})
            a.library.push_back(part("supply", {{"voltage_V", volts}}));
        a.shelf.push_back(part("supply", {{"voltage_V", 28.0}}, 1));
        const Candidates found = a.of(fixes::supplyVoltage);
        QVERIFY(same(found, {28, 36, 40}, [](const Project& p) { return p.supply.voltage.value; }));
        QVERIFY(same(found, {25.2, 32.4, 36}, [](const Project& p) { return p.supply.lowVoltage.value; }));
        QVERIFY(found[0].cost == FixCost::PartOnHand && found[1].cost == FixCost::ToBuy);

        std::get<Stepper>(a.axis().motor).body.mount = MountMaterial::PrintedPla;
        const Candidates mount = a.of(fixes::mountMaterial);
        QVERIFY(mount.size() == 1 && bodyOf(mount[0].result.axes[0].motor).mount == MountMaterial::Metal);
        std::get<Stepper>(a.axis().motor).body.mount = MountMaterial::Metal;
        QVERIFY(a.of(fixes::mountMaterial).empty());
    }
    void brakesAndStops() {
        Asked a = slide();
        a.library = {part("brake", {{"holding_torque_Nm", 2.0}}),
                     part("brake", {{"holding_torque_Nm", 0.8}})};
        const Candidates found = a.of(fixes::brake);
        QVERIFY(
            same(found, {0.8, 2.0}, [](const Project& p) { return p.axes[0].brake.holdingTorque.value; }));
        QVERIFY(found[0].result.axes[0].brake.fitted &&
                found[0].result.axes[0].brake.holdingTorque.source == Source::DataSheet);
        a.axis().brake.fitted = true;
        QVERIFY(a.of(fixes::brake).empty());
        a.axis().onStop = OnStop::CutsCurrent;
        QVERIFY(a.of(fixes::stopBehaviour).size() == 1 &&
                a.of(fixes::stopBehaviour)[0].result.axes[0].onStop == OnStop::KeepsHolding);
        a.axis().onStop = OnStop::KeepsHolding;
        QVERIFY(a.of(fixes::stopBehaviour).empty());
    }
    void gearsAndCords() {
        Asked a = slide();
        GearStage gear;
        gear.id = "gear";
        gear.faceWidth = 0.008;
        a.axis().links = {BeltStage{}, gear};
        QVERIFY(same(a.of(fixes::faceWidth), {0.012, 0.016, 0.024},
                     [](const Project& p) { return std::get<GearStage>(p.axes[0].links[1]).faceWidth; }));
        WinchOutput winch;
        winch.closedLoop = false;
        rail(a.project).output = winch;
        const Candidates found = a.of(fixes::closedCord);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY(std::get<WinchOutput>(std::get<LinearMechanism>(found[0].result.axes[0].mechanism).output)
                    .closedLoop);
        std::get<WinchOutput>(rail(a.project).output).closedLoop = true;
        QVERIFY(a.of(fixes::closedCord).empty());
    }
    void rails() {
        Asked a = slide();
        Rail& r = rail(a.project).rail;
        r.support = RailSupport::TwoStands;
        r.firstStand = 0.2;
        r.secondStand = 0.8;
        const auto first = [](const Project& p) {
            return std::get<LinearMechanism>(p.axes[0].mechanism).rail.firstStand;
        };
        const auto second = [](const Project& p) {
            return std::get<LinearMechanism>(p.axes[0].mechanism).rail.secondStand;
        };
        QVERIFY(same(a.of(fixes::standsOutwards), {0.1, 0.05, 0.025, 0.012}, first));
        QVERIFY(same(a.of(fixes::standsOutwards), {0.9, 0.95, 0.975, 0.988}, second));
        QCOMPARE(a.of(fixes::bestStandPlaces).size(), std::size_t(1));
        r.support = RailSupport::OneHead;
        QVERIFY(a.of(fixes::standsOutwards).empty() && a.of(fixes::bestStandPlaces).empty());
        r.clampBolts = 2;
        QVERIFY(same(a.of(fixes::clampBolts), {4, 6, 8}, [](const Project& p) {
            return std::get<LinearMechanism>(p.axes[0].mechanism).rail.clampBolts;
        }));
        r.clampBolts = 0;
        QVERIFY(a.of(fixes::clampBolts).empty());
        // Turning what is there is tried before anything is bought.
        r.section.height = 0.08;
        a.library = shippedParts();
        QVERIFY(a.of(fixes::stockSection).empty()); // on a single head it is the head that gives way
        r.support = RailSupport::TwoStands;
        const Candidates found = a.of(fixes::stockSection);
        QVERIFY(found.size() > 2);
        QVERIFY(found[0].cost == FixCost::SettingOnly &&
                rail(const_cast<Project&>(found[0].result)).rail.section.onEdge);
        for (std::size_t i = 1; i < found.size(); ++i) QVERIFY(found[i].cost == FixCost::ToBuy);
    }
    void arms() {
        Asked a{jib()};
        a.verdict.axis = 1;
        a.project.payload.clear();
        Counterweight& w = boom(a.project).boom.counterweight;
        w.nearest = 0.2;
        w.farthest = 0.75;
        w.behind = 0.5;
        const double moment = 3.0 * 2.0 + tubeMass() * 2.8 * 0.6;
        const auto mass = [](const Project& p) {
            return std::get<RotaryMechanism>(p.axes[1].mechanism).boom.counterweight.mass.value;
        };
        const auto behind = [](const Project& p) {
            return std::get<RotaryMechanism>(p.axes[1].mechanism).boom.counterweight.behind;
        };
        const double full = std::round(moment / 0.5 * 100) / 100;
        std::vector<double> masses;
        for (const double share : {1.0, 0.98, 0.96, 0.94, 0.92})
            masses.push_back(fixes::rounded(full * share, 0.01, true));
        QVERIFY(same(a.of(fixes::counterweight), masses, mass));
        QVERIFY(costs(a.of(fixes::counterweight), FixCost::ToBuy));
        // One that can be moved: up to 8 % of the front's moment is left to the camera's side.
        w.mass.value = moment / 0.6;
        std::vector<double> places;
        for (const double left : {0.0, 0.02, 0.04, 0.06, 0.08})
            places.push_back(fixes::rounded(0.6 - left * 0.6, 1e-3, true));
        QVERIFY(same(a.of(fixes::counterweight), places, behind));
        QVERIFY(costs(a.of(fixes::counterweight), FixCost::SettingOnly));
        w.nearest = 0.585; // 0.6 and 0.59 are on the bar
        QCOMPARE(a.of(fixes::counterweight).size(), std::size_t(2));

        boom(a.project).boom.pivot.pinDiameter = 0.01;
        QVERIFY(a.of(fixes::thickerPin).empty()); // of nothing in stock
        a.library = shippedParts();
        QVERIFY(costs(a.of(fixes::thickerPin), FixCost::ToBuy));
        QVERIFY(same(a.of(fixes::thickerPin), {0.012, 0.016, 0.02, 0.025, 0.03}, [](const Project& p) {
            return std::get<RotaryMechanism>(p.axes[1].mechanism).boom.pivot.pinDiameter;
        }));
        boom(a.project).boom.pivot.pinDiameter = 0.005;
        QVERIFY(same(a.of(fixes::thickerPin), {0.006, 0.008, 0.01, 0.012, 0.016, 0.02, 0.025, 0.03},
                     [](const Project& p) {
                         return std::get<RotaryMechanism>(p.axes[1].mechanism).boom.pivot.pinDiameter;
                     }));
        boom(a.project).boom.pivot.pinDiameter = 0.0; // nobody said
        QVERIFY(a.of(fixes::thickerPin).empty());
    }
    void bases() {
        Asked a{jib()};
        a.verdict.axis = 1;
        Base& base = a.project.base;
        base.kind = BaseKind::Legs;
        base.legRadius = 0.4;
        base.ballast.value = 3.0;
        base.ballastOut = 0.2;
        const Assessment now = assess(a.project);
        const double needed = now.evaluation.rig.ballastNeeded.value();
        QVERIFY(needed > 2.0);
        const auto ballast = [](const Project& p) { return p.base.ballast.value; };
        QVERIFY(same(a.of(fixes::ballast),
                     {3 + std::ceil(1.1 * needed), 3 + std::ceil(1.4 * needed), 3 + std::ceil(2.0 * needed)},
                     ballast));
        for (const Candidate& c : a.of(fixes::ballast))
            QVERIFY(c.result.base.ballastOut == 0.0 && c.result.base.ballastLeg == 0);
        // On one leg: the one that needs least, found by trying each on the rig without ballast.
        Project bare = a.project;
        bare.base.ballast.value = 0.0;
        const Candidates onLeg = a.of(fixes::ballastOnLeg);
        QCOMPARE(onLeg.size(), std::size_t(3));
        const int leg = onLeg[0].result.base.ballastLeg;
        QVERIFY(leg >= 1 && leg <= base.legs);
        const auto ratioWith = [&](int onThis, double mass) {
            Project p = bare;
            p.base.ballastLeg = onThis;
            p.base.ballast.value = mass;
            return evaluate(p).rig.tipping.value();
        };
        const double least = onLeg[0].result.base.ballast.value;
        for (int other = 1; other <= base.legs; ++other)
            QVERIFY(ratioWith(leg, least) >= ratioWith(other, least) * (1 - 1e-9));
        QVERIFY(onLeg[1].result.base.ballast.value > least &&
                onLeg[2].result.base.ballast.value > onLeg[1].result.base.ballast.value);

        QVERIFY(same(a.of(fixes::widerFeet), {0.46, 0.52, 0.6, 0.8},
                     [](const Project& p) { return p.base.legRadius; }));
        base.height = 1.0;
        base.pushHeight = 0.8;
        QVERIFY(
            same(a.of(fixes::lowerColumn), {0.85, 0.7, 0.5}, [](const Project& p) { return p.base.height; }));
        QVERIFY(same(a.of(fixes::lowerColumn), {0.8, 0.7, 0.5},
                     [](const Project& p) { return p.base.pushHeight; }));
        base.padStiffness.value = 1e5;
        QVERIFY(same(a.of(fixes::stifferPads), {2e5, 4e5, 8e5},
                     [](const Project& p) { return p.base.padStiffness.value; }));
        base.padStiffness.value = 0.0;
        QVERIFY(a.of(fixes::stifferPads).empty());
        base.kind = BaseKind::Rectangle;
        base.length = 1.0;
        base.width = 0.6;
        QVERIFY(same(a.of(fixes::widerFeet), {1.2, 1.3, 1.5, 2.0},
                     [](const Project& p) { return p.base.length; }));
        QVERIFY(same(a.of(fixes::widerFeet), {0.69, 0.78, 0.9, 1.2},
                     [](const Project& p) { return p.base.width; }));
        base.kind = BaseKind::Overhead;
        QVERIFY(a.of(fixes::widerFeet).empty());
        const Candidates tether = a.of(fixes::secondTether);
        QVERIFY(tether.size() == 1 && tether[0].result.base.tethered);
    }
};

QTEST_APPLESS_MAIN(CandidatesTest)
#include "candidates_test.moc"
