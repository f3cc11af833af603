// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cmath>

namespace gantry::simulation {

/// What a motor turns: rotor, a springy drive with play and losses, a load with gravity and friction, and a
/// light camera that rocks on it. U is m or rad. Domain: inertias and stiffness > 0, the rest ≥ 0.
struct MechanismParams {
    double motorInertia = 1e-5;  ///< [kg·m²] rotor and all that turns with the motor, brought to its shaft
    double motorDamping = 0.0;   ///< [N·m·s/rad] on the rotor's swing about the speed of its field
    double outputPerRad = 0.01;  ///< [U/rad]
    double stiffness = 1e5;      ///< [N/U] of the drive at its output
    double damping = 0.0;        ///< [N·s/U] of the drive
    double backlash = 0.0;       ///< [U] whole play
    double efficiency = 1.0;     ///< [1] while power flows to the load
    double backEfficiency = 1.0; ///< [1] while it flows back; ≤ 0 locks
    double loadInertia = 1.0;    ///< [kg] or [kg·m²]
    double steady = 0.0;         ///< [N] constant, positive resists positive motion
    double coulomb = 0.0;        ///< [N] running friction
    double staticFriction = 0.0; ///< [N] at break-away, ≥ coulomb
    double viscous = 0.0;        ///< [N·s/U]
    double modeFrequency =
        0.0;                   ///< [Hz] of the camera on its mounts; 0: none. Light, so it does not push back
    double modeDamping = 0.02; ///< [1] of critical
};

struct MechanismState {
    double angle = 0.0, speed = 0.0;           ///< [rad], [rad/s] of the motor
    double position = 0.0, velocity = 0.0;     ///< [U], [U/s] of the load
    double deflection = 0.0, deflecting = 0.0; ///< [U], [U/s] of the camera against the load
};

/// Where the mechanism's energy went [J].
struct MechanismLedger {
    double motorWork = 0.0; ///< by the motor's torque on the shaft
    double lost = 0.0;      ///< in friction, gears and dampers
    double lifted = 0.0;    ///< against the steady force
    double atStop = 0.0;    ///< given to a stop, less what it gave back
};

/// Fixed-step integration by the midpoint of positions and of speeds: second order, and each exchange of
/// energy is booked with the same mean speeds, so that the ledger closes to the order of the step.
class Mechanism {
public:
    Mechanism(const MechanismParams& p, double step)
        : p_(p), h_(step), perMotorInertia_(1.0 / p.motorInertia), perLoadInertia_(1.0 / p.loadInertia) {
        const double w = 2.0 * 3.14159265358979323846 * p.modeFrequency;
        modeStiffness_ = w * w;
        modeDamper_ = 2.0 * p.modeDamping * w;
    }

    /// Angle of the motor [rad] half a step ahead, where its torque is to be taken.
    double middleAngle() const { return s_.angle + 0.5 * h_ * s_.speed; }
    /// Speed there [rad/s], foreseen by the last acceleration.
    double middleSpeed() const { return s_.speed + 0.5 * h_ * motorAcceleration_; }

