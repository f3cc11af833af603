// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <array>
#include <string_view>
#include <vector>

namespace gantry {

/// The four kinds of picture error.
enum class ErrorKind { Drift, Jitter, Repeat, Framing };
std::string_view errorKindName(ErrorKind kind);

enum class ErrorCause {
    Stretch,
    Sag,
    Stepping,
    Backlash,
    Rocking,
    GuidePlay,
    FrictionBand,
    IdleShift,
    Lag,
    StepAccuracy,
    Rounding,
    StickSlip,
    Springs,
    WindUp
};
std::string_view causeName(ErrorCause cause);

/// What one cause on one axis takes of one kind, in that kind's unit (px/frame for drift, px for the others).
struct BudgetLine {
    ErrorKind kind = ErrorKind::Drift;
    ErrorCause cause = ErrorCause::Stretch;
    int axis = 0;
    double amount = 0.0;
};

struct ErrorBudget {
    std::vector<BudgetLine> lines;   ///< largest share of its limit first
    std::array<double, 4> allowed{}; ///< by kind
    std::array<double, 4> sums{};    ///< contributions added, since nothing keeps them apart
    /// Share [1] of a line in its limit.
    double share(const BudgetLine& line) const {
        return line.amount / allowed[static_cast<std::size_t>(line.kind)];
    }
};

/// Of one shot over every axis that moves in it; lines without a number are left out.
ErrorBudget errorBudget(const Project& project, const Evaluation& evaluation, ShotIndex shot);

} // namespace gantry
