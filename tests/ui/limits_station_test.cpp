// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/confidence_card.h"
#include "app/instruments/speed_strip.h"
#include "core/tools/limits.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>

using namespace gantry;
using namespace gantry::app;

/// Limits by clicks: what is recommended is set, the point is dragged, a shot is simulated with and without a
/// fault.
class LimitsStationTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static const MotionSettings<AxisKind::Linear>& motion(WindowDriver& d) {
        return std::get<LinearMechanism>(d.project().axes[0].mechanism).motion;
    }
    static void click(WindowDriver& d, const char* button) {
        auto* b = d.find<QPushButton>(button);
        QVERIFY2(b != nullptr && b->isEnabled(), button);
        QTest::mouseClick(b, Qt::LeftButton);
    }
private slots:
    void recommendedIsSetAndUndone() {
        WindowDriver d;
        d.station(u"limits");
        const Project before = d.project();
        const AxisLimits l =
            axisLimits(before, before.axes[0], d.window->document().assessment().evaluation.axes[0]);
        click(d, "useRecommended");
        QCOMPARE(motion(d).maxSpeed, l.recommended.speed);
        QCOMPARE(motion(d).maxAcceleration, l.recommended.acceleration);
        QCOMPARE(motion(d).jerk, l.recommended.jerk);
        d.window->document().undoStack()->undo();
        QVERIFY(d.project() == before);
        click(d, "useAlike");
        const auto& pan = std::get<RotaryMechanism>(d.project().axes[1].mechanism).motion;
        const double time = motion(d).maxSpeed / motion(d).maxAcceleration;
        QVERIFY(std::abs(pan.maxSpeed / pan.maxAcceleration / time - 1) < 1e-9);
    }
    /// The crossed ring follows the mouse, as one undoable step.
    void pointIsDragged() {
        WindowDriver d;
        d.station(u"limits");
        auto* plot = d.find("envelopePlot");
        QWidget* canvas = nullptr;
        for (QWidget* w : plot->findChildren<QWidget*>())
            if (w->inherits("QCustomPlot")) canvas = w;
        QVERIFY(canvas != nullptr);
        QTest::qWait(50);
        const double speed = motion(d).maxSpeed;
        const int undo = d.window->document().undoStack()->count();
        // Found by trying: the ring is the only place where pressing and moving changes something.
        bool moved = false;
        for (int y = 8; y < canvas->height() && !moved; y += 10)
            for (int x = 8; x < canvas->width() && !moved; x += 10) {
                QTest::mousePress(canvas, Qt::LeftButton, {}, QPoint(x, y));
                QTest::mouseMove(canvas, QPoint(x - 30, y));
                QTest::mouseMove(canvas, QPoint(x - 60, y));
                QTest::mouseRelease(canvas, Qt::LeftButton, {}, QPoint(x - 60, y));
                moved = motion(d).maxSpeed != speed;
            }
        QVERIFY(moved && motion(d).maxSpeed < speed);
        QCOMPARE(d.window->document().undoStack()->count(), undo + 1);
        d.window->document().undoStack()->undo();
        QCOMPARE(motion(d).maxSpeed, speed);
    }
    void shotIsSimulatedAndFaultsAreTold() {
        WindowDriver d;
        d.station(u"limits");
        click(d, "simulateShot");
        QTRY_VERIFY_WITH_TIMEOUT(d.status().contains("keeps in step"), 20000);
        QVERIFY(d.status().contains("Simulated: against gravity")); // the dolly climbs
        // Where it ends is said in the picture, and all of it can be read at the usual width.
        QVERIFY2(d.status().contains("px off (76.8 px allowed)"), qPrintable(d.status()));
        auto* status = d.find<QLabel>("status");
        d.window->resize(1280, 800);
        QVERIFY2(status->fontMetrics().horizontalAdvance(d.status()) <= status->width(),
                 qPrintable(d.status()));
        auto* fault = d.find<QComboBox>("faultChoice");
        fault->setFocus();
        for (int i = 0; i < 4; ++i) QTest::keyClick(fault, Qt::Key_Down); // jams
        click(d, "simulateShot");
        QTRY_VERIFY_WITH_TIMEOUT(d.status().contains("full steps from"), 20000);
    }
    /// Whatever is selected when it ends, a result speaks of the axis it was started for.
    void resultBelongsToItsAxis() {
        WindowDriver d;
        d.station(u"limits");
        click(d, "simulateShot");
        d.window->session().setAxis(1);
        QTRY_VERIFY_WITH_TIMEOUT(d.status().startsWith("Simulated"), 20000);
        QVERIFY2(d.status().contains("mm behind") || d.status().contains("µm behind"),
                 qPrintable(d.status()));
    }
    void samplingFindsWhatMattersMost() {
        WindowDriver d;
        d.station(u"limits");
        auto* measure = d.window->findChild<QPushButton*>("measureFirst");
        QTRY_VERIFY_WITH_TIMEOUT(measure->isVisible(), 20000);
        QTest::mouseClick(measure, Qt::LeftButton);
        QVERIFY(d.window->findChild<QDialog*>("measureDialog") != nullptr);
    }
    void ladderNarrowsTheMotor() {
        WindowDriver d;
        d.station(u"limits");
        d.pickFromMenu(d.find<QPushButton>("limitsTools"), "Stall ladder");
        auto* dialog = d.window->findChild<QDialog*>("ladderDialog");
        QVERIFY(dialog != nullptr);
        auto* table = dialog->findChild<QWidget*>("ladderTable");
        QVERIFY(!table->isVisible()); // precautions first
        for (auto* box : dialog->findChildren<QCheckBox*>()) {
            box->setFocus();
            QTest::keyClick(box, Qt::Key_Space);
        }
        QTRY_VERIFY(table->isVisible());
        const auto mark = [&](int rung, int downs) {
            auto* combo = dialog->findChild<QComboBox*>(QStringLiteral("rung%1").arg(rung));
            combo->setFocus();
            for (int i = 0; i < downs; ++i) QTest::keyClick(combo, Qt::Key_Down);
        };
        const double before = std::get<Stepper>(d.project().axes[0].motor).holdingTorque.value;
        mark(1, 1);
        mark(3, 2);
        auto* take = dialog->findChild<QPushButton*>("ladderTake");
        QVERIFY(take->isEnabled());
        QTest::mouseClick(take, Qt::LeftButton);
        const Estimate& now = std::get<Stepper>(d.project().axes[0].motor).holdingTorque;
        QVERIFY(now.value < before && now.source == Source::Measured);
    }
    void timeForADistance() {
        WindowDriver d;
        d.station(u"limits");
        d.pickFromMenu(d.find<QPushButton>("limitsTools"), "Time for a distance");
        auto* dialog = d.window->findChild<QDialog*>("timeDialog");
        auto* result = dialog->findChild<QLabel*>("timeResult");
        auto* distance = dialog->findChild<QLineEdit*>("timeDistance");
        distance->setFocus();
        distance->selectAll();
        QTest::keyClicks(distance, "600 mm");
        // 300 mm/s, 1 m/s², 4 m/s³ are set: 0.6/0.3 + 0.3 + 0.25 s.
        QVERIFY2(result->text().contains("2.55 s"), qPrintable(result->text()));
        QTest::keyClicks(dialog->findChild<QLineEdit*>("timeWanted"), "2 s");
        QVERIFY(result->text().contains("too short"));
    }
    void stripSaysItsBands() {
        WindowDriver d;
        d.station(u"limits");
        auto* strip = d.find<SpeedStrip>("speedStrip");
        QVERIFY(strip->inWords().contains("rotor resonance") && strip->inWords().contains("Reveal"));
    }
};

QTEST_MAIN(LimitsStationTest)
#include "limits_station_test.moc"
