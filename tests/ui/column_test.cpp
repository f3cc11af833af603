// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/measure_dialog.h"
#include "app/stations/station.h"
#include "core/verdicts/matters.h"
#include "core/verdicts/rules.h"
#include "support/dialogs.h"
#include "support/window.h"

#include <QHelpEvent>
#include <QInputDialog>
#include <QPlainTextEdit>
#include <QRegularExpression>

using namespace gantry;
using namespace gantry::app;

/// What is read at the right of every station, and the line above it.
class ColumnTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static const Verdict* verdict(const WindowDriver& d, std::string_view rule, int axis) {
        for (const Verdict& v : d.window->document().assessment().verdicts)
            if (ruleKey(v) == rule && v.axis == axis) return &v;
        return nullptr;
    }
    static const Station* station(const WindowDriver& d, const QString& name) {
        for (const Station* s : d.window->findChildren<Station*>())
            if (s->name() == name) return s;
        return nullptr;
    }
    static QString key(const Verdict& v) { return QString::fromStdString(std::string(ruleKey(v))); }
    static bool card(const WindowDriver& d, const QString& rule) {
        auto* found = d.window->findChild<QWidget*>("verdict_" + rule);
        return found != nullptr && found->isVisible();
    }
    static QStringList others(const WindowDriver& d) {
        QStringList out;
        for (const QPushButton* b : d.window->findChildren<QPushButton*>(QRegularExpression("^other[0-9]+$")))
            if (b->isVisible()) out << b->accessibleName();
        return out;
    }
    /// Presses the line of the other stations and axes that begins so.
    static void follow(WindowDriver& d, const QString& start) {
        for (QPushButton* b : d.window->findChildren<QPushButton*>(QRegularExpression("^other[0-9]+$")))
            if (b->isVisible() && b->accessibleName().startsWith(start)) {
                d.click(b);
                return;
            }
        QFAIL(qPrintable("no line " + start));
    }
    static QString next(const WindowDriver& d) { return d.find<QPushButton>("nextStep")->text(); }

