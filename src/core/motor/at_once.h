// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motor/dc_torque.h"

#include <optional>

/// Drives that start and stop without a ramp. Derivation: docs/models/no-ramps.md (Hughes and Drury, Electric
/// Motors and Drives, chapter 3; Acarnley, Stepping Motors, chapter 5).
namespace gantry::motor {

/// A brushed motor switched on at rest. The armature's inductance is left out, which is right where L/R is
/// much shorter than the time constant.
struct SwitchedOn {
    double timeConstant = 0.0; ///< [s] τ = J R / k²; the speed rises as 1 − e^(−t/τ)
    double finalSpeed = 0.0;   ///< [rad/s]; 0: it does not start
    double peakCurrent = 0.0;  ///< [A] at the moment of switching on
    double supplyDrop = 0.0;   ///< [V] over the source's resistance then
    double time95() const { return 2.995732273553991 * timeConstant; } ///< [s] to 95 % of the final speed
    double angleLost() const { return finalSpeed * timeConstant; }     ///< [rad] behind one that ran at once
};

/// @param inertia [kg·m²] all that turns, at the shaft; @param torque [N·m] ≥ 0 that the load asks there
SwitchedOn switchedOn(const DcParams& p, double inertia, double torque);

/// How a brushed motor comes to rest when its switch is turned.
enum class StopWay { Open, Shorted, Reversed };

struct SwitchedOff {
    double time = 0.0;  ///< [s] to rest
    double angle = 0.0; ///< [rad] on the way
};

/// From a speed [rad/s] to rest: with k constant, ω(t) = (ω₀ + a) e^(−t/τ) − a, a = V/k + T R/k²; open, by
/// friction alone. Nothing if nothing slows it (open, and the torque is not above 0).
/// @param torque [N·m] that slows the shaft: friction, and gravity where it pulls back
std::optional<SwitchedOff> switchedOff(const DcParams& p, double inertia, double torque, double speed,
                                       StopWay way);

/// Smallest duty at which a motor at rest breaks away, driven by one switch with a freewheeling diode: the
/// mean current times k reaches the torque. While the switch is off the diode's voltage uses up current, so
/// that it takes more than T R / (k V).
/// @param torque [N·m] static; @param inductance [H], 0: none is counted, the current follows at once
/// @param frequency [Hz] of the switching; @param diode [V] over the diode
/// More than 1: not even at full voltage.
double startDuty(const DcParams& p, double torque, double inductance, double frequency, double diode);

/// Fastest speed [rad/s] at which a stepper that is started at once is still caught by its field. By energy,
/// without damping, up to the lag from which the load pulls it out: ½ J ω² ≤ (2 T_a cos λ − T_f (π − 2λ))/N
/// with λ = asin(T_f/T_a); 8 natural frequencies in full steps a second without load. Use at most half of it.
/// @param amplitude T_a [N·m]; @param friction T_f [N·m] ≥ 0 that the load asks; @param inertia [kg·m²] all
/// that moves. 0 where the load reaches the amplitude.
double catchSpeed(int rotorTeeth, double amplitude, double friction, double inertia);

} // namespace gantry::motor
