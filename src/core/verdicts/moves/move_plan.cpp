// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message tooFewText{"“{part}” needs two poses at least. Store where it begins and where it ends."};
constexpr Message outsideText{"{room}: {axis} would stand at {0}; its soft limit is at {1}."};
constexpr Message rampsText{"{room}: ease in and out take {0} of the segment. Together they may take {1}."};
constexpr Message noTargetText{"{room} is aimed, but at no target. Choose one, or run it straight."};
constexpr Message noHeadText{"{room} is aimed, but the rig has no pan and no tilt. Run it straight."};
constexpr Message blindText{"{room}: the target is nearer to the head than the lens stands beside its axes. "
                            "Move the target or the pose."};
constexpr Message notReachedText{
    "{room}: no angles of the head show the target there. It stands straight above or below, or behind."};
constexpr Message leavesText{"{room}: aimed all the way, {axis} would turn to {0}; its range ends at {1}."};
constexpr Message nothingText{
    "{room}: nothing moves. Give the pose another place, or let the rig wait instead."};
constexpr Message noSpeedText{
    "{room}: the speed is given of an axis that does not move there. Choose another."};
constexpr Message cannotFollowText{
    "{room}: {axis} runs at a few fixed speeds only. It can follow neither an aim nor a way through poses, "
    "and keep nothing else even. Run it straight from stop to stop."};
constexpr Message notSteeredText{
    "{room}: {axis} is switched or set by hand, so nothing can time it. Leave it "
    "where it is, or give it a motor that is steered."};
constexpr Message targetHeldText{
    "{room}: the target nearly stands in the picture on the way, or is held there, "
    "so its speed cannot be kept "
    "even. Keep that of the lens or of the axes even instead."};
constexpr Message lensStandsText{
    "{room}: the lens nearly stands on the way, so its speed cannot be kept even. Keep that of the axes even "
    "instead."};
constexpr Message passingText{
    "{room}: speed can be kept even only from stop to stop. Let the rig stop at both "
    "poses, or keep the speed of the axes even."};
constexpr Message noScaleText{"{room} is to be focused at a distance, but no lens ring of the rig has marks "
                              "that tell it. Add them in Drives, or leave the distance empty."};
constexpr Message noZoomText{
    "{room} is to be zoomed to a focal length, but no zoom ring of the rig has marks "
    "that tell it. Add them in Drives, or leave the focal length empty."};
constexpr Message pastZoomText{"{room} is to be zoomed to {0}; the lens ends at {1}."};
constexpr Message blockMovedText{
    "The block of {axis} in “{part}”: the poses move that axis too, or aim with it. "
    "Leave it where it is in all poses, or remove the block."};
constexpr Message blocksOverlapText{
    "The block of {axis} in “{part}” that starts at {0} begins before the one "
    "before it ends, at {1}. Start it later."};
constexpr Message blockPastEndText{"The block of {axis} in “{part}” ends at {0}, after the move, which ends "
                                   "at {1}. Start it earlier, or make "
                                   "it shorter."};

/// Troubles of blocks name times, and no pose.
static bool ofBlock(MoveTroubleKind kind) {
    return kind == MoveTroubleKind::BlockOnMoved || kind == MoveTroubleKind::BlocksOverlap ||
           kind == MoveTroubleKind::BlockPastEnd;
}

static Kind kindOfValue(const Project& project, const MoveTrouble& t) {
    if (ofBlock(t.kind)) return Kind::Time;
    if (t.kind == MoveTroubleKind::NoSuchZoom) return Kind::PartLength;
    if (t.axis < 0) return Kind::Percentage;
    return kindOf(project.axes[static_cast<std::size_t>(t.axis)]) == AxisKind::Linear ? Kind::Length
                                                                                      : Kind::Angle;
}

static std::string placeOf(const Project& project, std::size_t move, const MoveTrouble& t) {
    return ofBlock(t.kind) ? project.moves[move].name : segmentName(project, move, t.pose);
}

