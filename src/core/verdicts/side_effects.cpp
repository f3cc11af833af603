// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/side_effects.h"

#include <algorithm>

namespace gantry {

std::vector<SaidEffect> saidEffects(const Fix& fix) {
    std::vector<SaidEffect> out;
    std::vector<int> axes;
    for (const SideEffect& s : fix.sideEffects) {
        const SaidEffect now{title(s.after), s.before.state, s.after.state};
        const auto same = std::find_if(out.begin(), out.end(), [&](const SaidEffect& said) {
            return said.title == now.title && said.before == now.before && said.after == now.after;
        });
        if (same != out.end()) {
            ++axes[static_cast<std::size_t>(same - out.begin())];
        } else {
            out.push_back(now);
            axes.push_back(1);
        }
    }
    for (std::size_t i = 0; i < out.size(); ++i)
        if (axes[i] > 1) out[i].title += " of " + std::to_string(axes[i]) + " axes";
    return out;
}

} // namespace gantry
