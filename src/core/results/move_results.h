// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/results/describe_figures.h"

#include <cstddef>
#include <string>
#include <vector>

/// What a move asks of the rig along its whole way. U is m or rad.
namespace gantry {

/// What is wrong with a move before anything is judged of it.
enum class MoveTroubleKind {
    TooFewPoses,     ///< less than two
    OutsideTravel,   ///< a pose lies beyond an axis' usable travel
    RampsTooLong,    ///< ease in and out are more than the segment
    NoTarget,        ///< an aimed segment names none
    NoHead,          ///< the rig has neither pan nor tilt that points the camera
    BlindTarget,     ///< the target is nearer to the head's axes than the lens
    NotReached,      ///< no angles of the head show the target there
    LeavesRange,     ///< aimed all the way, the head would turn past its range
    NothingMoves,    ///< a segment without movement, which waits its time
    NoSpeedAxis,     ///< a speed is given of an axis that does not move in the segment, or of none
    CannotFollow,    ///< an axis of a few fixed speeds moves where its speed has to change all the way
    NotSteered,      ///< an axis moves in it that is switched or set by hand, so that nothing can time it
    StandsInPicture, ///< even speed in the picture, of a target that stands there, or that there is none
    LensStands,      ///< even speed of the lens in space, which nearly stands on the way
    EvenPassing,     ///< even speed is asked of a segment that goes through a pose
    NoFocusScale,    ///< a distance to focus at is given, but no ring has a scale that can be relied on
    NoZoomScale,     ///< a focal length to zoom to is given, but no ring has a scale that can be relied on
    NoSuchZoom,      ///< … or the lens does not have it
    BlockOnMoved,    ///< the axis of a block is moved by the poses, or aims with them
    BlocksOverlap,   ///< a block starts before the one before it on its axis ends
    BlockPastEnd     ///< a block ends after the move
};
struct MoveTrouble {
    MoveTroubleKind kind = MoveTroubleKind::TooFewPoses;
    std::size_t pose = 0; ///< index of the pose, or of the one that the segment comes to; of the block
    int axis = -1;        ///< index in Project::axes
    double value = 0.0;   ///< [U] the place, where it is one; [s] of a block; [m] focal length
    double limit = 0.0;   ///< [U], [s] or [m]
};

/// What limits a segment.
enum class MoveBinds { Speed, Acceleration, Jerk };
template <>
struct ChoiceNames<MoveBinds> {
    static constexpr std::array<std::string_view, 3> keys{"speed", "acceleration", "jerk"};
    static constexpr std::array<std::string_view, 3> labels{"speed", "acceleration", "jerk"};
};

/// One segment of a move.
struct MoveSegmentResults {
    std::size_t pose = 0; ///< index of the pose that it comes to
    Figure start;         ///< [s] of the move
    Figure time;          ///< [s]
    Figure least;         ///< [s] under the limits that are set, in the form that it has
    Figure quickest;      ///< [s] … in any form
    Figure room;          ///< [1] limit over what is asked of the axis that binds, of the same order
    MoveBinds binds = MoveBinds::Speed;
    int axis = -1; ///< index of the axis that binds
    Figure asked;  ///< [U/s], [U/s²] or [U/s³]
    Figure limit;
    Figure at;         ///< [s] of the move
    Figure drift;      ///< [px] by which the target leaves its way in the picture
    Figure driftAt;    ///< [s] of the move
    Figure choice;     ///< [s] that the controller's nearest time gives it, where it offers only a few …
    Figure choiceLate; ///< [s] … by which it ends late then; negative: early
    bool aimed = false;
};
template <class V, Of<MoveSegmentResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("start_s", "start of the segment", K::Time), s.start...);
    v.figure(result("time_s", "time of the segment", K::Time), s.time...);
    v.figure(result("least_time_s", "least time under the limits that are set, eased as it is", K::Time),
             s.least...);
    v.figure(result("quickest_time_s", "least time from rest to rest, whatever the ease", K::Time),
             s.quickest...);
    v.figure(result("limit_ratio", "limit over what is asked of the axis that binds", K::Ratio), s.room...);
    v.outcome(mark("binds", "what binds"), s.binds...);
    v.figure(result("binds_at_s", "when it binds", K::Time), s.at...);
    v.figure(result("target_drift_px", "drift of the target across its way in the picture", K::Pixels),
             s.drift...);
    v.figure(result("target_drift_at_s", "when it drifts most", K::Time), s.driftAt...);
    v.figure(result("choice_time_s", "nearest time that the controller offers", K::Time), s.choice...);
    v.figure(result("choice_late_s", "by which it ends late then", K::Time), s.choiceLate...);
    v.flag(mark("aimed", "aimed at a target"), s.aimed...);
}

