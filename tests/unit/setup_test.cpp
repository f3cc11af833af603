// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig_setup.h"
#include "core/model/fields.h"
#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;
using namespace hand;

/// What a rig carries and how it moves, computed once and first.
class SetupTest : public QObject {
    Q_OBJECT
    static bool alike(double a, double b) { return std::abs(a - b) <= 1e-12 * (1.0 + std::abs(a)); }
    static bool alike(const std::vector<structure::ArmMass>& a, const std::vector<structure::ArmMass>& b) {
        return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const auto& x, const auto& y) {
            return alike(x.mass, y.mass) && alike(x.along, y.along) && alike(x.above, y.above) &&
                   x.levelled == y.levelled;
        });
    }
    static Axis linear(const char* id, Role role, double slope) {
        Axis out = slider().axes[0];
        out.id = id;
        out.role = role;
        std::get<LinearMechanism>(out.mechanism).slope.value = slope;
        return out;
    }
    static Axis turning(const char* id, Role role, std::vector<MassItem> items) {
        Axis out = jib().axes[1];
        out.id = id;
        out.role = role;
        auto& r = std::get<RotaryMechanism>(out.mechanism);
        r.boom.section.shape = SectionShape::NotGiven;
        r.items = std::move(items);
        return out;
    }
    static MassItem item(double mass, double along, double above) {
        return {"x", "Thing", estimate(mass, Source::Measured), along, above};
    }

