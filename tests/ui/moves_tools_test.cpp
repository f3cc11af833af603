// SPDX-License-Identifier: GPL-3.0-or-later
// What Moves offers beside poses and times: usual times, the lens carried by buttons, targets told from
// views, subjects on a turntable, and parallax.
#include "app/stations/moves/move_desk.h"
#include "app/stations/moves/move_timeline.h"
#include "app/stations/moves/moves_station.h"
#include "app/stations/moves/parallax_dialog.h"
#include "core/evaluate/setup_of.h"
#include "core/model/edit_axes.h"
#include "core/model/edit_moves.h"
#include "core/tools/least_move_time.h"
#include "core/units/text.h"
#include "support/dialogs.h"
#include "support/near.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>

using namespace gantry;
using namespace gantry::app;

class MovesToolsTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static const MoveDesk& desk(WindowDriver& d) { return d.window->findChild<MovesStation*>()->desk(); }
    static void place(WindowDriver& d, int axis, const QString& text) {
        auto* line = d.find<QLineEdit>(QStringLiteral("jogPlace%1").arg(axis));
        QVERIFY(line != nullptr);
        QTest::mouseClick(line, Qt::LeftButton);
        QTest::keySequence(line, QKeySequence::SelectAll);
        QTest::keyClicks(line, text);
        QTest::keyClick(line, Qt::Key_Return);
    }
    /// From 100 mm to 700 mm, looking to the side.
    static void build(WindowDriver& d) {
        d.window->document().change("no moves", [](Project& p) { p.moves.clear(); });
        d.station(u"moves");
        place(d, 0, "100 mm");
        place(d, 1, "90°");
        QTest::mouseClick(d.find<QPushButton>("storePose"), Qt::LeftButton);
        place(d, 0, "700 mm");
        QTest::mouseClick(d.find<QPushButton>("storePose"), Qt::LeftButton);
    }
    /// The flag in hand pressed once more, so that the fields of the whole move are there.
    static void letGo(WindowDriver& d) {
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        const int pose = desk(d).pose();
        QVERIFY(pose >= 0);
        QTest::mouseClick(timeline, Qt::LeftButton, {}, timeline->flagAt(pose).toPoint());
        QCOMPARE(desk(d).pose(), -1);
    }
    static QAction* action(QMenu* menu, const QString& part) {
        for (QAction* a : menu->actions())
            if (a->text().contains(part)) return a;
        return nullptr;
    }

