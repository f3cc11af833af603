// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/interval/interval_frames.h"
#include "core/intervals/energy.h"

#include <QObject>
#include <memory>
#include <optional>
#include <span>
#include <vector>

namespace gantry::app {

/// What the station of interval plans is about: the plan in hand, and the moment of its run that is looked
/// at. Not undoable, not in the file.
class PlanDesk : public QObject {
    Q_OBJECT
public:
    explicit PlanDesk(const Context& context, QObject* parent = nullptr);

    int plan() const { return plan_; }
    /// Counted from 0.
    std::int64_t picture() const { return picture_; }
    /// [s] within the interval of that picture.
    double within() const { return within_; }
    void setPlan(int plan);
    void setPicture(std::int64_t picture);
    /// To a time [s] of the run as it is planned.
    void setTime(double time);
    double time() const;
    /// After an edit: everything computed anew.
    void fit();

    const IntervalPlan* current() const; ///< null if there is none
    const IntervalResults* results() const;
    /// Picture by picture; null where it cannot run. Both hold until the next fit().
    const IntervalCourse* course() const { return course_ && course_->runs() ? course_.get() : nullptr; }
    /// From one picture that is looked at to the next, over the whole run; empty where it cannot run.
    std::span<const IntervalCourse::Step> steps() const { return steps_; }
    const IntervalRun* run() const { return run_.get(); }
    /// Charge taken until a picture, as a share [1] of what there is; nothing on mains.
    std::optional<double> chargeTaken(std::int64_t picture) const;
    /// Changes the plan in hand as one step.
    template <class Change>
    void change(const QString& what, Change how, const QString& merge = {}) {
        if (current() == nullptr) return;
        const auto index = static_cast<std::size_t>(plan_);
        context_.document.change(
            what, [&](Project& p) { how(p.plans[index]); }, merge);
    }

signals:
    void changed();   ///< another plan is in hand
    void headMoved(); ///< another moment is looked at

private:
    Context context_;
    int plan_ = 0;
    std::int64_t picture_ = 0;
    double within_ = 0.0;
    bool fresh_ = true; ///< no picture of this plan was looked at yet
    /// What the course looks into, kept with it.
    Project project_;
    std::vector<AxisEvaluation> axes_;
    std::optional<RigSetup> rig_;
    std::unique_ptr<IntervalCourse> course_;
    std::unique_ptr<IntervalRun> run_;
    std::vector<IntervalCourse::Step> steps_;
    std::optional<intervals::TakenEnergy> taken_;
};

} // namespace gantry::app
