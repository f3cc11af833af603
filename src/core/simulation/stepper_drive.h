// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>

namespace gantry::simulation {

/// Two-phase stepper on a chopping driver, or switched straight to the supply.
struct StepperDriveParams {
    int rotorTeeth = 50;
    double torqueConstant = 0.2; ///< [N·m/A] per phase, also the peak back-EMF constant [V·s/rad]
    double resistance = 1.5;     ///< [ohm] of a phase with bridge, cable and source
    double inductance = 3e-3;    ///< [H]
    double supplyVoltage = 24.0; ///< [V]
    double peakCurrent = 1.7;    ///< [A] set at the driver
    double holdShare = 1.0;      ///< [1] of it after idleDelay
    double idleDelay = 1e9;      ///< [s] from the last pulse
    double detentTorque = 0.0;   ///< [N·m] four times a pole pitch
    int microsteps = 16;
    double chopperPeriod = 5e-6; ///< [s] between the comparator's looks
    double motors = 1.0;         ///< equal ones on the same shaft
};

struct StepperLedger {
    double electrical = 0.0; ///< [J] from the supply, what flows back counted off
    double copper = 0.0;     ///< [J] heat of windings and bridges
};

/// Currents by the trapezoidal rule under a constant voltage in each step, the torque at the middle of the
/// step. Hughes & Drury, Electric Motors and Drives, chapter on stepping motors; Acarnley for the torque.
class StepperDrive {
public:
    StepperDrive(const StepperDriveParams& p, double step)
        : p_(p), h_(step), decay_(p.resistance * step / (2.0 * p.inductance)), gain_(step / p.inductance),
          invert_(1.0 / (1.0 + decay_)),
          microstep_(3.14159265358979323846 / (2.0 * p.rotorTeeth * p.microsteps)) {
        aim();
        ia_ = refA_;
        ib_ = refB_;
    }

    /// The driver takes so many pulses more, forward or back.
    void pulse(long count, double now) {
        command_ += count;
        lastPulse_ = now;
        held_ = false;
        aim();
    }

    /// Torque [N·m] for this step, from the angle and the speed at its middle.
    double torque(double angle, double speed, double now) {
        if (!held_ && now - lastPulse_ > p_.idleDelay) {
            held_ = true;
            aim();
        }
        if (now >= nextLook_) {
            nextLook_ += p_.chopperPeriod;
            if (nextLook_ <= now) nextLook_ = now + p_.chopperPeriod;
            const double v = powered_ ? p_.supplyVoltage * sag_ : 0.0;
            ua_ = refA_ > ia_ ? v : -v;
            ub_ = refB_ > ib_ ? v : -v;
        }
        turnField(p_.rotorTeeth * angle);
        const double sine = sine_, cosine = cosine_;
        const double ka = -p_.torqueConstant * sine, kb = p_.torqueConstant * cosine;
        const double na = (ia_ * (1.0 - decay_) + gain_ * (ua_ - ka * speed)) * invert_;
        const double nb = (ib_ * (1.0 - decay_) + gain_ * (ub_ - kb * speed)) * invert_;
        double ma = 0.5 * (ia_ + na), mb = 0.5 * (ib_ + nb);
        if (!powered_) ma = mb = 0.0; // bridges open: the current is gone within a chopper period or two
        ia_ = powered_ ? na : 0.0;
        ib_ = powered_ ? nb : 0.0;
        ledger_.electrical += p_.motors * h_ * (ua_ * ma + ub_ * mb);
        ledger_.copper += p_.motors * h_ * p_.resistance * (ma * ma + mb * mb);
        // sin 4θ from sin θ and cos θ.
        const double sin2 = 2.0 * sine * cosine, cos2 = 1.0 - 2.0 * sine * sine;
        return p_.motors * (ka * ma + kb * mb - p_.detentTorque * 2.0 * sin2 * cos2);
    }

    /// Angle [rad] that the pulses command.
    double commanded() const { return static_cast<double>(command_) * microstep(); }
    double microstep() const { return microstep_; } ///< [rad]
    /// [A²] of both phases.
    double currentSquared() const { return ia_ * ia_ + ib_ * ib_; }
    const StepperLedger& ledger() const { return ledger_; }
    double storedEnergy() const {
        // The windings, and the detent's hills.
        return p_.motors * 0.5 * p_.inductance * (ia_ * ia_ + ib_ * ib_);
    }
    double detentEnergy(double angle) const {
        return -p_.motors * p_.detentTorque * std::cos(4.0 * p_.rotorTeeth * angle) / (4.0 * p_.rotorTeeth);
    }

    void cutPower() {
        powered_ = false;
        ua_ = ub_ = 0.0;
    }
    void sag(double share) { sag_ = share; }

private:
    /// Sine and cosine of the electrical angle. It turns by a small angle each step, so a short series turns
    /// them along (error below 1e-9 a step up to 0.05 rad) and the exact functions set them right now and
    /// then.
    void turnField(double electrical) {
        const double d = electrical - electrical_;
        electrical_ = electrical;
        if (++turns_ >= 64 || std::abs(d) > 0.05) {
            turns_ = 0;
            sine_ = std::sin(electrical);
            cosine_ = std::cos(electrical);
            return;
        }
        const double dd = d * d;
        const double s = d * (1.0 - dd * (1.0 / 6.0) * (1.0 - dd / 20.0)),
                     c = 1.0 - 0.5 * dd * (1.0 - dd / 12.0);
        const double before = sine_;
        sine_ = before * c + cosine_ * s;
        cosine_ = cosine_ * c - before * s;
    }

    void aim() {
        const double phase = p_.rotorTeeth * commanded();
        const double peak = p_.peakCurrent * (held_ ? p_.holdShare : 1.0);
        refA_ = peak * std::cos(phase);
        refB_ = peak * std::sin(phase);
    }

    StepperDriveParams p_;
    double h_, decay_, gain_, invert_, microstep_;
    double electrical_ = 0.0, sine_ = 0.0, cosine_ = 1.0;
    int turns_ = 0;
    double ia_ = 0.0, ib_ = 0.0, ua_ = 0.0, ub_ = 0.0, refA_ = 0.0, refB_ = 0.0;
    long command_ = 0;
    double lastPulse_ = 0.0, nextLook_ = -1e300, sag_ = 1.0;
    bool held_ = false, powered_ = true;
    StepperLedger ledger_;
};

} // namespace gantry::simulation
