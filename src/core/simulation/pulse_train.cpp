// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulation/pulse_train.h"

#include <algorithm>
#include <cmath>

namespace gantry::simulation {

std::vector<double> pulseTrain(const motion::Profile& profile, double step, double ceiling) {
    const double count = std::floor(profile.distance / step + 0.5);
    if (!(count >= 1.0) || count > 5e7) return {};
    std::vector<double> out(static_cast<std::size_t>(count));
    const double end = profile.time(), spacing = 1.0 / ceiling;
    double low = 0.0, last = -spacing, t = 0.0;
    for (std::size_t n = 0; n < out.size(); ++n) {
        const double due = (static_cast<double>(n) + 0.5) * step;
        // Position only grows, so Newton's steps are kept inside the bracket and halved where they leave it.
        double high = end;
        t = std::clamp(t, low, high);
        for (int i = 0; i < 80; ++i) {
            const motion::MotionState s = profile.at(t);
            const double off = s.position - due;
            (off < 0.0 ? low : high) = t;
            if (std::abs(off) <= 1e-12 * profile.distance || high - low <= 1e-15 * end) break;
            const double next = s.speed > 0.0 ? t - off / s.speed : 0.5 * (low + high);
            t = next > low && next < high ? next : 0.5 * (low + high);
        }
        out[n] = last = std::max(t, last + spacing);
        // The next one is due about one step later.
        low = t;
    }
    return out;
}

} // namespace gantry::simulation
