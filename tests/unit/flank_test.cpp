// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/flank.h"
#include "core/evaluate/evaluate.h"
#include "core/motor/hot_copper.h"
#include "core/tools/limits.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/stock.h"

#include <QElapsedTimer>
#include <QTest>
#include <nlohmann/json.hpp>
#include <random>

using namespace gantry;
using namespace gantry::drivetrain;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

FlankQuestion questionOf(const json& in) {
    FlankQuestion q;
    q.load.amplitude = std::abs(in["moment_amplitude"].get<double>());
    q.load.phase = in["moment_amplitude"].get<double>() < 0.0 ? pi : 0.0;
    q.load.constant = in["spring_moment"];
    q.from = in["phi_from"];
    q.to = in["phi_to"];
    q.bothWays = in["both_ways"];
    q.friction = in["friction"];
    q.inertia = in["inertia"];
    q.acceleration = in["acceleration"];
    q.rippleFrequency = 2.0 * pi * in["ripple_frequency"].get<double>();
    q.rippleSpeed = in["ripple_amplitude"].get<double>() * q.rippleFrequency;
    q.disturbance = in["disturbance"];
    q.speed = in["speed"];
    q.backlash = in["backlash"];
    return q;
}

/// A level carriage of 5 kg against 5 N on a drive with play.
Project carriage() {
    Project p = hand::slider();
    auto& m = hand::rail(p);
    m.items.clear();
    p.axes[0].carriesPayload = false;
    m.runningFriction = m.staticFriction = {5.0, Source::Measured, 0.0};
    m.movingMass.tolerance = 0.0;
    m.cableDrag.value = 0.0;
    std::get<BeltOutput>(m.output).backlash = {0.002, Source::Measured, 0.0};
    p.controller.ramps = RampKind::Trapezoid;
    p.shots.resize(1);
    p.shots[0].keepFramed = false;
    p.shots[0].kind = ShotKind::Live;
    return p;
}
void moves(Project& p, double acceleration) {
    p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.5, 0.2, acceleration}}};
}

} // namespace

