// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/rig/rig_sweep.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message rangeFrom{"{axis} only from {0} to {1}"};
constexpr Message spacerUnderHead{"a spacer of {0} under the head"};
constexpr Message spacerUnderTilt{"a spacer of {0} under the tilt"};
constexpr Message spacerUnderArm{"a mast {0} higher under what stands on the carriage"};
constexpr Message cameraFarther{"camera {0} farther back on its plate"};
constexpr Message columnRaised{"column {0} high"};

constexpr std::array sizes{0.005, 0.01, 0.015, 0.02, 0.025, 0.03, 0.04, 0.05, 0.06, 0.08, 0.1, 0.15, 0.2};

/// The least of the sizes with which everything has the room that is wanted; nothing if none does.
template <class Change>
std::optional<double> leastSize(const Problem& p, std::span<const double> of, Change change) {
    for (const double size : of) {
        Project q = p.project;
        change(q, size);
        if (sweepRig(setupOf(q, Courses::No)).ratio() >= criteria::clearance) return size;
    }
    return std::nullopt;
}

/// The axis turns no farther than it is clear.
Candidates within(const Problem& p) {
    Candidates out;
    const RigStructure& rig = p.now.evaluation.rig;
    if (p.linear() || rig.clearance.axis != p.verdict.axis || !rig.clearance.clearRange) return out;
    constexpr double apart = 1e-9; // [rad] a place that is whole degrees already stays
    const double degree = units::degree,
                 from = std::ceil(rig.clearance.clearRange->first / degree - apart) * degree,
                 to = std::floor(rig.clearance.clearRange->second / degree + apart) * degree;
    if (!(to > from)) return out;
    add(out, p, FixCost::SettingOnly, rangeFrom, {{{Kind::Angle, from}, {Kind::Angle, to}}}, [&](Axis& a) {
        auto& r = std::get<RotaryMechanism>(a.mechanism);
        r.lowAngle = from;
        r.range = to - from;
    });
    return out;
}

/// Whether an axis of the project turns the camera so.
bool has(const Project& p, Role role) {
    return std::any_of(p.axes.begin(), p.axes.end(), [&](const Axis& a) { return a.role == role; });
}

/// What the camera comes near to is left lower: the whole head is raised, or its tilt over its pan; or the
/// mast of an arm on a carriage.
Candidates raised(const Problem& p) {
    Candidates out;
    const auto raise = [&](Message label, Estimate Head::*height) {
        const auto change = [&](Project& q, double by) { (q.head.*height).value += by; };
        if (const auto size = leastSize(p, sizes, change))
            add(out, p, FixCost::ToBuy, label, {{{Kind::Length, *size}}},
                [&](Project& q) { change(q, *size); });
    };
    const bool tilts = has(p.project, Role::Tilt) || has(p.project, Role::Roll),
               pans = has(p.project, Role::Pan),
               arm = has(p.project, Role::Swing) || has(p.project, Role::BoomTilt);
    if (pans) raise(spacerUnderHead, &Head::panHeight);
    if (tilts) raise(pans ? spacerUnderTilt : spacerUnderHead, &Head::tiltHeight);
    // Without an arm that would be the spacer under the head once more.
    if (arm && std::any_of(p.project.axes.begin(), p.project.axes.end(),
                           [](const Axis& a) { return kindOf(a) == AxisKind::Linear; }))
        raise(spacerUnderArm, &Head::stand);
    return out;
}

Candidates moved(const Problem& p) {
    Candidates out;
    const auto change = [](Project& q, double by) {
        q.head.lensFront.value -= by;
        q.head.cameraBack.value += by;
    };
    if (const auto size = leastSize(p, std::span(sizes).first(8), change))
        add(out, p, FixCost::SettingOnly, cameraFarther, {{{Kind::Length, *size}}},
            [&](Project& q) { change(q, *size); });
    return out;
}

Candidates higher(const Problem& p) {
    Candidates out;
    const Base& base = p.project.base;
    if (base.kind != BaseKind::Legs && base.kind != BaseKind::Rectangle) return out;
    constexpr std::array more{0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5};
    const auto change = [](Project& q, double by) { q.base.height += by; };
    if (const auto by = leastSize(p, more, change))
        add(out, p, FixCost::SettingOnly, columnRaised, {{{Kind::Length, base.height + *by}}},
            [&](Project& q) { change(q, *by); });
    return out;
}

} // namespace

constinit const Family shorterRange{"shorter_range", words::listOf<rangeFrom>, within};
constinit const Family spacer{"spacer", words::listOf<spacerUnderHead, spacerUnderTilt, spacerUnderArm>,
                              raised};
constinit const Family cameraBack{"camera_back", words::listOf<cameraFarther>, moved};
constinit const Family higherColumn{"higher_column", words::listOf<columnRaised>, higher};

} // namespace gantry::fixes
