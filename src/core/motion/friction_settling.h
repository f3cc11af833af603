// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motion/rocking.h"

namespace gantry::motion {

/// A swing that friction brings to rest: m x″ + c x′ + k x = −F sign x′. Static and sliding friction are one.
/// Derivation: docs/models/settling.md (Den Hartog, Mechanical Vibrations, section 8.7).
struct DyingSwing {
    double amplitude = 0.0; ///< [U] ≥ 0 at the beginning, at rest there
    double band = 0.0;      ///< [U] F/k ≥ 0: within it, it stays where it stops
    Mode mode;

    bool held() const { return band > 0.0 && amplitude <= band; } ///< friction does not let it begin
    double halfSwings() const; ///< a whole number, until it stays; 0: at once; infinite without friction
    double rest() const;       ///< [U] where it stays, signed like the beginning; 0 without friction
    double stopTime() const;   ///< [s] until it stays; infinite without friction
    /// Seconds until it is within `tolerance` [U] of `centre` for good; nothing if it never is.
    std::optional<double> timeWithin(double centre, double tolerance) const;
    /// Seconds until no more than `swing` [U], peak to peak, is left about where it comes to rest.
    std::optional<double> settled(double swing) const { return timeWithin(rest(), 0.5 * swing); }
};

} // namespace gantry::motion
