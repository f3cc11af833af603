// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/criteria/criteria.h"
#include "core/verdicts/verdict.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <span>

/// One rule a file; a rule is added by its file, its declaration and its line in rules.cpp.
namespace gantry::rules {

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
    /// Place of a part in the drive, counted from the motor: 1 is the first link.
    double partNumber(const PartCheck& part) const {
        return part.link < 0 ? static_cast<double>(axis.links.size()) + 1.0 : part.link + 1.0;
    }
    /// Whether it is a printed part.
    bool printed(const PartCheck& part) const;
    bool linear() const { return evaluation.model.kind == AxisKind::Linear; }
    const Shot& shot(const ShotEvaluation& e) const {
        return project.shots[static_cast<std::size_t>(e.shot)];
    }
};

/// A rule's answer; nothing when it has nothing to say about this axis.
using Finding = std::optional<Verdict>;

/// What a rule about the whole rig sees.
struct RigView {
    const Project& project;
    const Evaluation& evaluation;
};

/// A rule judges one axis or the whole rig; the other function is null.
struct Rule {
    criteria::Criterion wants; ///< its id is the rule's stable id in JSON and in set-aside verdicts
    words::MessageId title;
    Finding (*judge)(const AxisView&);
    Finding (*judgeRig)(const RigView&) = nullptr;

    constexpr std::string_view key() const { return wants.id; }
    constexpr Bounds bounds() const { return {wants.value, wants.oversizedFrom}; }
};

std::span<const Rule> all();

/// Index of a rule by its key; −1 if there is none.
int indexOf(std::string_view key);

/// The shot that binds a rule: the one in which `ratioOf` is least. A shot without a number beats all others,
/// so that what is missing is said. Null if the axis has no shot.
template <class F>
const ShotEvaluation* bindingShot(const AxisView& view, F ratioOf) {
    const ShotEvaluation* worst = nullptr;
    double least = 0.0;
    for (const ShotEvaluation& e : view.evaluation.shots) {
        const double ratio = ratioOf(e);
        if (!std::isfinite(ratio) && e.problem != Reason::None) return &e;
        if (worst == nullptr || ratio < least || !std::isfinite(ratio)) {
            worst = &e;
            least = ratio;
        }
    }
    return worst;
}

/// A verdict about a shot with its ratio; Unknown with the reason if there is no number.
Verdict found(const ShotEvaluation* shot, double ratio, Reason reason, words::MessageId sentence,
              words::Arguments arguments);

/// `allowed` over `actual`; a huge but finite ratio when the actual error is zero.
inline double allowedOver(double allowed, double actual) {
    return actual > 0.0 ? std::min(allowed / actual, 1e6) : actual == 0.0 ? 1e6 : actual;
}

Finding torque(const AxisView&);
Finding pulseRate(const AxisView&);
Finding powerOff(const AxisView&);
Finding standstill(const AxisView&);
Finding resonance(const AxisView&);
Finding stepping(const AxisView&);
Finding drift(const AxisView&);
Finding jitter(const AxisView&);
Finding repeatError(const AxisView&);
Finding framing(const AxisView&);
Finding backlash(const AxisView&);
Finding judder(const AxisView&);
Finding rounding(const AxisView&);
Finding motorCurrent(const AxisView&);
Finding driverRating(const AxisView&);
Finding stopping(const AxisView&);
Finding travel(const AxisView&);
Finding settings(const AxisView&);
Finding ease(const AxisView&);
Finding oversize(const AxisView&);
Finding duty(const AxisView&);
Finding caseTemperature(const AxisView&);
Finding regulatorHeat(const AxisView&);
Finding vibration(const AxisView&);
Finding shaftLoad(const AxisView&);
Finding noise(const AxisView&);
Finding motorSpeed(const AxisView&);
Finding following(const AxisView&);
Finding servoRange(const AxisView&);
Finding toothStrength(const AxisView&);
Finding gearForm(const AxisView&);
Finding beltMesh(const AxisView&);
Finding grip(const AxisView&);
Finding cordSlack(const AxisView&);
Finding cordStrength(const AxisView&);
Finding whirl(const AxisView&);
Finding buckling(const AxisView&);
Finding guides(const AxisView&);
Finding binding(const AxisView&);
Finding bearingLoad(const AxisView&);
Finding frictionSources(const AxisView&);
Finding emergencyStop(const AxisView&);
Finding lensRing(const AxisView&);
Finding panBar(const AxisView&);
Finding sag(const AxisView&);
Finding settling(const AxisView&);
Finding railTipping(const AxisView&);
Finding railClamps(const AxisView&);
Finding beamStrength(const AxisView&);
Finding pivot(const AxisView&);
Finding balance(const AxisView&);
Finding handDriven(const AxisView&);
Finding tipping(const RigView&);
Finding anchors(const RigView&);
Finding tether(const RigView&);
Finding clearance(const RigView&);
Finding weight(const RigView&);
Finding money(const RigView&);

} // namespace gantry::rules
