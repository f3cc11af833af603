// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/arm_masses.h"

#include "core/evaluate/beam_view.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// The boom tilt that stands on a swing; null if there is none.
const Axis* boomAbove(const Project& project, const Axis& swing) {
    if (swing.role != Role::Swing) return nullptr;
    bool above = false;
    for (const Axis& axis : project.axes) {
        if (above && axis.role == Role::BoomTilt && kindOf(axis) == AxisKind::Rotary) return &axis;
        above = above || axis.id == swing.id;
    }
    return nullptr;
}

/// Angle of a range that lies nearest to level.
double mostLevel(const RotaryMechanism& r) {
    return std::clamp(0.0, r.lowAngle, r.lowAngle + r.range);
}

} // namespace

std::vector<structure::ArmMass> armMasses(const Project& project, const Axis& axis) {
    std::vector<structure::ArmMass> out;
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (r == nullptr) return out;
    const Boom& boom = r->boom;
    const bool given = boom.section.shape != SectionShape::NotGiven;
    const bool levelled = boom.arm == ArmKind::ParallelLinks;
    if (!given && r->items.empty() && !axis.carriesPayload) return out;
    out.reserve(r->items.size() + project.payload.size() + 2);
    if (given)
        out.push_back({beamView(boom.section).massPerMetre * (boom.reach + boom.rear),
                       0.5 * (boom.reach - boom.rear), 0.0, false});
    for (const MassItem& item : r->items)
        out.push_back({item.mass.value, item.along, item.above, levelled && item.along > 0.0});
    if (axis.carriesPayload) {
        const double end = given ? boom.reach + boom.tipOffset : 0.0;
        for (const MassItem& item : project.payload)
            out.push_back({item.mass.value, end + item.along, boom.tipAbove + item.above, levelled});
    }
    if (given && boom.counterweight.mass.value > 0.0)
        out.push_back(
            {boom.counterweight.mass.value, -boom.counterweight.behind, boom.counterweight.above, false});
    return out;
}

std::vector<structure::ArmMass> carriedMasses(const Project& project, const Axis& axis) {
    std::vector<structure::ArmMass> own = armMasses(project, axis);
    const Axis* boom = own.empty() ? boomAbove(project, axis) : nullptr;
    if (boom == nullptr) return own;
    const double angle = mostLevel(std::get<RotaryMechanism>(boom->mechanism)), c = std::cos(angle),
                 s = std::sin(angle);
    own = armMasses(project, *boom);
    for (structure::ArmMass& m : own) {
        const double above = m.levelled ? 0.0 : m.above;
        m = {m.mass, m.along * c - above * s, m.along * s + m.above * c, false};
    }
    return own;
}

double armReach(const Project& project, const Axis& axis) {
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (r == nullptr) return 0.0;
    if (r->boom.section.shape != SectionShape::NotGiven)
        return std::hypot(r->boom.reach + r->boom.tipOffset, r->boom.tipAbove);
    double reach = r->pointRadius;
    for (const MassItem& item : r->items) reach = std::max(reach, std::hypot(item.along, item.above));
    if (reach <= 0.0)
        if (const Axis* boom = boomAbove(project, axis)) return armReach(project, *boom);
    return reach;
}

} // namespace gantry
