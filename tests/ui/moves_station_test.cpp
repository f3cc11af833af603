// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/lens_view.h"
#include "app/stations/moves/move_desk.h"
#include "app/stations/moves/move_plan_view.h"
#include "app/stations/moves/move_timeline.h"
#include "app/stations/moves/moves_station.h"
#include "core/evaluate/move/plan_move.h"
#include "core/model/edit_axes.h"
#include "support/dialogs.h"
#include "support/window.h"

#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QSlider>
#include <set>

using namespace gantry;
using namespace gantry::app;

/// Moves by clicks and keys: a move is built, aimed, timed, scrubbed and played; what is dragged is one step
/// to undo.
class MovesStationTest : public QObject {
    Q_OBJECT
    TestHome home_;

    /// Counts what a person does.
    struct Hands {
        WindowDriver& d;
        int actions = 0;

        void click(const char* button) {
            auto* b = d.find<QPushButton>(button);
            QVERIFY2(b != nullptr && b->isEnabled(), button);
            QTest::mouseClick(b, Qt::LeftButton);
            ++actions;
        }
        void place(int axis, const QString& text) {
            auto* line = d.find<QLineEdit>(QStringLiteral("jogPlace%1").arg(axis));
            QVERIFY(line != nullptr);
            QTest::mouseClick(line, Qt::LeftButton);
            QTest::keySequence(line, QKeySequence::SelectAll);
            QTest::keyClicks(line, text);
            QTest::keyClick(line, Qt::Key_Return);
            ++actions;
        }
    };
    static void build(Hands& hands) {
        hands.d.station(u"moves");
        ++hands.actions;
        hands.place(0, "100 mm");
        hands.place(1, "60°");
        hands.click("storePose");
        hands.place(0, "400 mm");
        hands.click("storePose");
        hands.place(0, "800 mm");
        hands.click("storePose");
    }
    static const MoveDesk& desk(WindowDriver& d) { return d.window->findChild<MovesStation*>()->desk(); }
    static void drag(QWidget* w, QPointF from, QPointF to) {
        QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
        for (int i = 1; i <= 4; ++i) {
            const QPoint at = (from + (to - from) * i / 4).toPoint();
            QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(w, &move);
        }
        QTest::mouseRelease(w, Qt::LeftButton, {}, to.toPoint());
    }

private slots:
    /// Three poses and an aimed segment, from a project without moves.
    void aMoveIsBuiltInFewActions() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        QCOMPARE(d.project().moves.size(), std::size_t(1));
        const RigMove& m = d.project().moves[0];
        QCOMPARE(m.poses.size(), std::size_t(3));
        QCOMPARE(std::get<AxisPlace<AxisKind::Linear>>(m.poses[1].places[0].place).at, 0.4);
        QVERIFY(std::abs(std::get<AxisPlace<AxisKind::Rotary>>(m.poses[2].places[1].place).at - 1.0472) <
                1e-4);
        QCOMPARE(desk(d).pose(), 2);
        // Aimed at what the camera sees, two metres away.
        d.pickFromMenu(d.find<QPushButton>("aimAt"), "What the camera sees now, two metres away");
        hands.actions += 2;
        QCOMPARE(d.project().moves[0].targets.size(), std::size_t(1));
        QCOMPARE(d.project().moves[0].poses[2].arrive.kind, SegmentKind::Aimed);
        const QString time = "moves/move/poses/pose-3/arrive/time_s";
        d.type(time, "6 s");
        ++hands.actions;
        QCOMPARE(d.project().moves[0].poses[2].arrive.time, 6.0);
        QVERIFY2(hands.actions < 30, qPrintable(QString::number(hands.actions)));
        // All of it can be undone, and done again.
        const Project made = d.project();
        auto* undo = d.window->document().undoStack();
        while (!d.project().moves.empty() && undo->canUndo()) undo->undo();
        QVERIFY(d.project().moves.empty());
        while (undo->canRedo()) undo->redo();
        QVERIFY(d.project() == made);
    }
    void scrubbedByMouseAndKeys() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        auto* lens = d.find<LensView>("lensView");
        const double whole = desk(d).duration(), frame = desk(d).frameTime();
        QVERIFY(whole > 1.0);
        QTest::mouseClick(timeline, Qt::LeftButton, {},
                          QPoint(static_cast<int>(timeline->xOf(0.4 * whole)), 100));
        QVERIFY(std::abs(desk(d).time() - 0.4 * whole) < 0.03 * whole);
        const double at = desk(d).time();
        QVERIFY(std::abs(std::remainder(at, frame)) < 1e-9);
        QTest::keyClick(timeline, Qt::Key_Right);
        QVERIFY(std::abs(desk(d).time() - at - frame) < 1e-9);
        QTest::keyClick(timeline, Qt::Key_Left, Qt::ShiftModifier);
        QVERIFY(std::abs(desk(d).time() - at + 9 * frame) < 1e-9);
        QTest::keyClick(timeline, Qt::Key_End);
        QVERIFY(std::abs(desk(d).time() - whole) < frame);
        QTest::keyClick(timeline, Qt::Key_Home);
        QCOMPARE(desk(d).time(), 0.0);
        QTest::keyClick(timeline, Qt::Key_PageUp);
        QCOMPARE(desk(d).pose(), 1);
        // The sliders say where the rig is then.
        auto* slider = d.find<QSlider>("jog0");
        const double share = 0.4 / usableTravel(d.project().axes[0]);
        QVERIFY(std::abs(slider->value() - share * slider->maximum()) < 1.0);
        // Keys on a slider move the rig away from the move, and the lens with it.
        slider->setFocus();
        QTest::keyClick(slider, Qt::Key_PageUp);
        QVERIFY(desk(d).jogged());
        QVERIFY(desk(d).places()[0] > 0.4);
        QVERIFY(lens->inWords().size() > 0);
        // Played, it moves; a second press stops it.
        auto* play = d.find<QPushButton>("playMove");
        QTest::mouseClick(play, Qt::LeftButton);
        const double then = desk(d).time();
        QTRY_VERIFY(desk(d).time() != then);
        QTest::mouseClick(play, Qt::LeftButton);
        const double stopped = desk(d).time();
        QTest::qWait(60);
        QCOMPARE(desk(d).time(), stopped);
    }
    void flagsPosesAndTargetsAreDragged() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        d.pickFromMenu(d.find<QPushButton>("aimAt"), "What the camera sees now, two metres away");
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        auto* undo = d.window->document().undoStack();
        const auto steps = [&] { return undo->count(); };
        // A flag gives the segment before it another time, on a frame.
        const double before = d.project().moves[0].poses[1].arrive.time;
        int had = steps();
        const QPointF flag = timeline->flagAt(1);
        // On the scale it is taken on, however the move grows under it.
        const double perPixel = desk(d).duration() / (timeline->xOf(desk(d).duration()) - timeline->xOf(0.0));
        drag(timeline, flag, flag + QPointF(60, 0));
        QVERIFY(std::abs(d.project().moves[0].poses[1].arrive.time - before - 60 * perPixel) <
                desk(d).frameTime() + perPixel);
        const double after = d.project().moves[0].poses[1].arrive.time;
        QVERIFY(after > before + 0.2);
        QVERIFY(std::abs(std::remainder(after, desk(d).frameTime())) < 1e-9);
        QCOMPARE(d.project().moves[0].poses[2].arrive.time, 4.0);
        QCOMPARE(steps(), had + 1);
        // A pose in plan takes the slide with it; a target its place.
        auto* plan = d.find<MovePlanView>("movePlan");
        had = steps();
        const double was =
            std::get<AxisPlace<AxisKind::Linear>>(d.project().moves[0].poses[1].places[0].place).at;
        drag(plan, plan->poseAt(1), plan->poseAt(1) + QPointF(14, 0));
        QVERIFY(std::get<AxisPlace<AxisKind::Linear>>(d.project().moves[0].poses[1].places[0].place).at >
                was + 0.01);
        QCOMPARE(steps(), had + 1);
        had = steps();
        const AimTarget target = d.project().moves[0].targets[0];
        drag(plan, plan->targetAt(0), plan->targetAt(0) + QPointF(-12, 10));
        QVERIFY(d.project().moves[0].targets[0].x < target.x && d.project().moves[0].targets[0].y < target.y);
        QCOMPARE(d.project().moves[0].targets[0].z, target.z);
        QCOMPARE(steps(), had + 1);
        undo->undo();
        QVERIFY(d.project().moves[0].targets[0] == target);
    }
    /// A time that is too short says so, and what it offers makes it right.
    void aRefusedTimeIsMended() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        d.type("moves/move/poses/pose-3/arrive/time_s", "0.5 s");
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        QVERIFY(timeline != nullptr);
        const auto state = [&] {
            for (const Verdict& v : d.window->document().assessment().verdicts)
                if (ruleKey(v) == "move_limits") return v.state;
            return State::Unknown;
        };
        QCOMPARE(state(), State::Over);
        QPushButton* fix = nullptr;
        QTRY_VERIFY_WITH_TIMEOUT(
            [&] {
                for (QPushButton* b : d.window->findChildren<QPushButton*>())
                    if (b->isVisible() && b->property("role") == "fix" && b->text().contains("B to C"))
                        fix = b;
                return fix != nullptr;
            }(),
            20000);
        QTest::mouseClick(fix, Qt::LeftButton);
        QVERIFY(state() != State::Over);
    }
    /// Every field of a pose and of the way to it is there when its flag is pressed, by what it says.
    void everyFieldOfAPoseIsShown() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        d.pickFromMenu(d.find<QPushButton>("aimAt"), "What the camera sees now, two metres away");
        d.window->document().change("a focus axis", [](Project& p) { addAxis(p, Role::Focus); });
        d.window->document().change("a zoom axis", [](Project& p) { addAxis(p, Role::Zoom); });
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        std::set<QString> shown;
        const auto look = [&](int pose) {
            QTest::mouseClick(timeline, Qt::LeftButton, {}, timeline->flagAt(pose).toPoint());
            QCOMPARE(desk(d).pose(), pose);
            for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
                if (e->isVisible()) shown.insert(e->path());
        };
        for (const SegmentPace pace : {SegmentPace::Time, SegmentPace::Speed, SegmentPace::Fastest})
            for (const int axis : {0, 1})
                for (int pose = 0; pose < 3; ++pose) {
                    d.window->document().change("another pace", [&](Project& p) {
                        for (KeyPose& each : p.moves[0].poses) {
                            each.arrive.pace = pace;
                            each.arrive.speedOf = axis == 1 ? p.axes[1].id : std::string();
                        }
                        std::get<AxisPlace<AxisKind::Rotary>>(p.moves[0].poses[1].places[1].place).at = 1.4;
                    });
                    look(pose);
                }
        Project p = d.project();
        QStringList missing;
        for (const FieldRef& f : allFields(p)) {
            const QString path = QString::fromStdString(f.path);
            // Of the first pose no way counts; the last one passes nothing; where an aim is, a place of the
            // head is what comes of it.
            if (!path.startsWith("moves/move/poses/") || path.endsWith("/id") || path.endsWith("/axis"))
                continue;
            if (path.contains("poses/pose/arrive/") || path.endsWith("/passes")) continue;
            if (path.contains("pose-2/arrive/target") || path.contains("pose-2/arrive/place_") ||
                path.contains("pose-2/arrive/pulls_focus"))
                continue;                                             // straight
            if (path.contains("pose-3/arrive/speed_rad_s")) continue; // aimed, the slide leads
            if (!shown.contains(path)) missing << path;
        }
        QVERIFY2(missing.isEmpty(), qPrintable(missing.join(' ')));
    }
    /// A block of the pan within a slide: added at the play head, dragged in time, undone in one step.
    void blocksOfOneAxis() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        QTest::mouseClick(timeline, Qt::LeftButton, {}, QPoint(static_cast<int>(timeline->xOf(1.0)), 100));
        const double at = desk(d).time();
        auto* menu = d.window->findChild<QMenu*>("addBlock");
        QVERIFY(menu != nullptr);
        emit d.find<QPushButton>("moveMenu")->menu()->aboutToShow();
        QVERIFY(menu->isEnabled());
        menu->actions().at(1)->trigger();
        QCOMPARE(d.project().moves[0].blocks.size(), std::size_t(1));
        QCOMPARE(d.project().moves[0].blocks[0].axis, d.project().axes[1].id);
        QCOMPARE(d.project().moves[0].blocks[0].start, at);
        QVERIFY(d.window->document().assessment().evaluation.moves[0].troubles.empty());
        // Its fields stand with those of the whole move.
        d.type("moves/move/blocks/block/length_s", "2 s");
        QCOMPARE(d.project().moves[0].blocks[0].length, 2.0);
        const double before = d.project().moves[0].blocks[0].start;
        drag(timeline, timeline->blockAt(0),
             timeline->blockAt(0) + QPointF(timeline->xOf(2.0) - timeline->xOf(0.0), 0));
        QVERIFY(std::abs(d.project().moves[0].blocks[0].start - before - 2.0) < 0.1);
        const double frame = desk(d).frameTime(), start = d.project().moves[0].blocks[0].start;
        QVERIFY(std::abs(start / frame - std::round(start / frame)) < 1e-6);
        d.window->document().undoStack()->undo();
        QCOMPARE(d.project().moves[0].blocks[0].start, before);
        // Never past the end.
        drag(timeline, timeline->blockAt(0), QPointF(timeline->width() + 200, timeline->blockAt(0).y()));
        QVERIFY(d.window->document().assessment().evaluation.moves[0].troubles.empty());
        emit d.find<QPushButton>("moveMenu")->menu()->aboutToShow();
        auto* remove = d.window->findChild<QMenu*>("removeBlock");
        QCOMPARE(remove->actions().size(), 1);
        remove->actions().at(0)->trigger();
        QVERIFY(d.project().moves[0].blocks.empty());
    }
    /// A whole time for the move; one that is too short is refused with the least that would do.
    void fittedToATime() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        const auto fit = [&](double time) {
            const Answer<QInputDialog> answer([time](QInputDialog* dialog) {
                dialog->setDoubleValue(time);
                dialog->accept();
            });
            d.pickFromMenu(d.find<QPushButton>("moveMenu"), "Fit to a time");
        };
        fit(20.0);
        QVERIFY(std::abs(desk(d).duration() - 20.0) < 1e-6);
        const Project fitted = d.project();
        fit(0.8);
        QVERIFY(d.project() == fitted);
        const QString said = d.find<QLabel>("status")->text();
        QVERIFY2(said.contains("at least"), qPrintable(said));
        d.pickFromMenu(d.find<QPushButton>("moveMenu"), "Run in the least time");
        QVERIFY(desk(d).duration() < 20.0);
        for (const MoveSegmentResults& s : desk(d).results()->segments) QVERIFY(s.room.value() >= 1.0 - 1e-6);
    }
    /// A verdict about a move puts the play head where it finds its worst.
    void verdictsShowTheirMoment() {
        WindowDriver d;
        d.station(u"moves");
        const Verdict* torque = nullptr;
        for (const Verdict& v : d.window->document().assessment().verdicts)
            if (ruleKey(v) == "move_limits") torque = &v;
        QVERIFY(torque != nullptr && torque->moment);
        const double at = torque->moment.value();
        QWidget* card = d.find("verdict_move_limits");
        QVERIFY(card != nullptr);
        auto* show = card->findChild<QPushButton*>("moment");
        QVERIFY(show != nullptr && show->isVisible());
        QTest::mouseClick(show, Qt::LeftButton);
        QVERIFY(std::abs(desk(d).time() - at) <= desk(d).frameTime());
    }
    /// What is entered is heard of: how well a target is known, in pixels, by F · deviation / range.
    void deviationIsShownInPixels() {
        WindowDriver d;
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        Hands hands{d};
        build(hands);
        d.pickFromMenu(d.find<QPushButton>("aimAt"), "What the camera sees now, two metres away");
        auto* lens = d.find<LensView>("lensView");
        QVERIFY(!lens->inWords().contains("known within"));
        d.window->document().change("less well known",
                                    [](Project& p) { p.moves[0].targets[0].deviation = 0.01; });
        // Two metres away, to the centimetre that a target is rounded to.
        const double px = desk(d).focal() * 0.01 / 2.0;
        QTRY_VERIFY(lens->inWords().contains("known within"));
        const QString words = lens->inWords();
        const double shown = words.mid(words.indexOf("known within ") + 13).section(' ', 0, 0).toDouble();
        QVERIFY2(std::abs(shown - px) < 0.02 * px, qPrintable(words));
    }
    /// Ready-made moves are made for the rig, and those it cannot run are not offered.
    void readyMadeMoves() {
        WindowDriver d;
        d.station(u"moves");
        const std::size_t had = d.project().moves.size();
        auto* ready = d.window->findChild<QMenu*>("readyMoves");
        QVERIFY(ready != nullptr);
        emit ready->aboutToShow();
        int offered = 0;
        for (QAction* a : ready->actions()) {
            if (!a->isEnabled()) continue;
            ++offered;
            a->trigger();
            const MoveResults& r = d.window->document().assessment().evaluation.moves.back();
            QVERIFY2(r.troubles.empty(), qPrintable(a->text()));
            QVERIFY(r.time && r.time.value() >= 5.0);
            for (const MoveSegmentResults& s : r.segments) QVERIFY(s.room && s.room.value() >= 1.0);
        }
        QVERIFY(offered >= 3);
        QCOMPARE(d.project().moves.size(), had + static_cast<std::size_t>(offered));
        for (QAction* a : ready->actions())
            if (a->text() == "Orbit, aimed") QVERIFY(!a->isEnabled()); // a dolly has no swing
    }
    void emptyStatesSayWhatToDo() {
        WindowDriver d(false);
        d.station(u"moves");
        auto* store = d.find<QPushButton>("storePose");
        QVERIFY(store != nullptr);
        QVERIFY(d.find<MoveTimeline>("moveTimeline") != nullptr);
        QVERIFY(!d.find<QPushButton>("playMove")->isEnabled());
    }
};

QTEST_MAIN(MovesStationTest)
#include "moves_station_test.moc"
