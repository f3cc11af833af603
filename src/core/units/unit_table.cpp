// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/unit_table.h"

#include "core/units/constants.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <numbers>

namespace gantry::units {
namespace {

using std::numbers::pi;
constexpr double deg = pi / 180.0;
constexpr double inch = 0.0254;      // exact, by definition
constexpr double pound = 0.45359237; // exact, by definition
constexpr double lbf = pound * standardGravity;

constexpr std::array table{
    Unit{Kind::Length, "m", 1.0},
    Unit{Kind::Length, "mm", 1e-3},
    Unit{Kind::Length, "cm", 1e-2},
    Unit{Kind::Length, "um", 1e-6},
    Unit{Kind::Length, "in", inch},
    Unit{Kind::Length, "inch", inch},
    Unit{Kind::Length, "inches", inch},
    Unit{Kind::Length, "ft", 12 * inch},
    Unit{Kind::Length, "feet", 12 * inch},
    Unit{Kind::Length, "foot", 12 * inch},
    Unit{Kind::Length, "yd", 36 * inch},
    Unit{Kind::Length, "metre", 1.0},
    Unit{Kind::Length, "metres", 1.0},
    Unit{Kind::PartLength, "mm", 1e-3},
    Unit{Kind::PartLength, "m", 1.0},
    Unit{Kind::PartLength, "cm", 1e-2},
    Unit{Kind::PartLength, "um", 1e-6},
    Unit{Kind::PartLength, "in", inch},
    Unit{Kind::PartLength, "inch", inch},
    Unit{Kind::Angle, "deg", deg},
    Unit{Kind::Angle, "degree", deg},
    Unit{Kind::Angle, "degrees", deg},
    Unit{Kind::Angle, "rad", 1.0},
    Unit{Kind::Angle, "mrad", 1e-3},
    Unit{Kind::Angle, "rev", 2 * pi},
    Unit{Kind::Angle, "turn", 2 * pi},
    Unit{Kind::Angle, "turns", 2 * pi},
    Unit{Kind::Angle, "arcmin", deg / 60},
    Unit{Kind::Mass, "kg", 1.0},
    Unit{Kind::Mass, "g", 1e-3},
    Unit{Kind::Mass, "lb", pound},
    Unit{Kind::Mass, "lbs", pound},
    Unit{Kind::Mass, "oz", pound / 16},
    Unit{Kind::Force, "N", 1.0},
    Unit{Kind::Force, "kN", 1e3},
    Unit{Kind::Force, "lbf", lbf},
    Unit{Kind::Force, "ozf", lbf / 16},
    Unit{Kind::Force, "kgf", standardGravity},
    Unit{Kind::Force, "gf", standardGravity * 1e-3},
    Unit{Kind::Torque, "Nm", 1.0},
    Unit{Kind::Torque, "mNm", 1e-3},
    Unit{Kind::Torque, "Ncm", 1e-2},
    Unit{Kind::Torque, "kNm", 1e3},
    Unit{Kind::Torque, "ozin", lbf / 16 * inch},
    Unit{Kind::Torque, "inoz", lbf / 16 * inch},
    Unit{Kind::Torque, "lbin", lbf* inch},
    Unit{Kind::Torque, "inlb", lbf* inch},
    Unit{Kind::Torque, "lbft", lbf * 12 * inch},
    Unit{Kind::Torque, "ftlb", lbf * 12 * inch},
    Unit{Kind::Torque, "kgcm", standardGravity * 1e-2},
    Unit{Kind::Torque, "kgfcm", standardGravity * 1e-2},
    Unit{Kind::Torque, "gcm", standardGravity * 1e-5},
    Unit{Kind::Inertia, "kgm2", 1.0},
    Unit{Kind::Inertia, "kgcm2", 1e-4},
    Unit{Kind::Inertia, "gcm2", 1e-7},
    Unit{Kind::Inertia, "kgmm2", 1e-6},
    Unit{Kind::Inertia, "gmm2", 1e-9},
    Unit{Kind::Inertia, "ozin2", pound / 16 * inch* inch},
    Unit{Kind::Inertia, "lbin2", pound* inch* inch},
    Unit{Kind::LoadInertia, "kgm2", 1.0},
    Unit{Kind::LoadInertia, "kgcm2", 1e-4},
    Unit{Kind::LoadInertia, "gcm2", 1e-7},
    Unit{Kind::LoadInertia, "ozin2", pound / 16 * inch* inch},
    Unit{Kind::LoadInertia, "lbin2", pound* inch* inch},
    Unit{Kind::Speed, "m/s", 1.0},
    Unit{Kind::Speed, "mm/s", 1e-3},
    Unit{Kind::Speed, "cm/s", 1e-2},
    Unit{Kind::Speed, "mm/min", 1e-3 / 60},
    Unit{Kind::Speed, "cm/min", 1e-2 / 60},
    Unit{Kind::Speed, "m/min", 1.0 / 60},
    Unit{Kind::Speed, "in/s", inch},
    Unit{Kind::Speed, "in/min", inch / 60},
    Unit{Kind::Speed, "ft/s", 12 * inch},
    Unit{Kind::Speed, "ft/min", 12 * inch / 60},
    Unit{Kind::Speed, "mm/h", 1e-3 / 3600},
    Unit{Kind::Speed, "km/h", 1.0 / 3.6},
    Unit{Kind::AngularSpeed, "rad/s", 1.0},
    Unit{Kind::AngularSpeed, "deg/s", deg},
    Unit{Kind::AngularSpeed, "deg/min", deg / 60},
    Unit{Kind::AngularSpeed, "deg/h", deg / 3600},
    Unit{Kind::AngularSpeed, "rpm", 2 * pi / 60},
    Unit{Kind::AngularSpeed, "rev/s", 2 * pi},
    Unit{Kind::AngularSpeed, "rev/min", 2 * pi / 60},
    Unit{Kind::RotationRate, "rpm", 2 * pi / 60},
    Unit{Kind::RotationRate, "rad/s", 1.0},
    Unit{Kind::RotationRate, "deg/s", deg},
    Unit{Kind::RotationRate, "rev/s", 2 * pi},
    Unit{Kind::Acceleration, "m/s2", 1.0},
    Unit{Kind::Acceleration, "mm/s2", 1e-3},
    Unit{Kind::Acceleration, "cm/s2", 1e-2},
    Unit{Kind::Acceleration, "in/s2", inch},
    Unit{Kind::Acceleration, "ft/s2", 12 * inch},
    Unit{Kind::AngularAcceleration, "rad/s2", 1.0},
    Unit{Kind::AngularAcceleration, "deg/s2", deg},
    Unit{Kind::Jerk, "m/s3", 1.0},
    Unit{Kind::Jerk, "mm/s3", 1e-3},
    Unit{Kind::Jerk, "in/s3", inch},
    Unit{Kind::AngularJerk, "rad/s3", 1.0},
    Unit{Kind::AngularJerk, "deg/s3", deg},
    Unit{Kind::Time, "s", 1.0},
    Unit{Kind::Time, "sec", 1.0},
    Unit{Kind::Time, "second", 1.0},
    Unit{Kind::Time, "seconds", 1.0},
    Unit{Kind::Time, "ms", 1e-3},
    Unit{Kind::Time, "us", 1e-6},
    Unit{Kind::Time, "min", 60.0},
    Unit{Kind::Time, "m", 60.0},
    Unit{Kind::Time, "minutes", 60.0},
    Unit{Kind::Time, "h", 3600.0},
    Unit{Kind::Time, "d", 86400.0},
    Unit{Kind::Time, "day", 86400.0},
    Unit{Kind::Time, "days", 86400.0},
    Unit{Kind::Time, "hours", 3600.0},
    Unit{Kind::Time, "hour", 3600.0},
    Unit{Kind::ShortTime, "us", 1e-6},
    Unit{Kind::ShortTime, "ns", 1e-9},
    Unit{Kind::ShortTime, "ms", 1e-3},
    Unit{Kind::ShortTime, "s", 1.0},
    Unit{Kind::Frequency, "Hz", 1.0},
    Unit{Kind::Frequency, "kHz", 1e3},
    Unit{Kind::Frequency, "MHz", 1e6},
    Unit{Kind::Frequency, "fps", 1.0},
    Unit{Kind::Current, "A", 1.0},
    Unit{Kind::Current, "mA", 1e-3},
    Unit{Kind::Current, "amp", 1.0},
    Unit{Kind::Current, "amps", 1.0},
    Unit{Kind::Voltage, "V", 1.0},
    Unit{Kind::Voltage, "mV", 1e-3},
    Unit{Kind::Voltage, "volt", 1.0},
    Unit{Kind::Voltage, "volts", 1.0},
    Unit{Kind::Resistance, "ohm", 1.0},
    Unit{Kind::Resistance, "ohms", 1.0},
    Unit{Kind::Resistance, "mohm", 1e-3},
    Unit{Kind::Resistance, "kohm", 1e3},
    Unit{Kind::Inductance, "H", 1.0},
    Unit{Kind::Inductance, "mH", 1e-3},
    Unit{Kind::Inductance, "uH", 1e-6},
    Unit{Kind::Stiffness, "N/m", 1.0},
    Unit{Kind::Stiffness, "N/mm", 1e3},
    Unit{Kind::Stiffness, "kN/m", 1e3},
    Unit{Kind::Stiffness, "lbf/in", lbf / inch},
    Unit{Kind::AngularStiffness, "Nm/rad", 1.0},
    Unit{Kind::AngularStiffness, "Nm/deg", 1.0 / deg},
    Unit{Kind::Energy, "J", 1.0},
    Unit{Kind::Energy, "mJ", 1e-3},
    Unit{Kind::Energy, "ftlbf", lbf * 12 * inch},
    Unit{Kind::Power, "W", 1.0},
    Unit{Kind::Power, "mW", 1e-3},
    Unit{Kind::Power, "kW", 1e3},
    Unit{Kind::Ratio, ":1", 1.0},
    Unit{Kind::Ratio, "to1", 1.0},
    Unit{Kind::Ratio, "x", 1.0},
    Unit{Kind::Percentage, "%", 1e-2},
    Unit{Kind::Percentage, "percent", 1e-2},
    Unit{Kind::Count, "T", 1.0},
    Unit{Kind::Count, "teeth", 1.0},
    Unit{Kind::Count, "px", 1.0},
    Unit{Kind::Count, "pcs", 1.0},
    Unit{Kind::Pixels, "px", 1.0},
    Unit{Kind::PixelsPerFrame, "px/frame", 1.0},
    Unit{Kind::PixelsPerSecond, "px/s", 1.0},
    Unit{Kind::ThermalResistance, "K/W", 1.0},
    Unit{Kind::ThermalResistance, "C/W", 1.0},
    Unit{Kind::ThermalResistance, "degC/W", 1.0},
    Unit{Kind::Celsius, "degC", 1.0},
    Unit{Kind::Celsius, "C", 1.0},
    Unit{Kind::Area, "m2", 1.0},
    Unit{Kind::Area, "cm2", 1e-4},
    Unit{Kind::Area, "mm2", 1e-6},
    Unit{Kind::Area, "in2", inch* inch},
    Unit{Kind::Area, "ft2", 144 * inch* inch},
    Unit{Kind::Section, "mm2", 1e-6},
    Unit{Kind::Section, "cm2", 1e-4},
    Unit{Kind::Section, "m2", 1.0},
    Unit{Kind::Section, "in2", inch* inch},
    Unit{Kind::SecondMoment, "cm4", 1e-8},
    Unit{Kind::SecondMoment, "mm4", 1e-12},
    Unit{Kind::SecondMoment, "m4", 1.0},
    Unit{Kind::SecondMoment, "in4", inch* inch* inch* inch},
    Unit{Kind::Stress, "MPa", 1e6},
    Unit{Kind::Stress, "GPa", 1e9},
    Unit{Kind::Stress, "N/mm2", 1e6},
    Unit{Kind::Stress, "Pa", 1.0},
    Unit{Kind::Stress, "psi", lbf / (inch * inch)},
    Unit{Kind::MassPerLength, "kg/m", 1.0},
    Unit{Kind::MassPerLength, "g/m", 1e-3},
    Unit{Kind::MassPerLength, "lb/ft", pound / (12 * inch)},
    Unit{Kind::Charge, "Ah", 3600.0},
    Unit{Kind::Charge, "mAh", 3.6},
    Unit{Kind::Charge, "As", 1.0},
    Unit{Kind::Storage, "B", 1.0},
    Unit{Kind::Storage, "byte", 1.0},
    Unit{Kind::Storage, "bytes", 1.0},
    Unit{Kind::Storage, "kB", 1e3},
    Unit{Kind::Storage, "MB", 1e6},
    Unit{Kind::Storage, "GB", 1e9},
    Unit{Kind::Storage, "TB", 1e12},
    Unit{Kind::Storage, "MiB", 1048576.0},
    Unit{Kind::Storage, "GiB", 1073741824.0},
    Unit{Kind::TimeOfDay, "h", 3600.0},
    Unit{Kind::PartsPerMillion, "ppm", 1e-6},
};

struct Replacement {
    std::string_view from, to;
};
constexpr std::array replacements{
    Replacement{"²", "2"},   Replacement{"³", "3"},       Replacement{"⁴", "4"},   Replacement{"°", "deg"},
    Replacement{"º", "deg"}, Replacement{"µ", "u"},       Replacement{"μ", "u"},   Replacement{"Ω", "ohm"},
    Replacement{"Ω", "ohm"}, Replacement{"″", "in"},      Replacement{"\"", "in"}, Replacement{"′", "ft"},
    Replacement{"'", "ft"},  Replacement{"·", ""},        Replacement{"⋅", ""},    Replacement{"*", ""},
    Replacement{"^", ""},    Replacement{".", ""},        Replacement{"-", ""},    Replacement{" ", ""},
    Replacement{"\t", ""},   Replacement{"\xC2\xA0", ""},
};

bool equalIgnoringCase(std::string_view a, std::string_view b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](char x, char y) {
        return std::tolower(static_cast<unsigned char>(x)) == std::tolower(static_cast<unsigned char>(y));
    });
}

