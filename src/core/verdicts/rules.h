// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/criteria/criteria.h"
#include "core/verdicts/fixes/families.h"
#include "core/verdicts/verdict.h"
#include "core/words/part_name.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <span>

/// A rule is added by its file, its name at the end of this header and its place in rules.cpp.
namespace gantry::rules {

using units::Kind;
using words::Message;

/// What a rule sees of an axis.
struct AxisView {
    const Project& project;
    const Axis& axis;
    const AxisEvaluation& evaluation;

    units::Kind travelKind() const { return linear() ? units::Kind::Length : units::Kind::Angle; }
    units::Kind speedKind() const { return linear() ? units::Kind::Speed : units::Kind::AngularSpeed; }
    units::Kind accelerationKind() const {
        return linear() ? units::Kind::Acceleration : units::Kind::AngularAcceleration;
    }
    units::Kind jerkKind() const { return linear() ? units::Kind::Jerk : units::Kind::AngularJerk; }
    units::Kind forceKind() const { return linear() ? units::Kind::Force : units::Kind::Torque; }
    /// Force for belts, teeth and linear outputs, torque for the rest.
    units::Kind partKind(const PartCheck& part) const;
    /// A verdict whose sentence names a part of the drive.
    Verdict naming(Verdict verdict, const PartCheck& part) const {
        verdict.part = words::partName(axis, part.link);
        return verdict;
    }
    /// Whether it is a printed part.
    bool printed(const PartCheck& part) const;
    bool linear() const { return evaluation.model.kind == AxisKind::Linear; }
    const Shot& shot(const ShotEvaluation& e) const { return project.shots[e.shot.at()]; }
};

/// A rule's answer; nothing when it has nothing to say about this axis.
using Finding = std::optional<Verdict>;

/// What a rule about the whole rig sees.
struct RigView {
    const Project& project;
    const Evaluation& evaluation;
};

/// A rule and everything that belongs to it: the ratio it wants, its words, how it judges and what may mend
/// it. One file a rule, in the folder of its topic. It judges one axis or the whole rig; the other function
/// is null.
struct Rule {
    criteria::Criterion wants; ///< its id is the rule's stable id in JSON and in set-aside verdicts
    Message title;
    std::span<const Message> sentences; ///< every one that it may say, beside that a figure is unknown
    Finding (*judge)(const AxisView&) = nullptr;
    Finding (*judgeRig)(const RigView&) = nullptr;
    std::span<const fixes::Family* const> fixes{}; ///< what to try, all of them
    double (*wanted)(const AxisView&) = nullptr;   ///< where the builder says how much is wanted
    bool namesAxis = false;   ///< a rule about the whole rig that says itself which axis it concerns
    bool anyAxis = false;     ///< a rule about moves, which are of all axes at once
    bool alongMoves = false;  ///< a rule about what an axis does in moves
    bool leastInside = false; ///< the ratio may be least between the ends of an input's range
    bool harmless = false;    ///< what holds as entered is tight at worst, whatever its low end
    Message advice{};         ///< what would have to change, where nothing that can be offered does it

