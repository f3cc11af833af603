// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/winch.h"

#include "core/solve/root.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::drivetrain {
namespace {
constexpr std::size_t mostLayers = 1000; // beyond any drum; keeps absurd inputs from running for ever

int turnsPerLayer(const Drum& d) {
    return static_cast<int>(std::clamp(std::floor(d.width / d.cordDiameter + 1e-9), 1.0, 1e6));
}
} // namespace

std::vector<CordLayer> layersOf(const Drum& d, double startTurns, double travel) {
    const double perLayer = turnsPerLayer(d), step = d.cordDiameter * d.nesting;
    const double begun = std::floor(startTurns / perLayer);
    CordLayer layer{(d.diameter + d.cordDiameter) / 2.0 + begun * step, 0.0, 0.0};
    std::vector<CordLayer> out;
    for (double left = (begun + 1.0) * perLayer - startTurns;; left = perLayer, layer.radius += step) {
        const double turn = 2.0 * std::numbers::pi * layer.radius,
                     here = std::min(left, (travel - layer.place) / turn);
        const bool last = here < left || out.size() + 1 == mostLayers;
        layer.turns += last ? (travel - layer.place) / turn : here;
        layer.place = last ? travel : layer.place + here * turn;
        out.push_back(layer);
        if (last) return out;
    }
}

WinchScale winchScale(const Drum& drum, double startTurns, double travel) {
    const std::vector<CordLayer> within = layersOf(drum, startTurns, travel);
    const double spread = within.back().radius / within.front().radius;
    const double low = 2.0 * std::numbers::pi * within.front().radius, high = low * spread;
    // Meant for the whole travel, at most so much more is wound.
    const std::vector<CordLayer> layers = layersOf(drum, startTurns, travel * spread * spread);
    const auto placeAt = [&](double turns) {
        CordLayer before;
        for (const CordLayer& layer : layers) {
            if (turns <= layer.turns)
                return before.place + (turns - before.turns) * 2.0 * std::numbers::pi * layer.radius;
            before = layer;
        }
        return before.place;
    };
    const auto behind = [&](double perTurn) {
        double most = 0.0;
        for (const CordLayer& layer : layers)
            if (perTurn * layer.turns <= travel) most = std::max(most, perTurn * layer.turns - layer.place);
        return most;
    };
    const auto balance = [&](double perTurn) {
        return behind(perTurn) - (placeAt(travel / perTurn) - travel);
    };
    const double perTurn = spread > 1.0 ? solve::rootBetween(balance, low, high).value_or(low) : low;
    return {perTurn, behind(perTurn)};
}

double drumCapacity(const Drum& d, double flange, double freeboard) {
    const double step = d.cordDiameter * d.nesting, top = flange / 2.0 - freeboard * d.cordDiameter;
    const double layers =
        std::clamp(std::floor((top - d.diameter / 2.0 - d.cordDiameter) / step + 1.0 + 1e-9), 0.0,
                   static_cast<double>(mostLayers));
    const double first = (d.diameter + d.cordDiameter) / 2.0;
    return 2.0 * std::numbers::pi * turnsPerLayer(d) * layers * (first + (layers - 1.0) / 2.0 * step);
}

double slackDeceleration(double slope, double friction, double mass) {
    return units::standardGravity * std::sin(slope) + friction / mass;
}

} // namespace gantry::drivetrain
