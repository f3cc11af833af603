// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// A ring that does not end, or whose reading follows its speed, cannot be driven to a mark.
Finding lensRing(const AxisView& view) {
    if (view.linear()) return std::nullopt;
    const auto* ring = std::get_if<LensRingOutput>(&std::get<RotaryMechanism>(view.axis.mechanism).output);
    if (ring == nullptr) return std::nullopt;
    if (!ring->steadyElectronics) return found(nullptr, 0.0, Reason::None, M::LensElectronicsText, {});
    if (!ring->hardStops) return found(nullptr, 0.0, Reason::None, M::LensStopsText, {});
    const double range = std::get<RotaryMechanism>(view.axis.mechanism).range;
    return found(nullptr, allowedOver(ring->ringThrow, range), Reason::None, M::LensThrowText,
                 {{{Kind::Angle, range}, {Kind::Angle, ring->ringThrow}}});
}

} // namespace gantry::rules
