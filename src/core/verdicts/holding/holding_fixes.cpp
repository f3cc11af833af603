// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <span>

namespace gantry::fixes {
namespace {

constexpr Message holdCurrentOf{"hold current {0} rms"};
constexpr Message brakeOf{"power-off brake of {0}"};
constexpr Message itemBack{"{part} {0} farther back"};
constexpr Message itemForward{"{part} {0} farther forward"};
constexpr Message andLower{"{0} lower"};
constexpr Message andHigher{"{0} higher"};
constexpr Message weightBehind{"weight of {0}, {1} on the other side of the axis"};
constexpr Message wormInPlace{"{part} in place of the reduction: it cannot be driven back"};
constexpr Message screwInPlace{"{part} in place of the drive: it cannot be driven back"};
constexpr Message keepsHolding{"emergency stop that keeps the holding current"};

Candidates moreHoldCurrent(const Problem& p) {
    Candidates out;
    const auto* stepper = p.evaluation().model.stepper();
    if (stepper == nullptr) return out;
    const Driver& driver = p.axis().driver;
    // Who holds with more than the axis runs with, runs too low or holds too high.
    const double ceiling = std::min({driver.maxCurrent, stepper->ratedCurrentRms, driver.runCurrent});
    const double now = driver.holdCurrent;
    const double needed =
        less(0.0, p.verdict.ratio) ? now * p.verdict.bounds.wanted / p.verdict.ratio.value() : ceiling;
    for (const double amps : std::set{std::min(rounded(needed, 1.0, true), ceiling), ceiling})
        if (amps > now)
            add(out, p, FixCost::SettingOnly, holdCurrentOf, {{{Kind::Current, amps}}},
                [&](Axis& a) { a.driver.holdCurrent = amps; });
    return out;
}

/// Brakes by the static torque of their data sheet, so their tolerance is a data sheet's.
Candidates brakes(const Problem& p) {
    Candidates out;
    // What cannot be driven back wants a second hold only over or near people.
    const Conditions& place = p.project.conditions;
    const bool people = p.project.base.kind == BaseKind::Overhead || place.energyNearPeople > 0.0 ||
                        place.speedNearPeople > 0.0;
    if (p.axis().brake.fitted || (p.evaluation().checks.locks && p.verdict.state == State::Tight && !people))
        return out;
    for (const parts::StockSize& s : parts::stockSizes(p.stock, "brake", "holding_torque_Nm"))
        add(out, p, s.owned ? FixCost::PartOnHand : FixCost::ToBuy, brakeOf, {{{Kind::Torque, s.value}}},
            [&](Axis& a) {
                a.brake.fitted = true;
                a.brake.holdingTorque = estimate(s.value, Source::DataSheet);
            });
    return out;
}

/// What an axis carries that has a place on it, in any project: its items, then the payload.
std::vector<MassItem*> carried(Project& project, Axis& axis) {
    std::vector<MassItem*> out;
    std::visit(
        [&](auto& m) {
            for (MassItem& item : m.items) out.push_back(&item);
        },
        axis.mechanism);
    if (axis.carriesPayload)
        for (MassItem& item : project.payload) out.push_back(&item);
    return out;
}

/// Moment of all that an axis carries [kg·m], along and above it, and the place of the heaviest in the list.
struct Carried {
    double moment = 0.0, upright = 0.0;
    std::size_t heaviest = 0;
    std::vector<MassItem*> items;
};
Carried carriedIn(Project& project, Axis& axis) {
    Carried out;
    out.items = carried(project, axis);
    for (std::size_t i = 0; i < out.items.size(); ++i) {
        out.moment += out.items[i]->mass.value * out.items[i]->along;
        out.upright += out.items[i]->mass.value * out.items[i]->above;
        if (out.items[i]->mass.value > out.items[out.heaviest]->mass.value) out.heaviest = i;
    }
    return out;
}
/// An axis on which weight pulls and that is no arm with a counterweight of its own.
bool headIn(const Problem& p) {
    return !p.linear() && sectionOf(p.axis()).shape == SectionShape::NotGiven;
}

/// The heaviest thing moved along until the head balances, or nearly so: then its weight still keeps the
/// backlash on one side.
Candidates balancedHead(const Problem& p) {
    Candidates out;
    Project copy = p.project;
    const Carried now = carriedIn(copy, p.axisIn(copy));
    if (!headIn(p) || now.items.empty()) return out;
    const MassItem& heaviest = *now.items[now.heaviest];
    if (!(heaviest.mass.value > 0.0)) return out;
    constexpr double farthest = 0.25; // [m] that a plate allows
    const auto inMillimetres = [&](double moment) {
        return std::round(moment / heaviest.mass.value * 1e3) * 1e-3;
    };
    const double down = inMillimetres(now.upright);
    // Moved along at first; then up or down as well, for what turns far.
    for (const bool both : {false, true})
        for (const double left : {0.0, 0.02, 0.05, 0.1}) {
            const double by = inMillimetres(now.moment * (1.0 - left));
            if (std::abs(by) < 1e-3 || std::abs(by) > farthest) continue;
            if (both && (std::abs(down) < 1e-3 || std::abs(down) > farthest)) continue;
            add(out, p, FixCost::SettingOnly, by > 0.0 ? itemBack : itemForward,
                {{{Kind::PartLength, std::abs(by)}}}, [&](Project& q) {
                    MassItem& item = *carriedIn(q, p.axisIn(q)).items[now.heaviest];
                    item.along -= by;
                    if (both) item.above -= down;
                });
            out.back().part = heaviest.name;
            if (both)
                out.back().more.push_back(
                    {down > 0.0 ? andLower : andHigher, {{{Kind::PartLength, std::abs(down)}}}, {}, {}});
        }
    return out;
}

Candidates weightOpposite(const Problem& p) {
    Candidates out;
    Project copy = p.project;
    const Carried now = carriedIn(copy, p.axisIn(copy));
    if (!headIn(p) || now.items.empty() || std::abs(now.moment) < 1e-4) return out;
    // About a third as far out as what it balances, but where a hand's breadth does, no farther.
    const double out0 = std::abs(now.items[now.heaviest]->along);
    for (const double arm : {std::clamp(rounded(out0 / 2.5, 0.01, false), 0.12, 0.8),
                             std::clamp(rounded(out0 / 1.5, 0.01, false), 0.2, 1.5)}) {
        const double exact = std::abs(now.moment) / arm, grid = exact < 2.0 ? 0.01 : 0.05;
        const double mass = std::round(exact / grid) * grid, along = now.moment > 0.0 ? -arm : arm;
        constexpr double heaviest = 30.0; // [kg] that one lifts onto an arm
        if (!(mass > 0.0) || mass > heaviest) continue;
        add(out, p, FixCost::PartOnHand, weightBehind, {{{Kind::Mass, mass}, {Kind::PartLength, arm}}},
            [&](Project& q) {
                MassItem item;
                item.id = freeId(q, p.axis().id + "-weight");
                item.name = "Balance weight";
                item.mass = estimate(mass, Source::Measured);
                item.along = along;
                std::get<RotaryMechanism>(p.axisIn(q).mechanism).items.push_back(item);
            });
    }
    return out;
}

/// A worm that locks in place of all that reduces now, or a screw in place of belt, rack or cord.
Candidates lockingDrives(const Problem& p) {
    Candidates out;
    for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
        for (const parts::Part& part : from) {
            const bool worm = part.family == "worm", screw = part.family == "screw" && p.linear();
            if (!worm && !screw) continue;
            add(out, p, part.count > 0 ? FixCost::PartOnHand : FixCost::ToBuy,
                worm ? wormInPlace : screwInPlace, {}, [&](Project& q) {
                    p.axisIn(q).links.clear();
                    parts::usePart(q, p.verdict.axis, -1, part);
                });
            out.back().part = part.name;
        }
    return out;
}

Candidates keptCurrent(const Problem& p) {
    Candidates out;
    if (!holdsAfter(p.axis().onStop))
        add(out, p, FixCost::SettingOnly, keepsHolding, {}, [](Axis& a) { a.onStop = OnStop::KeepsHolding; });
    return out;
}

} // namespace

constinit const Family holdCurrent{"hold_current", words::listOf<holdCurrentOf>, moreHoldCurrent};
constinit const Family balanceHead{"balance_head", words::listOf<itemBack, itemForward, andLower, andHigher>,
                                   balancedHead};
constinit const Family balanceWeight{"balance_weight", words::listOf<weightBehind>, weightOpposite};
constinit const Family locking{"locking", words::listOf<wormInPlace, screwInPlace>, lockingDrives};
constinit const Family brake{"brake", words::listOf<brakeOf>, brakes};
constinit const Family stopBehaviour{"stop_behaviour", words::listOf<keepsHolding>, keptCurrent};

} // namespace gantry::fixes
