// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <limits>
#include <set>

using namespace gantry;

class VerdictsTest : public QObject {
    Q_OBJECT
    static const Verdict* find(const Assessment& a, std::string_view key, int axis) {
        for (const Verdict& v : a.verdicts)
            if (ruleKey(v) == key && v.axis == axis) return &v;
        return nullptr;
    }
    static Project with(const std::vector<std::pair<const char*, double>>& edits) {
        Project p = demoProject();
        for (const auto& [path, value] : edits)
            if (!setNumberAt(p, path, value)) qFatal("%s", path);
        return p;
    }
private slots:
    /// Worst first: over, what is not known, tight, fine, oversized; among equals the one that has least of
    /// what it wants, and what has no number last.
    void worstFirst() {
        const auto verdict = [](State state, double low, double wanted) {
            Verdict v;
            v.state = state;
            v.ratio = state == State::Unknown ? Figure::none(Reason::NoShot) : Figure(low);
            v.low = low;
            v.bounds.wanted = wanted;
            return v;
        };
        const std::vector<Verdict> order{
            verdict(State::Over, 0.3, 1.0),     verdict(State::Over, 0.8, 2.0),
            verdict(State::Over, 0.7, 1.0),     verdict(State::Unknown, 0.0, 2.0),
            verdict(State::Tight, 1.2, 2.0),    verdict(State::Tight, 1.1, 1.5),
            verdict(State::Fine, 3.0, 2.0),     verdict(State::Fine, 2.0, 1.0),
            verdict(State::Oversized, 9.0, 2.0)};
        for (std::size_t i = 0; i < order.size(); ++i)
            for (std::size_t k = 0; k < order.size(); ++k) QCOMPARE(worseThan(order[i], order[k]), i < k);
        Verdict without = order[0];
        without.ratio = Figure::none(Reason::NoShot);
        QVERIFY(worseThan(without, order[0]) && !worseThan(order[0], without));
    }
    void stateBounds() {
        const Bounds b{2, 6};
        QCOMPARE(stateOf(0.999, b), State::Over);
        QCOMPARE(stateOf(1.0, b), State::Tight);
        QCOMPARE(stateOf(1.999, b), State::Tight);
        QCOMPARE(stateOf(2.0, b), State::Fine);
        QCOMPARE(stateOf(6.0, b), State::Oversized);
        QCOMPARE(stateOf(1e9, Bounds{2, 0}), State::Fine);
        QCOMPARE(stateOf(5.999999, b), State::Fine);
        QCOMPARE(stateOf(0.5, Bounds{0.2, 0.3}), State::Over); // below what is needed, whatever is wanted
        QCOMPARE(stateOf(std::nan(""), b), State::Unknown);
    }
    /// The demo has work for fixes: something over, something tight.
    void demoHasOverAndTight() {
        const Assessment a = assess(demoProject());
        std::set<State> states;
        for (const Verdict& v : a.verdicts) states.insert(v.state);
        QVERIFY(states.contains(State::Over) && states.contains(State::Tight) &&
                states.contains(State::Fine));
        VERIFY_NEAR(find(a, "power_off", 0)->ratio.value(), 0.36, 5e-3);
        QCOMPARE(find(a, "power_off", 0)->state, State::Over);
        VERIFY_NEAR(find(a, "judder", 0)->ratio.value(), 0.74, 5e-3);
        VERIFY_NEAR(find(a, "torque", 0)->ratio.value(), 3.14, 2e-3);
        QVERIFY(find(a, "power_off", 1) == nullptr);
    }
    void frictionIsNeverABrake() {
        const Assessment a = assess(with(
            {{"axes/slide/mechanism/slope_rad", 0.03}, {"axes/slide/mechanism/running_friction_N", 50}}));
        const Verdict* v = find(a, "power_off", 0);
        QVERIFY(v->ratio.value() > 10);
        QCOMPARE(v->state, State::Tight);
        QVERIFY(v->hazard);
    }
    void brakeHolds() {
        const Assessment a =
            assess(with({{"axes/slide/brake/fitted", 1}, {"axes/slide/brake/holding_torque_Nm", 0.4}}));
        const Verdict* v = find(a, "power_off", 0);
        VERIFY_NEAR(v->ratio.value(), 0.4 / (8.36 * 0.04 / 6.283185), 2e-3);
        QCOMPARE(v->state, State::Fine);
        QVERIFY(!a.evaluation.axes[0].powerOff.falls);
    }
    void resonanceInsideItsBand() {
        const Assessment a = assess(with({{"shots/creep/moves/slide/movement/speed_m_s", 0.0029}}));
        QCOMPARE(find(a, "resonance", 0)->state, State::Over);
        // Between both bands: the other begins at 40 mm/s.
        Project alone = with({{"shots/creep/moves/slide/movement/speed_m_s", 0.01}});
        std::erase_if(alone.shots, [](const Shot& shot) { return shot.id != "creep"; });
        const Assessment far = assess(alone);
        QVERIFY(find(far, "resonance", 0)->ratio.value() > 1.5);
    }
    void pulsesOverTheCeiling() {
        const Assessment a = assess(with({{"controller/pulse_ceiling_hz", 15000}}));
        VERIFY_NEAR(find(a, "pulse_rate", 0)->ratio.value(), 0.75, 1e-9);
        QCOMPARE(find(a, "pulse_rate", 0)->state, State::Over);
    }
    /// Gravity on a slope keeps the play on one side, and is said to; on the level it does not.
    void backlashIsKeptByGravity() {
        QCOMPARE(find(assess(demoProject()), "backlash", 0)->state, State::Fine);
        QVERIFY(find(assess(demoProject()), "backlash", 0)->ratio.value() > 1.5);
        const Assessment level = assess(with({{"axes/slide/mechanism/slope_rad", 0}}));
        QVERIFY(find(level, "backlash", 0)->sentence.text.starts_with("In “{shot}” the backlash"));
    }
    /// A wider guess can only lower the low end, and never touches the nominal ratio.
    void guessesDecideTheState() {
        Project p = demoProject();
        auto& friction = std::get<LinearMechanism>(p.axes[0].mechanism).runningFriction;
        friction.tolerance = 0;
        const double sure = find(assess(p), "torque", 0)->low;
        friction.tolerance = 3.0;
        const Verdict guessed = *find(assess(p), "torque", 0);
        QVERIFY(guessed.low < sure);
        VERIFY_NEAR(guessed.ratio.value(), 3.14, 2e-3);
        // Less than is wanted at the low end, but enough as entered and enough there.
        QVERIFY(guessed.low < 2.0 && guessed.low > 1.0);
        QCOMPARE(guessed.state, State::Fine);
        QVERIFY(guessed.deciding.empty());
        friction.value = 6.0;
        friction.tolerance = 10.0;
        const Verdict doubtful = *find(assess(p), "torque", 0);
        QVERIFY(doubtful.low < 1.0);
        QCOMPARE(doubtful.state, State::AtRisk);
        QVERIFY(doubtful.ratio.value() > 1.0);
        QCOMPARE(doubtful.deciding, std::vector<std::string>{"axes/slide/mechanism/running_friction_N"});
        const QString said = QString::fromStdString(sentence(doubtful, p, units::System::Metric));
        QVERIFY2(said.contains("the running friction (") && said.contains("measure it first"),
                 qPrintable(said));
    }
    /// First-order range of the torque margin against the analytic one: d(margin)/margin from holding torque
    /// alone.
    void rangeOfOneInput() {
        Project p = demoProject();
        for (Estimate* e : estimatesOf(p.axes[0])) e->tolerance = 0;
        p.supply.voltage.tolerance = p.supply.sourceResistance.tolerance = 0;
        std::get<Stepper>(p.axes[0].motor).holdingTorque.tolerance = 0.1;
        const Verdict v = *find(assess(p), "torque", 0);
        VERIFY_NEAR(v.low, v.ratio.value() * 0.9, 1e-6); // current-limited: torque goes with Th
    }
    void everySentenceIsComplete() {
        const Project p = demoProject();
        for (const Verdict& v : assess(p).verdicts) {
            const QString s = QString::fromStdString(sentence(v, p, units::System::Inch));
            QVERIFY2(!s.contains('{') && !s.contains("–") && s.endsWith('.'), qPrintable(s));
            QVERIFY(!title(v).empty());
        }
    }
    void setAsideStaysKnown() {
        Project p = demoProject();
        p.setAside.push_back({"power_off", "slide", "", "a strap holds the carriage"});
        const Assessment a = assess(p);
        QCOMPARE(setAsideFor(p, *find(a, "power_off", 0))->reason, std::string("a strap holds the carriage"));
        QVERIFY(setAsideFor(p, *find(a, "torque", 0)) == nullptr);
    }
    /// Every fix offered does what it says when it is applied for real.
    void fixesAreTrue() {
        const Project p = demoProject();
        const Assessment a = assess(p);
        int offered = 0;
        for (const Verdict& v : a.verdicts) {
            if (!mendable(v.state)) continue;
            for (const Fix& fix : findFixes(p, a, v, {}, 5, stockInShops())) {
                ++offered;
                QVERIFY(!(fix.result == p));
                QVERIFY(inconsistencies(fix.result).empty());
                const Assessment after = assess(fix.result);
                const Verdict* mended = find(after, ruleKey(v), v.axis);
                QCOMPARE(mended != nullptr ? mended->state : State::Fine, fix.stateAfter);
                QVERIFY(fix.stateAfter != v.state);
                for (const Verdict& w : after.verdicts) {
                    const Verdict* before = find(a, ruleKey(w), w.axis);
                    const bool bad = w.state == State::Over || w.state == State::AtRisk;
                    const bool wasBad =
                        before != nullptr && (before->state == State::Over || before->state == w.state);
                    QVERIFY2(!bad || wasBad, title(w).c_str());
                }
                QVERIFY(!describe(fix, p, units::System::Metric).empty());
            }
        }
        QVERIFY(offered >= 8);
    }
    void theFiveAskedForHaveFixes() {
        const auto check = [&](const Project& p, const char* rule, int axis) {
            const Assessment a = assess(p);
            const Verdict* v = find(a, rule, axis);
            QVERIFY2(v != nullptr && mendable(v->state), rule);
            QVERIFY2(!findFixes(p, a, *v, {}, 5, stockInShops()).empty(), rule);
        };
        check(with({{"axes/slide/mechanism/moving_mass_kg", 20}}), "torque", 0);
        check(demoProject(), "power_off", 0);
        check(with({{"controller/pulse_ceiling_hz", 15000}}), "pulse_rate", 0);
        check(with({{"shots/creep/moves/slide/movement/speed_m_s", 0.0096}}), "resonance", 0);
        check(demoProject(), "stepping", 1);
    }
    void locksAreKept() {
        Project p = with({{"controller/pulse_ceiling_hz", 15000}});
        p.lockedFields = {"axes/slide/driver/microsteps", "axes/slide/mechanism/output/teeth", "shots",
                          "controller/pulse_ceiling_hz"};
        const Assessment a = assess(p);
        QVERIFY(findFixes(p, a, *find(a, "pulse_rate", 0), {}, 5, stockInShops()).empty());
    }
    void fixesStayWithinRatingsAndNeverLowerHolding() {
        const Project p = with({{"axes/slide/mechanism/moving_mass_kg", 14}});
        const Assessment a = assess(p);
        for (const Verdict& v : a.verdicts)
            if (mendable(v.state))
                for (const Fix& fix : findFixes(p, a, v, {}, 5, stockInShops()))
                    for (std::size_t i = 0; i < p.axes.size(); ++i) {
                        const Driver& d = fix.result.axes[i].driver;
                        QVERIFY(d.runCurrent <= d.maxCurrent + 1e-9 ||
                                d.runCurrent <= p.axes[i].driver.runCurrent);
                        QVERIFY(d.runCurrent <=
                                std::get<Stepper>(fix.result.axes[i].motor).ratedCurrent.value + 1e-9);
                        QVERIFY(fix.result.supply.voltage.value <= d.maxVoltage);
                        QVERIFY(d.holdCurrent >= p.axes[i].driver.holdCurrent);
                    }
    }
    void fixesCanBeStopped() {
        std::stop_source stop;
        stop.request_stop();
        const Project p = demoProject();
        const Assessment a = assess(p);
        QVERIFY(findFixes(p, a, *find(a, "power_off", 0), stop.get_token(), 5, stockInShops()).empty());
    }
};

QTEST_APPLESS_MAIN(VerdictsTest)
#include "verdicts_test.moc"
