// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/results.h"

#include "app/model/all_processors.h"

#include "core/tools/spread.h"

namespace gantry::app {
namespace {

template <class T, class F>
const T& kept(std::optional<T>& place, F compute) {
    if (!place) place = compute();
    return *place;
}

template <class T, class F>
const T& keptOf(std::vector<std::optional<T>>& each, std::size_t axis, F compute) {
    if (each.size() <= axis) each.resize(axis + 1);
    return kept(each[axis], compute);
}

} // namespace

void Results::renew() {
    // Of the axis that was asked for last they come with the ranges.
    std::vector<AxisEvaluation> moved;
    const std::size_t shown = lastMoved_;
    renew(assess(
        project_,
        [&](std::size_t axis, AxisEvaluation&& e) {
            if (axis == shown) moved.push_back(std::move(e));
        },
        Poses::Later, Known{poses_, evaluation().planned}, allProcessors(), &assessment_));
    if (!moved.empty()) keptOf(moved_, shown, [&] { return std::move(moved); });
}

void Results::renew(Assessment known) {
    assessment_ = std::move(known);
    if (evaluation().poses != nullptr) poses_ = evaluation().poses;
    moved_.clear();
    limits_.clear();
    capability_.clear();
    demands_.clear();
    layout_.reset();
    solids_.reset();
    tipping_.reset();
    completeness_.reset();
    settings_.reset();
    later_.clear();
}

void Results::takePoses(std::shared_ptr<const PoseSearch> poses) {
    poses_ = std::move(poses);
    renew();
}

const std::vector<AxisEvaluation>& Results::moved(std::size_t axis) const {
    lastMoved_ = axis;
    return keptOf(moved_, axis, [&] { return movedEvaluations(project_, axis); });
}

const AxisLimits& Results::limits(std::size_t axis) const {
    return keptOf(limits_, axis,
                  [&] { return axisLimits(project_, project_.axes[axis], evaluation().axes[axis]); });
}

const Capability& Results::capability(std::size_t axis) const {
    return keptOf(capability_, axis,
                  [&] { return gantry::capability(project_.axes[axis], evaluation().axes[axis]); });
}

const AxisDemands& Results::demands(std::size_t axis) const {
    return keptOf(demands_, axis, [&] { return demandsOf(project_, evaluation().axes[axis]); });
}

const RigLayout& Results::layout() const {
    return kept(layout_, [&] { return layRig(setupOf(project_, Courses::No), shownPose(project_.axes)); });
}

const std::vector<geometry::Solid>& Results::solids() const {
    return kept(solids_, [&] { return solidsOf(setupOf(project_, Courses::No), shownPose(project_.axes)); });
}

const std::vector<TippingCase>& Results::tipping() const {
    return kept(tipping_, [&] { return tippingPolar(setupOf(project_, Courses::No), evaluation().axes); });
}

const std::vector<CompletenessLine>& Results::completeness() const {
    return kept(completeness_, [&] { return gantry::completeness(project_, evaluation()); });
}

const io::SettingsSheet& Results::settings() const {
    return kept(settings_, [&] { return io::settingsSheet(project_, assessment_); });
}

const std::vector<LaterChange>& Results::later(std::size_t addition) const {
    return keptOf(later_, addition,
                  [&] { return whatChanges(project_, assessment_, project_.later[addition]); });
}

const PlannedMove& Results::move(std::size_t move) const {
    return (*evaluation().planned)[move];
}

} // namespace gantry::app
