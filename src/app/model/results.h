// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/tools/capability.h"
#include "core/tools/demands.h"
#include "core/tools/limits.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/later.h"
#include "core/verdicts/ranges.h"
#include "io/report/settings.h"

#include <optional>
#include <vector>

namespace gantry::app {

/// Everything that the window shows of a project, computed: the assessment with every edit, the rest once
/// when it is first asked for. Belongs to one revision of one document; widgets read it and compute nothing.
class Results {
public:
    explicit Results(const Project& project) : project_(project) {}

    /// The project has changed: computes the assessment, or takes one that is known. A search over all poses
    /// that takes time is left out; `wantsPoses` says so until `takePoses` brings it.
    void renew();
    void renew(Assessment known);

    bool wantsPoses() const { return evaluation().poses == nullptr; }
    void takePoses(std::shared_ptr<const PoseSearch> poses);

    const Assessment& assessment() const { return assessment_; }
    const Evaluation& evaluation() const { return assessment_.evaluation; }

    /// An axis with each of its uncertain inputs moved in turn, for how far its figures may lie off.
    const std::vector<AxisEvaluation>& moved(std::size_t axis) const;
    const AxisLimits& limits(std::size_t axis) const;
    const Capability& capability(std::size_t axis) const;
    const AxisDemands& demands(std::size_t axis) const;
    const RigLayout& layout() const;                    ///< in the pose that is drawn
    const std::vector<geometry::Solid>& solids() const; ///< that its bodies fill
    const std::vector<TippingCase>& tipping() const;
    const std::vector<CompletenessLine>& completeness() const;
    const io::SettingsSheet& settings() const;
    const PlannedMove& move(std::size_t move) const; ///< as the evaluation planned it
    /// What a later addition would change now. The one thing that takes an assessment of its own.
    const std::vector<LaterChange>& later(std::size_t addition) const;

private:
    template <class T>
    using Each = std::vector<std::optional<T>>;

    const Project& project_;
    Assessment assessment_;
    std::shared_ptr<const PoseSearch> poses_; ///< the last search, whether or not it still holds
    mutable Each<std::vector<AxisEvaluation>> moved_;
    mutable std::size_t lastMoved_ = 0; ///< the axis that moved() was asked for last
    mutable Each<AxisLimits> limits_;
    mutable Each<Capability> capability_;
    mutable Each<AxisDemands> demands_;
    mutable std::optional<RigLayout> layout_;
    mutable std::optional<std::vector<geometry::Solid>> solids_;
    mutable std::optional<std::vector<TippingCase>> tipping_;
    mutable std::optional<std::vector<CompletenessLine>> completeness_;
    mutable std::optional<io::SettingsSheet> settings_;
    mutable Each<std::vector<LaterChange>> later_;
};

} // namespace gantry::app
