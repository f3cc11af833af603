// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/moved_inputs.h"
#include "core/evaluate/setup_of.h"
#include "core/model/fields.h"
#include "core/model/tolerance.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/low_ends.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/drawn_rigs.h"
#include "support/files.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <cmath>
#include <functional>
#include <map>
#include <mutex>
#include <nlohmann/json.hpp>
#include <numbers>
#include <thread>

using namespace gantry;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

/// The worked examples of the reference: ratios by their names, of inputs by theirs.
double ratioBy(const std::string& name, std::map<std::string, double> x) {
    const double g = 9.80665;
    if (name == "torque")
        return x["torque"] * x["efficiency"] /
               ((x["mass"] * (g * std::sin(x["slope"] * pi / 180.0) + x["acceleration"]) + x["drag"]) *
                x["radius"]);
    if (name == "balance")
        return std::min(1000.0, x["hold"] / std::abs(g * (x["mass"] * x["arm"] - x["weight"] * x["lever"])));
    return x["force"] / (x["mass"] * (x["acceleration"] + g * x["mu"])) * x["mass"] / x["mass_rated"];
}

const Verdict* find(const Assessment& a, std::string_view rule) {
    for (const Verdict& v : a.verdicts)
        if (ruleKey(v) == rule) return &v;
    return nullptr;
}

/// A level slider whose every figure is known exactly, for a test to loosen.
Project exact() {
    Project p = bareRig(rigs::RigKind::BeltSlider);
    for (Axis& a : p.axes)
        for (Estimate* e : estimatesOf(a)) e->tolerance = 0.0;
    for (const UncertainInput& i : uncertainInputsOf(p.supply)) i.estimate->tolerance = 0.0;
    for (const UncertainInput& i : uncertainInputsOf(p.base)) i.estimate->tolerance = 0.0;
    for (MassItem& m : p.payload) m.mass.tolerance = 0.0;
    return p;
}
LinearMechanism& slide(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}

} // namespace

