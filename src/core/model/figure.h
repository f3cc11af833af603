// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <limits>

namespace gantry {

/// Why a figure has no number.
enum class Reason {
    None,
    NeedsHoldingTorque,
    NeedsRatedCurrent,
    NeedsResistance,
    NeedsInductance,
    NeedsStopBehaviour, ///< what an emergency stop does to the holding current
    NeedsSection,       ///< what a rail or an arm is made of
    NeedsBase,          ///< what the rig stands on
    NeedsAnchors,       ///< what the anchors of a wall or overhead mount stand
    SupportsOffRail,    ///< stands or head that are not on the rail, or on one spot
    NoSuchLeg,          ///< ballast on a leg that the base has not
    NeedsLensRing,      ///< a focus or zoom axis without a lens ring
    NoShot,             ///< no shot moves this axis
    TimeTooShort,       ///< the distance cannot be covered in the time under these limits
    TooLongToSimulate,  ///< the ramps alone are longer than what is simulated
    NoRamp,             ///< the controller starts and stops without a ramp
    NoDistance,         ///< the shot's distance is zero
    Unbounded,          ///< nothing limits it
    SupplyCollapses,    ///< the cable cannot bring what the drives take
    NotApplicable,      ///< has no meaning for this drive
    OutOfRange          ///< the inputs give a number too large or too small to mean anything
};

/// A number in SI, or the reason there is none. Never NaN, never infinite.
class Figure {
public:
    Figure() = default;
    /// The value if it is finite; else `reason`, or OutOfRange when no better reason is known.
    static Figure of(double value, Reason reason = Reason::OutOfRange) {
        Figure f;
        if (std::isfinite(value)) {
            f.value_ = value;
            f.reason_ = Reason::None;
        } else {
            f.reason_ = reason == Reason::None ? Reason::OutOfRange : reason;
        }
        return f;
    }
    static Figure none(Reason reason) { return of(std::numeric_limits<double>::quiet_NaN(), reason); }

    explicit operator bool() const { return reason_ == Reason::None; }
    /// The number; NaN when there is none, so that what is computed from it has none either.
    double value() const {
        return reason_ == Reason::None ? value_ : std::numeric_limits<double>::quiet_NaN();
    }
    Reason reason() const { return reason_; }

private:
    double value_ = 0.0;
    Reason reason_ = Reason::NotApplicable;
};

} // namespace gantry
