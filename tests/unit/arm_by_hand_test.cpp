// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/evaluate/rig/beam_view.h"
#include "support/frame_elements.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// An arm and a rail with something of everything on them, figure by figure on paper.
class ArmByHandTest : public QObject {
    Q_OBJECT
    /// 2 m of round tube and 0.8 m behind, 3 kg at the end, 1 kg halfway out and 0.1 m above the line, 7 kg
    /// behind.
    static Project arm() {
        Project p = jib();
        p.payload.clear();
        RotaryMechanism& r = boom(p);
        r.lowAngle = -0.4;
        r.range = 1.1;
        r.items.push_back({"monitor", "Monitor", estimate(1.0, Source::Measured), 1.0, 0.1});
        r.boom.counterweight.mass.value = 7.0;
        r.boom.counterweight.behind = 0.6;
        r.boom.counterweight.above = 0.04;
        r.boom.tipSide = 0.05;
        return p;
    }
    static constexpr double ea = 69e9;
    static double second() { return pi / 4 * (std::pow(0.025, 4) - std::pow(0.023, 4)); }
    static double polar() { return 2 * second(); }
    static AxisStructure of(const Project& p) { return evaluate(p).axes[1].structure; }

private slots:
    void bend() {
        const Project p = arm();
        const AxisStructure s = of(p);
        const double ei = ea * second(), mu = tubeMass();
        // F L³/3 and w L⁴/8 at the end; F a² (3L − a)/6 of what sits at a.
        const double sag = (3 * g * 8 / 3 + mu * g * 16 / 8 + 1 * g * 1 * (6 - 1) / 6) / ei;
        const double slope = (3 * g * 4 / 2 + mu * g * 8 / 6 + 1 * g * 1 / 2) / ei;
        VERIFY_NEAR(s.sag.value(), sag, 1e-6);
        VERIFY_NEAR(s.slope.value(), slope, 1e-6);
        const double shear = beamView(boom(const_cast<Project&>(p)).boom.section).torsion;
        VERIFY_NEAR(shear / polar(), 26e9, 0.05); // of aluminium
        VERIFY_NEAR(s.twist.value(), 3 * g * 0.05 * 2 / shear, 1e-9);
        // From 0.4 rad down over level to 0.7 up: the bend goes with the cosine.
        const double change = 1 - std::cos(0.7);
        VERIFY_NEAR(s.sagShift.value(), sag * change, 2e-3);
        VERIFY_NEAR(s.slopeShift.value(), slope * change, 2e-3);
        VERIFY_NEAR(s.twistShift.value(), s.twist.value() * change, 2e-3);
        VERIFY_NEAR(s.sagRate.value(), sag * std::sin(0.7), 1e-6);
        VERIFY_NEAR(s.slopeRate.value(), slope * std::sin(0.7), 1e-6);
        Project level = p;
        boom(level).boom.arm = ArmKind::ParallelLinks;
        QCOMPARE(of(level).slopeShift.value(), 0.0);
        QCOMPARE(of(level).slopeRate.value(), 0.0);
        VERIFY_NEAR(of(level).sagShift.value(), sag * change, 2e-3);
        // A body bends the arm where it sits, and what hangs beyond its end bends it there with a moment.
        const auto with = [&](double a) {
            Project q = p;
            boom(q).items[1].along = a;
            return of(q).sag.value();
        };
        const auto onPaper = [&](double bend) { return (3 * g * 8 / 3 + mu * g * 16 / 8 + g * bend) / ei; };
        VERIFY_NEAR(with(1.9), onPaper(1.9 * 1.9 * (6 - 1.9) / 6), 1e-6);
        VERIFY_NEAR(with(2.0), onPaper(8.0 / 3), 1e-6);
        VERIFY_NEAR(with(2.2), onPaper(8.0 / 3 + 0.2 * 4 / 2), 1e-6);
        VERIFY_NEAR(with(1.999), with(2.001), 1e-3); // nothing jumps on the way
    }
    void strengthAndPivot() {
        Project p = arm();
        Pivot& v = boom(p).boom.pivot;
        v.pinDiameter = 0.012;
        v.cheekGap = 0.03;
        v.pinLimit = 200e6;
        v.bearingRating = estimate(4000.0, Source::DataSheet);
        v.bearingMoment = estimate(90.0, Source::DataSheet);
        v.bolts = 4;
        v.boltCircle = 0.1;
        v.boltLimit = 5000.0;
        const AxisStructure s = of(p);
        // Each side bears its own part of the tube.
        const double mu = tubeMass(), front = g * (3 * 2 + 1 * 1 + mu * 2 * 1),
                     rear = g * (7 * 0.6 + mu * 0.8 * 0.4);
        VERIFY_NEAR(s.stressRatio.value(), 150e6 / (std::max(front, rear) * 0.025 / second()), 1e-3);
        Project heavy = p; // and the side behind may be the one that gives way
        boom(heavy).boom.counterweight.mass.value = 40.0;
        VERIFY_NEAR(of(heavy).stressRatio.value(),
                    150e6 / (g * (40 * 0.6 + mu * 0.8 * 0.4) * 0.025 / second()), 1e-3);
        const double load = g * (3 + 1 + 7 + mu * 2.8), tilting = std::abs(front - rear) + load * 0.05;
        VERIFY_NEAR(s.bearingRatio.value(), 4000 / load, 1e-9);
        VERIFY_NEAR(s.momentRatio.value(), 90 / tilting, 1e-6);
        // A pin between cheeks: F g / 4 over π d³ / 32.
        VERIFY_NEAR(s.pinRatio.value(), 200e6 / (load * 0.03 / 4 / (pi * std::pow(0.012, 3) / 32)), 0.02);
        QVERIFY(s.boltRatio);
        v.boltLimit = 10000.0;
        VERIFY_NEAR(of(p).boltRatio.value(), 2 * s.boltRatio.value(), 1e-9);
        v.bolts = 1; // one holds no tilting
        QVERIFY(!of(p).boltRatio);
        v.pinDiameter = 0.0;
        v.bearingRating.value = v.bearingMoment.value = 0.0;
        const AxisStructure bare = of(p);
        QVERIFY(!bare.pinRatio && !bare.bearingRatio && !bare.momentRatio);
    }
    void balance() {
        Project p = arm();
        const double mu = tubeMass(), along = 3 * 2 + 1 * 1 + mu * 2.8 * 0.6, above = 0.1;
        const AxisStructure s = of(p);
        VERIFY_NEAR(s.balancingMass.value(), along / 0.6, 1e-9);
        VERIFY_NEAR(s.balancingPlace.value(), along / 7, 1e-9);
        VERIFY_NEAR(s.offLine.value(), above / (4 + mu * 2.8), 1e-9);
        const double x = along - 7 * 0.6, h = above + 7 * 0.04;
        double worst = 0.0, worstAt = 0.0;
        for (int i = 0; i <= 11000; ++i) {
            const double at = -0.4 + 1.1 * i / 11000,
                         torque = std::abs(g * (x * std::cos(at) - h * std::sin(at)));
            if (torque > worst) worst = torque, worstAt = at;
        }
        VERIFY_NEAR(s.gravityWorst.value(), worst, 2e-3);
        VERIFY_NEAR(s.gravityWorstAt.value() + 1.0, worstAt + 1.0, 0.03);
        // Lowest and highest place of the centre of gravity over the range: g (x sin φ + h cos φ).
        double least = 1e300, most = -1e300;
        for (int i = 0; i <= 1100; ++i) {
            const double at = -0.4 + 1.1 * i / 1100, potential = g * (x * std::sin(at) + h * std::cos(at));
            least = std::min(least, potential);
            most = std::max(most, potential);
        }
        VERIFY_NEAR(s.dropEnergy.value(), most - least, 2e-3);
        // Of the tube m L²/12 is its own.
        const double inertia =
            3 * 4 + 1 * (1 + 0.01) + mu * 2.8 * (0.36 + 2.8 * 2.8 / 12) + 7 * (0.36 + 0.0016);
        VERIFY_NEAR(s.weightInertia.value(), 7 * (0.36 + 0.0016) / inertia, 1e-9);
        // Balanced level, what lies off the line stays: at the steep end.
        const double left = above + s.balancingMass.value() * 0.04;
        VERIFY_NEAR(s.unbalanceable.value(), g * left * std::sin(0.7), 2e-3);
        boom(p).boom.counterweight.mass.value = 0.0;
        const AxisStructure none = of(p);
        QVERIFY(!none.frontMoment && !none.balancingPlace);
        VERIFY_NEAR(none.balancingMass.value(), along / 0.6, 1e-9);
    }
    void shaken() {
        Project p = arm();
        boom(p).boom.mastTurning.value = 5000.0;
        const AxisStructure s = of(p);
        const auto part = [&](SoftCause cause) {
            const auto it = std::find_if(s.soft.begin(), s.soft.end(),
                                         [&](const SoftEntry& e) { return e.cause == cause; });
            return it == s.soft.end() ? 0.0 : it->part.frequency;
        };
        const double mu = tubeMass();
        // The mast: its spring against all that turns on it.
        const double inertia =
            3 * 4 + 1 * (1 + 0.01) + mu * 2.8 * (0.36 + 2.8 * 2.8 / 12) + 7 * (0.36 + 0.0016);
        VERIFY_NEAR(part(SoftCause::Mast), std::sqrt(5000 / inertia) / (2 * pi), 1e-6);
        // The arm in front of a clamp, by finite elements.
        BeamElements clamped(2.0, 40, ea * second(), mu);
        clamped.spring(0.0, 1e12);
        clamped.turningSpring(0.0, 1e12);
        clamped.mass(2.0, 3.0, 0.0);
        clamped.mass(1.0, 1.0, 0.0);
        VERIFY_NEAR(part(SoftCause::Boom), clamped.firstFrequency(), 5e-3);
        // All of it together: an arm that bends on a pivot that turns on drive and mast.
        const double drive = std::pow(2 * pi * part(SoftCause::Drive), 2) * inertia;
        BeamElements whole(2.8, 56, ea * second(), mu);
        whole.spring(0.8, 1e12);
        whole.turningSpring(0.8, 1 / (1 / drive + 1 / 5000.0));
        whole.mass(2.8, 3.0, 0.0);
        whole.mass(1.8, 1.0, 0.0);
        whole.mass(0.2, 7.0, 0.0);
        VERIFY_NEAR(s.frequency.value(), whole.firstFrequency(), 5e-3);
        VERIFY_NEAR(s.bounce.value(), s.frequency.value(), 1e-9);
        // Clamped in its mast a swing's camera nods on what reaches out to it, whatever hangs behind.
        Project swing = p;
        swing.axes[1].role = Role::Swing;
        boom(swing).boom.mastTurning.value = 0.0;
        VERIFY_NEAR(of(swing).bounce.value(), clamped.firstFrequency(), 5e-3);
        boom(swing).boom.counterweight.mass.value = 200.0;
        VERIFY_NEAR(of(swing).bounce.value(), clamped.firstFrequency(), 5e-3);
        // What is entered beside the arm turns with it and slows it.
        Project more = p;
        boom(more).inertia.value = 30.0;
        BeamElements slower = whole;
        slower.turning(0.8, 30.0);
        VERIFY_NEAR(of(more).frequency.value(), slower.firstFrequency(), 5e-3);
        // A body far above the arm line swings along as it tips.
        Project high = p;
        boom(high).items[1].above = 1.0;
        BeamElements tall = whole;
        tall.turning(1.8, 1.0 * 1.0 * 1.0);
        VERIFY_NEAR(of(high).frequency.value(), tall.firstFrequency(), 5e-3);
        // Each part alone would be stiffer; their shares of the movement are a whole.
        double shares = 0.0;
        for (const SoftEntry& e : s.soft) {
            QVERIFY(s.frequency.value() < e.part.frequency);
            shares += structure::shareOf(e.part, s.all);
        }
        VERIFY_NEAR(shares, 1.0, 1e-9);
        // Pads under the feet are one more; none of no stiffness.
        QCOMPARE(part(SoftCause::Pads), 0.0);
        p.base.padStiffness = estimate(2e4, Source::Measured);
        const AxisStructure soft = of(p);
        QVERIFY(std::any_of(soft.soft.begin(), soft.soft.end(),
                            [](const SoftEntry& e) { return e.cause == SoftCause::Pads; }));
        QVERIFY(soft.frequency.value() < s.frequency.value());
    }
    void railSettingByHand() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.slope.value = 0.5;
        m.bumperLength = 0.03;
        m.carriageLength = 0.2;
        m.guide.wheelbase = 0.12;
        m.guide.massHeight = -0.15;
        m.rail.cameraSide = 0.04;
        Reason why = Reason::None;
        const auto set = [&] { return railSetting(p.axes[0], massesOf(p, p.axes[0]), why); };
        const auto s = set();
        QVERIFY(s);
        const double square = std::cos(0.5);
        VERIFY_NEAR(s->low, 0.13, 1e-12);
        VERIFY_NEAR(s->high, 0.87, 1e-12);
        VERIFY_NEAR(s->mass, 5.0, 1e-12);
        VERIFY_NEAR(s->height, 0.15, 1e-12);
        VERIFY_NEAR(s->carriage.weight, 5 * g * square, 1e-12);
        VERIFY_NEAR(s->carriage.wheelbase, 0.12, 1e-12);
        QVERIFY(s->rail.torsionStiffness > 1.0);
        m.guide.wheelbase = 3.0;
        VERIFY_NEAR(set()->carriage.wheelbase, 1.0, 1e-12);
        m.carriageLength = 1.5; // longer than its rail: it stays in the middle
        VERIFY_NEAR(set()->low, 0.5, 1e-12);
        VERIFY_NEAR(set()->high, 0.5, 1e-12);
        m.rail.support = RailSupport::Bedded;
        QVERIFY(!set() && why == Reason::NotApplicable);
        m.rail.support = RailSupport::TwoStands;
        m.rail.secondStand = 1.01;
        QVERIFY(!set() && why == Reason::SupportsOffRail);
        m.rail.secondStand = 1.0;
        m.rail.firstStand = 0.995;
        QVERIFY(!set() && why == Reason::SupportsOffRail);
        m.rail.support = RailSupport::OneHead;
        m.rail.headAt = 1.0;
        QVERIFY(set());
        m.rail.headAt = 1.001;
        QVERIFY(!set() && why == Reason::SupportsOffRail);
        m.rail.section.shape = SectionShape::NotGiven;
        QVERIFY(!set() && why == Reason::NeedsSection);
    }
    /// Twisted by what lies beside it: largest halfway between its ends, and the other way with the other
    /// side.
    void railTwist() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.rail.cameraSide = 0.06;
        const AxisStructure a = evaluate(p).axes[0].structure;
        const double torsion = beamView(m.rail.section).torsion;
        // Torque F e, shared by both sides: T (L/2)/2 / GJ in the middle.
        VERIFY_NEAR(a.twist.value(), 5 * g * 0.06 * 0.25 / torsion, 1e-3);
        m.rail.cameraSide = -0.06;
        VERIFY_NEAR(evaluate(p).axes[0].structure.twist.value(), a.twist.value(), 1e-9);
    }
};

QTEST_APPLESS_MAIN(ArmByHandTest)
#include "arm_by_hand_test.moc"
