// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string_view>

namespace gantry::units {

/// Kinds of quantity. Inside the program every value of a kind is in the SI unit named here.
enum class Kind {
    Length,              ///< [m]
    PartLength,          ///< [m], shown in mm in both systems: lenses, belt pitches, motors
    Angle,               ///< [rad]
    Mass,                ///< [kg]
    Force,               ///< [N]
    Torque,              ///< [N·m]
    Inertia,             ///< [kg·m²]
    LoadInertia,         ///< [kg·m²], shown in kg·cm²: heads and booms
    Speed,               ///< [m/s]
    AngularSpeed,        ///< [rad/s]
    Acceleration,        ///< [m/s²]
    AngularAcceleration, ///< [rad/s²]
    Jerk,                ///< [m/s³]
    AngularJerk,         ///< [rad/s³]
    Time,                ///< [s]
    ShortTime,           ///< [s], shown as microseconds: pulses
    Frequency,           ///< [Hz]
    Current,             ///< [A]
    Voltage,             ///< [V]
    Resistance,          ///< [ohm]
    Inductance,          ///< [H]
    Stiffness,           ///< [N/m]
    AngularStiffness,    ///< [N·m/rad]
    Energy,              ///< [J]
    Power,               ///< [W]
    Ratio,               ///< [1]
    Percentage,          ///< [1], shown as per cent
    Count,               ///< whole number
    RotationRate,        ///< [rad/s], shown as turns a minute: shafts, never camera axes
    Pixels,              ///< [px] of the delivered picture
    PixelsPerFrame,      ///< [px/frame]
    PixelsPerSecond,     ///< [px/s]
    ThermalResistance,   ///< [K/W]
    Celsius,             ///< [°C] temperatures
    Area,                ///< [m²]
    Section,             ///< [m²], shown in mm²: conductors, beams
    SecondMoment,        ///< [m⁴] of a beam's section
    Stress,              ///< [Pa]
    MassPerLength,       ///< [kg/m]
    Charge,              ///< [A·s], shown as ampere hours: batteries
    Money,               ///< [1] in the user's own currency
    Storage,             ///< [byte], shown in millions: pictures and cards
    TimeOfDay,           ///< [s] from midnight of a first day, shown as on a clock
    PartsPerMillion,     ///< [1], shown in millionths: clocks
    kindCount_           ///< number of kinds, for tables
};

/// How quantities are shown. Fields accept every unit in both systems.
enum class System { Metric, Inch };

/// Name with article ("a length") and an example that the parser accepts ("300 mm").
struct KindWords {
    std::string_view article;
    std::string_view example;
};
KindWords kindWords(Kind kind);

/// The least magnitude [SI] that a quantity of this kind can have beside 0: far below what any rig can tell
/// apart, far above where numbers lose their digits.
constexpr double leastMagnitude(Kind kind) {
    switch (kind) {
    case Kind::SecondMoment:
        return 1e-21;
    case Kind::Section:
    case Kind::Area:
        return 1e-15;
    case Kind::ShortTime:
    case Kind::Inertia:
    case Kind::LoadInertia:
    case Kind::Inductance:
    case Kind::Speed:
    case Kind::AngularSpeed:
    case Kind::Acceleration:
    case Kind::AngularAcceleration:
        return 1e-12;
    default:
        return 1e-9;
    }
}

} // namespace gantry::units
