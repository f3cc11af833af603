// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/motor/frame.h"
#include "core/verdicts/fixes/family.h"

#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <span>
#include <utility>
#include <vector>

namespace gantry::fixes {
namespace {

constexpr Message pulleyWith{"pulley with {0} teeth"};
constexpr Message pinionWith{"pinion with {0} teeth"};
constexpr Message twoReductions{"belt reductions {0}:{1} and {2}:{3} teeth"};
constexpr Message reducerOf{"“{part}” between motor and drive"};
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
    struct Pair {
        const parts::StockSize *motor = nullptr, *load = nullptr;
    };
    const auto pairOf = [&](double ratio) {
        Pair best;
        for (const parts::StockSize& m : sizes)
            for (const parts::StockSize& l : sizes)
                if (m.value >= leastTeeth && l.value == m.value * ratio &&
                    (best.motor == nullptr || rank(m.value) < rank(best.motor->value)))
                    best = {&m, &l};
        return best;
    };
    // Behind another stage the pull is larger by that stage's ratio.
    const auto insert = [&](Project& project, const Pair& pair, double before) {
        Axis& axis = p.axisIn(project);
        BeltStage stage = usual;
        stage.id = freeId(project, axis.id + "-reduction");
        stage.motorTeeth = static_cast<int>(pair.motor->value);
        stage.loadTeeth = static_cast<int>(pair.load->value);
        stage.preload.value = std::max(stage.preload.value, before * tensionFor(p, pair.motor->value, pitch));
        axis.links.insert(axis.links.begin(), stage);
    };
    Candidates out;
    // The belt is bought even where both wheels are there.
    for (const double ratio : {1.5, 2.0, 3.0, 4.0, 5.0})
        if (const Pair pair = pairOf(ratio); pair.motor != nullptr)
            add(out, p, FixCost::ToBuy, beltReduction,
                {{{Kind::Count, pair.motor->value}, {Kind::Count, pair.load->value}}},
                [&](Project& project) { insert(project, pair, 1.0); });
    constexpr std::array<std::pair<double, double>, 4> twice{
        {{3.0, 3.0}, {3.0, 4.0}, {4.0, 4.0}, {5.0, 5.0}}};
    for (const std::pair<double, double>& ratios : twice) {
        const double first = ratios.first, second = ratios.second;
        const Pair front = pairOf(first), back = pairOf(second);
        if (front.motor == nullptr || back.motor == nullptr) continue;
        add(out, p, FixCost::ToBuy, twoReductions,
            {{{Kind::Count, front.motor->value},
              {Kind::Count, front.load->value},
              {Kind::Count, back.motor->value},
              {Kind::Count, back.load->value}}},
            [&](Project& project) {
                insert(project, back, first);
                insert(project, front, 1.0);
            });
    }
    return out;
}

/// Whether a reducer takes the bolts of the motor. Where either tells no size, nothing speaks against it.
bool boltsOn(const parts::Part& reducer, const Motor& motor) {
    const auto of = motor::frameOf(reducer.name), at = motor::frameOf(nameOf(motor));
    return !of || !at || of->boltSquare == at->boltSquare;
}

/// A closed reducer between motor and drive, the smallest ratio first.
Candidates reducersInFront(const Problem& p) {
    Candidates out;
    std::vector<std::pair<double, const parts::Part*>> all;
    for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
        for (const parts::Part& part : from) {
            const auto number = [&](std::string_view key) {
                return parts::numberOf(part, key).value_or(0.0);
            };
            if (!boltsOn(part, p.axis().motor)) continue;
            if (part.family == "planetary" && number("sun_teeth") > 0.0)
                all.emplace_back(std::pow(1.0 + number("ring_teeth") / number("sun_teeth"),
                                          std::max(1.0, number("stages"))),
                                 &part);
            else if (part.family == "reducer" && number("ratio_denominator") > 0.0)
                all.emplace_back(number("ratio_numerator") / number("ratio_denominator"), &part);
        }
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    for (const auto& entry : all) {
        const parts::Part* part = entry.second;
        add(out, p, part->count > 0 ? FixCost::PartOnHand : FixCost::ToBuy, reducerOf, {},
            [&](Project& q) { parts::usePart(q, p.verdict.axis, -1, *part); });
        out.back().part = part->name;
    }
    return out;
}

constexpr std::array wheels{pulleyWith, pinionWith};
constexpr std::array stages{beltReduction, twoReductions};

} // namespace

constinit const Family outputTeeth{"output_teeth", wheels, otherTeeth};
constinit const Family reducerInFront{"reducer_in_front", words::listOf<reducerOf>, reducersInFront};
constinit const Family reduction{"reduction", stages, stagesInFront};

} // namespace gantry::fixes
