// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

namespace gantry::fixes {
namespace {

constexpr Message gearsWide{"gears {0} wide"};
constexpr Message pullsBothWays{"cord that pulls both ways"};

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

} // namespace

constinit const Family faceWidth{"face_width", words::listOf<gearsWide>, widerGears};
constinit const Family closedCord{"closed_cord", words::listOf<pullsBothWays>, closedLoop};

} // namespace gantry::fixes
