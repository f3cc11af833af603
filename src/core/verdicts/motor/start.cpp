// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message startCaughtText{
    "Shot “{shot}” starts at {0} at once; without a ramp the rotor is caught up "
    "to {1}; half of that is what counts on."};
constexpr Message startSettingText{
    "Shot “{shot}” needs {0} of full setting; from rest that gives {1} of the torque that breaking away "
    "takes. Start it with more, then turn back."};

/// Started without a ramp, a stepper's rotor has to be caught by its field; a brushed motor at a low setting
/// has to break away.
static Finding judgeStart(const AxisView& view) {
    const DriveModel& m = view.evaluation.model;
    if (m.stepper() != nullptr) {
        if (!m.atOnce) return std::nullopt;
        const auto ratio = [](const ShotEvaluation& s) {
            return allowedOver(s.start.catchSpeed, s.motion.topSpeed);
        };
        const ShotEvaluation* e = bindingShot(view, ratio);
        if (e == nullptr) return std::nullopt;
        return found(e, ratio(*e), startCaughtText,
                     {{{view.speedKind(), e->motion.topSpeed}, {view.speedKind(), e->start.catchSpeed}}});
    }
    // Below its steady speed it stutters, and that is said already.
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.start.share && (!s.knob.slowest || s.knob.slowest.value() <= 1.0) ? s.start.share : plenty;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->problem != Reason::None || !less(ratio(*e), criteria::startSetting.value))
        return std::nullopt;
    return found(e, ratio(*e), startSettingText,
                 {{{Kind::Percentage, e->knob.setting}, {Kind::Percentage, e->start.share}}});
}

constinit const Rule start = advising(
    {"It needs a controller or a knob that ramps, or less weight on the axis."},
    judging(criteria::start, {"Start without a ramp"}, judgeStart,
            words::listOf<startCaughtText, startSettingText>,
            tries<&fixes::controllerRamps, &fixes::slowerShot, &fixes::runCurrent, &fixes::reduction>,
            [](const AxisView& view) {
                return view.evaluation.model.stepper() != nullptr ? criteria::start.value
                                                                  : criteria::startSetting.value;
            }));

} // namespace gantry::rules
