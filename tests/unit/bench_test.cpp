// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/recipes/recipe.h"
#include "core/rigs/rigs.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <map>
#include <numbers>
#include <set>

using namespace gantry;

/// Recipes to measure inputs, and what people were told against the parts.
class BenchTest : public QObject {
    Q_OBJECT
    static double measured(std::string_view id, const std::vector<double>& readings) {
        for (const recipes::Recipe& r : recipes::all())
            if (r.id == id) return r.value(readings);
        return std::nan("");
    }
private slots:
    void everyRecipeServesARealField() {
        std::set<std::string> keys;
        for (const rigs::RigInfo& info : rigs::all()) {
            Project p = rigs::make(info.kind);
            for (const FieldRef& f : allFields(p)) keys.insert(f.path.substr(f.path.rfind('/') + 1));
        }
        // Some kinds of links and outputs stand in no starting rig.
        Project every = rigs::make(rigs::RigKind::BeltSlider);
        for (std::size_t i = 0; i < kindsOf<Link>().size(); ++i) addLink(every, 0, i);
        for (std::size_t i = 0; i < kindsOf<LinearOutput>().size(); ++i) {
            std::get<LinearMechanism>(every.axes[0].mechanism).output = makeKind<LinearOutput>(i);
            for (const FieldRef& f : allFields(every)) keys.insert(f.path.substr(f.path.rfind('/') + 1));
        }
        std::set<std::string_view> ids;
        for (const recipes::Recipe& r : recipes::all()) {
            QVERIFY2(keys.contains(std::string(r.field)), std::string(r.field).c_str());
            QVERIFY(ids.insert(r.id).second && r.steps.size() > 40 && !r.readings.empty());
            std::vector<double> start;
            for (const auto& reading : r.readings) start.push_back(reading.start);
            QVERIFY2(std::isfinite(r.value(start)) && r.value(start) > 0, std::string(r.id).c_str());
        }
        // Whatever can fall, spin or burn is said first.
        for (const char* id : {"friction-angle", "static-angle", "holding-arm", "heat-rise", "inertia-swing"})
            QVERIFY(std::any_of(recipes::all().begin(), recipes::all().end(),
                                [&](const auto& r) { return r.id == id && !r.precaution.empty(); }));
        QCOMPARE(recipes::forField("axes/slide/mechanism/running_friction_N").size(), std::size_t(2));
    }
    void recipesByHand() {
        VERIFY_NEAR(measured("friction-angle", {4.1, 5 * std::numbers::pi / 180}), 4.1 * 9.80665 * 0.0871557,
                    1e-6);
        VERIFY_NEAR(measured("pitch-50", {0.1016, 50}), 0.002032, 1e-9);
        VERIFY_NEAR(measured("lead-turns", {0.08, 10}), 0.008, 1e-12);
        VERIFY_NEAR(measured("belt-tone", {87, 0.4, 0.0085}), 41.17536, 1e-9);
        VERIFY_NEAR(measured("resistance-meter", {1.7, 0.2}), 1.5, 1e-12);
        VERIFY_NEAR(measured("current-sense", {0.1697, 0.1}), 1.2, 1e-3);
        VERIFY_NEAR(measured("speed-timed", {15, 30}), std::numbers::pi, 1e-12);
        VERIFY_NEAR(measured("slope-heights", {0.5, 1.0}), std::numbers::pi / 6, 1e-12);
        VERIFY_NEAR(measured("drum-turns", {std::numbers::pi * 0.0415 * 8, 8, 0.0015}), 0.04, 1e-12);
    }
    void stiffnessAndLossRecipesByHand() {
        // 5 N on 50 mm give 0.25 N·m; three turns lift it to 0.75 if nothing is lost, 0.72 arrive.
        VERIFY_NEAR(measured("efficiency-two-scales", {5, 0.05, 9, 0.08, 3}), 0.96, 1e-12);
        // EA of 9806.65 N stretches a metre by 2 mm under 2 kg.
        VERIFY_NEAR(measured("belt-stretch", {2, 1, 0.002}), 9806.65, 1e-12);
        VERIFY_NEAR(measured("stiffness-arm", {10, 0.1, 0.003, 0.3}), 100.0, 1e-12);
        VERIFY_NEAR(measured("stiffness-push", {20, 2e-5}), 1e6, 1e-12);
        VERIFY_NEAR(measured("module-over-tips", {0.022, 20}), 0.001, 1e-12);
        VERIFY_NEAR(measured("friction-board", {std::numbers::pi / 4}), 1.0, 1e-12);
        VERIFY_NEAR(measured("unbalance-scale", {1.0, 1.4, 0.2}), 0.24, 1e-12);
        VERIFY_NEAR(measured("source-two-loads", {24.2, 0.2, 23.9, 2.2}), 0.15, 1e-9);
    }
    /// A thin bar of known inertia m l²/12 swings on two strings with the period of its own small-angle
    /// equation.
    void swingingBar() {
        const double m = 0.8, l = 0.6, d = 0.4, strings = 0.7;
        // Restoring torque m g d² θ / (4 L) on inertia m l²/12.
        const double period =
            2 * std::numbers::pi * std::sqrt(m * l * l / 12 / (m * 9.80665 * d * d / (4 * strings)));
        VERIFY_NEAR(measured("inertia-swing", {m, d, strings, 10 * period}), m * l * l / 12, 1e-9);
    }
    void stepsAreExplained() {
        const Project p = demoProject();
        const auto f = crosscheck::explainSteps(p, p.axes[0], 100.0);
        QCOMPARE(f.computed.value(), 80.0);
        VERIFY_NEAR(f.movesForOne, 1.25, 1e-12); // 100 pulses move 1.25 mm
        QVERIFY(!f.suspects.empty());
        QVERIFY(f.suspects[0].what.find("16 teeth") != std::string::npos);
        VERIFY_NEAR(f.suspects[0].testMove, 100.0, 1e-9);
        // 2 mm against 2.032 mm: the test move tells them apart.
        const auto pitch = crosscheck::explainSteps(p, p.axes[0], 80.0 * 0.002 / 0.002032);
        QVERIFY(std::any_of(pitch.suspects.begin(), pitch.suspects.end(),
                            [](const auto& s) { return s.what.find("2.032") != std::string::npos; }));
        QVERIFY(crosscheck::explainSteps(p, p.axes[0], 80.0).suspects.empty());
        QVERIFY(crosscheck::explainSteps(p, p.axes[0], 2032.0).suspects[0].what.find("inches") !=
                std::string::npos);
    }
    void claimsAreReadFromText() {
        const auto claims =
            crosscheck::readClaims("steps/mm = 160\n\ncurrent: 2.4 A\nTop speed 15000\nacceleration=800 "
                                   "mm/s2\nholding torque: 57 oz in\nfoo 3\nno number\n",
                                   AxisKind::Linear);
        QCOMPARE(claims.size(), std::size_t(6));
        QCOMPARE(claims[0].subject, crosscheck::Subject::StepsPerUnit);
        QCOMPARE(claims[0].value, 160.0);
        QCOMPARE(claims[1].value, 2.4);
        QCOMPARE(claims[2].value, 15000.0);
        VERIFY_NEAR(claims[3].value, 800.0, 1e-9);
        VERIFY_NEAR(claims[4].value, 0.4025, 1e-3);
        QCOMPARE(claims[5].subject, crosscheck::Subject::Unknown);
    }
    void claimsAreJudged() {
        const Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto judge = [&](crosscheck::Subject s, double v) {
            return crosscheck::judge(p, p.axes[0], e, {s, v, ""});
        };
        QVERIFY(judge(crosscheck::Subject::Current, 1.2).plausible);
        const auto peak = judge(crosscheck::Subject::Current, 1.7 * std::numbers::sqrt2);
        QVERIFY(!peak.plausible && peak.sentence.find("peak") != std::string::npos);
        // 250 mm/s is 15000 mm/min.
        const auto minutes = judge(crosscheck::Subject::TopSpeed, 15000);
        QVERIFY(!minutes.plausible && minutes.sentence.find("per minute") != std::string::npos);
        QVERIFY(judge(crosscheck::Subject::TopSpeed, 300).plausible);
        QVERIFY(!judge(crosscheck::Subject::OutputTorque, 1e3).plausible);
        QVERIFY(!judge(crosscheck::Subject::Power, 500).plausible);
        QVERIFY(!judge(crosscheck::Subject::StepsPerUnit, 160).plausible);
        QVERIFY(judge(crosscheck::Subject::StepsPerUnit, 80).plausible);
        // Torque times ratio without the efficiency.
        const Project head = rigs::make(rigs::RigKind::PanTiltHead);
        const AxisEvaluation pan = evaluateAxis(head, head.axes[0]);
        const auto torque = crosscheck::judge(
            head, head.axes[0], pan, {crosscheck::Subject::OutputTorque, pan.model.available(0) * 16, ""});
        QVERIFY(!torque.plausible && torque.sentence.find("efficiency") != std::string::npos);
    }
};

QTEST_APPLESS_MAIN(BenchTest)
#include "bench_test.moc"
