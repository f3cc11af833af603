// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <utility>
#include <vector>

/// Camera and rig on clocks of their own. Times in s.
namespace gantry::intervals {

/// A clock that is set to a period and runs by so much fast or slow.
struct Clock {
    double set = 1.0; ///< > 0
    double ppm = 0.0; ///< parts in a million by which its periods are longer
    double period() const { return set * (1.0 + ppm * 1e-6); }
};

struct TwoTimers {
    Clock camera, rig;
    double exposure = 0.0;      ///< from the trigger on
    double moveAndSettle = 0.0; ///< from the rig's beat on
    double offset = 0.0;        ///< of the rig's first beat after the first picture
    std::int64_t pictures = 1;
};

/// Picture k is spoiled if the shutter is open for any moment of the rig's m-th movement, m ≥ 0; touching is
/// not spoiling.
bool spoiled(const TwoTimers& timers, std::int64_t k);

struct Drift {
    double perPicture = 0.0; ///< by which the rig falls behind the camera, signed
    double perDay = 0.0;
    std::optional<double> beat; ///< in which one has a beat more than the other; nothing: they keep step
    double longRunShare = 0.0;  ///< of spoiled pictures; only if the periods share no small ratio
};
Drift driftOf(const TwoTimers& timers);

struct Collisions {
    std::int64_t spoiled = 0;
    std::optional<std::int64_t> first;
    std::vector<std::pair<std::int64_t, std::int64_t>> runs; ///< first and last of each, at most `most`
    std::int64_t gapsWithout = 0;  ///< between pictures in which the rig does not begin to move
    std::int64_t gapsWithMore = 0; ///< … in which it begins to more than once
};
/// Every picture looked at: 1e6 take some 10 ms.
Collisions collisionsOf(const TwoTimers& timers, std::size_t most = 6);

} // namespace gantry::intervals
