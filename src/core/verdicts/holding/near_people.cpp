// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/near_people.h"
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message peopleEnergyText{
    "Shot “{shot}”: what moves holds {0}, and {1} are allowed near people. Keep "
    "everybody out of its way; what binds there is the local rule and whoever "
    "is responsible."};
constexpr Message peopleSpeedText{
    "Shot “{shot}”: the farthest point moves at {0}, and {1} are allowed near people. "
    "Keep everybody out of its way; what binds there is the local rule and whoever "
    "is responsible."};
constexpr Message peopleSettingText{
    "The shots keep to it, but the controller may be told {0}; from {1} on it is "
    "more than is allowed near people."};

/// What Brief allows near people over what moves there: energy, and speed of the point farthest out. What jog
/// could do besides is tight at worst, since nobody has to.
static Finding judgeNearPeople(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    const double energy = view.project.conditions.energyNearPeople,
                 speed = view.project.conditions.speedNearPeople;
    if ((energy <= 0.0 && speed <= 0.0) || !movesNearPeople(view.axis)) return std::nullopt;
    const double reach = farthestReach(view.axis, e);
    const auto byEnergy = [&](const ShotEvaluation& s) {
        return energy > 0.0 ? allowedOver(energy, s.motion.energy) : Figure(plenty);
    };
    const auto bySpeed = [&](const ShotEvaluation& s) {
        return speed > 0.0 ? allowedOver(speed, s.motion.topSpeed * reach) : Figure(plenty);
    };
    const ShotEvaluation* s =
        bindingShot(view, [&](const ShotEvaluation& x) { return lesser(byEnergy(x), bySpeed(x)); });
    if (s == nullptr) return std::nullopt;
    const Figure ratio = lesser(byEnergy(*s), bySpeed(*s));
    const bool fast = ratio && less(bySpeed(*s), byEnergy(*s));
    Verdict v = fast ? found(s, ratio, peopleSpeedText,
                             {{{Kind::Speed, s->motion.topSpeed * reach}, {Kind::Speed, speed}}})
                     : found(s, ratio, peopleEnergyText,
                             {{{Kind::Energy, s->motion.energy}, {Kind::Energy, energy}}});
    v.hazard = true;
    const double set = e.model.settings.speed;
    if (ratio && ratio.value() >= criteria::nearPeople && e.model.pulses && set > 0.0) {
        const PeopleCaps caps = capsNearPeople(view.project, view.axis, e);
        const double most = std::min(caps.bySpeed.valueOr(set), caps.byEnergy.valueOr(set));
        if (most < set) {
            v = found(nullptr, 1.0, peopleSettingText, {{{view.speedKind(), set}, {view.speedKind(), most}}});
            v.hazard = true;
        }
    }
    return v;
}

constinit const Rule nearPeople =
    advising({"Near people only less speed or less moving mass helps, and a guard or a distance."},
             judging(criteria::nearPeople, {"Moving near people"}, judgeNearPeople,
                     words::listOf<peopleEnergyText, peopleSpeedText, peopleSettingText>,
                     tries<&fixes::settingsToLimits, &fixes::slowerShot>));

} // namespace gantry::rules
