// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_layout.h"
#include "support/bare_rigs.h"

#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <set>

using namespace gantry;
using namespace hand;

/// Where each part of a rig stands, worked on squared paper.
class LayoutByHandTest : public QObject {
    Q_OBJECT
    static bool at(const Place& p, double x, double y, double z) {
        const bool there =
            isNear(p.x, x, 1e-9, 1e-9) && isNear(p.y, y, 1e-9, 1e-9) && isNear(p.z, z, 1e-9, 1e-9);
        if (!there) qInfo("%g %g %g", p.x, p.y, p.z);
        return there;
    }
    static std::vector<RigBody> all(const RigLayout& l, BodyKind kind) {
        std::vector<RigBody> out;
        std::copy_if(l.bodies.begin(), l.bodies.end(), std::back_inserter(out),
                     [&](const RigBody& b) { return b.kind == kind; });
        return out;
    }
    static RigLayout lay(const Project& p, std::vector<double> pose) { return layRig(setupOf(p), pose); }

private slots:
    void slideOnLegs() {
        Project p = slider(); // 1 m of rail, stands at its ends, a carriage of 0.1 m, 5 kg
        p.payload.clear();
        LinearMechanism& m = rail(p);
        m.bumperLength = 0.02;
        m.guide.massHeight = 0.15;
        m.rail.section.height = 0.04;
        m.rail.standMass.value = 0.5;
        Base& base = p.base;
        base.kind = BaseKind::Legs;
        base.legs = 3;
        base.legRadius = 0.5;
        base.firstLeg = 0.0;
        base.height = 1.2;
        base.massHeight = 0.4;
        base.mass.value = 6.0;
        base.ballast.value = 4.0;
        base.ballastOut = 0.1;
        RigLayout l = lay(p, {0.3});
        const auto legs = all(l, BodyKind::Leg);
        QCOMPARE(legs.size(), std::size_t(3));
        QVERIFY(at(legs[0].from, 0.5, 0.0, 0.0) && at(legs[0].to, 0.0, 0.0, 0.4));
        QVERIFY(at(legs[1].from, -0.25, 0.5 * std::sqrt(0.75), 0.0));
        const RigBody column = all(l, BodyKind::Column).at(0);
        QVERIFY(at(column.from, 0, 0, 0.4) && at(column.to, 0, 0, 1.2) && at(column.centre, 0, 0, 0.4));
        QCOMPARE(column.mass, 6.0);
        QCOMPARE(column.radius, 0.03);
        const RigBody r = all(l, BodyKind::Rail).at(0);
        QVERIFY(at(r.from, -0.5, 0, 1.2) && at(r.to, 0.5, 0, 1.2) && at(r.centre, 0, 0, 1.2));
        VERIFY_NEAR(r.radius, 0.02, 1e-12);
        QVERIFY(r.mass > 1.0); // steel
        const auto stands = all(l, BodyKind::Stand);
        QCOMPARE(stands.size(), std::size_t(2));
        QVERIFY(at(stands[0].from, -0.5, 0, 0) && at(stands[0].to, -0.5, 0, 1.2) &&
                at(stands[1].to, 0.5, 0, 1.2));
        QCOMPARE(stands[0].mass, 0.5);
        // 0.3 m from where its wheels can stand first: half a carriage and a bumper from the end.
        const RigBody carriage = all(l, BodyKind::Carriage).at(0);
        QVERIFY(at(carriage.centre, -0.5 + 0.07 + 0.3, 0, 1.2));
        QVERIFY(at(carriage.from, -0.18, 0, 1.2) && at(carriage.to, -0.08, 0, 1.2));
        const RigBody carried = all(l, BodyKind::Head).at(0);
        QVERIFY(at(carried.centre, -0.13, 0, 1.35));
        QCOMPARE(carried.mass, 5.0);
        const RigBody ballast = all(l, BodyKind::Ballast).at(0);
        QVERIFY(at(ballast.centre, -0.1, 0, 0.05) && at(ballast.from, -0.16, 0, 0.05));
        QCOMPARE(ballast.mass, 4.0);
        // The camera's body is 0.08 m deep and 0.1 m high, its back 0.06 m behind the middle.
        QVERIFY(at(all(l, BodyKind::Camera).at(0).centre, -0.13 - 0.02, 0, 1.2 + 0.04 + 0.05));
        QVERIFY(at(all(l, BodyKind::Lens).at(0).from, -0.13 + 0.02, 0, 1.2 + 0.04 + 0.06));
        QVERIFY(at(l.camera, -0.13 + 0.09, 0, 1.3));
        const double mass = 6.0 + 4.0 + r.mass + 2 * 0.5 + 5.0;
        VERIFY_NEAR(l.mass, mass, 1e-9);
        VERIFY_NEAR(l.centre.x, (4.0 * -0.1 + 5.0 * -0.13) / mass, 1e-9);
        VERIFY_NEAR(l.centre.z, (6 * 0.4 + 4 * 0.05 + r.mass * 1.2 + 2 * 0.5 * 0.6 + 5 * 1.35) / mass, 1e-9);
        // Beyond its travel it stops; a leg that takes the ballast is where it is put.
        QVERIFY(at(all(lay(p, {9.0}), BodyKind::Carriage).at(0).centre, 0.5 - 0.07, 0, 1.2));
        QVERIFY(at(all(lay(p, {}), BodyKind::Carriage).at(0).centre, -0.43, 0, 1.2));
        base.ballastLeg = 1;
        QVERIFY(at(all(lay(p, {0.3}), BodyKind::Ballast).at(0).centre, 0.5, 0, 0.05));
        base.ballastLeg = 3;
        QVERIFY(at(all(lay(p, {0.3}), BodyKind::Ballast).at(0).centre, -0.25, -0.5 * std::sqrt(0.75), 0.05));
        // On one head the head stands over the middle, and nothing else is drawn under the rail.
        m.rail.support = RailSupport::OneHead;
        m.rail.headAt = 0.3;
        l = lay(p, {0.3});
        QVERIFY(at(all(l, BodyKind::Rail).at(0).from, -0.3, 0, 1.2) && all(l, BodyKind::Stand).empty());
        m.rail.headAt = 4.0; // no farther than its end
        QVERIFY(at(all(lay(p, {0.3}), BodyKind::Rail).at(0).from, -1.0, 0, 1.2));
        // A plate as wide as its stands stand carries nothing but them.
        m.rail.support = RailSupport::TwoStands;
        m.rail.firstStand = 0.1;
        m.rail.secondStand = 4.0;
        base.kind = BaseKind::Rectangle;
        base.width = 0.6;
        l = lay(p, {0.3});
        QVERIFY(all(l, BodyKind::Leg).empty() && all(l, BodyKind::Column).empty());
        QCOMPARE(l.feet.size(), std::size_t(4));
        VERIFY_NEAR(l.feet[0].x, 0.45, 1e-12);
        VERIFY_NEAR(l.feet[0].y, 0.3, 1e-12);
        QVERIFY(l.feet[2].x < 0 && l.feet[2].y < 0);
        QCOMPARE(all(l, BodyKind::Stand).size(), std::size_t(3)); // the plate's weight, and the two
        QVERIFY(at(all(l, BodyKind::Stand)[0].centre, 0, 0, 0.4));
        m.slope.value = 0.3;
        VERIFY_NEAR(lay(p, {0.3}).feet[0].x, 0.45 * std::cos(0.3), 1e-12);
        // Up the slope: the carriage climbs as it goes.
        const Place low = all(lay(p, {0.1}), BodyKind::Carriage).at(0).centre,
                    high = all(lay(p, {0.4}), BodyKind::Carriage).at(0).centre;
        VERIFY_NEAR(high.z - low.z, 0.3 * std::sin(0.3), 1e-9);
        VERIFY_NEAR(high.x - low.x, 0.3 * std::cos(0.3), 1e-9);
        // Of an unknown profile the middle of the rail stands over the base; nothing known, nothing drawn
        // below.
        m.slope.value = 0.0;
        m.rail.section.shape = SectionShape::NotGiven;
        base.kind = BaseKind::NotGiven;
        l = lay(p, {0.0});
        QVERIFY(at(all(l, BodyKind::Rail).at(0).from, -0.5, 0, 1.2) && all(l, BodyKind::Stand).empty() &&
                l.feet.empty());
    }
    void jibInTheAir() {
        Project p = jib(); // 2 m of arm, 0.8 m behind, 3 kg at its end
        p.payload.clear();
        RotaryMechanism& r = boom(p);
        r.lowAngle = -0.5;
        r.range = 1.2;
        r.boom.tipOffset = 0.1;
        r.boom.counterweight.mass.value = 9.0;
        r.boom.counterweight.behind = 0.6;
        r.boom.counterweight.above = 0.05;
        RotaryMechanism& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.lowAngle = 0.2;
        p.base.height = 1.5;
        std::vector<double> pose(p.axes.size(), 0.0);
        pose[0] = 0.4; // 0.6 rad from x
        pose[1] = 0.8; // 0.3 rad up
        RigLayout l = lay(p, pose);
        const double c = std::cos(0.3), s = std::sin(0.3), hx = std::cos(0.6), hy = std::sin(0.6);
        const RigBody arm = all(l, BodyKind::Arm).at(0);
        QVERIFY(at(arm.to, 2 * c * hx, 2 * c * hy, 1.5 + 2 * s));
        QVERIFY(at(arm.from, -0.8 * c * hx, -0.8 * c * hy, 1.5 - 0.8 * s));
        const RigBody weight = all(l, BodyKind::Counterweight).at(0);
        // Above the arm's line is square to it: back and up.
        QVERIFY(at(weight.centre, (-0.6 * c - 0.05 * s) * hx, (-0.6 * c - 0.05 * s) * hy,
                   1.5 - 0.6 * s + 0.05 * c));
        QCOMPARE(weight.mass, 9.0);
        QCOMPARE(weight.radius, 0.08);
        const auto heads = all(l, BodyKind::Head);
        QVERIFY(std::any_of(heads.begin(), heads.end(), [&](const RigBody& b) {
            return b.mass == 3.0 && isNear(b.centre.z, 1.5 + 2 * s, 1e-9) &&
                   isNear(b.centre.x, 2 * c * hx, 1e-9);
        }));
        // The head stands square on a plain arm and leans with it: pan, tilt and lens 0.08, 0.14 m and 0.09 m
        // beyond its end. On parallel links it stands upright; what hangs below hangs below.
        for (std::size_t i = 0; i < p.axes.size(); ++i)
            if (turnsOnHead(p.axes[i].role))
                pose[i] = straightAhead(std::get<RotaryMechanism>(p.axes[i].mechanism));
        r.boom.arm = ArmKind::Plain;
        for (const double up : {0.22, -0.22}) {
            r.boom.hangs = up < 0.0;
            const double out = 2.19 * c - up * s;
            QVERIFY(at(lay(p, pose).camera, out * hx, out * hy, 1.5 + 2.19 * s + up * c));
        }
        r.boom.arm = ArmKind::ParallelLinks;
        for (const double up : {0.22, -0.22}) {
            r.boom.hangs = up < 0.0;
            const double out = 2.0 * c + 0.1 + 0.09; // what is beyond the joint keeps its direction
            QVERIFY(at(lay(p, pose).camera, out * hx, out * hy, 1.5 + 2.0 * s + up));
        }
        r.boom.hangs = false;
        // On parallel links the height stays upright.
        r.items[0].above = 0.2;
        r.boom.arm = ArmKind::ParallelLinks;
        l = lay(p, pose);
        bool upright = false;
        for (const RigBody& b : all(l, BodyKind::Head))
            upright = upright || isNear(b.centre.z, 1.5 + 2 * s + 0.2, 1e-9);
        QVERIFY(upright);
        r.boom.arm = ArmKind::Plain;
        l = lay(p, pose);
        bool square = false;
        for (const RigBody& b : all(l, BodyKind::Head))
            square = square || isNear(b.centre.z, 1.5 + 2 * s + 0.2 * c, 1e-9);
        QVERIFY(square);
        // A swing set free takes its direction as it is given.
        const RigLayout turned = layRig(setupOf(p), std::vector<double>{2.5, 0.8}, 0);
        QVERIFY(isNear(all(turned, BodyKind::Arm).at(0).to.x, 2 * c * std::cos(2.5), 1e-9));
    }
    void heads() {
        Project p = bareRig(rigs::RigKind::PanTiltHead);
        p.base.kind = BaseKind::Overhead;
        p.base.height = 2.0;
        for (Axis& axis : p.axes) {
            auto& r = std::get<RotaryMechanism>(axis.mechanism);
            r.lowAngle = -1.0;
            r.range = 2.0;
        }
        std::size_t pan = 0, tilt = 0;
        for (std::size_t i = 0; i < p.axes.size(); ++i) {
            if (p.axes[i].role == Role::Pan) pan = i;
            if (p.axes[i].role == Role::Tilt) tilt = i;
        }
        std::vector<double> pose(p.axes.size(), 1.0); // straight ahead
        pose[pan] = 1.4;
        pose[tilt] = 0.7;
        const RigLayout l = lay(p, pose);
        QVERIFY(at(all(l, BodyKind::Column).at(0).from, 0, 0, 2.3) &&
                at(all(l, BodyKind::Column).at(0).to, 0, 0, 2.0));
        // Under a ceiling the head hangs: the tilt's axis 0.22 m lower, and the lens on it.
        const double z = 2.0 - 0.22;
        QVERIFY(at(l.joints[tilt], 0, 0, z));
        // 0.4 rad to the left, 0.3 rad down.
        QVERIFY(at(l.camera, 0.09 * std::cos(-0.3) * std::cos(0.4), 0.09 * std::cos(-0.3) * std::sin(0.4),
                   z + 0.09 * std::sin(-0.3)));
        QVERIFY(at(l.joints[pan], 0, 0, 2.0 - 0.08));
        const std::vector<double> shown = shownPose(p.axes);
        QCOMPARE(shown[pan], 1.0);
        std::get<RotaryMechanism>(p.axes[pan].mechanism).lowAngle = 0.5; // cannot look straight ahead
        QCOMPARE(shownPose(p.axes)[pan], 0.0);
        p.base.kind = BaseKind::WallBracket;
        QVERIFY(at(all(lay(p, pose), BodyKind::Column).at(0).from, -0.3, 0, 2.0));
    }
    void liftCarriesUp() {
        Project p = bareRig(rigs::RigKind::LiftColumn);
        p.base.kind = BaseKind::Legs;
        p.base.height = 0.4;
        auto& lift = std::get<LinearMechanism>(p.axes[0].mechanism);
        lift.railLength = 1.1;
        const RigLayout low = lay(p, {0.0}), high = lay(p, {0.5});
        QVERIFY(at(all(low, BodyKind::Rail).at(0).from, 0, 0, 0.4) &&
                at(all(low, BodyKind::Rail).at(0).to, 0, 0, 1.5));
        VERIFY_NEAR(high.camera.z - low.camera.z, 0.5, 1e-9);
        VERIFY_NEAR(high.mass, low.mass, 1e-12);
    }
    /// The lowest carriage's mass is that of all it carries: what stands on it is not counted twice; and the
    /// whole is the sum of its parts wherever it goes.
    void massIsKept() {
        const EveryRig rigs;
        int several = 0;
        for (const Project& p : rigs.projects) {
            const RigSetup setup = setupOf(p);
            std::vector<double> pose = shownPose(p.axes);
            const RigLayout shown = layRig(setup, pose),
                            elsewhere = layRig(setup, std::vector<double>(p.axes.size(), 0.1));
            VERIFY_NEAR(shown.mass, elsewhere.mass, 1e-9);
            double mass = 0.0, x = 0.0, z = 0.0;
            for (const RigBody& b : shown.bodies) {
                QVERIFY(b.mass >= 0.0);
                mass += b.mass;
                x += b.mass * b.centre.x;
                z += b.mass * b.centre.z;
            }
            VERIFY_NEAR(shown.mass, mass, 1e-9);
            if (mass > 0.0)
                QVERIFY(isNear(shown.centre.x, x / mass, 1e-9, 1e-9) &&
                        isNear(shown.centre.z, z / mass, 1e-9, 1e-9));
            // Sum of what is above the lowest linear axis, and the carrier itself: its moving mass.
            const auto linear = std::find_if(p.axes.begin(), p.axes.end(), [](const Axis& a) {
                return kindOf(a) == AxisKind::Linear && a.role != Role::Turntable;
            });
            if (linear == p.axes.end()) continue;
            const auto index = static_cast<int>(linear - p.axes.begin());
            const auto carrier =
                std::find_if(shown.bodies.begin(), shown.bodies.end(),
                             [&](const RigBody& b) { return b.kind == BodyKind::Head && b.axis == index; });
            QVERIFY(carrier != shown.bodies.end());
            double above = 0.0;
            for (auto it = carrier; it != shown.bodies.end(); ++it) above += it->mass;
            several += carrier + 2 < shown.bodies.end();
            const double moving = setup.masses[static_cast<std::size_t>(index)].moving;
            QVERIFY(above >= moving - 1e-9);
            if (carrier->mass > 0.0) VERIFY_NEAR(above, moving, 1e-9);
        }
        QVERIFY(several > 3);
    }
    void namesOfBodies() {
        QCOMPARE(bodyName(BodyKind::Counterweight), std::string_view("the counterweight"));
        std::set<std::string_view> names;
        for (int i = 0; i <= static_cast<int>(BodyKind::Placed); ++i)
            QVERIFY(names.insert(bodyName(static_cast<BodyKind>(i))).second);
    }
};

QTEST_APPLESS_MAIN(LayoutByHandTest)
#include "layout_by_hand_test.moc"
