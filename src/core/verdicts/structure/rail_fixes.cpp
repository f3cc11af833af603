// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/tools/structure_solve.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message standsAt{"stands at {0} and {1}"};
constexpr Message boltsInEach{"{0} bolts in each clamp"};
constexpr Message secondStandAt{"two stands at {0} and {1} in place of the single head"};
constexpr Message ribUnder{"a bar {0} × {1} screwed upright under it"};
constexpr Message turnedOnSide{"the section turned on its side"};
constexpr Message sectionOfSize{"section {0} × {1}"};

/// The rail of the verdict's axis; null on rotary ones.
const LinearMechanism* railOf(const Problem& p) {
    return std::get_if<LinearMechanism>(&p.axis().mechanism);
}

void addStands(Candidates& out, const Problem& p, double first, double second) {
    add(out, p, FixCost::SettingOnly, standsAt, {{{Kind::Length, first}, {Kind::Length, second}}},
        [&](Axis& a) {
            Rail& rail = std::get<LinearMechanism>(a.mechanism).rail;
            rail.firstStand = first;
            rail.secondStand = second;
        });
}

Candidates bestPlaces(const Problem& p) {
    Candidates out;
    const LinearMechanism* linear = railOf(p);
    if (linear == nullptr || linear->rail.support != RailSupport::TwoStands) return out;
    if (const auto best = bestStands(p.project, p.axis(), &p.evaluation()))
        addStands(out, p, best->first, best->second);
    return out;
}

Candidates widerApart(const Problem& p) {
    Candidates out;
    const LinearMechanism* linear = railOf(p);
    if (linear == nullptr || linear->rail.support != RailSupport::TwoStands) return out;
    // Half of what is left to each end, again and again: the gentlest move that holds comes first.
    // On whole millimetres; a tenth of a micrometre is what a subtraction of lengths may be off.
    const auto halved = [](double left) { return std::floor(500.0 * left + 1e-4) * 1e-3; };
    double first = linear->rail.firstStand, second = linear->rail.secondStand;
    for (int i = 0; i < 4; ++i) {
        first = halved(first);
        second = linear->railLength - halved(linear->railLength - second);
        addStands(out, p, first, second);
    }
    return out;
}

Candidates moreBolts(const Problem& p) {
    Candidates out;
    const LinearMechanism* linear = railOf(p);
    if (linear == nullptr || linear->rail.clampBolts <= 0) return out;
    for (const int factor : {2, 3, 4}) {
        const int bolts = linear->rail.clampBolts * factor;
        add(out, p, FixCost::ToBuy, boltsInEach, {{{Kind::Count, static_cast<double>(bolts)}}},
            [&](Axis& a) { std::get<LinearMechanism>(a.mechanism).rail.clampBolts = bolts; });
    }
    return out;
}

/// Two stands where the rail sags least over them, in place of one head.
Candidates secondStand(const Problem& p) {
    Candidates out;
    const LinearMechanism* linear = railOf(p);
    if (linear == nullptr || linear->rail.support != RailSupport::OneHead) return out;
    const double length = linear->railLength;
    for (const double share : {0.135, 0.2, 0.1, 0.05}) {
        const double first = std::round(share * length * 100.0) / 100.0, second = length - first;
        add(out, p, FixCost::ToBuy, secondStandAt, {{{Kind::Length, first}, {Kind::Length, second}}},
            [&](Project& q) {
                LinearMechanism& l = std::get<LinearMechanism>(p.axisIn(q).mechanism);
                l.rail.support = RailSupport::TwoStands;
                l.rail.firstStand = first;
                l.rail.secondStand = second;
                // The rig then stands on two, as far apart as they are.
                if (q.base.kind != BaseKind::Legs) return;
                q.base.kind = BaseKind::Rectangle;
                q.base.length = second - first + q.base.legRadius;
                q.base.width = std::sqrt(3.0) * q.base.legRadius;
            });
    }
    return out;
}

/// A flat bar becomes a T: a bar of the same stock on edge under it.
Candidates ribs(const Problem& p) {
    Candidates out;
    const Section& now = sectionOf(p.axis());
    if (now.shape != SectionShape::SolidRectangle || now.onEdge || now.width < 2.0 * now.height) return out;
    for (const double share : {0.67, 1.0}) {
        const double web = rounded(share * now.width, 1e-3, false);
        add(out, p, FixCost::PartOnHand, ribUnder,
            {{{Kind::PartLength, web}, {Kind::PartLength, now.height}}}, [&](Axis& a) {
                Section& s = sectionOf(a);
                s.shape = SectionShape::Tee;
                s.wall = s.flange = now.height;
                s.height = web + now.height;
            });
    }
    return out;
}

/// Of a rail or an arm.
Candidates otherSections(const Problem& p) {
    Candidates out;
    // On a single head it is the head that gives way first; a second stand helps more than any rail.
    if (const LinearMechanism* linear = railOf(p);
        linear != nullptr && linear->rail.support == RailSupport::OneHead)
        return out;
    const Section& now = sectionOf(p.axis());
    for (const Section& s : sectionsToTry(p.project, now, p.stock)) {
        const bool turned = s.onEdge != now.onEdge && s.width == now.width && s.height == now.height;
        const FixCost cost = turned                              ? FixCost::SettingOnly
                             : parts::owns(p.stock, s, now.wall) ? FixCost::PartOnHand
                                                                 : FixCost::ToBuy;
        add(out, p, cost, turned ? turnedOnSide : sectionOfSize,
            {{{Kind::PartLength, s.width},
              {Kind::PartLength, s.shape == SectionShape::RoundTube ? s.wall : s.height}}},
            [&](Axis& a) { sectionOf(a) = s; });
    }
    // Turning what is there costs nothing, so it is tried first.
    std::stable_sort(out.begin(), out.end(), [](const Candidate& a, const Candidate& b) {
        return static_cast<int>(a.cost) < static_cast<int>(b.cost);
    });
    return out;
}

} // namespace

constinit const Family bestStandPlaces{"best_stand_places", words::listOf<standsAt>, bestPlaces};
constinit const Family standsOutwards{"stands_outwards", words::listOf<standsAt>, widerApart};
constinit const Family twoStands{"two_stands", words::listOf<secondStandAt>, secondStand};
constinit const Family rib{"rib", words::listOf<ribUnder>, ribs};
constinit const Family clampBolts{"clamp_bolts", words::listOf<boltsInEach>, moreBolts};
constinit const Family stockSection{"stock_section", words::listOf<turnedOnSide, sectionOfSize>,
                                    otherSections};

} // namespace gantry::fixes
