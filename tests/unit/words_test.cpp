// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/rigs/rigs.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/next_step.h"
#include "core/verdicts/rules.h"
#include "core/verdicts/side_effects.h"
#include "core/words/empty_hint.h"
#include "core/words/messages.h"
#include "support/files.h"

#include <QRegularExpression>
#include <QSet>
#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace gantry::words;

class WordsTest : public QObject {
    Q_OBJECT
    static QString text(const Message& m) {
        return QString::fromUtf8(m.text.data(), static_cast<qsizetype>(m.text.size()));
    }
    /// Everything that rules and fixes can say.
    static std::vector<Message> everyMessage() {
        std::vector<Message> all{unknownText};
        for (const rules::Rule* r : rules::all()) {
            all.push_back(r->title);
            all.push_back(r->advice);
            all.insert(all.end(), r->sentences.begin(), r->sentences.end());
            for (const fixes::Family* f : r->fixes) all.insert(all.end(), f->labels.begin(), f->labels.end());
        }
        for (const auto& texts : {doubtTexts(), fixTexts(), nextStepTexts()})
            all.insert(all.end(), texts.begin(), texts.end());
        return all;
    }
private slots:
    /// What a fix does to several axes alike is said once.
    void alikeIsSaidOnce() {
        Fix fix;
        const auto effect = [&](std::string_view rule, int axis, State after) {
            SideEffect s;
            s.before.rule = s.after.rule = rules::indexOf(rule);
            s.before.axis = s.after.axis = axis;
            s.before.state = State::Fine;
            s.after.state = after;
            fix.sideEffects.push_back(s);
        };
        effect("move_resonance", 0, State::Tight);
        effect("torque", 0, State::Tight);
        effect("move_resonance", 1, State::Tight);
        effect("move_resonance", 2, State::AtRisk);
        const std::vector<SaidEffect> said = saidEffects(fix);
        QCOMPARE(said.size(), std::size_t(3));
        QCOMPARE(said[0].title, std::string("Resonance in the move of 2 axes"));
        QCOMPARE(said[1].title, std::string("Torque over the ramp"));
        QCOMPARE(said[2].title, std::string("Resonance in the move"));
        QCOMPARE(said[2].after, State::AtRisk);
    }
    /// Short sentences, and none of the words that only this program would use.
    void plainWords() {
        const QRegularExpression end("(?<=[.!?;:])\\s"),
            retired("\\b(it|they|mount|chip|material|pin|bearings?|bolts?) stands?\\b|\\bstands? "
                    "\\{|\\b(asks|wants|rocks|rocking|"
                    "dies|nods|bounces|leans)\\b|die down|swings alone|play of the drive|\\bPart \\{");
        QVERIFY(retired.match("Part {1} of it; it stands {2}.").hasMatch());
        for (const Message& m : everyMessage()) {
            for (const QString& sentence : text(m).split(end))
                QVERIFY2(sentence.split(QLatin1Char(' ')).size() <= 25, qPrintable(sentence));
            QVERIFY2(!retired.match(text(m)).hasMatch(), qPrintable(text(m)));
        }
        for (int i = 0; i <= static_cast<int>(Reason::OutOfRange); ++i) {
            const std::string_view reason = reasonText(static_cast<Reason>(i));
            QVERIFY2(!retired.match(QString::fromUtf8(reason.data(), static_cast<qsizetype>(reason.size())))
                          .hasMatch(),
                     std::string(reason).c_str());
        }
    }
    void everyMessageUsesKnownPlaceholders() {
        const QRegularExpression inBraces("\\{([^}]*)\\}");
        for (const Message& m : everyMessage()) {
            const QString s = text(m);
            QVERIFY(!s.isEmpty());
            auto it = inBraces.globalMatch(s);
            while (it.hasNext()) {
                const QString name = it.next().captured(1);
                QVERIFY2(
                    QSet<QString>({"0", "1", "2", "3", "4", "5", "axis", "shot", "reason", "part", "room"})
                        .contains(name),
                    qPrintable(s));
            }
        }
    }
    void rendersInBothSystems() {
        const Arguments a{{{units::Kind::Torque, 0.0988},
                           {units::Kind::Torque, 0.3106},
                           {units::Kind::RotationRate, 39.27}}};
        QCOMPARE(
            render(rules::torque.sentences[1], a, {"Slide", "Reveal"}, units::System::Metric),
            std::string(
                "“Reveal” needs 0.0988 N·m at the end of the ramp; the motor has 0.311 N·m at 375 rpm."));
        QVERIFY(render(rules::torque.sentences[1], a, {"Slide", "Reveal"}, units::System::Inch)
                    .find("14 oz·in") != std::string::npos);
    }
    /// Nobody counts hours in seconds, nor two seconds in minutes.
    void longTimesAreSpelled() {
        constexpr Message waits{"{0}, then {1} and {2}"};
        const Arguments a{
            {{units::Kind::Time, 28800.0}, {units::Kind::Time, 1.5}, {units::Kind::Time, 200.0}}};
        QCOMPARE(render(waits, a, {}, units::System::Metric), std::string("8 h, then 1.5 s and 3 min 20 s"));
    }
    /// A hint stands for 0, so its field takes 0; it fits the field; and it names a field that there is.
    void emptyHintsBelongToFields() {
        QSet<QString> used;
        const auto walk = [&](Project p) {
            for (const FieldRef& f : allFields(p)) {
                const std::string_view hint = emptyHint(f.path);
                if (hint.empty()) continue;
                QVERIFY2(!std::holds_alternative<std::string*>(f.target), f.path.c_str());
                QVERIFY2(f.info.min <= 0.0 && f.info.max >= 0.0, f.path.c_str());
                const std::size_t slash = f.path.rfind('/');
                used.insert(QString::fromStdString(f.path.substr(slash + 1)));
            }
        };
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
            walk(demoProject(demo));
        for (const rigs::RigInfo& info : rigs::all()) walk(rigs::make(info.kind));
        Project all = rigs::make(rigs::RigKind::BeltSlider);
        for (std::size_t i = 0; i < std::variant_size_v<Motor>; ++i) {
            all.axes[0].motor = makeKind<Motor>(i);
            walk(all);
        }
        for (std::size_t i = 0; i < std::variant_size_v<LinearOutput>; ++i) {
            std::get<LinearMechanism>(all.axes[0].mechanism).output = makeKind<LinearOutput>(i);
            walk(all);
        }
        for (const EmptyHint& h : emptyHints()) {
            QVERIFY2(used.contains(QString::fromUtf8(h.key.data(), static_cast<qsizetype>(h.key.size()))),
                     std::string(h.key).c_str());
            QVERIFY(h.hint.size() <= 14);
        }
        QCOMPARE(emptyHint("supply/rated_current_A"), std::string_view("not given"));
        QVERIFY(emptyHint("axes/slide/motor/rated_current_A").empty());
        QVERIFY(emptyHint("payload/body/mass_kg").empty()); // a mass of nothing is no nothing
        QCOMPARE(emptyHint("axes/boom/mechanism/boom/counterweight/mass_kg"), std::string_view("none"));
    }
    /// Labels are short: at most 18 characters, none ends in a stop.
    void labelsAreShort() {
        const auto walk = [&](Project p) {
            for (const FieldRef& f : allFields(p)) {
                const QString label =
                    QString::fromUtf8(f.info.label.data(), static_cast<qsizetype>(f.info.label.size()));
                QVERIFY2(label.size() <= 18, qPrintable(label));
                QVERIFY2(!label.endsWith('.'), qPrintable(label));
            }
        };
        for (const rigs::RigInfo& info : rigs::all()) walk(rigs::make(info.kind));
        walk(demoProject("kettle-jib"));
    }
    /// The program never says "safe"; cautions stand where someone could be hurt.
    void neverSafe() {
        for (const Message& m : everyMessage())
            QVERIFY2(!text(m).contains("safe", Qt::CaseInsensitive), qPrintable(text(m)));
        // What falls or burns says so.
        const auto someSay = [](const rules::Rule& rule, const char* words) {
            return std::any_of(rule.sentences.begin(), rule.sentences.end(),
                               [&](const Message& m) { return text(m).contains(words); });
        };
        QVERIFY(someSay(rules::powerOff, "secure the camera"));
        QVERIFY(someSay(rules::motorCurrent, "hot"));
    }
    void everyReasonHasWords() {
        for (int i = 0; i <= static_cast<int>(Reason::OutOfRange); ++i)
            QVERIFY(!reasonText(static_cast<Reason>(i)).empty());
    }
    void ruleKeysAreUniqueAndFound() {
        QSet<QString> keys;
        for (const rules::Rule* r : rules::all()) {
            const QString key = QString::fromUtf8(r->key().data(), static_cast<qsizetype>(r->key().size()));
            QVERIFY(!keys.contains(key));
            keys.insert(key);
            QCOMPARE(rules::all()[static_cast<std::size_t>(rules::indexOf(r->key()))], r);
            QVERIFY(!text(r->title).contains('{'));
            QVERIFY(r->bounds().wanted >= 1.0 &&
                    (r->bounds().oversizedFrom == 0.0 || r->bounds().oversizedFrom > r->bounds().wanted));
        }
        QCOMPARE(rules::indexOf("nonsense"), -1);
    }
    void figuresCarryNoNonsense() {
        QVERIFY(!Figure::of(std::nan("")));
        QCOMPARE(Figure::of(INFINITY).reason(), Reason::OutOfRange);
        QCOMPARE(Figure::of(INFINITY, Reason::Unbounded).reason(), Reason::Unbounded);
        QCOMPARE(Figure::of(3.0).value(), 3.0);
        QCOMPARE(Figure::none(Reason::NoShot).valueOr(7.0), 7.0);
        QCOMPARE(Figure::none(Reason::None).reason(), Reason::OutOfRange);
    }
    /// What is computed of figures has a number where all have one, else the reason of the first without.
    void figuresPassReasonsOn() {
        const Figure two = 2.0, shot = Figure::none(Reason::NoShot), base = Figure::none(Reason::NeedsBase);
        QCOMPARE((two + 3.0).value(), 5.0);
        QCOMPARE((two - 3.0).value(), -1.0);
        QCOMPARE((two * 3.0).value(), 6.0);
        QCOMPARE((3.0 / two).value(), 1.5);
        QCOMPARE((two / 0.0).reason(), Reason::OutOfRange);
        for (const Figure& f :
             {two * shot, shot + base, shot - two, shot / 0.0, lesser(two, shot), greater(shot, base),
              shot.map([](double) { return 1.0; }), shot.then([](double) { return Figure(1.0); })})
            QCOMPARE(f.reason(), Reason::NoShot);
        QCOMPARE(lesser(two, 3.0).value(), 2.0);
        QCOMPARE(lesser(3.0, two).value(), 2.0);
        QCOMPARE(greater(two, 3.0).value(), 3.0);
        QVERIFY(less(two, 3.0) && !less(3.0, two) && !less(two, two) && !less(shot, two) && !less(two, shot));
        QCOMPARE(two.map([](double x) { return x * x; }).value(), 4.0);
        QCOMPARE(two.map([](double) { return INFINITY; }).reason(), Reason::OutOfRange);
        QCOMPARE(two.then([&](double) { return base; }).reason(), Reason::NeedsBase);
    }
};

QTEST_APPLESS_MAIN(WordsTest)
#include "words_test.moc"
