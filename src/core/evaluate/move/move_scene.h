// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/rig_bodies.h"
#include "core/evaluate/rig_setup.h"
#include "core/evaluate/shot/focus_axis.h"
#include "core/kinematics/aim.h"
#include "core/trajectory/trajectory.h"

#include <optional>
#include <string>
#include <vector>

namespace gantry {

/// An axis that turns a subject beside the rig.
struct Turntable {
    std::string id;
    std::size_t axis = 0;

    friend bool operator==(const Turntable&, const Turntable&) = default;
};

/// Between where a move may take an axis [U from its low end]: its soft limits.
struct SoftEnds {
    double low = 0.0, high = 0.0;

    friend bool operator==(const SoftEnds&, const SoftEnds&) = default;
};
SoftEnds softEnds(const Axis& axis);

/// The few speeds [U/s] that an axis runs at; empty: any up to its top speed.
std::vector<double> fixedSpeeds(const Axis& axis);

/// Whether an axis runs by blocks of its own in a move, and not by its poses.
bool hasBlock(const RigMove& move, const Axis& axis);

/// What the planning of a move asks of an axis beside its limits.
struct PlannedAxis {
    std::string id;
    AxisKind kind = AxisKind::Linear;
    bool hasFixedSpeeds = false;
    bool startsAtOnce = false; ///< without a ramp

    friend bool operator==(const PlannedAxis&, const PlannedAxis&) = default;
};

/// What a move is planned with. Of two moves alike in scenes alike the plans are alike.
struct MoveScene {
    std::vector<kinematics::Link> links; ///< of the rig, and the lens' pupil as the last
    std::vector<int> linkOf;             ///< for each axis the link that it moves; −1: none
    std::vector<PlannedAxis> axes;       ///< one for each axis of the rig
    kinematics::Head head;
    std::vector<motion::Limits> limits; ///< [U] for each axis, as they are set and kept
    std::vector<double> travels;        ///< [U]
    std::vector<SoftEnds> ends;         ///< one for each axis
    double pixelsPerMetre = 1.0;        ///< [px/m] of the delivered picture, on the sensor
    double shotLens = 1.0;              ///< [m] focal length of the shot …
    std::optional<ZoomAxis> zoom;       ///< … where no ring changes it
    double frameRate = 25.0;            ///< [1/s]
    std::vector<double> shown;          ///< places where a pose says nothing
    std::optional<FocusAxis> focus;
    double pupilToSensor = 0.0; ///< [m] what a focus distance is more than the way from the pupil
    std::vector<Turntable> turntables;

    friend bool operator==(const MoveScene&, const MoveScene&) = default;

    /// Of the lens, with the axes where they are [U].
    double focalLength(std::span<const double> places) const;                  ///< [m]
    double focal(std::span<const double> places) const;                        ///< [px]
    kinematics::Focal focalMotion(const kinematics::AxisMotion& motion) const; ///< [px]
};

/// The shot that a move is taken with: the one it names, else the first; null if the project has none.
const Shot* shotOf(std::span<const Shot> shots, const RigMove& move);

MoveScene sceneOf(const RigSetup& rig, const RigMove& move);

/// How all axes of a rig stand and move at a moment.
struct AxisStates {
    std::vector<double> places, speeds, rises; ///< [U], [U/s], [U/s²]

    explicit AxisStates(std::size_t axes) : places(axes), speeds(axes), rises(axes) {}
    kinematics::AxisMotion motion() const { return {places, speeds, rises}; }
};
/// @param t of the axes of the scene; before its start and after its end they stand
AxisStates statesAt(const MoveScene& scene, const trajectory::Trajectory& t, double at);

/// Where all axes stand at a moment of a course [U].
std::vector<double> placesAt(const trajectory::Trajectory& t, double at);
/// Focal length of the lens [m] at a moment of a course.
double focalLengthAt(const MoveScene& scene, const trajectory::Trajectory& t, double at);

/// The camera as the axes move, and at a moment of a course.
kinematics::Moving cameraAt(const MoveScene& scene, const kinematics::AxisMotion& motion);
kinematics::Moving cameraAt(const MoveScene& scene, const trajectory::Trajectory& t, double at);

/// A target as a point; one that rides on a turntable goes round with it. Counted from where it stands with
/// the turntable at its low end.
kinematics::Point pointOf(const MoveScene& scene, const AimTarget& target,
                          const kinematics::AxisMotion& motion);

/// The other way round: where a target that rides on a turntable is to be entered so that it stands at a
/// place with the axes at theirs.
geometry::Place ridingBack(const MoveScene& scene, const AimTarget& target, std::span<const double> places,
                           geometry::Place at);

/// A target in the picture as the axes move, and at a moment of a course.
kinematics::InPicture targetSeen(const MoveScene& scene, const AimTarget& target,
                                 const kinematics::AxisMotion& motion);
kinematics::InPicture targetSeen(const MoveScene& scene, const AimTarget& target,
                                 const trajectory::Trajectory& t, double at);

/// The target that a segment names; null where it names none.
const AimTarget* namedTarget(const RigMove& move, const MoveSegment& segment);
/// The target that a segment is aimed at, or would be; null where the move has none.
const AimTarget* targetOf(const RigMove& move, const MoveSegment& segment);

} // namespace gantry
