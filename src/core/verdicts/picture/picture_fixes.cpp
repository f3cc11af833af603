// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/overload.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>

/// What keeps backlash and other play out of the picture.
namespace gantry::fixes {
namespace {

constexpr Message springOf{"spring or band of {0} to one side"};
constexpr Message washer{"felt washer or a brake that drags: friction {0}"};
constexpr Message splitGears{"spring-loaded split gears"};
constexpr Message reducerWithout{"“{part}” in place of the gearhead"};
constexpr Message beltFor{"belt {0}:{1} teeth in place of the gears"};
constexpr Message nutWithout{"preloaded nut without backlash"};
constexpr Message lowerBy{"{part} {0} lower"};
constexpr Message closerGuide{"guides with {0} of play"};
constexpr Message longerBase{"wheels {0} apart along the rail"};
constexpr Message rangeOf{"range {0}, as far as the ring turns"};
constexpr Message realRing{"a lens with a mechanical ring and hard stops"};

RotaryMechanism* turning(Axis& axis) {
    return std::get_if<RotaryMechanism>(&axis.mechanism);
}

/// One that holds against friction, gravity and ramps at its weakest, either way round.
Candidates springs(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    const ShotEvaluation* e = p.shot();
    if (r == nullptr || e == nullptr || !e->flank.missing) return out;
    for (const double more : {1.0, 1.3, 1.6, 2.2})
        for (const double way : {1.0, -1.0}) {
            const double torque = rounded(e->flank.missing.value() * more, 1.0, true);
            if (!(torque > 0.0)) continue;
            add(out, p, FixCost::ToBuy, springOf, {{{Kind::Torque, torque}}}, [&](Axis& a) {
                Estimate& t = turning(a)->spring.torqueAtLow;
                t = estimate(t.value + way * torque, Source::DataSheet);
                t.tolerance = 0.2;
            });
        }
    return out;
}

Candidates moreFriction(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    if (r == nullptr) return out;
    for (const double factor : {2.0, 3.0, 5.0, 8.0}) {
        const double friction = rounded(r->friction.value * factor, 1e-3, true);
        add(out, p, FixCost::ToBuy, washer, {{{Kind::Torque, friction}}}, [&](Axis& a) {
            RotaryMechanism& m = *turning(a);
            m.friction.value = friction;
            m.staticFriction.value = std::max(m.staticFriction.value, 1.2 * friction);
        });
    }
    return out;
}

double ratioOf(const parts::Part& part) {
    const auto number = [&](std::string_view key) { return parts::numberOf(part, key).value_or(0.0); };
    if (part.family == "strain_wave") return 0.5 * number("flex_teeth");
    return number("ratio_denominator") > 0.0 ? number("ratio_numerator") / number("ratio_denominator") : 0.0;
}

/// Stages without play in place of those that have it.
Candidates withoutPlay(const Problem& p) {
    Candidates out;
    const std::vector<Link>& links = p.axis().links;
    const bool gears = std::any_of(links.begin(), links.end(), [](const Link& l) {
        const auto* g = std::get_if<GearStage>(&l);
        return g != nullptr && !g->split;
    });
    if (gears)
        add(out, p, FixCost::ToBuy, splitGears, {}, [](Axis& a) {
            for (Link& l : a.links)
                if (auto* g = std::get_if<GearStage>(&l)) {
                    g->split = true;
                    g->figures.backlash.value = 0.0;
                }
        });
    for (std::size_t i = 0; i < links.size(); ++i) {
        if (const auto* g = std::get_if<GearStage>(&links[i])) {
            add(out, p, FixCost::ToBuy, beltFor,
                {{{Kind::Count, static_cast<double>(g->motorTeeth)},
                  {Kind::Count, static_cast<double>(g->loadTeeth)}}},
                [&](Axis& a) {
                    BeltStage belt;
                    belt.id = g->id;
                    belt.motorTeeth = g->motorTeeth;
                    belt.loadTeeth = g->loadTeeth;
                    a.links[i] = belt;
                });
            continue;
        }
        const auto* planetary = std::get_if<PlanetaryStage>(&links[i]);
        const auto* reducer = std::get_if<ReducerStage>(&links[i]);
        if (planetary == nullptr && (reducer == nullptr || !(reducer->figures.backlash.value > 0.0)))
            continue;
        const double now =
            planetary != nullptr
                ? std::pow(1.0 + static_cast<double>(planetary->ringTeeth) / planetary->sunTeeth,
                           planetary->stages)
                : static_cast<double>(reducer->numerator) / reducer->denominator;
        for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
            for (const parts::Part& part : from) {
                if (part.family != "reducer" && part.family != "strain_wave") continue;
                const double ratio = ratioOf(part);
                if (!(ratio > 0.4 * now && ratio < 2.5 * now)) continue;
                add(out, p, part.count > 0 ? FixCost::PartOnHand : FixCost::ToBuy, reducerWithout, {},
                    [&](Project& q) { parts::usePart(q, p.verdict.axis, static_cast<int>(i), part); });
                out.back().part = part.name;
            }
    }
    if (const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism))
        if (const auto* screw = std::get_if<ScrewOutput>(&linear->output);
            screw != nullptr && screw->backlash.value > 0.0)
            add(out, p, FixCost::ToBuy, nutWithout, {}, [](Axis& a) {
                ScrewOutput& s = std::get<ScrewOutput>(std::get<LinearMechanism>(a.mechanism).output);
                s.backlash.value = 0.0;
                s.nutDrag.value = std::max(s.nutDrag.value, 0.03);
            });
    return out;
}

/// The heaviest thing that a head carries hung lower, so that its weight pulls one way over the whole range.
Candidates lowered(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    if (r == nullptr || p.axis().role != Role::Tilt) return out;
    const auto heaviest = [&](Project& q) -> MassItem* {
        MassItem* best = nullptr;
        const auto look = [&](std::vector<MassItem>& items) {
            for (MassItem& item : items)
                if (best == nullptr || item.mass.value > best->mass.value) best = &item;
        };
        look(turning(p.axisIn(q))->items);
        if (p.axis().carriesPayload) look(q.payload);
        return best;
    };
    Project copy = p.project;
    const MassItem* now = heaviest(copy);
    if (now == nullptr) return out;
    for (const double by : {0.02, 0.03, 0.04, 0.055, 0.07, 0.09, 0.12}) {
        add(out, p, FixCost::SettingOnly, lowerBy, {{{Kind::PartLength, by}}},
            [&](Project& q) { heaviest(q)->above -= by; });
        out.back().part = now->name;
    }
    return out;
}

Candidates closerPlay(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr) return out;
    for (const double share : {0.5, 0.25, 0.1}) {
        const double play = rounded(linear->guide.play.value * share, 1e-6, false);
        if (play > 0.0)
            add(out, p, FixCost::ToBuy, closerGuide, {{{Kind::PartLength, play}}},
                [&](Axis& a) { std::get<LinearMechanism>(a.mechanism).guide.play.value = play; });
    }
    return out;
}

