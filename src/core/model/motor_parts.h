// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>
#include <variant>

namespace gantry {

/// What a motor is screwed to. Decides how warm its case may get.
enum class MountMaterial { Metal, Plywood, PrintedPla, PrintedPetg, PrintedAbs, PrintedNylon };

/// What every motor has: a body that weighs, warms and carries its shaft.
struct MotorBody {
    Estimate mass = assumed(0.3, 0.2);              ///< [kg]
    double length = 0.04;                           ///< [m] of the body
    Estimate thermalResistance = assumed(6.0, 0.3); ///< [K/W] case to still air
    Estimate radialRating = assumed(35.0, 0.2);     ///< [N] on the shaft, where the pulley sits
    Estimate axialRating = assumed(10.0, 0.3);      ///< [N]
    MountMaterial mount = MountMaterial::Metal;

    friend bool operator==(const MotorBody&, const MotorBody&) = default;
};

enum class Winding { Bipolar, Unipolar };

/// Encoder on the back of a stepper. It tells of lost steps; it adds no torque.
struct StepperEncoder {
    bool fitted = false;
    int countsPerTurn = 4000;
    bool corrects = false;             ///< the driver makes up for lost steps, else it stops
    double followingLimit = 0.0314159; ///< [rad] of the shaft at which it reports a fault

    friend bool operator==(const StepperEncoder&, const StepperEncoder&) = default;
};

/// Two-phase hybrid stepper. A zero holding torque, current, resistance or inductance means "not given".
struct Stepper {
    std::string name;
    int rotorTeeth = 50;                          ///< 50 for 1.8°, 100 for 0.9° a full step
    Winding winding = Winding::Bipolar;           ///< unipolar: switched straight to the supply, no chopper
    Estimate holdingTorque = assumed(0.4);        ///< [N·m] both phases at rated current
    Estimate ratedCurrent = assumed(1.5, 0.2);    ///< [A rms] per phase
    Estimate resistance = assumed(1.6, 0.3);      ///< [ohm] per phase
    Estimate inductance = assumed(0.003, 0.4);    ///< [H] per phase
    Estimate rotorInertia = assumed(5.5e-6, 0.3); ///< [kg·m²]
    Estimate detentTorque = assumed(0.015);       ///< [N·m]
    Estimate stepAccuracy = assumed(0.05, 0.2);   ///< [1] of a full step
    Estimate rotorDamping =
        assumed(0.1, 0.5); ///< [1] of critical at run current, from the windings and the bearings
    StepperEncoder encoder;
    MotorBody body;

    friend bool operator==(const Stepper&, const Stepper&) = default;
};

/// Pulses that a drive with an encoder takes: counts = pulses × numerator / denominator.
struct ElectronicGear {
    int numerator = 1;
    int denominator = 1;

    friend bool operator==(const ElectronicGear&, const ElectronicGear&) = default;
};

/// How a drive with an encoder follows its command.
struct PositionLoop {
    int countsPerTurn = 10000;                  ///< after quadrature
    ElectronicGear gear;                        ///< counts per pulse
    Estimate bandwidth = assumed(15.0, 0.4);    ///< [Hz] of the position loop
    Estimate feedforward = assumed(0.9, 0.1);   ///< [1] share of the speed that is fed forward
    double followingLimit = 0.0872664625997165; ///< [rad] of the shaft at which it reports a fault

    friend bool operator==(const PositionLoop&, const PositionLoop&) = default;
};

/// Brushless or AC servo with its drive, commanded by step and direction.
struct ServoMotor {
    std::string name;
    Estimate ratedTorque = assumed(0.32, 0.1);   ///< [N·m] continuous
    Estimate peakTorque = assumed(0.95, 0.1);    ///< [N·m] for seconds
    Estimate ratedSpeed = assumed(314.16, 0.05); ///< [rad/s] up to which the torque holds
    Estimate topSpeed = assumed(471.24, 0.05);   ///< [rad/s]
    Estimate ratedVoltage = assumed(48.0, 0.05); ///< [V] of the bus at which the speeds hold
    Estimate rotorInertia = assumed(3e-6, 0.2);  ///< [kg·m²]
    Estimate coggingTorque = assumed(0.006);     ///< [N·m] peak
    PositionLoop loop;
    MotorBody body;

