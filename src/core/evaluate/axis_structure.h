// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/beam_view.h"
#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/structure/balance.h"
#include "core/structure/rail.h"
#include "core/structure/softness.h"

#include <optional>
#include <vector>

namespace gantry {

/// What gives way under a camera.
enum class SoftCause { Drive, Rail, Stands, Boom, Mast, Pads };
std::string_view softName(SoftCause cause);

struct SoftEntry {
    SoftCause cause = SoftCause::Drive;
    structure::SoftPart part;
};

/// How a rail or an arm gives way, holds and balances. U is m or rad. Figures that a kind of axis has not
/// have no meaning there.
struct AxisStructure {
    Reason problem = Reason::NeedsSection; ///< why there is nothing, if so
    bool printed = false;                  ///< a printed part carries the load

    Figure ownMass;      ///< [kg] of rail or arm
    Figure sag;          ///< [m] largest less smallest along the travel, or at the arm's end when level
    Figure slope;        ///< [rad] largest along the travel, or at the arm's end
    Figure twist;        ///< [rad] largest
    Figure sagShift;     ///< [m] by which the sag changes over the travel
    Figure slopeShift;   ///< [rad] by which the slope changes
    Figure slopeRate;    ///< [rad/U] steepest change of slope along the travel
    Figure sagRate;      ///< [m/U]
    Figure twistShift;   ///< [rad]
    Figure bounce;       ///< [Hz] first natural frequency up and down
    Figure stressRatio;  ///< [1] what the material stands over the largest bending stress
    Figure tippingRatio; ///< [1] of a rail over its stands
    Figure clampRatio;   ///< [1] what a clamp bolt of the rail stands over its worst pull
    Figure tippingAt;    ///< [m] of the carriage along the rail, where that is least

    Figure frontMoment;  ///< [N·m] of what hangs in front of the pivot, level; none without a counterweight
    Figure gravityWorst; ///< [N·m] left for the motor, largest without sign over the range
    Figure gravityWorstAt; ///< [rad] elevation where it is
    Figure offLine;        ///< [m] centre of gravity above the arm line of all but the counterweight
    Figure unbalanceable;  ///< [N·m] left at the worst angle with the best mass or place of counterweight
    Figure balancingMass;  ///< [kg] at the place it has now
    Figure balancingPlace; ///< [m] behind the pivot for the mass it has now
    Figure weightInertia;  ///< [1] share of the counterweight in the moment of inertia
    Figure dropEnergy;     ///< [J] freed from the highest to the lowest place of the range, at most
    Figure pinRatio;       ///< [1]
    Figure bearingRatio;   ///< [1] rated load over the weight on the pivot
    Figure momentRatio;    ///< [1] rated moment of the bearing under the arm over the largest
    Figure boltRatio;      ///< [1]

    Figure frequency;            ///< [Hz] of all that gives way in series
    Figure damping;              ///< [1] of critical, of all together
    std::vector<SoftEntry> soft; ///< softest first
    structure::Softness all;     ///< of all in series
};

/// A rail with what runs on it, as the formula room sees it. Nothing if the section is not given or the
/// supports make no sense (then `why` says so).
struct RailSetting {
    structure::RailView rail;
    structure::CarriageView carriage;
    double low = 0.0, high = 0.0; ///< [m] along the rail, ends of the carriage's travel
    double mass = 0.0;            ///< [kg] on the carriage
    double height = 0.0;          ///< [m] of its centre of gravity above the rail
};
std::optional<RailSetting> railSetting(const Project& project, const Axis& axis, Reason& why);

/// Spring [N/m or N·m/rad] and inertia [kg or kg·m²] of the axis' drive, for the list of what is soft.
struct DriveSpring {
    double stiffness = 0.0; ///< infinite or 0: nothing known
    double inertia = 0.0;
    double damping = 0.02;
};

AxisStructure axisStructure(const Project& project, const Axis& axis, const DriveSpring& drive);

} // namespace gantry
