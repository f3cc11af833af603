// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/plan_desk.h"

#include "core/evaluate/interval/evaluate_interval.h"
#include "core/evaluate/setup_of.h"

#include <algorithm>

namespace gantry::app {

PlanDesk::PlanDesk(const Context& context, QObject* parent) : QObject(parent), context_(context) {}

const IntervalPlan* PlanDesk::current() const {
    const auto& plans = context_.document.project().plans;
    return plan_ >= 0 && plan_ < static_cast<int>(plans.size()) ? &plans[static_cast<std::size_t>(plan_)]
                                                                : nullptr;
}

const IntervalResults* PlanDesk::results() const {
    const auto& all = context_.document.results().evaluation().plans;
    return plan_ >= 0 && plan_ < static_cast<int>(all.size()) ? &all[static_cast<std::size_t>(plan_)]
                                                              : nullptr;
}

void PlanDesk::setPlan(int plan) {
    plan_ = plan;
    picture_ = 0;
    within_ = 0.0;
    fresh_ = true;
    fit();
    emit changed();
}

void PlanDesk::fit() {
    run_.reset();
    course_.reset();
    rig_.reset();
    const auto& plans = context_.document.project().plans;
    plan_ = std::clamp(plan_, 0, std::max(0, static_cast<int>(plans.size()) - 1));
    if (current() == nullptr) return;
    const Evaluation& evaluation = context_.document.results().evaluation();
    project_ = context_.document.project();
    axes_ = evaluation.axes;
    rig_.emplace(setupWithMoves(project_, evaluation.planned));
    course_ = std::make_unique<IntervalCourse>(*rig_, project_.plans[static_cast<std::size_t>(plan_)], axes_);
    taken_.reset();
    steps_.clear();
    if (course_->runs()) {
        run_ = std::make_unique<IntervalRun>(*course_, axes_);
        for (const std::int64_t k : course_->samples())
            if (k + 1 < course_->pictures()) steps_.push_back(course_->step(k));
        if (!steps_.empty()) taken_ = energyTaken(*course_, *rig_, axes_, steps_);
    }
    // At first the picture with the least room is the one to look at.
    if (fresh_ && results() != nullptr && results()->lanes.picture) {
        picture_ = static_cast<std::int64_t>(results()->lanes.picture.value()) - 1;
        fresh_ = false;
    }
    picture_ = std::clamp<std::int64_t>(picture_, 0, course_->pictures() - 1);
}

void PlanDesk::setPicture(std::int64_t picture) {
    if (course() == nullptr) return;
    picture = std::clamp<std::int64_t>(picture, 0, course_->pictures() - 1);
    if (picture == picture_ && within_ == 0.0) return;
    picture_ = picture;
    within_ = 0.0;
    emit headMoved();
}

void PlanDesk::setTime(double time) {
    if (course() == nullptr) return;
    picture_ = course_->gaps().pictureAt(std::max(0.0, time));
    within_ = std::max(0.0, time - course_->gaps().timeOf(picture_));
    emit headMoved();
}

double PlanDesk::time() const {
    return course() == nullptr ? 0.0 : course_->gaps().timeOf(picture_) + within_;
}

std::optional<double> PlanDesk::chargeTaken(std::int64_t picture) const {
    const IntervalResults* r = results();
    if (r == nullptr || !r->energy.there || !taken_) return std::nullopt;
    return taken_->at(static_cast<double>(picture)) / r->energy.there.value();
}

} // namespace gantry::app
