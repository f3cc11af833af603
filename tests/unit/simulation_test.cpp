// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/rocking.h"
#include "core/motor/stepper_motion.h"
#include "core/motor/stepper_torque.h"
#include "core/simulation/axis_simulation.h"
#include "core/simulation/pulse_train.h"
#include "core/tools/simulation_view.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <numbers>

using namespace gantry;
using namespace gantry::simulation;
constexpr double pi = std::numbers::pi;

class SimulationTest : public QObject {
    Q_OBJECT
    /// The belt slider that is worked by hand in the models: 4.1 kg, 12°, 3 N drag.
    static AxisSimulation slider() {
        AxisSimulation s;
        s.mechanism.motorInertia = 5.7e-6;
        s.mechanism.outputPerRad = 0.04 / (2 * pi);
        s.mechanism.stiffness = 4e4;
        s.mechanism.damping = 8.0;
        s.mechanism.efficiency = 0.95;
        s.mechanism.backEfficiency = 2.0 - 1.0 / 0.95;
        s.mechanism.loadInertia = 4.1;
        s.mechanism.steady = 4.1 * 9.80665 * std::sin(12 * pi / 180);
        s.mechanism.coulomb = 3.0;
        s.mechanism.staticFriction = 4.0;
        s.mechanism.motorDamping = 2 * 0.1 * std::sqrt(50 * 0.3106 * 1.72e-4);
        StepperDriveParams d;
        d.torqueConstant = 0.44 / (std::numbers::sqrt2 * 1.7);
        d.resistance = 1.5;
        d.inductance = 2.8e-3;
        d.supplyVoltage = 24;
        d.peakCurrent = 1.2 * std::numbers::sqrt2;
        s.drive = d;
        s.profile = motion::plan(0.2, {0.25, 0.8, 4.0});
        s.commandStep = 0.04 / 3200;
        s.tail = 0.3;
        return s;
    }
    /// Load torque at which a rotor that runs at a steady speed falls out of step, the load growing slowly.
    static double stallTorque(const motor::StepperParams& p, double inertia, double zeta, double speed) {
        StepperDriveParams d;
        d.rotorTeeth = p.rotorTeeth;
        d.torqueConstant = motor::torqueConstant(p);
        d.resistance = p.resistance;
        d.inductance = p.inductance;
        d.supplyVoltage = p.supplyVoltage;
        d.peakCurrent = p.peakCurrent;
        const double h = 2.5e-6;
        const double natural = std::sqrt(p.rotorTeeth * p.holdingTorque / inertia);
        const double damper = 2 * zeta * inertia * natural;
        StepperDrive drive(d, h);
        const double spacing = drive.microstep() / speed;
        double angle = 0, omega = 0, next = 0, now = 0;
        // Speed up within 0.2 s without a load, then load it over 1.2 s up to the holding torque.
        for (long n = 0; now < 2.0; ++n) {
            now = n * h;
            const double share = std::min(1.0, now / 0.3);
            while (next <= now) {
                drive.pulse(1, now);
                next += spacing / std::max(0.02, share);
            }
            const double load = std::max(0.0, (now - 0.5) / 1.4) * 1.1 * p.holdingTorque;
            const double torque = drive.torque(angle + 0.5 * h * omega, omega, now);
            // Damping acts on what the rotor swings, not on how fast the shaft turns.
            const double swing = omega - speed * share;
            omega += h * (torque - load - damper * swing) / inertia;
            angle += h * omega;
            if (std::abs(p.rotorTeeth * (drive.commanded() - angle)) > 2 * pi) return now < 0.5 ? 0.0 : load;
        }
        return 1e9;
    }
private slots:
    void pulsesFollowTheProfile() {
        const auto p = motion::plan(0.3, {0.25, 0.8, 4.0});
        const auto train = pulseTrain(p, 12.5e-6, 1e6);
        QCOMPARE(train.size(), std::size_t(24000));
        for (std::size_t n = 0; n < train.size(); n += 37)
            VERIFY_NEAR(p.at(train[n]).position, (n + 0.5) * 12.5e-6, 1e-9);
        for (std::size_t n = 1; n < train.size(); ++n) QVERIFY(train[n] > train[n - 1]);
        // A ceiling of 10 kHz delays 20 kHz: pulses stand 0.1 ms apart and none is lost.
        const auto slow = pulseTrain(p, 12.5e-6, 1e4);
        QCOMPARE(slow.size(), train.size());
        for (std::size_t n = 1; n < slow.size(); ++n) QVERIFY(slow[n] - slow[n - 1] >= 1e-4 * (1 - 1e-9));
        QVERIFY(slow.back() > train.back() + 0.2);
        QVERIFY(pulseTrain({}, 1e-5, 1e5).empty());
    }
    void sliderArrivesAndItsBooksClose() {
        const auto r = simulate(slider());
        QVERIFY(r.finished);
        QCOMPARE(r.lostFullSteps, 0L);
        QVERIFY(r.lostAt < 0);
        VERIFY_NEAR(r.trace.back().command, 0.2, 1e-9);
        QVERIFY(std::abs(r.finalError) < (8.36 + 2 * 4.0) / 4e4); // what the belt stretches
        QVERIFY2(std::abs(r.energy.imbalance()) < 5e-4, qPrintable(QString::number(r.energy.imbalance())));
        // Lifting 4.1 kg by 0.2 m on the slope, by hand.
        VERIFY_NEAR(r.energy.lifted, 4.1 * 9.80665 * std::sin(12 * pi / 180) * 0.2, 2e-3);
        // Copper at 1.2 A rms through two windings for the time of move and tail.
        const double time = r.trace.back().time;
        VERIFY_NEAR(r.energy.copper, 2 * 1.2 * 1.2 * 1.5 * time, 0.03);
        // Friction 3 N over 0.2 m and 5 % of what passes the belt are lost at least.
        QVERIFY(r.energy.lost > 0.6 + 0.05 * (8.36 + 3) * 0.2);
    }
    /// A load on a soft spring hangs still before it is moved: nothing bounces by the 17 mm that gravity
    /// winds it.
    void beginsSettledUnderGravity() {
        AxisSimulation in = slider();
        in.mechanism.stiffness = 500.0;
        in.mechanism.damping = in.mechanism.coulomb = in.mechanism.staticFriction = 0.0;
        in.mechanism.efficiency = in.mechanism.backEfficiency = 1.0;
        in.profile = motion::plan(1e-3, {0.01, 0.05, 1.0});
        in.tail = 1.0;
        const SimulationResult r = simulate(in);
        QCOMPARE(r.lostFullSteps, 0L);
        // The move itself swings it by no more than twice a/ω² = 0.4 mm either way.
        QVERIFY2(r.rocking < 1.7e-3, qPrintable(QString::number(r.rocking)));
        QVERIFY(std::abs(r.trace.front().position) < 1e-9);
        QVERIFY2(std::abs(r.energy.imbalance()) < 2e-3, qPrintable(QString::number(r.energy.imbalance())));
        // Whichever way the steady force points.
        in.mechanism.steady = -in.mechanism.steady;
        QVERIFY(simulate(in).rocking < 1.7e-3);
    }
    /// Play lies on the flank that pushes, so the move loses none of it; what hangs over pulls it to the
    /// other.
    void beginsOnItsFlank() {
        AxisSimulation in = slider();
        in.mechanism.backlash = 1e-3;
        in.mechanism.steady = 0.0;
        QVERIFY2(std::abs(simulate(in).finalError) < 4e-4,
                 qPrintable(QString::number(simulate(in).finalError)));
        in.mechanism.steady = -20.0;
        QVERIFY(std::abs(simulate(in).finalError) < 4e-4);
    }
    /// A servo that lags by its place loop is late by a time; where it hardly moves it is not.
    void lagInPlaceAndTime() {
        AxisSimulation in = slider();
        SimulationResult r;
        r.peakLag = 0.02;
        r.peakLagAt = 0.5 * in.profile.time();
        const Lag lag = lagOf(in, r);
        QCOMPARE(lag.place, 0.02);
        QVERIFY(lag.time);
        VERIFY_NEAR(*lag.time, 0.02 / 0.25, 1e-9);
        r.peakLagAt = in.profile.time();
        QVERIFY(!lagOf(in, r).time);
        QVERIFY(lag.inSteps);
        in.drive = ServoDriveParams{};
        QVERIFY(!lagOf(in, r).inSteps);
    }
    void halvingTheStepChangesLittle() {
        AxisSimulation s = slider();
        s.step = 5e-6;
        const auto coarse = simulate(s);
        s.step = 2.5e-6;
        const auto fine = simulate(s);
        QVERIFY2(std::abs(coarse.trace.back().position - fine.trace.back().position) < 0.1 * s.commandStep,
                 qPrintable(QString::number(coarse.trace.back().position - fine.trace.back().position)));
        VERIFY_NEAR(coarse.peakLag, fine.peakLag, 0.02);
        QCOMPARE(coarse.lostFullSteps, fine.lostFullSteps);
        QVERIFY(std::abs(coarse.energy.imbalance()) < 1e-3);
    }
    /// Away from the margin the verdict on lost steps hangs on the motor, not on the step: two motors, three
    /// voltages, ramps that need a third of the torque and ramps that need several times as much.
    void halvingNeverChangesTheVerdict() {
        for (const bool big : {false, true})
            for (const double volts : big ? std::vector{36.0, 48.0} : std::vector{12.0, 24.0, 36.0})
                for (const double acceleration : {0.8, 20.0}) {
                    AxisSimulation s = slider();
                    auto& d = std::get<StepperDriveParams>(s.drive);
                    d.supplyVoltage = volts;
                    if (big) { // 1.9 N·m, 2.8 A; four times the load
                        d.torqueConstant = 1.9 / (std::numbers::sqrt2 * 2.8);
                        d.resistance = 1.13;
                        d.inductance = 5.4e-3;
                        d.peakCurrent = 2.8 * std::numbers::sqrt2;
                        s.mechanism.motorInertia = 4.8e-5;
                        for (double* load : {&s.mechanism.loadInertia, &s.mechanism.steady,
                                             &s.mechanism.coulomb, &s.mechanism.staticFriction})
                            *load *= 4.0;
                        s.mechanism.motorDamping = 2 * 0.1 * std::sqrt(50 * 1.9 * 7.1e-4);
                    }
                    s.profile =
                        motion::plan(0.15, {big ? 0.35 : 0.22, acceleration * (big ? 1.5 : 1.0), 0.0});
                    s.step = 5e-6;
                    const bool coarse = simulate(s).lostFullSteps != 0;
                    s.step = 2.5e-6;
                    const bool fine = simulate(s).lostFullSteps != 0;
                    const QString which =
                        QString("big %1, %2 V, %3 m/s²").arg(big).arg(volts).arg(acceleration);
                    QVERIFY2(coarse == fine, qPrintable(which));
                    QVERIFY2(fine == (acceleration > 1.0), qPrintable(which));
                }
    }
    /// Twice the speed and ramps that the torque curve allows must fail, half of them must not.
    void overloadLosesSteps() {
        AxisSimulation s = slider();
        s.profile = motion::plan(0.4, {0.25, 16.0, 0.0});
        const auto r = simulate(s);
        QVERIFY(r.lostFullSteps > 0);
        QVERIFY(r.lostAt > 0 && r.lostAt < s.profile.time());
        QVERIFY(r.finalError < -1e-3);
        s.profile = motion::plan(0.4, {0.25, 2.8, 0.0}); // margin 2 by hand
        QCOMPARE(simulate(s).lostFullSteps, 0L);
    }
    /// Pull-out against an independent simulation, and between the sizing curve and the curve at best.
    void pullOutAgreesWithWorkedStalls() {
        int compared = 0;
        for (const auto& c : referenceCases("t01_pullout", "stall_simulation")) {
            const auto& in = c["inputs"];
            motor::StepperParams p;
            p.rotorTeeth = in["Nr"];
            p.holdingTorque = in["Th"];
            p.ratedCurrentRms = in["Ir"];
            p.resistance = in["R"];
            p.inductance = in["L"];
            p.supplyVoltage = in["V"];
            p.peakCurrent = in["Ipk"];
            const double speed = in["rpm"].get<double>() * 2 * pi / 60;
            const double stall = stallTorque(p, in["J"], in["zeta"], speed);
            const double expected = c["expected"]["stall_torque"];
            const double sizing = motor::pullOutTorque(p, speed), best = motor::pullOutTorqueAtBest(p, speed);
            const QByteArray told = QString("rpm %1: stall %2, worked %3, sizing %4, at best %5")
                                        .arg(in["rpm"].get<double>())
                                        .arg(stall)
                                        .arg(expected)
                                        .arg(sizing)
                                        .arg(best)
                                        .toUtf8();
            qInfo("%s", told.constData());
            QVERIFY2(stall > 0.95 * sizing && stall < 1.06 * best, told.constData());
            QVERIFY2(std::abs(stall / expected - 1) < 0.06, told.constData());
            ++compared;
        }
        QVERIFY(compared >= 6);
    }
    /// A rotor nudged at rest rings at the frequency of its own linear equation.
    void rotorRingsAtItsNaturalFrequency() {
        StepperDriveParams d;
        d.peakCurrent = 2.0;
        d.inductance = 1e-3; // currents stand still
        d.resistance = 0.5;
        d.supplyVoltage = 24;
        d.chopperPeriod = 1e-6;
        MechanismParams m;
        m.motorInertia = 3e-5;
        m.loadInertia = 1e-9;
        m.stiffness = 1e-3;
        simulation::Mechanism rotor(m, 1e-6);
        StepperDrive drive(d, 1e-6);
        rotor.state().angle = 0.001;
        int crossings = 0;
        double first = 0, last = 0, before = 0.001;
        for (int n = 0; n < 300000; ++n) {
            rotor.advance(drive.torque(rotor.middleAngle(), 0.0, n * 1e-6)); // without back-EMF nothing damps
            if (before > 0 && rotor.state().angle <= 0) {
                if (crossings++ == 0) first = n * 1e-6;
                last = n * 1e-6;
            }
            before = rotor.state().angle;
        }
        const double found = (crossings - 1) / (last - first);
        VERIFY_NEAR(found, std::sqrt(50 * d.torqueConstant * 2.0 / 3e-5) / (2 * std::numbers::pi), 5e-3);
    }
    /// A load without a drive falls down its slope as energy says; with friction above gravity it stays.
    void powerCutFalls() {
        AxisSimulation s = slider();
        s.mechanism.damping = 40;
        s.fault = {FaultKind::PowerCut, 0.0, 0};
        s.tail = 0.0;
        s.profile = motion::plan(0.2, {0.25, 0.8, 4.0});
        const auto r = simulate(s);
        const double way = -r.trace.back().position, time = r.trace.back().time;
        QVERIFY(way > 0.1);
        // Constant acceleration: (gravity − friction) over mass and rotor, the rotor driven backwards.
        const double gearedRotor = 5.7e-6 / std::pow(0.04 / (2 * pi), 2) * s.mechanism.backEfficiency;
        const double a = (8.36 - 3.0) / (4.1 + gearedRotor);
        VERIFY_NEAR(way, 0.5 * a * time * time, 0.05);
        s.mechanism.coulomb = s.mechanism.staticFriction = 12.0;
        QVERIFY(std::abs(simulate(s).trace.back().position) < 2e-3);
    }
    void faults() {
        AxisSimulation s = slider();
        s.fault = {FaultKind::EndStop, 0, 0.05};
        const auto hit = simulate(s);
        QVERIFY(hit.hitSpeed > 0.1 && hit.lostFullSteps > 0);
        QVERIFY(hit.trace.back().position < 0.06);
        s.fault = {FaultKind::Stuck, 0.3, 0};
        const auto stuck = simulate(s);
        QVERIFY(stuck.lostFullSteps > 0);
        s.fault = {FaultKind::SupplySag, 0.3, 0.05};
        QVERIFY(simulate(s).lostFullSteps > 0);
        s.fault = {FaultKind::SupplySag, 0.3, 0.95};
        QCOMPARE(simulate(s).lostFullSteps, 0L);
        s.fault = {FaultKind::EmergencyStop, 0.3, 1};
        const auto held = simulate(s);
        QVERIFY(held.trace.back().command < 0.15);
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(!simulate(slider(), 0, stop.get_token()).finished);
    }
    /// What a tuned S-curve leaves in the simulated picture, against the trapezoid's worst for the same
    /// acceleration: under 2 % undamped, a tenth with a period that is wrong by a tenth.
    void tunedCurveLeavesThePictureStill() {
        AxisSimulation s = slider();
        s.step = 5e-6;
        s.tail = 0.5;
        s.mechanism.stiffness = 4e6; // the camera alone shall rock
        s.mechanism.damping = 800;
        s.mechanism.modeFrequency = 6.0;
        s.mechanism.modeDamping = 0.0;
        const double a = 0.5, worst = 2 * 4 * a / std::pow(2 * pi * 6, 2); // peak to peak
        const auto rocking = [&](const motion::Profile& p) {
            s.profile = p;
            const auto r = simulate(s);
            return r.lostFullSteps == 0 ? r.rocking : 1e9;
        };
        double trapezoid = 0;
        for (const double v : {0.2, 0.22, 0.24})
            trapezoid = std::max(trapezoid, rocking(motion::plan(0.3, {v, a, 0})));
        QVERIFY(trapezoid > 0.3 * worst);
        const double tuned = rocking(motion::planTuned(0.3, {0.25, a, 0}, 1 / 6.0));
        QVERIFY2(tuned < 0.02 * worst, qPrintable(QString::number(tuned / worst)));
        double off = 0;
        for (const double v : {0.2, 0.22, 0.24})
            off = std::max(off, rocking(motion::planTuned(0.3, {v, a, 0}, 1.1 / 6.0)));
        QVERIFY2(off < 0.13 * worst && off > 1.5 * tuned, qPrintable(QString::number(off / worst)));
        // Simulated and closed form are the same thing.
        const auto p = motion::plan(0.3, {0.22, a, 0});
        VERIFY_NEAR(rocking(p), 2 * motion::rockingAfter(p, {6.0, 0.0}), 0.03);
    }
    /// What is told of a run is what its trace shows.
    void figuresAreThoseOfTheTrace() {
        AxisSimulation s = slider();
        s.mechanism.modeFrequency = 6.0;
        s.mechanism.modeDamping = 0.05;
        s.profile = motion::plan(0.2, {0.25, 0.8, 0.0});
        s.tail = 1.5;
        const double end = s.profile.time(), band = 2e-4;
        std::vector<double> told;
        const auto r = simulate(s, band, {}, [&](double share) { told.push_back(share); });
        double farthest = 0, high = -1, low = 1, current = 0, settled = 0;
        for (const Sample& x : r.trace) {
            if (std::abs(x.position - x.command) > std::abs(farthest)) farthest = x.position - x.command;
            current = std::max(current, x.current);
            if (x.time < end) continue;
            high = std::max(high, x.picture);
            low = std::min(low, x.picture);
            if (std::abs(x.picture - r.trace.back().picture) > band / 2) settled = x.time - end;
        }
        QVERIFY(r.trace.size() > 1900 && r.trace.size() <= 2100);
        QCOMPARE(r.trace.front().time, 0.0);
        VERIFY_NEAR(r.trace.back().time, end + 1.5, 1e-9);
        QVERIFY(farthest < 0.0); // it lags
        QCOMPARE(r.farthest, farthest);
        QVERIFY(r.peakLag >= -farthest && r.peakLag < -farthest * 1.1);
        VERIFY_NEAR(r.rocking, high - low, 0.01);
        QVERIFY(r.peakCurrent >= current && r.peakCurrent < 1.15 * current);
        VERIFY_NEAR(r.settled, settled, 1e-9);
        QVERIFY(settled > 0.1 && settled < 1.4);
        // The camera alone dies down by e to the −ζ ω t from half of what it rocks at the stop.
        VERIFY_NEAR(settled, std::log(r.rocking / band) / (0.05 * 2 * pi * 6.0), 0.35);
        VERIFY_NEAR(r.finalError, r.trace.back().position - r.trace.back().command, 1e-9);
        QVERIFY(told.size() > 5 && told.front() == 0.0 && told.back() < 1.0);
        QVERIFY(std::is_sorted(told.begin(), told.end()));
        QCOMPARE(simulate(s, 0.0).settled, -1.0); // nobody asked
        QCOMPARE(simulate(s, 1.0).settled, 0.0);  // never out of it
    }
    void booksByHand() {
        Energy e;
        e.supplied = 10.0;
        e.copper = 4.0;
        e.lost = 2.0;
        e.lifted = 1.5;
        e.stored = 0.5;
        e.atStop = 1.0;
        VERIFY_NEAR(e.imbalance(), 0.1, 1e-12);
        e.supplied = -20.0;
        e.lifted = -21.0;
        VERIFY_NEAR(e.imbalance(), (-20.0 + 13.5) / 20.0, 1e-12);
        e.supplied = 1.0; // more is known than came in
        VERIFY_NEAR(e.imbalance(), (1.0 + 13.5) / 13.5, 1e-12);
        QCOMPARE(Energy{}.imbalance(), 0.0);
    }
    /// No sooner than due and no closer than the ceiling allows; each pulse by itself.
    void pulsesByHand() {
        motion::Profile p = motion::plan(0.02, {0.1, 1.0, 0.0});
        const auto free = pulseTrain(p, 1e-5, 1e9), held = pulseTrain(p, 1e-5, 7000.0);
        QCOMPARE(free.size(), std::size_t(2000));
        double last = -1.0;
        for (std::size_t n = 0; n < free.size(); ++n) {
            // v²/2a = 5 mm on either ramp, 10 mm at 0.1 m/s between.
            const double x = (static_cast<double>(n) + 0.5) * 1e-5;
            const double due = x < 0.005   ? std::sqrt(2 * x)
                               : x < 0.015 ? 0.1 + (x - 0.005) / 0.1
                                           : 0.3 - std::sqrt(2 * (0.02 - x));
            VERIFY_NEAR(free[n], due, 1e-9);
            last = std::max(due, last + 1.0 / 7000.0);
            VERIFY_NEAR(held[n], last, 1e-9);
        }
        QCOMPARE(pulseTrain(motion::plan(0.000104, {0.1, 1.0, 0.0}), 1e-5, 1e5).size(), std::size_t(10));
        QCOMPARE(pulseTrain(motion::plan(0.000106, {0.1, 1.0, 0.0}), 1e-5, 1e5).size(), std::size_t(11));
        QCOMPARE(pulseTrain(motion::plan(6e-6, {0.1, 1.0, 0.0}), 1e-5, 1e5).size(), std::size_t(1));
        QVERIFY(pulseTrain(motion::plan(4e-6, {0.1, 1.0, 0.0}), 1e-5, 1e5).empty());
        QVERIFY(pulseTrain(motion::plan(1.0, {0.1, 1.0, 0.0}), 1e-8, 1e5).empty()); // 100 million
    }
    /// What happens at a fault and what does not.
    void faultsByHand() {
        AxisSimulation s = slider();
        s.profile = motion::plan(0.4, {0.25, 0.8, 0.0});
        // Lost where the command was on its way, at the speed that it had then.
        s.fault = {FaultKind::Stuck, 0.5, 0};
        const auto stuck = simulate(s);
        QVERIFY(stuck.lostAt > 0.5 && stuck.lostAt < 0.7);
        VERIFY_NEAR(stuck.lostSpeed, s.profile.at(stuck.lostAt).speed, 1e-9);
        const double jammed = s.profile.at(0.5).position;
        VERIFY_NEAR(stuck.trace.back().position, jammed, 0.02);
        QCOMPARE(stuck.settled, -1.0);
        // That far short of 0.4 m: whole rounds of the electrical circle, four full steps each, of 0.2 mm.
        VERIFY_NEAR(stuck.lostFullSteps * 0.04 / 200, 0.4 - jammed, 0.01);
        QCOMPARE(stuck.lostFullSteps % 4, 0L);
        VERIFY_NEAR(stuck.farthest, jammed - 0.4, 0.01);
        // A stop in the way is met at the speed of cruise, and does not move.
        s.fault = {FaultKind::EndStop, 0, 0.2};
        const auto hit = simulate(s);
        VERIFY_NEAR(hit.hitSpeed, 0.25, 0.05);
        QVERIFY(hit.energy.atStop > 0.0);
        s.fault = {FaultKind::EndStop, 0, 0.45}; // behind the end of the move
        QCOMPARE(simulate(s).hitSpeed, 0.0);
        QCOMPARE(simulate(s).lostFullSteps, 0L);
        // An emergency stop ends the commands; with current the load stays where it was, without it falls.
        s.fault = {FaultKind::EmergencyStop, 0.5, 1};
        const auto held = simulate(s);
        VERIFY_NEAR(held.trace.back().command, s.profile.at(0.5).position, 2e-3);
        s.fault.value = 0;
        const auto fallen = simulate(s);
        VERIFY_NEAR(fallen.trace.back().command, s.profile.at(0.5).position, 2e-3);
        QVERIFY(fallen.trace.back().position < held.trace.back().position - 0.5);
        QCOMPARE(fallen.trace.back().current, 0.0);
        // A supply that comes back after half a second leaves the rest of the move alone.
        s.profile = motion::plan(0.4, {0.1, 0.8, 0.0});
        s.fault = {FaultKind::SupplySag, 1.0, 0.0};
        const auto sag = simulate(s);
        const auto currentAt = [&](double t) {
            return std::find_if(sag.trace.begin(), sag.trace.end(),
                                [&](const Sample& x) { return x.time >= t; })
                ->current;
        };
        // What falls still drives a little through the windings.
        QVERIFY(currentAt(0.98) > 1.5 && currentAt(1.03) < 0.5 && currentAt(1.48) < 0.5 &&
                currentAt(1.52) > 1.5);
    }
    void servoFollowsAndSaturates() {
        AxisSimulation s = slider();
        ServoDriveParams d;
        d.curve = motor::ServoParams{0.32, 0.95, 314.16, 471.24, 48, 48};
        d.inertia = 1.72e-4;
        d.bandwidth = 15;
        d.feedforward = 1.0;
        d.countAngle = 2 * pi / 10000;
        s.drive = d;
        s.commandStep = 0.04 / 10000;
        const auto r = simulate(s);
        QVERIFY(r.finished);
        QVERIFY2(std::abs(r.finalError) < (8.36 + 2 * 4.0) / 4e4, qPrintable(QString::number(r.finalError)));
        QVERIFY(r.peakLag < 3e-3);
        VERIFY_NEAR(r.trace.back().command, 0.2, 1e-9);
        QCOMPARE(r.lostFullSteps, 0L);
        QVERIFY2(std::abs(r.energy.imbalance()) < 5e-4, qPrintable(QString::number(r.energy.imbalance())));
        // A tenth of the torque cannot lift it.
        std::get<ServoDriveParams>(s.drive).curve = motor::ServoParams{0.03, 0.05, 314.16, 471.24, 48, 48};
        QVERIFY(simulate(s).peakLag > 0.05);
    }
    void knobMotorRunsAtItsLine() {
        AxisSimulation s = slider();
        s.commandStep = 0;
        s.mechanism.steady = s.mechanism.motorDamping = 0;
        motor::DcParams m;
        m.nominalVoltage = m.voltage = 12;
        m.noLoadSpeed = 60;
        m.noLoadCurrent = 0.1;
        m.stallCurrent = 3;
        m.stallTorque = 1.0;
        s.drive = KnobDriveParams{m, 1};
        s.profile = motion::plan(0.4, {0.2, 0.8, 0});
        const auto r = simulate(s);
        // In cruise: the speed of the knob less what 3 N through 6.37 mm and 95 % take from the line.
        const double wanted = 0.2, droop = 3.0 * 0.0063662 / 0.95 / 1.0 * 60 * 0.0063662;
        const auto at = [&](double time) {
            return std::find_if(r.trace.begin(), r.trace.end(),
                                [&](const Sample& x) { return x.time >= time; });
        };
        const double speed = (at(1.6)->position - at(1.0)->position) / (at(1.6)->time - at(1.0)->time);
        VERIFY_NEAR(speed, wanted - droop, 0.01);
    }
};

QTEST_APPLESS_MAIN(SimulationTest)
#include "simulation_test.moc"
