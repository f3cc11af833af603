// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/whole_steps.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gantry::intervals {
namespace {

std::vector<double> ideals(double steps, std::int64_t moves, Shape shape, double ramp) {
    std::vector<double> out(static_cast<std::size_t>(moves) + 1);
    for (std::size_t k = 0; k < out.size(); ++k)
        out[k] = steps * shareDone(shape, ramp, static_cast<double>(k) / static_cast<double>(moves));
    return out;
}

} // namespace

double shareDone(Shape shape, double ramp, double u) {
    u = std::clamp(u, 0.0, 1.0);
    if (shape == Shape::Smooth) return u * u * (3.0 - 2.0 * u);
    const double r = std::clamp(ramp, 0.0, 0.5);
    if (shape == Shape::Linear || !(r > 0.0)) return u;
    const double v = 1.0 / (1.0 - r);
    if (u < r) return v * u * u / (2.0 * r);
    if (u > 1.0 - r) return 1.0 - v * (1.0 - u) * (1.0 - u) / (2.0 * r);
    return v * (u - 0.5 * r);
}

double pace(Shape shape, double ramp, double u) {
    u = std::clamp(u, 0.0, 1.0);
    if (shape == Shape::Smooth) return 6.0 * u * (1.0 - u);
    const double r = std::clamp(ramp, 0.0, 0.5);
    if (shape == Shape::Linear || !(r > 0.0)) return 1.0;
    return std::min({1.0, u / r, (1.0 - u) / r}) / (1.0 - r);
}

std::int64_t roundedPosition(double steps, double share) {
    constexpr double rounding = 1e-9; // a tie is one even if its last digits are not
    return static_cast<std::int64_t>(std::floor(steps * share + 0.5 + rounding));
}

std::vector<std::int64_t> roundedPositions(std::int64_t steps, std::int64_t moves, Shape shape, double ramp) {
    std::vector<std::int64_t> out;
    for (const double at : ideals(static_cast<double>(steps), moves, shape, ramp))
        out.push_back(roundedPosition(at, 1.0));
    return out;
}

std::vector<std::int64_t> evenestPositions(std::int64_t steps, std::int64_t moves, Shape shape, double ramp,
                                           double band) {
    const std::vector<double> ideal = ideals(static_cast<double>(steps), moves, shape, ramp);
    const std::size_t n = ideal.size();
    // Places that each picture may have.
    std::vector<std::vector<std::int64_t>> may(n);
    constexpr double exact = 1e-9;
    for (std::size_t k = 0; k < n; ++k) {
        if (k == 0 || k + 1 == n) {
            may[k] = {k == 0 ? 0 : steps};
            continue;
        }
        for (auto at = static_cast<std::int64_t>(std::ceil(ideal[k] - band - exact));
             static_cast<double>(at) <= ideal[k] + band + exact; ++at)
            may[k].push_back(at);
    }
    // Least cost to come to a pair of neighbouring places, and from which place before them.
    constexpr double never = std::numeric_limits<double>::infinity();
    std::vector<std::vector<double>> cost(may[1].size(), std::vector<double>(may[0].size(), 0.0));
    std::vector<std::vector<std::vector<std::size_t>>> from(n);
    for (std::size_t k = 2; k < n; ++k) {
        std::vector<std::vector<double>> next(may[k].size(), std::vector<double>(may[k - 1].size(), never));
        from[k].assign(may[k].size(), std::vector<std::size_t>(may[k - 1].size(), 0));
        const double bend = ideal[k] - 2.0 * ideal[k - 1] + ideal[k - 2];
        for (std::size_t c = 0; c < may[k].size(); ++c)
            for (std::size_t b = 0; b < may[k - 1].size(); ++b)
                for (std::size_t a = 0; a < may[k - 2].size(); ++a) {
                    const double off =
                        static_cast<double>(may[k][c] - 2 * may[k - 1][b] + may[k - 2][a]) - bend;
                    const double sum = cost[b][a] + off * off;
                    if (sum >= next[c][b]) continue;
                    next[c][b] = sum;
                    from[k][c][b] = a;
                }
        cost = std::move(next);
    }
    std::vector<std::int64_t> out(n);
    std::size_t c = 0, b = static_cast<std::size_t>(std::min_element(cost[0].begin(), cost[0].end()) -
                                                    cost[0].begin());
    for (std::size_t k = n; k-- > 0;) {
        out[k] = may[k][c];
        if (k == 0) break;
        const std::size_t a = k >= 2 ? from[k][c][b] : 0;
        c = b;
        b = a;
    }
    return out;
}

double jitterOf(const std::vector<std::int64_t>& positions, Shape shape, double ramp) {
    if (positions.size() < 3) return 0.0;
    const std::vector<double> ideal = ideals(static_cast<double>(positions.back()),
                                             static_cast<std::int64_t>(positions.size()) - 1, shape, ramp);
    double sum = 0.0;
    for (std::size_t k = 2; k < positions.size(); ++k) {
        const auto off = [&](std::size_t i) { return static_cast<double>(positions[i]) - ideal[i]; };
        const double bend = off(k) - 2.0 * off(k - 1) + off(k - 2);
        sum += bend * bend;
    }
    return std::sqrt(sum / static_cast<double>(positions.size() - 2));
}

} // namespace gantry::intervals
