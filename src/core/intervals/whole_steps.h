// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <vector>

/// Positions of pictures in whole steps of a motor.
namespace gantry::intervals {

enum class Shape { Linear, Smooth, Ramps };

/// Share of the way that is done at share u of the run, both within 0 … 1: even; u²(3 − 2u); or at even speed
/// between ramps of `ramp` ≤ 0.5 at both ends.
double shareDone(Shape shape, double ramp, double u);
/// Its slope, the size of a step of the run over that of an even one.
double pace(Shape shape, double ramp, double u);

/// Position of picture k of n − 1 = `moves`, in whole steps: the ideal one rounded, ties up, so that no
/// picture is more than half a step off and nothing adds up. @param steps of the whole way, signed
std::int64_t roundedPosition(double steps, double share);

/// All of them, k = 0 … moves.
std::vector<std::int64_t> roundedPositions(std::int64_t steps, std::int64_t moves, Shape shape, double ramp);

/// Positions within `band` steps of the ideal with both ends exact whose second differences, less those of
/// the ideal, have the least mean square. By dynamic programming over pairs of neighbouring positions; time
/// and memory grow with moves · band².
/// @param band 0.5 … 2 @param moves ≥ 2, up to 1e5
std::vector<std::int64_t> evenestPositions(std::int64_t steps, std::int64_t moves, Shape shape, double ramp,
                                           double band);

/// Rms of the second differences of position less ideal over the inner pictures [steps]: how much the clip
/// jitters. 0 with fewer than two moves.
double jitterOf(const std::vector<std::int64_t>& positions, Shape shape, double ramp);

} // namespace gantry::intervals
