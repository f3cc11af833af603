// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/compare_ramps.h"

#include "core/motion/friction_settling.h"
#include "core/units/names.h"

namespace gantry {

std::string_view shapeName(RampShape shape) {
    return units::nameOf<RampShape::HalfSine>(shape, "trapezoid", "trapezoid, whole periods", "S-curve",
                                              "S-curve, tuned", "half-sine");
}

std::vector<RampRow> compareRamps(const Project& project, const AxisEvaluation& e, const ShotEvaluation& s) {
    std::vector<RampRow> out;
    if (s.problem != Reason::None || s.profile.distance <= 0.0 || e.model.atOnce) return out;
    const double jitter = project.shots[s.shot.at()].limits.jitter;
    const motion::Limits limits{s.motion.topSpeed.valueOr(0.0), s.motion.acceleration.valueOr(0.0), 0.0};
    motion::Limits withJerk = limits;
    withJerk.jerk = e.model.settings.jerk > 0.0
                        ? e.model.settings.jerk
                        : 4.0 * limits.acceleration * limits.acceleration / limits.speed;
    const double distance = s.profile.distance;
    const RampKind kind = project.controller.ramps;
    const auto add = [&](RampShape shape, const motion::Profile& p, bool offered) {
        RampRow r;
        r.shape = shape;
        r.offered = offered;
        r.time = Figure::of(p.time());
        r.speed = Figure::of(p.peakSpeed);
        r.acceleration = Figure::of(p.in.acceleration);
        if (const auto& mode = e.model.mode) {
            const motion::DyingSwing swing{motion::rockingAfter(p, *mode), e.model.swingBand, *mode};
            r.rocking = swing.held() ? 0.0 : 2.0 * swing.amplitude * s.pixelsPerUnit;
            r.leaning = Figure::of(motion::rockingDuring(p, *mode) * s.pixelsPerUnit);
            const auto settled = swing.settled(jitter / s.pixelsPerUnit);
            r.settling = settled ? Figure::of(*settled) : Figure::none(Reason::Unbounded);
        }
        out.push_back(r);
    };
    add(RampShape::Trapezoid, motion::plan(distance, limits), kind != RampKind::None);
    if (e.model.mode)
        add(RampShape::TunedTrapezoid,
            motion::planTunedTrapezoid(distance, limits, 1.0 / e.model.mode->frequency),
            kind != RampKind::None);
    add(RampShape::SCurve, motion::plan(distance, withJerk), kind == RampKind::SCurve);
    if (e.model.mode)
        add(RampShape::TunedSCurve, motion::planTuned(distance, limits, 1.0 / e.model.mode->frequency),
            kind == RampKind::SCurve);
    add(RampShape::HalfSine, motion::planHalfSine(distance, limits), false);
    return out;
}

} // namespace gantry
