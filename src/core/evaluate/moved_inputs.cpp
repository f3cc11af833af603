// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/moved_inputs.h"

#include <algorithm>
#include <initializer_list>

namespace gantry {
namespace {

void append(std::vector<UncertainInput>& out, std::vector<UncertainInput> more) {
    out.insert(out.end(), more.begin(), more.end());
}

/// Of `all`, those that are named.
void append(std::vector<UncertainInput>& out, const std::vector<UncertainInput>& all,
            std::initializer_list<const Estimate*> named) {
    for (const UncertainInput& input : all)
        if (std::find(named.begin(), named.end(), input.estimate) != named.end()) out.push_back(input);
}

} // namespace

MovedTogether::MovedTogether(std::vector<UncertainInput> inputs) : inputs_(std::move(inputs)) {
    for (std::size_t i = 0; i < inputs_.size(); ++i) {
        nominal_.push_back(inputs_[i].estimate->value);
        if (Estimate* f = inputs_[i].follower) followers_.push_back({f, f->value, i});
    }
}

void MovedTogether::put(std::span<const double> values) {
    for (const Follower& f : followers_) f.estimate->value = f.nominal;
    for (std::size_t i = 0; i < inputs_.size(); ++i) inputs_[i].estimate->value = values[i];
    for (const Follower& f : followers_) f.estimate->value *= values[f.leader] / nominal_[f.leader];
}

void MovedTogether::restore() {
    for (const Follower& f : followers_) f.estimate->value = f.nominal;
    for (std::size_t i = 0; i < inputs_.size(); ++i) inputs_[i].estimate->value = nominal_[i];
}

std::vector<UncertainInput> inputsOfAxis(Project& project, std::size_t axis) {
    Axis& of = project.axes[axis];
    std::vector<UncertainInput> out = uncertainInputsOf(of);
    if (of.carriesPayload) append(out, uncertainInputsOf(project.payload));
    Supply& supply = project.supply;
    append(out, uncertainInputsOf(supply), {&supply.voltage, &supply.sourceResistance});
    Base& base = project.base;
    if (base.padStiffness.value > 0.0)
        append(out, uncertainInputsOf(base), {&base.padStiffness, &base.padDamping});
    return out;
}

std::vector<UncertainInput> inputsOfRig(Project& project) {
    std::vector<UncertainInput> out;
    for (Axis& axis : project.axes) {
        const std::vector<UncertainInput> all = uncertainInputsOf(axis);
        if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
            append(out, all, {&linear->movingMass, &linear->slope});
            append(out, uncertainInputsOf(linear->items));
            append(out, uncertainInputsOf(linear->rail.loads));
        } else {
            auto& rotary = std::get<RotaryMechanism>(axis.mechanism);
            append(out, all, {&rotary.boom.counterweight.mass});
            append(out, uncertainInputsOf(rotary.items));
        }
    }
    append(out, uncertainInputsOf(project.payload));
    Base& base = project.base;
    append(out, uncertainInputsOf(base),
           {&base.mass, &base.groundSlope, &base.ballast, &base.sidePush, &base.anchorStrength});
    return out;
}

} // namespace gantry
