// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message torqueBreakawayText{"Breaking away from rest needs {0}; {1} is available."};
constexpr Message torqueText{"Shot “{shot}” needs {0} at the end of the ramp; {1} is available at {2}."};

/// Pull-out torque over needed torque, at the ramp's end or at break-away, whichever is tighter.
static Finding judge(const AxisView& view) {
    const ShotEvaluation* e = bindingShot(view, [](const ShotEvaluation& s) { return s.torque.margin; });
    if (e == nullptr) return std::nullopt;
    // Where break-away decides, several shots have the same ratio; the axis' worst shot is one of them.
    if (e->torque.margin && e->problem == Reason::None) e = view.evaluation.worst();
    const double atRest = view.evaluation.model.available(0.0);
    const Figure still = atRest / e->torque.breakaway, moving = e->torque.available / e->torque.needed;
    const bool breakaway = still && moving && still.value() < moving.value();
    if (breakaway)
        return found(e, e->torque.margin, torqueBreakawayText,
                     {{{Kind::Torque, e->torque.breakaway}, {Kind::Torque, atRest}}});
    return found(e, e->torque.margin, torqueText,
                 {{{Kind::Torque, e->torque.needed},
                   {Kind::Torque, e->torque.available},
                   {Kind::RotationRate, e->motion.motorSpeed}}});
}

constinit const Rule torque =
    judging(criteria::torque, {"Torque over the ramp"}, judge, words::listOf<torqueBreakawayText, torqueText>,
            tries<&fixes::runCurrent, &fixes::knobUp, &fixes::shotAcceleration, &fixes::slowerShot,
                  &fixes::outputTeeth, &fixes::reduction, &fixes::supplyVoltage>,
            [](const AxisView& view) { return view.evaluation.model.wantedMargin; });

} // namespace gantry::rules
