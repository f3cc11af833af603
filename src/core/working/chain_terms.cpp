// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/words/part_name.h"

/// What the columns of the drive-train table hold, as tools/chain_table.h has them.
namespace gantry::working {

using units::Kind;

/// Turns of the motor per turn of the shaft behind `stages` of the stages.
Term AxisSheet::turnsBefore(std::size_t stages) {
    Term out = 1.0;
    for (std::size_t i = 0; i < stages && i < m_.chain.stages.size(); ++i) {
        if (isCoupling(i)) continue;
        out = out.text() == "1" ? stage(i).ratio : out * stage(i).ratio;
    }
    return out;
}

Term AxisSheet::shaftSpeed(std::size_t stages) {
    const Term turns = turnsBefore(stages);
    return turns.text() == "1" ? motorSpeed() : motorSpeed() / turns;
}

Term AxisSheet::shaftCommand(std::size_t stages) {
    const Term turns = turnsBefore(stages);
    return turns.text() == "1" ? commandAngle() : commandAngle() / turns;
}

Term AxisSheet::neededBehind(std::size_t stages) {
    // Uphill or against friction, speeding up: the worst corner of the ramp.
    const Term steady = steadyLoad();
    return throughChain(firstAcceleration(), steady.value() < 0.0 ? -steady : steady, 1.0, false, stages);
}

Term AxisSheet::availableBehind(std::size_t stages) {
    const Term acceleration = firstAcceleration();
    const Term motor = named("α", "acceleration of the motor", "rad/s²", acceleration / travelPerRad());
    // Never less than none: a motor past its speed pulls nothing, it does not push back.
    Term left = named(
        "T_l0", "left of the motor's torque behind its rotor", Kind::Torque,
        max(0.0, torqueAvailable(model().oneSpeed ? Term(0.0) : motorSpeed()) - motorInertia() * motor));
    for (std::size_t i = 0; i < stages; ++i) {
        const StageTerms s = stage(i);
        const Term turns = turnsBefore(i);
        if (s.inertia.value() != 0.0)
            left = max(0.0, left - s.inertia * (turns.text() == "1" ? motor : motor / turns));
        const bool coupling = isCoupling(i);
        const bool lever = linear() && i + 1 == m_.chain.stages.size();
        if (!coupling) left = (lever ? left / outputRadius() : left * s.ratio) * s.efficiency;
        const std::string n = std::to_string(i + 1);
        left = named((lever ? "F_l" : "T_l") + n,
                     "left of it behind the " +
                         words::partName(axis_, i < axis_.links.size() ? static_cast<int>(i) : -1),
                     lever ? Kind::Force : Kind::Torque, left);
    }
    return left;
}

Term AxisSheet::partInertia(ChainPart part, std::size_t stages) {
    // The column of a linear axis' output stands on the shaft before it.
    return stage(part == ChainPart::Output && linear() ? stages : stages - 1).inertia;
}

} // namespace gantry::working
