// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"
#include "core/model/kind_traits.h"

#include <algorithm>

namespace gantry::rules {
namespace {

constexpr std::array table{&torque,
                           &pulseRate,
                           &powerOff,
                           &standstill,
                           &resonance,
                           &stepping,
                           &vibration,
                           &drift,
                           &jitter,
                           &repeatError,
                           &framing,
                           &backlash,
                           &focusPull,
                           &judder,
                           &rounding,
                           &motorCurrent,
                           &driverRating,
                           &stopping,
                           &travel,
                           &settings,
                           &ease,
                           &oversize,
                           &duty,
                           &caseTemperature,
                           &regulatorHeat,
                           &shaftLoad,
                           &noise,
                           &motorSpeed,
                           &speedSpan,
                           &start,
                           &following,
                           &servoRange,
                           &toothStrength,
                           &gearForm,
                           &beltMesh,
                           &beltPreload,
                           &grip,
                           &cordSlack,
                           &cordStrength,
                           &layers,
                           &drumRoom,
                           &whirl,
                           &buckling,
                           &guides,
                           &binding,
                           &bearingLoad,
                           &frictionSources,
                           &emergencyStop,
                           &lensRing,
                           &panBar,
                           &sag,
                           &settling,
                           &railTipping,
                           &railClamps,
                           &beamStrength,
                           &pivot,
                           &balance,
                           &handDriven,
                           &nearPeople,
                           &stepsSet,
                           &claim,
                           &claimPower,
                           &movingMass,
                           &tipping,
                           &anchors,
                           &tether,
                           &clearance,
                           &supply,
                           &weight,
                           &money,
                           &movePlan,
                           &moveLimits,
                           &moveTravel,
                           &moveFraming,
                           &moveTorque,
                           &movePulses,
                           &moveResonance,
                           &moveTipping,
                           &moveClearance,
                           &moveOwnParts,
                           &moveFocus,
                           &moveJudder,
                           &moveStepping,
                           &moveJitter,
                           &moveDrift,
                           &moveHorizon,
                           &moveHeld,
                           &moveApproach,
                           &moveRunOn,
                           &moveChoices,
                           &planRun,
                           &planRoom,
                           &planStill,
                           &planTravel,
                           &planBlur,
                           &planSteps,
                           &planStorage,
                           &planBattery,
                           &planFalls,
                           &planHead,
                           &planTimers,
                           &planTrigger,
                           &planSensor,
                           &planPace,
                           &planHeat};

} // namespace

std::span<const Rule* const> all() {
    return table;
}

int indexOf(std::string_view key) {
    const auto it = std::find_if(table.begin(), table.end(), [&](const Rule* r) { return r->key() == key; });
    return it == table.end() ? -1 : static_cast<int>(it - table.begin());
}

units::Kind AxisView::partKind(const PartCheck& part) const {
    if (part.link < 0) return forceKind();
    const LinkTraits link = traitsOf(axis.links[static_cast<std::size_t>(part.link)]);
    return link.pullsForce ? units::Kind::Force : units::Kind::Torque;
}

bool AxisView::printed(const PartCheck& part) const {
    if (part.link < 0) return false;
    const auto* gear = std::get_if<GearStage>(&axis.links[static_cast<std::size_t>(part.link)]);
    return gear != nullptr &&
           (gear->material == GearMaterial::PrintedPla || gear->material == GearMaterial::PrintedPetg);
}

Verdict found(const ShotEvaluation* shot, const Figure& ratio, Message sentence, words::Arguments arguments) {
    Verdict v;
    v.shot = shot != nullptr ? shot->shot : ShotIndex();
    v.ratio = ratio || shot == nullptr || shot->problem == Reason::None ? ratio : Figure::none(shot->problem);
    if (v.ratio) {
        v.sentence = sentence;
        v.arguments = arguments;
    }
    return v;
}

const PartCheck* worstPart(const AxisView& view, Figure PartCheck::*ratio) {
    const PartCheck* worst = nullptr;
    for (const PartCheck& p : view.evaluation.checks.parts)
        if ((p.*ratio).reason() != Reason::NotApplicable &&
            (worst == nullptr || less(p.*ratio, worst->*ratio)))
            worst = &p;
    return worst;
}

Finding withinBudget(double allowed, const Figure& actual, Kind kind, Message sentence) {
    if (allowed <= 0.0 || !actual) return std::nullopt;
    return found(nullptr, allowedOver(allowed, actual), sentence, {{{kind, actual}, {kind, allowed}}});
}

} // namespace gantry::rules