Message troubleMessage(MoveTroubleKind kind) {
    switch (kind) {
    case MoveTroubleKind::TooFewPoses:
        break;
    case MoveTroubleKind::OutsideTravel:
        return outsideText;
    case MoveTroubleKind::RampsTooLong:
        return rampsText;
    case MoveTroubleKind::NoTarget:
        return noTargetText;
    case MoveTroubleKind::NoHead:
        return noHeadText;
    case MoveTroubleKind::BlindTarget:
        return blindText;
    case MoveTroubleKind::NotReached:
        return notReachedText;
    case MoveTroubleKind::LeavesRange:
        return leavesText;
    case MoveTroubleKind::NothingMoves:
        return nothingText;
    case MoveTroubleKind::NoSpeedAxis:
        return noSpeedText;
    case MoveTroubleKind::CannotFollow:
        return cannotFollowText;
    case MoveTroubleKind::NotSteered:
        return notSteeredText;
    case MoveTroubleKind::StandsInPicture:
        return targetHeldText;
    case MoveTroubleKind::LensStands:
        return lensStandsText;
    case MoveTroubleKind::EvenPassing:
        return passingText;
    case MoveTroubleKind::NoFocusScale:
        return noScaleText;
    case MoveTroubleKind::NoZoomScale:
        return noZoomText;
    case MoveTroubleKind::NoSuchZoom:
        return pastZoomText;
    case MoveTroubleKind::BlockOnMoved:
        return blockMovedText;
    case MoveTroubleKind::BlocksOverlap:
        return blocksOverlapText;
    case MoveTroubleKind::BlockPastEnd:
        return blockPastEndText;
    }
    return tooFewText;
}

std::string troubleText(const Project& project, const RigMove& move, const MoveTrouble& t,
                        units::System system) {
    const auto index = static_cast<std::size_t>(&move - project.moves.data());
    const bool pose = t.kind == MoveTroubleKind::OutsideTravel;
    const std::string where = pose ? move.name + ", pose " + poseLetter(t.pose) : placeOf(project, index, t);
    words::Names names;
    names.part = move.name;
    names.room = where;
    const Kind kind = kindOfValue(project, t);
    if (t.axis >= 0) names.axis = project.axes[static_cast<std::size_t>(t.axis)].name;
    return words::render(troubleMessage(t.kind), {{{kind, t.value}, {kind, t.limit}}}, names, system);
}

/// Whether a trouble keeps the move from being run as it is meant; places outside the travel have a rule of
/// their own.
static bool stands(const MoveTrouble& t) {
    return t.kind != MoveTroubleKind::OutsideTravel;
}

/// A move that cannot be planned as it is meant. Nothing where all can.
static Finding judgeMovePlan(const RigView& view) {
    for (std::size_t m = 0; m < view.evaluation.moves.size(); ++m)
        for (const MoveTrouble& t : view.evaluation.moves[m].troubles) {
            if (!stands(t)) continue;
            const Kind kind = kindOfValue(view.project, t);
            Verdict v =
                found(nullptr, Figure(0.0), troubleMessage(t.kind), {{{kind, t.value}, {kind, t.limit}}});
            v.axis = std::max(0, t.axis);
            nameMove(v, view.project, m);
            v.with = placeOf(view.project, m, t);
            return v;
        }
    return std::nullopt;
}

constinit const Rule movePlan =
    advising({"The move cannot run as it is meant; the sentence says what it lacks."},
             ofAllAxes(namingAxis(judging(
                 criteria::movePlan, {"Plan of the move"}, judgeMovePlan,
                 words::listOf<tooFewText, outsideText, rampsText, noTargetText, noHeadText, blindText,
                               notReachedText, leavesText, nothingText, noSpeedText, cannotFollowText,
                               notSteeredText, targetHeldText, lensStandsText, passingText, noScaleText,
                               noZoomText, pastZoomText, blockMovedText, blocksOverlapText, blockPastEndText>,
                 tries<&fixes::mendPlan>))));

} // namespace gantry::rules
