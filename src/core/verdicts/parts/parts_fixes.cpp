// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <numbers>
#include <span>
#include <type_traits>

namespace gantry::fixes {
namespace {

constexpr Message gearsWide{"gears {0} wide"};
constexpr Message pullsBothWays{"cord that pulls both ways"};
constexpr Message drumOneLayer{"drum {0} wide, for one layer"};
constexpr Message drumOf{"drum {0} in diameter and {1} wide"};
constexpr Message cordOf{"cord that breaks at {0}"};
constexpr Message stiffCord{"wire or aramid cord (stretches by 1 % at {0})"};
constexpr Message freeWheels{"wheels on ball bearings: {0} to break away"};
constexpr Message easyBearings{"ball bearings: {0} to break away"};
constexpr Message beltWidth{"belts {0} times as wide"};
constexpr Message steelBelt{"belt with steel cords (stretches by 1 % at {0})"};
constexpr Message shaftOf{"shaft and hub of {0}"};
constexpr Message couplingOf{"stiff coupling of {0}"};
constexpr Message bearingsOf{"bearings rated for {0}"};
constexpr Message throughMiddle{"the drive's pull through the middle of the guides"};
constexpr Message largerPulleys{"pulleys with {0} and {1} teeth"};
constexpr Message largerGears{"gears with {0} and {1} teeth"};
constexpr Message otherScrew{"{part}"};
constexpr Message thrustBearing{"a thrust bearing of its own at the screw, for {0}"};
constexpr Message outboard{"a second bearing outside the pulley, for {0}"};
constexpr Message slackerBelts{"less belt tension: {0} in each span, set with a gauge"};
constexpr Message pressedWith{"roller pressed with {0}"};
constexpr Message moreOnWheels{"{0} of the weight on driven wheels"};
constexpr Message metalGears{"gears of steel"};
constexpr Message gearheadFor{"“{part}” in place of the gearhead"};
constexpr Message tensionOf{"belt tension {0} in each span, set with a gauge"};

Candidates widerGears(const Problem& p) {
    Candidates out;
    const std::vector<Link>& links = p.axis().links;
    for (std::size_t i = 0; i < links.size(); ++i)
        if (const auto* gear = std::get_if<GearStage>(&links[i]))
            for (const double factor : {1.5, 2.0, 3.0}) {
                const double width = rounded(gear->faceWidth * factor, 1e-3, true);
                add(out, p, FixCost::ToBuy, gearsWide, {{{Kind::PartLength, width}}},
                    [&](Axis& a) { std::get<GearStage>(a.links[i]).faceWidth = width; });
            }
    return out;
}

Candidates closedLoop(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const auto* winch = linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
    if (winch != nullptr && !winch->closedLoop)
        add(out, p, FixCost::ToBuy, pullsBothWays, {}, [](Axis& a) {
            std::get<WinchOutput>(std::get<LinearMechanism>(a.mechanism).output).closedLoop = true;
        });
    return out;
}

/// So wide that all of the cord lies in one layer, or in one less than it does.
Candidates wideDrum(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const auto* winch = linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
    const std::vector<drivetrain::CordLayer>& now = p.evaluation().model.layers;
    if (winch == nullptr || now.size() < 2) return out;
    const double cord = winch->cordDiameter.value,
                 turn = std::numbers::pi * (winch->drumDiameter.value + cord);
    const double turns = std::ceil(p.evaluation().model.travel / turn + winch->turnsOn);
    const double width = rounded((turns + 1.0) * cord, 1e-3, true);
    add(out, p, FixCost::ToBuy, drumOneLayer, {{{Kind::PartLength, width}}}, [&](Axis& a) {
        std::get<WinchOutput>(std::get<LinearMechanism>(a.mechanism).output).drumWidth = width;
    });
    return out;
}

/// Belts of the drive tensioned to some times what keeps both spans of the hardest pull taut: those that are
/// looser now, or those that are tighter.
Candidates tensioned(const Problem& p, Message label, bool looser, std::initializer_list<double> over) {
    Candidates out;
    for (const double times : over)
        for (const PartCheck& part : p.evaluation().checks.parts) {
            const double tension = rounded(part.load.valueOr(0.0) * 0.5 * times, 1.0, true);
            const auto belt = [&](Axis& axis) -> Estimate* {
                if (part.link >= 0) {
                    auto* stage = std::get_if<BeltStage>(&axis.links[static_cast<std::size_t>(part.link)]);
                    return stage != nullptr ? &stage->preload : nullptr;
                }
                auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
                auto* output = linear != nullptr ? std::get_if<BeltOutput>(&linear->output) : nullptr;
                return output != nullptr ? &output->preload : nullptr;
            };
            Axis axis = p.axis();
            const Estimate* now = belt(axis);
            if (now == nullptr || !(tension > 0.0) ||
                (looser ? tension <= now->value : tension >= now->value))
                continue;
            add(out, p, FixCost::SettingOnly, label, {{{Kind::Force, tension}}},
                [&](Axis& a) { *belt(a) = estimate(tension, Source::Measured); });
        }
    return out;
}

/// Just enough, and with what is wanted on top.
Candidates tighter(const Problem& p) {
    return tensioned(p, tensionOf, true, {1.05, 1.1 * criteria::beltPreload});
}

WinchOutput* winchOf(Axis& a) {
    auto* linear = std::get_if<LinearMechanism>(&a.mechanism);
    return linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
}
const WinchOutput* winchOf(const Axis& a) {
    const auto* linear = std::get_if<LinearMechanism>(&a.mechanism);
    return linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
}

/// Twice the diameter takes half the turns: one layer on about the width that is there.
Candidates thickerDrum(const Problem& p) {
    Candidates out;
    const WinchOutput* winch = winchOf(p.axis());
    if (winch == nullptr) return out;
    const double cord = winch->cordDiameter.value;
    for (const double factor : {1.5, 2.0, 3.0}) {
        const double diameter = rounded(winch->drumDiameter.value * factor, 1e-3, true);
        const double turns =
            std::ceil(p.evaluation().model.travel / (std::numbers::pi * (diameter + cord)) + winch->turnsOn);
        const double width = std::max(winch->drumWidth, rounded((turns + 1.0) * cord, 1e-3, true));
        add(out, p, FixCost::ToBuy, drumOf, {{{Kind::PartLength, diameter}, {Kind::PartLength, width}}},
            [&](Axis& a) {
                winchOf(a)->drumDiameter.value = diameter;
                winchOf(a)->drumWidth = width;
            });
    }
    return out;
}

Candidates strongerCord(const Problem& p) {
    Candidates out;
    const WinchOutput* winch = winchOf(p.axis());
    if (winch == nullptr) return out;
    for (const double factor : {1.5, 2.0, 3.0, 5.0}) {
        const double load = rounded(winch->breakingLoad.value * factor, 10.0, true);
        add(out, p, FixCost::ToBuy, cordOf, {{{Kind::Force, load}}},
            [&](Axis& a) { winchOf(a)->breakingLoad = estimate(load, Source::DataSheet); });
    }
    return out;
}

Candidates stifferCord(const Problem& p) {
    Candidates out;
    const WinchOutput* winch = winchOf(p.axis());
    for (const double stiffness : {32e3, 64e3, 120e3})
        if (winch != nullptr && stiffness > winch->tensileStiffness.value * 1.5)
            add(out, p, FixCost::ToBuy, stiffCord, {{{Kind::Force, 0.01 * stiffness}}},
                [&](Axis& a) { winchOf(a)->tensileStiffness = estimate(stiffness, Source::DataSheet); });
    return out;
}

/// Break-away little above running friction: what plain bearings and dragging wheels do not have.
Candidates freerWheels(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear == nullptr) {
        const RotaryMechanism& r = std::get<RotaryMechanism>(p.axis().mechanism);
        for (const double share : {1.0, 0.3}) {
            const double low = rounded(1.05 * share * r.friction.value, 1e-4, false);
            if (low > 0.0 && low < r.staticFriction.value)
                add(out, p, FixCost::ToBuy, easyBearings, {{{Kind::Torque, low}}}, [&](Axis& a) {
                    RotaryMechanism& m = std::get<RotaryMechanism>(a.mechanism);
                    m.friction.value *= share;
                    m.staticFriction.value = low;
                });
        }
        return out;
    }
    const double to = rounded(1.12 * linear->runningFriction.value, 0.01, false);
    if (to >= linear->runningFriction.value && to < linear->staticFriction.value)
        add(out, p, FixCost::ToBuy, freeWheels, {{{Kind::Force, to}}},
            [&](Axis& a) { std::get<LinearMechanism>(a.mechanism).staticFriction.value = to; });
    return out;
}

/// What gives way in the drive made stiffer: wider belts, thicker shafts, stiffer couplings.
Candidates stifferParts(const Problem& p) {
    Candidates out;
    for (const double factor : {1.5, 2.5, 4.0}) {
        const bool belts = std::any_of(p.axis().links.begin(), p.axis().links.end(),
                                       [](const Link& l) { return std::holds_alternative<BeltStage>(l); });
        if (belts)
            add(out, p, FixCost::ToBuy, beltWidth, {{{Kind::Ratio, factor}}}, [&](Axis& a) {
                for (Link& l : a.links)
                    if (auto* belt = std::get_if<BeltStage>(&l)) {
                        belt->width *= factor;
                        belt->figures.stiffness.value *= factor;
                    }
            });
        if (const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism)) {
            if (const auto* belt = std::get_if<BeltOutput>(&linear->output)) {
                const double ea = rounded(belt->tensileStiffness.value * factor, 1.0, true);
                add(out, p, FixCost::ToBuy, steelBelt, {{{Kind::Force, 0.01 * ea}}}, [&](Axis& a) {
                    std::get<BeltOutput>(std::get<LinearMechanism>(a.mechanism).output)
                        .tensileStiffness.value = ea;
                });
            }
            continue;
        }
        const auto& output = std::get<RotaryMechanism>(p.axis().mechanism).output;
        if (const auto* direct = std::get_if<DirectOutput>(&output);
            direct != nullptr && direct->stiffness.value > 0.0) {
            const double to = rounded(direct->stiffness.value * factor, 1.0, true);
            add(out, p, FixCost::ToBuy, shaftOf, {{{Kind::AngularStiffness, to}}}, [&](Axis& a) {
                std::get<DirectOutput>(std::get<RotaryMechanism>(a.mechanism).output).stiffness.value = to;
            });
        }
    }
    for (std::size_t i = 0; i < p.axis().links.size(); ++i)
        if (const auto* coupling = std::get_if<Coupling>(&p.axis().links[i]);
            coupling != nullptr && coupling->stiffness.value > 0.0) {
            const double to = rounded(coupling->stiffness.value * 4.0, 1.0, true);
            add(out, p, FixCost::ToBuy, couplingOf, {{{Kind::AngularStiffness, to}}},
                [&](Axis& a) { std::get<Coupling>(a.links[i]).stiffness.value = to; });
        }
    return out;
}

