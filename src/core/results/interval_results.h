// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/results/describe_figures.h"

#include <cstddef>
#include <vector>

/// What an interval plan asks of the rig and of everything around it. U is m or rad. Pictures count from 1,
/// as people count them, where they are shown.
namespace gantry {

/// What is wrong with a plan before anything is judged of it.
enum class PlanTrouble {
    NoFacts,       ///< duration, interval and pictures leave no run
    NoPath,        ///< no move and no shot says where it goes
    NothingMoves,  ///< … or none of its axes moves
    NoPlan,        ///< the move cannot be planned
    HoursNeedEven, ///< working hours with an interval that changes
    NoPictureADay, ///< not one picture fits between opening and closing
    NoSlide        ///< timed pulses, or a head by itself, without an axis that slides
};

/// What fails first in a run.
enum class FirstFailure { None, Room, Battery, Card, Travel, Timers, Head };
template <>
struct ChoiceNames<FirstFailure> {
    static constexpr std::array<std::string_view, 7> keys{"none",   "room",   "battery", "card",
                                                          "travel", "timers", "head"};
    static constexpr std::array<std::string_view, 7> labels{
        "nothing",        "the interval is too short", "the battery", "the card", "the travel",
        "the two clocks", "the independent head"};
};

/// How the pictures look better.
enum class BetterWay { Alike, Stopping, Running };
template <>
struct ChoiceNames<BetterWay> {
    static constexpr std::array<std::string_view, 3> keys{"alike", "stopping", "running"};
    static constexpr std::array<std::string_view, 3> labels{"both look alike", "stopping is sharper",
                                                            "moving on is sharper"};
};

/// One camera of a plan.
struct PlanCameraResults {
    Figure perCard;    ///< [1] pictures on one card
    Figure cards;      ///< [1] that are needed
    Figure cardFullAt; ///< [1] picture that does not fit any more
    Figure press;      ///< [s] that the trigger is held for the exposure
    Figure shortest;   ///< [s] exposure by the least press
    Figure longest;    ///< [s] exposure by the least release within the interval
};
template <class V, Of<PlanCameraResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("pictures_per_card", "pictures on one card", K::Count), s.perCard...);
    v.figure(result("cards", "cards needed", K::Count), s.cards...);
    v.figure(result("card_full_at", "picture that does not fit any more", K::Count), s.cardFullAt...);
    v.figure(result("press_s", "time that the trigger is held", K::Time), s.press...);
    v.figure(result("shortest_exposure_s", "shortest exposure by the trigger", K::Time), s.shortest...);
    v.figure(result("longest_exposure_s", "longest exposure by the trigger", K::Time), s.longest...);
}

/// One axis of the rig in a plan.
struct PlanAxisResults {
    bool moves = false;
    bool falls = false;    ///< without power it runs down or falls
    Figure from, to;       ///< [U] lowest and highest place from the low end
    Figure room;           ///< [1] half the travel over the farthest from its middle
    Figure outsideAt;      ///< [1] first picture beyond its soft limits
    Figure largestStep;    ///< [U] between two pictures
    Figure microsteps;     ///< [1] of that
    Figure roundingPixels; ///< [px] by which a picture may be off its place
    Figure fullSteps;      ///< [1] of the smallest step that is none
    Figure rotorJump;      ///< [px] by which the rotor jumps where the current is cut
    Figure moveTime;       ///< [s] of the largest step
    Figure swing;          ///< [px] peak to peak when it stops, at most
    Figure smear;          ///< [px] in an exposure that it runs through
    Figure holdPower;      ///< [W] at rest
    Figure movePower;      ///< [W] while it moves
    Figure temperature;    ///< [°C] of the motor after hours of it
    Figure temperatureLimit;
};
template <class V, Of<PlanAxisResults>... S>
void describe(V& v, S&... s) {
    v.flag(mark("moves", "moves in the plan"), s.moves...);
    v.flag(mark("falls", "falls without power"), s.falls...);
    v.figure(result("lowest_m", K::Length, "lowest_rad", K::Angle, "lowest place in the run"), s.from...);
    v.figure(result("highest_m", K::Length, "highest_rad", K::Angle, "highest place in the run"), s.to...);
    v.figure(result("travel_ratio", "half the travel over the farthest from its middle", K::Ratio),
             s.room...);
    v.figure(result("outside_at", "first picture beyond its soft limits", K::Count), s.outsideAt...);
    v.figure(result("largest_step_m", K::Length, "largest_step_rad", K::Angle, "largest step of a picture"),
             s.largestStep...);
    v.figure(result("microsteps", "microsteps of the largest step", K::Count), s.microsteps...);
    v.figure(result("rounding_px", "farthest that a picture is off its place", K::Pixels),
             s.roundingPixels...);
    v.figure(result("full_steps", "full steps of the smallest step", K::Ratio), s.fullSteps...);
    v.figure(result("rotor_jump_px", "jump of the rotor when its current is cut", K::Pixels), s.rotorJump...);
    v.figure(result("move_time_s", "time of the largest step", K::Time), s.moveTime...);
    v.figure(result("swing_px", "vibration when it stops, peak to peak", K::Pixels), s.swing...);
    v.figure(result("smear_px", "smear in an exposure while it runs on", K::Pixels), s.smear...);
    v.figure(result("hold_power_W", "power while it holds", K::Power), s.holdPower...);
    v.figure(result("move_power_W", "power while it moves", K::Power), s.movePower...);
    v.figure(result("temperature_C", "case of its motor after hours", K::Celsius), s.temperature...);
    v.figure(result("temperature_limit_C", "limit of that", K::Celsius), s.temperatureLimit...);
}

