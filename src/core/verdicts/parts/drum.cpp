// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message layersText{
    "The drum winds {0} layers: {1} steps per mm when it is empty, {2} when it is full. With the one number "
    "that errs least the axis is up to {3} off, {4} in shot “{shot}” where {5} is allowed."};
constexpr Message drumText{
    "The drum takes {0} times the cord of travel and turns that stay on; {1} diameters "
    "of cord are kept free below the cheeks."};

/// Framing that a shot allows over what one number of steps per mm leaves on a drum with layers.
static Finding judgeLayers(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (!e.model.pulses || !(e.checks.windingLayers.valueOr(0.0) > 1.0)) return std::nullopt;
    const auto off = [&](const ShotEvaluation& s) { return e.checks.layerError * s.pixelsPerUnit; };
    const auto allowed = [&](const ShotEvaluation& s) {
        return view.shot(s).limits.framing * view.project.camera.deliveredWidth;
    };
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(allowed(s), off(s)); };
    const ShotEvaluation* s = bindingShot(view, ratio);
    if (s == nullptr) return std::nullopt;
    return found(s, ratio(*s), layersText,
                 {{{Kind::Count, e.checks.windingLayers},
                   {Kind::Ratio, e.checks.stepsPerUnitFirst},
                   {Kind::Ratio, e.checks.stepsPerUnitLast},
                   {Kind::Length, e.checks.layerError},
                   {Kind::Pixels, off(*s)},
                   {Kind::Pixels, allowed(*s)}}});
}

static Finding judgeRoom(const AxisView& view) {
    const Figure& room = view.evaluation.checks.drumCapacity;
    if (room.reason() == Reason::NotApplicable) return std::nullopt;
    return found(nullptr, room, drumText,
                 {{{Kind::Ratio, room}, {Kind::Ratio, criteria::drumFreeboard.value}}});
}

constinit const Rule layers =
    advising({"The cord must lie in one layer for one number of steps to hold."},
             judging(criteria::layers, {"Layers of cord"}, judgeLayers, words::listOf<layersText>,
                     tries<&fixes::widerDrum, &fixes::largerDrum, &fixes::closedCord>));
constinit const Rule drumRoom =
    advising({"The drum does not take this cord: a wider or larger one is needed."},
             judging(criteria::drumRoom, {"Room on the drum"}, judgeRoom, words::listOf<drumText>,
                     tries<&fixes::widerDrum, &fixes::largerDrum>));

} // namespace gantry::rules
