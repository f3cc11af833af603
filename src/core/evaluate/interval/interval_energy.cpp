// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/checks.h"
#include "core/evaluate/interval/evaluate_interval.h"
#include "core/evaluate/supply/resistance.h"

#include "core/criteria/criteria.h"
#include "core/model/kind_traits.h"
#include "core/motor/hot_copper.h"
#include "core/power/battery.h"
#include "core/results/visitors.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

Figure nothing() {
    return Figure::none(Reason::NotApplicable);
}

/// What an axis takes from the supply [W].
struct MotorDraw {
    double moving = 0.0, holding = 0.0;
    double idleDelay = 0.0; ///< [s] after a stop until its current is lowered
};

/// Windings take their current whether the rotor turns or not. What a loop takes to hold is what gravity asks
/// of it.
MotorDraw drawOf(const IntervalPlan& plan, const Axis& axis, const AxisEvaluation& e) {
    MotorDraw out;
    if (axis.driver.idleDelay > 0.0) out.idleDelay = axis.driver.idleDelay;
    if (const auto* stepper = std::get_if<Stepper>(&axis.motor)) {
        const double ohms = stepper->resistance.value + axis.driver.bridgeResistance.value;
        if (!std::isfinite(ohms)) return out;
        const auto copper = [&](double rms) { return e.model.motors * 2.0 * rms * rms * ohms; };
        out.moving = copper(axis.driver.runCurrent);
        out.holding = plan.wholeSteps ? 0.0 : copper(axis.driver.holdCurrent);
        if (plan.wholeSteps) out.idleDelay = 0.0;
        return out;
    }
    if (const ShotEvaluation* worst = e.worst())
        out.moving = std::max(0.0, worst->torque.electricalPower.valueOr(0.0));
    if (plan.mode == IntervalMode::Pulses) out.idleDelay = 0.0;
    return out;
}

/// Sums over one interval.
class Charge {
public:
    Charge(std::span<const Axis> rig, const IntervalCourse& course, const std::vector<AxisEvaluation>& axes)
        : course_(course), plan_(course.plan()) {
        for (std::size_t a = 0; a < axes.size(); ++a) draws_.push_back(drawOf(plan_, rig[a], axes[a]));
    }
    const MotorDraw& draw(std::size_t axis) const { return draws_[axis]; }

    struct Interval {
        double motors = 0.0, others = 0.0; ///< [J]
        double all() const { return motors + others; }
    };
    Interval of(const IntervalCourse::Step& step) const {
        Interval out;
        const std::int64_t picture = step.picture;
        const double gap = course_.gaps().gap(picture);
        const double moving = plan_.mode == IntervalMode::Runs ? gap : std::min(gap, step.moveTime);
        for (std::size_t a = 0; a < draws_.size(); ++a) out.motors += motor(a, gap, moving);
        double awake = 0.0;
        for (const intervals::CameraTimes& c : course_.cameraTimesAt(picture))
            awake = std::max(awake, c.toReady());
        for (const PlanConsumer& c : plan_.consumers) {
            const double on = std::min(gap, timeOf(c.when, gap, moving, awake, course_.exposureOf(picture)));
            out.others += c.power.value * on + c.otherwise * (gap - on);
        }
        return out;
    }
    /// What is drawn while nothing happens [W], between working days.
    double standing() const {
        double watts = 0.0;
        for (const MotorDraw& d : draws_) watts += d.holding;
        for (const PlanConsumer& c : plan_.consumers)
            watts +=
                c.when == DrawsWhen::Always || c.when == DrawsWhen::Standing ? c.power.value : c.otherwise;
        return watts;
    }
    /// Everything at once [W].
    double peak() const {
        double watts = 0.0;
        for (std::size_t a = 0; a < draws_.size(); ++a)
            watts += course_.moves(a) ? std::max(draws_[a].moving, draws_[a].holding) : draws_[a].holding;
        for (const PlanConsumer& c : plan_.consumers) watts += std::max(c.power.value, c.otherwise);
        return watts;
    }
    /// Mean power of an axis' motors [W] in an interval.
    double motor(std::size_t axis, double gap, double moving) const {
        const MotorDraw& d = draws_[axis];
        if (!course_.moves(axis)) return d.holding * gap;
        const double idle = std::min(d.idleDelay, gap - moving);
        return d.moving * (moving + idle) + d.holding * (gap - moving - idle);
    }

private:
    static double timeOf(DrawsWhen when, double gap, double moving, double awake, double exposure) {
        switch (when) {
        case DrawsWhen::Always:
            return gap;
        case DrawsWhen::Moving:
            return moving;
        case DrawsWhen::Standing:
            return gap - moving;
        case DrawsWhen::Awake:
            return awake;
        case DrawsWhen::Exposing:
            return exposure;
        }
        return gap;
    }

