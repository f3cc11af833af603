// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message resonanceInsideText{
    "Shot “{shot}” cruises at {0}, inside the rotor's resonance from {1} to {2} ({3})."};
constexpr Message resonanceText{
    "Shot “{shot}” cruises at {0}; the rotor's resonance lies from {1} to {2} ({3})."};

constexpr Message resonanceSecondText{"“{shot}” cruises at {0}; the rotor resonates against the drive from "
                                      "{1} to {2} ({3}) and is loud there."};

/// Cruise speed over a band, or the band over it, whichever is more than 1; below 1 inside.
static Figure clearOf(const Figure& speed, const Figure& low, const Figure& high) {
    if (low.reason() == Reason::NotApplicable) return plenty;
    return lesser(greater(speed / high, low / speed), plenty);
}

/// Cruise speed against the bands in which full steps meet a natural frequency: rotor and load together in
/// the field, and the rotor against the drive's spring. Ramps cross them quickly.
static Finding judgeResonance(const AxisView& view) {
    if (!view.evaluation.model.stepper()) return std::nullopt;
    const RotorResonance& r = view.evaluation.resonance;
    const auto first = [&](const ShotEvaluation& s) { return clearOf(s.motion.topSpeed, r.low, r.high); };
    const auto second = [&](const ShotEvaluation& s) {
        // There the load hardly moves: it sings, and loses no steps while there is torque to spare.
        constexpr double tight = 1.05;
        return greater(clearOf(s.motion.topSpeed, r.secondLow, r.secondHigh), tight);
    };
    const auto ratio = [&](const ShotEvaluation& s) { return lesser(first(s), second(s)); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || (ratio(*e) && !less(ratio(*e), plenty))) return std::nullopt;
    if (less(second(*e), first(*e)))
        return found(e, second(*e), resonanceSecondText,
                     {{{view.speedKind(), e->motion.topSpeed},
                       {view.speedKind(), r.secondLow},
                       {view.speedKind(), r.secondHigh},
                       {Kind::Frequency, r.second}}});
    return found(e, ratio(*e), less(ratio(*e), 1.0) ? resonanceInsideText : resonanceText,
                 {{{view.speedKind(), e->motion.topSpeed},
                   {view.speedKind(), r.low},
                   {view.speedKind(), r.high},
                   {Kind::Frequency, r.frequency}}});
}

constinit const Rule resonance =
    advising({"Keep its speed out of the band: another speed, current or ratio, or a damper on the shaft."},
             leastInside(judging(criteria::resonance, {"Distance from resonance"}, judgeResonance,
                                 words::listOf<resonanceInsideText, resonanceText, resonanceSecondText>,
                                 tries<&fixes::lowerRunCurrent, &fixes::fasterShot, &fixes::slowerShot,
                                       &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront>)));

} // namespace gantry::rules
