// SPDX-License-Identifier: GPL-3.0-or-later
// Worked cases of rigs that no other test of one room holds: drives turned from behind, cords, a chain of
// springs, hot windings, a carriage that stops.
#include "core/drivetrain/back_drive.h"
#include "core/drivetrain/belt.h"
#include "core/drivetrain/screw.h"
#include "core/drivetrain/winch.h"
#include "core/drivetrain/wind_up.h"
#include "core/evaluate/drive/drive_model.h"
#include "core/evaluate/evaluate.h"
#include "core/motor/hot_copper.h"
#include "core/motor/stepper_motion.h"
#include "core/motor/stepper_torque.h"
#include "core/rigs/rigs.h"
#include "core/structure/tipping.h"
#include "core/units/constants.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <nlohmann/json.hpp>
#include <numbers>
#include <random>

using namespace gantry;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi, g = units::standardGravity;

double number(const json& j, const char* key) {
    return j.at(key).get<double>();
}

drivetrain::Chain chainOf(const json& in) {
    drivetrain::Chain out;
    for (const json& s : in["stages"]) {
        const double efficiency = s[1];
        out.stages.push_back({s[0], efficiency,
                              s[2].is_null() ? drivetrain::backEfficiencyOf(efficiency) : s[2].get<double>(),
                              0.0});
    }
    out.motorInertia = number(in, "motor_inertia");
    out.load.inertia = number(in, "load_inertia");
    return out;
}

} // namespace

