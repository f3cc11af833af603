// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/kind.h"

namespace gantry::units {

KindWords kindWords(Kind kind) {
    switch (kind) {
    case Kind::Length:
        return {"a length", "300 mm or 3 1/8 in"};
    case Kind::PartLength:
        return {"a length", "35 mm or 1/8 in"};
    case Kind::Angle:
        return {"an angle", "12°"};
    case Kind::Mass:
        return {"a mass", "4.1 kg"};
    case Kind::Force:
        return {"a force", "3 N"};
    case Kind::Torque:
        return {"a torque", "0.4 N·m or 57 oz in"};
    case Kind::Inertia:
        return {"an inertia", "57 g·cm²"};
    case Kind::LoadInertia:
        return {"an inertia", "240 kg·cm²"};
    case Kind::Speed:
        return {"a speed", "250 mm/s or 1 ft in 15 min"};
    case Kind::AngularSpeed:
        return {"an angular speed", "20 °/s"};
    case Kind::RotationRate:
        return {"a shaft speed", "400 rpm"};
    case Kind::Acceleration:
        return {"an acceleration", "800 mm/s²"};
    case Kind::AngularAcceleration:
        return {"an angular acceleration", "40 °/s²"};
    case Kind::Jerk:
        return {"a jerk", "4000 mm/s³"};
    case Kind::AngularJerk:
        return {"an angular jerk", "200 °/s³"};
    case Kind::Time:
        return {"a time", "12 s or 1/50 s or 2h30m"};
    case Kind::ShortTime:
        return {"a short time", "2 µs"};
    case Kind::Frequency:
        return {"a frequency", "40 kHz or 25 fps"};
    case Kind::Current:
        return {"a current", "1.2 A or 850 mA"};
    case Kind::Voltage:
        return {"a voltage", "24 V"};
    case Kind::Resistance:
        return {"a resistance", "1.5 ohm"};
    case Kind::Inductance:
        return {"an inductance", "2.8 mH"};
    case Kind::Stiffness:
        return {"a stiffness", "36 N/mm"};
    case Kind::AngularStiffness:
        return {"an angular stiffness", "8 N·m/°"};
    case Kind::Energy:
        return {"an energy", "5 J"};
    case Kind::Power:
        return {"a power", "12 W"};
    case Kind::Ratio:
        return {"a ratio", "3:1"};
    case Kind::Percentage:
        return {"a percentage", "95 %"};
    case Kind::Count:
        return {"a whole number", "20"};
    case Kind::Pixels:
        return {"a number of pixels", "0.5 px"};
    case Kind::PixelsPerFrame:
        return {"a number of pixels per frame", "0.3 px/frame"};
    case Kind::PixelsPerSecond:
        return {"a picture speed", "800 px/s"};
    case Kind::ThermalResistance:
        return {"a thermal resistance", "6 K/W"};
    case Kind::Celsius:
        return {"a temperature", "25 °C"};
    case Kind::Area:
        return {"an area", "300 cm²"};
    case Kind::Section:
        return {"a cross-section", "0.75 mm²"};
    case Kind::SecondMoment:
        return {"a second moment of area", "6.1 cm⁴"};
    case Kind::Stress:
        return {"a stress", "150 MPa"};
    case Kind::MassPerLength:
        return {"a mass per length", "1.6 kg/m"};
    case Kind::Charge:
        return {"a battery capacity", "7 Ah"};
    case Kind::Money:
        return {"an amount", "45"};
    case Kind::Storage:
        return {"a size in bytes", "25 MB or 64 GB"};
    case Kind::TimeOfDay:
        return {"a time of day", "18:40"};
    case Kind::PartsPerMillion:
        return {"a number of millionths", "20 ppm"};
    case Kind::kindCount_:
        break;
    }
    return {"a number", "1"};
}

} // namespace gantry::units
