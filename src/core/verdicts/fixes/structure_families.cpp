// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/candidates.h"

#include "core/evaluate/rig/rig_layout.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/tools/structure_solve.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

using M = words::MessageId;
using units::Kind;

Axis& axisIn(Candidate& c, const Problem& p) {
    return c.result.axes[static_cast<std::size_t>(p.verdict.axis)];
}

void addStands(Family& family, const Problem& p, double first, double second) {
    addSetting(family, p, FixCost::SettingOnly, M::FixStands, {Kind::Length, first}, -1,
               {{p.axisPath("mechanism/rail/first_stand_m"), first},
                {p.axisPath("mechanism/rail/second_stand_m"), second}});
    if (!family.empty()) family.back().arguments[1] = {Kind::Length, second};
}

} // namespace

Family bestStandPlaces(const Problem& p) {
    Family family;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr || linear->rail.support != RailSupport::TwoStands) return family;
    if (const auto best = bestStands(p.project, p.axis(), &p.evaluation()))
        addStands(family, p, best->first, best->second);
    return family;
}

Family standsOutwards(const Problem& p) {
    Family family;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr || linear->rail.support != RailSupport::TwoStands) return family;
    // Half of what is left to each end, again and again: the gentlest move that holds comes first.
    double first = linear->rail.firstStand, second = linear->rail.secondStand;
    for (int i = 0; i < 4; ++i) {
        first = std::floor(500.0 * first) * 1e-3;
        second = linear->railLength - std::floor(500.0 * (linear->railLength - second)) * 1e-3;
        addStands(family, p, first, second);
    }
    return family;
}

Family stockSection(const Problem& p) {
    Family family;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const Section& now = sectionOf(p.axis());
    for (const Section& s : sectionsToTry(p.project, now)) {
        const bool turned = s.onEdge != now.onEdge && s.width == now.width && s.height == now.height;
        Candidate c{turned ? FixCost::SettingOnly : FixCost::ToBuy,
                    turned ? M::FixOnEdge : M::FixSection,
                    {},
                    -1,
                    {p.axisPath(linear != nullptr ? "mechanism/rail/section" : "mechanism/boom/section")},
                    p.project};
        c.arguments = {{{Kind::PartLength, s.width},
                        {Kind::PartLength, s.shape == SectionShape::RoundTube ? s.wall : s.height}}};
        sectionOf(axisIn(c, p)) = s;
        family.push_back(std::move(c));
    }
    // Turning what is there costs nothing, so it is tried first.
    std::stable_sort(family.begin(), family.end(), [](const Candidate& a, const Candidate& b) {
        return static_cast<int>(a.cost) < static_cast<int>(b.cost);
    });
    return family;
}

Family counterweight(const Problem& p) {
    Family family;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    const auto best = balanceWith(p.project, p.axis());
    if (r == nullptr || !best) return family;
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
        addSetting(family, p, moved ? FixCost::SettingOnly : FixCost::ToBuy,
                   moved ? M::FixCounterweightPlace : M::FixCounterweight,
                   moved ? words::Argument{Kind::Length, behind} : words::Argument{Kind::Mass, mass}, -1,
                   {{p.axisPath("mechanism/boom/counterweight/behind_m"), behind},
                    {p.axisPath("mechanism/boom/counterweight/mass_kg"), mass}});
    }
    return family;
}

Family ballast(const Problem& p) {
    Family family;
    const Figure& needed = p.now.evaluation.rig.ballastNeeded;
    if (!needed) return family;
    const double there = p.project.base.ballast.value;
    // A little more than the nominal need, for the low end of what the inputs allow.
    for (const double factor : {1.1, 1.4, 2.0}) {
        const double mass = there + std::ceil(std::max(1.0, needed.value() * factor));
        addSetting(family, p, FixCost::ToBuy, M::FixBallast, {Kind::Mass, mass}, -1,
                   {{"base/ballast_kg", mass}, {"base/ballast_out_m", 0.0}, {"base/ballast_leg", 0.0}});
    }
    return family;
}

Family ballastOnLeg(const Problem& p) {
    Family family;
    const RigStructure& found = p.now.evaluation.rig;
    if (found.tippingPose.empty()) return family;
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
    if (best == 0 || best == p.project.base.ballastLeg) return family;
    const double there = p.project.base.ballast.value;
    for (const double factor : {1.1, 1.4, 2.0}) {
        const double mass = std::max(there, std::ceil(std::max(1.0, least * factor)));
        addSetting(family, p, mass > there ? FixCost::ToBuy : FixCost::SettingOnly, M::FixBallastLeg,
                   {Kind::Mass, mass}, -1, {{"base/ballast_kg", mass}, {"base/ballast_leg", best}});
        if (!family.empty()) family.back().arguments[1] = {Kind::Count, static_cast<double>(best)};
    }
    return family;
}

