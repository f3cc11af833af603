// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;
using namespace gantry::crosscheck;

/// Claims just this side and just that side of what an axis does, and typed steps that one wrong part
/// explains.
class CrosscheckTest : public QObject {
    Q_OBJECT
    static QString sentence(const Project& p, Subject subject, double value, bool& plausible) {
        const Finding f =
            crosscheck::judge(p, p.axes[0], evaluateAxis(p, p.axes[0]), Claim{subject, value, {}});
        plausible = f.plausible;
        return QString::fromStdString(f.sentence);
    }
    static bool plausible(const Project& p, Subject subject, double value) {
        bool out = false;
        (void)sentence(p, subject, value, out);
        return out;
    }

private slots:
    /// Each claim turns from plausible to not at what the axis can do, with a per cent or so for rounding.
    void whereClaimsTurn() {
        Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double rated = e.model.stepper()->ratedCurrentRms;
        QVERIFY(plausible(p, Subject::Current, rated));
        QVERIFY(plausible(p, Subject::Current, 1.015 * rated));
        QVERIFY(!plausible(p, Subject::Current, 1.03 * rated));
        bool ok = true;
        QVERIFY(sentence(p, Subject::Current, 1.4142 * rated, ok).contains("peak; a driver"));
        QVERIFY(!ok);
        QVERIFY(!sentence(p, Subject::Current, 1.3 * rated, ok).contains("peak; a driver"));
        double fastest = 0.0, steepest = 0.0, most = 1e9;
        for (const ShotEvaluation& s : e.shots) {
            fastest = std::max(fastest, s.motion.topSpeed.value());
            steepest = std::max(steepest, s.motion.acceleration.value());
            most = std::min(most, s.torque.maxAcceleration.value());
        }
        const double limit = e.pulseLimitSpeed.value() * 1e3;
        QVERIFY(plausible(p, Subject::TopSpeed, fastest * 1e3));
        QVERIFY(plausible(p, Subject::TopSpeed, limit));
        QVERIFY(sentence(p, Subject::TopSpeed, 1.01 * limit, ok).contains("more than the drive"));
        QVERIFY(!ok);
        QVERIFY(sentence(p, Subject::TopSpeed, 0.99 * fastest * 1e3, ok).contains("too slow"));
        QVERIFY(!ok);
        QVERIFY(sentence(p, Subject::TopSpeed, 60 * fastest * 1e3, ok).contains("per minute"));
        QVERIFY(plausible(p, Subject::Acceleration, steepest * 1e3));
        QVERIFY(plausible(p, Subject::Acceleration, 0.999 * most * 1e3));
        QVERIFY(!plausible(p, Subject::Acceleration, 1.001 * most * 1e3));
        QVERIFY(!plausible(p, Subject::Acceleration, 0.99 * steepest * 1e3));
        // Torque at the output [N]: times the ratio at most, and times the efficiency really.
        const double free = e.model.available(0.0) / e.model.outputPerRad;
        QVERIFY(sentence(p, Subject::OutputTorque, 1.02 * free, ok).contains("No gear gives more"));
        QVERIFY(sentence(p, Subject::OutputTorque, 0.99 * free, ok).contains("forgets the efficiency"));
        QVERIFY(!ok);
        QVERIFY(plausible(p, Subject::OutputTorque, 0.9 * free));
        double power = 0.0;
        for (double w = 1.0; w < 1000; w += 1.0) power = std::max(power, w * e.model.available(w));
        QVERIFY(plausible(p, Subject::Power, power));
        QVERIFY(!plausible(p, Subject::Power, 1.1 * power));
    }
    /// One wrong part at a time: typed steps that are right for it name it, with the move that would show it.
    void whatExplainsTypedSteps_data() {
        QTest::addColumn<QString>("rig");
        QTest::addColumn<double>("factor");
        QTest::addColumn<QString>("names");
        QTest::newRow("half the microsteps") << "belt-slider" << 0.5 << "1/8 microsteps instead of 1/16";
        QTest::newRow("a 0.9° motor") << "belt-slider" << 2.0 << "0.9° a step";
        QTest::newRow("a pulley of 16")
            << "belt-slider" << 20.0 / 16 << "a pulley with 16 teeth instead of 20";
        QTest::newRow("a 3 mm belt") << "belt-slider" << 2.0 / 3 << "belt pitch of 3 mm";
        QTest::newRow("a doubled belt") << "belt-slider" << 2.0 << "belt that is doubled";
        for (const double lead : {1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 10.0, 12.0, 16.0})
            QTest::addRow("a lead of %g", lead)
                << "screw-slider" << 8.0 / lead << QString("a lead of %1 mm").arg(lead);
    }
    void whatExplainsTypedSteps() {
        QFETCH(QString, rig);
        QFETCH(double, factor);
        QFETCH(QString, names);
        Project p;
        for (const rigs::RigInfo& info : rigs::all())
            if (rig == QString::fromUtf8(info.key.data(), qsizetype(info.key.size())))
                p = rigs::make(info.kind);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double steps = e.steps.stepsPerUnit.value();
        const StepsFinding f = explainSteps(p, p.axes[0], steps * factor);
        VERIFY_NEAR(f.movesForOne, factor, 1e-9);
        QString all;
        bool found = false;
        for (const Suspect& s : f.suspects) {
            all += QString::fromStdString(s.what) + "; ";
            // Whatever is suspected explains the number within half a per cent.
            QVERIFY(s.error < 0.005);
            VERIFY_NEAR(s.stepsPerUnit / (steps * factor), 1.0, 5e-3);
            VERIFY_NEAR(s.testMove, 100.0 * steps * factor / s.stepsPerUnit, 1e-9);
            found = found || QString::fromStdString(s.what).contains(names);
        }
        QVERIFY2(found, qPrintable(all));
        QVERIFY(f.suspects.size() <= 8);
        QVERIFY(explainSteps(p, p.axes[0], steps).suspects.empty());
        // Nothing explains a number that is off by a little more than that.
        for (const Suspect& s : explainSteps(p, p.axes[0], steps * factor * 1.0061).suspects)
            QVERIFY(!QString::fromStdString(s.what).contains(names));
    }
    void finerThanThePlay() {
        AxisEvaluation e = evaluateAxis(demoProject(), demoProject().axes[0]);
        e.step = Figure::of(1e-5);
        e.model.backlash = 0.99e-4;
        QVERIFY(uselessFineness(e).empty());
        e.model.backlash = 1.5e-4;
        QVERIFY(uselessFineness(e).find("15 times finer") != std::string::npos);
        e.model.backlash = 0.0;
        QVERIFY(uselessFineness(e).empty());
    }
    /// Lines as people write them: the number with a unit is brought to the one it is read in.
    void unitsOfClaims() {
        const auto first = [](const char* line, AxisKind kind) { return readClaims(line, kind).at(0); };
        VERIFY_NEAR(first("acceleration = 800", AxisKind::Linear).value, 800.0, 1e-9);
        VERIFY_NEAR(first("acceleration = 0.8 m/s2", AxisKind::Linear).value, 800.0, 1e-9);
        VERIFY_NEAR(first("max speed = 0.25 m/s", AxisKind::Linear).value, 250.0, 1e-9);
        VERIFY_NEAR(first("speed = 90", AxisKind::Rotary).value, 90.0, 1e-9);
        QCOMPARE(first("acceleration = 1", AxisKind::Linear).subject, Subject::Acceleration);
        QCOMPARE(first("power = 30 W", AxisKind::Linear).subject, Subject::Power);
    }
};

QTEST_APPLESS_MAIN(CrosscheckTest)
#include "crosscheck_test.moc"
