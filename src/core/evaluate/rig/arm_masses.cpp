// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/arm_masses.h"

#include "core/evaluate/rig/beam_view.h"
#include "core/model/kind_traits.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Angle of a range that lies nearest to level.
double mostLevel(const RotaryMechanism& r) {
    return std::clamp(0.0, r.lowAngle, r.lowAngle + r.range);
}

} // namespace

std::vector<structure::ArmMass> armMasses(std::span<const MassItem> payload, const Axis& axis) {
    std::vector<structure::ArmMass> out;
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (r == nullptr) return out;
    const Boom& boom = r->boom;
    const bool given = boom.section.shape != SectionShape::NotGiven;
    const bool levelled = boom.arm == ArmKind::ParallelLinks;
    if (!given && r->items.empty() && !axis.carriesPayload) return out;
    out.reserve(r->items.size() + payload.size() + 2);
    if (given) {
        const double length = boom.reach + boom.rear, mass = beamView(boom.section).massPerMetre * length;
        out.push_back({mass, 0.5 * (boom.reach - boom.rear), 0.0, false, mass * length * length / 12.0});
    }
    for (const MassItem& item : r->items)
        out.push_back({item.mass.value, item.along, item.above, levelled && item.along > 0.0});
    if (axis.carriesPayload) {
        const double end = given ? boom.reach : 0.0, offset = given ? boom.tipOffset : 0.0;
        for (const MassItem& item : payload) {
            const double beyond = offset + item.along, above = boom.tipAbove + item.above;
            if (levelled && given)
                out.push_back({item.mass.value, end, above, true, 0.0, beyond});
            else
                out.push_back({item.mass.value, end + beyond, above, levelled});
        }
    }
    if (given && boom.counterweight.mass.value > 0.0)
        out.push_back(
            {boom.counterweight.mass.value, -boom.counterweight.behind, boom.counterweight.above, false});
    return out;
}

int boomOn(std::span<const Axis> axes, std::size_t swing) {
    if (axes[swing].role != Role::Swing) return -1;
    for (std::size_t i = swing + 1; i < axes.size(); ++i)
        if (axes[i].role == Role::BoomTilt && kindOf(axes[i]) == AxisKind::Rotary) return static_cast<int>(i);
    return -1;
}

std::vector<structure::ArmMass> atItsWidest(std::span<const structure::ArmMass> masses, const Axis& boom) {
    const double angle = mostLevel(std::get<RotaryMechanism>(boom.mechanism)), c = std::cos(angle),
                 s = std::sin(angle);
    std::vector<structure::ArmMass> out(masses.begin(), masses.end());
    for (structure::ArmMass& m : out) {
        const double above = m.levelled ? 0.0 : m.above;
        // A slender body that stands steeply has the less of its own about the upright.
        m = {m.mass, m.along * c - above * s + m.beyond, m.along * s + m.above * c, false, m.own * c * c};
    }
    return out;
}

double armReach(std::span<const Axis> axes, std::size_t axis) {
    const auto* r = std::get_if<RotaryMechanism>(&axes[axis].mechanism);
    if (r == nullptr) return 0.0;
    // What stands above an upright axis is no farther from it for its height.
    const auto distance = [&](double along, double above) {
        return gravityTurns(axes[axis].role) ? std::hypot(along, above) : std::abs(along);
    };
    if (r->boom.section.shape != SectionShape::NotGiven)
        return distance(r->boom.reach + r->boom.tipOffset, r->boom.tipAbove);
    double reach = r->pointRadius;
    for (const MassItem& item : r->items) reach = std::max(reach, distance(item.along, item.above));
    if (reach <= 0.0)
        if (const int boom = boomOn(axes, axis); boom >= 0)
            return armReach(axes, static_cast<std::size_t>(boom));
    return reach;
}

} // namespace gantry
