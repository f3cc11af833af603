// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/move/move_frames.h"
#include "core/kinematics/views.h"

#include <QObject>
#include <optional>
#include <span>
#include <vector>

namespace gantry::app {

/// What is looked at in Moves: which move and pose, where the play head stands, and where the rig is while it
/// is jogged. Not in the file and not undoable.
class MoveDesk : public QObject {
    Q_OBJECT
public:
    explicit MoveDesk(const Context& context, QObject* parent = nullptr);

    int move() const { return move_; }
    int pose() const { return pose_; }
    double time() const { return time_; }
    bool jogged() const { return jogged_.has_value(); }

    void setMove(int move);
    /// The pose in hand; the play head goes there.
    void setPose(int pose);
    /// The play head, on the nearest frame within the move; lets go of what was jogged.
    void setTime(double time);
    /// Steps by frames.
    void step(int frames);
    /// Moves one axis [U] within its travel, away from where the play head has it.
    void jog(int axis, double place);
    /// Carries the lens [m] the way it looks, to its left, and straight up, as far as the rig can. False
    /// where it cannot go half of that.
    bool jogLens(double ahead, double left, double up);
    /// Keeps where the camera is and looks, of something that stands in the middle of the picture.
    void storeView();
    void forgetViews();
    /// Puts the rig to the places of a pose.
    void goTo(int pose);
    /// After an edit: brings all of it back into the project.
    void fit();

    std::span<const kinematics::View> views() const { return views_; }
    const RigMove* current() const; ///< null if there is none
    /// The move in hand as it is planned; null if there is none.
    const PlannedMove* planned() const;
    const MoveResults* results() const;
    const MoveScene& scene() const; ///< of the move in hand, or of the rig as it stands
    double duration() const;
    double frameTime() const;
    /// Where all axes stand now [U].
    std::vector<double> places() const;
    kinematics::Moving camera() const;
    double focal() const; ///< [px] of the lens as it is zoomed now
    /// Where a target is now, and where the picture has it.
    geometry::Place placeOf(const AimTarget& target) const;
    kinematics::InPicture seen(const AimTarget& target) const;
    /// The target that the segment under the play head is about, or else the first; null if there is none.
    const AimTarget* target() const;
    /// Index of the pose that the segment under the play head comes to; −1 where there is none.
    int segmentPose() const;

signals:
    void changed();   ///< another move or pose is in hand
    void headMoved(); ///< the play head, or what is jogged

private:
    Context context_;
    int move_ = 0, pose_ = -1;
    double time_ = 0.0;
    std::optional<std::vector<double>> jogged_;
    std::vector<kinematics::View> views_;
    mutable MoveScene standing_; ///< where there is no move
};

} // namespace gantry::app