/// One axis over a whole move.
struct MoveAxisResults {
    Figure lowest, highest; ///< [U] from its low end
    Figure topSpeed;        ///< [U/s]
    Figure acceleration;    ///< [U/s²]
    Figure jerk;            ///< [U/s³]
    Figure approachFrom;    ///< [U] where it begins to come to the first pose, so that backlash is taken up
    Figure approachRoom;    ///< [1] room that it has there over its backlash
    Figure runOn;     ///< [U] by which it runs on after an emergency stop, where that comes nearest to an end
    Figure endAway;   ///< [U] how far it is from the end then
    Figure runOnAt;   ///< [s] of the move
    Figure overshoot; ///< [U] by which it goes past the poses on either side of it
    Figure overshootAt; ///< [s] of the move
    /// Of an axis with a few fixed speeds, in the segment that these miss by most:
    std::size_t choicePose = 0; ///< index of the pose that it comes to
    Figure choiceWanted;        ///< [U/s] top speed that the segment needs
    Figure choiceSpeed;         ///< [U/s] the nearest that there is
    Figure choiceTime;          ///< [s] that the segment takes at that
    Figure choiceLate;          ///< [s] by which it ends late then; negative: early …
    Figure choiceShort;         ///< [U] … or stands short, if it is stopped in time; negative: too far
};
template <class V, Of<MoveAxisResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("lowest_m", K::Length, "lowest_rad", K::Angle, "lowest place in the move"), s.lowest...);
    v.figure(result("highest_m", K::Length, "highest_rad", K::Angle, "highest place in the move"),
             s.highest...);
    v.figure(result("top_speed_m_s", K::Speed, "top_speed_rad_s", K::AngularSpeed, "top speed in the move"),
             s.topSpeed...);
    v.figure(result("acceleration_m_s2", K::Acceleration, "acceleration_rad_s2", K::AngularAcceleration,
                    "peak acceleration in the move"),
             s.acceleration...);
    v.figure(result("jerk_m_s3", K::Jerk, "jerk_rad_s3", K::AngularJerk, "peak jerk in the move"), s.jerk...);
    v.figure(result("approach_from_m", K::Length, "approach_from_rad", K::Angle,
                    "where it begins, so that backlash is taken up"),
             s.approachFrom...);
    v.figure(result("approach_ratio", "room before the first pose over the backlash", K::Ratio),
             s.approachRoom...);
    v.figure(result("run_on_m", K::Length, "run_on_rad", K::Angle, "way on after an emergency stop"),
             s.runOn...);
    v.figure(result("end_away_m", K::Length, "end_away_rad", K::Angle, "way to the end of travel then"),
             s.endAway...);
    v.figure(result("run_on_at_s", "when that is nearest to the end", K::Time), s.runOnAt...);
    v.figure(result("overshoot_m", K::Length, "overshoot_rad", K::Angle, "way past the poses beside it"),
             s.overshoot...);
    v.figure(result("overshoot_at_s", "when it is farthest past them", K::Time), s.overshootAt...);
    v.figure(result("choice_wanted_m_s", K::Speed, "choice_wanted_rad_s", K::AngularSpeed,
                    "speed wanted where the fixed ones miss it by most"),
             s.choiceWanted...);
    v.figure(result("choice_speed_m_s", K::Speed, "choice_speed_rad_s", K::AngularSpeed,
                    "nearest fixed speed to it"),
             s.choiceSpeed...);
    v.figure(result("choice_time_s", "time of the segment at that", K::Time), s.choiceTime...);
    v.figure(result("choice_late_s", "by which it ends late then", K::Time), s.choiceLate...);
    v.figure(result("choice_short_m", K::Length, "choice_short_rad", K::Angle,
                    "by which it is short if stopped in time"),
             s.choiceShort...);
}

