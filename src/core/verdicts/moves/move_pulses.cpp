// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message pulsesText{
    "“{part}” needs {0} of step pulses at its fastest; the controller can send {1}."};

static Finding judgeMovePulses(const AxisView& view) {
    const double ceiling = view.evaluation.model.pulseCeiling;
    const auto ratio = [&](const AxisMoveResults& r) { return allowedOver(ceiling, r.pulseRate); };
    const AxisMoveResults* m = worstAxisMove(view, ratio);
    if (m == nullptr) return std::nullopt;
    Verdict v = found(nullptr, ratio(*m), pulsesText,
                      {{{Kind::Frequency, m->pulseRate}, {Kind::Frequency, ceiling}}});
    nameMove(v, view.project, m->move);
    return v;
}

constinit const Rule movePulses = advising(
    {"Only a slower move, coarser microsteps, less ratio or a faster controller lowers the rate."},
    judgingMoves(
        criteria::movePulses, {"Pulses along the move"}, judgeMovePulses, words::listOf<pulsesText>,
        tries<&fixes::coarserMicrosteps, &fixes::moveSlower, &fixes::outputTeeth, &fixes::controllerPulses>));

} // namespace gantry::rules
