// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/structure_curves.h"

#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/model/kind_traits.h"
#include "core/motion/rocking.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <numbers>

namespace gantry {

std::vector<SagPoint> sagCurve(const Project& project, const Axis& axis, const ShotEvaluation* shot,
                               int points) {
    std::vector<SagPoint> out;
    Reason why = Reason::None;
    const auto setting = railSetting(axis, massesOf(project, axis), why);
    if (!setting || points < 2) return out;
    double focal = 0.0, perMetre = 0.0;
    if (shot != nullptr) {
        const Shot& s = project.shots[shot->shot.at()];
        focal = deliveredFocal(project.camera, s);
        perMetre = optics::lateralPixelsPerMetre(focal, s.subjectDistance);
    }
    for (int i = 0; i < points; ++i) {
        const double at = setting->low + (setting->high - setting->low) * i / (points - 1);
        const structure::RailPoint p = setting->point(at);
        out.push_back({at, p.sag, p.slope, p.twist, perMetre * p.sag + focal * p.slope});
    }
    const double first = out.front().pixels;
    for (SagPoint& p : out) p.pixels -= first;
    return out;
}

std::vector<BalancePoint> balanceCurve(const Project& project, const Axis& axis, int points) {
    std::vector<BalancePoint> out;
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    const auto masses = armMasses(project.payload, axis);
    if (r == nullptr || masses.empty() || !gravityTurns(axis.role) || points < 2) return out;
    const double range = std::min(r->range, 2.0 * std::numbers::pi);
    for (int i = 0; i < points; ++i) {
        const double angle = r->lowAngle + range * i / (points - 1);
        out.push_back({angle, armTorque(masses, *r, angle)});
    }
    return out;
}

Figure settlesAlone(const ShotEvaluation& shot, const structure::SoftPart& part, double limit) {
    const motion::Mode mode{part.frequency, std::min(part.damping, 0.7)};
    const double pixels = 2.0 * motion::mostRockingAfter(shot.profile, mode) * shot.pixelsPerUnit;
    const auto time = motion::settlingTime(pixels, limit, mode);
    return time ? Figure::of(*time) : Figure::none(Reason::Unbounded);
}

Figure heldTorque(const AxisEvaluation& e) {
    return e.holdAvailable / e.model.outputPerRad;
}

} // namespace gantry