/// One interval, at the picture with the least room.
struct PlanLanes {
    Figure picture;      ///< [1]
    Figure gap;          ///< [s] to the next picture
    Figure focus;        ///< [s] of the slowest camera, each …
    Figure lag;          ///< [s]
    Figure exposure;     ///< [s]
    Figure write;        ///< [s]
    Figure move;         ///< [s]
    Figure settle;       ///< [s]
    Figure spare;        ///< [s] left; negative: so much is missing
    Figure least;        ///< [s] interval that it needs, with what is wanted to spare
    Figure room;         ///< [1] gap over that
    Figure failsAt;      ///< [1] first picture of the run that does not fit
    bool camera = false; ///< the camera by itself decides, not the rig
};
template <class V, Of<PlanLanes>... S>
void describe(V& v, S&... s) {
    v.figure(result("picture", "picture with the least room", K::Count), s.picture...);
    v.figure(result("gap_s", "time to the next picture there", K::Time), s.gap...);
    v.figure(result("focus_s", "waking and focusing", K::Time), s.focus...);
    v.figure(result("lag_s", "shutter lag", K::Time), s.lag...);
    v.figure(result("exposure_s", "exposure", K::Time), s.exposure...);
    v.figure(result("write_s", "writing", K::Time), s.write...);
    v.figure(result("move_s", "moving", K::Time), s.move...);
    v.figure(result("settle_s", "settling", K::Time), s.settle...);
    v.figure(result("spare_s", "time to spare", K::Time), s.spare...);
    v.figure(result("least_interval_s", "shortest interval with what is wanted to spare", K::Time),
             s.least...);
    v.figure(result("room_ratio", "interval over the shortest there can be", K::Ratio), s.room...);
    v.figure(result("fails_at", "first picture that does not fit", K::Count), s.failsAt...);
    v.flag(mark("camera_decides", "the camera decides, not the rig"), s.camera...);
}

/// How sharp the pictures are.
struct PlanSharpness {
    Figure left;          ///< [px] vibration when the shutter opens, peak to peak, at worst
    Figure allowed;       ///< [px]
    Figure needed;        ///< [s] settling until no more than that is left
    Figure smear;         ///< [px] in one exposure, stopped or running as the plan has it
    Figure otherWay;      ///< [px] the other way
    Figure alikeExposure; ///< [s] at which both ways look alike
    Figure longest;       ///< [s] longest exposure running on within what is allowed
    Figure perPicture;    ///< [px] from picture to picture at most
    Figure judderTime;    ///< [s] in which detail crosses the frame of the clip
    BetterWay better = BetterWay::Alike;
    Figure filterStops; ///< [1] that a filter takes for the exposure that is wanted
    Figure passerPath;  ///< [px] of somebody who walks through
    Figure passerCover; ///< [1] share of the exposure in which he covers a point
};
template <class V, Of<PlanSharpness>... S>
void describe(V& v, S&... s) {
    v.figure(result("left_px", "vibration when the shutter opens, peak to peak", K::Pixels), s.left...);
    v.figure(result("allowed_px", "vibration allowed then", K::Pixels), s.allowed...);
    v.figure(result("needed_s", "settling until no more is left", K::Time), s.needed...);
    v.figure(result("smear_px", "smear of one picture", K::Pixels), s.smear...);
    v.figure(result("other_way_px", "smear the other way, stopped or moving on", K::Pixels), s.otherWay...);
    v.figure(result("alike_exposure_s", "exposure at which both look alike", K::Time), s.alikeExposure...);
    v.figure(result("longest_exposure_s", "longest exposure while it moves on", K::Time), s.longest...);
    v.figure(result("per_picture_px", "largest way from picture to picture", K::Pixels), s.perPicture...);
    v.figure(result("crossing_time_s", "time in which detail crosses the frame of the clip", K::Time),
             s.judderTime...);
    v.outcome(mark("better", "which is sharper"), s.better...);
    v.figure(result("filter_stops", "stops of a filter for the exposure", K::Ratio), s.filterStops...);
    v.figure(result("passer_path_px", "path of a passer-by in the exposure", K::Pixels), s.passerPath...);
    v.figure(result("passer_cover", "share of the exposure that he covers a point", K::Percentage),
             s.passerCover...);
}

