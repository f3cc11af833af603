// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/family.h"

#include <algorithm>

namespace gantry::fixes {
namespace {

constexpr Message holdCurrentOf{"hold current {0} rms"};
constexpr Message brakeOf{"power-off brake of {0}"};
constexpr Message keepsHolding{"emergency stop that keeps the holding current"};

Candidates moreHoldCurrent(const Problem& p) {
    Candidates out;
    const auto* stepper = p.evaluation().model.stepper();
    if (stepper == nullptr) return out;
    const double ceiling = std::min(p.axis().driver.maxCurrent, stepper->ratedCurrentRms);
    const double now = p.axis().driver.holdCurrent;
    const double needed =
        less(0.0, p.verdict.ratio) ? now * p.verdict.bounds.wanted / p.verdict.ratio.value() : ceiling;
    for (const double amps : {rounded(needed, 1.0, true), p.axis().driver.runCurrent, ceiling})
        if (amps > now && amps <= ceiling)
            add(out, p, FixCost::SettingOnly, holdCurrentOf, {{{Kind::Current, amps}}},
                [&](Axis& a) { a.driver.holdCurrent = amps; });
    return out;
}

/// Brakes by the static torque of their data sheet, so their tolerance is a data sheet's.
Candidates brakes(const Problem& p) {
    Candidates out;
    if (p.axis().brake.fitted) return out;
    for (const parts::StockSize& s : parts::stockSizes(p.stock, "brake", "holding_torque_Nm"))
        add(out, p, s.owned ? FixCost::PartOnHand : FixCost::ToBuy, brakeOf, {{{Kind::Torque, s.value}}},
            [&](Axis& a) {
                a.brake.fitted = true;
                a.brake.holdingTorque = estimate(s.value, Source::DataSheet);
            });
    return out;
}

Candidates keptCurrent(const Problem& p) {
    Candidates out;
    if (p.axis().onStop != OnStop::KeepsHolding)
        add(out, p, FixCost::SettingOnly, keepsHolding, {}, [](Axis& a) { a.onStop = OnStop::KeepsHolding; });
    return out;
}

} // namespace

constinit const Family holdCurrent{"hold_current", words::listOf<holdCurrentOf>, moreHoldCurrent};
constinit const Family brake{"brake", words::listOf<brakeOf>, brakes};
constinit const Family stopBehaviour{"stop_behaviour", words::listOf<keepsHolding>, keptCurrent};

} // namespace gantry::fixes
