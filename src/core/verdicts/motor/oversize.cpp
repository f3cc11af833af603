// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message oversizeText{"{0} is available where {1} is needed. A motor with {2} of its torque would "
                               "keep the target margin, lighter and cooler."};

/// Speaks only where every shot leaves that many times the wanted margin.
static Finding judgeOversize(const AxisView& view) {
    const ShotEvaluation* e = bindingShot(view, [](const ShotEvaluation& s) { return s.torque.margin; });
    if (e == nullptr || !e->torque.margin) return std::nullopt;
    const double ratio = e->torque.margin.value() / view.evaluation.model.wantedMargin;
    if (ratio < criteria::motorSize.oversizedFrom) return std::nullopt;
    return found(e, ratio, oversizeText,
                 {{{Kind::Torque, e->torque.available},
                   {Kind::Torque, e->torque.needed},
                   {Kind::Percentage, 1.0 / ratio, 2}}});
}

constinit const Rule oversize =
    advising({"It only costs weight, heat and money; it may stay."},
             judging(criteria::motorSize, {"Motor size"}, judgeOversize, words::listOf<oversizeText>,
                     tries<&fixes::lowerRunCurrent, &fixes::smallerMotor>));

} // namespace gantry::rules
