// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry {

/// Two-phase hybrid stepper. A zero holding torque, current, resistance or inductance means "not given".
struct Stepper {
    std::string name;
    int rotorTeeth = 50;                          ///< 50 for 1.8°, 100 for 0.9° a full step
    Estimate holdingTorque = assumed(0.4);        ///< [N·m] both phases at rated current
    Estimate ratedCurrent = assumed(1.5, 0.2);    ///< [A rms] per phase
    Estimate resistance = assumed(1.6, 0.3);      ///< [ohm] per phase
    Estimate inductance = assumed(0.003, 0.4);    ///< [H] per phase
    Estimate rotorInertia = assumed(5.5e-6, 0.3); ///< [kg·m²]
    Estimate detentTorque = assumed(0.015);       ///< [N·m]
    Estimate stepAccuracy = assumed(0.05, 0.2);   ///< [1] of a full step
    Estimate mass = assumed(0.3, 0.2);            ///< [kg]
    double length = 0.04;                         ///< [m] of the body

    friend bool operator==(const Stepper&, const Stepper&) = default;
};

using Motor = std::variant<Stepper>;

/// Step and direction driver with a current chopper.
struct Driver {
    std::string name;
    int microsteps = 16;
    double runCurrent = 1.0;     ///< [A rms]; the peak is √2 times this
    double holdCurrent = 0.5;    ///< [A rms]
    double maxCurrent = 2.0;     ///< [A rms] rating
    double maxVoltage = 28.0;    ///< [V] rating
    double idleDelay = 1.0;      ///< [s] from the last pulse to the hold current
    double shortestPulse = 2e-6; ///< [s]
    bool enableActiveLow = true;
    Estimate bridgeResistance =
        assumed(0.3, 0.5); ///< [ohm] both bridge switches, cable and plugs of one phase

    friend bool operator==(const Driver&, const Driver&) = default;
};

struct Supply {
    std::string name;
    Estimate voltage = assumed(24.0, 0.05);    ///< [V] nominal
    Estimate lowVoltage = assumed(21.0, 0.05); ///< [V] battery nearly empty, or mains supply at its low end
    Estimate sourceResistance = assumed(0.1, 0.5); ///< [ohm]

    friend bool operator==(const Supply&, const Supply&) = default;
};

enum class RampKind { None, Trapezoid, SCurve };
enum class SpeedUnit { UnitPerSecond, UnitPerMinute };

struct Controller {
    std::string name;
    double pulseCeiling = 40000.0; ///< [Hz] on one axis
    int decimalsKept = 3;          ///< of steps per unit
    RampKind ramps = RampKind::Trapezoid;
    SpeedUnit speedUnit = SpeedUnit::UnitPerSecond;

    friend bool operator==(const Controller&, const Controller&) = default;
};

/// Shaft to shaft, 1:1.
struct Coupling {
    std::string id;
    Estimate stiffness = assumed(50.0); ///< [N·m/rad]; 0: not given, left out
    Estimate inertia = assumed(5e-7);   ///< [kg·m²]

    friend bool operator==(const Coupling&, const Coupling&) = default;
};

/// Toothed belt between two shafts.
struct BeltStage {
    std::string id;
    int motorTeeth = 20;
    int loadTeeth = 60;
    Estimate pitch = assumed(0.002, 0.0);      ///< [m]
    Estimate efficiency = assumed(0.95, 0.03); ///< [1]
    Estimate backlash = assumed(0.0);          ///< [rad] at the stage's output
    Estimate stiffness = assumed(40.0);        ///< [N·m/rad] at the stage's output; 0: not given, left out
    Estimate inertia = assumed(1e-6);          ///< [kg·m²] at the stage's input

    friend bool operator==(const BeltStage&, const BeltStage&) = default;
};

/// One mesh of two gears.
struct GearStage {
    std::string id;
    int motorTeeth = 20;
    int loadTeeth = 60;
    Estimate efficiency = assumed(0.93, 0.04); ///< [1]
    Estimate backlash = assumed(0.003);        ///< [rad] at the stage's output
    Estimate stiffness = assumed(200.0);       ///< [N·m/rad] at the stage's output; 0: not given, left out
    Estimate inertia = assumed(1e-6);          ///< [kg·m²] at the stage's input

    friend bool operator==(const GearStage&, const GearStage&) = default;
};

using Link = std::variant<Coupling, BeltStage, GearStage>;

/// Output of a linear axis: pulley on the last shaft, belt pulling the carriage.
struct BeltOutput {
    int teeth = 20;
    Estimate pitch = assumed(0.002, 0.0);           ///< [m]
    Estimate efficiency = assumed(0.95, 0.03);      ///< [1] of belt and idler
    Estimate tensileStiffness = assumed(10e3, 0.4); ///< [N] EA of the belt: force for unit strain
    Estimate backlash = assumed(5e-5);              ///< [m] play between pulley and carriage
    Estimate pulleyInertia = assumed(0.0);          ///< [kg·m²]

    friend bool operator==(const BeltOutput&, const BeltOutput&) = default;
};

/// Output of a rotary axis: the last shaft is the axis.
struct DirectOutput {
    Estimate stiffness = assumed(100.0); ///< [N·m/rad]; 0: not given, left out

    friend bool operator==(const DirectOutput&, const DirectOutput&) = default;
};

/// Output of a rotary axis: pinion on the last shaft, ring on the axis.
struct RingOutput {
    int pinionTeeth = 20;
    int ringTeeth = 100;
    Estimate efficiency = assumed(0.92, 0.04); ///< [1]
    Estimate backlash = assumed(0.002);        ///< [rad] of the ring
    Estimate stiffness = assumed(150.0);       ///< [N·m/rad] of the ring; 0: not given, left out

    friend bool operator==(const RingOutput&, const RingOutput&) = default;
};

using RotaryOutput = std::variant<DirectOutput, RingOutput>;

/// Power-off brake on the motor shaft.
struct Brake {
    bool fitted = false;
    Estimate holdingTorque = assumed(0.3); ///< [N·m]

    friend bool operator==(const Brake&, const Brake&) = default;
};

} // namespace gantry
