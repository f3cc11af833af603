// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message rampText{"“{part}” needs {0} at {2}; the motor has {1} at that speed."};
constexpr Message carriedText{
    "“{part}” needs {0} at {2}, of it {3} for what the other axes push back; the motor has {1}."};
constexpr Message startText{"“{part}” needs {0} to break away from rest at {2}; the motor has {1}."};

/// Torque available over needed at the worst moment of the worst move, with the weight of that place and what
/// other axes bring there.
static Finding judgeMoveTorque(const AxisView& view) {
    const AxisMoveResults* m = worstAxisMove(view, [](const AxisMoveResults& r) { return r.margin; });
    if (m == nullptr) return std::nullopt;
    // What other axes bring against its way, as the motor feels it; below a tenth it explains nothing.
    const Figure carried = m->carried * view.evaluation.model.outputPerRad;
    const bool much = carried && m->needed && carried.value() > 0.1 * m->needed.value();
    Verdict v = found(nullptr, m->margin,
                      m->starts ? startText
                      : much    ? carriedText
                                : rampText,
                      {{{Kind::Torque, m->needed},
                        {Kind::Torque, m->available},
                        {Kind::Time, m->at},
                        {Kind::Torque, carried}}});
    nameMove(v, view.project, m->move, m->at);
    return v;
}

constinit const Rule moveTorque = advising(
    {"The move needs more than the motor has: more time, less weight, more ratio or a larger motor."},
    judgingMoves(criteria::moveTorque, {"Torque along the move"}, judgeMoveTorque,
                 words::listOf<rampText, carriedText, startText>,
                 tries<&fixes::moveSlower, &fixes::runCurrent, &fixes::counterweight, &fixes::balanceHead,
                       &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront, &fixes::balanceWeight,
                       &fixes::supplyVoltage, &fixes::largerMotor>,
                 [](const AxisView& view) { return view.evaluation.model.wantedMargin; }));

} // namespace gantry::rules
