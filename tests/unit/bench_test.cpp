// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/recipes/recipe.h"
#include "core/rigs/rigs.h"
#include "support/files.h"
#include "support/near.h"
#include "support/told.h"

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
    /// Each recipe by its own physics, worked out beside the program: what the readings that are offered at
    /// first give, and what another set gives.
    void recipesByHand() {
        struct Row {
            std::string_view id;
            double first;
            std::vector<double> readings;
            double value, tolerance;
        };
        const Row rows[] = {
            {"friction-scale", 3, {4.4}, 4.4, 0.15},
            {"friction-angle", 1.470385, {2.2, 0.08}, 1.72413, 0.1},
            {"static-angle", 2.057715, {2.2, 0.12}, 2.582747, 0.15},
            {"static-scale", 4, {6.1}, 6.1, 0.2},
            {"friction-torque", 0.1, {0.7, 0.16}, 0.112, 0.15},
            {"inertia-swing", 0.007154074, {1.8, 0.24, 0.7, 14.5}, 0.01933899, 0.05},
            {"mass-scales", 3, {1.1, 0.7}, 1.8, 0.02},
            {"slope-heights", 0.2013579, {0.35, 1.2}, 0.2959688, 0.02},
            {"pitch-50", 0.002, {0.1016, 50}, 0.002032, 0.002},
            {"drum-turns", 0.03828874, {2.5, 10, 0.002}, 0.07757747, 0.01},
            {"cord-side-by-side", 0.0015, {0.05, 25}, 0.002, 0.05},
            {"lead-turns", 0.008, {0.1, 5}, 0.02, 0.005},
            {"backlash-marks", 0.0001, {0.00023}, 0.00023, 0.2},
            {"backlash-arm", 0.003333333, {0.0015, 0.25}, 0.006, 0.15},
            {"resistance-meter", 1.5, {2.9, 0.3}, 2.6, 0.03},
            {"ratio-turns", 50, {51, 4}, 12.75, 0},
            {"gearmotor-turns", 100, {57, 2}, 28.5, 0},
            {"speed-timed", 3.141593, {40, 25}, 10.0531, 0.03},
            {"current-sense", 1.202082, {0.25, 0.11}, 1.607061, 0.05},
            {"belt-tone", 34.816, {65, 0.55, 0.012}, 61.347, 0.1},
            {"holding-arm", 0.4, {5.5, 0.12}, 0.66, 0.1},
            {"detent-arm", 0.01569064, {0.035, 0.06}, 0.02059397, 0.2},
            {"heat-rise", 9.333333, {61, 19, 1.4, 2.2}, 4.87013, 0.15},
            {"efficiency-two-scales", 0.96, {4, 0.06, 11, 0.09, 5}, 0.825, 0.1},
            {"belt-stretch", 9806.65, {3, 1.4, 0.0015}, 27458.62, 0.15},
            {"stiffness-arm", 100, {14, 0.12, 0.002, 0.25}, 210, 0.2},
            {"stiffness-push", 1000000, {35, 4e-05}, 875000, 0.2},
            {"axial-push", 3000000, {35, 4e-05}, 875000, 0.25},
            {"frame-push", 600000, {35, 4e-05}, 875000, 0.2},
            {"module-over-tips", 0.001, {0.031, 60}, 0.0005, 0.01},
            {"friction-board", 0.3093362, {0.21}, 0.2131424, 0.1},
            {"unbalance-scale", 0.24, {2, 3.1, 0.15}, 0.3825, 0.1},
            {"source-two-loads", 0.15, {12.4, 0.5, 11.8, 3}, 0.24, 0.1},
            {"rotor-inertia-ring", 1.788518e-06, {0.12, 0.03, 0.6, 5}, 2.79456e-06, 0.08},
            {"sag-weight", 1, {0.003, 0.0036}, 0.8333333, 0.05},
            {"ring-cycles", 4, {23, 1.8}, 12.77778, 0.03},
            {"ring-decay", 0.01103111, {0.02, 0.003, 4}, 0.07526987, 0.2},
            {"tilt-tip", 0.5491463, {0.42, 0.35}, 1.150595, 0.05},
            {"balance-edge", 0.05, {0.083}, 0.083, 0.05},
            {"leg-spread", 0.5773503, {0.8, 4}, 0.5656854, 0.02},
            {"head-pull", 833.3433, {15, 0.4, 0.005, 0.6}, 720.0167, 0.15},
            {"mast-pull", 3333.343, {18, 0.7, 0.006, 0.8}, 1680.031, 0.2},
            {"stand-pull", 40000, {33, 0.0004}, 82500, 0.2},
            {"press-pad", 40000, {33, 0.0004}, 82500, 0.15},
        };
        for (const Row& row : rows) {
            const auto r = std::find_if(recipes::all().begin(), recipes::all().end(),
                                        [&](const auto& each) { return each.id == row.id; });
            QVERIFY2(r != recipes::all().end(), row.id.data());
            std::vector<double> start;
            for (const auto& reading : r->readings) start.push_back(reading.start);
            QVERIFY2(isNear(r->value(start), row.first, 1e-6), row.id.data());
            QVERIFY2(isNear(r->value(row.readings), row.value, 1e-6), row.id.data());
            QVERIFY2(r->tolerance == row.tolerance, row.id.data());
        }
        QCOMPARE(std::size(rows), recipes::all().size());
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
        const auto f = told::explained(p, 100.0);
        QCOMPARE(f.computed.value(), 80.0);
        VERIFY_NEAR(f.movesForOne, 1.25, 1e-12); // 100 pulses move 1.25 mm
        QVERIFY(!f.suspects.empty());
        QVERIFY(f.suspects[0].what.find("16 teeth") != std::string::npos);
        VERIFY_NEAR(f.suspects[0].testMove, 100.0, 1e-9);
        // 2 mm against 2.032 mm: the test move tells them apart.
        const auto pitch = told::explained(p, 80.0 * 0.002 / 0.002032);
        QVERIFY(std::any_of(pitch.suspects.begin(), pitch.suspects.end(),
                            [](const auto& s) { return s.what.find("2.032") != std::string::npos; }));
        QVERIFY(told::explained(p, 80.0).suspects.empty());
        QVERIFY(told::explained(p, 2032.0).suspects[0].what.find("inches") != std::string::npos);
    }
};

QTEST_APPLESS_MAIN(BenchTest)
#include "bench_test.moc"
