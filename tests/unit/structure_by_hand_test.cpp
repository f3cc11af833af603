// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/verdict.h"
#include "support/bare_rigs.h"
#include "support/paper.h"

using namespace gantry;
using namespace paper;

/// Every figure of an arm and what gives way under a slider, worked once more on paper.
class StructureByHandTest : public QObject {
    Q_OBJECT
private slots:
    /// A lift's column bends by what hangs before and beside it, from where it is held.
    void liftColumns() {
        Project p = bareRig(rigs::RigKind::LiftColumn);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.railLength = 1.2;
        m.rail.secondStand = 0.4;
        m.rail.section.shape = SectionShape::HollowRectangle;
        m.rail.section.width = 0.06;
        m.rail.section.height = 0.04;
        m.rail.section.wall = 0.003;
        m.rail.cameraSide = 0.05;
        m.guide.massHeight = 0.1;
        const AxisStructure s = evaluate(p).axes[0].structure;
        const double e = 69e9, across = (0.06 * std::pow(0.04, 3) - 0.054 * std::pow(0.034, 3)) / 12,
                     along = (0.04 * std::pow(0.06, 3) - 0.034 * std::pow(0.054, 3)) / 12;
        const double weight = m.movingMass.value * 9.80665;
        const double bend = std::hypot(weight * 0.1 / (e * across), weight * 0.05 / (e * along));
        const double half = 0.5 * m.carriageLength + m.bumperLength, top = 1.2 - half - 0.4;
        VERIFY_NEAR(s.slope.value(), bend * top, 0.02);
        VERIFY_NEAR(s.sag.value(), 0.5 * bend * top * top, 0.02);
        VERIFY_NEAR(s.slopeRate.value(), bend, 0.02);
        VERIFY_NEAR(s.sagRate.value(), bend * top, 0.02);
        VERIFY_NEAR(s.slopeShift.value(), bend * top, 0.02); // it is straight as far as it is held
        const double stress = weight * 0.1 * 0.02 / across + weight * 0.05 * 0.03 / along;
        QVERIFY(s.stressRatio.value() * stress > 50e6 && s.stressRatio.value() * stress < 300e6);
        QVERIFY(!s.tippingRatio && !s.clampRatio);
        // Free from lower down it leans the more, by the length and by its square.
        m.rail.secondStand = 0.2;
        const AxisStructure longer = evaluate(p).axes[0].structure;
        VERIFY_NEAR(longer.slope.value() / s.slope.value(), (top + 0.2) / top, 1e-9);
        VERIFY_NEAR(longer.sag.value() / s.sag.value(), std::pow((top + 0.2) / top, 2), 1e-9);
        // Held by one head instead.
        m.rail.support = RailSupport::OneHead;
        m.rail.headAt = 0.2;
        VERIFY_NEAR(evaluate(p).axes[0].structure.slope.value(), longer.slope.value(), 1e-9);
        // Unknown as long as nobody says what it is made of.
        m.rail.section.shape = SectionShape::NotGiven;
        QCOMPARE(evaluate(p).axes[0].structure.slope.reason(), Reason::NotApplicable);
        QCOMPARE(evaluate(p).axes[0].structure.problem, Reason::NeedsSection);
    }
    /// A steel tube of 2.8 m, 2 m of it before the pivot, with 3 kg at its end, from 0.5 rad below level to
    /// as much above.
    void arm() {
        Project p = hand::jib();
        RotaryMechanism& r = hand::boom(p);
        Boom& b = r.boom;
        r.lowAngle = -0.5;
        r.range = 1.0;
        r.spring.torqueAtLow = r.spring.rate = exact(0.0);
        b.section.material = BeamMaterial::Steel;
        b.section.stiffnessFactor = exact(1.0);
        b.arm = ArmKind::Plain;
        b.tipOffset = b.tipAbove = 0.0;
        b.tipSide = 0.1;
        b.counterweight.mass = exact(0.0);
        b.counterweight.behind = 0.7;
        b.pivot = {};
        b.pivot.pinDiameter = 0.012;
        b.pivot.cheekGap = 0.05;
        b.pivot.pinLimit = 200e6;
        b.pivot.bearingRating = exact(900.0);
        b.pivot.bearingMoment = exact(120.0);
        b.pivot.bolts = 4;
        b.pivot.boltCircle = 0.06;
        b.pivot.boltLimit = 3000.0;
        p.axes[1].carriesPayload = false;
        const double D = 0.05, d = 0.046, A = pi / 4 * (D * D - d * d),
                     I = pi / 64 * (D * D * D * D - d * d * d * d);
        const double E = 210e9, G = 81e9, w = 7850 * A, L = 2.0, own = w * 2.8, load = (3 + own) * g;
        const double sag = 3 * g * L * L * L / (3 * E * I) + w * g * L * L * L * L / (8 * E * I);
        const double slope = 3 * g * L * L / (2 * E * I) + w * g * L * L * L / (6 * E * I);
        const double twist = 3 * g * 0.1 * L / (G * 2 * I);
        const double moment = own * 0.6 + 3 * 2.0; // kg·m before the pivot
        const double least = 1 - std::cos(0.5), tilting = moment * g + load * 0.1;
        const double bending = 32 * load * 0.05 / 4 / (pi * std::pow(0.012, 3)),
                     shear = load / 2 / (pi * 0.012 * 0.012 / 4);
        AxisStructure found = evaluateAxis(p, p.axes[1]).structure;
        compare({{"own_mass_kg", own},
                 {"sag_m", sag},
                 {"slope_rad", slope},
                 {"twist_rad", twist},
                 {"sag_change_m", sag * least},
                 {"slope_change_rad", slope * least},
                 {"twist_change_rad", twist * least},
                 {"sag_change_m_per_rad", sag * std::sin(0.5)},
                 {"slope_change_rad_per_rad", slope * std::sin(0.5)},
                 {"stress_ratio",
                  235e6 * I / ((3 * L + w * L * L / 2) * g * D / 2)}, // what lies before the pivot
                 {"gravity_worst_Nm", moment * g},
                 {"gravity_worst_at_rad", 0.0},
                 {"off_line_m", 0.0},
                 {"balancing_mass_kg", moment / 0.7},
                 {"pin_ratio", 200e6 / std::sqrt(bending * bending + 3 * shear * shear)},
                 {"bearing_ratio", 900.0 / load},
                 {"bearing_moment_ratio", 120.0 / tilting},
                 {"bolt_ratio", 3000.0 / (2 * tilting / (4 * 0.06))}},
                found, false);
        // From the lowest to the highest place it rises by twice the sine.
        VERIFY_NEAR(found.dropEnergy.value(), moment * g * 2 * std::sin(0.5), 1e-3);
        // With parallel links the head stays level and only sinks.
        b.arm = ArmKind::ParallelLinks;
        found = evaluateAxis(p, p.axes[1]).structure;
        QCOMPARE(found.slopeShift.value(), 0.0);
        QCOMPARE(found.slopeRate.value(), 0.0);
        VERIFY_NEAR(found.sag.value(), sag, 1e-9);
        b.arm = ArmKind::Plain;
        // Each of the four that hold the arm decides where it is the weakest.
        const auto decides = [&](std::string_view says, auto weaken) {
            Project weak = p;
            weaken(hand::boom(weak).boom.pivot);
            const auto v = hand::verdict(weak, "pivot");
            QVERIFY(v && v->sentence.text.starts_with(says));
        };
        decides("The pivot pin withstands", [](Pivot& x) { x.pinDiameter = 0.003; });
        decides("The pivot bearings are rated", [](Pivot& x) { x.bearingRating.value = 5.0; });
        decides("The turning bearing under the arm is rated", [](Pivot& x) { x.bearingMoment.value = 1.0; });
        decides("The bolts under the turning bearing withstand", [](Pivot& x) { x.boltLimit = 5.0; });
    }
    /// What gives way under a slider, part by part: the belt, and both stands with all that stands on them.
    void softParts() {
        Project p = hand::slider();
        LinearMechanism& m = hand::rail(p);
        m.rail.standSway = exact(50000.0);
        m.frameStiffness = exact(0.0);
        p.axes[0].links.clear();
        auto& belt = std::get<BeltOutput>(m.output);
        belt.tensileStiffness = exact(1e4);
        belt.doubled = false;
        const AxisStructure s = evaluateAxis(p, p.axes[0]).structure;
        const auto frequency = [&](SoftCause cause) {
            for (const SoftEntry& e : s.soft)
                if (e.cause == cause) return e.part.frequency;
            return 0.0;
        };
        const double rail = 7850 * (0.04 * 0.04 - 0.036 * 0.036);
        const DriveModel& drive = evaluateAxis(p, p.axes[0]).model;
        const double field = drive.stepper()->rotorTeeth * drive.torqueAmplitude /
                             std::pow(drive.outputPerRad, 2),
                     both = 1 / (1.0 / (4 * 1e4) + 1 / field);
        VERIFY_NEAR(frequency(SoftCause::Drive), std::sqrt(both / 5.0) / (2 * pi), 1e-9);
        VERIFY_NEAR(frequency(SoftCause::Stands), std::sqrt(2 * 50000.0 / (5.0 + rail)) / (2 * pi), 1e-9);
        VERIFY_NEAR(s.ownMass.value(), rail, 1e-9);
        QVERIFY(s.soft.front().part.frequency <= s.soft.back().part.frequency);
    }
};

QTEST_APPLESS_MAIN(StructureByHandTest)
#include "structure_by_hand_test.moc"
