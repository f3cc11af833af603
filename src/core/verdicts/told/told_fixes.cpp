// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/units/text.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message perMillimetre{"set {0} steps per mm"};
constexpr Message massAtLeast{"moving mass {0}, as what stands on it weighs"};
constexpr Message perDegree{"set {0} steps per °"};

/// Puts the number of the parts, as the controller keeps it, in the place of every one that was told.
Candidates ofTheParts(const Problem& p) {
    Candidates out;
    const AxisEvaluation& e = p.evaluation();
    if (!e.steps.stepsPerUnitKept) return out;
    const double steps = e.steps.stepsPerUnitKept.value();
    add(out, p, FixCost::SettingOnly, p.linear() ? perMillimetre : perDegree, {{{Kind::Ratio, steps, 7}}},
        [&](Axis& a) {
            const std::string said = std::string(p.linear() ? "steps/mm = " : "steps/° = ") +
                                     units::plainNumber(steps, p.project.controller.decimalsKept);
            for (const crosscheck::Claim& c : crosscheck::claimsOf(p.axis())) {
                if (!crosscheck::stepsSaid(e, c)) continue;
                std::string& line = a.told[c.line];
                if (const auto at = line.find(c.text); at != std::string::npos)
                    line.replace(at, c.text.size(), said);
            }
        });
    return out;
}

/// The moving mass raised to what stands on it.
Candidates massThatStands(const Problem& p) {
    Candidates out;
    const Figure& on = p.evaluation().checks.massOn;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr || !on || !less(linear->movingMass.value, on)) return out;
    const double mass = rounded(on.value(), 0.01, true);
    add(out, p, FixCost::SettingOnly, massAtLeast, {{{Kind::Mass, mass}}},
        [&](Axis& a) { std::get<LinearMechanism>(a.mechanism).movingMass.value = mass; });
    return out;
}

} // namespace

constinit const Family massOfParts{"mass_of_parts", words::listOf<massAtLeast>, massThatStands};
constinit const Family stepsOfTheParts{"steps_of_the_parts", words::listOf<perMillimetre, perDegree>,
                                       ofTheParts};

} // namespace gantry::fixes
