// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"
#include "core/model/link_parts.h"
#include "core/model/motor_parts.h"
#include "core/model/output_parts.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry {

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
    double ratedCurrent = 0.0;                     ///< [A] that it gives for long; 0: not said
    double cableLength = 0.0;                      ///< [m] one way to the drivers; 0: none counted
    double cableSection = 7.5e-7;                  ///< [m²] of one conductor, copper
    double capacity = 0.0;                         ///< [A·s] of a battery; 0: mains supply
    double ratedTime = 72000.0;                    ///< [s] of the discharge that the capacity is given for
    Estimate peukert = assumed(1.1, 0.05);         ///< [1] exponent of the battery
    double usable = 0.8;                           ///< [1] share of the capacity that may be used

    friend bool operator==(const Supply&, const Supply&) = default;
};

enum class RampKind { None, Trapezoid, SCurve };
enum class SpeedUnit { UnitPerSecond, UnitPerMinute };

/// One of the few times that a controller offers for a move from stop to stop.
struct FixedTime {
    std::string id;     ///< its number: "1"
    double time = 10.0; ///< [s]

    friend bool operator==(const FixedTime&, const FixedTime&) = default;
};

struct Controller {
    std::string name;
    double pulseCeiling = 40000.0; ///< [Hz] on one axis, or of all together
    bool pulsesShared = false;     ///< the ceiling is for all axes that move at once
    int decimalsKept = 3;          ///< of steps per unit
    RampKind ramps = RampKind::Trapezoid;
    SpeedUnit speedUnit = SpeedUnit::UnitPerSecond;
    std::vector<FixedTime> times; ///< all that it offers from stop to stop; none: any

    friend bool operator==(const Controller&, const Controller&) = default;
};

} // namespace gantry
