// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/flank.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>
#include <vector>

namespace gantry::drivetrain {
namespace {

using std::numbers::pi;

constexpr double turn = 2.0 * pi;

/// Places between which a lasting load rises or falls all the way: both ends, and where it turns round; in
/// order. At most a turn: every other one is like it but for the spring's part.
std::vector<double> turningPlaces(const LastingLoad& load, double low, double high) {
    std::vector<double> out{low, high};
    if (!(load.amplitude > 0.0) || std::abs(load.rate) > load.amplitude) return out;
    // −A sin(φ + δ) + k = 0
    const double first = std::asin(load.rate / load.amplitude);
    for (const double root : {first - load.phase, pi - first - load.phase})
        if (const double place = root + turn * std::ceil((low - root) / turn); place < high)
            out.push_back(place);
    std::sort(out.begin(), out.end());
    return out;
}

/// Least and most lasting load on a way: in its first turn or its last, since a spring pulls to one side.
std::pair<double, double> extremes(const LastingLoad& load, double low, double high) {
    double least = load.at(low), most = least;
    for (const auto& [a, b] :
         {std::pair{low, std::min(high, low + turn)}, {std::max(low, high - turn), high}})
        for (const double place : turningPlaces(load, a, b)) {
            least = std::min(least, load.at(place));
            most = std::max(most, load.at(place));
        }
    return {least, most};
}

/// First place on the way where f, a lasting load but for a sign and a constant, falls to nothing.
template <class F>
std::optional<double> firstFall(const LastingLoad& load, double from, double to, F f) {
    const double direction = to >= from ? 1.0 : -1.0, far = from + direction * turn,
                 end = direction > 0.0 ? std::min(to, far) : std::max(to, far);
    std::vector<double> way = turningPlaces(load, std::min(from, end), std::max(from, end));
    if (direction < 0.0) std::reverse(way.begin(), way.end());
    double least = f(way.front());
    for (const double place : way) least = std::min(least, f(place));
    if (const double change = f(far) - f(from); least > 0.0) {
        // Later turns are as much lower as the spring has changed.
        if (!(change < 0.0)) return std::nullopt;
        const double shift = direction * turn * std::ceil(least / -change);
        if (std::abs(shift) > std::abs(to - from)) return std::nullopt;
        for (double& place : way)
            place = direction > 0.0 ? std::min(place + shift, to) : std::max(place + shift, to);
    }
    if (!(f(way.front()) > 0.0)) return way.front();
    for (std::size_t i = 1; i < way.size(); ++i) {
        if (f(way[i]) > 0.0) continue;
        return solve::rootBetween(f, std::min(way[i - 1], way[i]), std::max(way[i - 1], way[i]));
    }
    return std::nullopt;
}

} // namespace

double LastingLoad::at(double place) const {
    const double swings = amplitude != 0.0 ? amplitude * std::cos(place + phase) : 0.0; // none of a carriage
    return swings + constant + rate * place;
}

Flank flankOf(const FlankQuestion& q, double target) {
    Flank out;
    const double direction = q.to >= q.from ? 1.0 : -1.0;
    out.reversesLocally = q.rippleSpeed > q.speed;
    out.disturbing = q.inertia * (q.acceleration + q.rippleSpeed * q.rippleFrequency) + q.disturbance;
    auto [least, most] = extremes(q.load, std::min(q.from, q.to), std::max(q.from, q.to));
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
        out.place =
            firstFall(q.load, q.from, q.to, [&](double place) { return starts * resting(place) - slack; });
    return out;
}

} // namespace gantry::drivetrain
