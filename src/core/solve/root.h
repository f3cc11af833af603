// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/roots.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>
#include <optional>

namespace gantry::solve {

/// A place and what a function is there.
struct At {
    double x, f;
};

/// Root of a continuous f in [low, high], to `bits` bits (Alefeld, Potra and Shi, 1995, as in Boost.Math).
/// Nothing where there is no bracket: ends that are not finite or out of order, or f of the same sign at
/// both. Never throws; calls f at most `mostCalls` times.
template <class F>
std::optional<double> rootBetween(const F& f, At low, At high, int bits = 48,
                                  std::uintmax_t mostCalls = 200) {
    if (!std::isfinite(low.x) || !std::isfinite(high.x)) return std::nullopt;
    if (low.f == 0.0) return low.x;
    if (high.f == 0.0) return high.x;
    if (!(low.x < high.x) || !(std::isfinite(low.f) && std::isfinite(high.f)) ||
        (low.f > 0.0) == (high.f > 0.0))
        return std::nullopt;
    using namespace boost::math::policies;
    using Quiet = policy<domain_error<ignore_error>, evaluation_error<ignore_error>>;
    const auto bracket = boost::math::tools::toms748_solve(
        f, low.x, high.x, low.f, high.f,
        boost::math::tools::eps_tolerance<double>(static_cast<unsigned>(bits)), mostCalls, Quiet());
    return 0.5 * (bracket.first + bracket.second);
}

/// The same with the ends not looked at yet: two calls more.
template <class F>
std::optional<double> rootBetween(const F& f, double low, double high, int bits = 48,
                                  std::uintmax_t mostCalls = 200) {
    if (!std::isfinite(low) || !std::isfinite(high)) return std::nullopt;
    return rootBetween(f, At{low, f(low)}, At{high, f(high)}, bits, mostCalls);
}

/// Largest x in [low, high], to `bits` bits, for which `holds`: a condition that holds up to some x and no
/// further. `high` where it holds throughout; nothing where it fails at `low` or the ends are out of order.
/// By halving, as in Boost.Math; never throws.
template <class F>
std::optional<double> largestWhere(const F& holds, double low, double high, int bits = 40) {
    if (!std::isfinite(low) || !std::isfinite(high) || !(low <= high) || !holds(low)) return std::nullopt;
    if (holds(high)) return high;
    using namespace boost::math::policies;
    using Quiet = policy<domain_error<ignore_error>, evaluation_error<ignore_error>>;
    std::uintmax_t most = 200;
    const auto sign = [&](double x) { return holds(x) ? -1.0 : 1.0; };
    return boost::math::tools::bisect(sign, low, high,
                                      boost::math::tools::eps_tolerance<double>(static_cast<unsigned>(bits)),
                                      most, Quiet())
        .first;
}

/// Least value of a continuous f in [low, high] where f falls and then rises, to half of a double's digits in
/// x, as Brent's method finds it (Boost.Math).
template <class F>
double leastBetween(const F& f, double low, double high) {
    std::uintmax_t most = 100;
    return boost::math::tools::brent_find_minima(f, low, high, 26, most).second;
}

} // namespace gantry::solve
