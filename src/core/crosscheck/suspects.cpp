// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/suspects.h"

#include "core/units/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <span>

namespace gantry::crosscheck {
namespace {

using std::numbers::pi;

std::string shown(double value, int decimals = 4) {
    return units::plainNumber(value, decimals);
}

/// Known ways in which numbers get mixed up, as factors between what was typed and what is meant.
struct MixUp {
    double factor;
    std::string_view what;
};
constexpr std::array lengthMixUps{
    MixUp{25.4, "inches typed as millimetres"}, MixUp{1.0 / 25.4, "millimetres typed as inches"},
    MixUp{10.0, "centimetres and millimetres"}, MixUp{0.1, "centimetres and millimetres"}};
constexpr std::array angleMixUps{
    MixUp{180.0 / pi, "degrees typed as radians"}, MixUp{pi / 180.0, "radians typed as degrees"},
    MixUp{1.0 / 360.0, "turns typed as degrees"}, MixUp{360.0, "degrees typed as turns"}};

class SuspectList {
public:
    SuspectList(double computed, double entered, std::vector<Suspect>& out)
        : computed_(computed), entered_(entered), out_(out) {}
    /// `factor`: what the change does to the steps per unit; `what` says it, and is asked only where it fits.
    template <class What>
    void add(double factor, const What& what) {
        const double steps = computed_ * factor, error = std::abs(entered_ / steps - 1.0);
        // Within half a per cent it explains the number; half of where it stands now at least.
        if (error < 0.005 && std::abs(factor - 1.0) > 1e-9)
            out_.push_back({what(), steps, error, 100.0 * entered_ / steps});
    }
    /// A gearhead is sold by a round ratio that its teeth only come near; where the typed number would make
    /// this one such a ratio, that explains it as well as any.
    void addLabel(double ratio) {
        const double meant = ratio * entered_ / computed_;
        if (std::abs(meant / ratio - 1.0) > 1e-4 && std::abs(meant / ratio - 1.0) < labelled)
            any_.push_back({"a gearhead of " + shown(meant, 3) + ":1 instead of " + shown(ratio, 3) +
                                ":1 (labels are rounded: count its teeth, or measure ten turns)",
                            entered_, 0.0, 100.0});
    }
    /// Those that could be any number, behind the others.
    void finish() {
        std::stable_sort(out_.begin(), out_.end(),
                         [](const Suspect& a, const Suspect& b) { return a.error < b.error; });
        out_.insert(out_.end(), any_.begin(), any_.end());
        if (out_.size() > mostSuspects) out_.resize(mostSuspects);
    }

private:
    static constexpr double labelled = 0.06; ///< [1] that a label may miss its gears by
    static constexpr std::size_t mostSuspects = 8;
    double computed_, entered_;
    std::vector<Suspect>& out_;
    std::vector<Suspect> any_;
};

void suspectTeeth(SuspectList& list, const char* what, int teeth, bool raises) {
    for (int t = 8; t <= 120; ++t)
        list.add(raises ? static_cast<double>(t) / teeth : static_cast<double>(teeth) / t, [&] {
            return std::string(what) + " with " + std::to_string(t) + " teeth instead of " +
                   std::to_string(teeth);
        });
}

/// Which figure of a part may be another one. A new kind of part does not compile before it says so too.
struct SuspectParts {
    SuspectList& list;
    const Axis& axis;

    void operator()(const Stepper& m) const {
        for (int steps = 1; steps <= 256; steps *= 2)
            list.add(static_cast<double>(steps) / axis.driver.microsteps, [&] {
                return "1/" + std::to_string(steps) + " microsteps instead of 1/" +
                       std::to_string(axis.driver.microsteps);
            });
        for (const int teeth : {25, 50, 100})
            list.add(static_cast<double>(teeth) / m.rotorTeeth, [&] {
                return "a motor with " + shown(90.0 / teeth, 2) + "° a step instead of " +
                       shown(90.0 / m.rotorTeeth, 2) + "°";
            });
    }
    void operator()(const ServoMotor&) const {}
    void operator()(const DcServo&) const {}
    void operator()(const GearedDc&) const {}
    void operator()(const HobbyServo&) const {}

