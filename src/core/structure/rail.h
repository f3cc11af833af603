// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/structure/beam.h"

#include <optional>
#include <span>
#include <variant>
#include <vector>

namespace gantry::structure {

/// A rail as a beam on its supports.
struct RailView {
    Beam beam;
    std::variant<TwoSupports, CentralSupport> supports;
    double torsionStiffness = 1.0;  ///< [N·m²] GJ > 0
    std::vector<PointLoad> loads{}; ///< that sit on it and do not travel; beyond its ends they bend it there
};

/// A carriage on two pairs of wheels.
struct CarriageView {
    double weight = 0.0;    ///< [N] ≥ 0
    double wheelbase = 0.1; ///< [m] between the pairs, along the rail
    double torque = 0.0;    ///< [N·m] about the rail's length, from what sits off its middle
};

/// How a rail gives way under the middle of the carriage.
struct RailPoint {
    double at = 0.0;    ///< [m] along the rail
    double sag = 0.0;   ///< [m] mean of the two wheel pairs
    double slope = 0.0; ///< [rad] of the carriage, through both
    double twist = 0.0; ///< [rad] about the rail's length
};

/// With the weight shared by the two wheel pairs, which stay on the rail: a carriage of a sixth of the span
/// sags 7 % less than one on a point. Twist is held at the supports: T a b / (L G J) between them, T c / G J
/// on an overhang.
RailPoint railPoint(const RailView& rail, const CarriageView& carriage, double at);

/// How fast the carriage sags and tilts while it travels.
struct RailChange {
    double sag = 0.0;   ///< [1] of `RailPoint::sag` for a metre of travel
    double slope = 0.0; ///< [rad/m]
};

/// Derivatives of `railPoint` along the rail. The wheels meet other places and the load moves with them; by
/// Maxwell's reciprocity what a load adds at a wheel when it moves is the slope that the wheel's load makes
/// where the load is.
RailChange railChange(const RailView& rail, const CarriageView& carriage, double at);

/// An upright rail, held up to a place, that a carriage climbs. What hangs beside it bends it by a couple
/// that is the same all the way down to what holds it.
struct Column {
    double heldTo = 0.0;    ///< [m] along it; at and below it stays straight
    double curvature = 0.0; ///< [1/m] couple over EI, of both its sides together
};

/// Leaning of the carriage as `sag` [m] sideways and `slope` [rad]: κ h²/2 and κ h, h the free height under
/// it.
RailPoint columnPoint(const Column& column, double at);
RailChange columnChange(const Column& column, double at);

/// Largest bending moment [N·m] with the carriage there.
double railMoment(const RailView& rail, const CarriageView& carriage, double at);

/// Torque [N·m] that turns the carriage by one radian of pitch where it stands; infinite on a stiff rail.
double pitchStiffness(const RailView& rail, double wheelbase, double at);

/// What pulls along the rail at the carriage's centre of gravity: it turns the rail over its supports.
struct AlongRail {
    double stop = 0.0;     ///< [N] ≥ 0 of its ramps, either way
    double downhill = 0.0; ///< [N] towards the rail's beginning; negative towards its end
    double height = 0.0;   ///< [m] ≥ 0 above the supports

    /// Moment [N·m] that presses on the second support and lifts off the first; the other way, the opposite.
    double towardsEnd() const { return (stop - downhill) * height; }
    double towardsBeginning() const { return (stop + downhill) * height; }
};

/// Stabilising over overturning moment about the support that the rail would tip over, with the carriage
/// there and each stand weighing `standWeight` [N] and clamped to the rail. 1e6 where nothing overturns.
double railTippingRatio(const RailView& rail, const CarriageView& carriage, const AlongRail& along,
                        double standWeight, double at);

/// Bolts that hold a rail down on each of its stands, or on its head.
struct Clamp {
    int bolts = 4;         ///< > 0
    double spacing = 0.05; ///< [m] > 0 along the rail, between the two rows of bolts on a head
};

/// Largest pull [N] on one clamp bolt with the carriage there; 0 where nothing lifts. Two stands: what lifts
/// the rail off the one that it does not press on, shared by its bolts. A head: moment over it as a couple
/// between the two rows, with nothing taken off for the weight that presses.
double clampPull(const RailView& rail, const CarriageView& carriage, const AlongRail& along,
                 const Clamp& clamp, double at);

/// What a shift of the carriage shows: pixels per metre of sag and per radian of slope.
struct PictureFactors {
    double perSag = 0.0;   ///< [px/m]
    double perSlope = 0.0; ///< [px/rad]
};

/// Largest less smallest shift [px] of the picture while the carriage goes from `from` to `to`.
double pictureSpread(const RailView& rail, const CarriageView& carriage, const PictureFactors& picture,
                     double from, double to);

/// The two supports that make that spread least, each within [0, length]; found by NLopt (Sbplx) from the
/// best of a grid. Nothing for a rail without length.
std::optional<TwoSupports> bestSupports(RailView rail, const CarriageView& carriage,
                                        const PictureFactors& picture, double from, double to);

} // namespace gantry::structure
