// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/verdicts/fixes/family.h"

#include <cmath>
#include <numbers>

namespace gantry::fixes {
namespace {

constexpr Message gearsWide{"gears {0} wide"};
constexpr Message pullsBothWays{"cord that pulls both ways"};
constexpr Message drumOneLayer{"drum {0} wide, for one layer"};
constexpr Message tensionOf{"belt tension {0} in each span"};

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

/// Belts of the drive tensioned for the hardest pull, just enough and with what is wanted on top.
Candidates tighter(const Problem& p) {
    Candidates out;
    for (const double over : {1.05, 1.1 * criteria::beltPreload})
        for (const PartCheck& part : p.evaluation().checks.parts) {
            const double tension = rounded(part.load.valueOr(0.0) * 0.5 * over, 1.0, true);
            const auto offer = [&](double now, auto change) {
                if (tension > now)
                    add(out, p, FixCost::SettingOnly, tensionOf, {{{Kind::Force, tension}}}, change);
            };
            if (part.link >= 0) {
                const auto place = static_cast<std::size_t>(part.link);
                if (const auto* stage = std::get_if<BeltStage>(&p.axis().links[place]))
                    offer(stage->preload.value,
                          [&](Axis& a) { std::get<BeltStage>(a.links[place]).preload.value = tension; });
            } else if (const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism)) {
                if (const auto* belt = std::get_if<BeltOutput>(&linear->output))
                    offer(belt->preload.value, [&](Axis& a) {
                        std::get<BeltOutput>(std::get<LinearMechanism>(a.mechanism).output).preload.value =
                            tension;
                    });
            }
        }
    return out;
}

} // namespace

constinit const Family faceWidth{"face_width", words::listOf<gearsWide>, widerGears};
constinit const Family widerDrum{"wider_drum", words::listOf<drumOneLayer>, wideDrum};
constinit const Family beltTension{"belt_tension", words::listOf<tensionOf>, tighter};
constinit const Family closedCord{"closed_cord", words::listOf<pullsBothWays>, closedLoop};

} // namespace gantry::fixes
