// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/rig_terms.h"

#include "core/evaluate/rig/rig_structure.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace gantry::working {
namespace {

using units::Kind;

/// What is listed by itself: a moment of at least this share of all on its side.
constexpr double counts = 0.01;

/// Everything of one name: "the lens".
struct Share {
    std::string name;
    double mass = 0.0, moment = 0.0; ///< [kg], [kg·m] about the edge
};

double total(const std::vector<Share>& shares) {
    double out = 0.0;
    for (const Share& s : shares) out += s.moment;
    return out;
}

std::string shortName(std::string name) {
    if (name.starts_with("the ")) name.erase(0, 4);
    return name;
}

void add(std::vector<Share>& shares, const std::string& name, double mass, double moment) {
    const auto same =
        std::find_if(shares.begin(), shares.end(), [&](const Share& s) { return s.name == name; });
    if (same == shares.end())
        shares.push_back({name, mass, moment});
    else {
        same->mass += mass;
        same->moment += moment;
    }
}

/// Weights on one side of the edge, the larger first, small ones together.
std::vector<Term> moments(Sheet& sheet, std::vector<Share> shares, const std::string& side,
                          const Term& gravity, const Term& square) {
    const double all = total(shares);
    std::sort(shares.begin(), shares.end(),
              [](const Share& a, const Share& b) { return a.moment > b.moment; });
    std::vector<Term> out;
    double rest = 0.0;
    const auto weight = [&] { return square.value() == 1.0 ? gravity : gravity * square; };
    for (const Share& s : shares) {
        if (s.moment < counts * all) {
            rest += s.moment;
            continue;
        }
        const std::string n = side + std::to_string(out.size() + 1);
        const Term mass = sheet.found("m_" + n, shortName(s.name), Kind::Mass, s.mass, "masses listed"),
                   lever = sheet.found("x_" + n, "its distance from the edge", Kind::Length,
                                       s.moment / s.mass, "the rig as it stands then");
        out.push_back(sheet.named("M_" + n, "moment of " + s.name, Kind::Torque, mass * weight() * lever));
    }
    if (rest > 0.0)
        out.push_back(sheet.named("M_" + side + "rest", "moment of all that is lighter", Kind::Torque,
                                  sheet.found("K_" + side, "its masses times their distances", "kg·m", rest,
                                              "each below 1 % of its side") *
                                      weight()));
    return out;
}

} // namespace

std::optional<Term> tippingRatio(Sheet& sheet, const Evaluation& evaluation) {
    if (!evaluation.rig.tipping) return std::nullopt;
    const RigSetup rig = setupOf(sheet.project());
    const RigLayout layout = layRig(rig, evaluation.rig.tippingPose);
    const Loads loads = loadsOn(rig, evaluation.axes, layout);
    const auto tipping = structure::tipping(loads.footprint, loads.weights, loads.ordinary);
    if (!tipping || tipping->overturning <= 0.0) return std::nullopt;

    const Term gravity = sheet.found("g", "standard gravity", "m/s²", units::standardGravity, "ISO 80000-3");
    const structure::Plan from = tipping->from, to = tipping->to;
    const double length = std::hypot(to.x - from.x, to.y - from.y), nx = (to.y - from.y) / length,
                 ny = -(to.x - from.x) / length;
    const Term slope = sheet.input("β", "base/ground_slope_rad");
    const Term square = slope.value() == 0.0 ? Term(1.0) : cos(slope);
    std::vector<Share> holding, over, downhill;
    for (const RigBody& b : layout.bodies) {
        if (!(b.mass > 0.0)) continue;
        std::string name(bodyName(b.kind));
        if (b.axis >= 0) name += " of " + rig.axes[static_cast<std::size_t>(b.axis)].name;
        const double distance =
            ((to.x - from.x) * (b.centre.y - from.y) - (to.y - from.y) * (b.centre.x - from.x)) / length;
        add(distance >= 0.0 ? holding : over, name, b.mass, b.mass * std::abs(distance));
        if (slope.value() != 0.0) add(downhill, name, b.mass, b.mass * std::max(0.0, b.centre.z));
    }
    const Term holds = sheet.named("M_hold", "what holds it down at the edge", Kind::Torque,
                                   sum(moments(sheet, holding, "h", gravity, square)));
    std::vector<Term> tips = moments(sheet, over, "o", gravity, square);
    const double outward =
        std::max(0.0, nx * std::cos(loads.footprint.downhill) + ny * std::sin(loads.footprint.downhill));
    if (slope.value() != 0.0 && outward > 0.0) {
        const Term along =
            sin(slope) * sheet.found("c_down", "share of the slope that falls over this edge", Kind::Ratio,
                                     outward, "direction in which the ground falls");
        const std::vector<Term> pulls = moments(sheet, downhill, "d", gravity, along);
        tips.insert(tips.end(), pulls.begin(), pulls.end());
    }
    int n = 0;
    for (const structure::Push& p : loads.ordinary) {
        if (!(std::abs(p.force) * std::max(0.0, p.height) > 0.0)) continue;
        const std::string own = std::to_string(++n);
        const bool lasts =
            std::any_of(loads.lasting.begin(), loads.lasting.end(),
                        [&](const structure::Push& l) { return l.force == p.force && l.height == p.height; });
        const Term force =
                       sheet.found("F_" + own, lasts ? "side push or wind" : "planned stop", Kind::Force,
                                   std::abs(p.force), lasts ? "base and conditions" : "ramps of the shots"),
                   height = sheet.found("h_" + own, "its height above the feet", Kind::Length, p.height,
                                        "the rig as it stands then");
        tips.push_back(sheet.named("M_p" + own, lasts ? "moment of the push" : "moment of the stop",
                                   Kind::Torque, force * height));
    }
    const Term overturns = sheet.named("M_tip", "what tips it over the edge", Kind::Torque, sum(tips));
    return holds / overturns;
}

} // namespace gantry::working
