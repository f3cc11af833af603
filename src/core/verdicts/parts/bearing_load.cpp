// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Load on the bearings"};
constexpr Message bearingText{"The most loaded bearing carries {0}; it is rated {1}."};
constexpr std::array sentences{bearingText};

Finding judge(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.bearingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const double rating = std::get<LinearMechanism>(view.axis.mechanism).guide.bearingRating.value;
    return found(nullptr, allowedOver(rating, e.checks.bearingLoad), bearingText,
                 {{{Kind::Force, e.checks.bearingLoad}, {Kind::Force, rating}}});
}

} // namespace

constinit const Rule bearingLoad{
    .wants = criteria::bearingLoad, .title = title, .sentences = sentences, .judge = judge};

} // namespace gantry::rules
