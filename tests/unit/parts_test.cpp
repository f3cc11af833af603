// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/parts/identify.h"
#include "core/parts/label.h"
#include "core/parts/part.h"
#include "core/rigs/rigs.h"
#include "io/parts/parts_csv.h"
#include "support/files.h"
#include "support/near.h"

#include <QElapsedTimer>
#include <QTest>
#include <map>
#include <numbers>

using namespace gantry;
using parts::Part;

namespace {
io::PartsTable table(const std::string& text, std::string_view fallback = {}) {
    return io::readParts(text, io::suggestedColumns(io::csvHeader(text)), fallback);
}
const io::PartsTable& library() {
    static const io::PartsTable t = table(textOfFile(dataPath("parts/library.csv")));
    return t;
}
double number(const Part& p, std::string_view key) {
    return parts::numberOf(p, key).value_or(std::nan(""));
}
} // namespace

class PartsTest : public QObject {
    Q_OBJECT
private slots:
    void libraryIsLargeAndClean() {
        QVERIFY2(library().errors.empty(),
                 library().errors.empty() ? "" : library().errors[0].sentence.c_str());
        QVERIFY(library().parts.size() >= 120);
        std::map<std::string, int> families;
        for (const Part& p : library().parts) {
            ++families[p.family];
            QVERIFY2(p.reason.size() > 15, p.name.c_str());
            // A metre of profile costs what its merchant says; fixes scale the builder's own price by weight.
            QVERIFY2((p.price > 0.0) == (p.family != "section"), p.name.c_str());
        }
        for (const parts::Family& f : parts::families())
            QVERIFY2(families[std::string(f.key)] > 0, std::string(f.key).c_str());
    }
    /// Figures that hang together by physics, for every entry.
    void libraryIsPlausible() {
        for (const Part& p : library().parts) {
            if (p.family == "stepper") {
                const double heat =
                    2 * std::pow(number(p, "rated_current_A"), 2) * number(p, "resistance_ohm");
                const double rise = heat * number(p, "thermal_resistance_K_W");
                QVERIFY2(rise > 8 && rise < 70, (p.name + " rise").c_str());
                const double tau = number(p, "inductance_H") / number(p, "resistance_ohm");
                QVERIFY2(tau > 3e-4 && tau < 6e-3, p.name.c_str());
                const double specific = number(p, "holding_torque_Nm") / number(p, "mass_kg");
                QVERIFY2(specific > 0.05 && specific < 3.0, p.name.c_str());
            }
            if (p.family == "dc_servo" || p.family == "geared_dc") {
                // A gearbox gives no more than the motor puts in: stall torque within what volts, amps and
                // speed allow.
                const double electrical = number(p, "nominal_voltage_V") / number(p, "no_load_speed_rad_s") *
                                          number(p, "stall_current_A");
                QVERIFY2(number(p, "stall_torque_Nm") <= electrical * 1.001, p.name.c_str());
                QVERIFY2(number(p, "rated_torque_Nm") <= 0.35 * number(p, "stall_torque_Nm"), p.name.c_str());
            }
            if (p.family == "servo") {
                QVERIFY2(number(p, "peak_torque_Nm") > 2 * number(p, "rated_torque_Nm"), p.name.c_str());
            }
            if (p.family == "planetary")
                QVERIFY2(static_cast<int>(number(p, "ring_teeth") - number(p, "sun_teeth")) % 2 == 0,
                         p.name.c_str());
        }
    }
    /// Whatever the library holds goes into some axis and evaluates there.
    void everyPartCanBeUsed() {
        for (const Part& p : library().parts) {
            Project best;
            std::string why = "nothing tried";
            for (const rigs::RigInfo& info : rigs::all()) {
                for (const int link : {-1, 0}) {
                    Project project = rigs::make(info.kind);
                    if (project.axes.empty() || (link == 0 && project.axes[0].links.empty())) continue;
                    why = parts::usePart(project, 0, link, p);
                    if (why.empty()) {
                        best = project;
                        break;
                    }
                }
                if (why.empty()) break;
            }
            if (p.family == "gear" &&
                !why.empty()) { // no rig starts with a rack or a metal pair on its first link
                Project project = rigs::make(rigs::RigKind::OrbitBoom);
                why = parts::usePart(project, 0, 0, p);
                best = project;
            }
            QVERIFY2(why.empty(), (p.name + ": " + why).c_str());
            QVERIFY2(inconsistencies(best).empty(), p.name.c_str());
            const AxisEvaluation e = evaluateAxis(best, best.axes[0]);
            QVERIFY2(e.model.missing == Reason::None, p.name.c_str());
        }
    }
    void usedFiguresComeFromTheDataSheet() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        Part motor{"stepper", "My motor", 1, 0, "", {{"holding_torque_Nm", 0.5}}, {{"winding", "bipolar"}}};
        QCOMPARE(parts::usePart(p, 0, -1, motor), std::string());
        QCOMPARE(std::get<Stepper>(p.axes[0].motor).holdingTorque, estimate(0.5, Source::DataSheet));
        QCOMPARE(std::get<Stepper>(p.axes[0].motor).name, std::string("My motor"));
        QVERIFY(!parts::usePart(p, 0, -1, {"gear", "A gear", 1, 0, "", {{"teeth", 20}}, {}}).empty());
        QVERIFY(!parts::usePart(p, 7, -1, motor).empty());
    }
    void csvRoundTrip() {
        const std::string text = io::writeParts(library().parts);
        const io::PartsTable again = table(text);
        QVERIFY(again.errors.empty());
        QVERIFY(again.parts == library().parts);
    }
    void spreadsheetsOfAllSorts() {
        // Semicolons, quotes with a separator and a line end, units, other words above the columns.
        const auto t = table("Type;Part;Qty;Holding torque;Current\r\n"
                             "stepper;\"Old printer; left\nmotor\";2;57 oz in;\"1.7 A\"\r\n"
                             "\r\n"
                             "stepper;Other;1;0.4;1.2\r\n");
        QVERIFY2(t.errors.empty(), t.errors.empty() ? "" : t.errors[0].sentence.c_str());
        QCOMPARE(t.parts.size(), std::size_t(2));
        QCOMPARE(t.parts[0].name, std::string("Old printer; left\nmotor"));
        QCOMPARE(t.parts[0].count, 2);
        VERIFY_NEAR(number(t.parts[0], "holding_torque_Nm"), 57 * 0.0070615518, 1e-6);
        QCOMPARE(number(t.parts[0], "rated_current_A"), 1.7);
    }
    void badLinesAreReportedByNumberAndColumn() {
        const auto t = table("family,name,count,teeth,pitch_m\n"
                             "pulley,a,1,20,0.002\n"
                             "pully,b,1,20,0.002\n"
                             "pulley,c,two,20,0.002\n"
                             "pulley,d,1,-3,0.002\n"
                             "pulley,e,1,30,2 mm\n");
        QCOMPARE(t.parts.size(), std::size_t(2));
        QCOMPARE(t.badLines, std::size_t(3));
        QCOMPARE(t.errors[0].line, std::size_t(3));
        QCOMPARE(t.errors[0].column, std::size_t(1));
        QVERIFY(t.errors[0].sentence.find("pully") != std::string::npos);
        QCOMPARE(t.errors[1].line, std::size_t(4));
        QCOMPARE(t.errors[1].column, std::size_t(3));
        QCOMPARE(t.errors[2].column, std::size_t(4));
        VERIFY_NEAR(number(t.parts[1], "pitch_m"), 0.002, 1e-12);
    }
    void fallbackFamilyAndNoHeader() {
        QCOMPARE(table("teeth,pitch_m\n20,0.002\n", "pulley").parts.size(), std::size_t(1));
        QCOMPARE(table("teeth,pitch_m\n20,0.002\n").errors.size(), std::size_t(1));
        QVERIFY(table("").parts.empty());
    }
    /// Fifty thousand lines with some bad ones; the time is printed, the bound is far above it.
    void fiftyThousandParts() {
        std::string text = "family,name,count,price,teeth,pitch_m,width_m\n";
        for (int i = 0; i < 50000; ++i)
            text += i % 1000 == 999 ? "pulley,bad,1,2,x,0.002,0.006\n"
                                    : "pulley,Pulley number " + std::to_string(i) + ",3,2.5," +
                                          std::to_string(12 + i % 60) + ",0.002,0.006\n";
        QElapsedTimer clock;
        clock.start();
        int steps = 0;
        const auto columns = io::suggestedColumns(io::csvHeader(text));
        const auto t = io::readParts(text, columns, {}, {}, [&](double) { ++steps; });
        qInfo("50,000 parts in %lld ms", clock.elapsed());
        QCOMPARE(t.parts.size(), std::size_t(49950));
        QCOMPARE(t.errors.size(), std::size_t(50));
        QVERIFY(steps >= 40);
        QVERIFY(clock.elapsed() < 5000);
        std::stop_source stop;
        const auto half = io::readParts(text, columns, {}, stop.get_token(), [&](double share) {
            if (share > 0.4) stop.request_stop();
        });
        QVERIFY(half.stopped && half.parts.size() > 15000 && half.parts.size() < 30000);
    }
    /// Against motors of the library, which were not used for the fit's own numbers one by one.
    void labelEstimatesLieWithinTheirTolerance() {
        int inside = 0, all = 0;
        const std::map<std::string, double> frames{{"size 11", 0.028},
                                                   {"size 14", 0.0352},
                                                   {"size 17", 0.0423},
                                                   {"size 23", 0.0564},
                                                   {"size 34", 0.086}};
        for (const Part& p : library().parts)
            for (const auto& [size, frame] : frames)
                if (p.family == "stepper" && p.name.find(size) != std::string::npos) {
                    const Stepper s = parts::stepperFromLabel(
                        {frame, number(p, "length_m"), number(p, "rated_current_A"),
                         number(p, "rated_current_A") * number(p, "resistance_ohm"), std::numbers::pi / 100});
                    VERIFY_NEAR(s.resistance.value, number(p, "resistance_ohm"), 1e-9);
                    ++all;
                    const double off = std::abs(s.holdingTorque.value / number(p, "holding_torque_Nm") - 1);
                    inside += off < s.holdingTorque.tolerance;
                }
        QVERIFY(all >= 18);
        QVERIFY2(inside >= all * 8 / 10, qPrintable(QString("%1 of %2").arg(inside).arg(all)));
    }
    /// A motor made up of known figures warms by them; the test must find them again.
    void warmTestFindsItsMotor() {
        constexpr double resistance = 2.4, toAir = 9.0, air = 21.0;
        parts::WarmTest t{resistance, 2, air, 71.0, {}};
        double current = 0.0;
        int steps = 0;
        for (;; ++steps) {
            const parts::WarmResult r = parts::evaluateWarmTest(t);
            if (r.stop) break;
            QVERIFY(r.nextCurrent > current && steps < 20);
            current = r.nextCurrent;
            const double warm = air + toAir * 2 * current * current * resistance;
            QVERIFY2(warm <= 71.0 + 1e-9, "the test may not lead beyond its own limit");
            t.readings.push_back({current, warm});
        }
        const parts::WarmResult r = parts::evaluateWarmTest(t);
        VERIFY_NEAR(r.thermalResistance.value, toAir, 1e-9);
        VERIFY_NEAR(r.ratedCurrent.value, std::sqrt(50.0 / (2 * resistance * toAir)), 1e-9);
        // A case already at its limit stops it whatever the current.
        QVERIFY(parts::evaluateWarmTest({resistance, 2, air, 60.0, {{0.1, 61.0}}}).stop);
        QCOMPARE(parts::evaluateWarmTest({resistance, 2, air, 60.0, {{0.1, 61.0}}}).nextCurrent, 0.0);
    }
    void smallGearedStepperIsIdentified() {
        parts::StepperReadings r;
        r.size = {0.028, 0.019, 0, 0, std::numbers::pi / 100};
        r.leads = 5;
        r.resistance = 50;
        r.stepsPerTurn = 2038; // of the shaft, through 25792/405 with 32 steps a rotor turn
        r.gearTurnsIn = 25792;
        r.gearTurnsOut = 405;
        r.pull = 2.0;
        r.pullArm = 0.05;
        r.pullCurrent = 0.1;
        const parts::IdentifiedStepper s = parts::identify(r);
        QCOMPARE(s.motor.rotorTeeth, 8);
        QCOMPARE(s.motor.winding, Winding::Unipolar);
        QCOMPARE(s.motor.resistance, estimate(50, Source::Measured));
        QVERIFY(s.gearbox && s.gearbox->numerator == 25792 && s.gearbox->denominator == 405);
        VERIFY_NEAR(s.motor.holdingTorque.value, 0.1 * 405 / 25792, 1e-9);
        parts::StepperReadings plain;
        plain.size = {0.035, 0.034, 0, 0, std::numbers::pi / 100};
        plain.stepsPerTurn = 400;
        QCOMPARE(parts::identify(plain).motor.rotorTeeth, 100);
        QVERIFY(!parts::identify(plain).gearbox);
    }
    /// A motor simulated from its own equations: U = I R + k ω, T = k (I − I₀), gives its figures back.
    void brushedMotorIsIdentified() {
        constexpr double k = 0.02, ohms = 1.8, idle = 0.15, volts = 9.0;
        const double speed = (volts - idle * ohms) / k;
        parts::DcReadings r;
        r.voltage = volts;
        r.turns = 500;
        r.time = 500 * 2 * std::numbers::pi / speed;
        r.freeCurrent = idle;
        r.resistance = ohms;
        const auto m = parts::identify(r);
        QVERIFY(m);
        VERIFY_NEAR(m->figures.noLoadSpeed.value, speed, 1e-9);
        VERIFY_NEAR(m->figures.stallCurrent.value, 5.0, 1e-9);
        VERIFY_NEAR(m->figures.stallTorque.value, k * (5.0 - idle), 1e-9);
        // Measured at half the voltage, the stall comes out the same.
        r.stallVoltage = 4.5;
        r.stallArm = 0.05;
        r.stallPull = k * (2.5 - idle) / 0.05;
        VERIFY_NEAR(parts::identify(r)->figures.stallTorque.value, k * (5.0 - idle), 1e-9);
        // Rated by a warm test: 40 K at 1 A through 1.8 ohm.
        r.warm = {0, 1, 20, 60, {{1.0, 60.0}}};
        VERIFY_NEAR(parts::identify(r)->figures.ratedTorque.value, k * (1.0 - idle), 1e-9);
        VERIFY_NEAR(parts::identify(r)->body.thermalResistance.value, 40 / 1.8, 1e-9);
        r.freeCurrent = 6; // more than it draws stalled
        QVERIFY(!parts::identify(r));
        r.freeCurrent = idle;
        r.time = 0;
        QVERIFY(!parts::identify(r));
    }
    /// Three motors of a label's sizes, worked out beside the program from the fits of docs/models.
    void labelByHand() {
        struct Row {
            double frame, length, step;
            int teeth;
            double torque, inertia, mass, thermal, radial, axial, detent;
        };
        const double pi = std::numbers::pi;
        const Row rows[] = {{0.0564, 0.076, pi / 100, 50, 1.95171844, 3.20977763e-05, 0.942836544, 2.86476513,
                             58.6435509, 20.9441253, 0.0780687378},
                            {0.042, 0.013, pi / 200, 100, 0.0531655884, 1.6884393e-06, 0.0894348, 11.7719103,
                             14.2712607, 5.09687881, 0.00212662354}};
        for (const Row& r : rows) {
            const Stepper s = parts::stepperFromLabel({r.frame, r.length, 1.4, 2.8, r.step});
            const auto guess = [](const Estimate& e, double value, double tolerance) {
                return isNear(e.value, value, 1e-7) && e.source == Source::Guess && e.tolerance == tolerance;
            };
            QCOMPARE(s.rotorTeeth, r.teeth);
            QVERIFY(guess(s.holdingTorque, r.torque, 0.4));
            QVERIFY(guess(s.rotorInertia, r.inertia, 0.35));
            QVERIFY(guess(s.body.mass, r.mass, 0.15));
            QCOMPARE(s.body.length, r.length);
            QVERIFY(guess(s.body.thermalResistance, r.thermal, 0.4));
            QVERIFY(guess(s.body.radialRating, r.radial, 0.4));
            QVERIFY(guess(s.body.axialRating, r.axial, 0.4));
            QVERIFY(guess(s.detentTorque, r.detent, 0.5));
            QCOMPARE(s.ratedCurrent, estimate(1.4, Source::Label));
            QCOMPARE(s.resistance, estimate(2.0, Source::Label));
            QVERIFY(guess(s.inductance, 0.0038 * r.frame / 0.042, 0.45));
        }
        // Without a current there is neither; without a voltage no resistance.
        const Stepper bare = parts::stepperFromLabel({0.042, 0.04, 0.0, 2.8, pi / 100});
        QCOMPARE(bare.ratedCurrent, (Estimate{0.0, Source::Guess, 0.5}));
        QCOMPARE(bare.resistance.value, 0.0);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.04, 1.0, 0.0, pi / 100}).resistance.value, 0.0);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.04, 0.4, 0.6, pi / 100}).resistance.value, 1.5);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.04, 0.4, 0.6, 10.0}).rotorTeeth, 1);
    }
    /// A tin can: fewer than a hundred steps, weaker and more sticky than its size would say.
    void tinCanIsIdentified() {
        parts::StepperReadings r;
        r.size = {0.035, 0.022, 0, 0, std::numbers::pi / 100};
        r.stepsPerTurn = 48;
        const Stepper s = parts::identify(r).motor;
        QCOMPARE(s.rotorTeeth, 12);
        QCOMPARE(s.winding, Winding::Bipolar);
        VERIFY_NEAR(s.holdingTorque.value, 0.4 * 0.0871090668, 1e-7);
        QCOMPARE(s.holdingTorque.tolerance, 0.5);
        VERIFY_NEAR(s.detentTorque.value, 0.04 * 0.0871090668, 1e-7);
        QCOMPARE(s.resistance.value, 0.0);
        // A hundred are a hybrid's.
        r.stepsPerTurn = 100;
        VERIFY_NEAR(parts::identify(r).motor.holdingTorque.value, 0.0871090668, 1e-7);
        QCOMPARE(parts::identify(r).motor.holdingTorque.tolerance, 0.4);
        // Without a count the label's step stands.
        r.stepsPerTurn = 0;
        QCOMPARE(parts::identify(r).motor.rotorTeeth, 50);
        // Pulled out of step at 0.8 A, warmed at its rated 1.2 A: half as much again.
        r.resistance = 3.0;
        r.pull = 4.0;
        r.pullArm = 0.05;
        r.pullCurrent = 0.8;
        const Stepper cold = parts::identify(r).motor;
        QCOMPARE(cold.ratedCurrent, (Estimate{0.8, Source::Measured, 0.05}));
        VERIFY_NEAR(cold.holdingTorque.value, 0.2, 1e-12);
        QCOMPARE(cold.holdingTorque.tolerance, 0.1);
        VERIFY_NEAR(cold.inductance.value, 3.0 * 0.0019 * 0.035 / 0.042, 1e-9);
        r.warm = {0, 2, 20, 70, {{1.2, 70.0}}};
        const Stepper warm = parts::identify(r).motor;
        VERIFY_NEAR(warm.ratedCurrent.value, 1.2, 1e-12);
        QCOMPARE(warm.ratedCurrent.tolerance, 0.125); // one reading
        VERIFY_NEAR(warm.holdingTorque.value, 0.3, 1e-12);
        VERIFY_NEAR(warm.body.thermalResistance.value, 50.0 / (2 * 1.44 * 3.0), 1e-9);
        QCOMPARE(warm.body.thermalResistance.tolerance, 0.25);
        // Behind a gearbox of 1:4 the shaft pulls with four times the torque, less what nobody knows.
        r.gearTurnsIn = 4;
        r.stepsPerTurn = 800;
        const parts::IdentifiedStepper geared = parts::identify(r);
        QCOMPARE(geared.motor.rotorTeeth, 50);
        VERIFY_NEAR(geared.motor.holdingTorque.value, 0.3 / 4, 1e-12);
        QCOMPARE(geared.motor.holdingTorque.tolerance, 0.3);
        QCOMPARE(geared.gearbox->figures.efficiency, (Estimate{0.65, Source::Guess, 0.4}));
        QCOMPARE(geared.gearbox->figures.backlash, (Estimate{0.03, Source::Guess, 0.5}));
        // Half a reading is none.
        r.pullArm = 0.0;
        QCOMPARE(parts::identify(r).motor.holdingTorque.source, Source::Guess);
    }
    /// Least squares through the origin over heat and rise, and what is tried next.
    void warmTestByHand() {
        // 2 windings of 2 ohm: 1 W, 4 W and 9 W at 0.5, 1 and 1.5 A; rises of 9, 42 and 88 K.
        const parts::WarmTest t{2.0, 2, 20, 100, {{0.5, 29}, {1.0, 62}, {1.5, 108}}};
        const parts::WarmResult r = parts::evaluateWarmTest(t);
        VERIFY_NEAR(r.thermalResistance.value, (9.0 + 4 * 42 + 9 * 88) / (1 + 16 + 81), 1e-12);
        QCOMPARE(r.thermalResistance.tolerance, 0.15);
        VERIFY_NEAR(r.ratedCurrent.value, std::sqrt(80 / (4 * r.thermalResistance.value)), 1e-12);
        QCOMPARE(r.ratedCurrent.tolerance, 0.075);
        QVERIFY(r.stop && r.nextCurrent == 0.0);
        // The first current is small, the next a quarter more, and none beyond what the readings foresee.
        QCOMPARE(parts::evaluateWarmTest({2.0, 2, 20, 100, {}}).nextCurrent, 0.1);
        VERIFY_NEAR(parts::evaluateWarmTest({2.0, 2, 20, 100, {{0.5, 29}}}).nextCurrent, 0.625, 1e-12);
        const parts::WarmResult close = parts::evaluateWarmTest({2.0, 2, 20, 100, {{1.0, 70}}}); // 50 K of 80
        VERIFY_NEAR(close.nextCurrent, std::min(1.25, std::sqrt(80.0 / 50.0)), 1e-12);
        const parts::WarmResult nearly = parts::evaluateWarmTest({2.0, 2, 20, 100, {{1.0, 85}}}); // 65 of 80
        VERIFY_NEAR(nearly.nextCurrent, std::sqrt(80.0 / 65.0), 1e-12);
        const parts::WarmResult there =
            parts::evaluateWarmTest({2.0, 2, 20, 100, {{1.0, 95}}}); // within a twentieth
        QVERIFY(there.stop && there.nextCurrent == 0.0);
        // A reading no warmer than the air, and a limit no warmer than the air, tell nothing.
        QCOMPARE(parts::evaluateWarmTest({2.0, 2, 20, 100, {{0.5, 20}}}).thermalResistance.value, 0.0);
        QCOMPARE(parts::evaluateWarmTest({2.0, 2, 20, 20, {{0.5, 29}}}).ratedCurrent.value, 0.0);
        QCOMPARE(parts::evaluateWarmTest({0.0, 2, 20, 100, {{0.5, 29}}}).thermalResistance.value, 0.0);
        const parts::WarmResult mixed = parts::evaluateWarmTest({2.0, 2, 20, 100, {{0.2, 20}, {1.0, 62}}});
        VERIFY_NEAR(mixed.thermalResistance.value, 42.0 / 4, 1e-12);
        QCOMPARE(mixed.thermalResistance.tolerance, 0.25);
    }
    void gearedBrushedMotorByHand() {
        parts::DcReadings r;
        r.voltage = 12.0;
        r.turns = 60;
        r.time = 30;
        r.freeCurrent = 0.2;
        r.resistance = 4.0; // 3 A stalled
        r.gearTurnsIn = 50;
        r.frame = 0.028;
        r.length = 0.04;
        const auto m = parts::identify(r);
        QVERIFY(m);
        const double speed = 4 * std::numbers::pi, k = (12.0 - 0.8) / speed, stall = k * 0.65 * 2.8;
        QCOMPARE(m->gearNumerator, 50);
        QCOMPARE(m->gearDenominator, 1);
        QCOMPARE(m->figures.nominalVoltage, (Estimate{12.0, Source::Measured, 0.01}));
        VERIFY_NEAR(m->figures.noLoadSpeed.value, speed, 1e-12);
        QCOMPARE(m->figures.noLoadCurrent, (Estimate{0.2, Source::Measured, 0.05}));
        QCOMPARE(m->figures.stallCurrent, (Estimate{3.0, Source::Measured, 0.1}));
        VERIFY_NEAR(m->figures.stallTorque.value, stall, 1e-9);
        QCOMPARE(m->figures.stallTorque.tolerance, 0.4);
        // Unmeasured, a fifth of the stall current is what it stands.
        VERIFY_NEAR(m->figures.ratedTorque.value, stall * (0.6 - 0.2) / 2.8, 1e-9);
        VERIFY_NEAR(m->figures.ratedTorque.tolerance, std::hypot(0.4, 0.4), 1e-12);
        VERIFY_NEAR(m->body.mass.value, 0.110835389, 1e-7);
        QCOMPARE(m->body.length, 0.04);
        VERIFY_NEAR(m->rotorInertia.value, 7.54296396e-07, 1e-7);
        QVERIFY(m->gearboxBacklash.value > 0.0);
        r.gearTurnsIn = 1;
        QCOMPARE(parts::identify(r)->gearboxBacklash, (Estimate{0.0, Source::Measured, 0.0}));
        QCOMPARE(parts::identify(r)->figures.stallTorque.tolerance, 0.15);
        // One that takes almost all of its current to turn at all has little left; stalled at a voltage that
        // hardly turns it, it is not taken for boundless.
        r.freeCurrent = 2.5;
        VERIFY_NEAR(parts::identify(r)->figures.ratedTorque.value,
                    0.02 * parts::identify(r)->figures.stallTorque.value, 1e-9);
        r.stallPull = 1.0;
        r.stallArm = 0.1;
        r.stallVoltage = 10.0;
        VERIFY_NEAR(parts::identify(r)->figures.stallTorque.value, 0.1 * 0.5 / 0.15, 1e-9);
        for (const auto field : {&parts::DcReadings::voltage, &parts::DcReadings::turns,
                                 &parts::DcReadings::time, &parts::DcReadings::resistance}) {
            parts::DcReadings without = r;
            without.*field = 0.0;
            QVERIFY(!parts::identify(without));
        }
        r.freeCurrent = -0.1;
        QVERIFY(!parts::identify(r));
        r.freeCurrent = 3.0;
        QVERIFY(!parts::identify(r));
    }
    /// Sizes that can be had, ascending, of what fits; those on the shelf say so.
    void sizesInStock() {
        const auto pulley = [](int count, double teeth, double pitch) {
            return parts::Part{"pulley", "p", count, 1.0, {}, {{"teeth", teeth}, {"pitch_m", pitch}}, {}};
        };
        const std::vector<parts::Part> shop{pulley(0, 40, 0.002), pulley(0, 20, 0.002), pulley(0, 30, 0.003)};
        const std::vector<parts::Part> shelf{pulley(2, 20, 0.002), pulley(0, 17, 0.002),
                                             pulley(1, 23, 0.005)};
        const auto is = [](const std::vector<parts::StockSize>& found,
                           const std::vector<std::pair<double, bool>>& wanted) {
            return std::equal(found.begin(), found.end(), wanted.begin(), wanted.end(),
                              [](const parts::StockSize& s, const auto& w) {
                                  return s.value == w.first && s.owned == w.second;
                              });
        };
        QVERIFY(is(parts::stockSizes({shop, shelf}, "pulley", "teeth", "pitch_m", 0.002),
                   {{17, false}, {20, true}, {40, false}}));
        QVERIFY(is(parts::stockSizes({shop, {}}, "pulley", "teeth", "pitch_m", 0.003), {{30, false}}));
        // Of a pitch that nobody lists, counts of any; none of them lies on the shelf.
        QVERIFY(is(parts::stockSizes({shop, shelf}, "pulley", "teeth", "pitch_m", 0.008),
                   {{17, false}, {20, false}, {23, false}, {30, false}, {40, false}}));
        QVERIFY(parts::stockSizes({shop, shelf}, "brake", "holding_torque_Nm").empty());
    }
};

QTEST_APPLESS_MAIN(PartsTest)
#include "parts_test.moc"
