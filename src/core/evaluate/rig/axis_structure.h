// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/beam_view.h"
#include "core/evaluate/rig_setup.h"
#include "core/results/axis_results.h"
#include "core/structure/balance.h"
#include "core/structure/rail.h"

#include <optional>
#include <vector>

namespace gantry {

/// A rail with what runs on it, as the formula room sees it. Nothing if the section is not given or the
/// supports make no sense (then `why` says so).
struct RailSetting {
    structure::RailView rail;
    structure::CarriageView carriage;
    double low = 0.0, high = 0.0;            ///< [m] along the rail, ends of the carriage's travel
    double mass = 0.0;                       ///< [kg] on the carriage
    double height = 0.0;                     ///< [m] of its centre of gravity above the rail
    structure::AlongRail along;              ///< by its slope; ramps are added where they are known
    std::optional<structure::Column> column; ///< of a lift, which stands upright and bends as one

    structure::RailPoint point(double at) const {
        return column ? structure::columnPoint(*column, at) : structure::railPoint(rail, carriage, at);
    }
    structure::RailChange change(double at) const {
        return column ? structure::columnChange(*column, at) : structure::railChange(rail, carriage, at);
    }
};
std::optional<RailSetting> railSetting(const Axis& axis, const AxisMasses& masses, Reason& why);

/// Spring [N/m or N·m/rad] and inertia [kg or kg·m²] of the axis' drive, for the list of what is soft.
struct DriveSpring {
    double stiffness = 0.0; ///< infinite or 0: nothing known
    double inertia = 0.0;
    double damping = 0.02;
};

AxisStructure axisStructure(const RigSetup& rig, std::size_t axis, const DriveSpring& drive);

} // namespace gantry
