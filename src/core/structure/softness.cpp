// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/softness.h"

#include <cmath>

namespace gantry::structure {

Softness inSeries(std::span<const SoftPart> parts) {
    double inverse = 0.0, damped = 0.0;
    for (const SoftPart& p : parts) {
        const double give = 1.0 / (p.frequency * p.frequency);
        inverse += give;
        damped += give * p.damping;
    }
    if (!(inverse > 0.0)) return {};
    return {1.0 / std::sqrt(inverse), damped / inverse, inverse};
}

double shareOf(const SoftPart& part, const Softness& all) {
    return 1.0 / (part.frequency * part.frequency * all.give);
}

} // namespace gantry::structure
