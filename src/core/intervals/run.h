// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <span>

/// A run of pictures as a whole: n pictures have n − 1 gaps. Pictures count from 0. Times in s.
namespace gantry::intervals {

enum class GapLaw { Even, Linear, Geometric };

/// How the gaps between pictures go from the first to the last.
struct Gaps {
    std::int64_t pictures = 2; ///< ≥ 1
    double first = 1.0;        ///< > 0
    double last = 1.0;         ///< > 0; not asked for Even
    GapLaw law = GapLaw::Even;

    std::int64_t count() const { return pictures - 1; }
    double gap(std::int64_t k) const; ///< between pictures k and k + 1
    /// From the first picture to picture k; k may lie past the last, by more of the last gap's law. Exact
    /// sums of the law, to rounding.
    double timeOf(std::int64_t k) const;
    double total() const { return timeOf(count()); }
    double least() const;
    /// Between neighbours.
    double largestChange() const;
    /// The first gap that is shorter than `need`; nothing where none is.
    std::optional<std::int64_t> firstShorter(double need) const;
    /// Picture that is the last at or before a time after the first; at least 0, at most the last.
    std::int64_t pictureAt(double time) const;
};

/// Cards of `card` bytes for pictures of `picture` bytes each.
struct Storage {
    std::int64_t perCard = 0;              ///< whole pictures
    std::int64_t cards = 0;                ///< for all pictures of one camera; 0: a picture does not fit
    std::optional<std::int64_t> firstLost; ///< with one card; nothing: all fit
};
Storage storageOf(std::int64_t pictures, double picture, double card);

/// Hours and days on which a run works, every week alike, in local time without changes of clock. Seconds
/// count from midnight.
struct WorkingHours {
    double open = 0.0, close = 86400.0; ///< close > open
    std::span<const bool> days;         ///< from Monday on, seven; empty: every day
    int firstDay = 0;                   ///< of the week, 0 Monday: that of the first picture
};
struct Schedule {
    std::int64_t perDay = 0;       ///< pictures; 0: not one fits
    std::int64_t workingDays = 0;  ///< begun
    std::int64_t calendarDays = 0; ///< from the first to the last, both counted
    double last = 0.0;             ///< of the last picture, from midnight of the first day
};
/// Every working day begins with a picture at `open`; the last of a day has its `need` before `close`.
Schedule scheduleOf(std::int64_t pictures, double interval, double need, const WorkingHours& hours);
/// Time of picture k by such a schedule, from midnight of the first day. @param perDay > 0
double scheduledTime(std::int64_t k, std::int64_t perDay, double interval, const WorkingHours& hours);

} // namespace gantry::intervals
