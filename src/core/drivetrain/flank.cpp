// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/flank.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace gantry::drivetrain {
namespace {

constexpr double pi = std::numbers::pi;

/// Places between which a lasting load rises or falls all the way: both ends, and where it turns round.
std::vector<double> turningPlaces(const LastingLoad& load, double low, double high) {
    std::vector<double> out{low, high};
    if (!(load.amplitude > 0.0) || std::abs(load.rate) > load.amplitude) return out;
    // −A sin(φ + δ) + k = 0
    const double first = std::asin(load.rate / load.amplitude);
    for (const double root : {first - load.phase, pi - first - load.phase})
        for (double place = root + 2.0 * pi * std::ceil((low - root) / (2.0 * pi)); place < high;
             place += 2.0 * pi)
            out.push_back(place);
    std::sort(out.begin(), out.end());
    return out;
}

/// First place on the way where f falls to nothing; f falls or rises all the way between the places.
template <class F>
std::optional<double> firstFall(const std::vector<double>& places, bool upwards, F f) {
    std::vector<double> way = places;
    if (!upwards) std::reverse(way.begin(), way.end());
    if (!(f(way.front()) > 0.0)) return way.front();
    for (std::size_t i = 1; i < way.size(); ++i) {
        if (f(way[i]) > 0.0) continue;
        return solve::rootBetween(f, std::min(way[i - 1], way[i]), std::max(way[i - 1], way[i]));
    }
    return std::nullopt;
}

} // namespace

double LastingLoad::at(double place) const {
    return amplitude * std::cos(place + phase) + constant + rate * place;
}

Flank flankOf(const FlankQuestion& q, double target) {
    Flank out;
    const bool upwards = q.to >= q.from;
    const double direction = upwards ? 1.0 : -1.0;
    out.reversesLocally = q.rippleSpeed > q.speed;
    out.disturbing = q.inertia * (q.acceleration + q.rippleSpeed * q.rippleFrequency) + q.disturbance;
    const std::vector<double> places = turningPlaces(q.load, std::min(q.from, q.to), std::max(q.from, q.to));
    double least = q.load.at(places.front()), most = least;
    for (const double place : places) {
        least = std::min(least, q.load.at(place));
        most = std::max(most, q.load.at(place));
    }
    least -= q.load.unknown;
    most += q.load.unknown;
    const bool both = q.bothWays || out.reversesLocally;
    // What rests on the flank that motion upwards drives, and on the other.
    const double upper = least + (both ? -1.0 : direction) * q.friction,
                 lower = -(most + (both ? 1.0 : direction) * q.friction);
    const double side = out.side = upper >= lower ? 1.0 : -1.0;
    out.holding = std::max(upper, lower);
    out.kept = out.holding > out.disturbing;
    // Lasting load lacks as much as it takes to reach the target on the better side.
    const double lasting = side > 0.0 ? least : -most,
                 against = both || side != direction ? q.friction : -q.friction;
    out.missing = std::max(0.0, target * out.disturbing + against - lasting);
    if (out.kept) return out;
    out.play = q.backlash;
    if (!both && out.holding > 0.0 && q.rippleSpeed <= 0.0 && q.acceleration > 0.0)
        out.play = std::clamp(0.5 * q.speed * q.speed * (q.inertia / out.holding - 1.0 / q.acceleration), 0.0,
                              q.backlash);
    // Where on the way there: on the flank that it starts on.
    const auto resting = [&](double place) { return q.load.at(place) + direction * q.friction; };
    const double starts = resting(q.from) >= 0.0 ? 1.0 : -1.0;
    const double slack = out.disturbing + q.load.unknown;
    if (starts * resting(q.from) > slack)
        out.place = firstFall(places, upwards, [&](double place) { return starts * resting(place) - slack; });
    return out;
}

} // namespace gantry::drivetrain