/// What one axis has to give in one move, at every moment of it. The axis' own inertia and weight are those
/// of its other figures; what other axes bring comes from the same masses.
struct AxisMoveResults {
    std::size_t move = 0; ///< index in Project::moves
    Figure margin;        ///< [1] torque available over needed, the least of the move
    Figure needed;        ///< [N·m] then, at the motors
    Figure available;     ///< [N·m]
    Figure at;            ///< [s] of the move
    Figure carried;       ///< [N] or [N·m] that other axes bring then
    bool starts = false;  ///< it is breaking away then
    Figure held;      ///< [1] where it only stands: what its drive holds over what weight and other axes push
    Figure holds;     ///< [N] or [N·m] …
    Figure pushed;    ///< [N] or [N·m] … then
    Figure pulseRate; ///< [Hz] the highest of the move
    Figure stay;      ///< [s] the longest that it stays within the rotor's resonance
    Figure stayAt;    ///< [s] of the move, where that begins
    // In the picture; nothing where single pictures are taken, or the lens does not move with the axis.
    Figure stepping;      ///< [px] of steps, the most that lasts long enough to be seen …
    Figure steppingSpeed; ///< [U/s] … while it goes no faster than this …
    Figure steppingAt;    ///< [s] … from then on
    Figure jitter;        ///< [px] of sticking and slipping with its steps, or of backlash let go, at worst
    Figure slip;          ///< [px] of it that is sticking and slipping
    Figure letGo;         ///< [px] of it that is backlash
    Figure jitterAt;      ///< [s]
    Figure drift;         ///< [px/frame] by which what winds up in the drive carries the picture, at worst
    Figure driftAt;       ///< [s]
};
template <>
constexpr bool printsOnlyWhatApplies<AxisMoveResults> = true;
template <class V, Of<AxisMoveResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("torque_margin", "torque margin along the move", K::Ratio), s.margin...);
    v.figure(result("torque_needed_Nm", "torque needed where the margin is least", K::Torque), s.needed...);
    v.figure(result("torque_available_Nm", "torque available there", K::Torque), s.available...);
    v.figure(result("torque_at_s", "when the margin is least", K::Time), s.at...);
    v.figure(result("carried_N", K::Force, "carried_Nm", K::Torque, "load that other axes bring then"),
             s.carried...);
    v.flag(mark("torque_at_start", "breaking away from rest then"), s.starts...);
    v.figure(result("held_ratio", "what it holds while it stands over what pushes it", K::Ratio), s.held...);
    v.figure(result("holds_N", K::Force, "holds_Nm", K::Torque, "what its drive holds"), s.holds...);
    v.figure(result("pushed_N", K::Force, "pushed_Nm", K::Torque, "what pushes it at worst"), s.pushed...);
    v.figure(result("pulse_rate_hz", "highest pulse rate of the move", K::Frequency), s.pulseRate...);
    v.figure(result("resonance_stay_s", "longest stay in the rotor's resonance", K::Time), s.stay...);
    v.figure(result("resonance_at_s", "when that begins", K::Time), s.stayAt...);
    v.figure(result("stepping_px", "stepping where it is seen most", K::Pixels), s.stepping...);
    v.figure(result("stepping_speed_m_s", K::Speed, "stepping_speed_rad_s", K::AngularSpeed,
                    "top speed of the half second in which it is"),
             s.steppingSpeed...);
    v.figure(result("stepping_at_s", "when it begins to", K::Time), s.steppingAt...);
    v.figure(result("jitter_px", "jitter beside stepping, peak to peak", K::Pixels), s.jitter...);
    v.figure(result("slip_px", "part of it that is sticking and slipping", K::Pixels), s.slip...);
    v.figure(result("let_go_px", "part of it that is backlash let go", K::Pixels), s.letGo...);
    v.figure(result("jitter_at_s", "when it jitters most", K::Time), s.jitterAt...);
    v.figure(result("drift_px_per_frame", "slow drift along the move", K::PixelsPerFrame), s.drift...);
    v.figure(result("drift_at_s", "when it drifts most", K::Time), s.driftAt...);
}

