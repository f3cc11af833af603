// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/roots.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>
#include <optional>

namespace gantry::solve {

/// Root of a continuous f in [low, high], to `bits` bits (Alefeld, Potra and Shi, 1995, as in Boost.Math).
/// Nothing where there is no bracket: ends that are not finite or out of order, or f of the same sign at
/// both. Never throws; calls f at most `mostCalls` times more than twice.
template <class F>
std::optional<double> rootBetween(const F& f, double low, double high, int bits = 48,
                                  std::uintmax_t mostCalls = 200) {
    if (!std::isfinite(low) || !std::isfinite(high)) return std::nullopt;
    const double atLow = f(low), atHigh = f(high);
    if (atLow == 0.0) return low;
    if (atHigh == 0.0) return high;
    if (!(low < high) || !(std::isfinite(atLow) && std::isfinite(atHigh)) || (atLow > 0.0) == (atHigh > 0.0))
        return std::nullopt;
    using namespace boost::math::policies;
    using Quiet = policy<domain_error<ignore_error>, evaluation_error<ignore_error>>;
    const auto bracket = boost::math::tools::toms748_solve(
        f, low, high, atLow, atHigh, boost::math::tools::eps_tolerance<double>(static_cast<unsigned>(bits)),
        mostCalls, Quiet());
    return 0.5 * (bracket.first + bracket.second);
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
