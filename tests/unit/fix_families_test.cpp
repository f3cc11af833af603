// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>
#include <functional>
#include <set>

using namespace gantry;

namespace {

using Values = std::vector<std::pair<std::string, double>>;

/// One family of fixes, on a rig where it is wanted. Rigs are demos or rigs to start from, with a few fields
/// put to where a builder could have them.
struct Case {
    const char* rig;
    Values values;
    std::function<void(Project&)> change; ///< what no field alone can say
    const char* rule;
    const char* axis;
    const char* offered; ///< words that only this family's fix has
};

Project rigOf(const char* name) {
    for (const rigs::RigInfo& info : rigs::all())
        if (info.key == name) return rigs::make(info.kind);
    return demoProject(name);
}

LinearMechanism& linear(Project& p, std::size_t axis = 0) {
    return std::get<LinearMechanism>(p.axes[axis].mechanism);
}

/// A slide driven by a small geared motor on a knob.
void onAKnob(Project& p) {
    GearedDc motor;
    motor.control = SpeedControl::Knob;
    motor.knob = 0.5;
    p.axes[0].motor = motor;
    p.axes[0].driver.maxCurrent = 10.0;
    linear(p).motion.maxSpeed = 1.0;
    p.shots.resize(1);
    p.shots[0].keepFramed = false;
}

/// One live shot of the first axis by speed and acceleration.
std::function<void(Project&)> driven(double distance, double speed, double acceleration) {
    return [=](Project& p) {
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.shots[0].kind = ShotKind::Live;
        p.controller.ramps = RampKind::Trapezoid;
        if (kindOf(p.axes[0]) == AxisKind::Linear) {
            auto& motion = linear(p).motion;
            motion.maxSpeed = std::max(motion.maxSpeed, 2.0 * speed);
            motion.maxAcceleration = std::max(motion.maxAcceleration, 2.0 * acceleration);
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{distance, speed, acceleration}}};
        } else {
            auto& motion = std::get<RotaryMechanism>(p.axes[0].mechanism).motion;
            motion.maxSpeed = std::max(motion.maxSpeed, 2.0 * speed);
            motion.maxAcceleration = std::max(motion.maxAcceleration, 2.0 * acceleration);
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{distance, speed, acceleration}}};
        }
    };
}

