// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

/// How far a ratio of "there over needed" may fall within the tolerances of its inputs. Where a ratio is
/// ample, what is left says little; what is needed then counts, so that an error that nearly vanishes, or a
/// torque that is there thirty times, is not taken for uncertain because it may be there twenty times.
/// Derivation: docs/models/tolerances.md.
namespace gantry {

/// A ratio on the scale on which falls are added [1]: the ratio itself up to criteria::ampleRatio, from there
/// on towards twice as much as 1/ratio falls. Rises with the ratio; without a kink.
double onScale(double ratio);
double fromScale(double scaled);

/// The worse end of one input.
struct Fall {
    int input = -1;
    double by = 0.0; ///< [1] on the scale, ≥ 0
    double at = 0.0; ///< SI, the input there
};

/// Nominal less the root of the squares of the falls, all on one scale. May be negative.
double lessSquares(double nominal, std::span<const Fall> falls);

/// Which inputs decide that the low end lies below 1: the one that would lift it there if it were exact, or
/// else the best two, the larger fall first. Empty if there is no fall.
std::vector<Fall> decidingFalls(double nominalOnScale, std::span<const Fall> falls);

/// The ratio at its low end, never below 0.
double lowEndOf(double ratio, std::span<const Fall> falls);

/// Least of a function over the corners of a box: of the first inputs every combination of ends is tried, the
/// others where `corner` has them; from the best of these on, one input after the other is turned to its
/// other end as long as that lowers it. Exact for up to `most` inputs, and where the others act one way
/// wherever the rest stands.
/// @param box the ends of each input, those that matter most first; @param corner where to begin, ends there
/// where it is least
/// @param f of the inputs' values, in the order of the box
template <class Range, class F>
double leastCorner(std::span<const Range> box, std::vector<double>& corner, F f) {
    constexpr std::size_t most = 6;
    const std::size_t tried = box.size() < most ? box.size() : most;
    double least = f(corner);
    std::vector<double> values = corner;
    for (std::size_t combination = 0; combination < (std::size_t{1} << tried); ++combination) {
        for (std::size_t i = 0; i < tried; ++i)
            values[i] = (combination >> i & 1u) != 0 ? box[i].high : box[i].low;
        if (const double there = f(values); there < least) {
            least = there;
            corner = values;
        }
    }
    for (bool lower = box.size() > most; lower;) {
        lower = false;
        for (std::size_t i = 0; i < box.size(); ++i)
            for (const double end : {box[i].low, box[i].high}) {
                if (end == corner[i]) continue;
                const double before = corner[i];
                corner[i] = end;
                const double there = f(corner);
                lower = lower || there < least;
                if (there < least)
                    least = there;
                else
                    corner[i] = before;
            }
    }
    return least;
}

} // namespace gantry
