// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/move/move_frames.h"

#include <QObject>
#include <optional>
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
    /// Puts the rig to the places of a pose.
    void goTo(int pose);
    /// After an edit: brings all of it back into the project.
    void fit();

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
    mutable MoveScene standing_; ///< where there is no move
};

} // namespace gantry::app
