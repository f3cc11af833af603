// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>

/// The three facts of a run at even gaps: pictures, interval, duration = (pictures − 1) interval + exposure
/// [s]. Any two of them give the third. Each has other forms: a clip's length, how many times faster it is
/// shown.
namespace gantry::intervals {

inline constexpr std::int64_t mostPictures = 10'000'000;

/// [s] @param pictures ≥ 1
double durationOf(std::int64_t pictures, double interval, double exposure);

/// Nothing where there is no gap, or the duration leaves none.
std::optional<double> intervalFor(std::int64_t pictures, double duration, double exposure);

/// As many as are taken to their end in the duration; nothing where it holds not even one, or more than
/// mostPictures.
std::optional<std::int64_t> picturesFor(double interval, double duration, double exposure);

/// A clip shows every picture for `held` frames at `rate` [1/s].
double clipOf(std::int64_t pictures, double rate, int held);     ///< [s]
std::int64_t picturesOfClip(double clip, double rate, int held); ///< the nearest number; one at least
double speedUpOf(double interval, double rate, int held);        ///< [1]
double intervalOfSpeedUp(double speedUp, double rate, int held); ///< [s]

} // namespace gantry::intervals