private slots:
    /// Every uncertain input of every axis and of the payload, moved in place: what is brought up to date is
    /// what a setup made afresh says. Results of ranges and of sampling lean on it.
    void refreshedIsAsMadeAfresh() {
        int compared = 0, moved = 0, swings = 0;
        EveryRig rigs;
        // As they are, and with the payload on every axis, so that it reaches every place.
        std::vector<Project> all = rigs.projects;
        for (Project p : rigs.projects) {
            for (Axis& a : p.axes) a.carriesPayload = true;
            all.push_back(std::move(p));
        }
        for (Project& p : all) {
            if (p.payload.empty()) p.payload.push_back(item(1.5, 0.1, 0.2));
            for (std::size_t a = 0; a < p.axes.size(); ++a) {
                RigSetup rig = setupOf(p, Courses::No);
                const double before = rig.masses[a].moving;
                std::vector<Estimate*> inputs = estimatesOf(p.axes[a]);
                for (MassItem& m : p.payload) inputs.push_back(&m.mass);
                for (Estimate* e : inputs) {
                    const double was = e->value;
                    e->value = was * 1.25 + 0.01;
                    rig.refresh(a);
                    const RigSetup fresh = setupOf(p, Courses::No);
                    const AxisMasses &x = rig.masses[a], &y = fresh.masses[a];
                    QVERIFY(alike(x.own, y.own) && alike(x.boom, y.boom));
                    QVERIFY(alike(x.moving, y.moving));
                    if (kindOf(p.axes[a]) == AxisKind::Linear) QVERIFY(alike(x.momentAbove, y.momentAbove));
                    ++compared;
                    moved += !alike(before, y.moving);
                    swings += y.boomAxis >= 0;
                    e->value = was;
                    rig.refresh(a);
                }
            }
        }
        QVERIFY(swings > 0);
        QVERIFY2(compared > 500 && moved > 20, qPrintable(QString::number(moved)));
    }
    /// The same for the whole rig, whatever axis is changed.
    void wholeRigRefreshed() {
        EveryRig rigs;
        for (Project& p : rigs.projects) {
            RigSetup rig = setupOf(p, Courses::No);
            for (Axis& a : p.axes)
                for (Estimate* e : estimatesOf(a)) e->value = e->value * 1.25 + 0.01;
            for (MassItem& m : p.payload) m.mass.value *= 1.5;
            rig.refreshMasses();
            const RigSetup fresh = setupOf(p, Courses::No);
            for (std::size_t a = 0; a < p.axes.size(); ++a) {
                const AxisMasses &x = rig.masses[a], &y = fresh.masses[a];
                QVERIFY(alike(x.own, y.own) && alike(x.boom, y.boom) && alike(x.moving, y.moving));
                QVERIFY(alike(x.momentAbove, y.momentAbove) && alike(x.slopeBelow, y.slopeBelow));
            }
        }
    }
    /// Slopes below add up without sign; a lift keeps level what it carries; more than upright is upright.
    void slopesBelow() {
        Project p = slider();
        p.axes = {linear("a", Role::Slide, 0.2), linear("b", Role::Slide, -0.3), linear("c", Role::Lift, 1.5),
                  turning("d", Role::Tilt, {})};
        const RigSetup rig = setupOf(p);
        QCOMPARE(rig.masses[0].slopeBelow, 0.0);
        VERIFY_NEAR(rig.masses[1].slopeBelow, 0.2, 1e-12);
        VERIFY_NEAR(rig.masses[2].slopeBelow, 0.5, 1e-12);
        VERIFY_NEAR(rig.masses[3].slopeBelow, 0.5, 1e-12);
        std::get<LinearMechanism>(p.axes[1].mechanism).slope.value = -1.5;
        VERIFY_NEAR(setupOf(p).masses[2].slopeBelow, pi / 2, 1e-12);
    }
    /// Moments of arms above add up without sign: each may point the same way.
    void momentsAbove() {
        Project p = slider();
        p.payload.clear();
        p.axes = {linear("a", Role::Slide, 0.0), turning("b", Role::Pan, {item(2.0, 0.3, 0.1)}),
                  turning("c", Role::Tilt, {item(1.0, -0.25, 0.0), item(4.0, -0.1, 0.0)})};
        const RigSetup rig = setupOf(p);
        VERIFY_NEAR(rig.masses[0].momentAbove, 2.0 * 0.3 + 1.0 * 0.25 + 4.0 * 0.1, 1e-12);
        VERIFY_NEAR(rig.masses[1].momentAbove, 0.65, 1e-12);
        QCOMPARE(rig.masses[2].momentAbove, 0.0);
        // An arm that turns sideways twists what carries it.
        Project light = p;
        light.axes.resize(1);
        const double with = evaluate(p).axes[0].structure.twist.valueOr(0.0),
                     without = evaluate(light).axes[0].structure.twist.valueOr(0.0);
        QVERIFY(with > without);
    }
    /// What the payload adds at the end of an arm: at its tip, or at the pivot where no arm is drawn.
    void payloadOnAnArm() {
        Project p = jib();
        p.payload = {item(1.2, 0.3, 0.05)};
        Axis& axis = p.axes[1];
        axis.carriesPayload = true;
        Boom& b = boom(p).boom;
        b.tipOffset = 0.1;
        b.tipAbove = -0.2;
        auto masses = setupOf(p).masses[1].own;
        QCOMPARE(masses.size(), std::size_t(3)); // the tube, the camera, the payload
        VERIFY_NEAR(masses[2].mass, 1.2, 1e-12);
        VERIFY_NEAR(masses[2].along, 2.0 + 0.1 + 0.3, 1e-12);
        VERIFY_NEAR(masses[2].above, -0.15, 1e-12);
        QVERIFY(!masses[2].levelled);
        b.arm = ArmKind::ParallelLinks;
        b.counterweight.mass.value = 5.0;
        b.counterweight.behind = 0.7;
        b.counterweight.above = 0.03;
        masses = setupOf(p).masses[1].own;
        QCOMPARE(masses.size(), std::size_t(4));
        QVERIFY(masses[1].levelled && masses[2].levelled && !masses[3].levelled);
        VERIFY_NEAR(masses[2].along, 2.0, 1e-12); // the joint that carries it
        VERIFY_NEAR(masses[2].beyond, 0.1 + 0.3, 1e-12);
        // Gravity does the work of lifting it as far as the joint rises, wherever it sits: over a small turn.
        const double turn = 1e-6, at = 0.4, before = g * masses[2].mass * 2.0 * std::sin(at),
                     after = g * masses[2].mass * 2.0 * std::sin(at + turn);
        const std::vector<structure::ArmMass> alone{masses[2]};
        VERIFY_NEAR(structure::gravityTorque(alone, at), (after - before) / turn, 1e-5);
        VERIFY_NEAR(masses[3].along, -0.7, 1e-12);
        VERIFY_NEAR(masses[3].above, 0.03, 1e-12);
        b.section.shape = SectionShape::NotGiven;
        masses = setupOf(p).masses[1].own;
        QCOMPARE(masses.size(), std::size_t(2)); // neither tube nor counterweight
        VERIFY_NEAR(masses[1].along, 0.3, 1e-12);
        VERIFY_NEAR(masses[1].above, -0.15, 1e-12);
    }
    /// A swing that lists nothing feels the arm on it where it reaches out farthest.
    void swingFeelsTheArm() {
        Project p = jib();
        p.payload.clear();
        RotaryMechanism& r = boom(p);
        r.items[0].above = 0.4;
        r.lowAngle = 0.3; // never level
        r.range = 0.5;
        const auto felt = setupOf(p).masses[0].felt();
        QCOMPARE(felt.size(), std::size_t(2));
        VERIFY_NEAR(felt[1].along, 2.0 * std::cos(0.3) - 0.4 * std::sin(0.3), 1e-9);
        VERIFY_NEAR(felt[1].above, 2.0 * std::sin(0.3) + 0.4 * std::cos(0.3), 1e-9);
        r.boom.arm = ArmKind::ParallelLinks; // a levelled camera rides above the tip
        const auto level = setupOf(p).masses[0].felt();
        VERIFY_NEAR(level[1].along, 2.0 * std::cos(0.3), 1e-9);
        // What is beyond the joint stays level, and counts whole about the swing.
        Project loaded = p;
        boom(loaded).boom.tipOffset = 0.15;
        loaded.axes[1].carriesPayload = true;
        loaded.payload = {item(1.0, 0.05, 0.0)};
        VERIFY_NEAR(setupOf(loaded).masses[0].felt()[2].along, 2.0 * std::cos(0.3) + 0.2, 1e-9);
        VERIFY_NEAR(level[1].above, 2.0 * std::sin(0.3) + 0.4 * std::cos(0.3), 1e-9);
        // Where the rig tips, and on the bearing under the arm, it counts with its whole lever.
        boom(loaded).boom.pivot.bearingMoment = estimate(500.0, Source::DataSheet);
        const Evaluation near = evaluate(loaded);
        boom(loaded).boom.tipOffset += 0.1;
        const Evaluation far = evaluate(loaded);
        const auto out = [](const Evaluation& e) {
            return std::hypot(e.rig.centreAlong.value(), e.rig.centreAcross.value());
        };
        VERIFY_NEAR((out(far) - out(near)) * far.rig.mass.value(), 1.0 * 0.1, 1e-6);
        VERIFY_NEAR(500.0 / far.axes[1].structure.momentRatio.value() -
                        500.0 / near.axes[1].structure.momentRatio.value(),
                    g * 1.0 * 0.1, 1e-6);
        VERIFY_NEAR(far.axes[1].model.gravityHigh, near.axes[1].model.gravityHigh, 1e-9);
        // Down and up over level: at level.
        r.lowAngle = -0.2;
        VERIFY_NEAR(setupOf(p).masses[0].felt()[1].along, 2.0, 1e-9);
        // One with masses of its own feels those.
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.items.push_back(item(9.0, 0.5, 0.0));
        QCOMPARE(setupOf(p).masses[0].felt().size(), std::size_t(1));
        QCOMPARE(setupOf(p).masses[0].boomAxis, -1);
    }
    void reach() {
        Project p = jib();
        boom(p).boom.tipOffset = 0.3;
        boom(p).boom.tipAbove = -0.4;
        VERIFY_NEAR(armReach(p.axes, 1), std::hypot(2.3, 0.4), 1e-12);
        VERIFY_NEAR(armReach(p.axes, 0), std::hypot(2.3, 0.4), 1e-12); // the swing: that of its arm
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.pointRadius = 0.2;
        VERIFY_NEAR(armReach(p.axes, 0), 0.2, 1e-12);
        swing.items = {item(1.0, -0.3, 0.4), item(1.0, 0.1, 0.1)};
        VERIFY_NEAR(armReach(p.axes, 0), 0.3, 1e-12); // heights are no distance from an upright axis
        QCOMPARE(armReach(slider().axes, 0), 0.0);
    }
    /// An axis tried in place of the one with its id, or on top of all.
    void massesOfAnother() {
        Project p = slider();
        Axis other = p.axes[0];
        std::get<LinearMechanism>(other.mechanism).movingMass.value = 11.0;
        VERIFY_NEAR(massesOf(p, other).moving - massesOf(p, p.axes[0]).moving, 6.0, 1e-12);
        other.id = "nowhere";
        QCOMPARE(massesOf(p, other).moving, 0.0);
        VERIFY_NEAR(evaluateAxis(p, other).model.chain.load.inertia -
                        evaluateAxis(p, p.axes[0]).model.chain.load.inertia,
                    6.0, 1e-9);
    }
    /// What the axes below bring to what stands on them in a shot.
    void accelerationBelow() {
        Project p = jib();
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.motion.jerk = 0.0;
        const RigSetup rig = setupOf(p);
        bool any = false;
        for (const Course& c : rig.courses[1]) {
            const auto below = std::find_if(rig.courses[0].begin(), rig.courses[0].end(),
                                            [&](const Course& b) { return b.shot == c.shot; });
            if (below == rig.courses[0].end()) continue;
            const motion::Profile& f = below->plan.profile;
            const double alpha = std::max(f.in.acceleration, f.out.acceleration);
            VERIFY_NEAR(c.accelerationBelow, 2.0 * std::hypot(alpha, f.peakSpeed * f.peakSpeed), 1e-9);
            VERIFY_NEAR(c.swingBelow, alpha, 1e-12);
            QCOMPARE(below->accelerationBelow, 0.0);
            any = true;
        }
        QVERIFY(any);
    }
};

QTEST_APPLESS_MAIN(SetupTest)
#include "setup_test.moc"
