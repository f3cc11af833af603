// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message lensElectronicsText{"This ring drives electronics that follow its speed, so an angle means "
                                      "no fixed mark; use a lens whose ring is coupled by angle."};
constexpr Message lensStopsText{
    "A ring without stops has no place to count from; add stops or a lens that has them."};
constexpr Message lensThrowText{"The axis turns the ring {0}; its throw is {1}."};

/// A ring that does not end, or whose reading follows its speed, cannot be driven to a mark.
static Finding judgeLensRing(const AxisView& view) {
    if (view.linear()) return std::nullopt;
    const auto* ring = std::get_if<LensRingOutput>(&std::get<RotaryMechanism>(view.axis.mechanism).output);
    if (ring == nullptr) return std::nullopt;
    if (!ring->steadyElectronics) return found(nullptr, 0.0, lensElectronicsText, {});
    if (!ring->hardStops) return found(nullptr, 0.0, lensStopsText, {});
    const double range = std::get<RotaryMechanism>(view.axis.mechanism).range;
    return found(nullptr, allowedOver(ring->ringThrow, range), lensThrowText,
                 {{{Kind::Angle, range}, {Kind::Angle, ring->ringThrow}}});
}

constinit const Rule lensRing = advising(
    {"A motor cannot come back to a mark on this ring: use the camera’s own focus control or another lens."},
    judging(criteria::lensRing, {"Lens ring"}, judgeLensRing,
            words::listOf<lensElectronicsText, lensStopsText, lensThrowText>, tries<&fixes::mechanicalRing>));

} // namespace gantry::rules