/// Play that is kept on one side or not, and settings, travel and heat judged by what there is.
class FlankTest : public QObject {
    Q_OBJECT
private slots:
    void asInTheReference() {
        for (const json& c : referenceCases("t55_preload", "flank")) {
            const Flank f = flankOf(questionOf(c["inputs"]), c["inputs"]["target"]);
            const json& e = c["expected"];
            const char* name = c["name"].get_ref<const std::string&>().c_str();
            QVERIFY2(f.kept == e["kept"].get<bool>(), name);
            QVERIFY2(f.reversesLocally == e["reverses_locally"].get<bool>(), name);
            VERIFY_NEAR(f.disturbing, e["disturbing"].get<double>(), 1e-9);
            VERIFY_NEAR(f.holding, e["holding"].get<double>(), 1e-9);
            VERIFY_NEAR(f.ratio(), e["ratio"].get<double>(), 1e-9);
            VERIFY_NEAR(f.side, e["flank"].get<double>(), 1e-9);
            VERIFY_NEAR(f.play * c["inputs"]["px_per_rad"].get<double>(), e["picture_px"].get<double>(),
                        1e-9);
            VERIFY_NEAR(f.missing, e["extra_spring_needed"].get<double>(), 1e-9);
            QVERIFY2(!f.place, name);
        }
    }
    /// An off-centre weight that goes through the top: 28 mN·m downhill at 0°, friction of 20, there and
    /// back.
    void letsGoAtAPlace() {
        FlankQuestion q;
        q.load.amplitude = 1.0;
        q.from = 0.0;
        q.to = 2.0;
        q.friction = 0.1;
        q.inertia = 0.1;
        q.acceleration = 0.5;
        q.backlash = 0.01;
        const Flank f = flankOf(q, 2.0);
        QVERIFY(!f.kept && f.place);
        // cos φ + 0.1 = 0.05
        VERIFY_NEAR(*f.place, std::acos(-0.05), 1e-9);
        // The other way it starts hanging forward, and is caught where weight and friction balance.
        std::swap(q.from, q.to);
        const Flank back = flankOf(q, 2.0);
        QVERIFY(back.place);
        VERIFY_NEAR(std::cos(*back.place) - 0.1, -0.05, 1e-9);
        // With a spring that holds 0.6 + what friction and the ramps need it is kept, by target 1 exactly.
        q.load.constant = -std::cos(2.0) + 0.1 + 0.05 + 1e-6;
        q.bothWays = true;
        QVERIFY(flankOf(q, 1.0).kept);
        q.load.constant -= 2e-6;
        QVERIFY(!flankOf(q, 1.0).kept);
        // What it says is missing is just enough.
        Flank weak = flankOf(q, 2.0);
        q.load.constant += weak.missing;
        VERIFY_NEAR(flankOf(q, 2.0).ratio(), 2.0, 1e-6);
    }
    /// A load that only friction holds runs on in braking, by what is left of its speed.
    void runsOn() {
        FlankQuestion q;
        q.to = 0.7;
        q.friction = 0.006;
        q.inertia = 0.03;
        q.acceleration = 0.5;
        q.speed = 6.0 * pi / 180.0;
        q.backlash = 3.0 * pi / 180.0;
        VERIFY_NEAR(flankOf(q, 2.0).play * 180.0 / pi, 0.943, 2e-3);
        // Stepped in time: the motor brakes at 0.5, the load by friction alone.
        double motor = 0.0, load = 0.0, w = q.speed, v = q.speed;
        for (double t = 0.0; v > 0.0; t += 1e-6) {
            motor += w * 1e-6;
            load += v * 1e-6;
            w = std::max(0.0, w - q.acceleration * 1e-6);
            v -= q.friction / q.inertia * 1e-6;
        }
        VERIFY_NEAR(flankOf(q, 2.0).play, load - motor, 1e-3);
        q.backlash = 0.001; // never more than there is
        QCOMPARE(flankOf(q, 2.0).play, 0.001);
        q.acceleration = 0.15;
        QVERIFY(flankOf(q, 2.0).kept);
    }
    /// In a project: silent without play; held one way by friction; loose where it turns or brakes hard.
    void inARig() {
        Project p = carriage();
        moves(p, 0.5);
        auto v = hand::verdict(p, "backlash");
        QVERIFY(v && v->state == State::Fine);
        VERIFY_NEAR(v->ratio.value(), 5.0 / (5.0 * 0.5), 1e-6);
        moves(p, 0.8); // held, with less than twice
        QCOMPARE(hand::verdict(p, "backlash")->state, State::Tight);
        moves(p, 2.0);
        v = hand::verdict(p, "backlash");
        QCOMPARE(v->state, State::Over);
        QVERIFY(v->sentence.text.find("when it brakes") != std::string_view::npos);
        moves(p, 0.5);
        p.shots[0].thereAndBack = true;
        v = hand::verdict(p, "backlash");
        QCOMPARE(v->state, State::Over);
        QVERIFY(v->sentence.text.find("turns round") != std::string_view::npos);
        // On a slope the weight keeps it on one side both ways: 5 · 9.8 · sin 0.3 against 5 N of friction.
        hand::rail(p).slope = {0.3, Source::Measured, 0.0};
        v = hand::verdict(p, "backlash");
        VERIFY_NEAR(v->ratio.value(), (5.0 * 9.80665 * std::sin(0.3) - 5.0) / 2.5, 1e-6);
        std::get<BeltOutput>(hand::rail(p).output).backlash.value = 0.0;
        QVERIFY(!hand::verdict(p, "backlash"));
    }
    /// Wind shakes what friction holds; a track that may lie either way takes the arm past its range.
    void whatDisturbs() {
        Project p = carriage();
        moves(p, 0.5);
        p.conditions.windSpeed = 5.0;
        hand::rail(p).windArea = 0.05;
        const FlankHold f = evaluate(p).axes[0].shots[0].flank;
        VERIFY_NEAR(f.holding.value(), 5.0, 1e-9);
        VERIFY_NEAR(f.disturbing.value(), 5.0 * 0.5 + 0.5 * 1.2 * 1.2 * 0.05 * 25.0, 1e-9);
    }
    /// Of an arm on a spring, on a slide that may lean either way: the least of both over what they pass.
    void springsAndSlopes() {
        Project p = hand::jib();
        p.axes[0] = bareRig(rigs::RigKind::BeltSlider).axes[0];
        auto& slope = std::get<LinearMechanism>(p.axes[0].mechanism).slope;
        slope = {0.0, Source::Measured, 0.0};
        RotaryMechanism& r = hand::boom(p);
        r.boom.section.shape = SectionShape::NotGiven;
        r.lowAngle = 0.2;
        r.range = 0.6;
        r.friction = {0.0, Source::Measured, 0.0};
        r.unbalance.value = 0.0;
        r.spring.torqueAtLow.value = 3.0;
        r.spring.rate.value = 4.0;
        BeltStage stage;
        stage.id = "belt";
        stage.figures.backlash = {0.01, Source::Measured, 0.0};
        p.axes[1].links = {stage};
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.shots[0].moves = {{p.axes[1].id, BySpeed<AxisKind::Rotary>{0.6, 0.05, 0.05}}};
        const auto held = [&] { return evaluate(p).axes[1].shots[0].flank.holding.value(); };
        const auto onPaper = [&](double from, double to) {
            double least = 1e300;
            for (int i = 0; i <= 1000; ++i) {
                const double at = from + (to - from) * i / 1000;
                least = std::min(least, 3.0 * 9.80665 * 2.0 * std::cos(at) - 3.0 - 4.0 * (at - 0.2));
            }
            return least;
        };
        VERIFY_NEAR(held(), onPaper(0.2, 0.8), 1e-6);
        slope.value = 0.15;
        VERIFY_NEAR(held(), onPaper(0.05, 0.95), 1e-6);
        // Coming down it begins where it ended.
        p.shots[0].moves = {{p.axes[1].id, BySpeed<AxisKind::Rotary>{-0.6, 0.05, 0.05}}};
        VERIFY_NEAR(held(), onPaper(0.05, 0.95), 1e-6);
    }
    /// A pan on a slope: its weight may pull either way, and its spring one way.
    void panOnASlope() {
        Project p = bareRig(rigs::RigKind::MultiAxis);
        std::size_t pan = 0;
        for (std::size_t i = 0; i < p.axes.size(); ++i)
            if (p.axes[i].role == Role::Pan) pan = i;
        std::get<LinearMechanism>(p.axes[0].mechanism).slope = {0.2, Source::Measured, 0.0};
        auto& r = std::get<RotaryMechanism>(p.axes[pan].mechanism);
        p.payload.clear();
        MassItem camera;
        camera.id = "camera";
        camera.mass = {2.0, Source::Measured, 0.0};
        camera.along = 0.05;
        r.items = {camera};
        r.friction = {0.01, Source::Measured, 0.0};
        r.cableDrag.value = r.unbalance.value = 0.0;
        r.spring.torqueAtLow = {1.0, Source::Measured, 0.0};
        const double weight = 2.0 * 9.80665 * 0.05 * std::sin(0.2);
        BeltStage stage;
        stage.id = "belt";
        stage.figures.backlash = {0.01, Source::Measured, 0.0};
        p.axes[pan].links = {stage};
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.shots[0].thereAndBack = true;
        p.shots[0].moves = {{p.axes[pan].id, BySpeed<AxisKind::Rotary>{0.6, 0.05, 0.05}}};
        VERIFY_NEAR(evaluate(p).axes[pan].shots[0].flank.holding.value(), 1.0 - weight - 0.01, 1e-6);
        VERIFY_NEAR(evaluate(p).axes[pan].model.chain.load.steady, 1.0 + weight, 1e-9);
    }
    /// Over many turns: the same as going all the way in small steps; and a million turns take no longer.
    void manyTurns() {
        std::mt19937_64 random(5);
        const auto within = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        int fell = 0, late = 0;
        for (int n = 0; n < 400; ++n) {
            FlankQuestion q;
            q.load = {within(0.0, 1.0), within(-3.0, 3.0), within(0.0, 2.0), within(-0.05, 0.05), 0.0};
            q.from = within(-30.0, 30.0);
            q.to = q.from + within(-90.0, 90.0);
            q.friction = within(0.0, 0.3);
            q.inertia = 1.0;
            q.acceleration = within(0.0, 0.3);
            q.backlash = 0.01;
            const double direction = q.to > q.from ? 1.0 : -1.0;
            double least = 1e9, most = -1e9;
            std::optional<double> place;
            const auto resting = [&](double at) { return q.load.at(at) + direction * q.friction; };
            const double starts = resting(q.from) >= 0.0 ? 1.0 : -1.0;
            constexpr int steps = 40000;
            for (int i = 0; i <= steps; ++i) {
                const double at = q.from + (q.to - q.from) * i / steps;
                least = std::min(least, q.load.at(at));
                most = std::max(most, q.load.at(at));
                if (!place && starts * resting(at) <= q.acceleration) place = at;
            }
            const Flank f = flankOf(q, 2.0);
            const double holding = std::max(least + direction * q.friction, -most - direction * q.friction);
            QVERIFY(std::abs(f.holding - holding) < 1e-5);
            if (f.kept || place == q.from) continue;
            QCOMPARE(f.place.has_value(), place.has_value());
            if (!place) continue;
            ++fell;
            if (std::abs(*place - q.from) > 7.0) ++late;
            QVERIFY(std::abs(*f.place - *place) < 0.01);
        }
        QVERIFY(fell > 60 && late > 30);
        FlankQuestion q;
        q.load = {1.0, 0.3, 1.5, -1e-7, 0.0};
        q.to = 1e7;
        q.inertia = 1.0;
        q.backlash = 0.01;
        QElapsedTimer timer;
        timer.start();
        const Flank f = flankOf(q, 2.0);
        QVERIFY(timer.elapsed() < 50);
        // The lowest of each turn is 0.5 less 1e-7 for each radian.
        QVERIFY(f.place && std::abs(*f.place - 5e6) < 10.0);
    }
    /// A shot that begins at a place only looks at what it passes.
    void beginsAtAPlace() {
        Project p = hand::jib();
        RotaryMechanism& r = hand::boom(p);
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.axes[1].links.clear();
        BeltStage stage;
        stage.id = "belt";
        stage.figures.backlash = {0.01, Source::Measured, 0.0};
        p.axes[1].links = {stage};
        r.boom.section.shape = SectionShape::NotGiven;
        r.items = {};
        MassItem camera;
        camera.id = "camera";
        camera.mass = {2.0, Source::Measured, 0.0};
        camera.along = 0.5;
        r.items.push_back(camera);
        r.lowAngle = 0.0;
        r.range = 3.0;
        r.friction = {0.2, Source::Measured, 0.0};
        BySpeed<AxisKind::Rotary> move{1.0, 0.05, 0.05};
        const auto flank = [&] {
            p.shots[0].moves = {{p.axes[1].id, move}};
            return evaluate(p).axes[1].shots[0].flank;
        };
        QVERIFY(flank().play); // somewhere on its range it goes over the top
        move.placed = true;
        QVERIFY(!flank().play);
        VERIFY_NEAR(flank().holding.value(), 2.0 * 9.80665 * 0.5 * std::cos(1.0) + 0.2, 1e-6);
        move.start = 1.0;
        QVERIFY(flank().play && flank().place);
        QVERIFY(flank().place.value() > 1.5 && flank().place.value() < 1.7);
    }
    void travelToTheLastMillimetre() {
        Project p = carriage();
        auto& m = hand::rail(p);
        m.railLength = 0.79;
        m.carriageLength = 0.13;
        m.bumperLength = 0.01;
        m.motion.softLimitMargin = 0.0;
        const auto shot = [&](double distance, double start = -1.0) {
            BySpeed<AxisKind::Linear> move{distance, 0.05, 0.1};
            move.placed = start >= 0.0;
            move.start = std::max(0.0, start);
            p.shots[0].moves = {{p.axes[0].id, move}};
            return *hand::verdict(p, "travel");
        };
        QCOMPARE(shot(0.64).state, State::Fine);
        QVERIFY(shot(0.64).sentence.text.find("home the axis first") != std::string_view::npos);
        QCOMPARE(hand::verdict(p, "stopping")->state, State::Tight);
        QCOMPARE(hand::verdict(p, "stopping")->ratio.value(), 1.0);
        QCOMPARE(shot(0.641).state, State::Over);
        QVERIFY(shot(0.6).sentence.text.find("home") == std::string_view::npos);
        // A place of its own counts from the low end.
        QCOMPARE(shot(0.6, 0.04).state, State::Fine);
        QCOMPARE(shot(0.6, 0.05).state, State::Over);
        QCOMPARE(shot(-0.1, 0.05).state, State::Over);
        QVERIFY(shot(0.6, 0.05).sentence.text.find("passes the soft limits") != std::string_view::npos);
        // 100 mm of braking with 40 mm behind it.
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 0.2}}};
        VERIFY_NEAR(hand::verdict(p, "stopping")->ratio.value(), 1.4, 1e-6);
    }
    /// Settings against the axis: pulses, torque; and the fix brings them to what is recommended.
    void settingsOfTheController() {
        Project p = carriage();
        moves(p, 0.5);
        auto& motion = hand::rail(p).motion;
        const AxisEvaluation e = evaluate(p).axes[0];
        motion.maxSpeed = 2.0 * e.pulseLimitSpeed.value();
        motion.maxAcceleration = 0.5;
        auto v = hand::verdict(p, "settings");
        QCOMPARE(v->state, State::Over);
        VERIFY_NEAR(v->ratio.value(), 0.5, 1e-9);
        QVERIFY(v->sentence.text.find("the pulses end") != std::string_view::npos);
        motion.maxSpeed = 0.3;
        motion.maxAcceleration = 500.0;
        v = hand::verdict(p, "settings");
        QCOMPARE(v->state, State::Over);
        QVERIFY(v->sentence.text.find("torque for") != std::string_view::npos);
        // Without a shot it is the speed that is set at which it has to ramp.
        Project idle = p;
        idle.shots[0].moves.clear();
        hand::rail(idle).motion.maxSpeed = 0.95 * e.pulseLimitSpeed.value();
        QVERIFY(hand::verdict(idle, "settings")->ratio.value() < v->ratio.value());
        // A servo ends before its pulses do.
        Project servo = p;
        ServoMotor m;
        m.topSpeed.value = 30.0;
        servo.axes[0].motor = m;
        servo.controller.pulseCeiling = 1e9;
        hand::rail(servo).motion.maxSpeed = 2.0;
        hand::rail(servo).motion.maxAcceleration = 0.5;
        QVERIFY(hand::verdict(servo, "settings")->sentence.text.find("the motor ends") !=
                std::string_view::npos);
        // At that acceleration and the shot's speed all the torque is used.
        DriveModel bare = evaluate(p).axes[0].model;
        VERIFY_NEAR(bare.margin(0.2, 500.0 * v->ratio.value()), 1.0, 1e-6);
        const Assessment now = assess(p);
        const auto fixes = findFixes(p, now, *v, {}, 5, stockInShops());
        QVERIFY(!fixes.empty());
        const auto& mended = std::get<LinearMechanism>(fixes[0].result.axes[0].mechanism).motion;
        QVERIFY(mended.maxAcceleration >= 0.5 && mended.maxAcceleration < 5.0);
        QVERIFY(mended.maxSpeed >= 0.2 && mended.maxSpeed <= 0.3);
        QCOMPARE(hand::verdict(fixes[0].result, "settings")->state, State::Fine);
    }
    /// Flanks of a worm press at 20° square to its thread: what is lost, and whether it can be driven back.
    void wormFlanks() {
        for (const json& c : referenceCases("t59_hot_copper", "worm")) {
            const json& e = c["expected"];
            Project p = carriage();
            WormStage w;
            w.id = "worm";
            w.leadAngle.value = c["inputs"]["lead_angle_deg"].get<double>() * pi / 180.0;
            const auto stage = [&](double friction) {
                w.friction.value = friction;
                p.axes[0].links = {w};
                moves(p, 0.5);
                return evaluate(p).axes[0].model.chain.stages[0];
            };
            VERIFY_NEAR(stage(e["mu"]).efficiency, e["efficiency"].get<double>(), 1e-9);
            VERIFY_NEAR(stage(e["mu"]).backEfficiency, e["back_efficiency"].get<double>(), 1e-9);
            VERIFY_NEAR(stage(c["inputs"]["mu0"]).efficiency, e["efficiency_start"].get<double>(), 1e-9);
            VERIFY_NEAR(stage(c["inputs"]["mu0"]).backEfficiency, e["back_start"].get<double>(), 1e-9);
            // It starts with the friction of flanks that rest, and locks by that of flanks that run.
            w.startFriction.value = c["inputs"]["mu0"];
            VERIFY_NEAR(stage(e["mu"]).startEfficiency, e["efficiency_start"].get<double>(), 1e-9);
            VERIFY_NEAR(stage(e["mu"]).backEfficiency, e["back_efficiency"].get<double>(), 1e-9);
            // Not given, half as much again; less than the running one means nothing.
            w.startFriction.value = 0.0;
            VERIFY_NEAR(stage(0.08).startEfficiency, stage(0.12).efficiency, 1e-12);
            w.startFriction.value = 0.01;
            VERIFY_NEAR(stage(0.08).startEfficiency, stage(0.08).efficiency, 1e-12);
        }
    }
    /// Breaking away through a worm takes the torque of flanks at rest, running that of flanks that run.
    void wormBreaksAway() {
        Project p = carriage();
        WormStage w;
        w.id = "worm";
        w.friction.value = 0.06;
        w.startFriction.value = 0.12;
        p.axes[0].links = {w};
        moves(p, 0.5);
        const DriveModel m = evaluate(p).axes[0].model;
        const double lead = w.leadAngle.value, pressure = std::cos(20.0 * pi / 180.0);
        const auto eta = [&](double mu) {
            return std::tan(lead) / std::tan(lead + std::atan(mu / pressure));
        };
        const auto& belt = std::get<BeltOutput>(hand::rail(p).output);
        const double wheel = 5.0 * belt.teeth * belt.pitch.value / (2 * pi) / belt.efficiency.value;
        VERIFY_NEAR(m.breakawayTorque(), wheel / w.wheelTeeth / eta(0.12), 1e-9);
        VERIFY_NEAR(m.rampTorque(0.0, 0.0), wheel / w.wheelTeeth / eta(0.06), 1e-9);
    }
    /// A pan that leans 10°: 1.6 kg at 30 mm fall to where they point downhill, a quarter turn into the
    /// range.
    void leaningPan() {
        Project p = bareRig(rigs::RigKind::PanTiltHead);
        p.axes.resize(1);
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.payload.clear();
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        MassItem camera;
        camera.id = "camera";
        camera.mass.value = 1.6;
        camera.along = 0.03;
        r.items = {camera};
        r.unbalance.value = 0.0;
        r.spring = {};
        r.range = pi;
        r.lean = {10.0 * pi / 180.0, Source::Measured, 0.0};
        r.downhill = pi / 3;
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{0.5, 0.05, 0.05}}};
        const double weight = 1.6 * 9.80665 * 0.03 * std::sin(10.0 * pi / 180.0);
        // Not measured: nothing of it counts.
        QCOMPARE(evaluate(p).axes[0].model.gravityHigh, 0.0);
        r.leanKnown = true;
        const DriveModel m = evaluate(p).axes[0].model;
        VERIFY_NEAR(m.gravityHigh, weight, 1e-3);                    // a quarter turn past downhill
        VERIFY_NEAR(m.gravityLow, -weight * std::sin(pi / 3), 1e-9); // at the low end
        for (double place = 0.0; place < pi; place += 0.1)
            VERIFY_NEAR(m.lasting.at(m.lowPlace + place) + 1.0, weight * std::sin(place - pi / 3) + 1.0,
                        1e-12);
        r.lowAngle = 0.7; // where a spring is wound from changes nothing of the weight
        const DriveModel turned = evaluate(p).axes[0].model;
        VERIFY_NEAR(turned.lasting.at(turned.lowPlace + 1.0), weight * std::sin(1.0 - pi / 3), 1e-9);
        // A tilt goes by its own angle.
        p.axes[0].role = Role::Tilt;
        r.lowAngle = 0.0;
        VERIFY_NEAR(evaluate(p).axes[0].model.gravityHigh, 1.6 * 9.80665 * 0.03, 1e-3);
    }
    /// Ramps without jerk phases stretch the drive within one frame; a mode of 1 Hz follows over many.
    void driftWithinAFrame() {
        Project p = carriage();
        moves(p, 0.5);
        p.shots[0].frameRate = 25.0;
        p.axes[0].vibration.frequency = {1.0, Source::Measured, 0.0};
        const auto errors = [&] { return evaluate(p).axes[0].shots.at(0).errors; };
        const double stretch = errors().stretch.value();
        QVERIFY(stretch > 0.0);
        VERIFY_NEAR(errors().drift.value(), stretch * std::sin(pi / 25), 1e-9);
        // From half the frame rate on it may swing from one side to the other; then the jerk phase decides.
        p.axes[0].vibration.frequency.value = 40.0;
        VERIFY_NEAR(errors().drift.value(), stretch / 2, 1e-9);
        p.axes[0].vibration.frequency.value = 25.0 / 6;
        VERIFY_NEAR(errors().drift.value(), stretch / 2, 1e-9);
        p.axes[0].vibration.frequency.value = 25.0 / 7;
        QVERIFY(errors().drift.value() < stretch / 2);
    }
    /// A carriage of 5 kg at 0.4 m/s holds 0.4 J and what its motor and pulley hold; near people 0.3 J.
    void nearPeople() {
        Project p = carriage();
        moves(p, 0.5);
        const ShotEvaluation shot = evaluate(p).axes[0].shots.at(0);
        const double speed = shot.motion.topSpeed.value(), energy = shot.motion.energy.value();
        QVERIFY(energy > 0.5 * 5.0 * speed * speed && energy < 0.75 * 5.0 * speed * speed);
        hand::rail(p).motion.maxSpeed = 1.05 * speed;
        QVERIFY(!hand::verdict(p, "near_people")); // nobody is near
        const auto judged = [&](double joules, double fastest) {
            p.conditions.energyNearPeople = joules;
            p.conditions.speedNearPeople = fastest;
            return *hand::verdict(p, "near_people");
        };
        VERIFY_NEAR(judged(0.5 * energy, 0.0).ratio.value(), 0.5, 1e-9);
        QCOMPARE(judged(0.5 * energy, 0.0).state, State::Over);
        QVERIFY(judged(0.5 * energy, 0.0).hazard);
        VERIFY_NEAR(judged(0.0, 0.8 * speed).ratio.value(), 0.8, 1e-9);
        VERIFY_NEAR(judged(1.2 * energy, 0.9 * speed).ratio.value(), 0.9, 1e-9);
        VERIFY_NEAR(judged(0.7 * energy, 2.0 * speed).ratio.value(), 0.7, 1e-9);
        QCOMPARE(judged(0.0, 1.3 * speed).state, State::Fine);
        // The shots keep to it, the settings do not: no worse than tight, and lowering them mends it.
        hand::rail(p).motion.maxSpeed = 1.5 * speed;
        QCOMPARE(judged(0.0, 1.3 * speed).state, State::Tight);
        const Assessment now = assess(p);
        std::vector<Fix> fixes = findFixes(p, now, judged(0.0, 1.3 * speed), {});
        QVERIFY(!fixes.empty());
        QVERIFY(hand::rail(fixes[0].result).motion.maxSpeed <= 1.3 * speed);
        // What turns a lens hurts nobody.
        p.axes[0].role = Role::Focus;
        QVERIFY(!hand::verdict(p, "near_people"));
    }
    /// A hand brings a carriage no faster than its force does within a moment; the motor's inertia counts by
    /// the square of its ratio.
    void pushedByHand() {
        Project p = carriage();
        moves(p, 0.5);
        auto& motor = std::get<Stepper>(p.axes[0].motor);
        motor.detentTorque.value = 0.0;
        p.conditions.handSpeed = 1.0;
        auto& belt = std::get<BeltOutput>(hand::rail(p).output);
        belt.efficiency.value = 1.0;
        belt.pulleyInertia.value = 0.0;
        const double radius = belt.teeth * belt.pitch.value / (2 * pi);
        const AxisEvaluation light = evaluate(p).axes[0];
        VERIFY_NEAR(light.handVoltage.value(),
                    motor.holdingTorque.value / (motor.ratedCurrent.value * 2.0) * 1.0 / radius, 0.5);
        hand::rail(p).movingMass.value = 50.0;
        const double turned = 50.0 + motor.rotorInertia.value / (radius * radius),
                     fastest = (60.0 - 5.0) * 0.3 / turned;
        QVERIFY(fastest < 0.5);
        VERIFY_NEAR(evaluate(p).axes[0].handVoltage.value(), light.handVoltage.value() * fastest, 1e-6);
        // Two motors are both turned.
        belt.motors = 2;
        motor.rotorInertia.value = 1e-3;
        const double both = 50.0 + 2.0 * 1e-3 / (radius * radius);
        VERIFY_NEAR(evaluate(p).axes[0].handVoltage.value(), light.handVoltage.value() * 55.0 * 0.3 / both,
                    1e-6);
        belt.motors = 1;
        // What the belt loses backwards is pushed too.
        belt.efficiency.value = 0.8;
        motor.rotorInertia.value = 1e-3;
        const double heavy = 50.0 + 1e-3 / (radius * radius * (2.0 - 1.0 / 0.8));
        VERIFY_NEAR(evaluate(p).axes[0].handVoltage.value(), light.handVoltage.value() * 55.0 * 0.3 / heavy,
                    1e-6);
    }
    void hotCopper() {
        for (const json& c : referenceCases("t59_hot_copper", "winding")) {
            const json& in = c["inputs"];
            const json& e = c["expected"];
            if (in["mode"] != "current") continue;
            const double amps = in["current_rms"],
                         loss = in["phases"].get<double>() * amps * amps * in["R20"].get<double>();
            const auto warm = motor::hotCopper({loss, in["iron"], in["ambient"], in["Rth_wc"], in["Rth_ca"]});
            QVERIFY(warm.has_value() != e["runaway"].get<bool>());
            if (!warm) continue;
            VERIFY_NEAR(warm->winding, e["winding"].get<double>(), 1e-9);
            VERIFY_NEAR(warm->housing, e["case"].get<double>(), 1e-9);
            VERIFY_NEAR(warm->loss, e["loss"].get<double>(), 1e-9);
            VERIFY_NEAR(warm->resistance * in["R20"].get<double>(), e["resistance"].get<double>(), 1e-9);
        }
        // In a rig that is past whatever a mount stands.
        Project p = carriage();
        moves(p, 0.5);
        auto& motor = std::get<Stepper>(p.axes[0].motor);
        motor.body.thermalResistance.value = 100.0;
        QCOMPARE(evaluate(p).axes[0].checks.caseTemperature.value(), 400.0);
        QCOMPARE(hand::verdict(p, "case_temperature")->state, State::Over);
        // Where a kelvin more makes more heat than a kelvin takes away, it never settles.
        QVERIFY(!motor::hotCopper({50.0, 0.0, 25.0, 0.0, 6.0}));
        QVERIFY(motor::hotCopper({40.0, 0.0, 25.0, 0.0, 6.0}));
    }
};

QTEST_APPLESS_MAIN(FlankTest)
#include "flank_test.moc"
