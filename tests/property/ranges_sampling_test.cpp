// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/setup_of.h"
#include "core/model/fields.h"
#include "core/verdicts/low_end.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"

#include <QTest>
#include <cmath>
#include <map>
#include <random>

using namespace gantry;

/// First-order ranges against sampling of all tolerances at once.
class RangesSamplingTest : public QObject {
    Q_OBJECT
private slots:
    void agreeWithSamples() {
        // Spreads of a twentieth of the demo's tolerances, where straight lines are meant to hold.
        Project project = demoProject();
        for (Axis& axis : project.axes)
            for (Estimate* e : estimatesOf(axis)) e->tolerance *= 0.02;
        project.supply.voltage.tolerance *= 0.05;
        project.supply.sourceResistance.tolerance *= 0.05;
        const Assessment a = assess(project);
        std::mt19937_64 random(20261123);
        std::normal_distribution<double> normal;
        constexpr int samples = 100000;
        int compared = 0, switching = 0;
        for (std::size_t axis = 0; axis < project.axes.size(); ++axis) {
            Project moved = project;
            std::vector<Estimate*> inputs{&moved.supply.voltage, &moved.supply.sourceResistance};
            std::vector<std::pair<Estimate*, std::size_t>> followers; // and the place of what they follow
            for (const UncertainInput& input : uncertainInputsOf(moved.axes[axis]))
                if (input.info.certainty != Certainty::Rating) {
                    if (input.follower != nullptr) followers.emplace_back(input.follower, inputs.size());
                    inputs.push_back(input.estimate);
                }
            std::vector<double> nominal;
            for (const Estimate* e : inputs) nominal.push_back(e->value);
            std::map<int, std::pair<double, double>> sums; // rule → Σ, Σ²
            std::vector<Verdict> verdicts;
            RigSetup setup = setupWithMoves(moved); // looks into `moved`, of which values alone change
            for (int s = 0; s < samples; ++s) {
                for (std::size_t i = 0; i < inputs.size(); ++i)
                    inputs[i]->value = nominal[i] * (1.0 + normal(random) * inputs[i]->tolerance);
                for (const auto& [follower, leader] : followers)
                    follower->value *= inputs[leader]->value / nominal[leader];
                verdicts.clear();
                setup.refresh(axis);
                judgeAxis(moved, static_cast<int>(axis), evaluateAxis(setup, axis, Searches::No), verdicts);
                for (const Verdict& v : verdicts)
                    if (v.ratio) {
                        const double ratio = onScale(v.ratio.value());
                        sums[v.rule].first += ratio;
                        sums[v.rule].second += ratio * ratio;
                    }
            }
            for (const Verdict& v : a.verdicts) {
                if (v.axis != static_cast<int>(axis) || !v.ratio || v.ratio.value() > 1e4) continue;
                if (ruleOf(v).judge == nullptr) continue; // of the whole rig
                switching += v.switches;
                const auto [sum, squares] = sums[v.rule];
                const double mean = sum / samples,
                             sampled = std::sqrt(std::max(0.0, squares / samples - mean * mean));
                const double first = onScale(v.ratio.value()) - onScale(v.low);
                // Nothing uncertain in it: neither may say there is.
                if (sampled < 1e-4 * v.ratio.value()) {
                    QVERIFY2(first < 1e-3 * v.ratio.value(), std::string(ruleKey(v)).c_str());
                    continue;
                }
                if (v.switches) continue; // the range says itself that it is only indicative
                ++compared;
                QVERIFY2(std::abs(first / sampled - 1.0) < 0.05,
                         qPrintable(QStringLiteral("%1 of axis %2: first order %3, sampled %4")
                                        .arg(QString::fromStdString(std::string(ruleKey(v))))
                                        .arg(axis)
                                        .arg(first)
                                        .arg(sampled)));
            }
        }
        QVERIFY(compared >= 20);
        QVERIFY(switching <= 6);
    }
    /// Close to a change of what binds, the range says so.
    void aSwitchingLimitIsTold() {
        Project p = demoProject();
        // Break-away and the ramp need nearly the same torque, so either may bind within their tolerances.
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double perNewton = 0.04 / (2 * 3.14159265358979) / 0.95;
        m.staticFriction.value +=
            (e.shots[0].torque.needed.value() - e.shots[0].torque.breakaway.value()) / perNewton * 0.9;
        m.staticFriction.tolerance = 0.5;
        bool told = false;
        for (const Verdict& v : assess(p).verdicts)
            if (v.axis == 0 && ruleKey(v) == "torque") told = v.switches;
        QVERIFY(told);
    }
};

QTEST_APPLESS_MAIN(RangesSamplingTest)
#include "ranges_sampling_test.moc"