Family stifferPads(const Problem& p) {
    Family family;
    const double now = p.project.base.padStiffness.value;
    if (!(now > 0.0)) return family;
    for (const double factor : {2.0, 4.0, 8.0})
        addSetting(family, p, FixCost::ToBuy, M::FixPads, {Kind::Stiffness, now * factor}, -1,
                   {{"base/pad_stiffness_N_m", now * factor}});
    return family;
}

Family clampBolts(const Problem& p) {
    Family family;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr || linear->rail.clampBolts <= 0) return family;
    for (const int factor : {2, 3, 4}) {
        const double bolts = linear->rail.clampBolts * factor;
        addSetting(family, p, FixCost::ToBuy, M::FixClampBolts, {Kind::Count, bolts}, -1,
                   {{p.axisPath("mechanism/rail/clamp_bolts"), bolts}});
    }
    return family;
}

Family widerFeet(const Problem& p) {
    Family family;
    const Base& base = p.project.base;
    for (const double factor : {1.15, 1.3, 1.5, 2.0}) {
        if (base.kind == BaseKind::Legs) {
            const double radius = rounded(base.legRadius * factor, 1e-3, true);
            addSetting(family, p, FixCost::SettingOnly, M::FixLegs, {Kind::Length, radius}, -1,
                       {{"base/leg_radius_m", radius}});
        } else if (base.kind == BaseKind::Rectangle) {
            const double length = rounded(base.length * factor, 1e-3, true),
                         width = rounded(base.width * factor, 1e-3, true);
            addSetting(family, p, FixCost::ToBuy, M::FixLegs, {Kind::Length, 0.5 * width}, -1,
                       {{"base/length_m", length}, {"base/width_m", width}});
        }
    }
    return family;
}

Family lowerColumn(const Problem& p) {
    Family family;
    const Base& base = p.project.base;
    for (const double share : {0.85, 0.7, 0.5}) {
        const double height = rounded(base.height * share, 1e-3, false);
        addSetting(family, p, FixCost::SettingOnly, M::FixBaseHeight, {Kind::Length, height}, -1,
                   {{"base/height_m", height}, {"base/push_height_m", std::min(base.pushHeight, height)}});
    }
    return family;
}

Family longerSettle(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->rocking.settling) return family;
    const Shot& shot = p.project.shots[static_cast<std::size_t>(e->shot)];
    // As long as the nominal swing wants, and as long as the low end of what is known of it wants.
    std::vector<double> wishes{1.35 * e->rocking.settling.value(), 2.0 * e->rocking.settling.value()};
    if (p.verdict.low > 0.0)
        for (const double more : {1.02, 1.5})
            wishes.push_back(more * shot.settle * p.verdict.bounds.wanted / p.verdict.low);
    for (const double wish : wishes) {
        const double wait = rounded(wish, 1.0, true);
        if (wait > shot.settle)
            addSetting(family, p, FixCost::SettingOnly, M::FixSettle, {Kind::Time, wait}, e->shot,
                       {{"shots/" + shot.id + "/settle_s", wait}});
    }
    return family;
}

Family slowerSteps(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr) return family;
    const Shot& shot = p.project.shots[static_cast<std::size_t>(e->shot)];
    if (!stepwise(shot)) return family;
    for (const double factor : {1.5, 2.0, 3.0, 5.0}) {
        const double time = rounded(shot.stepTime * factor, 1.0, true);
        // Within the interval something must be left for the picture.
        if (shot.kind == ShotKind::Interval && time + shot.settle + shot.exposure > shot.interval) break;
        addSetting(family, p, FixCost::SettingOnly, M::FixShotEase, {Kind::Time, 0.3 * time}, e->shot,
                   {{"shots/" + shot.id + "/step_time_s", time}});
    }
    return family;
}

Family thickerPin(const Problem& p) {
    Family family;
    const auto* r = std::get_if<RotaryMechanism>(&p.axis().mechanism);
    if (r == nullptr || r->boom.pivot.pinDiameter <= 0.0) return family;
    for (const double d : {0.006, 0.008, 0.01, 0.012, 0.016, 0.02, 0.025, 0.03})
        if (d > r->boom.pivot.pinDiameter)
            addSetting(family, p, FixCost::ToBuy, M::FixPin, {Kind::PartLength, d}, -1,
                       {{p.axisPath("mechanism/boom/pivot/pin_diameter_m"), d}});
    return family;
}

Family secondTether(const Problem& p) {
    Family family;
    addSetting(family, p, FixCost::ToBuy, M::FixTether, {}, -1, {{"base/tethered", 1.0}});
    return family;
}

} // namespace gantry::fixes
