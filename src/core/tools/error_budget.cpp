// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/error_budget.h"

#include <algorithm>
#include <cmath>

namespace gantry {

std::string_view errorKindName(ErrorKind kind) {
    switch (kind) {
    case ErrorKind::Drift:
        return "slow drift";
    case ErrorKind::Jitter:
        return "jitter";
    case ErrorKind::Repeat:
        return "repeat error";
    case ErrorKind::Framing:
        return "framing error";
    }
    return "";
}

std::string_view causeName(ErrorCause cause) {
    switch (cause) {
    case ErrorCause::Stretch:
        return "stretch of the drive";
    case ErrorCause::Sag:
        return "sag and bend";
    case ErrorCause::Stepping:
        return "stepping";
    case ErrorCause::Backlash:
        return "backlash let go";
    case ErrorCause::Rocking:
        return "rocking after the stop";
    case ErrorCause::GuidePlay:
        return "play of the guides";
    case ErrorCause::FrictionBand:
        return "friction band of the rotor";
    case ErrorCause::IdleShift:
        return "fall to hold current";
    case ErrorCause::Lag:
        return "lag of the rotor";
    case ErrorCause::StepAccuracy:
        return "step accuracy";
    case ErrorCause::Rounding:
        return "rounded steps per unit";
    }
    return "";
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
            add(ErrorKind::Jitter, ErrorCause::Rocking, s.rocking.pixels);
            add(ErrorKind::Jitter, ErrorCause::GuidePlay, s.guidePixels);
            if (s.loadReverses) {
                add(ErrorKind::Jitter, ErrorCause::Backlash, s.errors.backlash);
                add(ErrorKind::Repeat, ErrorCause::Backlash, s.errors.backlash);
            }
            add(ErrorKind::Repeat, ErrorCause::FrictionBand, s.place.frictionBand);
            add(ErrorKind::Repeat, ErrorCause::IdleShift, s.place.idleShift);
            add(ErrorKind::Framing, ErrorCause::Lag, s.place.lag);
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
