// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/interval/interval_course.h"
#include "core/intervals/run_times.h"

#include <cstdint>
#include <vector>

namespace gantry {

/// One picture of a run as it is really taken: with its pauses, pictures that were missed, and steps of the
/// motors. U is m or rad.
struct IntervalFrame {
    std::int64_t number = 1;    ///< as people count
    double opens = 0.0;         ///< [s] from midnight of the first day, for the try that counts
    double exposure = 0.0;      ///< [s]
    std::vector<double> places; ///< [U from the low end] of all axes, in whole steps of those that have them
    std::vector<std::int64_t> steps; ///< from the first picture; 0 of an axis without
    bool deleted = false;            ///< nobody was there, or it was never confirmed
};

/// A run picture by picture, to ask for any of them.
class IntervalRun {
public:
    /// @param course has to outlive it, and runs
    IntervalRun(const IntervalCourse& course, const std::vector<AxisEvaluation>& axes);

    std::int64_t frames() const { return frames_; }
    IntervalFrame at(std::int64_t frame) const;            ///< from 0
    void at(std::int64_t frame, IntervalFrame& out) const; ///< the same, into what was used before
    /// By how much a step moves an axis [U]; 0 of one without.
    double stepOf(std::size_t axis) const { return steps_[axis]; }
    std::int64_t deleted() const;

private:
    /// Of a run that presence keeps going: a picture's place on the way, and whether it is kept.
    struct Seen {
        std::int64_t position = 0;
        double time = 0.0; ///< [s] from the beginning
        bool kept = true;
    };
    void followPresence();

    const IntervalCourse& course_;
    bool byPresence_;
    intervals::RunTimes times_;
    std::vector<Seen> seen_;            ///< empty: nobody has to be there
    std::vector<double> steps_, first_; ///< [U] of each axis: a step, and where it is at the first picture
    std::vector<std::vector<std::int64_t>> evenest_; ///< positions of axes that are seen to step
    std::int64_t frames_ = 0;
};

} // namespace gantry
