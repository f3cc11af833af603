// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace gantry::structure {

/// Ratio of a stand, or of carriages on a rail, where nothing overturns.
inline constexpr double harmless = 1e6;

/// A place in plan [m], or a sideways force [N].
struct Plan {
    double x = 0.0, y = 0.0;
};

/// A weight at a place in plan and a height above the feet.
struct Weight {
    double mass = 0.0; ///< [kg]
    Plan at;
    double height = 0.0; ///< [m]
};

/// A sideways push at a height; its direction is the worst one for whichever edge is looked at.
struct Push {
    double force = 0.0;  ///< [N]
    double height = 0.0; ///< [m]
};

/// Feet in plan on which a rig stands, in any order: their convex hull is what it tips over. Ground slope
/// [rad] and the direction [rad] in which it falls: weights pull downhill with g sin at their height.
struct Footprint {
    std::vector<Plan> feet;
    double slope = 0.0;
    double downhill = 0.0;
};

struct Tipping {
    double ratio = 0.0; ///< [1] stabilising over overturning moment about the worst edge
    Plan from, to;      ///< the edge
    double stabilising = 0.0, overturning = 0.0; ///< [N·m] about it
};

/// Least ratio over all edges. A weight inside an edge stabilises, one outside of it overturns; pushes and
/// slope only overturn. Ratio 1e6 where nothing overturns; 0 where the weights alone already lie outside.
/// Nothing for fewer than three feet, feet in a line, or no weight.
std::optional<Tipping> tipping(const Footprint& footprint, std::span<const Weight> weights,
                               std::span<const Push> pushes);

/// A velocity [m/s] or an acceleration [m/s²], x and y in plan, z up.
struct InSpace {
    double x = 0.0, y = 0.0, z = 0.0;
};

/// The same while the weights speed up or slow down, each by its acceleration [m/s²]: what holds a mass back
/// overturns about the edge that it pushes towards, and weighs more on its way up.
std::optional<Tipping> tippingMoving(const Footprint& footprint, std::span<const Weight> weights,
                                     std::span<const InSpace> accelerations, std::span<const Push> pushes);

/// The other way to count, as for a boom on a mast whose own weight stands in the middle: stabilising
/// W·(distance to edge) against one overturning moment [N·m] in direction ψ. Least over the edges that the
/// boom leans to.
double tippingRatio(std::span<const Plan> feet, double weight, double moment, double direction);

/// What a stop takes out of a rig, as it is at the edge that is looked at.
struct Rocking {
    double weight = 0.0; ///< [N] of it all
    double net = 0.0; ///< [N·m] with which weight, less what lasts against it, holds the rig down at the edge
    double height = 0.0;   ///< [m] of the centre of gravity above the feet
    double inertia = 0.0;  ///< [kg·m²] about the edge, what moves with it
    double momentum = 0.0; ///< [N·m·s] about the edge, that the stop takes out of what moves
    double time = 0.0;     ///< [s] that the stop lasts; 0: a blow
};

/// Energy that would tip a rig over an edge, over what a stop leaves it with when it has lifted: below 1 it
/// goes over. During the stop I θ″ = M − W b + W H θ, so θ = c (cosh pt − 1), p² = WH/I, c = (M − W b)/(WH),
/// M the momentum over the time; the barrier is W (√(b² + H²) − H) with W b = `net`. 1e6 where it does not
/// even lift; 0 where it does not stand. What moves is held at the place where it stops: careful for stops
/// that last long against √(I/WH).
double stopRatio(const Rocking& rocking);

/// A movement that a stop ends: how fast each of the weights moves [m/s], x and y in plan, z up.
struct Motion {
    using Velocity = InSpace;
    std::vector<Velocity> of; ///< in the order of the weights
    double time = 0.0;        ///< [s] of the stop
};

/// Least stopRatio over all edges while all movements stop at once, either way. Nothing where `tipping` gives
/// nothing.
std::optional<double> stopRatio(const Footprint& footprint, std::span<const Weight> weights,
                                std::span<const Push> lasting, std::span<const Motion> motions);

/// Ballast [kg] in the middle of the feet that brings the ratio to `wanted`; 0 if it is there already.
/// Nothing where no mass in the middle would do.
std::optional<double> ballastNeeded(const Footprint& footprint, std::span<const Weight> weights,
                                    std::span<const Push> pushes, double wanted, Plan at);

/// Feet evenly on a circle, the first at an angle [rad].
std::vector<Plan> feetOnCircle(int feet, double radius, double firstAngle);

/// Convex hull, anticlockwise; fewer than three points if they lie in a line.
std::vector<Plan> hullOf(std::vector<Plan> points);

} // namespace gantry::structure
