// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig_setup.h"

#include "core/evaluate/rig/arm_masses.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace gantry {
namespace {

/// The masses of one axis that are its own.
void weigh(RigSetup& rig, std::size_t a) {
    const Axis& axis = rig.axes[a];
    AxisMasses& m = rig.masses[a];
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
        m.moving = movingMass(rig.payload, axis, *linear);
    else
        m.own = armMasses(rig.payload, axis);
}

/// What a swing without masses of its own feels of the arm on it.
void weighBoom(RigSetup& rig, std::size_t a) {
    AxisMasses& m = rig.masses[a];
    m.boomAxis = m.own.empty() ? boomOn(rig.axes, a) : -1;
    m.boom.clear();
    if (m.boomAxis >= 0)
        m.boom = atItsWidest(rig.masses[static_cast<std::size_t>(m.boomAxis)].own,
                             rig.axes[static_cast<std::size_t>(m.boomAxis)]);
}

double sideMoment(const RigSetup& rig, std::size_t a) {
    return kindOf(rig.axes[a]) == AxisKind::Rotary ? std::abs(structure::moments(rig.masses[a].own).along)
                                                   : 0.0;
}

} // namespace

void RigSetup::refresh(std::size_t axis) {
    weigh(*this, axis);
    AxisMasses& m = masses[axis];
    if (m.boomAxis >= 0 && axes[static_cast<std::size_t>(m.boomAxis)].carriesPayload)
        weigh(*this, static_cast<std::size_t>(m.boomAxis));
    weighBoom(*this, axis);
    if (kindOf(axes[axis]) == AxisKind::Rotary || !axes[axis].carriesPayload) return;
    m.momentAbove = 0.0;
    for (std::size_t above = axis + 1; above < axes.size(); ++above) {
        if (axes[above].carriesPayload) weigh(*this, above);
        m.momentAbove += sideMoment(*this, above);
    }
}

void RigSetup::refreshMasses() {
    for (std::size_t a = 0; a < axes.size(); ++a) weigh(*this, a);
    for (std::size_t a = 0; a < axes.size(); ++a) weighBoom(*this, a);
    double slope = 0.0;
    for (std::size_t a = 0; a < axes.size(); ++a) {
        masses[a].slopeBelow = std::min(slope, std::numbers::pi / 2.0);
        // A lift is steep by its nature and keeps what it carries level.
        if (const auto* linear = std::get_if<LinearMechanism>(&axes[a].mechanism);
            linear != nullptr && axes[a].role != Role::Lift)
            slope += std::abs(linear->slope.value);
    }
    double moment = 0.0;
    for (std::size_t a = axes.size(); a-- > 0;) {
        masses[a].momentAbove = moment;
        moment += sideMoment(*this, a);
    }
}

double deliveredFocal(const Camera& camera, const Shot& shot) {
    return optics::focalPixels(shot.focalLength, camera.sensorWidth, camera.pixelsAcross) *
           camera.deliveredWidth / camera.pixelsAcross;
}

} // namespace gantry