/// Charge over the run.
struct PlanEnergy {
    Figure average;    ///< [W] at the pack
    Figure perPicture; ///< [J]
    Figure motors;     ///< [1] share of it that motors take
    Figure needed;     ///< [J] of the run
    Figure there;      ///< [J] that may be taken
    Figure room;       ///< [1] there over needed
    Figure flatAt;     ///< [1] first picture without charge
    Figure flatAfter;  ///< [s] of the run
    Figure read;       ///< [1] energy taken by the last reading of the pack over that computed, if it is more
    Figure endVoltage; ///< [V] at the end of the run, or where it is flat, under the greatest current
    Figure warnAt;     ///< [1] picture at which the voltage falls to the warning …
    Figure parkAt;     ///< [1] … and to where the rig parks
};
template <class V, Of<PlanEnergy>... S>
void describe(V& v, S&... s) {
    v.figure(result("average_W", "average power from the battery", K::Power), s.average...);
    v.figure(result("per_picture_J", "energy of a picture", K::Energy), s.perPicture...);
    v.figure(result("motors_share", "share of it that motors take", K::Percentage), s.motors...);
    v.figure(result("needed_J", "energy of the run", K::Energy), s.needed...);
    v.figure(result("there_J", "energy that may be taken", K::Energy), s.there...);
    v.figure(result("battery_ratio", "energy there over energy needed", K::Ratio), s.room...);
    v.figure(result("flat_at", "picture at which the battery is flat", K::Count), s.flatAt...);
    v.figure(result("flat_after_s", "time until it is flat", K::Time), s.flatAfter...);
    v.figure(result("read_ratio", "energy taken by the last reading over that computed", K::Ratio),
             s.read...);
    v.figure(result("end_V", "voltage at the end under the greatest current", K::Voltage), s.endVoltage...);
    v.figure(result("warn_at", "picture at which the voltage warns", K::Count), s.warnAt...);
    v.figure(result("park_at", "picture at which the rig parks", K::Count), s.parkAt...);
}