    void operator()(const BeltOutput& belt) const {
        suspectTeeth(list, "a pulley", belt.teeth, false);
        for (const double pitch : {0.002, 0.002032, 0.0025, 0.003, 0.005, 0.00508})
            list.add(belt.pitch.value / pitch, [&] {
                return "a belt pitch of " + shown(pitch * 1e3) + " mm instead of " +
                       shown(belt.pitch.value * 1e3) + " mm";
            });
        list.add(belt.doubled ? 0.5 : 2.0,
                 [&] { return belt.doubled ? "a belt that is not doubled" : "a belt that is doubled"; });
    }
    void operator()(const ScrewOutput& screw) const {
        for (const double lead : {0.001, 0.0015, 0.002, 0.003, 0.004, 0.005, 0.008, 0.010, 0.012, 0.016})
            list.add(screw.lead.value / lead, [&] {
                return "a lead of " + shown(lead * 1e3) + " mm instead of " + shown(screw.lead.value * 1e3) +
                       " mm";
            });
    }
    void operator()(const RackOutput& rack) const { suspectTeeth(list, "a pinion", rack.teeth, false); }
    void operator()(const WheelOutput&) const {}
    void operator()(const WinchOutput&) const {}
    void operator()(const DirectOutput&) const {}
    void operator()(const RingOutput& ring) const {
        suspectTeeth(list, "a pinion", ring.pinionTeeth, false);
        for (int t = 60; t <= 300; t += 2)
            list.add(static_cast<double>(t) / ring.ringTeeth, [&] {
                return "a ring with " + std::to_string(t) + " teeth instead of " +
                       std::to_string(ring.ringTeeth);
            });
    }
    void operator()(const LensRingOutput&) const {}

    void operator()(const BeltStage& belt) const {
        suspectTeeth(list, "a motor pulley", belt.motorTeeth, false);
        suspectTeeth(list, "a load pulley", belt.loadTeeth, true);
    }
    void operator()(const GearStage& gear) const {
        suspectTeeth(list, "a motor gear", gear.motorTeeth, false);
        suspectTeeth(list, "a load gear", gear.loadTeeth, true);
    }
    void operator()(const PlanetaryStage& planetary) const {
        const double one = 1.0 + static_cast<double>(planetary.ringTeeth) / planetary.sunTeeth;
        list.addLabel(std::pow(one, planetary.stages));
    }
    void operator()(const StrainWaveStage&) const {}
    void operator()(const WormStage&) const {}
    void operator()(const ReducerStage& reducer) const {
        list.addLabel(static_cast<double>(reducer.numerator) / reducer.denominator);
    }
    void operator()(const RollerStage&) const {}
    void operator()(const Coupling&) const {}
};

/// A train of gears whose whole ratio was taken from its label.
void suspectTrain(SuspectList& list, const Axis& axis) {
    double train = 1.0;
    int meshes = 0;
    for (const Link& link : axis.links)
        if (const auto* gear = std::get_if<GearStage>(&link)) {
            train *= static_cast<double>(gear->loadTeeth) / gear->motorTeeth;
            ++meshes;
        }
    if (meshes >= 2 && std::abs(train - std::round(train)) > 1e-6)
        list.add(std::round(train) / train, [&] {
            return "gears of " + shown(std::round(train), 0) + ":1, as a label rounds them, instead of " +
                   shown(train, 4) + ":1";
        });
}

void suspectsOf(SuspectList& list, const Axis& axis) {
    const SuspectParts suspects{list, axis};
    suspectTrain(list, axis);
    std::visit(suspects, axis.motor);
    std::visit([&](const auto& mechanism) { std::visit(suspects, mechanism.output); }, axis.mechanism);
    for (const Link& link : axis.links) std::visit(suspects, link);
    for (const MixUp& m : kindOf(axis) == AxisKind::Linear ? std::span<const MixUp>(lengthMixUps)
                                                           : std::span<const MixUp>(angleMixUps))
        list.add(m.factor, [&] { return std::string(m.what); });
}

} // namespace

StepsFinding explainSteps(const Axis& axis, const AxisEvaluation& e, double entered) {
    StepsFinding out;
    out.computed = e.steps.stepsPerUnit;
    out.entered = entered;
    if (!e.steps.stepsPerUnit || !(entered > 0.0)) return out;
    out.movesForOne = entered / e.steps.stepsPerUnit.value();
    if (std::abs(out.movesForOne - 1.0) < 1e-6) return out;
    SuspectList list(e.steps.stepsPerUnit.value(), entered, out.suspects);
    suspectsOf(list, axis);
    list.finish();
    return out;
}

std::string bestSuspect(const Axis& axis, const AxisEvaluation& e, double entered) {
    const StepsFinding f = explainSteps(axis, e, entered);
    return f.suspects.empty() ? std::string() : f.suspects.front().what;
}

} // namespace gantry::crosscheck
