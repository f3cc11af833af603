// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/completeness.h"
#include "core/model/kind_traits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using words::Message;
constexpr Message notNeeded{"not needed by this rig"};
constexpr Message followFocus{"Follow focus"};
constexpr Message followFocusWhy{"the subject leaves the depth of field while it is kept framed"};
constexpr Message endStops{"End switches"};
constexpr Message endStopsWhy{"axes whose travel ends run into something when a count is lost"};
constexpr Message blocks{"Blocks behind the switches"};
constexpr Message blocksWhy{"switches fail; a block stops what they do not"};
constexpr Message homing{"Homing place"};
constexpr Message homingWhy{"drives that count need a place to count from"};
constexpr Message cables{"Cable path"};
constexpr Message cablesWhy{"cables that snag pull the picture and the plug"};
constexpr Message slipRing{"Slip ring"};
constexpr Message slipRingWhy{"an axis turns more than once and winds its cables up"};
constexpr Message counterweight{"Counterweight"};
constexpr Message counterweightWhy{"a boom without one is held by its motor alone"};
constexpr Message tieDown{"Tie-down"};
constexpr Message tieDownWhy{"what can fall or swing up must be tied when nobody holds it"};
constexpr Message catchStrap{"Catch strap"};
constexpr Message catchStrapWhy{"a clamp lets go once; the strap catches the camera"};
constexpr Message emergencyStop{"Emergency stop, tried"};
constexpr Message emergencyStopWhy{"a stop within reach, tried on every axis that gravity pulls"};
constexpr Message spareParts{"Spare parts"};
constexpr Message sparePartsWhy{"belt, cord, fuse and driver fail on the day"};
constexpr std::array everyText{notNeeded,        followFocus, followFocusWhy, endStops,      endStopsWhy,
                               blocks,           blocksWhy,   homing,         homingWhy,     cables,
                               cablesWhy,        slipRing,    slipRingWhy,    counterweight, counterweightWhy,
                               tieDown,          tieDownWhy,  catchStrap,     catchStrapWhy, emergencyStop,
                               emergencyStopWhy, spareParts,  sparePartsWhy};
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
    const auto add = [&](const Message& what, bool needed, const Message& why, bool there) {
        out.push_back({what, needed ? why : notNeeded,
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
    const bool pulses = any([](const Axis& a) { return motorTraits(a).takesPulses; });
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
    add(followFocus, losesFocus(p), followFocusWhy, any([](const Axis& a) { return a.role == Role::Focus; }));
    add(endStops, ends, endStopsWhy, e.endStops);
    add(blocks, ends, blocksWhy, e.hardBlocks);
    add(homing, pulses, homingWhy, e.homing);
    add(cables, !p.axes.empty(), cablesWhy, e.cablePath);
    add(slipRing, turns, slipRingWhy, e.slipRing);
    add(counterweight, boom, counterweightWhy, weighted);
    add(tieDown, boom || falls, tieDownWhy, e.tieDown);
    add(catchStrap, boom || overhead || loaded, catchStrapWhy, e.catchStrap || (overhead && p.base.tethered));
    add(emergencyStop, !p.axes.empty(), emergencyStopWhy, e.emergencyStop && asked);
    add(spareParts, !p.axes.empty(), sparePartsWhy, e.spareParts);
    return out;
}

std::span<const Message> completenessTexts() {
    return everyText;
}

} // namespace gantry