/// The carriage grows with it.
Candidates widerBase(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr) return out;
    for (const double factor : {1.3, 1.6, 2.0, 3.0}) {
        const double base = rounded(linear->guide.wheelbase * factor, 1e-3, true);
        add(out, p, FixCost::ToBuy, longerBase, {{{Kind::PartLength, base}}}, [&](Axis& a) {
            LinearMechanism& l = std::get<LinearMechanism>(a.mechanism);
            l.carriageLength = std::max(l.carriageLength, l.carriageLength + base - l.guide.wheelbase);
            l.guide.wheelbase = base;
        });
    }
    return out;
}

Candidates otherLens(const Problem& p) {
    Candidates out;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    const auto* ring = r != nullptr ? std::get_if<LensRingOutput>(&r->output) : nullptr;
    if (ring != nullptr && (!ring->steadyElectronics || !ring->hardStops))
        add(out, p, FixCost::ToBuy, realRing, {}, [](Axis& a) {
            LensRingOutput& l = std::get<LensRingOutput>(turning(a)->output);
            l.steadyElectronics = l.hardStops = true;
            l.ringThrow = std::max(l.ringThrow, turning(a)->range);
        });
    else if (ring != nullptr && r->range > ring->ringThrow)
        add(out, p, FixCost::SettingOnly, rangeOf, {{{Kind::Angle, ring->ringThrow}}},
            [](Axis& a) { turning(a)->range = std::get<LensRingOutput>(turning(a)->output).ringThrow; });
    return out;
}

} // namespace

constinit const Family preloadSpring{"preload_spring", words::listOf<springOf>, springs};
constinit const Family feltWasher{"felt_washer", words::listOf<washer>, moreFriction};
constinit const Family noPlay{"no_play", words::listOf<splitGears, reducerWithout, beltFor, nutWithout>,
                              withoutPlay};
constinit const Family hungLower{"hung_lower", words::listOf<lowerBy>, lowered};
constinit const Family guidePlay{"guide_play", words::listOf<closerGuide>, closerPlay};
constinit const Family wheelbase{"wheelbase", words::listOf<longerBase>, widerBase};
constinit const Family mechanicalRing{"mechanical_ring", words::listOf<realRing, rangeOf>, otherLens};

} // namespace gantry::fixes