    const IntervalCourse& course_;
    const IntervalPlan& plan_;
    std::vector<MotorDraw> draws_;
};

} // namespace

static intervals::TakenEnergy takenBy(const Charge& charge, const IntervalCourse& c,
                                      std::span<const IntervalCourse::Step> steps) {
    const double efficiency = criteria::supplyEfficiency.value;
    intervals::TakenEnergy out{{steps.front().picture}, {0.0}};
    for (std::size_t i = 0; i < steps.size(); ++i) {
        // From one that is looked at to the next, the last of all included.
        const bool another = i + 1 < steps.size();
        const std::int64_t from = steps[i].picture, to = another ? steps[i + 1].picture : c.pictures() - 1;
        const double first = charge.of(steps[i]).all(),
                     last = another ? charge.of(steps[i + 1]).all() : first;
        const double nights = c.clockAt(to) - c.clockAt(from) - (c.gaps().timeOf(to) - c.gaps().timeOf(from));
        out.pictures.push_back(to);
        out.energy.push_back(out.energy.back() + (0.5 * (first + last) * static_cast<double>(to - from) +
                                                  std::max(0.0, nights) * charge.standing()) /
                                                     efficiency);
    }
    return out;
}

intervals::TakenEnergy energyTaken(const IntervalCourse& course, std::span<const Axis> axes,
                                   const std::vector<AxisEvaluation>& evaluated,
                                   std::span<const IntervalCourse::Step> steps) {
    return takenBy(Charge(axes, course, evaluated), course, steps);
}

/// The last reading of the pack [picture from 0, energy by its voltage]; nothing where there is none that
/// tells anything.
static std::optional<std::pair<double, double>> lastReading(const IntervalPlan& plan,
                                                            const intervals::TakenEnergy& taken,
                                                            const intervals::Pack& pack, double average) {
    const auto last =
        std::max_element(plan.readings.begin(), plan.readings.end(),
                         [](const PackReading& a, const PackReading& b) { return a.picture < b.picture; });
    if (last == plan.readings.end()) return std::nullopt;
    const double at = last->picture - 1.0;
    // Near a full pack a hundredth of a volt decides, so it is not asked.
    constexpr double leastTaken = 0.1;
    if (at > static_cast<double>(taken.pictures.back()) || taken.at(at) < leastTaken * pack.energy)
        return std::nullopt;
    const double share = intervals::takenAtVoltage(pack, last->volts, average);
    if (!std::isfinite(share) || !(share > 0.0)) return std::nullopt;
    return std::pair(at, std::min(share, 1.0) * pack.energy);
}

