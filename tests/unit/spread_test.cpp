// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/stage_view.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/tools/change_kind.h"
#include "core/tools/spread.h"
#include "io/report/evaluation_json.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry;

/// Ranges of results other than verdicts, and what a link keeps when its kind changes.
class SpreadTest : public QObject {
    Q_OBJECT
    static Project exactDemo() {
        Project p = demoProject();
        for (Axis& axis : p.axes)
            for (Estimate* e : estimatesOf(axis)) e->tolerance = 0.0;
        p.supply.voltage.tolerance = p.supply.sourceResistance.tolerance = 0.0;
        return p;
    }
    /// Calls f(key path, number) for each number of a JSON tree.
    template <class F>
    static void numbers(const nlohmann::json& j, const std::string& path, F f) {
        if (j.is_number_float()) f(path, j.get<double>());
        if (j.is_structured())
            for (const auto& [key, value] : j.items()) numbers(value, path + '/' + key, f);
    }
private slots:
    /// 1 % of 4.1 kg on 12° at 0.8 m/s² by hand: 0.041 · (9.80665 sin 12° + 0.8) N through 6.366 mm and 95 %.
    void oneInputByHand() {
        Project p = exactDemo();
        std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.tolerance = 0.01;
        const AxisEvaluation nominal = evaluateAxis(p, p.axes[0]);
        const AxisEvaluation s = axisSpread(p, 0, nominal, Searches::No);
        const double force = 0.041 * (9.80665 * 0.2079117 + 0.8);
        VERIFY_NEAR(s.shots[0].torque.force.value(), force, 1e-5);
        VERIFY_NEAR(s.shots[0].torque.needed.value(), force * 0.04 / (2 * M_PI) / 0.95, 1e-5);
        QCOMPARE(s.shots[0].motion.motorSpeed.value(), 0.0);
        QCOMPARE(s.shots[0].torque.maxAcceleration.reason(), Reason::NotApplicable);
    }
    void twoInputsAddAsSquares() {
        Project p = exactDemo();
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        const AxisEvaluation nominal = evaluateAxis(p, p.axes[0]);
        const auto range = [&] {
            return axisSpread(p, 0, nominal, Searches::No).shots[0].torque.needed.value();
        };
        QCOMPARE(range(), 0.0);
        m.movingMass.tolerance = 0.02;
        const double mass = range();
        m.movingMass.tolerance = 0.0;
        m.runningFriction.tolerance = 0.5;
        const double friction = range();
        m.movingMass.tolerance = 0.02;
        VERIFY_NEAR(range(), std::hypot(mass, friction), 1e-9);
    }
    /// Sampling all inputs at once, at a twentieth of the demo's tolerances.
    void tableAgreesWithSamples() {
        Project p = demoProject();
        for (Estimate* e : estimatesOf(p.axes[0])) e->tolerance *= 0.05;
        p.supply.voltage.tolerance *= 0.05;
        p.supply.sourceResistance.tolerance *= 0.05;
        const AxisEvaluation nominal = evaluateAxis(p, p.axes[0]);
        const auto spread = columnSpread(p.axes[0], nominal, movedEvaluations(p, 0), 0);
        Project moved = p;
        std::vector<Estimate*> inputs = estimatesOf(moved.axes[0]);
        inputs.push_back(&moved.supply.voltage);
        inputs.push_back(&moved.supply.sourceResistance);
        std::vector<double> centre;
        for (const Estimate* e : inputs) centre.push_back(e->value);
        std::mt19937_64 random(7);
        std::normal_distribution<double> normal;
        constexpr int samples = 40000;
        std::vector<std::array<double, 2>> needed(spread.size()), stretch(spread.size()), lag(spread.size());
        for (int i = 0; i < samples; ++i) {
            for (std::size_t k = 0; k < inputs.size(); ++k)
                inputs[k]->value = centre[k] * (1.0 + normal(random) * inputs[k]->tolerance);
            const AxisEvaluation e = evaluateAxis(moved, moved.axes[0], Searches::No);
            const auto columns = chainColumns(moved.axes[0], e, e.shots[0]);
            for (std::size_t c = 0; c < columns.size(); ++c)
                for (auto [sum, cell] : {std::pair{&needed[c], &columns[c].needed},
                                         {&stretch[c], &columns[c].stretch},
                                         {&lag[c], &columns[c].lag}})
                    if (cell->figure) {
                        (*sum)[0] += cell->figure.value();
                        (*sum)[1] += cell->figure.value() * cell->figure.value();
                    }
        }
        int compared = 0;
        for (std::size_t c = 0; c < spread.size(); ++c)
            for (auto [sum, cell] : {std::pair{&needed[c], &spread[c].needed},
                                     {&stretch[c], &spread[c].stretch},
                                     {&lag[c], &spread[c].lag}}) {
                if (!cell->figure || cell->figure.value() == 0.0) continue;
                const double mean = (*sum)[0] / samples,
                             deviation = std::sqrt((*sum)[1] / samples - mean * mean);
                ++compared;
                VERIFY_NEAR(cell->figure.value(), deviation, 0.05);
            }
        QVERIFY(compared >= 8);
    }
    /// Whatever the command line prints as a number of an axis has its range under the same key.
    void everyPrintedNumberHasARange() {
        const Project p = demoProject();
        const auto root = nlohmann::json::parse(io::evaluationJson(p, assess(p)));
        for (nlohmann::json axis : root.at("axes")) {
            const nlohmann::json ranges = axis.at("ranges");
            for (const char* other : {"ranges", "capability", "chain", "limits", "softest"})
                axis.erase(other);
            int found = 0, positive = 0;
            numbers(axis, "", [&](const std::string& path, double) {
                const nlohmann::json::json_pointer at(path);
                QVERIFY2(ranges.contains(at), path.c_str());
                QVERIFY2(ranges.at(at).get<double>() >= 0.0, path.c_str());
                ++found;
                positive += ranges.at(at).get<double>() > 0.0;
            });
            QVERIFY(found > 40 && positive > 20);
        }
    }
    /// A changed kind keeps the ratio wherever it can be had exactly.
    void changedKindKeepsTheRatio() {
        const auto exact = [](const Link& l) { return stageView(l).ratio; };
        GearStage gear;
        gear.id = "g";
        gear.motorTeeth = 17;
        gear.loadTeeth = 51;
        const Link from = gear;
        for (std::size_t kind = 0; kind < kindsOf<Link>().size(); ++kind) {
            const Link to = changedKind(from, kind);
            QCOMPARE(to.index(), kind);
            QCOMPARE(linkId(to), std::string("g"));
            if (std::holds_alternative<Coupling>(to)) continue;
            if (std::holds_alternative<StrainWaveStage>(to)) continue; // 6 teeth cannot be had
            VERIFY_NEAR(stageView(to).stage.ratio, 3.0, 1e-12);
            if (!std::holds_alternative<RollerStage>(to)) QVERIFY(*exact(to) == *exact(from));
        }
        const Link belt = changedKind(from, 1);
        QCOMPARE(std::get<BeltStage>(belt).motorTeeth, 17);
        QCOMPARE(std::get<BeltStage>(belt).loadTeeth, 51);
        StrainWaveStage wave;
        wave.flexTeeth = 160;
        wave.ratedTorque = assumed(7.5);
        for (std::size_t kind = 0; kind < kindsOf<Link>().size(); ++kind) {
            const Link to = changedKind(wave, kind);
            if (const auto* r = std::get_if<ReducerStage>(&to)) {
                QCOMPARE(r->numerator, 80);
                QCOMPARE(r->ratedTorque.value, 7.5);
            }
            if (const auto* w = std::get_if<WormStage>(&to)) QCOMPARE(w->wheelTeeth, 80);
        }
        ReducerStage odd;
        odd.numerator = 25792;
        odd.denominator = 405;
        QVERIFY(std::get<GearStage>(changedKind(odd, 2)) == GearStage{}); // no such teeth: its own ratio
    }
};

QTEST_APPLESS_MAIN(SpreadTest)
#include "spread_test.moc"