Candidates strongerBearings(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const Figure& load = p.evaluation().checks.bearingLoad;
    if (linear == nullptr || !load) return out;
    for (const double over : {1.1, 1.5, 2.0}) {
        const double rating = rounded(load.value() * over * p.verdict.bounds.wanted, 1.0, true);
        if (rating > linear->guide.bearingRating.value)
            add(out, p, FixCost::ToBuy, bearingsOf, {{{Kind::Force, rating}}}, [&](Axis& a) {
                std::get<LinearMechanism>(a.mechanism).guide.bearingRating =
                    estimate(rating, Source::DataSheet);
            });
    }
    return out;
}

Candidates centralPull(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    if (linear != nullptr && linear->guide.pushOffset != 0.0)
        add(out, p, FixCost::ToBuy, throughMiddle, {},
            [](Axis& a) { std::get<LinearMechanism>(a.mechanism).guide.pushOffset = 0.0; });
    return out;
}

/// Both wheels of a stage larger: the ratio stays, more teeth share the load.
Candidates moreTeeth(const Problem& p) {
    Candidates out;
    const std::vector<Link>& links = p.axis().links;
    for (std::size_t i = 0; i < links.size(); ++i)
        for (const double factor : {1.25, 1.5, 2.0}) {
            const auto larger = [&](const auto& stage, Message label) {
                const int small = static_cast<int>(std::lround(stage.motorTeeth * factor)),
                          large = static_cast<int>(std::lround(stage.loadTeeth * factor));
                // Only where the ratio stays as it is.
                if (small * stage.loadTeeth != large * stage.motorTeeth) return;
                add(out, p, FixCost::ToBuy, label,
                    {{{Kind::Count, static_cast<double>(small)}, {Kind::Count, static_cast<double>(large)}}},
                    [&](Axis& a) {
                        auto& changed = std::get<std::decay_t<decltype(stage)>>(a.links[i]);
                        changed.motorTeeth = small;
                        changed.loadTeeth = large;
                    });
            };
            if (const auto* belt = std::get_if<BeltStage>(&links[i])) larger(*belt, largerPulleys);
            if (const auto* gear = std::get_if<GearStage>(&links[i])) larger(*gear, largerGears);
        }
    return out;
}

