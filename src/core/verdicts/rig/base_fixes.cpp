// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/evaluate/rig/rig_layout.h"
#include "core/evaluate/rig/rig_structure.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message inTheMiddle{"ballast {0} low in the middle"};
constexpr Message onLeg{"all ballast, {0}, on leg {1}"};
constexpr Message padsOf{"pads of {0} each"};
constexpr Message feetFrom{"feet {0} from the middle"};
constexpr Message columnLowered{"column {0} high"};
constexpr Message anchorsApart{"anchors {0} apart"};
constexpr Message aSecondTether{"a second tether"};

/// What is put on of the ballast that is needed nominally: a little more, for the low end of what the inputs
/// allow.
constexpr std::array overNeed{1.1, 1.4, 2.0};

/// Ballast as people lift it: whole kilograms.
double inKilograms(double mass) {
    return std::ceil(std::max(1.0, mass));
}

Candidates moreBallast(const Problem& p) {
    Candidates out;
    const Figure& needed = p.now.evaluation.rig.ballastNeeded;
    if (!needed) return out;
    for (const double factor : overNeed) {
        const double mass = p.project.base.ballast.value + inKilograms(needed.value() * factor);
        add(out, p, FixCost::ToBuy, inTheMiddle, {{{Kind::Mass, mass}}}, [&](Project& q) {
            q.base.ballast.value = mass;
            q.base.ballastOut = 0.0;
            q.base.ballastLeg = 0;
        });
    }
    return out;
}

Candidates allOnOneLeg(const Problem& p) {
    Candidates out;
    const RigStructure& found = p.now.evaluation.rig;
    if (found.tippingPose.empty()) return out;
    Project bare = p.project;
    bare.base.ballast.value = 0.0;
    const RigSetup rig = setupOf(bare, Courses::No);
    const std::vector<structure::Plan> feet = feetOf(rig.axes, rig.base);
    int best = 0;
    double least = 0.0;
    for (std::size_t i = 0; i < feet.size(); ++i) {
        const Figure needed = ballastNeededAt(rig, p.now.evaluation.axes, found.tippingPose, feet[i]);
        if (needed && (best == 0 || needed.value() < least)) {
            best = static_cast<int>(i) + 1;
            least = needed.value();
        }
    }
    if (best == 0 || best == p.project.base.ballastLeg) return out;
    const double there = p.project.base.ballast.value;
    for (const double factor : overNeed) {
        const double mass = std::max(there, inKilograms(least * factor));
        add(out, p, mass > there ? FixCost::ToBuy : FixCost::SettingOnly, onLeg,
            {{{Kind::Mass, mass}, {Kind::Count, static_cast<double>(best)}}}, [&](Project& q) {
                q.base.ballast.value = mass;
                q.base.ballastLeg = best;
            });
    }
    return out;
}

Candidates stiffer(const Problem& p) {
    Candidates out;
    const double now = p.project.base.padStiffness.value;
    if (!(now > 0.0)) return out;
    for (const double factor : {2.0, 4.0, 8.0})
        add(out, p, FixCost::ToBuy, padsOf, {{{Kind::Stiffness, now * factor}}},
            [&](Project& q) { q.base.padStiffness.value = now * factor; });
    return out;
}

Candidates feetApart(const Problem& p) {
    Candidates out;
    const Base& base = p.project.base;
    for (const double factor : {1.15, 1.3, 1.5, 2.0}) {
        if (base.kind == BaseKind::Legs) {
            const double radius = rounded(base.legRadius * factor, 1e-3, true);
            // Legs spread a little; farther they are other legs.
            add(out, p, factor <= 1.3 ? FixCost::SettingOnly : FixCost::ToBuy, feetFrom,
                {{{Kind::Length, radius}}}, [&](Project& q) { q.base.legRadius = radius; });
        } else if (base.kind == BaseKind::Rectangle) {
            const double length = rounded(base.length * factor, 1e-3, true),
                         width = rounded(base.width * factor, 1e-3, true);
            add(out, p, FixCost::ToBuy, feetFrom, {{{Kind::Length, 0.5 * width}}}, [&](Project& q) {
                q.base.length = length;
                q.base.width = width;
            });
        }
    }
    return out;
}

Candidates shorterColumn(const Problem& p) {
    Candidates out;
    for (const double share : {0.85, 0.7, 0.5}) {
        const double height = rounded(p.project.base.height * share, 1e-3, false);
        add(out, p, FixCost::SettingOnly, columnLowered, {{{Kind::Length, height}}}, [&](Project& q) {
            q.base.height = height;
            q.base.pushHeight = std::min(q.base.pushHeight, height);
        });
    }
    return out;
}

Candidates spread(const Problem& p) {
    Candidates out;
    const Base& base = p.project.base;
    if (base.kind != BaseKind::WallBracket && base.kind != BaseKind::Overhead) return out;
    for (const double factor : {1.5, 2.0, 3.0}) {
        const double apart = rounded(base.anchorSpread * factor, 1e-3, true);
        add(out, p, FixCost::ToBuy, anchorsApart, {{{Kind::Length, apart}}},
            [&](Project& q) { q.base.anchorSpread = apart; });
    }
    return out;
}

Candidates another(const Problem& p) {
    Candidates out;
    add(out, p, FixCost::ToBuy, aSecondTether, {}, [](Project& q) { q.base.tethered = true; });
    return out;
}

} // namespace

constinit const Family ballast{"ballast", words::listOf<inTheMiddle>, moreBallast};
constinit const Family ballastOnLeg{"ballast_on_leg", words::listOf<onLeg>, allOnOneLeg};
constinit const Family stifferPads{"stiffer_pads", words::listOf<padsOf>, stiffer};
constinit const Family widerFeet{"wider_feet", words::listOf<feetFrom>, feetApart};
constinit const Family lowerColumn{"lower_column", words::listOf<columnLowered>, shorterColumn};
constinit const Family anchorSpread{"anchor_spread", words::listOf<anchorsApart>, spread};
constinit const Family secondTether{"second_tether", words::listOf<aSecondTether>, another};

} // namespace gantry::fixes
