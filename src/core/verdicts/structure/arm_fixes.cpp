// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/tools/structure_solve.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message counterweightOf{"counterweight {0}"};
constexpr Message counterweightAt{"counterweight {0} behind"};
constexpr Message hungBelow{"counterweight hung {0} lower"};
constexpr Message bearingsFor{"pivot bearings rated for {0}"};
constexpr Message momentFor{"turning bearing rated for {0}"};
constexpr Message boltsOn{"{0} bolts under the bearing"};
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

/// Above the arm line it tips over towards the rear when the arm is up.
Candidates weightLower(const Problem& p) {
    Candidates out;
    for (std::size_t i = 0; i < p.project.axes.size(); ++i) {
        const auto* r = std::get_if<RotaryMechanism>(&p.project.axes[i].mechanism);
        if (r == nullptr || !(r->boom.counterweight.mass.value > 0.0)) continue;
        for (const double by : {0.1, 0.2, 0.3, 0.43, 0.6})
            add(out, p, FixCost::SettingOnly, hungBelow, {{{Kind::Length, by}}}, [&](Project& q) {
                std::get<RotaryMechanism>(q.axes[i].mechanism).boom.counterweight.above -= by;
            });
    }
    return out;
}

Candidates strongerPivot(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    if (r == nullptr) return out;
    const Pivot& now = r->boom.pivot;
    for (const double factor : {1.5, 2.0, 3.0, 5.0}) {
        const auto raise = [&](const Estimate& rating, Estimate Pivot::*field, Message label, Kind kind) {
            if (!(rating.value > 0.0)) return;
            const double to = rounded(rating.value * factor, 1.0, true);
            add(out, p, FixCost::ToBuy, label, {{{kind, to}}}, [&](Axis& a) {
                std::get<RotaryMechanism>(a.mechanism).boom.pivot.*field = estimate(to, Source::DataSheet);
            });
        };
        raise(now.bearingRating, &Pivot::bearingRating, bearingsFor, Kind::Force);
        raise(now.bearingMoment, &Pivot::bearingMoment, momentFor, Kind::Torque);
        if (now.bolts > 0) {
            const int bolts = static_cast<int>(std::ceil(now.bolts * factor));
            add(out, p, FixCost::ToBuy, boltsOn, {{{Kind::Count, static_cast<double>(bolts)}}},
                [&](Axis& a) { std::get<RotaryMechanism>(a.mechanism).boom.pivot.bolts = bolts; });
        }
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
constinit const Family counterweightHeight{"counterweight_height", words::listOf<hungBelow>, weightLower};
constinit const Family pivotParts{"pivot_parts", words::listOf<bearingsFor, momentFor, boltsOn>,
                                  strongerPivot};
constinit const Family thickerPin{"thicker_pin", words::listOf<pinOf>, thicker};

} // namespace gantry::fixes
