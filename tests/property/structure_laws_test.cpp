// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/rigs/rigs.h"
#include "core/structure/balance.h"
#include "core/structure/rail.h"
#include "core/structure/section.h"
#include "core/structure/tipping.h"
#include "support/files.h"
#include "support/near.h"

#include <Eigen/Dense>
#include <QTest>
#include <functional>
#include <numbers>
#include <random>

using namespace gantry;
using namespace gantry::structure;
constexpr double pi = std::numbers::pi, g = 9.80665;

/// Laws that hold whatever the numbers: reciprocity, energy, symmetry, likeness, and equilibrium found
/// another way.
class StructureLawsTest : public QObject {
    Q_OBJECT
    std::mt19937 random_{46};
    double within(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random_);
    }

    /// Second moments of an outline, summed over small squares.
    static SectionFigures summed(double width, double height,
                                 const std::function<bool(double, double)>& filled) {
        constexpr int n = 700;
        double area = 0.0, first = 0.0, upright = 0.0, sideways = 0.0;
        const double da = width / n * (height / n);
        for (int i = 0; i < n; ++i)
            for (int k = 0; k < n; ++k) {
                const double x = (i + 0.5) / n * width - width / 2, y = (k + 0.5) / n * height;
                if (!filled(x, y)) continue;
                area += da;
                first += da * y;
                upright += da * y * y;
                sideways += da * x * x;
            }
        SectionFigures out;
        out.area = area;
        out.centroid = first / area;
        out.upright = upright - area * out.centroid * out.centroid;
        out.sideways = sideways;
        return out;
    }
    static bool like(const SectionFigures& a, const SectionFigures& b) {
        const auto near = [](double x, double y) { return std::abs(x / y - 1) < 0.01; };
        return near(a.area, b.area) && near(a.upright, b.upright) && near(a.sideways, b.sideways) &&
               near(a.centroid, b.centroid);
    }
    /// A random jib on legs that carries something.
    Project jib() {
        Project p = demoProject("kettle-jib");
        auto& boom = std::get<RotaryMechanism>(p.axes[1].mechanism);
        boom.boom.reach = within(1.0, 3.0);
        boom.boom.rear = within(0.3, 1.2);
        boom.boom.counterweight.mass.value = within(0.0, 20.0);
        boom.boom.counterweight.behind = within(0.3, 1.0);
        boom.boom.counterweight.above = within(-0.1, 0.1);
        boom.boom.tipAbove = within(-0.3, 0.3);
        boom.lowAngle = within(-1.0, 0.0);
        boom.range = within(0.5, 1.5);
        if (random_() % 2 == 0) boom.boom.arm = ArmKind::ParallelLinks;
        return p;
    }

