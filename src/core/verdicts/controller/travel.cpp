// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message travelText{"Shot “{shot}” covers {0}; {1} can be used between the soft limits."};
constexpr Message travelExactText{
    "Shot “{shot}” covers {0}, all there is between the soft limits: home the axis first, so that it begins "
    "exactly at its end."};
constexpr Message travelPlaceText{
    "Shot “{shot}” begins at {0} and covers {1}, which passes the soft limits by {2}."};

/// Travel against the ends of the same rail is a setting: an exact fit holds. What is used to a rounding of
/// the last digit is used exactly.
static Finding judgeTravel(const AxisView& view) {
    constexpr double exact = 1e-9;
    const double margin =
        std::visit([](const auto& m) { return m.motion.softLimitMargin; }, view.axis.mechanism);
    const double travel = view.evaluation.model.travel, room = std::max(0.0, travel - 2.0 * margin);
    const auto startIn = [&](const ShotEvaluation& s) -> std::optional<double> {
        const Movement* m = findMovement(view.shot(s), view.axis.id);
        return m != nullptr ? startOf(*m) : std::nullopt;
    };
    const auto past = [&](const ShotEvaluation& s) {
        const auto start = startIn(s);
        if (!start) return 0.0;
        const double end = *start + distanceOf(*findMovement(view.shot(s), view.axis.id));
        return std::max({0.0, margin - std::min(*start, end), std::max(*start, end) - (travel - margin)});
    };
    const auto ratio = [&](const ShotEvaluation& s) {
        const double beyond = past(s);
        const Figure there = allowedOver(room, beyond > exact * room ? Figure(room + beyond) : s.distance);
        return less(there, 1.0) && !less(there, 1.0 - exact) ? Figure(1.0) : there;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    if (const double by = past(*e); by > exact * room)
        return found(e, ratio(*e), travelPlaceText,
                     {{{view.travelKind(), startIn(*e).value_or(0.0)},
                       {view.travelKind(), e->distance},
                       {view.travelKind(), by}}});
    const bool all = !less(ratio(*e), 1.0) && less(ratio(*e), 1.0 + 1e-6);
    return found(e, ratio(*e), all ? travelExactText : travelText,
                 {{{view.travelKind(), e->distance}, {view.travelKind(), room}}});
}

constinit const Rule travel = advising(
    {"The shot does not fit: a shorter move or a longer axis is needed."},
    judging(criteria::travel, {"Room on the axis"}, judgeTravel,
            words::listOf<travelText, travelExactText, travelPlaceText>,
            tries<&fixes::otherStart, &fixes::softMargin, &fixes::shorterTravel, &fixes::railLength>));

} // namespace gantry::rules
