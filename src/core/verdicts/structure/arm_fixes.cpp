// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/tools/structure_solve.h"

#include <algorithm>

namespace gantry::fixes {
namespace {

constexpr Message counterweightOf{"counterweight {0}"};
constexpr Message counterweightAt{"counterweight {0} behind"};
constexpr Message pinOf{"pivot pin {0}"};

Candidates balanced(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    const auto best = balanceWith(p.project, p.axis());
    if (r == nullptr || !best) return out;
    const Counterweight& now = r->boom.counterweight;
    const bool moved = best->mass.value == now.mass.value;
    const double front =
        p.evaluation().structure.frontMoment ? p.evaluation().structure.frontMoment.value() : 0.0;
    // Balanced to nothing, gravity no longer keeps the play on one side: a few hundredths of what hangs in
    // front are left to the camera's side where that serves the rig better.
    for (const double left : {0.0, 0.02, 0.04, 0.06, 0.08}) {
        const double behind =
            moved
                ? rounded(best->behind - left * front / (now.mass.value * units::standardGravity), 1e-3, true)
                : best->behind;
        const double mass = moved ? best->mass.value : rounded(best->mass.value * (1.0 - left), 0.01, true);
        if (behind < std::min(now.nearest, now.farthest)) break;
        add(out, p, moved ? FixCost::SettingOnly : FixCost::ToBuy, moved ? counterweightAt : counterweightOf,
            {{moved ? words::Argument{Kind::Length, behind} : words::Argument{Kind::Mass, mass}}},
            [&](Axis& a) {
                Counterweight& w = std::get<RotaryMechanism>(a.mechanism).boom.counterweight;
                w.behind = behind;
                w.mass.value = mass;
            });
    }
    return out;
}

Candidates thicker(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    if (r == nullptr || r->boom.pivot.pinDiameter <= 0.0) return out;
    for (const parts::StockSize& s : parts::stockSizes(p.stock, "pin", "pin_diameter_m"))
        if (s.value > r->boom.pivot.pinDiameter)
            add(out, p, s.owned ? FixCost::PartOnHand : FixCost::ToBuy, pinOf,
                {{{Kind::PartLength, s.value}}},
                [&](Axis& a) { std::get<RotaryMechanism>(a.mechanism).boom.pivot.pinDiameter = s.value; });
    return out;
}

} // namespace

constinit const Family counterweight{"counterweight", words::listOf<counterweightOf, counterweightAt>,
                                     balanced};
constinit const Family thickerPin{"thicker_pin", words::listOf<pinOf>, thicker};

} // namespace gantry::fixes