Candidates steelGears(const Problem& p) {
    Candidates out;
    const bool soft = std::any_of(p.axis().links.begin(), p.axis().links.end(), [](const Link& l) {
        const auto* g = std::get_if<GearStage>(&l);
        return g != nullptr && g->material != GearMaterial::Steel;
    });
    if (soft)
        add(out, p, FixCost::ToBuy, metalGears, {}, [](Axis& a) {
            for (Link& l : a.links)
                if (auto* g = std::get_if<GearStage>(&l)) g->material = GearMaterial::Steel;
        });
    return out;
}

/// Another closed reducer or planetary of nearly the same ratio.
Candidates otherGearheads(const Problem& p) {
    Candidates out;
    const std::vector<Link>& links = p.axis().links;
    for (std::size_t i = 0; i < links.size(); ++i) {
        const bool rated = std::holds_alternative<PlanetaryStage>(links[i]) ||
                           std::holds_alternative<ReducerStage>(links[i]) ||
                           std::holds_alternative<StrainWaveStage>(links[i]);
        if (!rated) continue;
        for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
            for (const parts::Part& part : from) {
                if (part.family != "planetary" && part.family != "strain_wave" && part.family != "reducer")
                    continue;
                add(out, p, part.count > 0 ? FixCost::PartOnHand : FixCost::ToBuy, gearheadFor, {},
                    [&](Project& q) { parts::usePart(q, p.verdict.axis, static_cast<int>(i), part); });
                out.back().part = part.name;
            }
    }
    return out;
}