ShownUnit metricUnit(Kind kind, double magnitude) {
    const double a = std::abs(magnitude);
    const bool tiny = a > 0.0;
    switch (kind) {
    case Kind::Length:
        if (tiny && a < 0.95e-4) return {"µm", 1e-6};
        if (a >= 10.0) return {"m", 1.0};
        return {"mm", 1e-3};
    case Kind::PartLength:
        return {"mm", 1e-3};
    case Kind::Angle:
        return {"°", deg};
    case Kind::Mass:
        if (tiny && a < 0.5) return {"g", 1e-3};
        return {"kg", 1.0};
    case Kind::Force:
        return {"N", 1.0};
    case Kind::Torque:
        return {"N·m", 1.0};
    case Kind::Inertia:
        if (a >= 1e-3) return {"kg·cm²", 1e-4};
        return {"g·cm²", 1e-7};
    case Kind::LoadInertia:
        return {"kg·cm²", 1e-4};
    case Kind::Speed:
        if (tiny && a < 1e-4) return {"mm/min", 1e-3 / 60};
        if (a >= 1.0) return {"m/s", 1.0};
        return {"mm/s", 1e-3};
    case Kind::AngularSpeed:
        return {"°/s", deg};
    case Kind::RotationRate:
        return {"rpm", 2 * pi / 60};
    case Kind::Acceleration:
        return {"mm/s²", 1e-3};
    case Kind::AngularAcceleration:
        return {"°/s²", deg};
    case Kind::Jerk:
        return {"mm/s³", 1e-3};
    case Kind::AngularJerk:
        return {"°/s³", deg};
    case Kind::Time:
        if (tiny && a < 1e-3) return {"µs", 1e-6};
        return {"s", 1.0};
    case Kind::ShortTime:
        return {"µs", 1e-6};
    case Kind::Frequency:
        if (a >= 1000.0) return {"kHz", 1e3};
        return {"Hz", 1.0};
    case Kind::Current:
        return {"A", 1.0};
    case Kind::Voltage:
        return {"V", 1.0};
    case Kind::Resistance:
        return {"ohm", 1.0};
    case Kind::Inductance:
        return {"mH", 1e-3};
    case Kind::Stiffness:
        return {"N/mm", 1e3};
    case Kind::AngularStiffness:
        return {"N·m/°", 1.0 / deg};
    case Kind::Energy:
        return {"J", 1.0};
    case Kind::Power:
        return {"W", 1.0};
    case Kind::Ratio:
        return {"", 1.0};
    case Kind::Percentage:
        return {"%", 1e-2};
    case Kind::Count:
        return {"", 1.0};
    case Kind::Pixels:
        return {"px", 1.0};
    case Kind::PixelsPerFrame:
        return {"px/frame", 1.0};
    case Kind::PixelsPerSecond:
        return {"px/s", 1.0};
    case Kind::ThermalResistance:
        return {"K/W", 1.0};
    case Kind::Celsius:
        return {"°C", 1.0};
    case Kind::Area:
        if (a >= 0.1) return {"m²", 1.0};
        return {"cm²", 1e-4};
    case Kind::Section:
        return {"mm²", 1e-6};
    case Kind::SecondMoment:
        return {"cm⁴", 1e-8};
    case Kind::Stress:
        return {"MPa", 1e6};
    case Kind::MassPerLength:
        return {"kg/m", 1.0};
    case Kind::Charge:
        return {"Ah", 3600.0};
    case Kind::Money:
        return {"", 1.0};
    case Kind::Storage:
        if (a >= 1e12) return {"TB", 1e12};
        if (a >= 1e9) return {"GB", 1e9};
        return {"MB", 1e6};
    case Kind::TimeOfDay:
        return {"", 3600.0};
    case Kind::PartsPerMillion:
        return {"ppm", 1e-6};
    case Kind::kindCount_:
        break;
    }
    return {"", 1.0};
}

