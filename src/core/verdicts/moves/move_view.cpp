// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include "core/evaluate/move/plan_move.h"

namespace gantry::rules {

Figure limitRatio(const MoveSegmentResults& s) {
    constexpr double exact = 1e-7;
    const Figure ratio = s.time / s.least;
    return less(ratio, 1.0) && !less(ratio, 1.0 - exact) ? Figure(1.0) : ratio;
}

Figure driftAllowed(const Project& project, std::size_t move) {
    const Shot* shot = shotOf(project.shots, project.moves[move]);
    if (shot == nullptr) return Figure::none(Reason::NoShot);
    return Figure::of(shot->limits.framing * project.camera.deliveredWidth);
}

Figure jitterAllowed(const Project& project, std::size_t move) {
    const Shot* shot = shotOf(project.shots, project.moves[move]);
    return shot != nullptr ? Figure::of(shot->limits.jitter) : Figure::none(Reason::NoShot);
}

void nameMove(Verdict& verdict, const Project& project, std::size_t move, const Figure& moment) {
    verdict.part = project.moves[move].name;
    verdict.move = static_cast<int>(move);
    verdict.moment = moment;
}

std::string segmentName(const Project& project, std::size_t move, std::size_t pose) {
    std::string out = project.moves[move].name + ", ";
    if (pose > 0) out += poseLetter(pose - 1) + " to ";
    return out + poseLetter(pose);
}

} // namespace gantry::rules
