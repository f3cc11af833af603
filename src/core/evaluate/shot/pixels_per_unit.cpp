// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/evaluate_shot.h"

#include "core/drivetrain/carriage.h"
#include "core/evaluate/shot/focus_pull.h"
#include "core/model/kind_traits.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Slope of `quantity(reading)` against the ring's angle at the place where the reading is met; the steepest
/// if it is met nowhere. Marks are taken in order of angle. 0 with fewer than two.
template <class Q>
double slopeAt(std::vector<RingMark> marks, double reading, Q quantity) {
    std::sort(marks.begin(), marks.end(),
              [](const RingMark& a, const RingMark& b) { return a.angle < b.angle; });
    double steepest = 0.0;
    for (std::size_t i = 1; i < marks.size(); ++i) {
        const double span = marks[i].angle - marks[i - 1].angle;
        if (span <= 0.0) continue;
        const double slope = std::abs(quantity(marks[i].reading) - quantity(marks[i - 1].reading)) / span;
        const auto [low, high] = std::minmax(marks[i].reading, marks[i - 1].reading);
        if (reading >= low && reading <= high) return slope;
        steepest = std::max(steepest, slope);
    }
    return steepest;
}

/// How fast a pan bar turns the camera at most [rad/m] along the travel; 0 without one.
Figure panBarRate(const Axis& axis) {
    const PanBar& bar = std::get<LinearMechanism>(axis.mechanism).panBar;
    if (!bar.fitted) return Figure(0.0);
    const drivetrain::PanBarGeometry g{bar.armLength, bar.offset, bar.angle};
    // The arm turns fastest where it is stretched farthest, which is at an end.
    const double half = 0.5 * usableTravel(axis);
    const auto low = drivetrain::panBarRate(g, -half), high = drivetrain::panBarRate(g, half);
    if (!low || !high) return Figure::none(Reason::OutOfRange);
    return Figure::of(std::max(std::abs(*low), std::abs(*high)));
}

} // namespace

Figure pixelsPerUnit(const Camera& camera, const Shot& shot, const Axis& axis, double reach) {
    const double delivered = deliveredFocal(camera, shot);
    const double lateral = optics::lateralPixelsPerMetre(delivered, shot.subjectDistance);
    const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
    const double pan = optics::panPixelsPerRad(delivered, 0.0);
    if (rotary == nullptr && shot.towards && axis.role != Role::Lift) {
        // The edge of the picture runs outwards, fastest at the nearer end.
        const Movement* m = findMovement(shot, axis.id);
        const auto end = m != nullptr ? endDistance(shot, *m) : shot.subjectDistance;
        if (!end) return Figure::none(Reason::OutOfRange);
        return Figure::of(camera.deliveredWidth / 2.0 / std::min(*end, shot.subjectDistance));
    }
    if (rotary == nullptr) {
        const Figure turned = panBarRate(axis);
        // A bar that keeps the subject framed takes from its movement what it gives to all that is far away.
        // Any other may as well add to it.
        return turned.map([&](double rate) {
            const double far = pan * rate;
            return shot.keepFramed && far > 0.0 ? std::max(std::abs(lateral - far), far) : lateral + far;
        });
    }
    switch (axis.role) {
    case Role::Roll: // a corner of a 16:9 picture
        return Figure::of(camera.deliveredWidth / 2.0 * std::hypot(1.0, optics::pictureShape));
    case Role::Swing:
    case Role::BoomTilt:
        return Figure::of(pan + lateral * reach);
    case Role::Turntable: {
        return Figure::of(lateral * (reach > 0.0 ? reach : 0.1)); // a subject of 0.1 m where none is given
    }
    case Role::Focus:
    case Role::Zoom: {
        const auto* ring = std::get_if<LensRingOutput>(&rotary->output);
        if (ring == nullptr) return Figure::none(Reason::NeedsLensRing);
        // What an angle of it does depends on how fast it is turned.
        if (!ring->steadyElectronics) return Figure::none(Reason::NoFixedMarks);
        if (axis.role == Role::Zoom)
            return Figure::of(
                camera.deliveredWidth / 2.0 *
                    slopeAt(ring->marks, shot.focalLength, [](double f) { return std::log(f); }),
                Reason::NeedsLensRing);
        const double perMetre = slopeAt(ring->marks, shot.subjectDistance, [](double s) { return 1.0 / s; });
        return Figure::of(optics::defocusPixels(shot.focalLength, shot.fNumber, shot.subjectDistance,
                                                perMetre, camera.deliveredWidth / camera.sensorWidth),
                          Reason::NeedsLensRing);
    }
    default:
        return Figure::of(pan);
    }
}

} // namespace gantry