    constexpr std::string_view key() const { return wants.id; }
    constexpr Bounds bounds() const { return {wants.value, wants.oversizedFrom}; }
};

/// Families of fixes in a row, for the rule that tries them.
template <const fixes::Family*... Families>
inline constexpr std::array<const fixes::Family*, sizeof...(Families)> tries{Families...};

/// A rule that judges one axis, and one that judges the whole rig.
constexpr Rule judging(const criteria::Criterion& wants, Message title, Finding (*judge)(const AxisView&),
                       std::span<const Message> sentences, std::span<const fixes::Family* const> fixes = {},
                       double (*wanted)(const AxisView&) = nullptr) {
    return {wants, title, sentences, judge, nullptr, fixes, wanted};
}
constexpr Rule judging(const criteria::Criterion& wants, Message title, Finding (*judge)(const RigView&),
                       std::span<const Message> sentences, std::span<const fixes::Family* const> fixes = {}) {
    return {wants, title, sentences, nullptr, judge, fixes, nullptr};
}

/// A rule that judges what one axis does in moves; the others look at nothing of it.
constexpr Rule judgingMoves(const criteria::Criterion& wants, Message title,
                            Finding (*judge)(const AxisView&), std::span<const Message> sentences,
                            std::span<const fixes::Family* const> fixes = {},
                            double (*wanted)(const AxisView&) = nullptr) {
    Rule rule = judging(wants, title, judge, sentences, fixes, wanted);
    rule.alongMoves = true;
    return rule;
}

/// The same rule, which says itself which axis it concerns.
constexpr Rule namingAxis(Rule rule) {
    rule.namesAxis = true;
    return rule;
}

/// The same rule, about something that all axes do together: it is looked at whichever of them is in hand.
constexpr Rule ofAllAxes(Rule rule) {
    rule.anyAxis = true;
    return rule;
}

/// The same rule, with what to say where no fix is found.
constexpr Rule advising(Message advice, Rule rule) {
    rule.advice = advice;
    return rule;
}

/// The same rule, its ratio least perhaps between the ends of an input's range.
constexpr Rule leastInside(Rule rule) {
    rule.leastInside = true;
    return rule;
}

/// The same rule, about something that does no harm while it holds as entered.
constexpr Rule harmless(Rule rule) {
    rule.harmless = true;
    return rule;
}

/// Every rule, in the order of verdicts.
std::span<const Rule* const> all();

/// Index of a rule by its key; −1 if there is none.
int indexOf(std::string_view key);

/// The shot that binds a rule: the one in which `ratioOf`, a Figure, is least. A shot without a number beats
/// all others, so that what is missing is said. Null if the axis has no shot.
template <class F>
const ShotEvaluation* bindingShot(const AxisView& view, F ratioOf) {
    const ShotEvaluation* worst = nullptr;
    Figure least;
    for (const ShotEvaluation& e : view.evaluation.shots) {
        const Figure ratio = ratioOf(e);
        if (!ratio && e.problem != Reason::None) return &e;
        if (worst == nullptr || !ratio || (least && ratio.value() < least.value())) {
            worst = &e;
            least = ratio;
        }
    }
    return worst;
}

/// A verdict about a shot with its ratio; Unknown with the reason, the shot's own first, if there is no
/// number.
Verdict found(const ShotEvaluation* shot, const Figure& ratio, Message sentence, words::Arguments arguments);

/// The part of the drive with the least of a ratio, of those for which it has a meaning. Null if there is
/// none.
const PartCheck* worstPart(const AxisView& view, Figure PartCheck::*ratio);

/// A ratio that stands for any that is larger: there is so much more than enough that how much says nothing.
inline constexpr double plenty = 1e6;

/// What is allowed over what there is, at most `plenty`, also where there is nothing at all.
inline Figure allowedOver(const Figure& allowed, const Figure& actual) {
    if (!actual || !allowed) return allowed / actual;
    return actual.value() > 0.0    ? std::min(allowed.value() / actual.value(), plenty)
           : actual.value() == 0.0 ? plenty
                                   : actual.value();
}

/// A travel of the axis in the picture of a shot [px]; nothing where the drive has no such spring.
inline Figure seen(const Figure& travel, const ShotEvaluation& e) {
    return travel.reason() == Reason::NotApplicable ? Figure(0.0) : travel * e.pixelsPerUnit;
}

/// What Brief allows over what there is; nothing where either is not known.
Finding withinBudget(double allowed, const Figure& actual, Kind kind, Message sentence);

// motor/
extern const Rule torque, resonance, motorCurrent, driverRating, oversize, duty, caseTemperature,
    regulatorHeat, shaftLoad, noise, motorSpeed, speedSpan, start, following, servoRange, handDriven;
// holding/
extern const Rule powerOff, standstill, emergencyStop, nearPeople;
// controller/
extern const Rule pulseRate, rounding, stopping, travel, settings, ease;
// picture/
extern const Rule stepping, vibration, drift, jitter, repeatError, framing, backlash, judder, guides,
    focusPull, lensRing, panBar;
// parts/
extern const Rule toothStrength, gearForm, beltMesh, grip, cordSlack, cordStrength, layers, drumRoom,
    beltPreload, whirl, buckling, binding, bearingLoad, frictionSources;
// structure/
extern const Rule sag, settling, railTipping, railClamps, beamStrength, pivot, balance;
// rig/
extern const Rule tipping, anchors, tether, clearance, supply, weight, money;
// moves/
extern const Rule movePlan, moveLimits, moveTravel, moveFraming, moveTorque, movePulses, moveResonance,
    moveTipping, moveClearance, moveOwnParts, moveFocus, moveJudder, moveStepping, moveJitter, moveDrift,
    moveHorizon, moveHeld, moveApproach, moveRunOn, moveChoices;
// intervals/
extern const Rule planRun, planRoom, planStill, planTravel, planBlur, planSteps, planStorage, planBattery,
    planFalls, planHead, planTimers, planTrigger, planSensor, planPace, planHeat;
// told/
extern const Rule claim, claimPower, movingMass, stepsSet;

} // namespace gantry::rules
