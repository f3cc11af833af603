// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/part_name.h"

#include "core/model/overload.h"

namespace gantry::words {
namespace {

std::string pair(int a, int b, const char* what) {
    return std::to_string(a) + ':' + std::to_string(b) + ' ' + what;
}
std::string teeth(int n, const char* what) {
    return std::to_string(n) + "T " + what;
}

} // namespace

std::string partName(const Axis& axis, int link) {
    if (link >= 0)
        return std::visit(
            overload{[](const Coupling&) { return std::string("coupling"); },
                     [](const BeltStage& s) { return pair(s.motorTeeth, s.loadTeeth, "belt"); },
                     [](const GearStage& s) { return pair(s.motorTeeth, s.loadTeeth, "gear pair"); },
                     [](const PlanetaryStage&) { return std::string("planetary gearhead"); },
                     [](const StrainWaveStage&) { return std::string("strain-wave gear"); },
                     [](const WormStage& s) { return pair(s.wheelTeeth, s.starts, "worm"); },
                     [](const ReducerStage& s) { return pair(s.numerator, s.denominator, "reducer"); },
                     [](const RollerStage&) { return std::string("roller"); }},
            axis.links[static_cast<std::size_t>(link)]);
    const overload output{
        [](const BeltOutput& o) { return teeth(o.teeth, "belt"); },
        [](const RackOutput& o) { return teeth(o.teeth, "pinion"); },
        [](const ScrewOutput&) { return std::string("screw"); },
        [](const WheelOutput&) { return std::string("driven wheel"); },
        [](const WinchOutput&) { return std::string("cord"); },
        [](const DirectOutput&) { return std::string("output shaft"); },
        [](const RingOutput& o) { return pair(o.pinionTeeth, o.ringTeeth, "ring"); },
        [](const LensRingOutput& o) { return pair(o.pinionTeeth, o.ringTeeth, "lens gear"); }};
    return std::visit([&](const auto& mechanism) { return std::visit(output, mechanism.output); },
                      axis.mechanism);
}

} // namespace gantry::words
