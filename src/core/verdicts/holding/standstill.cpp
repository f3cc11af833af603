// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message standstillText{
    "At standstill gravity pulls with {0} at the motor; the hold current holds {1}."};

static Finding judgeStandstill(const AxisView& view) {
    if (!view.evaluation.powerOff.loaded) return std::nullopt;
    const AxisEvaluation& e = view.evaluation;
    // A motor that is simply switched on holds nothing by current: what its load does is power-off holding.
    if (e.model.dc() != nullptr && !(e.model.commandAngle > 0.0)) return std::nullopt;
    Verdict v = found(nullptr, e.holdAvailable / e.holdNeeded, standstillText,
                      {{{Kind::Torque, e.holdNeeded}, {Kind::Torque, e.holdAvailable}}});
    v.hazard = true;
    return v;
}

constinit const Rule standstill = advising(
    {"Standing still needs more holding torque: balance it, gear it down, or fit a brake for pauses."},
    judging(criteria::standstill, {"Holding at standstill"}, judgeStandstill, words::listOf<standstillText>,
            tries<&fixes::holdCurrent, &fixes::runCurrent, &fixes::counterweight, &fixes::balanceHead,
                  &fixes::balanceWeight, &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront,
                  &fixes::largerMotor>));

} // namespace gantry::rules
