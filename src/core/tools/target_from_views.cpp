// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/target_from_views.h"

#include "core/evaluate/rig/rig_bodies.h"
#include "core/evaluate/rig_setup.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

std::string whyNot(kinematics::NoPoint no) {
    switch (no) {
    case kinematics::NoPoint::None:
        break;
    case kinematics::NoPoint::TooFew:
        return "One view tells a direction, but no distance. Store another one from the side.";
    case kinematics::NoPoint::Behind:
        return "The views cross behind one of the cameras. Store them again, looking at the same thing.";
    case kinematics::NoPoint::Parallel:
        return "The views look almost the same way, so the distance would be a guess. Store one from farther "
               "to the side.";
    case kinematics::NoPoint::Disagree:
        return "The views miss each other by more than the rig's accuracy explains. Store them again, "
               "looking "
               "at the same thing.";
    }
    return {};
}

} // namespace

TargetFromViews targetFromViews(const Project& project, const Evaluation& evaluation,
                                std::span<const kinematics::View> views) {
    constexpr double marking = 3.0;     // [px] to which somebody puts a thing in the middle
    constexpr double placing = 2e-3;    // [m] to which the parts of a rig are measured
    constexpr double share = 1.0 / 6.0; // of a width, as a standard deviation: it is somewhere within, mostly
    const double focal = project.shots.empty() ? project.camera.deliveredWidth
                                               : deliveredFocal(project.camera, project.shots.front());
    double angle = marking / focal, place = placing;
    for (std::size_t a = 0; a < project.axes.size() && a < evaluation.axes.size(); ++a) {
        const double loose = share * evaluation.axes[a].model.backlash;
        if (turnsOnHead(project.axes[a].role))
            angle = std::hypot(angle, loose);
        else if (kindOf(project.axes[a]) == AxisKind::Linear)
            place = std::hypot(place, loose);
    }
    const kinematics::ToldPoint told = kinematics::pointFrom(views, angle, place);
    TargetFromViews out;
    if (!told) {
        out.why = whyNot(told.no);
        return out;
    }
    out.at = told.at;
    out.deviation = told.worstDeviation;
    for (const kinematics::View& v : views) {
        const double range = geometry::lengthOf(geometry::minus(told.at, v.from));
        out.range = out.range > 0.0 ? std::min(out.range, range) : range;
    }
    return out;
}

} // namespace gantry
