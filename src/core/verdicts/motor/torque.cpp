// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message torqueBreakawayText{"Breaking away from rest needs {0}; the motor has {1}."};
constexpr Message torqueStartText{
    "Shot “{shot}” needs {0}; from standstill the motor gives {1}, so it starts "
    "under its load. Without a ramp it is at its speed in {2}."};
constexpr Message torqueStallText{"Shot “{shot}” needs {0}; from standstill the motor gives {1}."};
constexpr Message torqueEvenText{"Shot “{shot}” needs {0} without a ramp; {1} is available at {2}."};
constexpr Message torqueText{"“{shot}” needs {0} at the end of the ramp; the motor has {1} at {2}."};

/// Pull-out torque over needed torque, at the ramp's end or at break-away, whichever is tighter.
static Finding judgeTorque(const AxisView& view) {
    const ShotEvaluation* e = bindingShot(view, [](const ShotEvaluation& s) { return s.torque.margin; });
    if (e == nullptr) return std::nullopt;
    // Where break-away decides, several shots have the same ratio; the axis' worst shot is one of them.
    if (e->torque.margin && e->problem == Reason::None) e = view.evaluation.worst();
    const double atRest = view.evaluation.model.available(0.0);
    const Figure still = atRest / e->torque.breakaway, moving = e->torque.available / e->torque.needed;
    const bool breakaway = still && moving && still.value() < moving.value();
    const DriveModel& m = view.evaluation.model;
    if (m.oneSpeed && e->problem == Reason::None) {
        const bool starts = e->torque.margin && e->torque.margin.value() >= 1.0;
        return found(e, e->torque.margin, starts ? torqueStartText : torqueStallText,
                     {{{Kind::Torque, greater(e->torque.needed, e->torque.breakaway)},
                       {Kind::Torque, atRest},
                       {Kind::Time, e->start.time}}});
    }
    if (breakaway)
        return found(e, e->torque.margin, torqueBreakawayText,
                     {{{Kind::Torque, e->torque.breakaway}, {Kind::Torque, atRest}}});
    return found(e, e->torque.margin, m.atOnce ? torqueEvenText : torqueText,
                 {{{Kind::Torque, e->torque.needed},
                   {Kind::Torque, e->torque.available},
                   {Kind::RotationRate, e->motion.motorSpeed}}});
}

constinit const Rule torque = advising(
    {"Nothing offered is enough: the axis needs less weight, a balance, slower ramps or a motor beyond those "
     "listed."},
    judging(criteria::torque, {"Torque over the ramp"}, judgeTorque,
            words::listOf<torqueBreakawayText, torqueText, torqueStartText, torqueStallText, torqueEvenText>,
            tries<&fixes::runCurrent, &fixes::knobUp, &fixes::counterweight, &fixes::balanceHead,
                  &fixes::shotAcceleration, &fixes::slowerShot, &fixes::outputTeeth, &fixes::reduction,
                  &fixes::reducerInFront, &fixes::balanceWeight, &fixes::supplyVoltage, &fixes::largerMotor>,
            [](const AxisView& view) { return view.evaluation.model.wantedMargin; }));

} // namespace gantry::rules
