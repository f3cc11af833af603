// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/settings.h"

#include "core/units/text.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::io {
namespace {

using units::plainNumber;

/// Decimals that leave about five significant digits, at most nine.
std::string number(double value) {
    if (!std::isfinite(value)) return {};
    const double a = std::abs(value);
    const int digits = a > 0.0 ? static_cast<int>(std::floor(std::log10(a))) : 0;
    return plainNumber(value, std::clamp(4 - digits, 0, 9));
}

class Rows {
public:
    explicit Rows(std::vector<Setting>& rows) : rows_(rows) {}
    void add(std::string key, std::string label, std::string value, std::string unit, std::string note = {}) {
        rows_.push_back(
            {std::move(key), std::move(label), std::move(value), std::move(unit), std::move(note)});
    }
    void yesNo(std::string key, std::string label, bool value, std::string note = {}) {
        add(std::move(key), std::move(label), value ? "1" : "0", "", std::move(note));
    }

private:
    std::vector<Setting>& rows_;
};

template <AxisKind Kind>
void addMotion(Rows& rows, const MotionSettings<Kind>& m, const Controller& controller,
               const AxisEvaluation& e) {
    const double unit = Kind == AxisKind::Linear ? 1e-3 : std::numbers::pi / 180.0;
    const std::string name = Kind == AxisKind::Linear ? "mm" : "°";
    const bool perMinute = controller.speedUnit == SpeedUnit::UnitPerMinute;
    const double speed = perMinute ? unit / 60.0 : unit;
    const std::string speedName = name + (perMinute ? "/min" : "/s");
    const double travel = e.usableTravel.valueOr(0.0);

    rows.add("max_speed", "Top speed", number(m.maxSpeed / speed), speedName);
    rows.add("max_acceleration", "Top acceleration", number(m.maxAcceleration / unit), name + "/s²");
    switch (controller.ramps) {
    case RampKind::SCurve:
        rows.add("jerk", "Jerk", m.jerk > 0.0 ? number(m.jerk / unit) : "", name + "/s³",
                 m.jerk > 0.0 ? "" : "no jerk limit set");
        break;
    case RampKind::Trapezoid:
        rows.add("jerk", "Jerk", "", name + "/s³", "this controller ramps with constant acceleration");
        break;
    case RampKind::None:
        rows.add("jerk", "Jerk", "", name + "/s³", "this controller does not ramp");
        break;
    }
    rows.add("instant_speed_step", "Instant speed step", number(m.instantSpeedStep / speed), speedName);
    rows.yesNo("reversed", "Direction reversed", m.reversed,
               m.reversed ? "pulses with direction high move to the low end"
                          : "pulses with direction high move to the high end");
    rows.add("positive_end", "Positive end", "high", "", "positions grow from the low end to the high end");
    rows.add("travel", "Usable travel", number(travel / unit), name);
    rows.add("soft_min", "Soft limit, low", number(m.softLimitMargin / unit), name);
    rows.add("soft_max", "Soft limit, high",
             number(std::max(m.softLimitMargin, travel - m.softLimitMargin) / unit), name);
    rows.add("home_end", "Homes towards", m.homeEnd == HomeEnd::Low ? "low" : "high", "");
    rows.add("homing_speed", "Homing speed", number(m.homingSpeed / speed), speedName);
    rows.add("homing_back_off", "Homing back-off", number(m.homingBackOff / unit), name);
}

AxisSettings axisSettings(const Project& project, const Axis& axis, const AxisEvaluation& e) {
    AxisSettings out;
    const bool linear = e.model.kind == AxisKind::Linear;
    out.id = axis.id;
    out.name = axis.name;
    out.kind = linear ? "linear" : "rotary";
    out.unit = linear ? "mm" : "deg";
    Rows rows(out.rows);
    const Driver& d = axis.driver;
    std::string note;
    if (e.model.exactStepsPerUnit && e.model.exactStepsPerUnit->denominator() != 1) {
        note = "exactly " + e.model.exactStepsPerUnit->text();
        // Less than one step is nothing that anybody could see.
        if (less(e.step, e.steps.roundingOverTravel))
            note += ", rounding is off by " +
                    units::format(e.steps.roundingOverTravel.value(),
                                  linear ? units::Kind::Length : units::Kind::Angle, units::System::Metric) +
                    " over the travel";
    }
    rows.add("steps_per_unit", "Steps per unit",
             e.steps.stepsPerUnitKept
                 ? plainNumber(e.steps.stepsPerUnitKept.value(), project.controller.decimalsKept)
                 : std::string(),
             linear ? "steps/mm" : "steps/°", note);
    std::visit([&](const auto& m) { addMotion(rows, m.motion, project.controller, e); }, axis.mechanism);
    rows.add("microsteps", "Microsteps", std::to_string(d.microsteps), "");
    rows.add("run_current_rms", "Run current, rms", number(d.runCurrent), "A");
    rows.add("run_current_peak", "Run current, peak", number(d.runCurrent * std::numbers::sqrt2), "A",
             "√2 times the rms value; check which of the two your driver takes");
    rows.add("hold_current_rms", "Hold current, rms", number(d.holdCurrent), "A",
             e.powerOff.loaded ? "do not lower: gravity pulls on this axis" : "");
    rows.add("idle_delay", "Idle delay", number(d.idleDelay), "s");
    rows.yesNo("enable_active_low", "Enable active low", d.enableActiveLow);
    rows.add("shortest_pulse", "Shortest pulse", number(d.shortestPulse * 1e6), "µs");
    return out;
}

} // namespace

SettingsSheet settingsSheet(const Project& project, const Assessment& assessment) {
    SettingsSheet sheet;
    sheet.project = project.name;
    sheet.controller = project.controller.name;
    for (std::size_t i = 0; i < project.axes.size(); ++i)
        sheet.axes.push_back(axisSettings(project, project.axes[i], assessment.evaluation.axes[i]));
    for (const Verdict& v : assessment.verdicts) {
        if (!v.hazard || !mendable(v.state)) continue;
        std::string line = project.axes[static_cast<std::size_t>(v.axis)].name + ", " + title(v) + " (" +
                           std::string(stateWord(v.state)) +
                           "): " + sentence(v, project, units::System::Metric);
        if (const SetAside* aside = setAsideFor(project, v)) line += " Set aside: " + aside->reason;
        sheet.cautions.push_back(std::move(line));
    }
    return sheet;
}

} // namespace gantry::io
