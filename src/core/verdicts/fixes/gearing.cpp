// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include "core/model/overload.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message pulleyWith{"pulley with {0} teeth"};
constexpr Message pinionWith{"pinion with {0} teeth"};
constexpr Message beltReduction{"belt reduction {0}:{1} teeth"};

/// The wheel of an output that can be exchanged, in any project.
struct OutputWheel {
    int* teeth = nullptr; ///< null: it has none
    Message label{};
    std::string_view family{}, fitKey{};
    double fit = 0.0;
};

OutputWheel wheelOf(Axis& axis) {
    const overload wheel{[](BeltOutput& o) {
                             return OutputWheel{&o.teeth, pulleyWith, "pulley", "pitch_m", o.pitch.value};
                         },
                         [](RackOutput& o) {
                             return OutputWheel{&o.teeth, pinionWith, "gear", "module_m", o.module.value};
                         },
                         [](RingOutput& o) {
                             return OutputWheel{&o.pinionTeeth, pinionWith, "gear", "module_m", o.module};
                         },
                         [](LensRingOutput& o) {
                             return OutputWheel{&o.pinionTeeth, pinionWith, "gear", "module_m", o.module};
                         },
                         [](ScrewOutput&) { return OutputWheel{}; },
                         [](WheelOutput&) { return OutputWheel{}; },
                         [](WinchOutput&) { return OutputWheel{}; },
                         [](DirectOutput&) { return OutputWheel{}; }};
    return std::visit([&](auto& mechanism) { return std::visit(wheel, mechanism.output); }, axis.mechanism);
}

/// The nearest tooth counts first.
Candidates otherTeeth(const Problem& p) {
    Candidates out;
    Axis axis = p.axis();
    const OutputWheel wheel = wheelOf(axis);
    if (wheel.teeth == nullptr) return out;
    const double now = *wheel.teeth;
    std::vector<parts::StockSize> sizes =
        parts::stockSizes(p.stock, wheel.family, "teeth", wheel.fitKey, wheel.fit);
    std::stable_sort(sizes.begin(), sizes.end(), [&](const parts::StockSize& a, const parts::StockSize& b) {
        return std::abs(a.value - now) < std::abs(b.value - now);
    });
    for (const parts::StockSize& s : sizes)
        if (s.value != now)
            add(out, p, s.owned ? FixCost::PartOnHand : FixCost::ToBuy, wheel.label,
                {{{Kind::Count, s.value}}}, [&](Axis& a) { *wheelOf(a).teeth = static_cast<int>(s.value); });
    return out;
}

/// Belt stages between motor and drive, of wheels that are kept in stock: the least reduction first, each by
/// the motor's wheel nearest to twenty teeth, of which enough are in mesh and which is not too large.
Candidates stagesInFront(const Problem& p) {
    constexpr int leastTeeth = 16, usualTeeth = 20;
    const BeltStage usual;
    const std::vector<parts::StockSize> sizes =
        parts::stockSizes(p.stock, "pulley", "teeth", "pitch_m", usual.pitch.value);
    Candidates out;
    for (const double ratio : {1.5, 2.0, 3.0, 4.0, 5.0}) {
        const parts::StockSize *motor = nullptr, *load = nullptr;
        for (const parts::StockSize& m : sizes)
            for (const parts::StockSize& l : sizes)
                if (m.value >= leastTeeth && l.value == m.value * ratio &&
                    (motor == nullptr ||
                     std::abs(m.value - usualTeeth) < std::abs(motor->value - usualTeeth))) {
                    motor = &m;
                    load = &l;
                }
        if (motor == nullptr) continue;
        // The belt is bought even where both wheels are there.
        add(out, p, FixCost::ToBuy, beltReduction,
            {{{Kind::Count, motor->value}, {Kind::Count, load->value}}}, [&](Project& project) {
                Axis& axis = p.axisIn(project);
                BeltStage stage = usual;
                stage.id = freeId(project, axis.id + "-reduction");
                stage.motorTeeth = static_cast<int>(motor->value);
                stage.loadTeeth = static_cast<int>(load->value);
                axis.links.insert(axis.links.begin(), stage);
            });
    }
    return out;
}

constexpr std::array wheels{pulleyWith, pinionWith};
constexpr std::array stages{beltReduction};

} // namespace

constinit const Family outputTeeth{"output_teeth", wheels, otherTeeth};
constinit const Family reduction{"reduction", stages, stagesInFront};

} // namespace gantry::fixes