const std::vector<Case> cases{
    // A number that was typed, and people in the way.
    {"belt-slider",
     {},
     [](Project& p) { p.axes[0].told = {"steps/mm = 100"}; },
     "steps_set",
     "slide",
     "set 80 steps per mm"},
    // A pull that the drive has not enough torque for, mended at the motor, the shot, the gearing, the
    // supply.
    {"fernhouse-dolly",
     {{"axes/slide/driver/run_current_rms_A", 0.12}},
     {},
     "torque",
     "slide",
     "run current"},
    {"belt-slider", {{"shots/reveal/moves/slide/movement/time_s", 30}}, onAKnob, "torque", "slide", "knob"},
    {"belt-slider", {}, driven(0.4, 0.2, 8.0), "torque", "slide", "mm/s²"},
    {"fernhouse-dolly",
     {{"axes/slide/mechanism/output/tensile_stiffness_N", 3000},
      {"axes/slide/mechanism/output/pulley_inertia_kgm2", 0.0005}},
     {},
     "torque",
     "slide",
     "mm/s"},
    {"belt-slider", {{"axes/slide/mechanism/cable_drag_N", 25}}, {}, "torque", "slide", "pulley with"},
    {"jib-crane", {{"axes/swing/driver/run_current_rms_A", 0.06}}, {}, "torque", "swing", "belt reduction"},
    {"winched-cart",
     {{"shots/climb/moves/cart/movement/time_s", 12},
      {"axes/cart/mechanism/cable_drag_N", 10},
      {"axes/cart/driver/max_voltage_V", 40}},
     {},
     "torque",
     "cart",
     "supply of"},
    // What falls or creeps.
    {"fernhouse-dolly", {}, {}, "power_off", "slide", "brake of"},
    {"here-is-what-i-have",
     {{"axes/slide/mechanism/slope_rad", 0.79}},
     {},
     "emergency_stop",
     "slide",
     "brake of"},
    {"fernhouse-dolly",
     {},
     [](Project& p) { p.axes[0].onStop = OnStop::CutsCurrent; },
     "emergency_stop",
     "slide",
     "keeps the holding"},
    {"jib-crane", {{"axes/swing/mechanism/unbalance_Nm", 16}}, {}, "standstill", "swing", "hold current"},
    {"jib-crane",
     {{"axes/swing/mechanism/unbalance_Nm", 1}, {"axes/swing/driver/hold_current_rms_A", 0.06}},
     {},
     "standstill",
     "swing",
     "belt reduction"},
    {"fernhouse-dolly",
     {{"axes/slide/mechanism/moving_mass_kg", 12}},
     {},
     "standstill",
     "slide",
     "pulley with"},
    // Heat.
    {"lift-column", {{"conditions/ambient_C", 35}}, {}, "case_temperature", "lift", "run current"},
    {"belt-slider",
     {{"conditions/ambient_C", 30}},
     [](Project& p) {
         std::visit([](auto& m) { m.body.mount = MountMaterial::PrintedPla; }, p.axes[0].motor);
     },
     "case_temperature",
     "slide",
     "metal"},
    {"moss-orbit", {{"axes/orbit/motor/rated_torque_Nm", 0.075}}, {}, "duty", "orbit", "belt reduction"},
    {"moss-orbit", {{"shots/orbit/moves/orbit/movement/distance_rad", 26}}, {}, "duty", "orbit", "” in "},
    {"belt-slider",
     {{"axes/slide/mechanism/running_friction_N", 1}, {"axes/slide/mechanism/static_friction_N", 1}},
     [](Project& p) {
         driven(0.3, 0.5, 4.0)(p);
         DcServo motor;
         motor.figures.ratedTorque.value = 0.12;
         p.axes[0].motor = motor;
     },
     "duty",
     "slide",
     "mm/s²"},
    // Pulses, steps, speeds.
    {"fernhouse-dolly",
     {{"axes/slide/mechanism/output/doubled", 1}},
     {},
     "pulse_rate",
     "slide",
     "pulley with"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "microsteps"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "controller with"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "” in "},
    {"moss-orbit",
     {{"shots/orbit/moves/orbit/movement/distance_rad", 26}},
     {},
     "motor_speed",
     "orbit",
     "” in "},
    {"moss-orbit",
     {{"axes/orbit/motor/nominal_voltage_V", 36}, {"axes/orbit/motor/no_load_current_A", 1}},
     {},
     "motor_speed",
     "orbit",
     "supply of"},
    {"belt-slider",
     {{"shots/reveal/moves/slide/movement/time_s", 30}},
     onAKnob,
     "motor_speed",
     "slide",
     "knob"},
    {"stop-motion-stage", {{"axes/stage/mechanism/rail_length_m", 4}}, {}, "whirl", "stage", "” in "},
    {"fernhouse-dolly",
     {{"shots/creep/moves/slide/movement/speed_m_s", 0.0031}},
     {},
     "resonance",
     "slide",
     "mm/s"},
    {"winched-cart", {{"axes/cart/mechanism/output/drum_width_m", 0.02}}, {}, "layers", "cart", "drum"},
    {"winched-cart", {{"axes/cart/mechanism/output/drum_width_m", 0.02}}, {}, "layers", "cart", "both ways"},
    {"winched-cart",
     {{"axes/cart/mechanism/output/drum_width_m", 0.02},
      {"axes/cart/mechanism/output/flange_diameter_m", 0.05}},
     {},
     "drum_room",
     "cart",
     "drum"},
    {"winched-cart",
     {{"axes/cart/links/cart-belt/preload_N", 4}},
     {},
     "belt_preload",
     "cart",
     "belt tension"},
    {"belt-slider",
     {{"shots/reveal/moves/slide/movement/time_s", 6}},
     [](Project& p) { p.controller.ramps = RampKind::None; },
     "start",
     "slide",
     "ramps"},
    {"belt-slider", {{"supply/rated_current_A", 0.1}}, {}, "supply", "slide", "supply rated"},
    {"kettle-jib", {{"axes/boom/driver/microsteps", 6}}, {}, "stepping", "boom", "microsteps"},
    {"jib-crane", {}, {}, "stepping", "swing", "belt reduction"},
    {"jib-crane", {}, {}, "stepping", "swing", "” in "},
    {"kettle-jib", {{"axes/boom/driver/microsteps", 6}}, {}, "jitter", "boom", "microsteps"},
    {"jib-crane", {}, {}, "jitter", "swing", "belt reduction"},
    {"jib-crane", {}, {}, "jitter", "swing", "” in "},
    {"wheel-dolly",
     {{"controller/decimals_kept", 2}, {"axes/dolly/motor/rotor_teeth", 10}},
     {},
     "rounding",
     "dolly",
     "microsteps"},
    {"wheel-dolly",
     {{"controller/decimals_kept", 2}, {"axes/dolly/motor/rotor_teeth", 10}},
     {},
     "rounding",
     "dolly",
     "decimals"},
    // The shot and its picture.
    {"fernhouse-dolly", {}, {}, "drift", "pan", "with ramps of"},
    {"fernhouse-dolly", {}, {}, "judder", "slide", "mm/s"},
    {"fernhouse-dolly", {}, {}, "judder", "slide", "subject at"},
    {"fernhouse-dolly", {}, {}, "vibration", "slide", "mm/s²"},
    {"fernhouse-dolly", {}, {}, "vibration", "slide", "mm/s³"},
    {"fernhouse-dolly",
     {{"axes/slide/mechanism/rail_length_m", 1.05}},
     {},
     "stopping",
     "slide",
     "at 240 mm/s"},
    {"kettle-jib",
     {{"axes/swing/motor/mass_kg", 0.35}, {"shots/over/moves/swing/movement/ease_out_s", 3.3}},
     {},
     "ease",
     "swing",
     "with ramps of"},
    {"winched-cart",
     {{"axes/cart/mechanism/motion/max_speed_m_s", 0.04}},
     {},
     "settings",
     "cart",
     "speed setting"},
    {"winched-cart", {{"shots/climb/moves/cart/movement/time_s", 12}}, {}, "settings", "cart", "” in "},
    {"fernhouse-dolly", {{"shots/rise/limits/repeat_px", 0.3}}, {}, "repeat", "slide", "hold current"},
    {"fernhouse-dolly", {}, {}, "vibration", "slide", "at 200 mm/s"},
    {"belt-slider",
     {{"controller/decimals_kept", 0}, {"axes/slide/mechanism/output/teeth", 18}},
     {},
     "rounding",
     "slide",
     "pulley with 16 teeth"}, // 3200 steps on 32 mm are 100 a millimetre
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.4, 0.024, 0.5)(p);
         p.conditions.silence = Silence::Quiet;
     },
     "noise",
     "slide",
     "mm/s"}, // below a hundred full steps a second it is soft enough
    // Parts and structure.
    {"orbit-boom", {{"axes/orbit/mechanism/unbalance_Nm", 14}}, {}, "tooth_strength", "orbit", "wide"},
    {"kettle-jib", {{"axes/boom/mechanism/boom/reach_m", 1.97}}, {}, "sag", "boom", "section"},
    {"kettle-jib",
     {{"axes/boom/mechanism/boom/section/wall_m", 0.0002}},
     {},
     "beam_strength",
     "boom",
     "section"},
    {"kettle-jib", {{"axes/boom/mechanism/boom/rear_m", 1.6}}, {}, "balance", "boom", "behind"},
    {"moss-orbit", {{"base/tethered", 0}}, {}, "tether", "orbit", "tether"},
    {"belt-slider",
     {{"axes/slide/mechanism/static_friction_N", 2}, {"axes/slide/mechanism/running_friction_N", 2}},
     driven(0.4, 0.3, 4.0),
     "tooth_strength",
     "slide",
     "mm/s²"},
    {"wheel-dolly",
     {{"axes/dolly/mechanism/static_friction_N", 3}, {"axes/dolly/mechanism/running_friction_N", 3}},
     driven(0.6, 0.3, 1.2),
     "grip",
     "dolly",
     "mm/s²"},
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.4, 0.1, 0.5)(p);
         p.conditions.silence = Silence::Quiet;
         p.conditions.microphoneDistance = 3.5;
         p.axes[0].driver.microsteps = 2;
     },
     "noise",
     "slide",
     "microsteps"},
    {"belt-slider",
     {},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.45;
         linear(p).rail.secondStand = 0.55;
     },
     "rail_tipping",
     "slide",
     "stands at 112 mm"}, // half of what is left to the end, and half again
    {"belt-slider",
     {{"axes/slide/mechanism/rail/clamp_bolts", 1},
      {"axes/slide/mechanism/rail/clamp_spacing_m", 0.02},
      {"axes/slide/mechanism/rail/clamp_bolt_limit_N", 20}},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.3;
         linear(p).rail.secondStand = 0.7;
     },
     "rail_clamps",
     "slide",
     "bolts"},
    {"belt-slider",
     {{"axes/slide/mechanism/rail/clamp_bolts", 2},
      {"axes/slide/mechanism/rail/clamp_spacing_m", 0.05},
      {"axes/slide/mechanism/rail/clamp_bolt_limit_N", 30}},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.4;
         linear(p).rail.secondStand = 0.6;
     },
     "rail_clamps",
     "slide",
     "stands at"},
    {"kettle-jib",
     {{"axes/boom/mechanism/boom/pivot/pin_diameter_m", 0.003}},
     {},
     "pivot",
     "boom",
     "pivot pin"},
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.6, 0.4, 0.5)(p);
         ServoMotor servo;
         servo.loop.followingLimit = 0.1;
         p.axes[0].motor = servo;
     },
     "following",
     "slide",
     "mm/s"},
};

} // namespace

