// SPDX-License-Identifier: GPL-3.0-or-later
// What joints must give so that bodies move: against energy, against worked cases, and against differences.
#include "core/kinematics/newton_euler.h"
#include "support/dice.h"
#include "support/near.h"

#include <QTest>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <numbers>

using namespace gantry::kinematics;
using gantry::geometry::lengthOf;
using gantry::geometry::Place;
using gantry::geometry::plus;

namespace {

constexpr double pi = std::numbers::pi, g = 9.81;

/// A swing with an arm on it and a mass at its end: axes 0 and 1.
std::vector<Link> swingAndArm(double lowAngle = 0.0) {
    Link swing, arm;
    swing.joint = Joint::Yaw;
    swing.axis = 0;
    arm.on = 0;
    arm.shift = {0.0, 0.0, 1.2};
    arm.joint = Joint::Pitch;
    arm.axis = 1;
    arm.offset = lowAngle;
    return {swing, arm};
}

struct Rig {
    std::vector<Link> links;
    std::vector<RigidBody> bodies;
    std::size_t axes = 0;

    std::vector<Moving> moving(std::span<const double> places, std::span<const double> speeds,
                               std::span<const double> rises) const {
        std::vector<Moving> out(links.size());
        forwardMotion(links, {places, speeds, rises}, out);
        return out;
    }
    std::vector<double> forces(std::span<const double> places, std::span<const double> speeds,
                               std::span<const double> rises, double gravity = g) const {
        std::vector<double> out(axes);
        jointForces(links, moving(places, speeds, rises), bodies, gravity, out);
        return out;
    }
};

} // namespace

class NewtonEulerTest : public QObject, Dice {
    Q_OBJECT