class ReferenceRigTest : public QObject {
    Q_OBJECT

private slots:
    void drivesPushedByHand() {
        for (const json& c : referenceCases("t57_back_driving", "push")) {
            const json &in = c["inputs"], &e = c["expected"];
            const drivetrain::Chain chain = chainOf(in);
            const double friction = number(in, "load_friction"), drag = number(in, "motor_drag"),
                         speed = number(in, "speed");
            VERIFY_NEAR(drivetrain::totalRatio(chain), number(e, "ratio"), 1e-9);
            QCOMPARE(drivetrain::lockedBy(chain).has_value(), !e["locked_by"].is_null());
            const double start =
                drivetrain::forceToBackDrive(chain, {number(in, "motor_detent"), friction, 0.0});
            VERIFY_NEAR(start, number(e, "start_torque"), 1e-9);
            VERIFY_NEAR(drivetrain::forceToBackDrive(chain, {drag, friction, 0.0}), number(e, "run_torque"),
                        1e-9);
            const double push =
                drivetrain::forceToBackDrive(chain, {drag, friction, speed / number(in, "ramp_time")});
            VERIFY_NEAR(push, number(e, "push_torque"), 1e-9);
            VERIFY_NEAR(std::max(start, push) / number(in, "hand_arm"), number(e, "hand_force"), 1e-9);
            VERIFY_NEAR(number(in, "gravity") / start, number(e, "gravity_margin"), 1e-9);
        }
    }
    /// What a push puts in is what friction, losses and all that speeds up take, stage by stage.
    void pushesKeepTheBookOfPower() {
        std::mt19937 random(3);
        std::uniform_real_distribution<double> u(0.0, 1.0);
        for (int n = 0; n < 200; ++n) {
            drivetrain::Chain chain;
            chain.motorInertia = 1e-5 * u(random);
            chain.load.inertia = u(random);
            for (int s = 0; s < 1 + n % 3; ++s)
                chain.stages.push_back(
                    {0.5 + 10.0 * u(random), 0.9, 0.3 + 0.7 * u(random), 1e-5 * u(random)});
            const drivetrain::BackDriven pushed{0.1 * u(random), u(random), 5.0 * u(random)};
            double power = drivetrain::forceToBackDrive(chain, pushed), speed = 1.0,
                   rate = pushed.acceleration;
            power -= pushed.friction + chain.load.inertia * rate;
            for (std::size_t s = chain.stages.size(); s-- > 0;) {
                speed *= chain.stages[s].ratio;
                rate *= chain.stages[s].ratio;
                power = power * chain.stages[s].backEfficiency - chain.stages[s].inputInertia * rate * speed;
            }
            QVERIFY(std::abs(power - (pushed.motorTorque + chain.motorInertia * rate) * speed) <
                    1e-9 * (1.0 + speed));
        }
        drivetrain::Chain locked;
        locked.stages = {{3.0, 0.9, 0.8, 0.0}, {40.0, 0.4, -0.5, 0.0}};
        QCOMPARE(*drivetrain::lockedBy(locked), std::size_t{1});
        QVERIFY(std::isinf(drivetrain::forceToBackDrive(locked, {})));
    }
    void threads() {
        for (const json& c : referenceCases("t57_back_driving", "thread")) {
            const json &in = c["inputs"], &e = c["expected"];
            const drivetrain::Screw s{number(in, "diameter"), number(in, "lead"), number(in, "mu"),
                                      number(in, "angle") * pi / 180.0};
            VERIFY_NEAR(drivetrain::leadAngle(s) * 180.0 / pi, number(e, "lead_angle_deg"), 1e-9);
            VERIFY_NEAR(drivetrain::efficiency(s), number(e, "efficiency"), 1e-9);
            const double back = drivetrain::backEfficiency(s);
            VERIFY_NEAR(back, number(e, "back_efficiency"), 1e-9);
            QCOMPARE(back <= 0.0, e["locks"].get<bool>());
            VERIFY_NEAR(drivetrain::backEfficiencyOf(drivetrain::efficiency(s)),
                        number(e, "equal_loss_estimate"), 1e-9);
            // Turned by an axial force against drag of the nut.
            drivetrain::Chain chain;
            chain.stages = {{2.0 * pi / s.lead, drivetrain::efficiency(s), back, 0.0}};
            const double force = drivetrain::forceToBackDrive(chain, {number(in, "drag"), 0.0, 0.0});
            QCOMPARE(std::isinf(force), e["breakaway_force"].is_null());
            if (std::isfinite(force)) VERIFY_NEAR(force, number(e, "breakaway_force"), 1e-9);
        }
    }
    /// A cord under a cart, far out and near, by the drive's spring that the program makes of it.
    void cords() {
        for (const json& c : referenceCases("t58_winch", "cord")) {
            const json &in = c["inputs"], &e = c["expected"];
            const double mass = number(in, "mass"), slope = number(in, "slope") * pi / 180.0,
                         friction = number(in, "friction");
            VERIFY_NEAR(drivetrain::slackDeceleration(slope, friction, mass),
                        number(e, "slack_deceleration_up"), 1e-9);
            // Let down, the friction is on the other side.
            VERIFY_NEAR(drivetrain::slackDeceleration(slope, -friction, mass),
                        number(e, "slack_acceleration_down"), 1e-9);
            for (const auto& [length, stretch, bounce, lost] :
                 {std::tuple{"length_far", "stretch_far", "bounce_far", "lost_at_reversal_far"},
                  {"length_near", "stretch_near", "bounce_near", "lost_at_reversal_near"}}) {
                const double k = number(in, "EA") / number(in, length), weight = mass * g * std::sin(slope);
                const drivetrain::Sprung s{k, friction, friction, weight};
                // The cord's own weight is left out, two thousandths here.
                VERIFY_NEAR(drivetrain::lagForward(s) - friction / k, number(e, stretch), 2e-3);
                VERIFY_NEAR(drivetrain::reversalLost(s), number(e, lost), 1e-9);
                VERIFY_NEAR(std::sqrt(k / mass) / (2.0 * pi), number(e, bounce), 1e-3);
            }
        }
    }
    /// Belt, coupling and the rotor's field in series, half way along the belt.
    void chainsOfSprings() {
        for (const json& c : referenceCases("t52_windup", "chain")) {
            const json &in = c["inputs"], &e = c["expected"];
            const double radius = number(in, "pulley_radius"), friction = number(in, "friction"),
                         gravity = number(in, "gravity"), teeth = number(in, "teeth"),
                         field = number(in, "field_torque");
            const double belt =
                             drivetrain::leastOpenBeltStiffness(number(in, "EA"), number(in, "belt_length")),
                         coupling = number(in, "coupling_k") / (radius * radius);
            const drivetrain::Sprung s{1.0 / (1.0 / belt + 1.0 / coupling), friction, friction, gravity};
            const auto rotor = [&](double force) {
                return radius * motor::rotorLag(static_cast<int>(teeth), field, force * radius);
            };
            VERIFY_NEAR(drivetrain::reversalLost(s) + rotor(gravity + friction) - rotor(gravity - friction),
                        number(e, "mid_travel_reversal"), 1e-9);
        }
    }
    /// Full current is driven a little less far when the copper is hot.
    void hotCorners() {
        for (const json& c : referenceCases("t59_hot_copper", "corner")) {
            const json &in = c["inputs"], &e = c["expected"];
            motor::StepperParams p;
            p.rotorTeeth = in["teeth"];
            p.holdingTorque = number(in, "holding");
            p.ratedCurrentRms = number(in, "rated_rms");
            p.inductance = number(in, "L");
            p.supplyVoltage = number(in, "voltage");
            p.peakCurrent = number(in, "current_rms") * std::numbers::sqrt2;
            const double cold = number(in, "R20"), before = number(in, "driver_R");
            VERIFY_NEAR(motor::torqueConstant(p) * p.peakCurrent, number(e, "torque"), 1e-9);
            const double hot = cold * motor::copperResistance(number(in, "temperature"));
            VERIFY_NEAR(hot, number(e, "resistance_hot"), 1e-9);
            p.resistance = cold + before;
            VERIFY_NEAR(motor::cornerSpeed(p) * 30.0 / pi, number(e, "corner_cold_rpm"), 1e-6);
            p.resistance = hot + before;
            VERIFY_NEAR(motor::cornerSpeed(p) * 30.0 / pi, number(e, "corner_hot_rpm"), 1e-6);
        }
    }
    void ratingsElsewhere() {
        for (const json& c : referenceCases("t59_hot_copper", "rating")) {
            const json &in = c["inputs"], &e = c["expected"];
            const double share = motor::ratingInAir(number(in, "ambient"), number(in, "rated_ambient"),
                                                    number(in, "winding_limit"), number(in, "iron_share"));
            VERIFY_NEAR(number(in, "continuous") * share, number(e, "torque"), 1e-9);
        }
        QCOMPARE(motor::ratingInAir(10.0, 40.0, 130.0, 0.1), 1.0);
        QCOMPARE(motor::ratingInAir(40.0, 40.0, 130.0, 0.1), 1.0);
        QCOMPARE(motor::ratingInAir(125.0, 40.0, 130.0, 0.1), 0.0); // iron alone heats it that far
        QCOMPARE(motor::ratingInAir(140.0, 40.0, 130.0, 0.1), 0.0);
    }
    /// Chopped at a set current, the resistance is that of the winding where it settles; switched to a
    /// voltage, it settles where what it draws heats it so far.
    void hotResistances() {
        for (const json& c : referenceCases("t59_hot_copper", "winding")) {
            const json &in = c["inputs"], &e = c["expected"];
            // What the iron heats the case by, it heats the air of the winding by.
            const double peak = number(in, "current_rms") * std::numbers::sqrt2;
            const double air = number(in, "ambient") + number(in, "iron") * number(in, "Rth_ca");
            VERIFY_NEAR(motor::hotResistance(number(in, "R20"), {peak, 0.0, 0.0}, air,
                                             number(in, "Rth_wc") + number(in, "Rth_ca"), 130.0),
                        number(e, "resistance"), 1e-9);
        }
        const double switched = motor::hotResistance(10.0, {0.0, 12.0, 1.0}, 25.0, 4.0, 130.0);
        const double current = 12.0 / (switched + 1.0),
                     temperature = 25.0 + 4.0 * 2.0 * current * current * switched;
        VERIFY_NEAR(switched, 10.0 * (1.0 + 0.00393 * (temperature - 20.0)), 1e-9);
        // Neither goes beyond what the insulation stands.
        VERIFY_NEAR(motor::hotResistance(10.0, {9.0, 0.0, 0.0}, 25.0, 4.0, 130.0), 10.0 * 1.4323, 1e-9);
        VERIFY_NEAR(motor::hotResistance(1.0, {0.0, 24.0, 0.1}, 25.0, 4.0, 130.0), 1.4323, 1e-9);
    }
    /// A carriage that stops on a body that may rock: how hard its drive can brake, and what that leaves.
    void carriagesThatStop() {
        for (const json& c : referenceCases("t54_tipping", "carriage_stop")) {
            const json &in = c["inputs"], &e = c["expected"], &rig = in["rig"], &drive = in["drive"];
            const double body = number(rig, "body_mass"), mass = number(rig, "mass"),
                         speed = number(in, "speed");
            const double slope = number(drive, "slope") * pi / 180.0, radius = number(drive, "wheel_radius");
            DriveModel m;
            m.curve = motor::ServoParams{
                number(drive, "motor_torque"), number(drive, "motor_torque"), 1e4, 2e4, 24.0, 24.0};
            m.chain.motorInertia = number(drive, "motor_inertia");
            m.chain.stages = {{number(drive, "ratio") / radius, number(drive, "efficiency"),
                               number(drive, "back_efficiency"), 0.0}};
            m.chain.load = {mass, mass * g * std::sin(slope), number(drive, "friction"), 0.0};
            m.outputPerRad = radius / number(drive, "ratio");
            const double hardest = m.hardestBraking(0.0), asked = speed / number(in, "asked_time");
            const double deceleration = std::min(hardest, asked);
            // Both ways are looked at; uphill on a slope it brakes harder than the case, which runs down.
            if (slope == 0.0 || hardest > asked) VERIFY_NEAR(deceleration, number(e, "deceleration"), 1e-6);
            const double x = number(rig, "x_end"), h = number(rig, "height"), bx = number(rig, "body_x"),
                         bh = number(rig, "body_h"), total = body + mass;
            structure::Rocking r;
            r.weight = total * g;
            r.net = g * (body * bx + mass * x);
            r.height = (body * bh + mass * h) / total;
            r.inertia = number(rig, "body_I") + body * (bx * bx + bh * bh) + mass * (x * x + h * h);
            r.momentum = mass * h * speed;
            r.time = speed / deceleration;
            const double ratio = structure::stopRatio(r);
            QCOMPARE(ratio < 1.0, e["tips"].get<bool>());
            QCOMPARE(ratio < 1e5, e["lifts"].get<bool>());
            VERIFY_NEAR(r.net / (mass * asked * h), number(e, "static_ratio_as_asked"), 1e-6);
            r.time = 0.0; // against a rigid end
            QCOMPARE(structure::stopRatio(r) < 1.0, e["end_stop_tips"].get<bool>());
        }
    }
};

QTEST_APPLESS_MAIN(ReferenceRigTest)
#include "reference_rig_test.moc"
