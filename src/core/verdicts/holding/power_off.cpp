// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/kind_traits.h"
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message powerOffBrakeText{"The brake holds {1} at the motor; gravity pulls with {0}."};
constexpr Message powerOffLocksText{"Only the self-locking worm or screw holds {0} of gravity, and only at "
                                    "rest: vibration can let it creep. Secure the camera before leaving it."};
constexpr Message powerOffSecondText{
    "Only the self-locking worm or screw holds {0} of gravity, and only at rest: vibration can let it creep. "
    "Over or near people fit a second hold: a brake or a strap."};
constexpr Message powerOffFallsText{
    "Without power {axis} runs down: gravity pulls {0}, friction holds about {1}. It reaches the end at {3} "
    "({2}). Friction is no brake; secure the camera and keep hands clear."};
constexpr Message powerOffFrictionText{"Without power only friction of about {1} holds {axis} against {0} of "
                                       "gravity. Friction is no brake; secure the camera before leaving it."};

constexpr Message powerOffTurnsText{
    "Without power it turns: weight or spring pull it round with {0}, friction holds about {1}. Nothing "
    "falls; hold it before the power goes."};

/// Whether what falls may fall on somebody: a rig that hangs, or one with people near it.
static bool overOrNearPeople(const Project& p) {
    return p.base.kind == BaseKind::Overhead || p.conditions.energyNearPeople > 0.0 ||
           p.conditions.speedNearPeople > 0.0;
}

/// What holds an axis that gravity pulls when power goes. Friction and detent never make it fine.
static Finding judgePowerOff(const AxisView& view) {
    const PowerOff& off = view.evaluation.powerOff;
    if (!off.loaded) return std::nullopt;
    Verdict v;
    if (upright(view.axis) && !off.brakeRatio && !view.evaluation.checks.locks) {
        // A pan that leans or is preloaded comes round; that is a nuisance and no fall.
        v = found(nullptr, greater(1.0, off.friction / off.gravity), powerOffTurnsText,
                  {{{view.forceKind(), off.gravity}, {view.forceKind(), off.friction}}});
        v.ceiling = State::Tight;
        return v;
    }
    if (off.brakeRatio) {
        v = found(nullptr, off.brakeRatio, powerOffBrakeText,
                  {{{Kind::Torque, view.evaluation.holdNeeded},
                    {Kind::Torque, view.axis.brake.holdingTorque.value}}});
    } else if (view.evaluation.checks.locks) {
        v = found(nullptr, greater(1.0, off.friction / off.gravity),
                  overOrNearPeople(view.project) ? powerOffSecondText : powerOffLocksText,
                  {{{view.forceKind(), off.gravity}}});
        v.ceiling = State::Tight;
    } else {
        v = found(nullptr, off.friction / off.gravity, off.falls ? powerOffFallsText : powerOffFrictionText,
                  {{{view.forceKind(), off.gravity},
                    {view.forceKind(), off.friction},
                    {Kind::Energy, off.energy},
                    {view.speedKind(), off.speed}}});
        v.ceiling = State::Tight;
    }
    v.hazard = true;
    return v;
}

constinit const Rule powerOff =
    advising({"Only balance, a brake or a drive that cannot be driven back holds it. Until then, strap or "
              "prop it, and keep clear."},
             judging(criteria::powerOff, {"Power-off holding"}, judgePowerOff,
                     words::listOf<powerOffBrakeText, powerOffLocksText, powerOffSecondText,
                                   powerOffFallsText, powerOffFrictionText, powerOffTurnsText>,
                     tries<&fixes::balanceHead, &fixes::counterweight, &fixes::brake, &fixes::balanceWeight,
                           &fixes::locking>));

} // namespace gantry::rules
