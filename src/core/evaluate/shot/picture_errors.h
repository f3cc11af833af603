// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/flank.h"
#include "core/evaluate/evaluation.h"

namespace gantry {

/// What of a drive's commands shows [U]. For drives that are commanded by place.
struct Stepping {
    double jump = 0.0;     ///< by which it really moves on
    double accuracy = 0.0; ///< ± of its error at rest
    double fullStep = 0.0; ///< with which that error comes back; 0: it does not

    /// Jitter [px] at a speed [U/s] that a film runs through, of a picture that moves `px` for a unit.
    double jitter(const Shot& shot, double px, double speed) const;

    friend bool operator==(const Stepping&, const Stepping&) = default;
};
Stepping steppingOf(const DriveModel& m);

/// What holds the play, and where or when it is let go: on the way; else where speeding up ends, if it pushes
/// what hangs back, or where braking begins. @param sense +1 or −1, the way the shot goes
void fillFlank(ShotEvaluation& e, const DriveModel& m, const drivetrain::Flank& flank, const Shot& shot,
               double sense);

/// Errors of motor, springs, play and steps in the picture, the four kinds that they add to, how the picture
/// moves, and what bends. docs/models/picture.md.
/// @param speed [U/s], acceleration [U/s²] at most in the shot
void fillPicture(ShotEvaluation& e, const DriveModel& m, const AxisStructure& structure,
                 const Figure& roundingShare, const Shot& shot, const Camera& camera, double speed,
                 double acceleration, const drivetrain::Flank& flank);

/// What rocks on when the axis has stopped. A movement that follows the subject ends as softly as the slide
/// does, so it has none of its own. @param measured whether the mode was, with its phase
void fillRocking(ShotEvaluation& e, const DriveModel& m, const Shot& shot, bool measured,
                 double acceleration);

} // namespace gantry
