// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/move/move_scene.h"
#include "core/evaluate/rig_setup.h"
#include "core/intervals/budget.h"
#include "core/intervals/pulses.h"
#include "core/intervals/run.h"
#include "core/intervals/whole_steps.h"
#include "core/motion/profile.h"
#include "core/results/interval_results.h"

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

namespace gantry {

struct PlannedMove;

/// The shot that a plan is taken with: the one it names, else that of its move, else the first; null if the
/// project has none.
const Shot* shotOf(std::span<const Shot> shots, std::span<const RigMove> moves, const IntervalPlan& plan);

/// The geared motor of a plan on timed pulses.
intervals::PulsedMotor pulsedMotor(const IntervalPlan& plan);

/// An interval plan picture by picture. Pictures count from 0 here. U is m or rad.
class IntervalCourse {
public:
    /// All have to outlive it. @param axes evaluated, one for each of the rig
    IntervalCourse(const RigSetup& rig, const IntervalPlan& plan, const std::vector<AxisEvaluation>& axes);

    const std::vector<PlanTrouble>& troubles() const { return troubles_; }
    /// Whether there are pictures and a way; else only the facts that could be told are there.
    bool runs() const { return runs_; }
    const IntervalPlan& plan() const { return plan_; }
    const Shot* shot() const { return shot_; }

    std::int64_t pictures() const { return gaps_.pictures; }
    const intervals::Gaps& gaps() const { return gaps_; }
    double duration() const;                       ///< [s] from the first picture to the last closed shutter
    double exposureOf(std::int64_t picture) const; ///< [s]
    double longestExposure() const;
    /// Pictures to look at where all would be too many: at even distances, both ends among them.
    std::vector<std::int64_t> samples() const;

    intervals::Shape shape() const; ///< of the steps over the run
    /// Moves from one end of the way to the other: all of the run, or so many as the active time that is
    /// expected of a run that presence keeps going has room for. At least 1.
    std::int64_t wayMoves() const { return wayMoves_; }
    /// Moves along the way at a picture: it stays at its end, or turns back, as the plan says.
    std::int64_t alongWay(std::int64_t picture) const;
    /// Share of the way [1] at a picture.
    double shareAt(std::int64_t picture) const;
    /// Places of all axes [U from their low end].
    std::vector<double> placesAt(std::int64_t picture) const;
    void placesAt(std::int64_t picture, std::span<double> places) const; ///< the same, into one for each axis
    bool moves(std::size_t axis) const { return moves_[axis]; }
    const motion::Limits& limits(std::size_t axis) const { return limits_[axis]; }
    double wayOf(std::size_t axis) const; ///< whole way of an axis [U], without sign
    const motion::Mode& modeOf(std::size_t axis) const {
        return *axes_[axis].model.mode;
    } ///< where it has one
    /// The way of an axis to the next picture [U], signed.
    double stepAt(std::int64_t picture, std::size_t axis) const;
    /// What the picture does for one unit of an axis [px/U]; 0 where that is not known.
    double pixelsPerUnit(std::size_t axis) const { return pixels_[axis]; }
    /// An axis that rocks when the rig has stopped before the next picture.
    struct Swing {
        std::size_t axis = 0;
        double amplitude = 0.0; ///< [U]
        double pixels = 0.0;    ///< [px] peak to peak
        double left = 0.0;      ///< [U] amplitude when the shutter opens
    };
    /// From one picture to the next, with all that is computed of it.
    struct Step {
        std::int64_t picture = 0;
        std::vector<double> here, next; ///< [U] of all axes
        /// How the axes get there, all starting and arriving together; empty where they run on.
        std::vector<motion::Profile> profiles;
        std::vector<Swing> swings;
        double moveTime = 0.0; ///< [s] that the slowest of them takes
        /// [s] that the plan waits then: as it was entered, or until so much less than the limit is left that
        /// it counts as fine.
        double settle = 0.0;
        /// [px] way of the subject in the picture: of the move's target where it has one, else of all axes
        /// together, or of the one that does most where they keep it framed.
        double inPicture = 0.0;
    };
    /// @param picture before the last
    Step step(std::int64_t picture) const;
    /// What rocks, all of it together, peak to peak [px], a time [s] after the rig has stopped.
    double swingAfter(const Step& step, double time) const;
    /// The same when the shutter opens, and the smear [px] of the exposure that begins then.
    double leftOf(const Step& step) const;
    double smearOf(const Step& step) const;
    /// Time [s] until no more than `limit` [px] is left; nothing where it never is.
    std::optional<double> settleWithin(const Step& step, double limit) const;

    bool stopsForPictures() const; ///< moves in every interval, and stands while the shutter is open
    /// What the interval after a picture needs.
    intervals::BudgetResults budgetOf(const Step& step) const;
    intervals::BudgetResults budgetAt(std::int64_t picture) const { return budgetOf(step(picture)); }
    std::vector<intervals::CameraTimes> cameraTimesAt(std::int64_t picture) const;

    /// When the shutter opens for a picture [s], from midnight of the first day, as it is planned.
    double clockAt(std::int64_t picture) const;
    const std::optional<intervals::Schedule>& schedule() const { return schedule_; }

    std::size_t slide() const { return slide_; } ///< the first axis that slides; the number of axes: none

private:
    void settleFacts();
    void settleWay();
    void settleClock();
    double driven(std::int64_t picture) const; ///< by pulses [m] from the first picture
    std::vector<Swing> swingsOf(const Step& step) const;
    /// How long the plan waits, and what is left of each swing then.
    void settle(Step& step) const;
    double standsFor(std::int64_t picture) const; ///< [s] that the rig may not move for a picture
    double inPicture(const Step& step) const;

    const RigSetup& rig_;
    const IntervalPlan& plan_;
    const std::vector<AxisEvaluation>& axes_;
    const Shot* shot_ = nullptr;
    const PlannedMove* move_ = nullptr;
    const AimTarget* target_ = nullptr;
    std::vector<ExposureMark> exposures_; ///< in order of pictures
    std::vector<PlanTrouble> troubles_;
    bool runs_ = false;
    intervals::Gaps gaps_;
    std::optional<intervals::Schedule> schedule_;
    std::span<const bool> days_; ///< of the plan; empty: every day
    std::int64_t wayMoves_ = 1;
    std::vector<bool> moves_;
    std::vector<double> from_, way_; ///< of the distances of a shot [U]
    std::vector<double> pixels_;
    std::vector<motion::Limits> limits_;
    std::size_t slide_ = 0;
    double pulseWay_ = 0.0; ///< [m]
};

} // namespace gantry
