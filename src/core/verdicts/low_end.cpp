// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/low_end.h"

#include "core/criteria/criteria.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

constexpr double ample = criteria::ampleRatio;

double squaresOf(std::span<const Fall> falls) {
    double out = 0.0;
    for (const Fall& f : falls) out += f.by * f.by;
    return out;
}

} // namespace

double onScale(double ratio) {
    return ratio <= ample ? ratio : 2.0 * ample - ample * ample / ratio;
}

double fromScale(double scaled) {
    return scaled <= ample ? scaled : ample * ample / (2.0 * ample - scaled);
}

double lessSquares(double nominal, std::span<const Fall> falls) {
    const double squares = squaresOf(falls);
    return squares > 0.0 ? nominal - std::sqrt(squares) : nominal;
}

std::vector<Fall> decidingFalls(double nominalOnScale, std::span<const Fall> falls) {
    std::vector<Fall> out(falls.begin(), falls.end());
    std::stable_sort(out.begin(), out.end(), [](const Fall& a, const Fall& b) { return a.by > b.by; });
    const std::span<const Fall> others = std::span(out).subspan(std::min<std::size_t>(1, out.size()));
    const bool oneIsEnough = lessSquares(nominalOnScale, others) >= 1.0;
    out.resize(std::min<std::size_t>(out.size(), oneIsEnough ? 1 : 2));
    return out;
}

double lowEndOf(double ratio, std::span<const Fall> falls) {
    if (squaresOf(falls) <= 0.0) return ratio;
    const double plain = fromScale(std::max(0.0, lessSquares(onScale(ratio), falls)));
    if (ratio <= ample) return plain;
    // What is needed over what is there, its growth added as squares: exact of what is nearly nothing as
    // entered and grows in proportion to each error.
    double squares = 0.0;
    for (const Fall& f : falls) {
        const double left = onScale(ratio) - f.by;
        if (left <= 0.0) return plain;
        const double grown = 1.0 / fromScale(left) - 1.0 / ratio;
        squares += grown * grown;
    }
    const double byNeed = 1.0 / (1.0 / ratio + std::sqrt(squares));
    return std::lerp(plain, byNeed, std::min(1.0, ratio / ample - 1.0));
}

} // namespace gantry
