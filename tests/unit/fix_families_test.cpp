// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/fix_cases.h"
#include "support/hand_rigs.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>
#include <functional>
#include <set>

using namespace gantry;

using namespace fixcases;

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

private slots:
    /// No rule is silent on all of these rigs, so that none can be lost unnoticed.
    void everyRuleSpeaks() {
        std::vector<Project> all;
        for (const rigs::RigInfo& info : rigs::all()) all.push_back(bareRig(info.kind));
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
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
        Project aimless = demoProject();
        moved(aimless, 0.1, 0.5, 5.0);
        aimless.moves[0].poses[1].arrive.kind = SegmentKind::Aimed;
        linear(aimless).motion.speeds = {{"1", 0.05}};
        all.push_back(aimless);
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
    /// A gearhead of another size does not go on the motor's bolts; 23 and 24 share theirs.
    void gearheadsBoltOn() {
        Project p = rigOf("jib-crane");
        p.axes[1].driver.runCurrent = 0.3;
        for (const auto& [name, size] :
             {std::pair{"Size 23, 56 mm", " 23"}, {"stepper size 24", " 23"}, {"Size 17, 60 mm", " 17"}}) {
            std::get<Stepper>(p.axes[1].motor).name = name;
            const Assessment now = assess(p);
            const Verdict* v = verdictIn(now, p, "torque", "boom");
            QVERIFY(v != nullptr);
            QVERIFY2(v->state == State::Over, std::string(stateWord(v->state)).c_str());
            int offered = 0;
            for (const Fix& f : findFixes(p, now, *v, {}, 30, stockInShops())) {
                const std::string text = describe(f, p, units::System::Metric);
                const auto at = text.find("“Planetary size");
                if (at == std::string::npos) continue;
                ++offered;
                QCOMPARE(text.substr(at + std::string("“Planetary size").size(), 3), std::string(size));
            }
            QVERIFY2(offered > 0, name);
        }
    }
    /// A search that is told to stop begins with nothing, and one that is let go on does.
    void stops() {
        const Project p = demoProject();
        const Assessment now = assess(p);
        const Verdict* v = verdictIn(now, p, "power_off", "slide");
        QVERIFY(v != nullptr && v->state == State::Over);
        std::stop_source source;
        QVERIFY(!findFixes(p, now, *v, source.get_token(), 30, stockInShops()).empty());
        source.request_stop();
        QVERIFY(findFixes(p, now, *v, source.get_token(), 30, stockInShops()).empty());
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