/// Each family of fixes on a rig that wants it: it is offered, it does what it says when the changed rig is
/// assessed afresh, and it leaves fields alone that the builder has locked.
class FixFamiliesTest : public QObject {
    Q_OBJECT

    static const Verdict* verdictIn(const Assessment& a, const Project& p, std::string_view rule,
                                    std::string_view axis) {
        const auto it = std::find_if(a.verdicts.begin(), a.verdicts.end(), [&](const Verdict& v) {
            return ruleKey(v) == rule && p.axes[static_cast<std::size_t>(v.axis)].id == axis;
        });
        return it == a.verdicts.end() ? nullptr : &*it;
    }
    static bool better(State after, State before) {
        const auto rank = [](State s) {
            return s == State::Over      ? 4
                   : s == State::AtRisk  ? 3
                   : s == State::Unknown ? 2
                   : s == State::Tight   ? 1
                                         : 0;
        };
        return rank(after) < rank(before);
    }
    static Project projectOf(const Case& c) {
        Project p = rigOf(c.rig);
        if (c.change) c.change(p);
        for (const auto& [path, value] : c.values)
            if (!setNumberAt(p, path, value)) qFatal("no field %s", path.c_str());
        return p;
    }

private slots:
    /// No rule is silent on all of these rigs, so that none can be lost unnoticed.
    void everyRuleSpeaks() {
        std::vector<Project> all;
        for (const rigs::RigInfo& info : rigs::all()) all.push_back(rigs::make(info.kind));
        for (const char* demo : {"fernhouse-dolly", "kettle-jib", "moss-orbit"})
            all.push_back(demoProject(demo));
        for (const Case& c : cases) all.push_back(projectOf(c));
        const auto slider = [&](auto change) {
            Project p = rigOf("belt-slider");
            change(p);
            all.push_back(p);
        };
        slider([](Project& p) {
            p.conditions.weightBudget = p.conditions.moneyBudget = 1.0;
            p.axes[0].price = 5.0;
            linear(p).guide.kind = GuideKind::PlainRods;
            linear(p).guide.pushOffset = 0.05;
            linear(p).runningFriction.value = 0.001;
            linear(p).panBar.fitted = true;
        });
        slider([](Project& p) {
            GearedDc motor;
            motor.control = SpeedControl::LinearRegulator;
            p.axes[0].motor = motor;
        });
        slider([](Project& p) { p.axes[0].motor = HobbyServo{}; });
        slider([](Project& p) {
            driven(0.3, 0.1, 1.0)(p);
            p.shots[0].towards = true;
            Axis focus = rigOf("pan-tilt-head").axes[0];
            focus.id = "focus";
            focus.role = Role::Focus;
            std::get<RotaryMechanism>(focus.mechanism).output = LensRingOutput{};
            p.axes.push_back(focus);
        });
        slider([](Project& p) {
            driven(0.3, 0.1, 1.0)(p);
            p.shots[0].towards = true;
        });
        slider([](Project& p) {
            onAKnob(p);
            driven(0.3, 0.1, 1.0)(p);
            p.shots.push_back(p.shots[0]);
            p.shots[1].id = "creep";
            std::get<BySpeed<AxisKind::Linear>>(p.shots[1].moves[0].movement).speed = 0.0005;
            // A head that weighs more than all that is said to move.
            Axis pan = rigOf("pan-tilt-head").axes[0];
            pan.id = "head";
            MassItem camera;
            camera.id = "camera";
            camera.mass.value = 20.0;
            camera.along = 0.02;
            std::get<RotaryMechanism>(pan.mechanism).items.push_back(camera);
            p.axes.push_back(pan);
        });
        slider([](Project& p) {
            p.axes[0].told = {"90000 N", "power 900 W", "steps/mm = 3"};
            p.supply.ratedCurrent = 1.0;
            p.conditions.energyNearPeople = 0.001;
        });
        std::set<std::string> silent;
        for (const rules::Rule* r : rules::all()) silent.insert(std::string(r->key()));
        for (const Project& p : all)
            for (const Verdict& v : judge(p, evaluate(p))) {
                silent.erase(std::string(ruleKey(v)));
                // The rule owns every sentence that it says.
                const auto own = ruleOf(v).sentences;
                QVERIFY2(!v.ratio || std::find(own.begin(), own.end(), v.sentence) != own.end(),
                         std::string(v.sentence.text).c_str());
            }
        QVERIFY2(silent.empty(),
                 [&] {
                     std::string list;
                     for (const std::string& s : silent) list += s + ' ';
                     return list;
                 }()
                     .c_str());
    }
    /// What lies on the shelf needs no buying, and without a shop there is only the shelf.
    void onTheShelf() {
        const Project p = demoProject();
        const Assessment now = assess(p);
        const Verdict* v = verdictIn(now, p, "power_off", "slide");
        QVERIFY(v != nullptr);
        const auto brakeFrom = [&](const parts::Sources& stock) -> std::optional<Fix> {
            for (const Fix& f : findFixes(p, now, *v, {}, 30, stock))
                if (f.result.axes[0].brake.fitted) return f;
            return std::nullopt;
        };
        const auto bought = brakeFrom(stockInShops());
        QVERIFY(bought && bought->cost == FixCost::ToBuy);
        const double torque = bought->result.axes[0].brake.holdingTorque.value;
        const std::vector<parts::Part> shelf{
            {"brake", "from the old jib", 1, 0.0, {}, {{"holding_torque_Nm", torque}}, {}}};
        const auto owned = brakeFrom({shippedParts(), shelf});
        QVERIFY(owned && owned->cost == FixCost::PartOnHand);
        QCOMPARE(owned->result.axes[0].brake.holdingTorque.value, torque);
        QVERIFY(brakeFrom({{}, shelf}));
        QVERIFY(!brakeFrom({}));
    }
    /// The same of a profile and a pin.
    void profilesOnTheShelf() {
        Project p = hand::slider();
        hand::rail(p).rail.section.width = hand::rail(p).rail.section.height = 0.02;
        hand::rail(p).railLength = 3.0;
        hand::rail(p).rail.secondStand = 3.0;
        const Assessment now = assess(p);
        const Verdict* v = nullptr;
        for (const Verdict& each : now.verdicts)
            if (ruleKey(each) == "sag" || ruleKey(each) == "beam_strength")
                if (mendable(each.state)) v = &each;
        QVERIFY(v != nullptr);
        const auto sectionFrom = [&](const parts::Sources& stock) -> std::optional<Fix> {
            for (const Fix& f : findFixes(p, now, *v, {}, 30, stock))
                if (sectionOf(f.result.axes[0]) != sectionOf(p.axes[0])) return f;
            return std::nullopt;
        };
        const auto bought = sectionFrom(stockInShops());
        QVERIFY(bought && bought->cost == FixCost::ToBuy);
        const Section& s = sectionOf(bought->result.axes[0]);
        const std::vector<parts::Part> shelf{{"section",
                                              "left over",
                                              1,
                                              0.0,
                                              {},
                                              {{"width_m", s.width}, {"height_m", s.height}},
                                              {{"shape", "hollow_rectangle"}}}};
        const auto owned = sectionFrom({shippedParts(), shelf});
        QVERIFY(owned && owned->cost == FixCost::PartOnHand);
        QVERIFY(sectionOf(owned->result.axes[0]) == s);
    }
    void offered_data() {
        QTest::addColumn<int>("row");
        for (std::size_t i = 0; i < cases.size(); ++i)
            QTest::addRow("%s: %s, %s", cases[i].rule, cases[i].offered, cases[i].rig) << static_cast<int>(i);
    }
    void offered() {
        QFETCH(int, row);
        const Case& c = cases[static_cast<std::size_t>(row)];
        const Project p = projectOf(c);
        const Assessment now = assess(p);
        const Verdict* v = verdictIn(now, p, c.rule, c.axis);
        QVERIFY2(v != nullptr, "no such verdict");
        const std::string stands =
            std::string(stateWord(v->state)) + ' ' + std::to_string(v->ratio.valueOr(0));
        QVERIFY2(mendable(v->state) || v->state == State::Unknown, stands.c_str());
        const auto fitting = [&](const Project& with) {
            std::vector<Fix> all = findFixes(with, assess(with), *v, {}, 30, stockInShops());
            std::erase_if(all, [&](const Fix& f) {
                return describe(f, with, units::System::Metric).find(c.offered) == std::string::npos;
            });
            return all;
        };
        const std::vector<Fix> found = fitting(p);
        std::string others;
        if (found.empty())
            for (const Fix& f : findFixes(p, now, *v, {}, 30, stockInShops()))
                others += describe(f, p, units::System::Metric) + "; ";
        QVERIFY2(!found.empty(), (stands + ", offered are: " + others).c_str());
        const Fix& fix = found.front();
        const Assessment after = assess(fix.result);
        const Verdict* mended = verdictIn(after, fix.result, c.rule, c.axis);
        QCOMPARE(fix.stateAfter, mended != nullptr ? mended->state : State::Fine);
        QVERIFY(better(fix.stateAfter, v->state));
        const auto tried = ruleOf(*v).fixes;
        QVERIFY(std::any_of(tried.begin(), tried.end(), [&](const fixes::Family* family) {
            return std::find(family->labels.begin(), family->labels.end(), fix.steps[0].label) !=
                   family->labels.end();
        }));
        // What was computed in trying it is kept, and is what computing it afresh gives.
        QCOMPARE(fix.after.verdicts.size(), after.verdicts.size());
        for (std::size_t i = 0; i < after.verdicts.size(); ++i) {
            QCOMPARE(ruleKey(fix.after.verdicts[i]), ruleKey(after.verdicts[i]));
            QCOMPARE(fix.after.verdicts[i].low, after.verdicts[i].low);
        }
        if (mended != nullptr) QCOMPARE(fix.ratioAfter, mended->ratio.value());
        // With the fields that it touches locked, no fix that is still offered touches any of them.
        const std::vector<std::string> touched = changedFields(p, fix.result);
        if (touched.empty()) { // what was told is no field, and nothing locks it
            QVERIFY(fix.result.axes[0].told != p.axes[0].told);
            return;
        }
        Project locked = p;
        locked.lockedFields = touched;
        for (const Fix& f : findFixes(locked, assess(locked), *v, {}, 30, stockInShops()))
            for (const std::string& path : changedFields(p, f.result))
                QVERIFY2(std::find(touched.begin(), touched.end(), path) == touched.end(), path.c_str());
    }
};

QTEST_APPLESS_MAIN(FixFamiliesTest)
#include "fix_families_test.moc"
