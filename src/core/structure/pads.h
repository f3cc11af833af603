// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/structure/tipping.h"

#include <optional>
#include <span>

namespace gantry::structure {

/// A stiff rig on soft feet.
struct PadsView {
    std::span<const Plan> feet;
    std::span<const Weight> weights;
    double stiffness = 0.0; ///< [N/m] > 0 of one pad, pressed
};

/// Share of a pad's stiffness that it has sideways. Rubber shears at a third of its modulus, and a block
/// that is wider than high is stiffer still when pressed (Gent, Engineering with Rubber, ch. 3).
constexpr double padShear = 1.0 / 3.0;

/// Lowest frequency [Hz] at which the rig sways on its pads when pushed level in a direction [rad], or in the
/// softest one without: rocking about the feet, K = k Σ r² less what the weight helps over, g Σ m h, in
/// series with shearing the pads (Dunkerley, a lower bound). 0 where nothing stands there, where the feet lie
/// in a line along the push, or where the weight alone tips it over.
double swayOnPads(const PadsView& view, std::optional<double> direction = std::nullopt);

/// Frequency [Hz] of the whole rig bouncing up and down: √(n k / M) / 2π.
double bounceOnPads(const PadsView& view);

/// Frequency [Hz] at which it turns about the vertical through the middle of its feet, the pads sheared.
double turnOnPads(const PadsView& view);

} // namespace gantry::structure
