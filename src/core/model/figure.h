// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cassert>
#include <cmath>
#include <concepts>

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
    NotUnderstood,      ///< a line that was told has a number that nothing names
    NoFixedMarks,       ///< a ring without stops, whose reading depends on how fast it is turned
    NotSearched,        ///< a search over all poses is not made, or not yet
    NoShot,             ///< no shot moves this axis
    TimeTooShort,       ///< the distance cannot be covered in the time under these limits
    TooLongToSimulate,  ///< the ramps alone are longer than what is simulated
    NoRamp,             ///< the controller starts and stops without a ramp
    NoDistance,         ///< the shot's distance is zero
    Unbounded,          ///< nothing limits it
    FailsUnloaded,      ///< not even without load
    SupplyCollapses,    ///< the cable cannot bring what the drives take
    NotApplicable,      ///< has no meaning for this drive
    OutOfRange          ///< the inputs give a number too large or too small to mean anything
};

/// A number in SI, or the reason there is none. Never NaN, never infinite. What is computed from figures has
/// a number where all of them have one, and otherwise the reason of the first that has none.
class Figure {
public:
    Figure() = default;
    /// The value if it is finite; else there is none, OutOfRange.
    template <std::convertible_to<double> T>
    Figure(const T& value) : Figure(of(static_cast<double>(value))) {}
    /// The value if it is finite; else `reason`, or OutOfRange when no better reason is known.
    static Figure of(double value, Reason reason = Reason::OutOfRange) {
        return std::isfinite(value) ? Figure(value, Reason::None) : none(reason);
    }
    static Figure none(Reason reason) {
        return Figure(0.0, reason == Reason::None ? Reason::OutOfRange : reason);
    }

    explicit operator bool() const { return reason_ == Reason::None; }
    /// The number. Asking where there is none is a mistake: ask the figure first, or use what takes figures.
    double value() const {
        assert(reason_ == Reason::None);
        return value_;
    }
    double valueOr(double otherwise) const { return reason_ == Reason::None ? value_ : otherwise; }
    Reason reason() const { return reason_; }

    /// f of the number, where there is one; f gives a double.
    template <class F>
    Figure map(F f) const {
        return reason_ == Reason::None ? Figure(static_cast<double>(f(value_))) : *this;
    }
    /// f of the number, where there is one; f gives a Figure with a reason of its own.
    template <class F>
    Figure then(F f) const {
        return reason_ == Reason::None ? Figure(f(value_)) : *this;
    }

    friend Figure operator+(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x + y; });
    }
    friend Figure operator-(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x - y; });
    }
    friend Figure operator*(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x * y; });
    }
    friend Figure operator/(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x / y; });
    }
    friend Figure lesser(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x < y ? x : y; });
    }
    friend Figure greater(const Figure& a, const Figure& b) {
        return both(a, b, [](double x, double y) { return x < y ? y : x; });
    }
    /// Whether both have numbers and a's is less.
    friend bool less(const Figure& a, const Figure& b) { return a && b && a.value_ < b.value_; }

private:
    Figure(double value, Reason reason) : value_(value), reason_(reason) {}

    template <class F>
    static Figure both(const Figure& a, const Figure& b, F f) {
        return !a ? a : !b ? b : Figure(f(a.value_, b.value_));
    }

    double value_ = 0.0;
    Reason reason_ = Reason::NotApplicable;
};

} // namespace gantry
