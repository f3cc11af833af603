// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/matters.h"

#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry {
namespace {

/// Rules that judge one thing in two ways.
constexpr std::array<std::array<const rules::Rule*, 2>, 7> alike{
    {{&rules::powerOff, &rules::emergencyStop},
     {&rules::stepping, &rules::jitter},
     {&rules::torque, &rules::oversize},
     {&rules::vibration, &rules::settling},
     {&rules::backlash, &rules::repeatError},
     {&rules::travel, &rules::stopping},
     {&rules::caseTemperature, &rules::planHeat}}};

bool sayTheSame(const rules::Rule& a, const rules::Rule& b) {
    return std::any_of(alike.begin(), alike.end(), [&](const auto& pair) {
        return (pair[0] == &a && pair[1] == &b) || (pair[0] == &b && pair[1] == &a);
    });
}

} // namespace

std::vector<Matter> matters(const Project& project, std::span<const Verdict> verdicts) {
    const auto aside = [&](const Verdict& v) { return setAsideFor(project, v) != nullptr; };
    std::vector<Matter> out;
    for (const Verdict& v : verdicts) {
        const auto same = std::find_if(out.begin(), out.end(), [&](const Matter& m) {
            const Verdict& w = *m.verdict;
            return w.axis == v.axis && w.state == v.state && w.state != State::Unknown &&
                   aside(w) == aside(v) && sayTheSame(ruleOf(w), ruleOf(v));
        });
        if (same == out.end()) {
            out.push_back({&v, {}});
            continue;
        }
        const Verdict& before = *same->verdict;
        const bool leads = v.hazard != before.hazard ? v.hazard : worseThan(v, before);
        same->alike.push_back(leads ? &before : &v);
        if (leads) same->verdict = &v;
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const Matter& a, const Matter& b) { return worseThan(*a.verdict, *b.verdict); });
    return out;
}

} // namespace gantry
