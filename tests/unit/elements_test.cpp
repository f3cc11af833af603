// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/belt.h"
#include "core/drivetrain/carriage.h"
#include "core/drivetrain/electronic_gear.h"
#include "core/drivetrain/gears.h"
#include "core/drivetrain/screw.h"
#include "core/drivetrain/winch.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>
#include <random>

using namespace gantry::drivetrain;

/// Belts, gears, screws, winches and carriages against worked cases, limits and a second method.
class ElementsTest : public QObject {
    Q_OBJECT
private slots:
    void beltLengths() {
        for (const auto& c : referenceCases("t07_belts", "pitch_length")) {
            const auto& in = c["inputs"];
            const auto belt = beltForCentre(in["z1"], in["z2"], in["pitch"], in["centre"]);
            QVERIFY(belt.has_value());
            VERIFY_NEAR(belt->length, c["expected"]["length"].get<double>(), 1e-9);
            VERIFY_NEAR(belt->teeth, c["expected"]["teeth_exact"].get<double>(), 1e-9);
            VERIFY_NEAR(belt->teethInMeshSmall, c["expected"]["teeth_in_mesh_small"].get<double>(), 1e-9);
        }
        for (const auto& c : referenceCases("t07_belts", "centre")) {
            const auto& in = c["inputs"];
            const auto centre = centreForBelt(in["z1"], in["z2"], in["pitch"], in["belt_teeth"]);
            QVERIFY(centre.has_value());
            VERIFY_NEAR(*centre, c["expected"]["centre"].get<double>(), 1e-9);
            VERIFY_NEAR(beltForCentre(in["z1"], in["z2"], in["pitch"], *centre)->teethInMeshSmall,
                        c["expected"]["teeth_in_mesh_small"].get<double>(), 1e-9);
        }
        for (const auto& c : referenceCases("t07_belts", "span"))
            VERIFY_NEAR(spanTension(c["inputs"]["mass_per_m"], c["inputs"]["span"], c["inputs"]["f"]),
                        c["expected"]["tension"].get<double>(), 1e-9);
        for (const auto& c : referenceCases("t07_belts", "stiffness")) {
            const auto& in = c["inputs"];
            // Springs of both spans side by side, softest where they are equal.
            const double ea = in["EA"], length = in["total_free_length"], span = in["L1"];
            VERIFY_NEAR(ea / span + ea / (length - span), c["expected"]["k"].get<double>(), 1e-9);
            QVERIFY(leastOpenBeltStiffness(ea, length) <= ea / span + ea / (length - span) + 1e-9);
            VERIFY_NEAR(leastOpenBeltStiffness(in["EA"], in["total_free_length"]),
                        c["expected"]["k_min"].get<double>(), 1e-9);
        }
    }
    void beltsThatDoNotReach() {
        QVERIFY(!centreForBelt(20, 60, 0.002, 50));
        QVERIFY(!beltForCentre(20, 200, 0.002, 0.01));
        // Equal pulleys: two straight spans and one whole turn.
        VERIFY_NEAR(beltForCentre(30, 30, 0.003, 0.2)->length, 2 * 0.2 + 30 * 0.003, 1e-12);
    }
    void screws() {
        for (const auto& c : referenceCases("t08_screw_winch", "screw")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const Screw s{in["pitch_diameter"], in["lead"], in["mu"], in["half_angle"]};
            // Work of one turn: what the load gains over what the screw takes, and back.
            const double work = in["F"].get<double>() * s.lead / (2 * std::numbers::pi);
            VERIFY_NEAR(work / efficiency(s), out["T_raise"].get<double>(), 1e-9);
            VERIFY_NEAR(-work * backEfficiency(s), out["T_lower"].get<double>(), 1e-9);
            VERIFY_NEAR(efficiency(s), out["eff_raise"].get<double>(), 1e-9);
            VERIFY_NEAR(backEfficiency(s), out["eff_back"].get<double>(), 1e-9);
            QCOMPARE(backEfficiency(s) <= 0.0, out["self_locking"].get<bool>());
        }
        // The wedge: a turn of F d/2 tan(λ + φ), times the efficiency, lifts the load by the lead.
        const Screw s{0.007, 0.008, 0.15, 0.26};
        const double lead = std::atan(0.008 / (std::numbers::pi * 0.007));
        // The flank leans by its axial angle as seen along the thread.
        const double flank = std::atan(std::tan(0.26) * std::cos(lead)),
                     rub = std::atan(0.15 / std::cos(flank));
        const double raising = 50 * 0.007 / 2 * std::tan(lead + rub);
        VERIFY_NEAR(2 * std::numbers::pi * raising * efficiency(s), 50 * 0.008, 1e-12);
    }
    void whirlingAndBuckling() {
        const auto ends = [](const std::string& name) {
            return name == "simple-simple" ? Ends::SimpleSimple
                   : name == "fixed-fixed" ? Ends::FixedFixed
                                           : Ends::FixedSimple;
        };
        for (const auto& c : referenceCases("t08_screw_winch", "whirl")) {
            const auto& in = c["inputs"];
            VERIFY_NEAR(whirlingSpeed(in["root_diameter"], in["L"], ends(in["ends"]), in["E"], in["rho"]),
                        c["expected"]["omega_crit"].get<double>(), 1e-6);
        }
        // Euler's own case, by hand: d = 8 mm, E = 210 GPa, L = 1 m: I = 2.011e-10, P = 416.7 N.
        VERIFY_NEAR(bucklingLoad(0.008, 1.0, Ends::SimpleSimple), 416.7, 1e-3);
        VERIFY_NEAR(bucklingLoad(0.008, 2.0, Ends::FixedFixed), 416.7, 1e-3); // fixed ends halve the length
    }
    void winches() {
        for (const auto& c : referenceCases("t08_screw_winch", "spool")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            // The helix, that the case counts, is 2e-4 of it.
            const auto layers = layersOf({in["core_diameter"], in["cord_diameter"], in["width"], in["nest"]},
                                         0.0, in["length"]);
            QCOMPARE(static_cast<int>(layers.size()), out["layers"].get<int>());
            QCOMPARE(std::lround(layers.front().turns), out["turns_per_layer"].get<long>());
            VERIFY_NEAR(layers.front().radius, out["r_first"].get<double>(), 1e-9);
            VERIFY_NEAR(layers.back().radius, out["r_last"].get<double>(), 1e-9);
            VERIFY_NEAR(layers.back().turns, out["turns"].get<double>(), 3e-4);
        }
        for (const auto& c : referenceCases("t58_winch", "scale")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const auto layers =
                layersOf({in["core"], in["cord"], in["width"], in["nest"]}, in["start_turns"], in["travel"]);
            const WinchScale w = winchScale({in["core"], in["cord"], in["width"], in["nest"]},
                                            in["start_turns"], in["travel"]);
            const double perMetre = in["steps_per_turn"].get<double>() / 1000.0;
            VERIFY_NEAR(layers.back().turns, out["turns"].get<double>(), 1e-9);
            QCOMPARE(static_cast<int>(layers.size()), out["layers_used"].get<int>());
            VERIFY_NEAR(perMetre / w.perTurn, out["steps_per_mm_minimax"].get<double>(), 1e-5);
            VERIFY_NEAR(w.error, out["error_minimax"].get<double>(), 1e-5);
            VERIFY_NEAR(perMetre / (2.0 * std::numbers::pi * layers.front().radius),
                        out["steps_per_mm_first"].get<double>(), 1e-9);
        }
        for (const auto& c : referenceCases("t58_winch", "capacity")) {
            const auto& in = c["inputs"];
            VERIFY_NEAR(drumCapacity({in["core"], in["cord"], in["width"], in["nest"]}, in["flange"],
                                     in["freeboard"]),
                        c["expected"]["length"].get<double>(), 1e-9);
        }
        // One layer has one number, and no error.
        const auto one = layersOf({0.03, 0.002, 0.1, 1.0}, 2.0, 1.0);
        QCOMPARE(one.size(), std::size_t(1));
        VERIFY_NEAR(winchScale({0.03, 0.002, 0.1, 1.0}, 2.0, 1.0).perTurn, std::numbers::pi * 0.032, 1e-12);
        QVERIFY(winchScale({0.03, 0.002, 0.1, 1.0}, 2.0, 1.0).error < 1e-12);
        VERIFY_NEAR(slackDeceleration(std::numbers::pi / 6, 3.0, 6.0), 9.80665 / 2 + 0.5, 1e-12);
    }
    void gearsFromTables() {
        // Shigley, section 13-7: 20° full depth, smallest pinion against an equal gear 13 (12.3), against a
        // rack 18 (17.1).
        QVERIFY(leastTeethAgainst(12) > 12.0 && leastTeethAgainst(13) < 13.0);
        VERIFY_NEAR(leastTeethAgainst(1000000), 2 / std::pow(std::sin(std::numbers::pi / 9), 2), 1e-4);
        // Contact ratio of 20 and 40 teeth, 20° full depth, worked by hand from the base and tip
        // circles: 1.63.
        VERIFY_NEAR(contactRatio(20, 40), 1.635, 3e-3);
        QVERIFY(contactRatio(100000, 100000) < 1.982); // two racks: 4/(π sin 2φ) = 1.981
        VERIFY_NEAR(lewisFormFactor(20), 0.322, 1e-12);
        QVERIFY(lewisFormFactor(31) > 0.359 && lewisFormFactor(31) < 0.371);
        // At standstill W/(F m Y).
        VERIFY_NEAR(lewisStress(100, 0.01, 0.002, 17, 0.0), 100 / (0.01 * 0.002 * 0.303), 1e-12);
        VERIFY_NEAR(centreDistance(20, 60, 0.001), 0.04, 1e-12);
    }
    void panBarTurnsAsItsTriangleSays() {
        // Bar along the rail: the arm keeps its angle, so nothing turns.
        const PanBarGeometry along{0.3, 0.12, 0.0};
        VERIFY_NEAR(*panBarAngle(along, -0.4), *panBarAngle(along, 0.4), 1e-12);
        // The arm's end, put back into place, lies on the bar.
        const PanBarGeometry g{0.35, 0.05, 0.2};
        for (const double x : {-0.4, 0.0, 0.3}) {
            const double a = *panBarAngle(g, x);
            VERIFY_NEAR(g.armLength * std::sin(a),
                        g.offset + (x + g.armLength * std::cos(a)) * std::tan(g.angle), 1e-12);
        }
        const auto found = barAngleForPan({0.35, 0.05, 0.0}, -0.3, 0.3, 0.5);
        QVERIFY(found.has_value());
        VERIFY_NEAR(*panBarAngle({0.35, 0.05, *found}, 0.3) - *panBarAngle({0.35, 0.05, *found}, -0.3), 0.5,
                    1e-9);
        QVERIFY(!barAngleForPan({0.1, 0.0, 0.0}, -1.0, 1.0, 3.5)); // out of the arm's reach
    }
    void carriages() {
        VERIFY_NEAR(playRotation(1e-4, 0.1), 1e-3, 1e-12);
        // b/y = 2 μ is where it just binds.
        VERIFY_NEAR(bindingRatio(0.06, 0.15, 0.2), 1.0, 1e-12);
        QVERIFY(std::isinf(bindingRatio(0.06, 0.0, 0.2)));
        VERIFY_NEAR(bearingLoad(40, 0, 0, 0.1, 0.1), 10.0, 1e-12);
        // A rigid plate on four equal springs, solved for its three balances, gives the worst corner.
        const double wheelbase = 0.18, track = 0.12, normal = 40, along = 1.3, across = 0.7;
        double worst = 0;
        for (const double x : {-wheelbase / 2, wheelbase / 2})
            for (const double y : {-track / 2, track / 2}) {
                const double sumXX = wheelbase * wheelbase, sumYY = track * track; // four corners each
                worst = std::max(worst, normal / 4 + along * x / sumXX + across * y / sumYY);
            }
        VERIFY_NEAR(bearingLoad(normal, along, across, wheelbase, track), worst, 1e-12);
        VERIFY_NEAR(turningRadius(0.5, std::numbers::pi / 4), 0.5, 1e-12);
    }
    /// The solver's gear makes exactly the wanted steps, or says that it cannot.
    void electronicGears() {
        // 10,000 counts a turn, 40 mm a turn, 100 steps/mm wanted: 250 counts/mm over 100.
        const auto g = solveElectronicGear(10000, *Ratio::of(1, 40), *Ratio::of(100, 1), 1 << 20);
        QVERIFY(g && g->exact);
        QCOMPARE(g->numerator, 5);
        QCOMPARE(g->denominator, 2);
        std::mt19937_64 random(7);
        for (int i = 0; i < 2000; ++i) {
            const std::int64_t counts = 100 + static_cast<std::int64_t>(random() % 200000);
            const Ratio turns = *Ratio::of(1 + static_cast<std::int64_t>(random() % 400),
                                           1 + static_cast<std::int64_t>(random() % 400));
            const Ratio steps = *Ratio::of(1 + static_cast<std::int64_t>(random() % 5000),
                                           1 + static_cast<std::int64_t>(random() % 20));
            const auto s = solveElectronicGear(counts, turns, steps, 65535);
            const double wanted = static_cast<double>(counts) * turns.value() / steps.value();
            if (!s) { // refused only where no such fraction exists
                QVERIFY(wanted > 65535 * 0.99 || wanted < 1.01 / 65535);
                continue;
            }
            QVERIFY(s->numerator <= 65535 && s->denominator <= 65535);
            const double made = static_cast<double>(counts) * turns.value() *
                                static_cast<double>(s->denominator) / static_cast<double>(s->numerator);
            if (s->exact)
                VERIFY_NEAR(made, steps.value(), 1e-12);
            else
                VERIFY_NEAR(made, steps.value(), 2e-2);
        }
    }
    /// Against every fraction with terms up to 60.
    void nearestFractionIsNearest() {
        std::mt19937_64 random(11);
        std::uniform_real_distribution<double> wanted(0.02, 50.0);
        for (int i = 0; i < 300; ++i) {
            const double value = wanted(random);
            double best = 1e9;
            for (int p = 1; p <= 60; ++p)
                for (int q = 1; q <= 60; ++q)
                    best = std::min(best, std::abs(static_cast<double>(p) / q - value));
            const auto found = nearestFraction(value, 60);
            QVERIFY(found.has_value());
            QVERIFY2(std::abs(found->value() - value) <= best * (1 + 1e-9) + 1e-15, found->text().c_str());
        }
    }
};

QTEST_APPLESS_MAIN(ElementsTest)
#include "elements_test.moc"
