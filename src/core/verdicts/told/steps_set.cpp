// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/crosscheck/suspects.h"
#include "core/verdicts/rules.h"

#include <cmath>

namespace gantry::rules {

constexpr Message stepsLinearText{"{0} steps per mm were told, the parts give {1}: 100 mm go {2}.{part}"};
constexpr Message stepsRotaryText{"{0} steps per ° were told, the parts give {1}: 360° go {2}.{part}"};
constexpr Message stepsLinearShotText{"{0} steps per mm were told, the parts give {1}: 100 mm go {2}. Shot "
                                      "“{shot}” ends {3} off, {4} where {5} is allowed.{part}"};
constexpr Message stepsRotaryShotText{"{0} steps per ° were told, the parts give {1}: 360° go {2}. Shot "
                                      "“{shot}” ends {3} off, {4} where {5} is allowed.{part}"};

/// The last number of steps per unit that was told: whatever else was typed before it is in the controller no
/// longer.
static std::optional<double> toldSteps(const AxisView& view) {
    std::optional<double> out;
    for (const crosscheck::Claim& c : crosscheck::claimsOf(view.axis))
        if (const auto steps = crosscheck::stepsSaid(view.evaluation, c)) out = steps;
    return out;
}

/// Typed steps per unit against the parts: a share that no rule over the travel would find is let go, and so
/// is what the picture does not show in passes that are to fit each other.
static Finding judgeStepsSet(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (view.axis.told.empty() || !e.steps.stepsPerUnit) return std::nullopt;
    const std::optional<double> told = toldSteps(view);
    if (!told || !(*told > 0.0)) return std::nullopt;
    const double there = e.steps.stepsPerUnit.value(), share = std::abs(*told / there - 1.0);
    const auto off = [&](const ShotEvaluation& s) { return s.pixelsPerUnit * s.distance * share; };
    const auto ofShot = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, off(s));
    };
    const double byRule = share > 0.0 ? std::min(criteria::stepsShare / share, plenty) : plenty;
    const ShotEvaluation* shot = bindingShot(view, ofShot);
    const Figure byShot = shot != nullptr ? ofShot(*shot) : Figure::none(Reason::NoShot);
    const bool shows = byShot && byShot.value() < byRule;
    const bool linear = view.linear();
    const double ratio = shows ? byShot.value() : byRule,
                 goes = (linear ? 0.1 : units::degree * 360.0) * *told / there;
    Verdict v = found(shows ? shot : nullptr, ratio,
                      shows ? (linear ? stepsLinearShotText : stepsRotaryShotText)
                            : (linear ? stepsLinearText : stepsRotaryText),
                      {{{Kind::Ratio, *told, 7},
                        {Kind::Ratio, there, 7},
                        {view.travelKind(), goes, 5},
                        {view.travelKind(), shows ? shot->distance * share : 0.0},
                        {Kind::Pixels, shows ? off(*shot) : Figure(0.0)},
                        {Kind::Pixels, shows ? view.shot(*shot).limits.repeat : 0.0}}});
    if (ratio < 1.0)
        if (const std::string fits = crosscheck::bestSuspect(view.axis, e, *told); !fits.empty())
            v.part = " It would be right with " + fits + ".";
    return v;
}

constinit const Rule stepsSet = advising(
    {"Use the steps per unit that the parts give, or count the parts again."},
    judging(criteria::stepsSet, {"Told steps per unit"}, judgeStepsSet,
            words::listOf<stepsLinearText, stepsRotaryText, stepsLinearShotText, stepsRotaryShotText>,
            tries<&fixes::stepsOfTheParts>));

} // namespace gantry::rules
