// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/intervals/run.h"

#include <span>
#include <vector>

namespace gantry::intervals {

/// What becomes of a picture that the camera does not confirm.
enum class MissedRule { Waits, Repeats, Skips, Stops };

/// A picture that is not confirmed at once.
struct Missed {
    std::int64_t picture = 0;
    int tries = 1;       ///< that are not confirmed, ≥ 1
    double waited = 0.0; ///< [s] until it is confirmed after all, where the run waits for it
};

/// A time [s] of the run in which no picture is begun; one that is begun is finished.
struct Stand {
    double from = 0.0, to = 0.0;
};

/// When the pictures of a run are really taken: its gaps, put off by pauses and by pictures that were missed.
/// Between those the gaps are kept, so that it costs nothing to ask for any of half a million pictures.
class RunTimes {
public:
    /// @param need [s] from a shutter's opening to the next at the soonest; gaps shorter than that are
    /// stretched to it where something was put off, and kept as they are planned elsewhere
    /// @param again [s] from a try to the next one
    /// @param pauses in order, apart from each other @param missed in order of pictures, each named once
    RunTimes(const Gaps& gaps, double need, double again, std::span<const Stand> pauses,
             std::span<const Missed> missed, MissedRule rule);

    /// Pictures that are tried: all, or those up to the one at which the run stops.
    std::int64_t pictures() const { return pictures_; }
    /// When the shutter opens for picture k, at its first try; from the planned beginning of the run.
    double opens(std::int64_t k) const;
    /// By how much later than planned the try of picture k opens that counts.
    double lateAt(std::int64_t k) const;
    /// … and when that is.
    double counts(std::int64_t k) const;
    /// Pictures that are not there in the end, in order. The rig has been at their places all the same.
    const std::vector<std::int64_t>& lost() const { return lost_; }
    /// How much later than planned the last one is taken.
    double late() const { return shifts_.back().by; }

private:
    struct Shift {
        std::int64_t from = 0; ///< picture
        double by = 0.0;       ///< [s]
    };
    const Shift& shiftOf(std::int64_t k) const;
    double planned(std::int64_t k) const { return gaps_.timeOf(k); }
    void put(std::int64_t from, double by);
    /// The first picture from k on that would open at or after a time.
    std::int64_t firstFrom(std::int64_t k, double time) const;

    Gaps gaps_;
    double again_;
    std::int64_t pictures_;
    std::vector<Shift> shifts_{Shift{}};
    std::vector<std::pair<std::int64_t, int>> tries_; ///< pictures that are taken again, and how often
    std::vector<std::int64_t> lost_;
};

} // namespace gantry::intervals