Candidates otherScrews(const Problem& p) {
    Candidates out;
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const auto* screw = linear != nullptr ? std::get_if<ScrewOutput>(&linear->output) : nullptr;
    if (screw == nullptr) return out;
    for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
        for (const parts::Part& part : from) {
            if (part.family != "screw") continue;
            add(out, p, part.count > 0 ? FixCost::PartOnHand : FixCost::ToBuy, otherScrew, {},
                [&](Project& q) { parts::usePart(q, p.verdict.axis, -1, part); });
            out.back().part = part.name;
        }
    return out;
}

/// What takes the load off the motor's own bearings counts as their rating.
Candidates ownBearings(const Problem& p) {
    Candidates out;
    const AxisChecks& c = p.evaluation().checks;
    const MotorBody& body = bodyOf(p.axis().motor);
    const auto offer = [&](const Figure& load, double now, Message label, Estimate MotorBody::*rating) {
        if (!load || load.value() <= 0.0 || load.value() * p.verdict.bounds.wanted <= now) return;
        const double to = rounded(1.3 * load.value() * p.verdict.bounds.wanted, 1.0, true);
        add(out, p, FixCost::ToBuy, label, {{{Kind::Force, to}}}, [&](Axis& a) {
            std::visit([&](auto& m) { m.body.*rating = estimate(to, Source::DataSheet); }, a.motor);
        });
    };
    offer(c.shaftAxial, body.axialRating.value, thrustBearing, &MotorBody::axialRating);
    offer(c.shaftRadial, body.radialRating.value, outboard, &MotorBody::radialRating);
    return out;
}

