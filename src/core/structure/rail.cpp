// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/rail.h"

#include "core/structure/tipping.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <nlopt.hpp>

namespace gantry::structure {
namespace {

constexpr int places = 24; // looked at along a travel

std::array<double, 2> wheels(const RailView& rail, const CarriageView& c, double at) {
    const double half = 0.5 * std::min(c.wheelbase, rail.beam.length);
    const double middle = std::clamp(at, half, rail.beam.length - half);
    return {middle - half, middle + half};
}

/// What presses on the rail: the carriage by its wheels, and what sits there.
std::vector<PointLoad> pressing(const RailView& rail, const CarriageView& c, double at) {
    std::vector<PointLoad> out;
    out.reserve(2 + rail.loads.size());
    for (const double wheel : wheels(rail, c, at)) out.push_back({wheel, 0.5 * c.weight});
    out.insert(out.end(), rail.loads.begin(), rail.loads.end());
    return out;
}

Bend bendOf(const RailView& rail, std::span<const PointLoad> loads, double x) {
    return std::visit([&](const auto& s) { return bendAt(rail.beam, s, loads, x); }, rail.supports);
}

double twistAt(const RailView& rail, double torque, double at) {
    if (const auto* central = std::get_if<CentralSupport>(&rail.supports))
        return torque * std::abs(at - central->at) / rail.torsionStiffness;
    const auto& two = std::get<TwoSupports>(rail.supports);
    const double a = at - two.first, b = two.second - at;
    const double length = a < 0.0 ? -a : b < 0.0 ? -b : a * b / (two.second - two.first);
    return torque * length / rail.torsionStiffness;
}

} // namespace

RailPoint railPoint(const RailView& rail, const CarriageView& c, double at) {
    const auto [low, high] = wheels(rail, c, at);
    const std::vector<PointLoad> loads = pressing(rail, c, at);
    const Bend first = bendOf(rail, loads, low), second = bendOf(rail, loads, high);
    const double base = high - low;
    return {at, 0.5 * (first.sag + second.sag), base > 0.0 ? (second.sag - first.sag) / base : first.slope,
            twistAt(rail, c.torque, at)};
}

RailChange railChange(const RailView& rail, const CarriageView& c, double at) {
    RailView light = rail; // the wheels' loads alone
    light.beam.weight = 0.0;
    light.loads.clear();
    const std::array<double, 2> wheel = wheels(rail, c, at);
    std::array<std::array<double, 2>, 2> slope{}; // at a wheel, by the load of a wheel
    for (std::size_t load = 0; load < 2; ++load)
        for (std::size_t place = 0; place < 2; ++place)
            slope[place][load] =
                bendOf(light, std::array{PointLoad{wheel[load], 0.5 * c.weight}}, wheel[place]).slope;
    std::array<double, 2> sinks{};
    for (std::size_t i = 0; i < 2; ++i) {
        sinks[i] = bendOf(rail, rail.loads, wheel[i]).slope;
        for (std::size_t j = 0; j < 2; ++j) sinks[i] += slope[i][j] + slope[j][i];
    }
    const double base = wheel[1] - wheel[0];
    return {0.5 * (sinks[0] + sinks[1]), base > 0.0 ? (sinks[1] - sinks[0]) / base : 0.0};
}

RailPoint columnPoint(const Column& column, double at) {
    const double free = std::max(0.0, at - column.heldTo);
    return {at, 0.5 * column.curvature * free * free, column.curvature * free, 0.0};
}

RailChange columnChange(const Column& column, double at) {
    const double free = std::max(0.0, at - column.heldTo);
    return {column.curvature * free, free > 0.0 ? column.curvature : 0.0};
}

double railMoment(const RailView& rail, const CarriageView& c, double at) {
    const std::vector<PointLoad> loads = pressing(rail, c, at);
    return std::visit([&](const auto& s) { return largestMoment(rail.beam, s, loads); }, rail.supports);
}

double pitchStiffness(const RailView& rail, double wheelbase, double at) {
    // A pure couple of 1 N·m as two opposite wheel loads; the beam is linear, so its own weight stays out.
    RailView light = rail;
    light.beam.weight = 0.0;
    light.loads.clear();
    const auto [low, high] = wheels(light, {0.0, wheelbase, 0.0}, at);
    const double base = high - low;
    if (base <= 0.0) return std::numeric_limits<double>::infinity();
    const std::array loads{PointLoad{low, -1.0 / base}, PointLoad{high, 1.0 / base}};
    const double slope = (bendOf(light, loads, high).sag - bendOf(light, loads, low).sag) / base;
    return slope > 0.0 ? 1.0 / slope : std::numeric_limits<double>::infinity();
}

double railTippingRatio(const RailView& rail, const CarriageView& c, const AlongRail& along,
                        double standWeight, double at) {
    const double length = rail.beam.length, weight = rail.beam.weight;
    // About one support, with the far side held down by the rail beyond it and the other stand.
    const auto about = [&](double edge, bool highSide, double otherStand) {
        const double outside = highSide ? length - edge : edge, inner = length - outside;
        double over = 0.5 * weight * outside * outside, holds = 0.5 * weight * inner * inner;
        holds += standWeight * otherStand;
        for (const PointLoad& load : pressing(rail, c, at)) {
            const double out = highSide ? load.at - edge : edge - load.at;
            (out > 0.0 ? over : holds) += load.force * std::abs(out);
        }
        const double turning = highSide ? along.towardsEnd() : along.towardsBeginning();
        (turning > 0.0 ? over : holds) += std::abs(turning);
        return over > 0.0 ? std::min(holds / over, harmless) : harmless;
    };
    const auto* two = std::get_if<TwoSupports>(&rail.supports);
    if (two == nullptr) return harmless; // clamped to one head: the base under it may tip, not the rail
    const double span = two->second - two->first;
    return std::min(about(two->first, false, span), about(two->second, true, span));
}

double clampPull(const RailView& rail, const CarriageView& c, const AlongRail& along, const Clamp& clamp,
                 double at) {
    const double middle = 0.5 * rail.beam.length, weight = rail.beam.weight * rail.beam.length;
    const auto moment = [&](double about) {
        double out = weight * (middle - about);
        for (const PointLoad& load : pressing(rail, c, at)) out += load.force * (load.at - about);
        return out;
    };
    if (const auto* two = std::get_if<TwoSupports>(&rail.supports)) {
        const double span = two->second - two->first;
        // A stand lifts where the other one's edge has all the weight beyond it.
        const double lift = std::max(along.towardsBeginning() - moment(two->first),
                                     along.towardsEnd() + moment(two->second)) /
                            span;
        return std::max(0.0, lift) / clamp.bolts;
    }
    const double rows = std::max(1.0, 0.5 * clamp.bolts);
    const double over = moment(std::get<CentralSupport>(rail.supports).at);
    return std::max(along.towardsEnd() + over, along.towardsBeginning() - over) / (clamp.spacing * rows);
}

double pictureSpread(const RailView& rail, const CarriageView& c, const PictureFactors& picture, double from,
                     double to) {
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (int i = 0; i <= places; ++i) {
        const RailPoint p = railPoint(rail, c, from + (to - from) * i / places);
        const double px = picture.perSag * p.sag + picture.perSlope * p.slope;
        low = std::min(low, px);
        high = std::max(high, px);
    }
    return high - low;
}

std::optional<TwoSupports> bestSupports(RailView rail, const CarriageView& carriage,
                                        const PictureFactors& picture, double from, double to) {
    const double length = rail.beam.length;
    if (!(length > 0.0)) return std::nullopt;
    const auto spread = [&](double first, double second) {
        if (second - first < 0.1 * length) return 1e9;
        rail.supports = TwoSupports{first, second};
        const double px = pictureSpread(rail, carriage, picture, from, to);
        return std::isfinite(px) ? px : 1e9;
    };
    std::vector<double> best{0.2 * length, 0.8 * length};
    double least = spread(best[0], best[1]);
    for (int i = 0; i <= 8; ++i)
        for (int k = 0; k <= 8; ++k) {
            const double first = 0.05 * i * length, second = (1.0 - 0.05 * k) * length;
            if (const double px = spread(first, second); px < least) {
                least = px;
                best = {first, second};
            }
        }
    nlopt::opt search(nlopt::LN_SBPLX, 2);
    search.set_lower_bounds(0.0);
    search.set_upper_bounds(length);
    search.set_xtol_rel(1e-5);
    search.set_maxeval(600);
    search.set_min_objective([](const std::vector<double>& x, std::vector<double>&,
                                void* f) { return (*static_cast<decltype(spread)*>(f))(x[0], x[1]); },
                             const_cast<void*>(static_cast<const void*>(&spread)));
    double found = 0.0;
    std::vector<double> x = best;
    try {
        search.optimize(x, found);
    } catch (const std::exception&) { // rounding stops the search; the best of the grid stands
        return TwoSupports{best[0], best[1]};
    }
    if (found < least) best = x;
    return TwoSupports{best[0], best[1]};
}

} // namespace gantry::structure