private slots:
    /// Speeds and times of a rig that has a few, entered where the controller is, and what Moves makes of
    /// them.
    void fixedSpeedsAndTimes() {
        WindowDriver d;
        build(d);
        d.station(u"controller");
        d.pickFromMenu(d.find<QPushButton>("fixedSpeeds"), "Add a speed");
        const auto speeds = [&]() -> const auto& {
            return std::get<LinearMechanism>(d.project().axes[0].mechanism).motion.speeds;
        };
        QCOMPARE(speeds().size(), std::size_t{1});
        const QString path = QStringLiteral("axes/slide/mechanism/motion/speeds/%1/speed_m_s")
                                 .arg(QString::fromStdString(speeds()[0].id));
        d.type(path, "120 mm/s");
        QCOMPARE(speeds()[0].speed, 0.12);
        // 0.6 m in 4 s with a quarter for each ramp needs 200 mm/s.
        d.station(u"moves");
        QPushButton* fix = nullptr;
        QTRY_VERIFY_WITH_TIMEOUT(
            [&] {
                for (QPushButton* b : d.window->findChildren<QPushButton*>())
                    if (b->isVisible() && b->property("role") == "fix" && b->text().contains("6.67 s"))
                        fix = b;
                return fix != nullptr;
            }(),
            20000);
        QTest::mouseClick(fix, Qt::LeftButton);
        VERIFY_NEAR(d.project().moves[0].poses[1].arrive.time, 6.67, 1e-9);
        d.station(u"controller");
        d.pickFromMenu(d.find<QPushButton>("fixedSpeeds"), "Remove the last speed");
        QVERIFY(speeds().empty() && d.field(path) == nullptr);

        d.pickFromMenu(d.find<QPushButton>("fixedTimes"), "Add a time");
        d.pickFromMenu(d.find<QPushButton>("fixedTimes"), "Add a time");
        QCOMPARE(d.project().controller.times.size(), std::size_t{2});
        d.type(QStringLiteral("controller/times/%1/time_s")
                   .arg(QString::fromStdString(d.project().controller.times[1].id)),
               "7 s");
        QCOMPARE(d.project().controller.times[1].time, 7.0);
        const auto& segment = d.window->document().assessment().evaluation.moves[0].segments[0];
        QCOMPARE(segment.choice.value(), 7.0);
        d.pickFromMenu(d.find<QPushButton>("fixedTimes"), "Remove the last time");
        QCOMPARE(d.project().controller.times.size(), std::size_t{1});
    }
    /// A pose is taken in hand by its flag, and let go of by it or by a key; not while the rig stands
    /// elsewhere.
    void flagsAreLetGo() {
        WindowDriver d;
        build(d);
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        const auto press = [&](int pose) {
            QTest::mouseClick(timeline, Qt::LeftButton, {}, timeline->flagAt(pose).toPoint());
        };
        press(0);
        QCOMPARE(desk(d).pose(), 0);
        place(d, 0, "300 mm");
        press(0); // back to the pose
        QCOMPARE(desk(d).pose(), 0);
        QVERIFY(!desk(d).jogged());
        press(0);
        QCOMPARE(desk(d).pose(), -1);
        press(1);
        QTest::keyClick(timeline, Qt::Key_Escape);
        QCOMPARE(desk(d).pose(), -1);
    }
    /// Other things are chosen by their names, never typed by their ids.
    void namesAreChosen() {
        WindowDriver d;
        build(d);
        letGo(d);
        auto* editor = d.find<FieldEditor>("moves/move/shot");
        QVERIFY(editor != nullptr && editor->isVisible());
        auto* shots = editor->findChild<QComboBox*>();
        QVERIFY(shots != nullptr && shots->isVisible());
        const int at = shots->findText("Creep");
        QVERIFY(at > 0);
        shots->setFocus();
        while (shots->currentIndex() < at) QTest::keyClick(shots, Qt::Key_Down);
        QCOMPARE(d.project().moves[0].shot, std::string("creep"));
        d.window->document().undoStack()->undo();
        QVERIFY(d.project().moves[0].shot != "creep");
        QVERIFY(shots->currentText() != "Creep");
    }
    /// What an axis goes past its poses is said, and drawn in its lane, once it may.
    void overshootIsShown() {
        WindowDriver d;
        build(d);
        place(d, 0, "720 mm");
        QTest::mouseClick(d.find<QPushButton>("storePose"), Qt::LeftButton);
        d.window->document().change("through", [](Project& p) { p.moves[0].poses[1].passes = true; });
        auto* lanes = d.find<QComboBox>("laneChoice");
        lanes->setFocus();
        QTest::keyClick(lanes, Qt::Key_Down); // places
        auto* timeline = d.find<MoveTimeline>("moveTimeline");
        const auto saysSo = [&] {
            return timeline->inWords().contains("past its poses") &&
                   d.find<QWidget>("moveTimeline")->accessibleDescription().contains("past its poses");
        };
        QVERIFY(!saysSo());
        const QImage before = timeline->grab().toImage();
        letGo(d);
        auto* allowed = d.window->findChild<QCheckBox*>("moves/move/overshoots");
        if (allowed == nullptr)
            for (QCheckBox* box : d.window->findChildren<QCheckBox*>())
                if (box->isVisible() && box->text() == "Overshoot allowed") allowed = box;
        QVERIFY(allowed != nullptr);
        QTest::mouseClick(allowed, Qt::LeftButton, {}, QPoint(8, allowed->height() / 2));
        QVERIFY(d.project().moves[0].overshoots);
        QVERIFY(saysSo());
        QVERIFY(timeline->grab().toImage() != before);
    }
    /// How fast the move could go is looked for beside the work, kept, and said to be old after a change.
    void bestTimeIsKept() {
        WindowDriver d;
        build(d);
        auto* station = d.window->findChild<MovesStation*>();
        const auto line = [&] { return station->accessibleDescription(); };
        QTRY_VERIFY_WITH_TIMEOUT(line().contains("at best"), 10000);
        QVERIFY(!line().contains("before the change"));
        const RigMove& m = d.project().moves[0];
        const PlannedMove planned = plannedMove(setupOf(d.project(), Courses::No), m);
        const auto least = leastMoveTime(m, planned.scene, planned.plan);
        QVERIFY(least);
        const QString said =
            QString::fromStdString(units::format(least->time, units::Kind::Time, units::System::Metric));
        QVERIFY2(line().contains("at best " + said), qPrintable(line()));
        d.window->document().change("farther", [](Project& p) { p.axes[0].name = "Rail"; });
        QVERIFY2(line().contains("before the change"), qPrintable(line()));
        QTRY_VERIFY_WITH_TIMEOUT(!line().contains("before the change"), 10000);
    }
    void usualTimes() {
        WindowDriver d;
        build(d);
        auto* times = d.window->findChild<QMenu*>("usualTimes");
        QVERIFY(times != nullptr);
        times->actions().at(0)->trigger();
        VERIFY_NEAR(desk(d).duration(), 10.0, 1e-6);
        times->actions().back()->trigger();
        VERIFY_NEAR(desk(d).duration(), 6.0 * 3600.0, 1e-3);
        d.window->document().undoStack()->undo();
        VERIFY_NEAR(desk(d).duration(), 10.0, 1e-6);
    }
    void lensIsCarriedByButtons() {
        WindowDriver d;
        build(d);
        const geometry::Place before = desk(d).camera().frame.at;
        // The pan looks to the side, so that its right is the way along the rail, or against it.
        QTest::mouseClick(d.find<QPushButton>("lensLeft"), Qt::LeftButton);
        const double one = desk(d).camera().frame.at.x - before.x;
        // A rail that slopes comes as near to that as it can: by the square of the cosine.
        const double c = std::cos(std::get<LinearMechanism>(d.project().axes[0].mechanism).slope.value);
        VERIFY_NEAR(std::abs(one), 0.01 * c * c, 1e-3);
        QVERIFY(desk(d).jogged());
        QTest::mouseClick(d.find<QPushButton>("lensRight"), Qt::LeftButton);
        VERIFY_NEAR_ABS(desk(d).camera().frame.at.x, before.x, 1e-6);
        // No axis of it goes up.
        QTest::mouseClick(d.find<QPushButton>("lensUp"), Qt::LeftButton);
        VERIFY_NEAR_ABS(desk(d).camera().frame.at.z, before.z, 1e-9);
        QVERIFY(d.status().contains("cannot take the lens"));
    }
    /// The same thing in the middle from both ends of the rail; then it is a target where it stands.
    void targetFromTwoViews() {
        WindowDriver d;
        build(d);
        // Without a tilt both views look level, so the rail must be.
        d.window->document().change(
            "level", [](Project& p) { std::get<LinearMechanism>(p.axes[0].mechanism).slope.value = 0.0; });
        auto* aim = d.find<QPushButton>("aimAt")->menu();
        emit aim->aboutToShow();
        QVERIFY(action(aim, "views have") == nullptr);
        place(d, 0, "100 mm");
        place(d, 1, "70°");
        const geometry::Frame first = desk(d).camera().frame;
        d.pickFromMenu(d.find<QPushButton>("aimAt"),
                       "Store this view of something in the middle of the picture");
        place(d, 0, "700 mm");
        place(d, 1, "110°");
        const geometry::Frame second = desk(d).camera().frame;
        d.pickFromMenu(d.find<QPushButton>("aimAt"),
                       "Store this view of something in the middle of the picture");
        emit aim->aboutToShow();
        QAction* told = action(aim, "views have");
        QVERIFY(told != nullptr);
        told->trigger();
        QVERIFY2(d.project().moves[0].targets.size() == 1, qPrintable(d.status()));
        const AimTarget& t = d.project().moves[0].targets[0];
        // Where the two lines of sight cross, seen from above.
        const double dx = second.at.x - first.at.x, dy = second.at.y - first.at.y;
        const double along = (dx * second.ahead.y - dy * second.ahead.x) /
                             (first.ahead.x * second.ahead.y - first.ahead.y * second.ahead.x);
        VERIFY_NEAR_ABS(t.x, first.at.x + along * first.ahead.x, 1.5e-3);
        VERIFY_NEAR_ABS(t.y, first.at.y + along * first.ahead.y, 1.5e-3);
        QVERIFY(t.deviation > 1e-4 && t.deviation < 0.1);
        QVERIFY(d.status().contains("known within"));
        QVERIFY(desk(d).views().empty());
    }
    void subjectRidesOnATable() {
        WindowDriver d;
        build(d);
        d.window->document().change("table", [](Project& p) {
            addAxis(p, Role::Turntable);
            addTarget(p, 0, 0.5, 1.0, 1.0);
        });
        auto* aim = d.find<QPushButton>("aimAt")->menu();
        emit aim->aboutToShow();
        QAction* rides = action(aim, "rides on");
        QVERIFY(rides != nullptr && !rides->isChecked());
        rides->trigger();
        const std::string table = d.project().axes.back().id;
        QCOMPARE(d.project().moves[0].targets[0].rides, table);
        const QString of = "moves/move/targets/target/";
        d.type(of + "about_x_m", "300 mm");
        VERIFY_NEAR(d.project().moves[0].targets[0].aboutX, 0.3, 1e-12);
        // Half round: it stands as far on the other side.
        place(d, 2, "180°");
        VERIFY_NEAR_ABS(desk(d).placeOf(d.project().moves[0].targets[0]).x, 0.1, 1e-3);
        emit aim->aboutToShow();
        QVERIFY(action(aim, "rides on")->isChecked());
        action(aim, "rides on")->trigger();
        QVERIFY(d.project().moves[0].targets[0].rides.empty());
    }
    void parallaxOfTheMove() {
        WindowDriver d;
        build(d);
        d.pickFromMenu(d.find<QPushButton>("moveMenu"), "Parallax");
        auto* dialog = d.window->findChild<ParallaxDialog*>();
        QVERIFY(dialog != nullptr && dialog->isVisible());
        auto* near = dialog->findChild<QLineEdit*>("parallaxNear");
        auto* far = dialog->findChild<QLineEdit*>("parallaxFar");
        auto* wanted = dialog->findChild<QLineEdit*>("parallaxWanted");
        auto* result = dialog->findChild<QLabel*>("parallaxResult");
        near->setText("1 m");
        far->setText("4 m");
        wanted->setText("10 %");
        // 0.6 m to the side: F · 0.6 · (1 − 1/4), and the way for a tenth of the frame.
        const double focal = desk(d).focal(), wide = d.project().camera.deliveredWidth;
        const QString shift = QString::number(std::round(focal * 0.6 * 0.75), 'f', 0);
        QVERIFY2(result->text().remove(QChar(0x202f)).remove(' ').contains(shift),
                 qPrintable(result->text() + shift));
        const double way = 0.1 * wide / (focal * 0.75);
        QVERIFY2(result->text().contains(QString::number(1e3 * way, 'f', 0).left(2)),
                 qPrintable(result->text()));
        // Another move in hand is followed: half the way, half the shift.
        d.window->document().change("pan", [](Project& p) {
            RigMove other = p.moves[0];
            other.id = "other";
            std::get<AxisPlace<AxisKind::Linear>>(other.poses[1].places[0].place).at = 0.4;
            p.moves.push_back(other);
        });
        auto* moves = d.find<QComboBox>("moveChoice");
        moves->setCurrentIndex(1);
        emit moves->activated(1);
        const QString half = QString::number(std::round(focal * 0.3 * 0.75), 'f', 0);
        QVERIFY2(result->text().remove(QChar(0x202f)).remove(' ').contains(half),
                 qPrintable(result->text() + half));
        far->setText("0.5 m");
        QVERIFY(result->text().contains("farther away"));
        near->setText("-1 m");
        QVERIFY(result->text().contains("What is near"));
    }
};

QTEST_MAIN(MovesToolsTest)
#include "moves_tools_test.moc"
