// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <algorithm>
#include <span>
#include <vector>

namespace gantry {

/// A verdict, and those beside it that say the same in other words: what falls without power falls at an
/// emergency stop, what is seen stepping is seen as jitter.
struct Matter {
    const Verdict* verdict = nullptr;  ///< the worst of them; one that warns of a fall leads all others
    std::vector<const Verdict*> alike; ///< in the order of the rules
};

/// Whether one of its verdicts is such, by the key of its rule.
template <class F>
bool anyRuleOf(const Matter& matter, F is) {
    return is(ruleKey(*matter.verdict)) || std::any_of(matter.alike.begin(), matter.alike.end(),
                                                       [&](const Verdict* v) { return is(ruleKey(*v)); });
}

/// The verdicts as matters, worst first. Only verdicts about one axis, in one state, either all set aside or
/// none, become one. The matters point into `verdicts`.
std::vector<Matter> matters(const Project& project, std::span<const Verdict> verdicts);

} // namespace gantry