private slots:
    void sectionsAgainstSums() {
        for (int i = 0; i < 12; ++i) {
            const double w = within(0.02, 0.1), h = within(0.02, 0.1), t = within(0.1, 0.3) * std::min(w, h);
            QVERIFY(like(solidRectangle(w, h), summed(w, h, [](double, double) { return true; })));
            QVERIFY(like(hollowRectangle(w, h, t), summed(w, h, [&](double x, double y) {
                             return std::abs(x) > w / 2 - t || y < t || y > h - t;
                         })));
            QVERIFY(like(roundTube(w, t / 2), summed(w, w, [&](double x, double y) {
                             const double r = std::hypot(x, y - w / 2);
                             return r < w / 2 && r > w / 2 - t / 2;
                         })));
            // The web stands on the lower edge, the flange lies on it.
            QVERIFY(like(tee(t, h, w, t),
                         summed(w, h + t, [&](double x, double y) { return y > h || std::abs(x) < t / 2; })));
            const SectionFigures flat = hollowRectangle(w, h, t), edge = turned(flat);
            QCOMPARE(edge.upright, flat.sideways);
            QCOMPARE(edge.sideways, flat.upright);
            QCOMPARE(edge.torsion, flat.torsion);
            // A shaft twists by its polar moment; a tube's walls and core add up to a full bar.
            const SectionFigures bar = roundTube(w, w / 2);
            VERIFY_NEAR(bar.torsion, pi * std::pow(w, 4) / 32, 1e-9);
        }
    }
    /// Maxwell and Betti: what a load at one place does at another, the same load there does here.
    void deflectionsAreReciprocal() {
        for (int i = 0; i < 200; ++i) {
            const Beam beam{within(0.5, 4), within(100, 1e5), 0.0};
            const double a = within(0, beam.length), b = within(0, beam.length), force = within(1, 200);
            const double first = within(0, 0.45) * beam.length, second = within(0.55, 1.0) * beam.length;
            const std::array atA{PointLoad{a, force}}, atB{PointLoad{b, force}};
            const TwoSupports two{first, second};
            const double scale = force * std::pow(beam.length, 3) / beam.bendingStiffness;
            QVERIFY(std::abs(bendAt(beam, two, atA, b).sag - bendAt(beam, two, atB, a).sag) < 1e-12 * scale);
            const CentralSupport one{within(0.2, 0.8) * beam.length, within(50, 1e5)};
            const double there = bendAt(beam, one, atA, b).sag, here = bendAt(beam, one, atB, a).sag;
            QVERIFY(std::abs(there - here) < 1e-10 * std::max({scale, std::abs(there)}));
        }
    }
    /// How fast a carriage sinks is how much lower it stands a little farther on.
    void changeIsTheDerivative() {
        for (int i = 0; i < 200; ++i) {
            const double length = within(0.6, 3), first = within(0, 0.4) * length,
                         second = within(0.6, 1) * length;
            RailView rail{{length, within(500, 5e4), within(0, 60)}, TwoSupports{first, second}, 500.0};
            if (i % 2 == 1) rail.supports = CentralSupport{first + 0.1 * length, within(50, 1e5)};
            rail.loads = {{within(0, 1) * length, within(0, 50)}};
            const CarriageView c{within(10, 200), within(0.02, 0.15), 0.0};
            const double at = within(0.1, length - 0.1), d = 1e-5;
            const RailPoint before = railPoint(rail, c, at - d), after = railPoint(rail, c, at + d);
            const RailChange change = railChange(rail, c, at);
            const double sag = (after.sag - before.sag) / (2 * d),
                         slope = (after.slope - before.slope) / (2 * d);
            QVERIFY(std::abs(change.sag - sag) < 1e-4 * std::abs(sag) + 1e-8);
            QVERIFY(std::abs(change.slope - slope) < 1e-3 * std::abs(slope) + 1e-6);
        }
    }
    /// The same rail seen from its other side sags alike and slopes the other way.
    void mirroredRailsAreAlike() {
        for (int i = 0; i < 100; ++i) {
            const double length = within(0.6, 3), first = within(0, 0.4) * length,
                         second = within(0.6, 1) * length;
            RailView rail{
                {length, within(500, 5e4), within(0, 60)}, TwoSupports{first, second}, within(50, 5e3)};
            const CarriageView c{within(10, 200), within(0.02, 0.15), within(0, 10)};
            const double at = within(0.1, length - 0.1);
            const RailPoint here = railPoint(rail, c, at);
            AlongRail along{within(0, 20), within(-20, 20), within(0, 0.5)};
            const double tips = railTippingRatio(rail, c, along, 12.0, at);
            rail.supports = TwoSupports{length - second, length - first};
            const RailPoint there = railPoint(rail, c, length - at);
            VERIFY_NEAR(there.sag, here.sag, 1e-7);
            QVERIFY(std::abs(there.slope + here.slope) < 1e-9 * (1 + std::abs(here.slope)));
            VERIFY_NEAR(there.twist + 1.0, here.twist + 1.0, 1e-9);
            along.downhill = -along.downhill;
            VERIFY_NEAR(railTippingRatio(rail, c, along, 12.0, length - at), tips, 1e-9);
        }
    }
    /// Gravity's torque is what the height of all that moves changes by, with heights from the drawing's
    /// layout.
    void torqueIsTheSlopeOfTheEnergy() {
        for (int i = 0; i < 60; ++i) {
            const Project p = jib();
            const auto& r = std::get<RotaryMechanism>(p.axes[1].mechanism);
            const auto masses = armMasses(p.payload, p.axes[1]);
            const auto energyAt = [&](double at) {
                std::vector<double> pose = shownPose(p.axes);
                pose[1] = at;
                const RigLayout l = layRig(setupOf(p), pose);
                return g * l.mass * l.centre.z;
            };
            double least = 1e300, most = -1e300;
            for (int k = 1; k < 24; ++k) {
                const double at = r.range * k / 24, step = 1e-4;
                const double slope = (energyAt(at + step) - energyAt(at - step)) / (2 * step);
                // Positive torque pulls the camera's end down: raising it costs that much.
                const double torque = gravityTorque(masses, r.lowAngle + at);
                QVERIFY2(std::abs(slope - torque) < 1e-4 * (1 + std::abs(torque)),
                         qPrintable(QString("%1 from heights, %2 from moments").arg(slope).arg(torque)));
            }
            for (int k = 0; k <= 960; ++k) {
                least = std::min(least, energyAt(r.range * k / 960));
                most = std::max(most, energyAt(r.range * k / 960));
            }
            const double drop = evaluate(p).axes[1].structure.dropEnergy.value();
            QVERIFY2(std::abs(drop - (most - least)) < 0.005 * (most - least) + 1e-3,
                     qPrintable(QString("%1, by heights %2").arg(drop).arg(most - least)));
        }
    }
    /// Three feet carry what stands on them: with the pushes grown by the tipping ratio, in their worst
    /// direction, one of the feet just carries nothing.
    void tippingByReactions() {
        for (int i = 0; i < 60; ++i) {
            const auto feet = feetOnCircle(3, within(0.3, 1.0), within(0, 2));
            std::vector<Weight> weights;
            for (int k = 0; k < 3; ++k)
                weights.push_back({within(2, 20), {within(-0.1, 0.1), within(-0.1, 0.1)}, within(0.2, 2)});
            const std::array pushes{Push{within(5, 40), within(0.5, 2)}, Push{within(5, 40), within(0.5, 2)}};
            Eigen::Matrix3d arms;
            for (int f = 0; f < 3; ++f) arms.col(f) << 1.0, feet[std::size_t(f)].x, feet[std::size_t(f)].y;
            const auto lightest = [&](double grown) {
                double least = 1e300;
                for (int d = 0; d < 1440; ++d) {
                    const double angle = 2 * pi * d / 1440;
                    Eigen::Vector3d loads(0, 0, 0);
                    for (const Weight& w : weights)
                        loads += g * w.mass * Eigen::Vector3d(1.0, w.at.x, w.at.y);
                    for (const Push& push : pushes) // moves the resultant that way
                        loads += grown * push.force * push.height *
                                 Eigen::Vector3d(0, std::cos(angle), std::sin(angle));
                    least = std::min(least, Eigen::Vector3d(arms.partialPivLu().solve(loads)).minCoeff());
                }
                return least;
            };
            const auto found = tipping({feet, 0.0, 0.0}, weights, pushes);
            QVERIFY(found);
            double weight = 0.0;
            for (const Weight& w : weights) weight += g * w.mass;
            QVERIFY(lightest(found->ratio * 0.995) > 0.0);
            QVERIFY(lightest(found->ratio * 1.005) < 0.0);
            QVERIFY(std::abs(lightest(found->ratio)) < 2e-3 * weight);
        }
    }
    /// On level ground turning base and swing together turns the answer with them and changes nothing else.
    void standingHasNoNorth() {
        Project p = demoProject("kettle-jib");
        const RigStructure before = evaluate(p).rig;
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        const double by = 2 * pi / 36 * 7; // the directions looked at are 36
        swing.lowAngle += by;
        p.base.firstLeg += by;
        p.base.ballastOut = 0.0;
        p.keepOut.clear();
        const RigStructure after = evaluate(p).rig;
        VERIFY_NEAR(after.tipping.value(), before.tipping.value(), 1e-9);
        VERIFY_NEAR(after.tippingEmergency.value(), before.tippingEmergency.value(), 1e-9);
        VERIFY_NEAR(
            std::remainder(after.tippingDirection.value() - before.tippingDirection.value() - by, 2 * pi) +
                1.0,
            1.0, 1e-9);
    }
    /// Twice as heavy on the same rail: sag doubles, it swings slower by the root of two, tips as before
    /// where only its own stops push.
    void likeness() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.items.clear();
        m.rail.section.shape = SectionShape::Own; // without weight of its own
        m.rail.section.ownMass = 0.0;
        m.rail.section.ownInertia = 4e-8;
        m.rail.standMass.value = 0.0;
        m.rail.standSway.value = 0.0;
        m.movingMass.value = 3.0;
        p.axes[0].carriesPayload = false;
        const AxisStructure light = evaluate(p).axes[0].structure;
        m.movingMass.value = 6.0;
        const AxisStructure heavy = evaluate(p).axes[0].structure;
        VERIFY_NEAR(heavy.sag.value(), 2 * light.sag.value(), 1e-9);
        VERIFY_NEAR(heavy.slope.value(), 2 * light.slope.value(), 1e-9);
        VERIFY_NEAR(heavy.stressRatio.value(), light.stressRatio.value() / 2, 1e-9);
        VERIFY_NEAR(heavy.bounce.value(), light.bounce.value() / std::sqrt(2.0), 1e-9);
    }
};

QTEST_GUILESS_MAIN(StructureLawsTest)
#include "structure_laws_test.moc"
