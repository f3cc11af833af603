// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rigs/rigs.h"
#include "core/verdicts/matters.h"
#include "core/verdicts/next_step.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"

#include <QTest>
#include <algorithm>

using namespace gantry;

/// Verdicts that say the same, and what to do next about those there are.
class MattersTest : public QObject {
    Q_OBJECT
    static Verdict of(const char* rule, State state, double ratio, int axis = 0) {
        Verdict v;
        v.rule = rules::indexOf(rule);
        v.axis = axis;
        v.state = state;
        v.ratio = ratio;
        v.low = ratio;
        v.hazard = rules::indexOf(rule) == rules::indexOf("power_off");
        v.bounds = ruleOf(v).bounds();
        return v;
    }
    static Project twoAxes() {
        Project p = demoProject();
        p.setAside.clear();
        return p;
    }
    static QStringList said(const std::vector<Matter>& list) {
        QStringList out;
        for (const Matter& m : list) {
            QString s = QString::fromStdString(std::string(ruleKey(*m.verdict)));
            for (const Verdict* v : m.alike) s += "+" + QString::fromStdString(std::string(ruleKey(*v)));
            out << s;
        }
        return out;
    }

private slots:
    void whatSaysTheSameIsOne() {
        const Project p = twoAxes();
        const std::vector<Verdict> verdicts{
            of("power_off", State::Over, 0.4),  of("emergency_stop", State::Over, 0.3),
            of("stepping", State::Over, 0.2),   of("jitter", State::Over, 0.1),
            of("torque", State::Oversized, 12), of("motor_size", State::Oversized, 7)};
        // What warns of a fall leads, though the other is worse by its number.
        QCOMPARE(said(matters(p, verdicts)),
                 QStringList({"jitter+stepping", "power_off+emergency_stop", "torque+motor_size"}));
    }
    void anotherStateOrAxisIsAnotherMatter() {
        const Project p = twoAxes();
        QCOMPARE(
            matters(p, std::vector{of("stepping", State::Over, 0.2), of("jitter", State::Tight, 1.1)}).size(),
            std::size_t(2));
        QCOMPARE(matters(p, std::vector{of("stepping", State::Over, 0.2), of("jitter", State::Over, 0.2, 1)})
                     .size(),
                 std::size_t(2));
        QCOMPARE(
            matters(p, std::vector{of("torque", State::Over, 0.2), of("jitter", State::Over, 0.2)}).size(),
            std::size_t(2));
        // Nothing is known of either: both say why.
        QCOMPARE(
            matters(p, std::vector{of("stepping", State::Unknown, 0.2), of("jitter", State::Unknown, 0.2)})
                .size(),
            std::size_t(2));
    }
    void whatIsSetAsideStaysApart() {
        Project p = twoAxes();
        p.setAside.push_back({"jitter", p.axes[0].id, {}, "seen"});
        const std::vector<Verdict> verdicts{of("stepping", State::Over, 0.2), of("jitter", State::Over, 0.1)};
        QCOMPARE(said(matters(p, verdicts)), QStringList({"jitter", "stepping"}));
        // The next step passes over it.
        QCOMPARE(nextStep(p, matters(p, verdicts)).verdict->rule, verdicts[0].rule);
        // A hazard too, though it stays in sight: somebody has said why.
        p.setAside.push_back({"power_off", p.axes[0].id, {}, "a strap holds it"});
        const std::vector<Verdict> hazard{of("power_off", State::Over, 0.1), verdicts[0]};
        QCOMPARE(nextStep(p, matters(p, hazard)).verdict->rule, verdicts[0].rule);
    }
    /// Every verdict is in just one matter.
    void noVerdictIsLost() {
        const Project p = demoProject();
        const Assessment a = assess(p);
        std::vector<const Verdict*> seen;
        for (const Matter& m : matters(p, a.verdicts)) {
            seen.push_back(m.verdict);
            seen.insert(seen.end(), m.alike.begin(), m.alike.end());
        }
        std::sort(seen.begin(), seen.end());
        QCOMPARE(seen.size(), a.verdicts.size());
        QVERIFY(std::adjacent_find(seen.begin(), seen.end()) == seen.end());
    }
    /// Of what puts the worst at risk, the input that decides most is measured first.
    void measuresWhatDecidesMost() {
        const Project p = twoAxes();
        std::vector<Verdict> verdicts{of("belt_preload", State::AtRisk, 1.1),
                                      of("repeat", State::AtRisk, 1.5), of("torque", State::AtRisk, 1.6),
                                      of("noise", State::Over, 0.9)};
        const std::string friction = "axes/slide/mechanism/running_friction_N",
                          mass = "axes/slide/mechanism/moving_mass_kg";
        verdicts[0].deciding = {mass, friction};
        verdicts[1].deciding = {friction};
        verdicts[2].deciding = {friction};
        NextStep step = nextStep(p, matters(p, std::vector(verdicts.begin(), verdicts.begin() + 3)));
        QCOMPARE(step.measure, friction);
        QCOMPARE(step.decided, 3);
        QCOMPARE(toDoSentence(step, p), std::string("measure the running friction: it decides 3 verdicts"));
        // What fails as entered comes first, and measuring does not mend it.
        step = nextStep(p, matters(p, verdicts));
        QVERIFY(step.measure.empty());
        QCOMPARE(toDoSentence(step, p), std::string("choose a fix for it"));
        QCOMPARE(decidesSentence(step, units::System::Metric),
                 "decided by " + title(verdicts[3]) + ": over ×0.9");
    }
    void whatIsNotKnownIsToBeEntered() {
        const Project p = twoAxes();
        std::vector<Verdict> verdicts{of("anchors", State::Unknown, 1.0)};
        verdicts[0].ratio = Figure::none(Reason::NeedsAnchors);
        NextStep step = nextStep(p, matters(p, verdicts));
        QCOMPARE(decidesSentence(step, units::System::Metric), "not known yet: " + title(verdicts[0]));
        QCOMPARE(toDoSentence(step, p), std::string("see what it needs"));
        verdicts[0].ratio = Figure::none(Reason::NotSearched); // by itself, in a moment
        QVERIFY(toDoSentence(nextStep(p, matters(p, verdicts)), p).empty());
    }
    /// What names itself is not named twice: "the counterweight", not of the counterweight.
    void inputsAreNamedOnce() {
        const Project p = demoProject("kettle-jib");
        std::vector<Verdict> verdicts{of("jitter", State::AtRisk, 1.2, 1)};
        verdicts[0].deciding = {"axes/boom/mechanism/boom/counterweight/mass_kg"};
        QCOMPARE(toDoSentence(nextStep(p, matters(p, verdicts)), p),
                 std::string("measure the counterweight"));
        verdicts[0].deciding = {"payload/lens/mass_kg"};
        QCOMPARE(toDoSentence(nextStep(p, matters(p, verdicts)), p),
                 std::string("measure the mass of “24 mm lens”"));
    }
    void nothingToDoSaysNothing() {
        const Project p = twoAxes();
        QVERIFY(toDoSentence(nextStep(p, {}), p).empty());
        const std::vector<Verdict> fine{of("torque", State::Fine, 3.0)};
        const NextStep step = nextStep(p, matters(p, fine));
        QVERIFY(toDoSentence(step, p).empty());
        QCOMPARE(decidesSentence(step, units::System::Metric), "decided by " + title(fine[0]) + ": fine ×3");
    }
    /// Where all holds, the guess that counts most is to be measured: of a rig to start from, the input that
    /// moves the verdict nearest to its target most.
    void theGuessThatCountsMost() {
        Project p = rigs::make(rigs::RigKind::WinchedCart);
        Assessment a = assess(p);
        std::string path = guessThatCounts(p, a.verdicts, 0);
        QCOMPARE(path, std::string("axes/cart/links/cart-belt/preload_N")); // the shaft's load, twice that
        QCOMPARE(measureGuessSentence(p, path, 0),
                 std::string("measure the belt preload of the belt stage, the guess that counts most"));
        // Once it is measured another may count, or none; never the measured one.
        Project copy = p;
        std::get<BeltStage>(copy.axes[0].links[0]).preload.source = Source::Measured;
        QVERIFY(guessThatCounts(copy, assess(copy).verdicts, 0) != path);
        QVERIFY(guessThatCounts(p, {}, 0).empty());
    }
    /// Guesses are counted by their source; what is nothing is not counted.
    void knowledgeCountsSources() {
        Project p = twoAxes();
        const Knowledge before = knowledgeOf(p, 0);
        QVERIFY(before.guessed > 0 && before.guessed < before.inputs);
        auto& mechanism = std::get<LinearMechanism>(p.axes[0].mechanism);
        QCOMPARE(mechanism.runningFriction.source, Source::Guess);
        mechanism.runningFriction.source = Source::Measured;
        QCOMPARE(knowledgeOf(p, 0).guessed, before.guessed - 1);
        QCOMPARE(knowledgeOf(p, 0).inputs, before.inputs);
        mechanism.runningFriction.value = 0.0;
        QCOMPARE(knowledgeOf(p, 0).inputs, before.inputs - 1);
        QCOMPARE(knowledgeOf(p, 7).inputs, 0);
        QCOMPARE(sentence(Knowledge{12, 0}), std::string("All 12 inputs measured, counted or from a sheet"));
        QCOMPARE(sentence(Knowledge{12, 5}), std::string("5 of 12 inputs are guesses"));
    }
};

QTEST_APPLESS_MAIN(MattersTest)
#include "matters_test.moc"
