// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <map>
#include <random>

using namespace gantry;

/// Each rule by numbers worked on paper from the demo's inputs, and each brought over its limit on purpose.
class RulesTest : public QObject {
    Q_OBJECT
    using Edits = std::vector<std::pair<const char*, double>>;
    static Project with(const Edits& edits) {
        Project p = demoProject();
        for (const auto& [path, value] : edits)
            if (!setNumberAt(p, path, value)) qFatal("%s", path);
        return p;
    }
    static std::optional<Verdict> judgeOne(const Project& p, std::string_view rule, int axis) {
        for (const Verdict& v : judge(p, evaluate(p)))
            if (ruleKey(v) == rule && v.axis == axis) return v;
        return std::nullopt;
    }
    static double ratio(const Edits& edits, std::string_view rule, int axis) {
        return judgeOne(with(edits), rule, axis)->ratio.value();
    }
    static constexpr double px = 4148.148; // px per m of the slide, 35 mm at 0.9 m

private slots:
    void standstill() {
        // Hold current 0.6 A of 1.7 A on 0.44 N·m; gravity 8.36 N at 6.366 mm.
        VERIFY_NEAR(ratio({}, "standstill", 0), 0.44 * 0.6 / 1.7 / (8.3596 * 0.0063662), 1e-3);
        QCOMPARE(judgeOne(with({{"axes/slide/driver/hold_current_rms_A", 0.1}}), "standstill", 0)->state,
                 State::Over);
        QVERIFY(!judgeOne(demoProject(), "standstill", 1)); // nothing pulls on the pan
    }
    void drift() {
        // m a / k = 3.28 N over 36.36 kN/m, in five frames of a 0.2 s jerk phase.
        VERIFY_NEAR(ratio({}, "drift", 0), 0.3 / (3.28 / 36363.6 * px / 5), 2e-3);
        QCOMPARE(
            judgeOne(with({{"axes/slide/mechanism/output/tensile_stiffness_N", 1500}}), "drift", 0)->state,
            State::Over);
    }
    void repeatOfTheSlide() {
        // Friction band asin(3 N·r/Ta)/Nr and the lag's change from 1.2 to 0.6 A under gravity; no backlash
        // uphill.
        const double r = 0.0063662, run = 0.3106, hold = 0.1553, gravity = 8.3596 * r;
        const double band = std::asin(3 * r / run) / 50,
                     shift = (std::asin(gravity / hold) - std::asin(gravity / run)) / 50;
        // And the belt: 1 N between breaking away and sliding, on 36.36 kN/m.
        const double belt = 2 * 1.0 / 36363.6 / r;
        VERIFY_NEAR(ratio({}, "repeat", 0), 1.0 / ((band + shift + belt) * r * px), 2e-3);
        // With the hold current at the run current the shift is gone.
        VERIFY_NEAR(ratio({{"axes/slide/driver/hold_current_rms_A", 1.2}}, "repeat", 0),
                    1.0 / ((band + belt) * r * px), 2e-3);
    }
    void framing() {
        const double windUp = (3.0 + 8.3596) / 36363.6 * px;
        const double lag = 0.171, accuracy = 0.05 * 0.2e-3 * px;
        VERIFY_NEAR(ratio({}, "framing", 0), 0.02 * 3840 / (lag + accuracy + windUp), 0.01);
        QCOMPARE(judgeOne(with({{"shots/reveal/limits/framing_share", 1e-5}}), "framing", 0)->state,
                 State::Over);
    }
    void backlashAndJitterOnTheLevel() {
        const Edits level{{"axes/slide/mechanism/slope_rad", 0}};
        VERIFY_NEAR(ratio(level, "backlash", 0), 1.0 / (5e-5 * px), 1e-3); // 1 px between passes
        // Jitter holds the let-go backlash and more.
        QVERIFY(ratio(level, "jitter", 0) < 0.5 * ratio(level, "backlash", 0)); // half a pixel is allowed
        QVERIFY(ratio(level, "jitter", 0) < ratio({}, "jitter", 0) / 5);
    }
    void steppingOfThePan() {
        // At 6.154 °/s: W = 284.4 × 0.02 microsteps an exposure; ripple of 0.3462° steps, 17.8 a second.
        const double pxPerDegree = 3733.33 * 3.14159265 / 180, speed = 40 / 6.5, microstep = 9.0 / 416;
        const double micro = microstep * pxPerDegree * 0.25 / (speed / microstep * 0.02);
        const double f = speed / (16 * microstep), amplitude = 0.05 * 16 * microstep * pxPerDegree;
        const double ripple =
            2 * amplitude * std::min(1.0, 3.14159265 * f / 25) / std::max(1.0, 3.14159265 * f * 0.02);
        VERIFY_NEAR(ratio({}, "stepping", 1), 0.5 / (micro + ripple), 2e-3);
    }
    void judder() {
        VERIFY_NEAR(ratio({}, "judder", 0), 3840 / (0.25 * px) / 5, 1e-3);
        // At 60 frames a second half the time is enough.
        VERIFY_NEAR(ratio({{"shots/reveal/frame_rate_hz", 60},
                           {"shots/rise/frame_rate_hz", 60},
                           {"shots/creep/frame_rate_hz", 60}},
                          "judder", 0),
                    3840 / (0.25 * px) / 2.5, 1e-3);
    }
    void rounding() {
        QVERIFY(!judgeOne(demoProject(), "rounding", 0)); // 80 is exact
        // 416/9 kept with no decimal is 46: 0.48 % over 40°.
        const double off = (416.0 / 9 - 46) / (416.0 / 9) * 40 * 3733.33 * 3.14159265 / 180;
        VERIFY_NEAR(ratio({{"controller/decimals_kept", 0}}, "rounding", 1), 1 / off, 1e-3);
    }
    void currentsAndRatings() {
        VERIFY_NEAR(ratio({}, "motor_current", 0), 1.7 / 1.2, 1e-9);
        QCOMPARE(judgeOne(with({{"axes/slide/driver/run_current_rms_A", 1.9}}), "motor_current", 0)->state,
                 State::Over);
        VERIFY_NEAR(ratio({}, "driver_rating", 0), 29.0 / 24, 1e-9);
        QCOMPARE(judgeOne(with({{"supply/voltage_V", 36}}), "driver_rating", 0)->state, State::Over);
        VERIFY_NEAR(ratio({{"axes/slide/driver/hold_current_rms_A", 1.95}}, "driver_rating", 0), 2.0 / 1.95,
                    1e-9);
    }
    void stoppingAndTravel() {
        // 0.94 m usable, 0.86 m filmed; stopping v (v/a + a/j)/2.
        VERIFY_NEAR(ratio({}, "stopping", 0), 1 + 0.08 / (0.25 * (0.25 / 0.8 + 0.2) / 2), 1e-6);
        VERIFY_NEAR(ratio({}, "travel", 0), 0.93 / 0.86, 1e-9);
        QCOMPARE(judgeOne(with({{"axes/slide/mechanism/rail_length_m", 0.9}}), "travel", 0)->state,
                 State::Over);
        QCOMPARE(ratio({{"axes/slide/mechanism/rail_length_m", 0.9}}, "stopping", 0), 0.0);
    }
    void settings() {
        VERIFY_NEAR(ratio({}, "settings", 0), 0.3 / 0.25, 1e-6);
        VERIFY_NEAR(ratio({{"axes/slide/mechanism/motion/max_acceleration_m_s2", 0.4}}, "settings", 0), 0.5,
                    1e-6);
    }
    void ease() {
        QVERIFY(!judgeOne(demoProject(), "ease", 0));
        const auto v = judgeOne(with({{"shots/rise/moves/slide/movement/ease_in_s", 0.1}}), "ease", 0);
        const double speed = 0.5 / (8 - 1.6 / 2);
        VERIFY_NEAR(v->ratio.value(), 4 / (4 * speed / 0.01), 1e-6);
        QCOMPARE(v->state, State::Over);
    }
    void resonanceBandIsSymmetricOnARatioScale() {
        const RotorResonance r = evaluate(demoProject()).axes[0].resonance;
        const auto at = [&](double speed) {
            Project p = with({{"shots/creep/moves/slide/movement/speed_m_s", speed}});
            std::erase_if(p.shots, [](const Shot& shot) { return shot.id != "creep"; });
            return judgeOne(p, "resonance", 0)->ratio.value();
        };
        // Where the low band is the nearest: the other lies far above, or is cleared by as much.
        VERIFY_NEAR(at(r.low.value() / 1.2), 1.2, 1e-3);
        VERIFY_NEAR(at(r.high.value() * 1.1), 1.1, 1e-3);
        QVERIFY(at(r.speed.value()) < 0.85);
        VERIFY_NEAR(at(r.secondSpeed.value()), 1.05, 1e-9); // it sings, and loses nothing
    }
    void oversizeNeedsThreeTimesTheMargin() {
        QVERIFY(!judgeOne(demoProject(), "motor_size", 0));
        QCOMPARE(judgeOne(demoProject(), "motor_size", 1)->state, State::Oversized);
    }
    void wantedMarginIsTheAxis() {
        QCOMPARE(judgeOne(with({{"axes/slide/wanted_margin", 4}}), "torque", 0)->state, State::Tight);
        QCOMPARE(judgeOne(with({{"axes/slide/wanted_margin", 1.5}}), "torque", 0)->state, State::Fine);
    }
    void missingDataIsUnknownWithItsReason() {
        const Project p = with({{"axes/slide/motor/inductance_H", 0}});
        const auto v = judgeOne(p, "torque", 0);
        QCOMPARE(v->state, State::Unknown);
        QCOMPARE(sentence(*v, p, units::System::Metric),
                 std::string("Not known yet: needs the motor's inductance."));
    }
    void aShotThatCannotBeIsSaid() {
        const Project p = with({{"shots/rise/moves/slide/movement/time_s", 1}});
        const auto v = judgeOne(p, "torque", 0);
        QCOMPARE(v->state, State::Unknown);
        QVERIFY(sentence(*v, p, units::System::Metric).find("time is too short") != std::string::npos);
    }
    /// First-order low ends against the spread of 4000 sampled rigs, inputs uniform with the standard
    /// deviation that the tolerance stands for.
    void lowEndsAgreeWithSampling() {
        Project p = demoProject();
        for (Estimate* e : estimatesOf(p.axes[0])) e->tolerance *= 0.04; // where the model is still straight
        p.supply.voltage.tolerance = p.supply.sourceResistance.tolerance = 0.0;
        const Assessment nominal = assess(p);
        std::mt19937_64 random(4);
        std::uniform_real_distribution<double> u(-std::sqrt(3.0), std::sqrt(3.0));
        std::map<std::string, std::pair<double, double>> sums; // rule → Σ, Σ²
        const int n = 4000;
        std::vector<Verdict> verdicts;
        for (int i = 0; i < n; ++i) {
            Project q = p;
            for (Estimate* e : estimatesOf(q.axes[0])) e->value *= 1 + e->tolerance * u(random);
            // Break-away goes up and down with running friction.
            LinearMechanism& moved = std::get<LinearMechanism>(q.axes[0].mechanism);
            moved.staticFriction.value *=
                moved.runningFriction.value /
                std::get<LinearMechanism>(p.axes[0].mechanism).runningFriction.value;
            verdicts.clear();
            judgeAxis(q, 0, evaluateAxis(q, q.axes[0], Searches::No), verdicts);
            for (const Verdict& v : verdicts)
                if (v.ratio) {
                    auto& [sum, squares] = sums[std::string(ruleKey(v))];
                    sum += v.ratio.value();
                    squares += v.ratio.value() * v.ratio.value();
                }
        }
        for (const char* rule : {"torque", "standstill", "resonance", "repeat", "power_off"}) {
            const auto it = std::find_if(nominal.verdicts.begin(), nominal.verdicts.end(),
                                         [&](const Verdict& v) { return v.axis == 0 && ruleKey(v) == rule; });
            const auto [sum, squares] = sums.at(rule);
            const double spread = std::sqrt(squares / n - sum / n * sum / n);
            VERIFY_NEAR(it->ratio.value() - it->low, spread, 0.12);
        }
    }
};

QTEST_APPLESS_MAIN(RulesTest)
#include "rules_test.moc"