    friend bool operator==(const ServoMotor&, const ServoMotor&) = default;
};

/// What a label or a quick test tells of a brushed motor, at the shaft that comes out of it.
struct DcFigures {
    Estimate nominalVoltage = assumed(12.0, 0.05); ///< [V]
    Estimate noLoadSpeed = assumed(400.0, 0.1);    ///< [rad/s] at nominal voltage
    Estimate noLoadCurrent = assumed(0.15, 0.3);   ///< [A]
    Estimate stallCurrent = assumed(6.0, 0.2);     ///< [A] at nominal voltage
    Estimate stallTorque = assumed(0.15, 0.2);     ///< [N·m] at nominal voltage
    Estimate ratedTorque = assumed(0.04, 0.2);     ///< [N·m] that it stands all day

    friend bool operator==(const DcFigures&, const DcFigures&) = default;
};

/// Brushed motor with an encoder and a position loop.
struct DcServo {
    std::string name;
    DcFigures figures;
    Estimate rotorInertia = assumed(6e-6, 0.3); ///< [kg·m²]
    PositionLoop loop;
    MotorBody body;

    friend bool operator==(const DcServo&, const DcServo&) = default;
};

enum class SpeedControl { Knob, SupplyVoltage, LinearRegulator };

/// What brings a brushed motor to rest that nothing slows down by degrees.
enum class Stopping { SwitchedOff, Shorted, Reversed };

/// Brushed motor with a gearbox and no feedback. All figures at the gearbox shaft.
struct GearedDc {
    std::string name;
    DcFigures figures{assumed(12.0, 0.05), assumed(3.14159265358979, 0.1),
                      assumed(0.1, 0.3),   assumed(1.8, 0.2),
                      assumed(3.5, 0.2),   assumed(1.0, 0.2)};
    int gearNumerator = 100; ///< turns of the rotor per …
    int gearDenominator = 1; ///< … turns of the shaft
    SpeedControl control = SpeedControl::Knob;
    double knob = 1.0;             ///< [1] highest setting of the knob that is used
    double appliedVoltage = 12.0;  ///< [V] when run from a chosen voltage without a knob
    double regulatorDropout = 1.5; ///< [V] that a linear regulator needs between supply and output
    Estimate regulatorResistance = assumed(20.0, 0.3); ///< [K/W] of the regulator with its heat sink, to air
    Estimate lowestSteady = assumed(0.12, 0.3);        ///< [1] of full speed below which it stutters
    Stopping stopping = Stopping::SwitchedOff;
    Estimate inductance = assumed(0.0, 0.3);      ///< [H] of the winding; 0: not given
    double pulseFrequency = 20000.0;              ///< [Hz] at which the knob switches the voltage
    Estimate rotorInertia = assumed(1.5e-6, 0.4); ///< [kg·m²] of the rotor itself
    Estimate gearboxBacklash = assumed(0.03);     ///< [rad] at the shaft
    MotorBody body;

    friend bool operator==(const GearedDc&, const GearedDc&) = default;
};

/// Position servo steered by the width of a pulse.
struct HobbyServo {
    std::string name;
    double range = 3.14159265358979;             ///< [rad] that the pulse span covers
    double pulseSpan = 1.8e-3;                   ///< [s] from one end to the other
    double pulseStep = 1e-6;                     ///< [s] finest change the pulse source can make
    Estimate deadBand = assumed(4e-6, 0.4);      ///< [s] whole width
    double updateRate = 50.0;                    ///< [Hz]
    Estimate ratedVoltage = assumed(6.0, 0.02);  ///< [V] at which speed and torque hold
    double supplyVoltage = 6.0;                  ///< [V] that it is given here
    Estimate secondsPer60 = assumed(0.16, 0.15); ///< [s]
    Estimate stallTorque = assumed(1.2, 0.2);    ///< [N·m]
    Estimate fullTorqueError = assumed(0.05);    ///< [rad] of error at which it pushes with all it has
    Estimate outputInertia = assumed(2e-4);      ///< [kg·m²] of motor and gears, seen at the horn
    MotorBody body;

    friend bool operator==(const HobbyServo&, const HobbyServo&) = default;
};

using Motor = std::variant<Stepper, ServoMotor, DcServo, GearedDc, HobbyServo>;

/// The body and the name of a motor, whatever its kind.
const MotorBody& bodyOf(const Motor& motor);
const std::string& nameOf(const Motor& motor);

} // namespace gantry
