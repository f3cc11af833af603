// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motor/curve.h"

#include <algorithm>
#include <cmath>

namespace gantry::simulation {

/// Servo motor under a position loop: proportional position, proportional and integral speed, feed-forward of
/// speed, a current loop of first order, cut by the motor's peak curve.
struct ServoDriveParams {
    motor::Curve curve;
    double inertia = 1e-4;      ///< [kg·m²] that the loop is tuned for, at the motor
    double bandwidth = 15.0;    ///< [Hz] of the position loop
    double feedforward = 0.9;   ///< [1] share of the commanded speed
    double countAngle = 6e-4;   ///< [rad] of one encoder count
    double period = 1e-4;       ///< [s] between the loop's looks
    double currentDelay = 2e-4; ///< [s] of the current loop
    double motors = 1.0;
};

class ServoDrive {
public:
    ServoDrive(const ServoDriveParams& p, double step) : p_(p) {
        const double w = 2.0 * 3.14159265358979323846 * p.bandwidth;
        position_ = w;
        speed_ = 4.0 * w * p.inertia;
        integral_ = w * speed_;
        follow_ = 1.0 - std::exp(-step / p.currentDelay);
    }

    void command(double angle, double speed) {
        angle_ = angle;
        rate_ = speed;
    }

    double torque(double angle, double speed, double now) {
        if (!powered_) return 0.0;
        if (now >= nextLook_) {
            nextLook_ = now + p_.period;
            const double seen = std::floor(angle / p_.countAngle + 0.5) * p_.countAngle;
            const double wanted = p_.feedforward * rate_ + position_ * (angle_ - seen);
            const double off = wanted - speed;
            const double limit = p_.motors * motor::peakTorque(p_.curve, std::abs(speed)) * sag_;
            const double asked = speed_ * off + sum_;
            aim_ = std::clamp(asked, -limit, limit);
            // The integral waits while the motor gives all it can.
            if (aim_ == asked) sum_ += integral_ * off * p_.period;
        }
        torque_ += follow_ * (aim_ - torque_);
        return torque_;
    }

    double commanded() const { return angle_; }
    void cutPower() { powered_ = false; }
    void sag(double share) { sag_ = share; }

private:
    ServoDriveParams p_;
    double position_ = 0.0, speed_ = 0.0, integral_ = 0.0, follow_ = 0.0;
    double angle_ = 0.0, rate_ = 0.0, sum_ = 0.0, aim_ = 0.0, torque_ = 0.0, nextLook_ = -1e300, sag_ = 1.0;
    bool powered_ = true;
};

/// Brushed motor on a knob: voltage follows the speed that is wanted, nothing looks at what comes of it.
struct KnobDriveParams {
    motor::DcParams motor;
    double motors = 1.0;
};

class KnobDrive {
public:
    KnobDrive(const KnobDriveParams& p, double) : p_(p) {
        top_ = motor::noLoadSpeed(p.motor);
        stall_ = motor::stallTorque(p.motor);
    }
    void command(double angle, double speed) {
        angle_ = angle;
        share_ = top_ > 0.0 ? std::clamp(speed / top_, -1.0, 1.0) : 0.0;
    }
    double torque(double, double speed, double) {
        if (!powered_ || top_ <= 0.0) return 0.0;
        // The line from stall to no load, moved by the share of the voltage; friction of the brushes is in
        // it.
        return p_.motors * stall_ * (share_ * sag_ - speed / top_);
    }
    double commanded() const { return angle_; }
    void cutPower() { powered_ = false; }
    void sag(double share) { sag_ = share; }

private:
    KnobDriveParams p_;
    double top_ = 0.0, stall_ = 0.0, angle_ = 0.0, share_ = 0.0, sag_ = 1.0;
    bool powered_ = true;
};

/// Hobby servo: looks at its pulse so many times a second, moves on when it is off by more than its dead
/// band.
struct HobbyDriveParams {
    motor::DcParams motor;
    double updateRate = 50.0;      ///< [Hz]
    double pulseStep = 1e-3;       ///< [rad] that one pulse step means
    double deadBand = 2e-3;        ///< [rad] whole
    double fullTorqueError = 0.05; ///< [rad] at which it gives all it can
    double motors = 1.0;
};

class HobbyDrive {
public:
    HobbyDrive(const HobbyDriveParams& p, double) : p_(p) {
        top_ = motor::noLoadSpeed(p.motor);
        stall_ = motor::stallTorque(p.motor);
    }
    void command(double angle, double) { wanted_ = angle; }
    double torque(double angle, double speed, double now) {
        if (!powered_) return 0.0;
        if (now >= nextLook_) {
            nextLook_ = now + 1.0 / p_.updateRate;
            target_ = std::floor(wanted_ / p_.pulseStep + 0.5) * p_.pulseStep;
        }
        const double off = target_ - angle;
        if (std::abs(off) < 0.5 * p_.deadBand)
            return -p_.motors * stall_ * speed / top_; // shorted: it brakes
        const double share = std::clamp(off / p_.fullTorqueError, -1.0, 1.0);
        return p_.motors * stall_ * (share * sag_ - speed / top_);
    }
    double commanded() const { return wanted_; }
    void cutPower() { powered_ = false; }
    void sag(double share) { sag_ = share; }

private:
    HobbyDriveParams p_;
    double top_ = 0.0, stall_ = 0.0, wanted_ = 0.0, target_ = 0.0, nextLook_ = -1e300, sag_ = 1.0;
    bool powered_ = true;
};

} // namespace gantry::simulation
