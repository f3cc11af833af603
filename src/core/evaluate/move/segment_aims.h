// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/move_scene.h"

#include <optional>
#include <span>
#include <vector>

namespace gantry {

/// What the aimed segments of a move hold, and which axes they lead to hold it. A segment is named by the
/// index of the pose that it comes to; places in [U], one for each axis of the rig.
class SegmentAims {
public:
    /// Both have to outlive it.
    SegmentAims(const MoveScene& scene, const RigMove& move) : scene_(scene), move_(move) {}

    bool hasHead() const { return scene_.head.pan >= 0 || scene_.head.tilt >= 0; }
    /// The target of an aimed segment that can be aimed at; null for a straight one, or where it cannot.
    const AimTarget* target(std::size_t pose) const;
    /// What it holds, seen with the axes at places, of which only the zoom counts.
    kinematics::Aim aim(std::size_t pose, std::span<const double> places) const;
    bool pullsFocus(std::size_t pose) const;
    /// Whether an aimed segment leads the axis: those of the head, and the focus where it is pulled.
    bool leads(std::size_t pose, std::size_t axis) const;
    /// Links of the head that there are, and the axis of each.
    std::vector<int> headLinks() const;
    std::size_t axisOf(int link) const;

    /// The head's axes to angles, by the turn that is nearest to where they are.
    void turnHead(std::vector<double>& places, const kinematics::Aimed& aimed) const;
    /// Focuses on the target of an aimed segment with the rig where it is.
    void focusOn(std::size_t pose, std::vector<double>& places) const;

private:
    const MoveScene& scene_;
    const RigMove& move_;
};

/// Where a target is in the picture with the axes at places; nothing behind the camera.
std::optional<kinematics::PicturePlace> shownAt(const MoveScene& scene, std::span<const double> places,
                                                const AimTarget& target);

} // namespace gantry