    /// Slides, lifts, swings, arms plain and on parallel links, heads: any, in any order, with bodies
    /// anywhere.
    Rig anyRig() {
        Rig out;
        constexpr Joint joints[]{Joint::Fixed, Joint::Along, Joint::Yaw,
                                 Joint::Pitch, Joint::Roll,  Joint::Parallel};
        const int count = 3 + static_cast<int>(random_() % 6);
        for (int i = 0; i < count; ++i) {
            Link l;
            l.on = i == 0 ? -1 : static_cast<int>(random_() % static_cast<unsigned>(i));
            l.shift = place(0.5);
            l.joint = joints[random_() % 6];
            l.offset = within(-1.0, 1.0);
            l.direction = l.joint == Joint::Parallel ? Place{within(0.3, 2.0), 0.0, 0.0} : unit();
            if (l.joint != Joint::Fixed) l.axis = static_cast<int>(out.axes++);
            out.links.push_back(l);
        }
        for (int k = 0; k < 4; ++k) {
            RigidBody b;
            b.link = static_cast<int>(random_() % out.links.size());
            b.mass = within(0.1, 5.0);
            b.at = place(0.4);
            b.along = unit();
            b.axial = within(0.0, 0.2);
            b.across = within(0.0, 0.2);
            out.bodies.push_back(b);
        }
        return out;
    }
    Place unit() {
        const Place p = place(1.0);
        return plus({}, p, 1.0 / lengthOf(p));
    }

public:
    NewtonEulerTest() : Dice(11) {}

private slots:
    void anArmOnASwing() {
        Rig rig{swingAndArm(), {}, 2};
        RigidBody mass;
        mass.link = 1;
        mass.mass = 4.0;
        mass.at = {1.5, 0.0, 0.0};
        rig.bodies = {mass};
        const double up = 0.6, inertia = 4.0 * 1.5 * 1.5;
        const double zero[]{0.0, 0.0};
        const double places[]{0.3, up};
        // Held at rest: m g L cos φ on the arm, nothing on the upright swing.
        auto q = rig.forces(places, zero, zero);
        VERIFY_NEAR(q[1], 4.0 * g * 1.5 * std::cos(up), 1e-12);
        VERIFY_NEAR_ABS(q[0], 0.0, 1e-12);
        // Its own acceleration: J α.
        const double raised[]{0.0, 2.0};
        q = rig.forces(places, zero, raised, 0.0);
        VERIFY_NEAR(q[1], 2.0 * inertia, 1e-12);
        // Turned about the upright at ω it is pulled level with J ω² sin φ cos φ, so it must be held up …
        const double turned[]{1.7, 0.0};
        q = rig.forces(places, turned, zero, 0.0);
        VERIFY_NEAR(q[1], inertia * 1.7 * 1.7 * std::sin(up) * std::cos(up), 1e-12);
        // … and while it also rises, the swing feels −2 J ω φ' sin φ cos φ.
        const double both[]{1.7, 0.5};
        q = rig.forces(places, both, zero, 0.0);
        VERIFY_NEAR(q[0], -2.0 * inertia * 1.7 * 0.5 * std::sin(up) * std::cos(up), 1e-12);
        // The swing speeds up what stands out by L cos φ.
        const double swung[]{3.0, 0.0};
        q = rig.forces(places, zero, swung, 0.0);
        VERIFY_NEAR(q[0], 3.0 * inertia * std::cos(up) * std::cos(up), 1e-12);
    }
    void parallelLinksPassNoTurn() {
        // A head with inertia on parallel links: its own inertia asks nothing of the boom, only its mass.
        Link boom;
        boom.joint = Joint::Parallel;
        boom.axis = 0;
        boom.direction = {2.0, 0.0, 0.0};
        RigidBody head;
        head.link = 0;
        head.mass = 3.0;
        head.at = {0.2, 0.1, 0.3};
        head.axial = head.across = 0.5;
        const Rig rig{{boom}, {head}, 1};
        const double places[]{0.4}, none[]{0.0}, rises[]{1.5};
        VERIFY_NEAR(rig.forces(places, none, rises, 0.0)[0], 3.0 * 4.0 * 1.5, 1e-12);
        VERIFY_NEAR(rig.forces(places, none, none)[0], 3.0 * g * 2.0 * std::cos(0.4), 1e-12);
    }
    void aPanTurnsBackOnTheSwing() {
        // A pan at the end of an arm that turns against the swing: it takes from the swing what it gets.
        std::vector<Link> links = swingAndArm();
        Link pan;
        pan.on = 1;
        pan.shift = {1.0, 0.0, 0.0};
        pan.joint = Joint::Yaw;
        pan.axis = 2;
        links.push_back(pan);
        RigidBody camera;
        camera.link = 2;
        camera.axial = 0.08;
        camera.along = {0.0, 0.0, 1.0};
        const Rig rig{links, {camera}, 3};
        const double level[]{0.0, 0.0, 0.0}, none[]{0.0, 0.0, 0.0}, rises[]{0.0, 0.0, 5.0};
        const auto q = rig.forces(level, none, rises);
        VERIFY_NEAR(q[2], 0.4, 1e-12);
        VERIFY_NEAR(q[0], 0.4, 1e-12);
        VERIFY_NEAR_ABS(q[1], 0.0, 1e-12);
    }
    /// What the joints give over a movement is what the energy grows by.
    void workBecomesEnergy() {
        double worst = 0.0;
        for (int k = 0; k < 100; ++k) {
            const Rig rig = anyRig();
            if (rig.axes == 0) continue;
            std::vector<double> middle(rig.axes), swing(rig.axes), rate(rig.axes), phase(rig.axes);
            for (std::size_t a = 0; a < rig.axes; ++a) {
                middle[a] = within(-1.0, 1.0);
                swing[a] = within(0.1, 0.8);
                rate[a] = within(0.5, 2.5);
                phase[a] = within(0.0, 2.0 * pi);
            }
            std::vector<double> q(rig.axes), dq(rig.axes), ddq(rig.axes);
            const auto move = [&](double t) {
                for (std::size_t a = 0; a < rig.axes; ++a) {
                    const double angle = rate[a] * t + phase[a];
                    q[a] = middle[a] + swing[a] * std::sin(angle);
                    dq[a] = swing[a] * rate[a] * std::cos(angle);
                    ddq[a] = -swing[a] * rate[a] * rate[a] * std::sin(angle);
                }
            };
            const auto energy = [&](double t) {
                move(t);
                return energyOf(rig.moving(q, dq, ddq), rig.bodies, g);
            };
            const auto power = [&](double t) {
                move(t);
                const std::vector<double> f = rig.forces(q, dq, ddq);
                double out = 0.0;
                for (std::size_t a = 0; a < rig.axes; ++a) out += f[a] * dq[a];
                return out;
            };
            using boost::math::quadrature::gauss_kronrod;
            const double work = gauss_kronrod<double, 31>::integrate(power, 0.0, 3.0, 8, 1e-10);
            const double grows = energy(3.0) - energy(0.0);
            double scale = std::abs(grows);
            for (int i = 0; i <= 10; ++i) scale = std::max(scale, std::abs(energy(0.3 * i)));
            worst = std::max(worst, std::abs(work - grows) / scale);
        }
        QVERIFY2(worst < 1e-8, qPrintable(QString::number(worst)));
    }
    /// At rest a joint holds the slope of the energy of height.
    void restHoldsTheSlope() {
        for (int k = 0; k < 100; ++k) {
            const Rig rig = anyRig();
            std::vector<double> q(rig.axes), none(rig.axes, 0.0);
            for (double& x : q) x = within(-1.0, 1.0);
            const std::vector<double> f = rig.forces(q, none, none);
            for (std::size_t a = 0; a < rig.axes; ++a) {
                constexpr double h = 1e-5;
                const double at = q[a];
                const auto height = [&](double x) {
                    q[a] = x;
                    return energyOf(rig.moving(q, none, none), rig.bodies, g);
                };
                const double slope = (height(at + h) - height(at - h)) / (2.0 * h);
                q[a] = at;
                VERIFY_NEAR_ABS(f[a], slope, 1e-5);
            }
        }
    }
};

QTEST_APPLESS_MAIN(NewtonEulerTest)
#include "newton_euler_test.moc"
