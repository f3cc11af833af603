// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/rig/rig_layout.h"

namespace gantry {

/// Tipping with everything that pushes, for one pose.
struct TippingCase {
    double direction = 0.0; ///< [rad] of the boom or rail, from x
    double ordinary = 0.0;  ///< [1] with side push, wind and the planned stop
    double emergency = 0.0; ///< [1] with the hardest stop that the drives can make
    bool reachable = true;  ///< within the range of the swing
    std::vector<double> pose;
};

/// Forces and moments on the whole rig in one pose: weights of all bodies, and what pushes.
struct Loads {
    structure::Footprint footprint;
    std::vector<structure::Weight> weights;
    std::vector<structure::Push> lasting;  ///< side push and wind
    std::vector<structure::Push> ordinary; ///< these and planned stops
};
Loads loadsOn(const RigSetup& rig, const std::vector<AxisEvaluation>& axes, const RigLayout& layout);

/// One pose judged; nothing where the rig has no feet.
std::optional<TippingCase> tippingCase(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                       std::vector<double> pose, double direction);

/// All directions of a swing, each at the pose of the other axes that overturns most; for a rig without, the
/// directions of its two ends.
std::vector<TippingCase> tippingPolar(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                      int directions = 36);

/// Ballast [kg] that would have to be added at a place on the feet for a ratio of 1.5 in a pose; no number
/// where none there would do.
Figure ballastNeededAt(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                       std::span<const double> pose, structure::Plan at);

/// The same figures with inputs moved a little: tipping and ballast in the pose that was worst before, so
/// that no search is made again.
RigStructure rigAgain(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                      const RigStructure& before);

/// Acceleration [U/s²] of one axis' planned stop at which the whole rig would come down to the usual floor of
/// 1.5 against tipping, in the rig's worst pose; nothing where it stands on no feet, or no stop would tip it.
std::optional<double> accelerationBeforeTipping(const RigSetup& rig, std::size_t axis,
                                                const AxisEvaluation& evaluation);

/// Deceleration [U/s²] of the hardest stop that an axis may make; infinite where nothing of its motor is
/// known. A controller that ramps down stops no harder than that ramp; a brake bites when the power goes,
/// whatever the controller does.
double hardestStop(const AxisEvaluation& evaluation, const Axis& axis);

/// What is found of the rig as a whole, but for its clearance, which the sweep gives.
RigStructure rigStructure(const RigSetup& rig, const std::vector<AxisEvaluation>& axes);

} // namespace gantry
