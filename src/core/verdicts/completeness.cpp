// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/completeness.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using M = words::MessageId;
constexpr double fullTurn = 2.0 * std::numbers::pi;

/// Depth of field [m] in front of and behind the subject together, for a circle of confusion of a 1500th of
/// the sensor's width: 2 N c s²/f², for subjects well nearer than the hyperfocal distance.
double depthOfField(const Camera& camera, const Shot& shot) {
    const double circle = camera.sensorWidth / 1500.0;
    return 2.0 * shot.fNumber * circle * shot.subjectDistance * shot.subjectDistance /
           (shot.focalLength * shot.focalLength);
}

/// Whether a slide that keeps its subject framed takes it out of focus.
bool losesFocus(const Project& p) {
    for (const Shot& shot : p.shots) {
        if (!shot.keepFramed) continue;
        for (const ShotMove& move : shot.moves) {
            if (kindOf(move.movement) != AxisKind::Linear) continue;
            const double travel = std::abs(distanceOf(move.movement));
            const double aside =
                travel * std::max(std::abs(shot.subjectPlace), std::abs(1.0 - shot.subjectPlace));
            const double change = std::hypot(shot.subjectDistance, aside) - shot.subjectDistance;
            if (change > 0.5 * depthOfField(p.camera, shot)) return true;
        }
    }
    return false;
}

} // namespace

std::vector<CompletenessLine> completeness(const Project& p, const Evaluation& evaluation) {
    std::vector<CompletenessLine> out;
    const auto add = [&](M what, bool needed, M why, bool there) {
        out.push_back({what, needed ? why : M::CheckNotNeeded,
                       !needed ? Completeness::NotNeeded
                       : there ? Completeness::There
                               : Completeness::Missing});
    };
    const auto any = [&](auto test) { return std::any_of(p.axes.begin(), p.axes.end(), test); };
    const bool ends = any([](const Axis& a) {
        const auto* r = std::get_if<RotaryMechanism>(&a.mechanism);
        return r == nullptr || r->range < fullTurn;
    });
    const bool turns = any([](const Axis& a) {
        const auto* r = std::get_if<RotaryMechanism>(&a.mechanism);
        return r != nullptr && r->range > 1.25 * fullTurn && a.role != Role::Turntable;
    });
    const bool pulses = any([](const Axis& a) {
        return !std::holds_alternative<GearedDc>(a.motor) && !std::holds_alternative<HobbyServo>(a.motor);
    });
    const bool boom = any([](const Axis& a) { return a.role == Role::BoomTilt; });
    const bool weighted = any([](const Axis& a) {
        const auto* r = std::get_if<RotaryMechanism>(&a.mechanism);
        if (r == nullptr || a.role != Role::BoomTilt) return false;
        return r->boom.counterweight.mass.value > 0.0 || r->spring.torqueAtLow.value > 0.0 ||
               std::any_of(r->items.begin(), r->items.end(), [](const MassItem& i) { return i.along < 0.0; });
    });
    bool falls = false, asked = true, loaded = false;
    for (std::size_t i = 0; i < evaluation.axes.size() && i < p.axes.size(); ++i) {
        falls = falls || evaluation.axes[i].powerOff.falls;
        loaded = loaded || evaluation.axes[i].powerOff.loaded;
        if (evaluation.axes[i].powerOff.loaded) asked = asked && p.axes[i].onStop != OnStop::NotAsked;
    }
    const bool overhead = p.base.kind == BaseKind::Overhead;
    const Equipment& e = p.equipment;
    add(M::CheckFollowFocus, losesFocus(p), M::CheckFollowFocusWhy,
        any([](const Axis& a) { return a.role == Role::Focus; }));
    add(M::CheckEndStops, ends, M::CheckEndStopsWhy, e.endStops);
    add(M::CheckBlocks, ends, M::CheckBlocksWhy, e.hardBlocks);
    add(M::CheckHoming, pulses, M::CheckHomingWhy, e.homing);
    add(M::CheckCables, !p.axes.empty(), M::CheckCablesWhy, e.cablePath);
    add(M::CheckSlipRing, turns, M::CheckSlipRingWhy, e.slipRing);
    add(M::CheckCounterweight, boom, M::CheckCounterweightWhy, weighted);
    add(M::CheckTieDown, boom || falls, M::CheckTieDownWhy, e.tieDown);
    add(M::CheckCatchStrap, boom || overhead || loaded, M::CheckCatchStrapWhy,
        e.catchStrap || (overhead && p.base.tethered));
    add(M::CheckEmergencyStop, !p.axes.empty(), M::CheckEmergencyStopWhy, e.emergencyStop && asked);
    add(M::CheckSpareParts, !p.axes.empty(), M::CheckSparePartsWhy, e.spareParts);
    return out;
}

} // namespace gantry
