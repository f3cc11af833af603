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

/// What may be taken of the pack at so much power on average; nothing on mains. Its voltage falls straight,
/// the nominal one in the middle.
static std::optional<intervals::Pack> packOf(const Supply& s, double average) {
    if (!(s.capacity > 0.0) || !(average > 0.0)) return std::nullopt;
    const double current = average / s.voltage.value;
    // What a label promises beyond its capacity at a small current is not counted on.
    const double lasts =
        power::runTime({s.capacity, s.ratedTime, std::max(1.0, s.peukert.value), s.usable}, current);
    intervals::Pack pack;
    pack.energy = std::min(lasts * current, s.usable * s.capacity) * s.voltage.value;
    pack.fullVoltage = 2.0 * s.voltage.value - s.lowVoltage.value;
    pack.emptyVoltage = s.lowVoltage.value;
    pack.resistance = supplyResistance(s);
    return pack;
}

/// Power [W] on average in the middle of a run.
static double averageOf(const Charge& charge, const IntervalCourse& c, const IntervalCourse::Step& middle) {
    return charge.of(middle).all() / criteria::supplyEfficiency.value / c.gaps().gap(middle.picture);
}

static const IntervalCourse::Step& middleOf(const IntervalCourse& c,
                                            std::span<const IntervalCourse::Step> steps) {
    return *std::find_if(steps.begin(), steps.end() - 1,
                         [&](const IntervalCourse::Step& s) { return 2 * s.picture >= c.pictures() - 1; });
}

namespace {

/// A reading of the pack, as energy [J].
struct Reading {
    double computed = 0.0; ///< that it should have taken by then
    double taken = 0.0;    ///< … and has, by its voltage
};

} // namespace

/// In order of pictures.
static std::vector<Reading> readingsOf(const IntervalPlan& plan, const intervals::TakenEnergy& taken,
                                       const intervals::Pack& pack, double average) {
    std::vector<PackReading> all = plan.readings;
    std::stable_sort(all.begin(), all.end(),
                     [](const PackReading& a, const PackReading& b) { return a.picture < b.picture; });
    std::vector<Reading> out;
    for (const PackReading& r : all) {
        const double at = r.picture - 1.0, share = intervals::takenAtVoltage(pack, r.volts, average);
        if (at <= static_cast<double>(taken.pictures.back()) && std::isfinite(share))
            out.push_back({taken.at(at), std::clamp(share, 0.0, 1.0) * pack.energy});
    }
    return out;
}

/// As much as the readings say is taken, where it is more than was computed: a straight fall of voltage is
/// too crude to promise more. Some picture apart they tell how fast it goes; one alone near the beginning,
/// that the pack was not full.
static intervals::TakenEnergy believed(const std::vector<Reading>& readings, const intervals::Pack& pack,
                                       intervals::TakenEnergy taken) {
    if (readings.empty()) return taken;
    const double apart = 0.1 * pack.energy; // nearer ones tell nothing of how fast it goes
    const Reading& last = readings.back();
    double before = 0.0, faster = 1.0;
    const Reading& first = readings.front();
    if (last.computed - first.computed >= apart) {
        faster = std::max(1.0, (last.taken - first.taken) / (last.computed - first.computed));
        before = std::max(0.0, last.taken - faster * last.computed);
    } else if (last.computed >= apart) {
        faster = std::max(1.0, last.taken / last.computed);
    } else if (last.taken - last.computed >= 0.5 * apart) {
        before = last.taken - last.computed;
    }
    for (double& energy : taken.energy) energy = before + faster * energy;
    return taken;
}

intervals::TakenEnergy energyTaken(const IntervalCourse& course, const RigSetup& rig,
                                   const std::vector<AxisEvaluation>& evaluated,
                                   std::span<const IntervalCourse::Step> steps) {
    const Charge charge(rig.axes, course, evaluated);
    intervals::TakenEnergy taken = takenBy(charge, course, steps);
    const double average = averageOf(charge, course, middleOf(course, steps));
    const auto pack = packOf(rig.supply, average);
    return pack ? believed(readingsOf(course.plan(), taken, *pack, average), *pack, taken) : taken;
}

void fillEnergy(IntervalResults& out, const RigSetup& rig, const IntervalCourse& c,
                const std::vector<AxisEvaluation>& axes, std::span<const IntervalCourse::Step> steps) {
    PlanEnergy& e = out.energy;
    results::failAll(e, Reason::NotApplicable);
    if (steps.empty()) return;
    const Charge charge(rig.axes, c, axes);
    const IntervalCourse::Step& middle = middleOf(c, steps);
    const double gap = c.gaps().gap(middle.picture);
    const Charge::Interval of = charge.of(middle);
    const double efficiency = criteria::supplyEfficiency.value;
    e.perPicture = of.all() / efficiency;
    e.average = of.all() / efficiency / gap;
    e.motors = of.all() > 0.0 ? Figure(of.motors / of.all()) : Figure::none(Reason::NotApplicable);

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
    const double average = averageOf(charge, c, middle);
    const auto pack = packOf(rig.supply, average);
    if (!pack) return;
    const double there = pack->energy;
    e.there = there;
    const std::vector<Reading> readings = readingsOf(c.plan(), taken, *pack, average);
    if (!readings.empty() && readings.back().computed > 0.0)
        e.read = readings.back().taken / readings.back().computed;
    const intervals::TakenEnergy goes = believed(readings, *pack, taken);
    e.room = there / goes.energy.back();
    if (const auto flat = goes.pictureOf(there)) {
        e.flatAt = static_cast<double>(*flat) + 1.0;
        e.flatAfter = c.clockAt(*flat) - c.clockAt(0);
    }
    const double peak = charge.peak() / efficiency;
    const auto voltageAt = [&](double energy, double power) {
        return intervals::voltageUnder(*pack, std::min(1.0, energy / there), power);
    };
    const auto end = voltageAt(goes.energy.back(), peak);
    e.endVoltage = end ? Figure(*end) : Figure::none(Reason::SupplyCollapses);
    const auto reaches = [&](double volts) {
        if (!(volts > 0.0)) return Figure::none(Reason::NotApplicable);
        const auto at = goes.pictureOf(intervals::takenAtVoltage(*pack, volts, peak) * there);
        return at ? Figure(static_cast<double>(*at) + 1.0) : Figure::none(Reason::NotApplicable);
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
