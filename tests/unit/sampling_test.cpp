// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/model/overload.h"
#include "core/rigs/rigs.h"
#include "core/sampling/confidence.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <random>

using namespace gantry;

/// Rigs drawn within the tolerances: how they are drawn, what is read off each, and what is made of all of
/// them.
class SamplingTest : public QObject {
    Q_OBJECT
    /// The inputs that sampling moves, by the names that it gives.
    static std::vector<Estimate*> inputsBy(Project& p, const std::vector<std::string>& names) {
        std::vector<Estimate*> out;
        for (const std::string& name : names)
            for (const FieldRef& f : allFields(p))
                if (f.path == name) out.push_back(std::get<Estimate*>(f.target));
        return out;
    }
    /// What keeps its value in every rig: ratings are limits, not parts that differ.
    static bool stays(Project& p, const std::string& name) {
        return findField(p, name)->info.certainty == Certainty::Rating;
    }
    /// The least that parts, pulses and motor allow over what is asked, as confidence.h says it.
    static double limitsOf(const AxisEvaluation& e) {
        std::vector<double> all{1e6};
        const auto add = [&](const Figure& f) {
            if (f) all.push_back(f.value());
        };
        for (const PartCheck& c : e.checks.parts) {
            add(c.strength);
            add(c.slip);
        }
        add(e.checks.cordRatio);
        for (const ShotEvaluation& s : e.shots) {
            const double speed = s.motion.topSpeed.valueOr(0.0), a = s.motion.acceleration.valueOr(0.0);
            if (speed > 0.0 && e.pulseLimitSpeed) all.push_back(e.pulseLimitSpeed.value() / speed);
            if (speed > 0.0 && e.checks.motorTopSpeed) all.push_back(e.checks.motorTopSpeed.value() / speed);
            if (a > 0.0 && s.slackDeceleration) all.push_back(s.slackDeceleration.value() / a);
        }
        return *std::min_element(all.begin(), all.end());
    }

private slots:
    /// Normal, of the width that is promised, cut where it is promised, each input by itself.
    void drawsAreNormalAndApart() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        p.shots.resize(1);
        const int n = 4000;
        const auto rows = sampling::sampleAxis(p, 0, 11, 0, n);
        QCOMPARE(rows.size(), std::size_t(n));
        const std::size_t inputs = sampling::inputsOf(p, 0).size();
        int ratings = 0;
        for (std::size_t k = 0; k < inputs; ++k) {
            std::vector<double> x;
            for (const auto& r : rows) {
                QCOMPARE(r.inputs.size(), inputs);
                x.push_back(2.0 * static_cast<double>(r.inputs[k])); // in standard deviations
            }
            std::sort(x.begin(), x.end());
            if (stays(p, sampling::inputsOf(p, 0)[k])) {
                QVERIFY(x.front() == 0.0 && x.back() == 0.0);
                ++ratings;
                continue;
            }
            QVERIFY(x.front() >= -3.0 && x.back() <= 3.0 && x.front() < -2.5 && x.back() > 2.5);
            // Against the distribution function of the cut normal: Kolmogorov's bound for one in a million.
            const auto below = [](double at) { return 0.5 * std::erfc(-at / std::sqrt(2.0)); };
            double apart = 0.0;
            for (int i = 0; i < n; ++i)
                apart = std::max(
                    apart, std::abs((i + 0.5) / n - (below(x[static_cast<std::size_t>(i)]) - below(-3.0)) /
                                                        (below(3.0) - below(-3.0))));
            QVERIFY2(apart < 2.7 / std::sqrt(n), qPrintable(QString::number(apart)));
            // An input and the next one, and a row and the next one, know nothing of each other.
            const auto at = [&](int row, std::size_t input) {
                return 2.0 * static_cast<double>(rows[static_cast<std::size_t>(row)].inputs[input]);
            };
            double across = 0.0, along = 0.0;
            for (int i = 0; i + 1 < n; ++i) {
                across += at(i, k) * at(i, (k + 1) % inputs) / n;
                along += at(i, k) * at(i + 1, k) / n;
            }
            QVERIFY2(std::abs(across) < 5.0 / std::sqrt(n) && std::abs(along) < 5.0 / std::sqrt(n),
                     qPrintable(QStringLiteral("%1: %2 %3").arg(k).arg(across).arg(along)));
        }
        QCOMPARE(ratings, 4); // of the motor its current and what its shaft stands, and of the bearings
    }
    /// A row is the rig with its inputs moved by what the row says, evaluated afresh.
    void aRowIsTheRigThatItSays() {
        int rocking = 0, rounded = 0, floored = 0;
        for (const rigs::RigInfo& info : rigs::all()) {
            Project p = rigs::make(info.kind);
            for (Axis& axis : p.axes) axis.vibration.frequency = estimate(4.0, Source::Measured);
            for (std::size_t axis = 0; axis < p.axes.size(); ++axis) {
                const std::vector<std::string> names = sampling::inputsOf(p, axis);
                Project moved = p;
                inputsBy(p, names).front()->tolerance = 1.5; // as far as to less than nothing
                for (const std::string& name : names)        // and beyond all there is
                    if (const FieldRef f = *findField(p, name); f.info.max == 1.0)
                        std::get<Estimate*>(f.target)->tolerance = 0.3;
                const std::vector<Estimate*> nominal = inputsBy(p, names), inputs = inputsBy(moved, names);
                for (const auto& row : sampling::sampleAxis(p, axis, 3, 5, 12)) {
                    for (std::size_t k = 0; k < inputs.size(); ++k) {
                        const double share = 1.0 + nominal[k]->tolerance * static_cast<double>(row.inputs[k]);
                        inputs[k]->value = nominal[k]->value * std::max(share, 0.02);
                        floored += share < 0.02;
                        // Nothing leaves what its field takes; efficiencies and shares stay at most 1.
                        const FieldInfo field = findField(p, names[k])->info;
                        const double taken =
                            std::clamp(inputs[k]->value, std::min(field.min, nominal[k]->value), field.max);
                        rounded += taken != inputs[k]->value && field.max == 1.0;
                        inputs[k]->value = taken;
                    }
                    // Break-away goes up and down with running friction.
                    std::visit(overload{[&](LinearMechanism& m, const LinearMechanism& was) {
                                            m.staticFriction.value *=
                                                m.runningFriction.value / was.runningFriction.value;
                                        },
                                        [&](RotaryMechanism& m, const RotaryMechanism& was) {
                                            m.staticFriction.value *= m.friction.value / was.friction.value;
                                        },
                                        [](auto&, const auto&) {}},
                               moved.axes[axis].mechanism, p.axes[axis].mechanism);
                    const AxisEvaluation e = evaluateAxis(moved, moved.axes[axis]);
                    double margin = 1e6, rocks = 1e6;
                    for (const ShotEvaluation& s : e.shots) {
                        margin = std::min(margin, s.torque.margin.valueOr(1e6));
                        const double pixels = s.rocking.pixels.valueOr(0.0);
                        if (pixels > 0.0)
                            rocks = std::min(rocks, p.shots[s.shot.at()].limits.jitter / pixels);
                    }
                    rocking += rocks < 1e6;
                    const char* of = p.axes[axis].name.c_str();
                    QVERIFY2(isNear(row.margin, margin, 1e-4), of);
                    QVERIFY2(isNear(row.limits, limitsOf(e), 1e-4), of);
                    QVERIFY2(isNear(row.rocking, rocks, 1e-3), of);
                }
            }
        }
        QVERIFY2(rocking > 20 && rounded > 10 && floored > 0,
                 qPrintable(QStringLiteral("%1 %2 %3").arg(rocking).arg(rounded).arg(floored)));
    }
    /// Spearman's rank correlation with ties, worked out beside the program, of 25 rows in which one input
    /// goes with the margin, one against it and one with neither.
    void sharesOfInfluenceByHand() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        const std::vector<std::string> names = sampling::inputsOf(p, 0);
        std::vector<std::size_t> drawn; // those that are no ratings
        for (std::size_t k = 0; k < names.size(); ++k)
            if (!stays(p, names[k])) drawn.push_back(k);
        for (Estimate* e : inputsBy(p, names)) *e = {1.5, Source::Guess, 0.2};
        std::vector<sampling::Row> rows(25);
        for (int i = 0; i < 25; ++i) rows[static_cast<std::size_t>(i)].margin = 0.5 + 0.1 * ((i * 7) % 25);
        rows[3].margin = rows[11].margin;
        rows[17].margin = rows[20].margin;
        for (int i = 0; i < 25; ++i) {
            sampling::Row& r = rows[static_cast<std::size_t>(i)];
            const double m = r.margin;
            r.limits = i < 4 ? 0.99 : 1.0;
            r.rocking = i < 9 ? 0.99 : 1.0;
            r.inputs.assign(names.size(), 0.25f);
            r.inputs[drawn[1]] = static_cast<float>(-m * m + (i % 3 == 0 ? 1.7 : 0.0));
            r.inputs[drawn[2]] = static_cast<float>(((i * 11) % 25) * 0.1);
            r.inputs[drawn[4]] = static_cast<float>(m + (i % 4 == 0 ? 0.37 : 0.0));
        }
        const auto c = sampling::confidenceOf(p, 0, rows);
        QCOMPARE(c.samples, 25);
        QCOMPARE(c.stalls, 6.0 / 25);
        QCOMPARE(c.exceeds, 4.0 / 25);
        QCOMPARE(c.rocks, 9.0 / 25);
        QCOMPARE(c.influences.size(), std::size_t(2));
        QCOMPARE(c.influences[0].path, names[drawn[4]]);
        QCOMPARE(c.influences[1].path, names[drawn[1]]);
        VERIFY_NEAR(c.influences[0].share, 0.5161666648470341, 1e-9);
        VERIFY_NEAR(c.influences[1].share, 0.48383333515296584, 1e-9);
        QCOMPARE(c.influences[0].input, (Estimate{1.5, Source::Guess, 0.2}));
        // What is known exactly, or is nothing, moves nothing, whatever the rows say.
        inputsBy(p, names)[drawn[4]]->tolerance = 0.0;
        QCOMPARE(sampling::confidenceOf(p, 0, rows).influences.size(), std::size_t(1));
        VERIFY_NEAR(sampling::confidenceOf(p, 0, rows).influences[0].share, 1.0, 1e-12);
        inputsBy(p, names)[drawn[1]]->value = 0.0;
        QVERIFY(sampling::confidenceOf(p, 0, rows).influences.empty());
        QCOMPARE(sampling::confidenceOf(p, 0, {}).samples, 0);
    }
    /// Chance alone correlates: of inputs that have nothing to do with the margin none is named.
    void chanceIsNotNamed() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        const std::size_t inputs = sampling::inputsOf(p, 0).size();
        std::mt19937 random(1);
        const auto draw = [&] { return static_cast<float>(random() >> 8) / 16777216.0f; };
        int named = 0;
        for (int round = 0; round < 20; ++round) {
            std::vector<sampling::Row> rows(100);
            for (auto& r : rows) {
                r.margin = static_cast<double>(draw());
                for (std::size_t k = 0; k < inputs; ++k) r.inputs.push_back(draw());
            }
            named += static_cast<int>(sampling::confidenceOf(p, 0, rows).influences.size());
        }
        // Three standard deviations: some 3 in 1000 by chance.
        QVERIFY2(named <= static_cast<int>(20 * inputs) / 100, qPrintable(QString::number(named)));
    }
    void aStopLeavesTheRowsSoFar() {
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(sampling::sampleAxis(rigs::make(rigs::RigKind::BeltSlider), 0, 1, 0, 100, stop.get_token())
                    .empty());
    }
};

QTEST_APPLESS_MAIN(SamplingTest)
#include "sampling_test.moc"