void fillEnergy(IntervalResults& out, const RigSetup& rig, const IntervalCourse& c,
                const std::vector<AxisEvaluation>& axes, std::span<const IntervalCourse::Step> steps) {
    PlanEnergy& e = out.energy;
    results::failAll(e, Reason::NotApplicable);
    if (steps.empty()) return;
    const Charge charge(rig.axes, c, axes);
    const auto half = std::find_if(steps.begin(), steps.end() - 1, [&](const IntervalCourse::Step& s) {
        return 2 * s.picture >= c.pictures() - 1;
    });
    const IntervalCourse::Step& middle = *half;
    const double gap = c.gaps().gap(middle.picture);
    const Charge::Interval of = charge.of(middle);
    const double efficiency = criteria::supplyEfficiency.value;
    e.perPicture = of.all() / efficiency;
    e.average = of.all() / efficiency / gap;
    e.motors = of.all() > 0.0 ? Figure(of.motors / of.all()) : nothing();

    // Heat of the motors: their own share of what they take, for hours.
    const double moving = c.plan().mode == IntervalMode::Runs ? gap : std::min(gap, middle.moveTime);
    for (std::size_t a = 0; a < axes.size(); ++a) {
        PlanAxisResults& r = out.axes[a];
        r.holdPower = charge.draw(a).holding;
        if (r.moves) r.movePower = charge.draw(a).moving;
        const auto* stepper = std::get_if<Stepper>(&rig.axes[a].motor);
        if (stepper == nullptr) continue;
        const double ohms = stepper->resistance.value + rig.axes[a].driver.bridgeResistance.value;
        const double watts =
            charge.motor(a, gap, moving) / gap / axes[a].model.motors * stepper->resistance.value / ohms;
        const auto warm = motor::hotCopper(
            {watts, 0.0, rig.conditions.ambient, 0.0, bodyOf(rig.axes[a].motor).thermalResistance.value});
        constexpr double beyondAnyMount = 400.0; // [°C]
        r.temperature = Figure::of(std::min(warm ? warm->housing : beyondAnyMount, beyondAnyMount),
                                   axes[a].model.missing);
        r.temperatureLimit = caseLimit(bodyOf(rig.axes[a].motor).mount);
    }

    const intervals::TakenEnergy taken = takenBy(charge, c, steps);
    const double needed = taken.energy.back();
    e.needed = needed;
    const Supply& s = rig.supply;
    const double average = of.all() / efficiency / gap;
    if (!(s.capacity > 0.0) || !(average > 0.0)) return;
    const double current = average / s.voltage.value;
    // What a label promises beyond its capacity at a small current is not counted on.
    const double lasts =
        power::runTime({s.capacity, s.ratedTime, std::max(1.0, s.peukert.value), s.usable}, current);
    const double there = std::min(lasts * current, s.usable * s.capacity) * s.voltage.value;
    e.there = there;
    // Its voltage falls straight, the nominal one in the middle.
    intervals::Pack pack;
    pack.energy = there;
    pack.fullVoltage = 2.0 * s.voltage.value - s.lowVoltage.value;
    pack.emptyVoltage = s.lowVoltage.value;
    pack.resistance = supplyResistance(s);
    const double peak = charge.peak() / efficiency;
    const auto voltageAt = [&](double energy, double power) {
        return intervals::voltageUnder(pack, std::min(1.0, energy / there), power);
    };
    // A straight fall of voltage is too crude to promise more than was computed, but less is believed.
    double more = 1.0;
    if (const auto read = lastReading(c.plan(), taken, pack, average)) {
        more = std::max(1.0, read->second / taken.at(read->first));
        e.read = more;
    }
    e.room = there / (more * needed);
    if (const auto flat = taken.pictureOf(there / more)) {
        e.flatAt = static_cast<double>(*flat) + 1.0;
        e.flatAfter = c.clockAt(*flat) - c.clockAt(0);
    }
    const auto end = voltageAt(more * needed, peak);
    e.endVoltage = end ? Figure(*end) : Figure::none(Reason::SupplyCollapses);
    const auto reaches = [&](double volts) {
        if (!(volts > 0.0)) return nothing();
        const auto at = taken.pictureOf(intervals::takenAtVoltage(pack, volts, peak) * there / more);
        return at ? Figure(static_cast<double>(*at) + 1.0) : nothing();
    };
    e.warnAt = reaches(c.plan().warnVoltage);
    e.parkAt = reaches(c.plan().parkVoltage);
    for (const PackReading& r : c.plan().readings) {
        const double at = std::clamp(r.picture - 1.0, 0.0, static_cast<double>(c.pictures() - 1));
        const auto then = voltageAt(taken.at(at), average);
        out.readingErrors.push_back(then ? Figure(r.volts - *then) : Figure::none(Reason::SupplyCollapses));
    }
}

} // namespace gantry
