// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/supply/supply_view.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/supply/resistance.h"
#include "core/power/battery.h"
#include "core/power/cable.h"

#include <algorithm>
#include <cmath>

namespace gantry {

Figure electricalPower(const Supply& supply, const Axis& axis, const DriveModel& m, const ShotEvaluation& s) {
    if (m.missing != Reason::None) return Figure::none(m.missing);
    const Figure shaft = s.torque.needed * s.motion.motorSpeed;
    if (const motor::StepperParams* stepper = m.stepper()) {
        // Full current flows whether it turns or not.
        const double winding =
            std::get<Stepper>(axis.motor).resistance.value + axis.driver.bridgeResistance.value;
        return m.motors * stepper->peakCurrent * stepper->peakCurrent * winding + shaft;
    }
    if (const motor::DcParams* dc = m.dc()) {
        // A linear regulator takes the motor's current from the full supply.
        const double volts = m.regulated ? supply.voltage.value : dc->voltage;
        return volts * s.sourceCurrent;
    }
    return shaft / criteria::servoEfficiency;
}

/// Current [A] while every brushed motor without a ramp is switched on or reversed and the others run at
/// their hardest. A motor behind a voltage of its own still takes its current from here.
static Figure startCurrent(const Supply& supply, const std::vector<AxisEvaluation>& axes) {
    Figure sum = 0.0;
    bool any = false;
    for (const AxisEvaluation& e : axes) {
        if (e.worst() == nullptr) continue;
        Figure most = 0.0;
        for (const ShotEvaluation& s : e.shots) {
            const bool sudden = s.start.current.reason() != Reason::NotApplicable;
            any = any || sudden;
            most = greater(most, sudden ? s.start.current : s.torque.electricalPower / supply.voltage.value);
        }
        sum = sum + most;
    }
    return any ? sum : Figure::none(Reason::NotApplicable);
}

SupplyEvaluation evaluateSupply(const Supply& supply, const std::vector<AxisEvaluation>& axes) {
    SupplyEvaluation out;
    out.power = 0.0;
    for (const AxisEvaluation& e : axes) {
        if (e.worst() == nullptr) continue; // at rest in every shot
        Figure most = 0.0;
        for (const ShotEvaluation& s : e.shots) most = greater(most, s.torque.electricalPower);
        out.power = out.power + most;
    }
    const auto delivered =
        out.power ? power::deliver(supply.voltage.value, supplyResistance(supply), out.power.value())
                  : std::nullopt;
    if (!delivered) {
        out.voltage = out.current = out.drop = out.runTime =
            Figure::none(out.power ? Reason::SupplyCollapses : out.power.reason());
        return out;
    }
    out.voltage = Figure::of(delivered->voltage);
    out.current = Figure::of(delivered->current);
    out.drop = Figure::of(delivered->drop);
    out.startCurrent = startCurrent(supply, axes);
    if (supply.capacity <= 0.0 || delivered->current <= 0.0)
        out.runTime = Figure::none(Reason::NotApplicable);
    else
        out.runTime = Figure::of(power::runTime(
            {supply.capacity, supply.ratedTime, std::max(1.0, supply.peukert.value), supply.usable},
            delivered->current));
    return out;
}

} // namespace gantry