ShownUnit inchUnit(Kind kind, double magnitude) {
    switch (kind) {
    case Kind::Length:
        return {"in", inch};
    case Kind::Mass:
        return {"lb", pound};
    case Kind::Force:
        return {"lbf", lbf};
    case Kind::Torque:
        return {"oz·in", lbf / 16 * inch};
    case Kind::LoadInertia:
        return {"lb·in²", pound * inch * inch};
    case Kind::Inertia:
        return {"oz·in²", pound / 16 * inch * inch};
    case Kind::Speed:
        if (magnitude != 0.0 && std::abs(magnitude) < inch / 60) return {"in/min", inch / 60};
        return {"in/s", inch};
    case Kind::Acceleration:
        return {"in/s²", inch};
    case Kind::Jerk:
        return {"in/s³", inch};
    case Kind::Stiffness:
        return {"lbf/in", lbf / inch};
    case Kind::Stress:
        return {"psi", lbf / (inch * inch)};
    case Kind::MassPerLength:
        return {"lb/ft", pound / (12 * inch)};
    default:
        return metricUnit(kind, magnitude);
    }
}

} // namespace

std::span<const Unit> unitTable() {
    return table;
}

std::string normaliseUnit(std::string_view text) {
    std::string out;
    while (!text.empty()) {
        const auto hit = std::find_if(replacements.begin(), replacements.end(),
                                      [&](const Replacement& r) { return text.starts_with(r.from); });
        if (hit != replacements.end()) {
            out += hit->to;
            text.remove_prefix(hit->from.size());
        } else {
            out += text.front();
            text.remove_prefix(1);
        }
    }
    return out;
}

std::optional<double> unitFactor(Kind kind, std::string_view normalised) {
    std::optional<double> found;
    for (const Unit& u : table) {
        if (u.kind != kind) continue;
        if (u.spelling == normalised) return u.factor;
        if (equalIgnoringCase(u.spelling, normalised)) {
            if (found && *found != u.factor) return std::nullopt; // "MHZ" is clear, "Mm" would not be
            found = u.factor;
        }
    }
    return found;
}

std::optional<Kind> kindOfUnit(std::string_view normalised) {
    for (const Unit& u : table)
        if (u.spelling == normalised) return u.kind;
    for (const Unit& u : table)
        if (equalIgnoringCase(u.spelling, normalised)) return u.kind;
    return std::nullopt;
}

ShownUnit shownUnit(Kind kind, System system, double magnitude) {
    return system == System::Inch ? inchUnit(kind, magnitude) : metricUnit(kind, magnitude);
}

} // namespace gantry::units
