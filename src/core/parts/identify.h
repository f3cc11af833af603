// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/link_parts.h"
#include "core/model/motor_parts.h"
#include "core/parts/label.h"

#include <optional>
#include <vector>

/// Motors without a label, from readings on the bench. A zero reading means "not taken"; what follows from it
/// is then estimated from the size and marked as a guess.
namespace gantry::parts {

/// One step of the rising-current test: the current was held until the case stopped warming.
struct WarmReading {
    double current = 0.0;         ///< [A rms] a phase, or through the brushes
    double caseTemperature = 0.0; ///< [°C]
};

/// Motor blocked or holding, warmed by current alone.
struct WarmTest {
    double resistance = 0.0; ///< [ohm] of one winding
    int windings = 2;        ///< that carry the current at once
    double air = 22.0;       ///< [°C]
    double limit = 70.0;     ///< [°C] of the case at which to stop
    std::vector<WarmReading> readings;
};

struct WarmResult {
    bool stop = false;        ///< the limit is reached: switch off
    double nextCurrent = 0.0; ///< [A] to try next, 0 once it is time to stop; never predicted above the limit
    Estimate ratedCurrent{0.0, Source::Guess, 0.5};      ///< [A rms] that holds the case at the limit
    Estimate thermalResistance{0.0, Source::Guess, 0.5}; ///< [K/W]
};

/// Heat through resistance by least squares over the readings, ΔT = Rth · n I² R; the winding is taken as
/// cold copper, which the tolerance covers.
WarmResult evaluateWarmTest(const WarmTest& test);

struct StepperReadings {
    StepperLabel size;
    int leads = 4;                         ///< 4, 6 or 8: driven bipolar; 5: common lead, switched
    double resistance = 0.0;               ///< [ohm] of one phase; with 5 leads from the common one to an end
    int stepsPerTurn = 0;                  ///< full steps counted in one turn of the shaft that comes out
    int gearTurnsIn = 1, gearTurnsOut = 1; ///< turns of the rotor per turns of that shaft, counted
    WarmTest warm;
    double pull = 0.0;        ///< [N] at which the powered shaft gave way …
    double pullArm = 0.0;     ///< [m] … at this distance
    double pullCurrent = 0.0; ///< [A rms] … with this current in both phases
};

struct IdentifiedStepper {
    Stepper motor;
    std::optional<ReducerStage> gearbox; ///< when it has one; its id is empty
};

/// Fewer than 100 steps a turn mark a tin-can motor, which has about 0.4 of a hybrid's torque (±50 %).
IdentifiedStepper identify(const StepperReadings& r);

struct DcReadings {
    double voltage = 0.0;     ///< [V] of the free run
    double turns = 0.0;       ///< of the shaft that comes out …
    double time = 0.0;        ///< [s] … in this time
    double freeCurrent = 0.0; ///< [A] during it
    double resistance = 0.0;  ///< [ohm] between the leads, least of several places of the shaft
    int gearTurnsIn = 1, gearTurnsOut = 1;
    WarmTest warm;                    ///< with the shaft blocked
    double stallPull = 0.0;           ///< [N] on an arm at `stallVoltage` …
    double stallArm = 0.0;            ///< [m]
    double stallVoltage = 0.0;        ///< [V]
    double frame = 0.0, length = 0.0; ///< [m] diameter and length of the motor's can
};

/// Back-EMF by the free run, k = (V − I₀R)/ω₀; stall torque k·η·(I_s − I₀) with a gearbox efficiency of
/// 0.65 ± 40 % where there is one, unless the stall was measured. Nothing without a free run or resistance.
std::optional<GearedDc> identify(const DcReadings& r);

} // namespace gantry::parts