/// What a search over the whole way found: what comes near to what, and what is in the picture that should
/// not be.
struct MoveSearchResults {
    Figure clearance;   ///< [m] the nearest that anything comes to what it should not; a Reason: not searched
    Figure wanted;      ///< [m] there
    Figure clearanceAt; ///< [s] of the move
    std::string body, with;
    Figure view;             ///< [1] largest share of the picture that is covered by the rig's own parts
    Figure viewAt;           ///< [s] …
    Figure viewFrom, viewTo; ///< [s] first and last moment at which anything is covered
    std::string inView;      ///< the part that covers most then
};
template <class V, Of<MoveSearchResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("clearance_m", "least distance from what it should not touch", K::Length),
             s.clearance...);
    v.figure(result("clearance_at_s", "when it is that near", K::Time), s.clearanceAt...);
    v.figure(result("own_parts_share", "largest share of the picture covered by the rig's own parts",
                    K::Percentage),
             s.view...);
    v.figure(result("own_parts_at_s", "when they cover most", K::Time), s.viewAt...);
    v.figure(result("own_parts_from_s", "when they come into the picture", K::Time), s.viewFrom...);
    v.figure(result("own_parts_to_s", "when they are last in it", K::Time), s.viewTo...);
}

/// One move.
struct MoveResults {
    std::vector<MoveTrouble> troubles;
    Figure time;         ///< [s] without what is recorded before and after
    Figure frames;       ///< [1] recorded of one pass
    Figure travelRoom;   ///< [1] half the travel over the farthest from its middle, least of all axes
    int travelAxis = -1; ///< … of which
    Figure tipping;      ///< [1] what keeps the rig on its feet over what tips it, least of the move
    Figure tippingAt;    ///< [s] of the move
    Figure crossing;     ///< [s] in which detail at the target crosses the picture where it is fastest
    Figure crossingAt;   ///< [s]
    Figure motionBlur;   ///< [px] by which it smears in the exposure then
    Figure focusBlur;    ///< [px] by which the target is out of focus at worst
    Figure focusAt;      ///< [s]
    Figure focusedAt;    ///< [m] distance that the lens is focused at then …
    Figure targetAt;     ///< [m] … and that of the target, from the sensor mark
    Figure horizon;      ///< [rad] by which the horizon leans at worst, where no roll is part of the move
    Figure horizonAt;    ///< [s]
    MoveSearchResults search;
    std::vector<MoveSegmentResults> segments;
    std::vector<MoveAxisResults> axes; ///< one for each axis of the rig; empty where nothing could be planned
};
template <class V, Of<MoveResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("time_s", "time of the move", K::Time), s.time...);
    v.figure(result("frames", "frames recorded in a pass", K::Count), s.frames...);
    v.figure(result("travel_ratio", "half the travel over the farthest from its middle", K::Ratio),
             s.travelRoom...);
    v.figure(
        result("tipping_ratio", "what keeps the rig on its feet over what tips it, along the move", K::Ratio),
        s.tipping...);
    v.figure(result("tipping_at_s", "when it is least", K::Time), s.tippingAt...);
    v.figure(result("crossing_time_s", "time in which detail at the target crosses the picture", K::Time),
             s.crossing...);
    v.figure(result("crossing_at_s", "when it is fastest", K::Time), s.crossingAt...);
    v.figure(result("motion_blur_px", "smear of the target by its movement in the picture then", K::Pixels),
             s.motionBlur...);
    v.figure(result("focus_blur_px", "blur of the target by focus", K::Pixels), s.focusBlur...);
    v.figure(result("focus_at_s", "when it is blurred most", K::Time), s.focusAt...);
    v.figure(result("focused_at_m", "distance that the lens is focused at then", K::Length), s.focusedAt...);
    v.figure(result("target_at_m", "distance of the target from the sensor mark then", K::Length),
             s.targetAt...);
    v.figure(result("horizon_rad", "lean of the horizon", K::Angle), s.horizon...);
    v.figure(result("horizon_at_s", "when it leans most", K::Time), s.horizonAt...);
    v.part("search", s.search...);
    v.list("segments", s.segments...);
    v.list("axes", s.axes...);
}

} // namespace gantry
