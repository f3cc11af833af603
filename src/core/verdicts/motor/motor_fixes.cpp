// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>

namespace gantry::fixes {
namespace {

constexpr Message currentOf{"run current {0} rms"};
constexpr Message knobAt{"knob at {0}"};
constexpr Message supplyOf{"supply of {0}"};
constexpr Message supplyRated{"supply rated {0}"};
constexpr Message stopFirst{"let it run out, or short it, before it is reversed"};
constexpr Message metalMount{"metal motor mount"};

void addCurrent(Candidates& out, const Problem& p, double amps) {
    add(out, p, FixCost::SettingOnly, currentOf, {{{Kind::Current, amps}}},
        [&](Axis& a) { a.driver.runCurrent = amps; });
}

Candidates moreCurrent(const Problem& p) {
    Candidates out;
    const auto* stepper = p.evaluation().model.stepper();
    if (stepper == nullptr) return out;
    const ShotEvaluation* e = p.shot();
    const double ceiling = std::min(p.axis().driver.maxCurrent, stepper->ratedCurrentRms);
    std::vector<double> wishes;
    if (e != nullptr && e->torque.leastCurrent)
        wishes.push_back(rounded(e->torque.leastCurrent.value(), 1.0, true));
    wishes.push_back(ceiling);
    for (const double amps : wishes)
        if (amps > p.axis().driver.runCurrent && amps <= ceiling * (1.0 + 1e-9)) addCurrent(out, p, amps);
    return out;
}

Candidates lessCurrent(const Problem& p) {
    Candidates out;
    for (const double share : {0.9, 0.8, 0.7, 0.6, 0.5})
        addCurrent(out, p, rounded(p.axis().driver.runCurrent * share, 1.0, false));
    return out;
}

Candidates fullKnob(const Problem& p) {
    Candidates out;
    const auto* motor = std::get_if<GearedDc>(&p.axis().motor);
    if (motor != nullptr && motor->knob < 1.0)
        add(out, p, FixCost::SettingOnly, knobAt, {{{Kind::Percentage, 1.0}}},
            [](Axis& a) { std::get<GearedDc>(a.motor).knob = 1.0; });
    return out;
}

/// Supplies of more volts that every driver of the rig stands.
Candidates moreVolts(const Problem& p) {
    Candidates out;
    const Supply& now = p.project.supply;
    for (const parts::StockSize& s : parts::stockSizes(p.stock, "supply", "voltage_V")) {
        const bool withinRatings = std::all_of(p.project.axes.begin(), p.project.axes.end(),
                                               [&](const Axis& a) { return s.value <= a.driver.maxVoltage; });
        if (s.value <= now.voltage.value || !withinRatings) continue;
        add(out, p, s.owned ? FixCost::PartOnHand : FixCost::ToBuy, supplyOf, {{{Kind::Voltage, s.value}}},
            [&](Project& q) {
                q.supply.lowVoltage.value = now.lowVoltage.value * s.value / now.voltage.value;
                q.supply.voltage.value = s.value;
            });
    }
    return out;
}

Candidates coolerMount(const Problem& p) {
    Candidates out;
    if (bodyOf(p.axis().motor).mount != MountMaterial::Metal)
        add(out, p, FixCost::ToBuy, metalMount, {},
            [](Axis& a) { std::visit([](auto& m) { m.body.mount = MountMaterial::Metal; }, a.motor); });
    return out;
}

Candidates stopBeforeReversing(const Problem& p) {
    Candidates out;
    const auto* motor = std::get_if<GearedDc>(&p.axis().motor);
    if (motor != nullptr && motor->stopping == Stopping::Reversed)
        add(out, p, FixCost::SettingOnly, stopFirst, {},
            [](Axis& a) { std::get<GearedDc>(a.motor).stopping = Stopping::Shorted; });
    return out;
}

/// As much as is drawn with what is wanted on top, in whole amperes.
Candidates moreAmperes(const Problem& p) {
    Candidates out;
    const SupplyEvaluation& s = p.now.evaluation.supply;
    const Figure drawn = s.startCurrent ? greater(s.startCurrent, s.current) : s.current;
    if (!drawn) return out;
    const double amps = std::ceil(drawn.value() * criteria::supply);
    add(out, p, FixCost::ToBuy, supplyRated, {{{Kind::Current, amps}}},
        [&](Project& q) { q.supply.ratedCurrent = amps; });
    return out;
}

} // namespace

constinit const Family runCurrent{"run_current", words::listOf<currentOf>, moreCurrent};
constinit const Family lowerRunCurrent{"lower_run_current", words::listOf<currentOf>, lessCurrent};
constinit const Family knobUp{"knob_up", words::listOf<knobAt>, fullKnob};
constinit const Family supplyVoltage{"supply_voltage", words::listOf<supplyOf>, moreVolts};
constinit const Family gentlerStop{"gentler_stop", words::listOf<stopFirst>, stopBeforeReversing};
constinit const Family supplyCurrent{"supply_current", words::listOf<supplyRated>, moreAmperes};
constinit const Family mountMaterial{"mount_material", words::listOf<metalMount>, coolerMount};

} // namespace gantry::fixes