private slots:
    void init() { QFile::remove(Preferences::path()); }

    /// No verdict is made that no station shows.
    void everyRuleHasAStation() {
        WindowDriver d;
        for (const rules::Rule* rule : rules::all()) {
            int places = 0;
            for (const Station* s : d.window->findChildren<Station*>())
                places += s->rules().contains(QString::fromStdString(std::string(rule->key())));
            QVERIFY2(places > 0, std::string(rule->key()).c_str());
        }
        for (const Station* s : d.window->findChildren<Station*>())
            for (const QString& rule : s->rules())
                QVERIFY2(rules::indexOf(rule.toStdString()) >= 0, qPrintable(rule));
    }

    /// Asked for, a line of another place says its whole sentence, as it is after an edit.
    void linesSayTheirSentence() {
        WindowDriver d;
        d.station(QStringLiteral("drives"));
        auto* line = d.window->findChild<QPushButton*>(QStringLiteral("other0"));
        QVERIFY(line != nullptr && line->isVisible());
        const auto asked = [&] {
            QHelpEvent ask(QEvent::ToolTip, line->rect().center(), line->mapToGlobal(line->rect().center()));
            QApplication::sendEvent(line, &ask);
            return line->toolTip();
        };
        const auto isSaid = [&] {
            const Document& doc = d.window->document();
            const auto& all = doc.assessment().verdicts;
            return std::any_of(all.begin(), all.end(), [&](const Verdict& v) {
                return asked() == QString::fromStdString(sentence(v, doc.project(), units::System::Metric)) &&
                       line->text().contains(QString::fromStdString(title(v)));
            });
        };
        QVERIFY(isSaid());
        d.window->document().change(QStringLiteral("twice as heavy"), [](Project& p) {
            std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value *= 2.0;
        });
        QVERIFY(isSaid());
    }

    /// Whatever is over, at risk or may fall has a card or a line in every station; what is fine is counted.
    void nothingBadIsOutOfSight() {
        WindowDriver d;
        for (const QString& id : d.window->stationIds())
            for (int axis = 0; axis < 2; ++axis) {
                d.station(id);
                d.window->session().setAxis(axis);
                const Station* here = station(d, d.window->stationName(id));
                const auto& verdicts = d.window->document().assessment().verdicts;
                const QString lines = others(d).join('\n');
                for (const Matter& m : matters(d.project(), verdicts)) {
                    const Verdict& v = *m.verdict;
                    const bool own = v.axis == axis && here->rules().contains(key(v));
                    const bool bad =
                        v.state == State::Over || v.state == State::AtRisk || (v.hazard && mendable(v.state));
                    const QString name = id + " " + key(v);
                    if (own && mendable(v.state)) QVERIFY2(card(d, key(v)), qPrintable(name));
                    if (!own && bad)
                        QVERIFY2(lines.contains(": " + QString::fromStdString(title(v))) || card(d, key(v)),
                                 qPrintable(name));
                    if (!own && !bad && v.axis == axis && m.alike.empty())
                        QVERIFY2(!card(d, key(v)), qPrintable(name));
                }
            }
        // A glance at Drives is about a dozen lines, of more than fifty verdicts.
        d.station(u"drives");
        d.window->session().setAxis(0);
        QVERIFY(d.window->document().assessment().verdicts.size() > 50);
        const auto cards = d.window->findChildren<QWidget*>(QRegularExpression("^verdict_"));
        const auto shown =
            std::count_if(cards.begin(), cards.end(), [](QWidget* w) { return w->isVisible(); });
        QVERIFY2(shown + others(d).size() <= 14, qPrintable(QString::number(shown + others(d).size())));
    }

    /// A line leads to the card it speaks of, on another axis and in another station.
    void linesLeadToTheirCards() {
        WindowDriver d;
        d.station(u"structure");
        follow(d, "Pan: Jitter");
        QVERIFY(card(d, "jitter"));
        QVERIFY(!card(d, "stepping")); // says the same, in the card of the worse
        QVERIFY(
            d.find("verdict_jitter")->accessibleDescription().contains("“Visible stepping” says the same"));
        d.station(u"structure");
        follow(d, "Slide: Power-off holding");
        QVERIFY(card(d, "power_off"));
        QCOMPARE(d.window->session().axis(), 0);
        follow(d, "Limits: Vibration");
        QVERIFY(card(d, "vibration") && !card(d, "power_off"));
        QVERIFY(others(d).join('\n').contains("Drives: Power-off holding, over"));
    }

    /// What is fine is one line until it is asked for.
    void whatIsFineIsFolded() {
        WindowDriver d;
        d.station(u"drives");
        const QStringList here = station(d, "Drives")->rules();
        int fine = 0, oversized = 0;
        for (const Matter& m : matters(d.project(), d.window->document().assessment().verdicts))
            if (m.verdict->axis == 0 && here.contains(key(*m.verdict))) {
                fine += m.verdict->state == State::Fine;
                oversized += m.verdict->state == State::Oversized;
            }
        QVERIFY(fine > 0);
        QCOMPARE(verdict(d, "torque", 0)->state, State::Fine);
        auto* fold = d.find<QPushButton>("foldedVerdicts");
        QVERIFY2(fold->text().startsWith(QString::number(fine) + " fine"), qPrintable(fold->text()));
        QCOMPARE(fold->text().contains(QString::number(oversized) + " oversized"), oversized > 0);
        QVERIFY(card(d, "power_off") && !card(d, "torque"));
        d.click(fold);
        QVERIFY(card(d, "torque"));
        d.click(fold);
        QVERIFY(!card(d, "torque"));
    }

    /// Three fixes stand, the rest behind a press. With a heavier load there is more to be tried.
    void threeFixesAreShown() {
        WindowDriver d;
        d.type("axes/slide/mechanism/moving_mass_kg", "9 kg");
        d.station(u"drives");
        const auto shown = [](QWidget* of) {
            int n = 0;
            for (const QPushButton* b : of->findChildren<QPushButton*>(QRegularExpression("^fix[0-9]+$")))
                n += b->isVisible();
            return n;
        };
        QPushButton* more = nullptr;
        const auto find = [&] {
            for (QPushButton* b : d.window->findChildren<QPushButton*>("moreFixes"))
                if (b->isVisible()) more = b;
            return more != nullptr;
        };
        QTRY_VERIFY_WITH_TIMEOUT(find(), 20000);
        QWidget* of = more->parentWidget();
        QCOMPARE(shown(of), 3);
        const int hidden = QRegularExpression("[0-9]+").match(more->text()).captured().toInt();
        QVERIFY(hidden > 0);
        d.click(more);
        QCOMPARE(shown(of), 3 + hidden);
        d.click(more);
        QCOMPARE(shown(of), 3);
    }

    /// The line above a station says what decides; pressing it does what it says.
    void theLineAboveLeadsOn() {
        WindowDriver d;
        d.station(u"drives");
        QVERIFY(d.find("pathLine")->accessibleName().contains("decided by Power-off holding: over ×0.36"));
        QVERIFY(d.find("pathLine")
                    ->accessibleName()
                    .contains(QRegularExpression("[0-9]+ of [0-9]+ inputs are guesses")));
        QCOMPARE(next(d), QString("Next: choose a fix for it"));
        QTRY_VERIFY(d.find("verdict_power_off")->findChild<QPushButton*>("fix0") != nullptr);
        d.click(d.find("nextStep"));
        QCOMPARE(QApplication::focusWidget(), d.find("verdict_power_off")->findChild<QWidget*>("fix0"));

        // Mended, what is at risk is to be measured: by hand and with the recipe.
        d.click(d.find("verdict_power_off")->findChild<QPushButton*>("fix0"));
        QVERIFY(verdict(d, "power_off", 0)->state == State::Fine);
        QCOMPARE(next(d), QString("Next: measure the belt preload"));
        d.click(d.find("nextStep"));
        auto* recipe = d.window->findChild<MeasureDialog*>();
        QVERIFY(recipe != nullptr && recipe->isVisible());
        recipe->close();

        // Where all is fine the way leads to the station where it is not.
        d.station(u"structure");
        QVERIFY2(next(d).startsWith("Next: go on to "), qPrintable(next(d)));
        const QString wanted = next(d).mid(QString("Next: go on to ").size());
        d.click(d.find("nextStep"));
        QVERIFY(station(d, wanted)->isVisible());
        QVERIFY(!next(d).startsWith("Next: go on"));
    }
    /// Where an axis has nothing left to be done the way leads to the axis that has.
    void theLineLeadsToTheOtherAxis() {
        WindowDriver d(false);
        d.window->openFile(QString::fromStdString(dataPath("demo/kettle-jib.gantry")));
        d.window->session().setAxis(0);
        d.station(u"drives");
        const QRegularExpressionMatch to =
            QRegularExpression("^Next: go on to ([A-Z][a-z]+): (.*), at risk$").match(next(d));
        QVERIFY2(to.hasMatch(), qPrintable(next(d)));
        d.click(d.find("nextStep"));
        QCOMPARE(QString::fromStdString(
                     d.project().axes[static_cast<std::size_t>(d.window->session().axis())].name),
                 to.captured(1));
        QVERIFY(d.find("pathLine")->accessibleName().contains("decided by " + to.captured(2)));
    }
    /// A matter of two stations stands in both, in the column and in the line above: what vibrates after the
    /// stop (Limits) and does not settle in time (Structure).
    void aMatterOfTwoStationsIsInBoth() {
        WindowDriver d;
        d.type("shots/" + QString::fromStdString(d.project().shots[0].id) + "/settle_s", "0.05 s");
        QCOMPARE(verdict(d, "vibration", 0)->state, State::Over);
        QCOMPARE(verdict(d, "settling", 0)->state, State::Over);
        for (const char* id : {"structure", "limits"}) {
            d.station(QString(id));
            QVERIFY2(card(d, "vibration") != card(d, "settling"), id);
            const Verdict* leads = verdict(d, card(d, "vibration") ? "vibration" : "settling", 0);
            QVERIFY2(d.find("pathLine")
                         ->accessibleName()
                         .contains("decided by " + QString::fromStdString(title(*leads))),
                     id);
        }
    }
    /// However long an axis is called, what to do next is read whole.
    void theNextStepIsNeverCut() {
        WindowDriver d;
        d.station(u"drives");
        auto* next = d.find<QPushButton>("nextStep");
        const auto whole = [&] {
            return next->width() >= QFontMetrics(textFont(11)).horizontalAdvance(next->text()) &&
                   next->geometry().right() <= d.find("pathLine")->width();
        };
        QVERIFY(whole());
        const int before = next->x();
        d.window->document().change("name", [](Project& p) { p.axes[0].name = std::string(90, 'w'); });
        QVERIFY(whole());
        QVERIFY(next->x() < before && next->x() > 0); // the part that was too long is gone, not what follows
        QVERIFY(d.find("pathLine")->toolTip().contains(QString(90, 'w')));
    }
    void anEmptyProjectBeginsWithAnAxis() {
        WindowDriver d(false);
        QCOMPARE(next(d), QString("Next: add an axis at the left"));
    }

    /// What says the same is set aside and taken up again together.
    void setsAVerdictAsideWithAReason() {
        WindowDriver d;
        d.station(u"drives");
        const Answer<QInputDialog> answer([](QInputDialog* dialog) {
            QTest::keyClicks(dialog->findChild<QLineEdit*>(), "a strap holds it");
            QTest::keyClick(dialog->findChild<QLineEdit*>(), Qt::Key_Return);
        });
        QPushButton* aside = nullptr;
        for (QPushButton* b : d.find("verdict_power_off")->findChildren<QPushButton*>())
            if (b->text() == "Set aside") aside = b;
        d.click(aside);
        QCOMPARE(d.project().setAside.at(0).reason, std::string("a strap holds it"));
        QVERIFY(d.find("verdict_power_off")->isVisible()); // a falling camera stays in sight
        d.station(u"controller");
        QVERIFY(d.find<QPlainTextEdit>("settingsText")->toPlainText().contains("a strap holds it"));
    }

    void alikeAreSetAsideTogether() {
        WindowDriver d;
        d.station(u"drives");
        d.window->session().setAxis(1);
        const Answer<QInputDialog> answer([](QInputDialog* dialog) {
            QTest::keyClicks(dialog->findChild<QLineEdit*>(), "seen and accepted");
            QTest::keyClick(dialog->findChild<QLineEdit*>(), Qt::Key_Return);
        });
        const auto press = [&](const QString& text) {
            for (QPushButton* b : d.find("verdict_jitter")->findChildren<QPushButton*>())
                if (b->text() == text) {
                    d.click(b);
                    return;
                }
        };
        press("Set aside");
        QVERIFY(setAsideFor(d.project(), *verdict(d, "jitter", 1)) != nullptr);
        QVERIFY(setAsideFor(d.project(), *verdict(d, "stepping", 1)) != nullptr);
        QVERIFY(d.find("verdict_jitter")->accessibleDescription().contains("Set aside: seen and accepted"));
        QVERIFY(!d.find("pathLine")->accessibleName().contains("Jitter"));
        press("Take up again");
        QVERIFY(d.project().setAside.empty());
    }
};

QTEST_MAIN(ColumnTest)
#include "column_test.moc"
