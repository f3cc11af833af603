// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/facts_bar.h"
#include "app/stations/intervals/interval_lanes.h"
#include "app/stations/intervals/intervals_station.h"
#include "app/stations/intervals/plan_desk.h"
#include "app/stations/intervals/run_plot.h"
#include "core/model/edit_plans.h"
#include "io/report/interval_table.h"
#include "support/dialogs.h"
#include "support/window.h"

#include <QComboBox>
#include <set>

using namespace gantry;
using namespace gantry::app;

/// Interval plans by clicks and keys: made from nothing, their facts in every form, ends dragged, the run
/// played, its list saved.
class IntervalsStationTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static const PlanDesk& desk(WindowDriver& d) { return d.window->findChild<IntervalsStation*>()->desk(); }
    static void typeFact(WindowDriver& d, const char* name, const QString& text) {
        auto* edit = d.find<QLineEdit>(name);
        QVERIFY2(edit != nullptr && !edit->isReadOnly(), name);
        QTest::mouseClick(edit, Qt::LeftButton);
        QTest::keySequence(edit, QKeySequence::SelectAll);
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    static void page(WindowDriver& d, int page) {
        auto* box = d.find<QComboBox>("planPage");
        QVERIFY(box != nullptr);
        box->setFocus();
        QTest::keyClick(box, Qt::Key_Home);
        for (int i = 0; i < page; ++i) QTest::keyClick(box, Qt::Key_Down);
        QCOMPARE(box->currentIndex(), page);
    }
    static void drag(QWidget* w, QPointF from, QPointF to) {
        QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
        for (int i = 1; i <= 4; ++i) {
            const QPoint at = (from + (to - from) * i / 4).toPoint();
            QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(w, &move);
        }
        QTest::mouseRelease(w, Qt::LeftButton, {}, to.toPoint());
    }
    /// The station with one new plan along the slide's shot.
    static void begin(WindowDriver& d) {
        d.window->document().change("no plans", [](Project& p) {
            p.plans.clear();
            p.moves.clear();
            p.supply.capacity = 5 * 3600.0;
        });
        d.station(u"intervals");
        d.pickFromMenu(d.find<QPushButton>("newPlan"), "Plain plan");
        QCOMPARE(d.project().plans.size(), std::size_t(1));
    }

private slots:
    /// From nothing to a run of twelve seconds of film over an hour, in few actions.
    void aPlanIsMadeInFewActions() {
        WindowDriver d;
        begin(d);
        int actions = 3;
        typeFact(d, "factClip", "12 s");
        QCOMPARE(d.project().plans[0].pictures, 300);
        typeFact(d, "factInterval", "12 s");
        actions += 2;
        QVERIFY(d.find<QLineEdit>("factDuration")->isReadOnly());
        QVERIFY(std::abs(desk(d).results()->duration.value() - (299 * 12.0 + 0.5)) < 1e-9);
        page(d, 2);
        d.type("plans/plan/exposure_s", "1 s");
        actions += 3;
        QCOMPARE(d.project().plans[0].exposure, 1.0);
        QVERIFY(desk(d).course() != nullptr);
        QVERIFY2(actions < 15, qPrintable(QString::number(actions)));
        QVERIFY2(d.status().startsWith("First to fail"), qPrintable(d.status()));
        const Project made = d.project();
        auto* undo = d.window->document().undoStack();
        for (int i = 0; i < 3; ++i) undo->undo();
        QCOMPARE(d.project().plans[0].pictures, IntervalPlan().pictures);
        while (undo->canRedo()) undo->redo();
        QVERIFY(d.project() == made);
    }
    /// Any two facts in any form give the third; a press changes which.
    void factsInEveryForm() {
        WindowDriver d;
        begin(d);
        typeFact(d, "factPictures", "250");
        typeFact(d, "factSpeedUp", "200"); // at 25 a second every 8 s
        QVERIFY(std::abs(d.project().plans[0].interval - 8.0) < 1e-9);
        // The number of pictures follows.
        d.click(d.find<QPushButton>("computes0"));
        QCOMPARE(d.project().plans[0].follows, FollowingFact::Pictures);
        QVERIFY(d.find<QLineEdit>("factPictures")->isReadOnly());
        QVERIFY(d.find<QLineEdit>("factClip")->isReadOnly());
        QCOMPARE(desk(d).results()->pictures.value(), 250.0); // nothing jumps
        typeFact(d, "factDuration", "1000.5 s");
        QCOMPARE(desk(d).results()->pictures.value(), 126.0);
        // The interval follows.
        d.click(d.find<QPushButton>("computes1"));
        typeFact(d, "factPictures", "101");
        QVERIFY(std::abs(desk(d).results()->interval.value() - 10.0) < 1e-9);
        // What makes no sense is said, and nothing is changed by it.
        const Project before = d.project();
        typeFact(d, "factPictures", "many");
        QVERIFY(d.status().contains("Pictures") && d.status().contains("many"));
        QVERIFY(d.project() == before);
        typeFact(d, "factDuration", "0");
        QVERIFY(d.status().contains("Duration"));
        QVERIFY(d.project() == before);
        // A duration that leaves no time between the pictures is a verdict, not a crash.
        typeFact(d, "factDuration", "0.1 s");
        QVERIFY(desk(d).course() == nullptr);
        QVERIFY(d.window->findChild<IntervalsStation*>()->standing().contains("cannot run"));
    }
    void endsAreDragged() {
        WindowDriver d;
        begin(d);
        d.window->document().change("slow camera", [](Project& p) {
            p.plans[0].cameras[0].focus = 0.4;
            p.plans[0].cameras[0].write = 0.8;
            p.plans[0].exposure = 1.0;
            p.plans[0].interval = 8.0;
        });
        auto* lanes = d.find<IntervalLanes>("intervalLanes");
        using End = IntervalLanes::End;
        auto* undo = d.window->document().undoStack();
        const auto dragged = [&](End end, auto value, double pixels) {
            const double before = value();
            const int count = undo->index();
            const QPointF at = lanes->endAt(end);
            drag(lanes, at, at + QPointF(pixels, 0));
            const double after = value();
            QVERIFY2(pixels > 0 ? after > before + 0.05 : after < before - 0.05,
                     qPrintable(QStringLiteral("%1 %2").arg(before).arg(after)));
            QCOMPARE(undo->index(), count + 1); // one step
            undo->undo();
            QVERIFY(std::abs(value() - before) < 1e-12);
        };
        const auto plan = [&]() -> const IntervalPlan& { return d.project().plans[0]; };
        dragged(
            End::Exposure, [&] { return plan().exposure; }, 60);
        dragged(
            End::Write, [&] { return plan().cameras[0].write; }, 40);
        dragged(
            End::Focus, [&] { return plan().cameras[0].focus; }, 25);
        dragged(
            End::Interval, [&] { return plan().interval; }, -90);
        QVERIFY(lanes->inWords().contains("exposure 1 s"));
        // With an exposure that changes it is the mark behind which the picture lies.
        d.window->document().change("dusk", [](Project& p) {
            p.plans[0].exposures = {ExposureMark{"night", 100, 2.0}};
        });
        auto* run = d.find<RunPlot>("runPlot");
        QTest::mouseClick(run, Qt::LeftButton, {}, QPoint(static_cast<int>(run->xOf(200)), 60));
        QVERIFY(desk(d).picture() > 150);
        const QPointF at = lanes->endAt(End::Exposure);
        drag(lanes, at, at + QPointF(50, 0));
        QVERIFY(plan().exposures[0].exposure > 2.1);
        QCOMPARE(plan().exposure, 1.0);
    }
    void scrubbedAndPlayed() {
        WindowDriver d;
        begin(d);
        auto* run = d.find<RunPlot>("runPlot");
        run->setFocus();
        QTest::keyClick(run, Qt::Key_Home);
        QTest::keyClick(run, Qt::Key_Right);
        QCOMPARE(desk(d).picture(), std::int64_t(1));
        QTest::keyClick(run, Qt::Key_End);
        QCOMPARE(desk(d).picture(), desk(d).course()->pictures() - 1);
        QTest::keyClick(run, Qt::Key_Left, Qt::ShiftModifier);
        QCOMPARE(desk(d).picture(), desk(d).course()->pictures() - 1 - desk(d).course()->pictures() / 20);
        QTest::keyClick(run, Qt::Key_Home);
        QCOMPARE(desk(d).picture(), std::int64_t(0));
        QTest::keyClick(run, Qt::Key_Space);
        QTRY_VERIFY_WITH_TIMEOUT(desk(d).picture() > 3, 8000);
        auto* play = d.find<QPushButton>("playRun");
        QVERIFY(play->isChecked());
        QTest::mouseClick(play, Qt::LeftButton);
        const std::int64_t stopped = desk(d).picture();
        QTest::qWait(120);
        QCOMPARE(desk(d).picture(), stopped);
        // What is pressed in while it runs is kept with the plan.
        d.pickFromMenu(d.find<QPushButton>("planMenu"), "Pause here");
        QCOMPARE(d.project().plans[0].pauses.size(), std::size_t(1));
        QVERIFY(std::abs(d.project().plans[0].pauses[0].start - desk(d).time()) <= 0.51);
        d.pickFromMenu(d.find<QPushButton>("planMenu"), "Miss this picture");
        QCOMPARE(d.project().plans[0].faults.at(0).picture, static_cast<int>(stopped) + 1);
        QVERIFY(d.find<FieldEditor>("plans/plan/faults/missed/picture") != nullptr);
    }
    /// The verdict of a card that runs full is cured by its fix.
    void aFixClearsItsVerdict() {
        WindowDriver d;
        begin(d);
        d.window->document().change("a small card", [](Project& p) {
            p.plans[0].cameras[0].picture = 50e6;
            p.plans[0].cameras[0].card = 8e9; // 160 of 300
        });
        const auto state = [&] {
            for (const Verdict& v : d.window->document().assessment().verdicts)
                if (ruleKey(v) == "plan_storage") return v.state;
            return State::Unknown;
        };
        QCOMPARE(state(), State::Over);
        QCOMPARE(desk(d).results()->first, FirstFailure::Card);
        QPushButton* fix = nullptr;
        QTRY_VERIFY_WITH_TIMEOUT(
            [&] {
                for (QPushButton* b : d.window->findChildren<QPushButton*>())
                    if (b->isVisible() && b->property("role") == "fix" && b->text().contains("card of"))
                        fix = b;
                return fix != nullptr;
            }(),
            30000);
        QTest::mouseClick(fix, Qt::LeftButton);
        QCOMPARE(state(), State::Fine);
    }
    /// A verdict about another plan takes that one in hand; of a single plan there is nothing to choose.
    void verdictsShowTheirPlan() {
        WindowDriver d;
        begin(d);
        const auto fillCard = [](IntervalPlan& plan) {
            plan.cameras[0].picture = 50e6;
            plan.cameras[0].card = 8e9;
        };
        d.window->document().change("a small card", [&](Project& p) { fillCard(p.plans[0]); });
        const auto button = [&] {
            QWidget* card = d.find("verdict_plan_storage");
            auto* show = card != nullptr ? card->findChild<QPushButton*>("moment") : nullptr;
            return show != nullptr && show->isVisible() ? show : nullptr;
        };
        QVERIFY(button() == nullptr);
        d.window->document().change("a second plan", [&](Project& p) {
            p.plans[0].cameras[0].card = 1e12;
            addPlan(p);
            fillCard(p.plans[1]);
        });
        QCOMPARE(desk(d).plan(), 0);
        QVERIFY(button() != nullptr);
        QTest::mouseClick(button(), Qt::LeftButton);
        QCOMPARE(desk(d).plan(), 1);
        QCOMPARE(d.find<QComboBox>("planChoice")->currentIndex(), 1);
    }
    /// The list that is saved is the list that the command line prints.
    void theListIsSaved() {
        WindowDriver d;
        begin(d);
        const QString path = home_.path("frames.csv");
        const Answer<QFileDialog> box(typeName(path));
        d.pickFromMenu(d.find<QPushButton>("planMenu"), "Save the frame list…");
        QVERIFY(box.comes());
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QCOMPARE(file.readAll().toStdString(),
                 io::intervalCsv(d.project(), 0, d.window->document().results().evaluation()));
    }
    /// Every field of a plan stands on one of the pages, where it counts.
    void everyFieldIsShown() {
        WindowDriver d;
        begin(d);
        d.window->document().change("one of each", [](Project& p) {
            addPart(p, 0, &IntervalPlan::exposures, "exposures", "exposure");
            addPart(p, 0, &IntervalPlan::faults, "faults", "missed");
            addPart(p, 0, &IntervalPlan::readings, "readings", "reading");
            addPart(p, 0, &IntervalPlan::sensors, "sensors", "sensor");
            addPart(p, 0, &IntervalPlan::pauses, "pauses", "pause");
            p.plans[0].cameras[0].bulb = true;
            p.plans[0].gaps = GapsGo::Linear;
            p.plans[0].settleBy = SettleBy::Entered;
        });
        std::set<QString> shown;
        for (int i = 0; i < 7; ++i) {
            page(d, i);
            for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
                if (e->isVisible()) shown.insert(e->path());
        }
        Project p = d.project();
        QStringList missing;
        for (const FieldRef& f : allFields(p)) {
            const QString path = QString::fromStdString(f.path);
            if (!path.startsWith("plans/") || path.endsWith("/id")) continue;
            // The facts have a bar of their own.
            if (path.endsWith("plan/pictures") || path.endsWith("plan/interval_s") ||
                path.endsWith("plan/duration_s") || path.endsWith("plan/follows"))
                continue;
            if (!shown.contains(path)) missing << path;
        }
        QVERIFY2(missing.isEmpty(), qPrintable(missing.join(' ')));
    }
};

QTEST_MAIN(IntervalsStationTest)
#include "intervals_station_test.moc"
