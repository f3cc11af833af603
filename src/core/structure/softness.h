// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

namespace gantry::structure {

/// A part that gives way, seen alone: the frequency that the camera would have on it with all else stiff.
struct SoftPart {
    double frequency = 0.0; ///< [Hz] > 0
    double damping = 0.0;   ///< [1] of critical
};

struct Softness {
    double frequency = 0.0; ///< [Hz] of all in series; 0 where nothing gives way
    double damping = 0.0;   ///< [1] of critical, weighted by what each part gives way
    double give = 0.0;      ///< [s²] Σ 1/f² of the parts
};

/// Parts in series that carry one mass: 1/f² = Σ 1/f_i² (exact for springs in series under one mass;
/// Dunkerley's lower bound otherwise). Each part's share of the movement is that of its 1/f² in the sum, and
/// so is its share of the damping.
Softness inSeries(std::span<const SoftPart> parts);

/// Share [1] of one part in the movement of all.
double shareOf(const SoftPart& part, const Softness& all);

} // namespace gantry::structure
