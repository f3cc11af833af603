// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/verdicts/fixes/family.h"

#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <numbers>

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

/// Tension [N] for which no span of a stage in front hangs slack, whatever the motor is asked for now.
double tensionFor(const Problem& p, double motorTeeth, double pitch) {
    double torque = 0.0;
    for (const ShotEvaluation& e : p.evaluation().shots)
        torque = std::max({torque, e.torque.needed.valueOr(0.0), e.torque.breakaway.valueOr(0.0)});
    const double radius = motorTeeth * pitch / (2.0 * std::numbers::pi);
    return rounded(0.5 * 1.05 * torque / radius, 1.0, true);
}

/// A belt stage in front of all others, for each ratio that a pair of wheels of the usual pitch makes; with a
/// motor's wheel near twenty teeth, or with the next larger one whose belt the motor's shaft stands.
Candidates stagesInFront(const Problem& p) {
    constexpr int leastTeeth = 16, usualTeeth = 20;
    const BeltStage usual;
    const double pitch = usual.pitch.value, rating = bodyOf(p.axis().motor).radialRating.value;
    const std::vector<parts::StockSize> sizes =
        parts::stockSizes(p.stock, "pulley", "teeth", "pitch_m", pitch);
    const auto stands = [&](double teeth) {
        return rating <= 0.0 || 2.0 * tensionFor(p, teeth, pitch) * criteria::beltPreload <= rating;
    };
    const auto rank = [&](double teeth) {
        // Small wheels whose shaft bends come last.
        return std::abs(teeth - usualTeeth) + (stands(teeth) ? 0.0 : 1000.0);
    };
    Candidates out;
    for (const double ratio : {1.5, 2.0, 3.0, 4.0, 5.0}) {
        const parts::StockSize *motor = nullptr, *load = nullptr;
        for (const parts::StockSize& m : sizes)
            for (const parts::StockSize& l : sizes)
                if (m.value >= leastTeeth && l.value == m.value * ratio &&
                    (motor == nullptr || rank(m.value) < rank(motor->value))) {
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
                stage.preload.value = std::max(stage.preload.value, tensionFor(p, motor->value, pitch));
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
