// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/kind_traits.h"
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message stopFallsText{"An emergency stop or reset lets it run down: gravity pulls {0}, and it "
                                "reaches the end at {2} ({1}). Secure the camera and keep hands clear."};
constexpr Message stopGivesWayText{
    "After an emergency stop or reset the holding current does not hold gravity of {0}: it "
    "falls. Secure the camera and keep hands clear."};
constexpr Message stopCreepsText{"After an emergency stop or reset only friction or a self-locking thread "
                                 "holds {0}; shaking lets it creep. Do not rely on it."};
constexpr Message stopStaysText{"What holds after an emergency stop or reset outweighs gravity of {0}."};

constexpr Message stopTurnsText{"After an emergency stop or reset weight or spring turn it with {0}. Nothing "
                                "falls; it may lose its place."};

/// What an emergency stop or a reset does to an axis that gravity pulls.
static Finding judgeEmergencyStop(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (!e.powerOff.loaded) return std::nullopt;
    // Friction and threads that lock are no brake, however far they outweigh gravity.
    const bool held = e.powerOff.brakeRatio || (holdsAfter(view.axis.onStop) && e.model.holdAmplitude > 0.0);
    if (upright(view.axis) && !held) {
        Verdict v = found(nullptr, greater(1.0, e.stop.ratio), stopTurnsText,
                          {{{view.forceKind(), e.powerOff.gravity}}});
        v.ceiling = State::Tight;
        return v;
    }
    const auto text = [&] {
        switch (e.stop.outcome) {
        case StopOutcome::Falls:
            // Where it would not fall without current, nothing says how far it comes.
            return e.powerOff.energy && e.powerOff.speed ? stopFallsText : stopGivesWayText;
        case StopOutcome::Creeps:
            return stopCreepsText;
        case StopOutcome::Stays:
        case StopOutcome::Unknown:
            break;
        }
        return held ? stopStaysText : stopCreepsText;
    };
    Verdict v = found(nullptr, e.stop.ratio, text(),
                      {{{view.forceKind(), e.powerOff.gravity},
                        {Kind::Energy, e.powerOff.energy},
                        {view.speedKind(), e.powerOff.speed}}});
    if (!held) v.ceiling = State::Tight;
    v.hazard = true;
    return v;
}

constinit const Rule emergencyStop = advising(
    {"Only a brake or a balance holds when the stop cuts the current; keep clear."},
    judging(criteria::emergencyStop, {"Emergency stop"}, judgeEmergencyStop,
            words::listOf<stopFallsText, stopGivesWayText, stopCreepsText, stopStaysText, stopTurnsText>,
            tries<&fixes::balanceHead, &fixes::counterweight, &fixes::stopBehaviour, &fixes::holdCurrent,
                  &fixes::brake, &fixes::balanceWeight, &fixes::locking>));

} // namespace gantry::rules
