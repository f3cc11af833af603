// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/error_budget.h"

#include "core/units/names.h"

#include <algorithm>
#include <cmath>

namespace gantry {

std::string_view errorKindName(ErrorKind kind) {
    return units::nameOf<ErrorKind::Framing>(kind, "slow drift", "jitter", "repeat error", "framing error");
}

std::string_view causeName(ErrorCause cause) {
    return units::nameOf<ErrorCause::WindUp>(
        cause, "stretch of the drive", "sag and bend", "stepping", "backlash let go",
        "vibration after the stop", "play of the guides", "friction band of the rotor",
        "fall to hold current", "lag of the rotor", "step accuracy", "rounded steps per unit",
        "sticking and slipping", "springs of the drive", "wind-up of the drive");
}

ErrorBudget errorBudget(const Project& project, const Evaluation& evaluation, ShotIndex shot) {
    ErrorBudget out;
    if (!shot || shot.at() >= project.shots.size()) return out;
    const ErrorLimits& limits = project.shots[shot.at()].limits;
    out.allowed = {limits.drift, limits.jitter, limits.repeat,
                   limits.framing * project.camera.deliveredWidth};
    for (std::size_t i = 0; i < evaluation.axes.size(); ++i)
        for (const ShotEvaluation& s : evaluation.axes[i].shots) {
            if (s.shot != shot) continue;
            const auto add = [&](ErrorKind kind, ErrorCause cause, const Figure& f, double factor = 1.0) {
                if (f && std::abs(f.value()) * factor > 0.0)
                    out.lines.push_back({kind, cause, static_cast<int>(i), std::abs(f.value()) * factor});
            };
            add(ErrorKind::Drift, ErrorCause::Stretch, s.errors.drift);
            add(ErrorKind::Drift, ErrorCause::Sag, s.sag.drift);
            add(ErrorKind::Jitter, ErrorCause::Stepping, s.place.stepping);
            add(ErrorKind::Jitter, ErrorCause::StickSlip, s.windUp.jumpPixels);
            add(ErrorKind::Jitter, ErrorCause::Rocking, s.rocking.pixels);
            add(ErrorKind::Jitter, ErrorCause::GuidePlay, s.guidePixels);
            if (s.loadReverses) {
                add(ErrorKind::Jitter, ErrorCause::Backlash, s.errors.backlash);
                add(ErrorKind::Repeat, ErrorCause::Backlash, s.errors.backlash);
            }
            add(ErrorKind::Repeat, ErrorCause::FrictionBand, s.place.frictionBand);
            add(ErrorKind::Repeat, ErrorCause::IdleShift, s.place.idleShift);
            add(ErrorKind::Repeat, ErrorCause::Springs, s.windUp.repeat * s.pixelsPerUnit);
            add(ErrorKind::Framing, ErrorCause::Lag, s.place.lag);
            add(ErrorKind::Framing, ErrorCause::WindUp, s.windUp.travel * s.pixelsPerUnit);
            add(ErrorKind::Framing, ErrorCause::StepAccuracy, s.place.accuracy);
            add(ErrorKind::Framing, ErrorCause::Rounding, s.roundingPixels);
            add(ErrorKind::Framing, ErrorCause::Sag, s.sag.pixels);
        }
    for (const BudgetLine& l : out.lines) out.sums[static_cast<std::size_t>(l.kind)] += l.amount;
    std::stable_sort(out.lines.begin(), out.lines.end(),
                     [&](const BudgetLine& a, const BudgetLine& b) { return out.share(a) > out.share(b); });
    return out;
}

} // namespace gantry
