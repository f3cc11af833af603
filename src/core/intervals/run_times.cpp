// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/run_times.h"

#include <algorithm>

namespace gantry::intervals {

RunTimes::RunTimes(const Gaps& gaps, double need, double again, std::span<const Stand> pauses,
                   std::span<const Missed> missed, MissedRule rule)
    : gaps_(gaps), again_(again), pictures_(gaps.pictures) {
    std::size_t pause = 0, fault = 0;
    std::int64_t at = 0; // pictures before it are settled
    while (at < pictures_) {
        // The next picture that a pause may put off, and the next that is missed.
        std::int64_t stopped = pictures_, failed = pictures_;
        if (pause < pauses.size()) stopped = firstFrom(at, pauses[pause].from);
        while (fault < missed.size() && missed[fault].picture < at) ++fault;
        if (fault < missed.size()) failed = missed[fault].picture;
        if (stopped >= pictures_ && failed >= pictures_) break;
        if (stopped <= failed) {
            if (opens(stopped) < pauses[pause].to) put(stopped, pauses[pause].to - planned(stopped));
            ++pause;
            at = stopped;
            continue;
        }
        const Missed& m = missed[fault++];
        const double late = rule == MissedRule::Waits     ? m.waited
                            : rule == MissedRule::Repeats ? m.tries * again
                                                          : 0.0;
        if (rule == MissedRule::Skips || rule == MissedRule::Stops) lost_.push_back(failed);
        if (rule == MissedRule::Repeats) tries_.emplace_back(failed, m.tries);
        if (rule == MissedRule::Stops) {
            pictures_ = failed + 1;
            break;
        }
        at = failed + 1;
        if (at < pictures_) {
            const double soonest = opens(failed) + late + need;
            if (late > 0.0 && soonest > opens(at)) put(at, soonest - planned(at));
        }
    }
}

void RunTimes::put(std::int64_t from, double by) {
    if (shifts_.back().from == from)
        shifts_.back().by = by;
    else
        shifts_.push_back({from, by});
}

const RunTimes::Shift& RunTimes::shiftOf(std::int64_t k) const {
    const auto after = std::upper_bound(shifts_.begin(), shifts_.end(), k,
                                        [](std::int64_t of, const Shift& s) { return of < s.from; });
    return *(after - 1);
}

double RunTimes::opens(std::int64_t k) const {
    return planned(k) + shiftOf(k).by;
}

double RunTimes::counts(std::int64_t k) const {
    return planned(k) + lateAt(k);
}

double RunTimes::lateAt(std::int64_t k) const {
    const auto at = std::lower_bound(tries_.begin(), tries_.end(), k,
                                     [](const auto& t, std::int64_t of) { return t.first < of; });
    return shiftOf(k).by + (at != tries_.end() && at->first == k ? at->second * again_ : 0.0);
}

std::int64_t RunTimes::firstFrom(std::int64_t k, double time) const {
    // No shift begins after k yet, so the planned times with the last one tell.
    std::int64_t low = k, high = pictures_;
    while (low < high) {
        const std::int64_t mid = low + (high - low) / 2;
        if (opens(mid) < time)
            low = mid + 1;
        else
            high = mid;
    }
    return low;
}

} // namespace gantry::intervals