/// Belts that are tighter than their pull needs.
Candidates slacker(const Problem& p) {
    return tensioned(p, slackerBelts, false, {1.1 * criteria::beltPreload, 1.05});
}

/// Rollers pressed harder, more weight on driven wheels.
Candidates moreGrip(const Problem& p) {
    Candidates out;
    const std::vector<Link>& links = p.axis().links;
    for (const double factor : {1.5, 2.0, 3.0, 4.0}) {
        for (std::size_t i = 0; i < links.size(); ++i)
            if (const auto* roller = std::get_if<RollerStage>(&links[i])) {
                const double force = rounded(roller->pressure.value * factor, 1.0, true);
                add(out, p, FixCost::SettingOnly, pressedWith, {{{Kind::Force, force}}},
                    [&](Axis& a) { std::get<RollerStage>(a.links[i]).pressure.value = force; });
            }
        const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
        const auto* wheel = linear != nullptr ? std::get_if<WheelOutput>(&linear->output) : nullptr;
        if (wheel == nullptr || wheel->drivenShare.value >= 1.0) continue;
        const double share = std::min(1.0, wheel->drivenShare.value * factor);
        add(out, p, FixCost::ToBuy, moreOnWheels, {{{Kind::Percentage, share}}}, [&](Axis& a) {
            std::get<WheelOutput>(std::get<LinearMechanism>(a.mechanism).output).drivenShare.value = share;
        });
    }
    return out;
}

} // namespace

constinit const Family largerDrum{"larger_drum", words::listOf<drumOf>, thickerDrum};
constinit const Family cordLoad{"cord_load", words::listOf<cordOf>, strongerCord};
constinit const Family cordStiffness{"cord_stiffness", words::listOf<stiffCord>, stifferCord};
constinit const Family ballWheels{"ball_wheels", words::listOf<freeWheels, easyBearings>, freerWheels};
constinit const Family stifferDrive{"stiffer_drive", words::listOf<beltWidth, steelBelt, shaftOf, couplingOf>,
                                    stifferParts};
constinit const Family guideBearings{"guide_bearings", words::listOf<bearingsOf>, strongerBearings};
constinit const Family centredPull{"centred_pull", words::listOf<throughMiddle>, centralPull};
constinit const Family largerWheels{"larger_wheels", words::listOf<largerPulleys, largerGears>, moreTeeth};
constinit const Family gearMaterial{"gear_material", words::listOf<metalGears>, steelGears};
constinit const Family otherGearhead{"other_gearhead", words::listOf<gearheadFor>, otherGearheads};
constinit const Family screwExchange{"screw_exchange", words::listOf<otherScrew>, otherScrews};
constinit const Family shaftBearing{"shaft_bearing", words::listOf<thrustBearing, outboard>, ownBearings};
constinit const Family lessTension{"less_tension", words::listOf<slackerBelts>, slacker};
constinit const Family grippingForce{"gripping_force", words::listOf<pressedWith, moreOnWheels>, moreGrip};
constinit const Family faceWidth{"face_width", words::listOf<gearsWide>, widerGears};
constinit const Family widerDrum{"wider_drum", words::listOf<drumOneLayer>, wideDrum};
constinit const Family beltTension{"belt_tension", words::listOf<tensionOf>, tighter};
constinit const Family closedCord{"closed_cord", words::listOf<pullsBothWays>, closedLoop};

} // namespace gantry::fixes