/// What tolerances make of a ratio: low end, worst case, what decides, and the state that follows.
class LowEndTest : public QObject {
    Q_OBJECT
private slots:
    void asInTheReference_data() {
        QTest::addColumn<QString>("text");
        for (const json& c : referenceCases("t61_worst_case", "combine"))
            QTest::newRow(c["name"].get<std::string>().c_str()) << QString::fromStdString(c.dump());
    }
    void asInTheReference() {
        QFETCH(QString, text);
        const json c = json::parse(text.toStdString());
        const std::string fn = c["inputs"]["fn"];
        std::vector<std::string> names;
        std::vector<Ends> box;
        std::map<std::string, double> nominal;
        for (const auto& [name, input] : c["inputs"]["inputs"].items()) {
            const double value = input[0], tolerance = input[2] == "exact" ? 0.0 : input[1].get<double>();
            nominal[name] = value;
            FieldInfo info{"x", "x", units::Kind::Ratio, -1e9, input[2] == "share" ? 1.0 : 1e9, 0, 0};
            box.push_back(endsOf(info, {value, Source::Guess, tolerance}));
            names.push_back(name);
        }
        const auto at = [&](const std::vector<double>& values) {
            std::map<std::string, double> x;
            for (std::size_t i = 0; i < names.size(); ++i) x[names[i]] = values[i];
            return ratioBy(fn, x);
        };
        const json& wanted = c["expected"];
        const double n = ratioBy(fn, nominal);
        VERIFY_NEAR(n, wanted["nominal"].get<double>(), 1e-4);
        std::vector<double> middle;
        for (const std::string& name : names) middle.push_back(nominal[name]);
        std::vector<Fall> raw, falls;
        std::vector<double> corner = middle;
        double alone = n;
        for (std::size_t i = 0; i < names.size(); ++i)
            for (const double end : {box[i].low, box[i].high}) {
                std::vector<double> moved = middle;
                moved[i] = end;
                const double there = at(moved);
                alone = std::min(alone, there);
                if (there >= n) continue;
                corner[i] = end;
                const Fall fall{static_cast<int>(i), n - there, end};
                if (!raw.empty() && raw.back().input == fall.input) {
                    raw.back().by = std::max(raw.back().by, fall.by);
                    falls.back().by = std::max(falls.back().by, onScale(n) - onScale(there));
                } else {
                    raw.push_back(fall);
                    falls.push_back({fall.input, onScale(n) - onScale(there), end});
                }
            }
        VERIFY_NEAR(alone, wanted["one_at_a_time"].get<double>(), 1e-4);
        VERIFY_NEAR(lessSquares(n, raw), wanted["root_sum_square"].get<double>(), 1e-4);
        VERIFY_NEAR(leastCorner(std::span<const Ends>(box), corner, at), wanted["worst"].get<double>(), 1e-4);
        VERIFY_NEAR(at(corner), wanted["worst"].get<double>(), 1e-4);
        // Up to four times what is needed the low end is just that; never less than nothing beyond.
        if (n < 4.0) VERIFY_NEAR(lowEndOf(n, falls), wanted["root_sum_square"].get<double>(), 1e-4);
        QVERIFY(lowEndOf(n, falls) >= 0.0);
        // What decides: whatever would do most if it were exact, and a pair where one does not do it.
        if (wanted["state_by_worst_case"] != "at risk") return;
        const std::vector<Fall> deciding = decidingFalls(onScale(n), falls);
        QCOMPARE(deciding.size(), wanted["deciding"].size());
        for (std::size_t i = 0; i < deciding.size(); ++i)
            QCOMPARE(names[static_cast<std::size_t>(deciding[i].input)],
                     wanted["deciding"][i].get<std::string>());
    }
    /// The scale is the ratio up to four, has no kink there, and comes back.
    void scale() {
        QCOMPARE(onScale(0.3), 0.3);
        QCOMPARE(onScale(4.0), 4.0);
        QVERIFY(std::abs((onScale(4.001) - onScale(4.0)) / 0.001 - 1.0) < 1e-3);
        VERIFY_NEAR(onScale(8.0), 6.0, 1e-12);
        VERIFY_NEAR(onScale(1e12), 8.0, 1e-9);
        for (const double r : {0.0, 0.5, 3.9, 4.1, 40.0, 1e5})
            VERIFY_NEAR(fromScale(onScale(r)), r, 1e-6 * r + 1e-12);
        // Errors that hardly show: two that may each grow a hundredfold still leave ten times what is needed.
        VERIFY_NEAR(lowEndOf(2000.0, std::vector<Fall>{{0, onScale(2000.0) - onScale(20.0), 0.0}}), 20.0,
                    1e-9);
        const std::vector<Fall> both{{0, onScale(2000.0) - onScale(20.0), 0.0},
                                     {1, onScale(2000.0) - onScale(20.0), 0.0}};
        const double left = lowEndOf(2000.0, both);
        QVERIFY2(left > 13.5 && left < 14.5, qPrintable(QString::number(left))); // 20/√2
    }
    /// A sum of small errors about nothing: each leaves half of what is allowed, three of them √3/2 of it.
    void balancedAsEntered() {
        const double nominal = 65.0;
        const auto half = [&](int input) { return Fall{input, onScale(nominal) - onScale(2.0), 0.0}; };
        const double grown = 0.5 - 1.0 / nominal;
        VERIFY_NEAR(lowEndOf(nominal, std::vector{half(0), half(1), half(2)}),
                    1.0 / (1.0 / nominal + std::sqrt(3.0) * grown), 1e-9);
        // One alone lies where it was computed, on either scale.
        VERIFY_NEAR(lowEndOf(nominal, std::vector{half(0)}), 2.0, 1e-9);
        VERIFY_NEAR(lowEndOf(6.0, std::vector{Fall{0, onScale(6.0) - onScale(1.5), 0.0}}), 1.5, 1e-9);
        // No jump where the scales part and where they have parted.
        for (const double at : {4.0, 8.0}) {
            const auto low = [](double r) {
                return lowEndOf(r, std::vector{Fall{0, onScale(r) - onScale(r / 2.0), 0.0},
                                               Fall{1, onScale(r) - onScale(r / 3.0), 0.0}});
            };
            QVERIFY(std::abs(low(at + 1e-6) - low(at - 1e-6)) < 1e-5);
        }
        // What one input takes away altogether is gone.
        QVERIFY(lowEndOf(65.0, std::vector{Fall{0, 1e3, 0.0}}) < 1e-9);
    }
    void endsOfInputs() {
        const FieldInfo mass{"m", "m", units::Kind::Mass, 0.0, 1e5, 0, 0};
        FieldInfo share{"e", "e", units::Kind::Percentage, 0.01, 1.0, 0, 0};
        FieldInfo rating{"r", "r", units::Kind::Current, 0.0, 100.0, 0, 0, Certainty::Rating};
        const auto ends = [](const FieldInfo& f, double v, double t) {
            return endsOf(f, {v, Source::Guess, t});
        };
        VERIFY_NEAR(ends(mass, 1.0, 0.5).low, 0.5, 1e-12);
        VERIFY_NEAR(ends(mass, 1.0, 0.5).high, 1.5, 1e-12); // 1.00 kg is a mass like any other
        VERIFY_NEAR(ends(share, 0.95, 0.1).low, 0.855, 1e-12);
        QCOMPARE(ends(share, 0.95, 0.1).high, 1.0);
        QCOMPARE(ends(share, 1.0, 0.1).high, 1.0);
        QCOMPARE(ends(rating, 1.5, 0.2).low, 1.5);
        QCOMPARE(ends(rating, 1.5, 0.2).high, 1.5);
        QCOMPARE(ends(mass, 0.0, 0.5).high, 0.0);
        VERIFY_NEAR(ends(mass, 2.0, 3.0).low, 0.2, 1e-12); // not below a tenth: 0 often means not given
        const FieldInfo slope{"s", "s", units::Kind::Angle, -1.5, 1.5, 0, 0};
        VERIFY_NEAR(ends(slope, -0.2, 0.5).low, -0.3, 1e-12);
        VERIFY_NEAR(ends(slope, -0.2, 0.5).high, -0.1, 1e-12);
        // An entry that lies outside what its field takes stays where it is.
        QCOMPARE(ends(share, 1.2, 0.1).high, 1.2);
    }
    /// A rule is read to half a millimetre, whatever it is laid along; other instruments keep their share.
    void lengthsByRule() {
        const FieldInfo drum{"d", "d", units::Kind::Length, 1e-3, 10, 0, 0, Certainty::SteelRule};
        const FieldInfo mass{"m", "m", units::Kind::Mass, 0, 1e5, 0, 0};
        VERIFY_NEAR(usualTolerance(drum, Source::Measured, 0.05), 0.011, 1e-12);
        VERIFY_NEAR(usualTolerance(drum, Source::Measured, 0.5), 0.002, 1e-12);
        VERIFY_NEAR(usualTolerance(drum, Source::Guess, 0.5), 0.5, 1e-12);
        VERIFY_NEAR(usualTolerance(mass, Source::Measured, 0.05), 0.02, 1e-12);
        // In a project it goes with the length, unless another tolerance was told.
        Project p = bareRig(rigs::RigKind::WinchedCart);
        const std::string path = "axes/cart/mechanism/output/drum_diameter_m";
        Estimate& e = *std::get<Estimate*>(findField(p, path)->target);
        e = estimateFor(findField(p, path)->info, Source::Measured, 0.05);
        QVERIFY(setNumberAt(p, path, 0.025));
        VERIFY_NEAR(e.tolerance, 0.021, 1e-12);
        e.tolerance = 0.005;
        QVERIFY(setNumberAt(p, path, 0.05));
        QCOMPARE(e.tolerance, 0.005);
    }
    /// One guessed friction makes a slider doubtful that holds as entered; on paper: 9 N ±50 %, 1.4 kg.
    void oneGuessPutsAtRisk() {
        Project p = exact();
        auto& m = slide(p);
        m.slope.value = 0.0;
        m.movingMass = estimate(1.4, Source::Measured);
        m.runningFriction = m.staticFriction = estimate(9.0, Source::Guess);
        m.staticFriction.tolerance = 0.0;
        Stepper& motor = std::get<Stepper>(p.axes[0].motor);
        motor.holdingTorque = estimate(0.14, Source::DataSheet);
        motor.rotorInertia.value = 1e-9;
        auto& belt = std::get<BeltOutput>(m.output);
        belt.pulleyInertia.value = 0.0;
        p.axes[0].driver.runCurrent = motor.ratedCurrent.value = 0.8;
        m.staticFriction.value = 1.0; // running decides
        belt.teeth = 30;
        belt.efficiency = {0.95, Source::DataSheet, 0.1};
        p.shots.resize(1);
        p.shots[0].moves = {{"slide", BySpeed<AxisKind::Linear>{0.3, 0.1, 0.3}}};
        const Assessment a = assess(p);
        const Verdict& v = *find(a, "torque");
        const double radius = 30 * 0.002 / (2 * pi), needed = (9.0 + 1.4 * 0.3) * radius / 0.95;
        const double n = 0.14 / needed;
        VERIFY_NEAR(v.ratio.value(), n, 2e-3);
        const double byFriction = n - 0.14 / ((13.5 + 0.42) * radius / 0.95), byTenth = 0.1 * n,
                     byMass = n - 0.14 / ((9.0 + 1.428 * 0.3) * radius / 0.95);
        VERIFY_NEAR(v.low, n - std::sqrt(byFriction * byFriction + 2 * byTenth * byTenth + byMass * byMass),
                    3e-3);
        QCOMPARE(v.state, State::AtRisk);
        QCOMPARE(v.deciding, std::vector<std::string>{"axes/slide/mechanism/running_friction_N"});
        // Measuring it comes first, and then it is tight: two times was wanted.
        const std::vector<Fix> fixes = findFixes(p, a, v, {}, 5, stockInShops());
        QVERIFY(fixes.size() >= 2);
        QCOMPARE(fixes[0].cost, FixCost::Measure);
        QCOMPARE(fixes[0].measures, v.deciding);
        QCOMPARE(fixes[0].stateAfter, State::Tight);
        QCOMPARE(describe(fixes[0], p, units::System::Metric), std::string("measure the running friction"));
        VERIFY_NEAR(fixes[0].ratioAfter, n, 2e-3);
        for (std::size_t i = 1; i < fixes.size(); ++i) QVERIFY(fixes[i].cost != FixCost::Measure);
        const QString said = QString::fromStdString(sentence(v, p, units::System::Metric));
        QVERIFY2(said.contains("What decides is the running friction (9 N ±50 %, guess): measure it first."),
                 qPrintable(said));
        // The same guess for a lighter pull is no matter.
        m.runningFriction.value = 4.0;
        QCOMPARE(find(assess(p), "torque")->state, State::Fine);
        // What fails as entered is over, whatever its range, and no measuring is offered.
        m.runningFriction.value = 15.0;
        const Assessment over = assess(p);
        QCOMPARE(find(over, "torque")->state, State::Over);
        QVERIFY(find(over, "torque")->deciding.empty());
        for (const Fix& f : findFixes(p, over, *find(over, "torque"), {}, 5, stockInShops()))
            QVERIFY(f.cost != FixCost::Measure);
    }
    /// Two guesses of which neither alone decides are named both.
    /// Where one input decides, its ratio is 1 where the verdict is said to hold until, within the input's
    /// range or beyond it; where nothing is said, it holds to twice the tolerance.
    void holdsUntilJustThere() {
        std::mt19937 random(41);
        int within = 0, beyond = 0, nowhere = 0;
        for (int drawn = 0; drawn < 600; ++drawn) {
            Project p = drawn_rigs::variation(random);
            const Assessment a = assess(p, {}, Poses::Later);
            RigSetup setup = setupWithMoves(p);
            for (const Verdict& v : a.verdicts) {
                if (v.state != State::AtRisk || v.deciding.size() != 1 || aboutRig(v)) continue;
                const auto axis = static_cast<std::size_t>(v.axis);
                const std::optional<FieldRef> field = findField(p, v.deciding[0]);
                const auto inputs = inputsOfAxis(p, axis);
                const auto input = std::find_if(inputs.begin(), inputs.end(), [&](const UncertainInput& i) {
                    return i.estimate == std::get<Estimate*>(field->target);
                });
                QVERIFY(input != inputs.end());
                const auto ratioAt = [&](double x) {
                    const Moved moved(*input, x);
                    setup.refresh(axis);
                    std::vector<Verdict> found;
                    judgeAxis(p, v.axis, evaluateAxis(setup, axis, Searches::No), found);
                    const auto same = std::find_if(found.begin(), found.end(),
                                                   [&](const Verdict& f) { return f.rule == v.rule; });
                    return same != found.end() && same->ratio ? same->ratio.value() : 1e9;
                };
                const Ends ends = endsOf(input->info, *input->estimate);
                const double nominal = input->estimate->value;
                const auto twice = [&](double end) {
                    return std::clamp(nominal + 2.0 * (end - nominal), input->info.min, input->info.max);
                };
                const QByteArray what = QByteArray(std::string(ruleKey(v)).c_str()) + " of rig " +
                                        QByteArray::number(drawn) + ", " + v.deciding[0].c_str();
                if (v.holdsUntil) {
                    const double edge = v.holdsUntil.value(), step = 2e-3 * std::abs(edge);
                    const double out = v.holdsBelow ? step : -step;
                    QVERIFY2(ratioAt(edge - out) >= 1.0 && ratioAt(edge + out) < 1.0, what);
                    ++(edge >= ends.low && edge <= ends.high ? within : beyond);
                } else {
                    QVERIFY2(ratioAt(twice(ends.low)) >= 1.0 || ratioAt(twice(ends.high)) >= 1.0, what);
                    ++nowhere;
                }
                setup.refresh(axis);
            }
        }
        QVERIFY(within > 20);
        QVERIFY(beyond > 3);
        QVERIFY(nowhere < within + beyond);
    }
    void twoThatDecideTogether() {
        Project p = exact();
        auto& m = slide(p);
        m.slope.value = 0.0;
        m.runningFriction = {9.0, Source::Guess, 0.35};
        m.staticFriction = {1.0, Source::Guess, 0.0};
        m.movingMass.value = 1.4;
        Stepper& motor = std::get<Stepper>(p.axes[0].motor);
        motor.holdingTorque = {0.14, Source::Guess, 0.35};
        p.axes[0].driver.runCurrent = motor.ratedCurrent.value = 0.8;
        std::get<BeltOutput>(m.output).teeth = 30;
        p.shots.resize(1);
        p.shots[0].moves = {{"slide", BySpeed<AxisKind::Linear>{0.3, 0.1, 0.3}}};
        const Assessment a = assess(p);
        const Verdict& v = *find(a, "torque");
        QCOMPARE(v.state, State::AtRisk);
        // Which of the two falls more on paper: torque by a third, friction by 1 − 9.42/12.57.
        QVERIFY(!v.deciding.empty());
        QCOMPARE(v.deciding[0], std::string("axes/slide/motor/holding_torque_Nm"));
    }
    /// Nothing about an input changes when its number passes 1.
    void oneIsANumberLikeOthers() {
        Project p = exact();
        auto& m = slide(p);
        double last = 0.0;
        for (const double kilograms : {0.99, 0.999, 1.0, 1.001, 1.01}) {
            m.movingMass = estimate(kilograms, Source::Guess);
            m.runningFriction = m.staticFriction = estimate(kilograms, Source::Guess);
            std::get<Stepper>(p.axes[0].motor).resistance = estimate(kilograms, Source::Guess);
            const Verdict v = *find(assess(p), "torque");
            if (last > 0.0)
                QVERIFY2(std::abs(v.low / last - 1.0) < 0.012, qPrintable(QString::number(kilograms)));
            last = v.low;
        }
    }
    /// What is mounted on the camera counts where an axis carries it, and only there.
    void payloadCounts() {
        Project p = exact();
        MassItem box;
        box.id = "box";
        box.mass = {2.0, Source::Guess, 0.5};
        p.payload = {box};
        slide(p).slope.value = 0.3;
        p.axes[0].carriesPayload = true;
        const Verdict carried = *find(assess(p), "standstill");
        VERIFY_NEAR(carried.worst.value() / carried.ratio.value(),
                    (slide(p).movingMass.value + 2.0) / (slide(p).movingMass.value + 3.0), 1e-6);
        p.axes[0].carriesPayload = false;
        QCOMPARE(find(assess(p), "standstill")->low, find(assess(p), "standstill")->ratio.value());
    }
    /// A current set to exactly what the motor is rated for keeps within it, however loosely it is known.
    void ratingsAreLimits() {
        Project p = exact();
        Stepper& motor = std::get<Stepper>(p.axes[0].motor);
        motor.ratedCurrent = {1.5, Source::DataSheet, 0.1};
        p.axes[0].driver.runCurrent = 1.5;
        const Verdict v = *find(assess(p), "motor_current");
        QCOMPARE(v.ratio.value(), 1.0);
        QCOMPARE(v.low, 1.0);
        QCOMPARE(v.state, State::Fine);
    }
    /// A boom with its weight: what holds it at rest over what is left of gravity, known exactly but for
    /// both.
    static Project boom(double front, double weight) {
        Project p = bareRig(rigs::RigKind::JibCrane);
        p.payload.clear();
        for (Axis& a : p.axes)
            for (Estimate* e : estimatesOf(a)) e->tolerance = 0.0;
        for (const UncertainInput& i : uncertainInputsOf(p.base)) i.estimate->tolerance = 0.0;
        for (const UncertainInput& i : uncertainInputsOf(p.supply)) i.estimate->tolerance = 0.0;
        for (Shot& s : p.shots) s.moves.clear(); // whatever shots hang on would look at other ends
        Axis& axis = p.axes[1];
        axis.carriesPayload = false;
        auto& r = std::get<RotaryMechanism>(axis.mechanism);
        r.boom = {};
        r.unbalance.value = 0.0;
        r.spring = {{0.0, Source::Counted, 0.0}, {0.0, Source::Counted, 0.0}};
        r.lowAngle = -0.1;
        r.range = 0.2;
        MassItem camera;
        camera.id = "camera";
        camera.mass = {front, Source::Measured, 0.0};
        camera.along = 1.0;
        MassItem behind = camera;
        behind.id = "weight";
        behind.mass.value = weight;
        behind.along = -0.5;
        r.items = {camera, behind};
        return p;
    }
    /// More weight takes off gravity ever faster, so what less of it costs is less than what more of it
    /// gains: the other end is looked at, not guessed.
    void theOtherEndIsLookedAt() {
        Project p = boom(3.0, 4.0);
        auto& items = std::get<RotaryMechanism>(p.axes[1].mechanism).items;
        const auto standstill = [&] {
            for (const Verdict& v : assess(p).verdicts)
                if (ruleKey(v) == "standstill" && v.axis == 1) return v;
            qFatal("no such verdict");
        };
        // As much hold current as holds it one and a third times.
        const double wish = 4.0 / 3.0;
        p.axes[1].driver.holdCurrent *= wish / standstill().ratio.value();
        VERIFY_NEAR(standstill().ratio.value(), wish, 1e-9);
        items[1].mass.tolerance = 0.2;
        const double low = standstill().low;
        items[1].mass = {4.0 * 0.8, Source::Measured, 0.0};
        VERIFY_NEAR(low, standstill().ratio.value(), 1e-9);
        VERIFY_NEAR(low, wish * 1.0 / 1.4, 1e-6); // 3 − 2 of 4 kg at half a metre, and 3 − 1.6
    }
    /// Balanced as entered, camera and weight act against each other: the worst is one up and the other down.
    void theWorstOfTwoAgainstEachOther() {
        Project p = boom(2.0, 4.0);
        auto& items = std::get<RotaryMechanism>(p.axes[1].mechanism).items;
        items[0].mass = {2.02, Source::Guess, 0.2};
        items[1].mass.tolerance = 0.2;
        const auto standstill = [&](const Project& of) {
            for (const Verdict& v : assess(of).verdicts)
                if (ruleKey(v) == "standstill" && v.axis == 1) return v;
            qFatal("no such verdict");
        };
        QVERIFY(!standstill(p).worst); // ample
        p.axes[1].driver.holdCurrent *= 3.0 / standstill(p).ratio.value();
        const Verdict v = standstill(p);
        double least = 1e300;
        for (const double a : {0.8, 1.0, 1.2})
            for (const double b : {0.8, 1.0, 1.2}) {
                Project q = p;
                auto& there = std::get<RotaryMechanism>(q.axes[1].mechanism).items;
                there[0].mass = {2.02 * a, Source::Guess, 0.0};
                there[1].mass = {4.0 * b, Source::Guess, 0.0};
                for (const Verdict& w : judge(q, evaluate(q)))
                    if (ruleKey(w) == "standstill" && w.axis == 1) least = std::min(least, w.ratio.value());
            }
        QVERIFY(v.worst);
        VERIFY_NEAR(v.worst.value(), least, 1e-9);
    }
    /// A band that moves over the speed within the tolerance is met in between, though both ends lie clear.
    void leastInBetween() {
        Project p = exact();
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        const AxisEvaluation e = evaluate(p).axes[0];
        p.shots[0].moves = {{"slide", BySpeed<AxisKind::Linear>{0.3, 1.2 * e.resonance.high.value(), 0.5}}};
        QCOMPARE(find(assess(p), "resonance")->state, State::Tight);
        auto& mass = slide(p).movingMass;
        mass.tolerance = 0.85; // to 15 % of it, where the band lies far above
        const double all = mass.value;
        for (const double share : {0.15, 1.85}) {
            mass.value = all * share;
            Project there = p;
            slide(there).movingMass.tolerance = 0.0;
            QVERIFY(find(assess(there), "resonance")->ratio.value() > 1.0);
        }
        mass.value = all;
        QCOMPARE(find(assess(p), "resonance")->state, State::AtRisk);
    }
    /// No ratio is rounded across 1 or across what is wanted.
    void ratiosKeepTheirSide() {
        const auto text = [](double r, double wanted) {
            return ratioText(r, {wanted, 0.0}, units::System::Metric);
        };
        QCOMPARE(text(0.997, 2.0), std::string("0.997"));
        QCOMPARE(text(0.96, 2.0), std::string("0.96"));
        QCOMPARE(text(1.003, 2.0), std::string("1"));
        QCOMPARE(text(1.96, 2.0), std::string("1.96"));
        QCOMPARE(text(1.34, 2.0), std::string("1.3"));
        QCOMPARE(text(2.04, 2.0), std::string("2"));
        QCOMPARE(text(1.498, 1.5), std::string("1.498"));
        QCOMPARE(text(0.0, 1.5), std::string("0"));
        QCOMPARE(text(18.4, 2.0), std::string("18"));
    }
    /// Shared out over several threads it is the same to the last digit, and every axis is shown once an
    /// input.
    void workersAgree() {
        const Project p = demoProject("fernhouse-dolly");
        std::map<std::size_t, std::size_t> one, all;
        std::mutex mutex;
        const auto count = [&](auto& into) {
            return [&](std::size_t axis, AxisEvaluation&&) {
                const std::scoped_lock lock(mutex);
                ++into[axis];
            };
        };
        const Crew three = [](const std::function<void()>& work) {
            std::vector<std::jthread> others;
            for (int i = 0; i < 2; ++i) others.emplace_back(work);
            work();
        };
        const Assessment alone = assess(p, count(one));
        for (int round = 0; round < 3; ++round) {
            all.clear();
            const Assessment shared = assess(p, count(all), Poses::Search, {}, three);
            QCOMPARE(shared.verdicts.size(), alone.verdicts.size());
            for (std::size_t i = 0; i < alone.verdicts.size(); ++i) {
                const Verdict &a = alone.verdicts[i], &b = shared.verdicts[i];
                QCOMPARE(b.rule, a.rule);
                QCOMPARE(b.low, a.low);
                QCOMPARE(b.state, a.state);
                QCOMPARE(b.deciding, a.deciding);
                QCOMPARE(b.switches, a.switches);
                QCOMPARE(b.holdsUntil.valueOr(-1.0), a.holdsUntil.valueOr(-1.0));
                QCOMPARE(b.worst.valueOr(-1.0), a.worst.valueOr(-1.0));
            }
            QVERIFY(all == one && one.size() == p.axes.size());
        }
    }
    /// What can fall names its worst case: everything at once, not squares.
    void worstCaseOfWhatFalls() {
        Project p = exact();
        auto& m = slide(p);
        m.slope = {0.3, Source::Measured, 0.1};
        m.movingMass = {4.0, Source::Guess, 0.2};
        p.axes[0].driver.holdCurrent = 0.5;
        Stepper& motor = std::get<Stepper>(p.axes[0].motor);
        motor.holdingTorque = {0.4, Source::DataSheet, 0.1};
        const Verdict v = *find(assess(p), "standstill");
        QVERIFY(v.hazard && v.worst);
        const double n = v.ratio.value();
        VERIFY_NEAR(v.worst.value(), n * 0.9 / 1.2 * std::sin(0.3) / std::sin(0.33), 2e-3);
        QVERIFY(v.low > v.worst.value() && v.low < n);
        QVERIFY(!find(assess(p), "torque")->worst); // a stall hurts nobody
    }
};

QTEST_APPLESS_MAIN(LowEndTest)
#include "low_end_test.moc"