    /// One step under the motor's torque [N·m] taken at middleAngle(); its field turns at `fieldSpeed`
    /// [rad/s].
    void advance(double torque, double fieldSpeed = 0.0) {
        const double r = p_.outputPerRad;
        const double middle = middleAngle() * r - (s_.position + 0.5 * h_ * s_.velocity);
        const double closing = s_.speed * r - s_.velocity;
        const double half = 0.5 * p_.backlash;
        double force = 0.0, spring = 0.0;
        if (middle > half) {
            spring = p_.stiffness * (middle - half);
            force = std::max(0.0, spring + p_.damping * closing);
        } else if (middle < -half) {
            spring = p_.stiffness * (middle + half);
            force = std::min(0.0, spring + p_.damping * closing);
        }
        // Power to the load loses on its way there; power from the load on its way back.
        const double sense = s_.velocity != 0.0 ? s_.velocity : s_.speed;
        const bool forward = force * sense >= 0.0;
        const double onLoad = forward ? force * p_.efficiency : force;
        const double onMotor = forward ? force : force * std::max(0.0, p_.backEfficiency);

        const double motorBefore = s_.speed;
        const double swing = p_.motorDamping * (s_.speed - fieldSpeed);
        motorAcceleration_ = (torque - onMotor * r - swing) * perMotorInertia_;
        s_.speed += h_ * motorAcceleration_;
        const double motorMean = 0.5 * (motorBefore + s_.speed);
        s_.angle += h_ * motorMean;

        const double loadBefore = s_.velocity;
        const double stop = stopForce();
        const double pull = onLoad - p_.steady + stop;
        double acceleration = 0.0, rub = 0.0;
        if (s_.velocity == 0.0 && std::abs(pull) <= stuckFriction()) {
            // holds
        } else {
            const double sign =
                s_.velocity != 0.0 ? std::copysign(1.0, s_.velocity) : std::copysign(1.0, pull);
            rub = sign * runningFriction() + p_.viscous * s_.velocity;
            acceleration = (pull - rub) * perLoadInertia_;
            const double next = s_.velocity + h_ * acceleration;
            // Friction stops, it does not turn round: a change of sign comes to rest in between.
            const bool reverses = s_.velocity != 0.0 && next * s_.velocity < 0.0;
            s_.velocity = reverses ? 0.0 : next;
            if (reverses) acceleration = (s_.velocity - loadBefore) / h_;
        }
        const double loadMean = 0.5 * (loadBefore + s_.velocity);
        s_.position += h_ * loadMean;

        const double slip = r * motorMean - loadMean;
        const double inGears = forward ? (force - onLoad) * loadMean : (force - onMotor) * r * motorMean;
        ledger_.motorWork += h_ * torque * motorMean;
        ledger_.lifted += h_ * p_.steady * loadMean;
        // The friction that really acted, also in the step in which it brought the load to rest.
        ledger_.lost += h_ * (swing * motorMean + (force - spring) * slip + inGears +
                              (pull - p_.loadInertia * acceleration) * loadMean);
        ledger_.atStop -= h_ * stop * loadMean;

        if (modeStiffness_ > 0.0) {
            const double q = s_.deflection + 0.5 * h_ * s_.deflecting;
            s_.deflecting += h_ * (-acceleration - modeStiffness_ * q - modeDamper_ * s_.deflecting);
            s_.deflection = q + 0.5 * h_ * s_.deflecting;
        }
    }

    const MechanismState& state() const { return s_; }
    MechanismState& state() { return s_; }
    const MechanismLedger& ledger() const { return ledger_; }

    /// Energy [J] in motion and in the drive's spring now.
    double storedEnergy() const {
        const double wound = s_.angle * p_.outputPerRad - s_.position;
        const double over = std::max(0.0, std::abs(wound) - 0.5 * p_.backlash);
        return 0.5 * p_.motorInertia * s_.speed * s_.speed +
               0.5 * p_.loadInertia * s_.velocity * s_.velocity + 0.5 * p_.stiffness * over * over;
    }

    /// Puts the load where it rests: on the flank that drives it forward, its spring wound by what is steady;
    /// with the motor's speed left in the share `kept` [1].
    void rest(double kept) {
        const double carried = p_.steady / std::max(1e-3, p_.efficiency) / p_.stiffness;
        const double back = p_.steady < 0.0 ? carried - 0.5 * p_.backlash : carried + 0.5 * p_.backlash;
        s_.position = s_.angle * p_.outputPerRad - back;
        s_.velocity = s_.deflection = s_.deflecting = 0.0;
        s_.speed *= kept;
    }
    /// From now on the motor has no field about which its rotor could swing: a load that falls is not held
    /// back by the damping of that swing.
    void loseField() { p_.motorDamping = 0.0; }
    /// From now on the load sticks as if jammed.
    void jam() { jammed_ = true; }
    /// A stop of the rig at a place [U] in the positive direction, with the stiffness of metal on rubber.
    void setStop(double place) { stop_ = place; }
    /// Whether the load lies against it.
    bool atStop() const { return s_.position > stop_; }

private:
    double stuckFriction() const { return jammed_ ? 1e9 : p_.staticFriction; }
    double runningFriction() const { return jammed_ ? 1e9 : p_.coulomb; }
    double stopForce() const {
        if (s_.position <= stop_) return 0.0;
        // Elastic both ways with a damper: a hit gives most of its energy to the stop.
        const double k = 2e5, c = 0.6 * std::sqrt(k * p_.loadInertia);
        return -std::max(0.0, k * (s_.position - stop_) + c * s_.velocity);
    }

    MechanismParams p_;
    double h_, perMotorInertia_, perLoadInertia_;
    MechanismState s_;
    MechanismLedger ledger_;
    double modeStiffness_ = 0.0, modeDamper_ = 0.0;
    double motorAcceleration_ = 0.0;
    double stop_ = 1e300;
    bool jammed_ = false;
};

} // namespace gantry::simulation