/// Two clocks, pulses of a motor, a head by itself, presence: what only some plans have.
struct PlanOthers {
    Figure driftPpm;      ///< [1] by which the rig's clock runs slow against the camera's, in millionths
    Figure driftPerDay;   ///< [s]
    Figure beat;          ///< [s] in which one has a beat more than the other
    Figure firstSpoiled;  ///< [1] picture
    Figure spoiledShare;  ///< [1] of the pictures
    Figure pulseWay;      ///< [m] of one pulse
    Figure pulseWanted;   ///< [m] that the run needs
    Figure pulseScatter;  ///< [m] standard deviation
    Figure pulsesFit;     ///< [1] pictures that surely fit on the travel
    Figure pulseCure;     ///< [s] pulse that would give the wanted way
    Figure ratioCure;     ///< [1] … or times as much gear ratio
    Figure headTime;      ///< [s] that the head turns
    Figure headStopsAt;   ///< [1] picture, the last for which it turned
    Figure headErrorStop; ///< [px] of the subject then …
    Figure headErrorEnd;  ///< [px] … and at the end
    Figure falseStops;    ///< [Hz] while somebody is there
    Figure ownPictures;   ///< [1] taken after somebody left, because the rig sees itself move
    Figure deleted;       ///< [1] pictures to delete
    Figure largestJump;   ///< [1] moves between pictures that follow each other in the clip
    Figure active;        ///< [s] that somebody is there
    Figure wayTime;       ///< [s] that the way is laid out for
    Figure wayPictures;   ///< [1] … which are so many pictures
    Figure wayShown;      ///< [1] share of it that is shown; more than 1: times that it is gone
};
template <>
constexpr bool printsOnlyWhatApplies<PlanOthers> = true;
template <class V, Of<PlanOthers>... S>
void describe(V& v, S&... s) {
    v.figure(result("drift_ppm", "drift of the rig's clock against the camera's, in millionths", K::Ratio),
             s.driftPpm...);
    v.figure(result("drift_s_per_day", "drift in a day", K::Time), s.driftPerDay...);
    v.figure(result("beat_s", "time in which one clock gains a beat", K::Time), s.beat...);
    v.figure(result("first_spoiled", "first picture taken while it moves", K::Count), s.firstSpoiled...);
    v.figure(result("spoiled_share", "share of pictures taken while it moves", K::Percentage),
             s.spoiledShare...);
    v.figure(result("pulse_way_m", "way of one pulse", K::Length), s.pulseWay...);
    v.figure(result("pulse_wanted_m", "way that the run needs of one", K::Length), s.pulseWanted...);
    v.figure(result("pulse_scatter_m", "standard deviation of the way of one", K::Length), s.pulseScatter...);
    v.figure(result("pulses_fit", "pictures that surely fit on the travel", K::Count), s.pulsesFit...);
    v.figure(result("pulse_cure_s", "pulse for the wanted way", K::Time), s.pulseCure...);
    v.figure(result("ratio_cure", "gear ratio that would cure it, times that of now", K::Ratio),
             s.ratioCure...);
    v.figure(result("head_time_s", "time that the independent head turns", K::Time), s.headTime...);
    v.figure(result("head_stops_at", "last picture for which it turned", K::Count), s.headStopsAt...);
    v.figure(result("head_error_px", "framing error when it stops", K::Pixels), s.headErrorStop...);
    v.figure(result("head_error_end_px", "framing error at the end", K::Pixels), s.headErrorEnd...);
    v.figure(result("false_stops_hz", "false stops while somebody is there", K::Frequency), s.falseStops...);
    v.figure(result("own_pictures", "pictures after everybody left, by its own movement", K::Ratio),
             s.ownPictures...);
    v.figure(result("deleted", "pictures to delete for absences", K::Count), s.deleted...);
    v.figure(result("largest_jump", "largest jump of the clip, in moves", K::Count), s.largestJump...);
    v.figure(result("active_s", "time in which somebody is there", K::Time), s.active...);
    v.figure(result("way_time_s", "active time that the way is laid out for", K::Time), s.wayTime...);
    v.figure(result("way_pictures", "pictures from end to end of the way", K::Count), s.wayPictures...);
    v.figure(result("way_shown", "share of the way that is shown", K::Percentage), s.wayShown...);
}

/// One plan.
struct IntervalResults {
    std::vector<PlanTrouble> troubles;
    Figure pictures;  ///< [1] …
    Figure interval;  ///< [s] … the first …
    Figure duration;  ///< [s] … of which any two give the third
    Figure clip;      ///< [s] as it is shown
    Figure speedUp;   ///< [1] times faster than it was
    Figure endsAfter; ///< [s] from midnight of the first day: when the last shutter closes
    Figure days;      ///< [1] calendar days
    Figure perDay;    ///< [1] pictures of a working day
    FirstFailure first = FirstFailure::None;
    Figure firstAt;    ///< [1] picture at which it fails …
    Figure firstClock; ///< [s] … and when, from midnight of the first day
    PlanLanes lanes;
    PlanSharpness sharp;
    PlanEnergy energy;
    PlanOthers others;
    std::vector<PlanCameraResults> cameras;
    std::vector<PlanAxisResults> axes; ///< one for each of the rig
    std::vector<Figure> readingErrors; ///< [V] of each reading of the pack: read less predicted
};
template <class V, Of<IntervalResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("pictures", "pictures", K::Count), s.pictures...);
    v.figure(result("interval_s", "interval", K::Time), s.interval...);
    v.figure(result("duration_s", "duration of the run", K::Time), s.duration...);
    v.figure(result("clip_s", "length of the clip", K::Time), s.clip...);
    v.figure(result("speed_up", "times faster than it was", K::Ratio), s.speedUp...);
    v.figure(result("ends_after_s", "end of the run from midnight of the first day", K::Time),
             s.endsAfter...);
    v.figure(result("days", "calendar days", K::Count), s.days...);
    v.figure(result("pictures_per_day", "pictures of a working day", K::Count), s.perDay...);
    v.outcome(mark("first_to_fail", "what fails first"), s.first...);
    v.figure(result("fails_at_picture", "picture at which it fails", K::Count), s.firstAt...);
    v.figure(result("fails_at_s", "when, from midnight of the first day", K::Time), s.firstClock...);
    v.part("lanes", s.lanes...);
    v.part("sharpness", s.sharp...);
    v.part("energy", s.energy...);
    v.part("others", s.others...);
    v.list("cameras", s.cameras...);
    v.list("axes", s.axes...);
}

} // namespace gantry
