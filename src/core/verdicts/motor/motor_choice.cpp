// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/motor/frame.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>
#include <cmath>
#include <numbers>

/// Another motor from stock, with the driver that it needs and what it takes to mount it.
namespace gantry::fixes {
namespace {

constexpr Message motorOf{"motor “{part}”"};
constexpr Message smallerBy{"motor “{part}”: {0} lighter, {1} less heat"};
constexpr Message smallerCheaper{"motor “{part}”: {0} lighter, {1} less heat, {2} cheaper"};
constexpr Message knobFor{"a knob or bridge for {0}"};
constexpr Message driverOf{"driver “{part}”"};
constexpr Message fits{"it fits the mount"};
constexpr Message adapter{"an adapter plate: flange {0}, bolts {1} apart, pilot {2}, shaft {3}"};
constexpr Message beltsTo{"belts {0}:1"};
constexpr Message converter{"a switching converter in place of the linear regulator"};

constexpr std::size_t mostTried = 8; ///< motors of a family, the nearest first

double figure(const parts::Part& part, std::string_view key) {
    return parts::numberOf(part, key).value_or(0.0);
}
FixCost costOf(const parts::Part& part) {
    return part.count > 0 ? FixCost::PartOnHand : FixCost::ToBuy;
}

/// Parts of a family that can be had, what is owned first.
std::vector<const parts::Part*> inStock(const Problem& p, std::string_view family) {
    std::vector<const parts::Part*> out;
    for (const std::span<const parts::Part> from : {p.stock.shelf, p.stock.library})
        for (const parts::Part& part : from)
            if (part.family == family && (from.data() != p.stock.shelf.data() || part.count > 0))
                out.push_back(&part);
    return out;
}

/// A motor put in the axis: its mount and its encoder stay, and where it rides on the carriage, its weight
/// rides along.
void putMotor(const Problem& p, Project& q, const parts::Part& part) {
    Axis& axis = p.axisIn(q);
    const Motor old = axis.motor;
    const MotorBody& before = bodyOf(old);
    parts::usePart(q, p.verdict.axis, -1, part);
    std::visit([&](auto& m) { m.body.mount = before.mount; }, axis.motor);
    // An encoder goes onto the next stepper.
    if (const auto* was = std::get_if<Stepper>(&old); was != nullptr)
        if (auto* is = std::get_if<Stepper>(&axis.motor)) is->encoder = was->encoder;
    if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
        if (const auto* belt = std::get_if<BeltOutput>(&linear->output); belt != nullptr && belt->motorRides)
            linear->movingMass.value =
                std::max(0.05, linear->movingMass.value + bodyOf(axis.motor).mass.value - before.mass.value);
}

/// The cheapest driver in stock that gives a current at the rig's voltage; null if none does or it is the
/// one that is there that suffices.
const parts::Part* driverFor(const Problem& p, double current) {
    const parts::Part* best = nullptr;
    for (const parts::Part* d : inStock(p, "driver")) {
        const bool gives =
            figure(*d, "max_current_rms_A") >= current &&
            figure(*d, "max_voltage_V") >= p.project.supply.voltage.value * criteria::driverRating.value;
        if (gives && (best == nullptr ||
                      std::pair(d->count == 0, d->price) < std::pair(best->count == 0, best->price)))
            best = d;
    }
    return best;
}

/// What it takes to mount a motor where another sits: nothing to say where a frame is not known.
void addFit(Candidate& c, const std::string& before, const std::string& after) {
    const std::optional<motor::Frame> was = motor::frameOf(before), is = motor::frameOf(after);
    if (!is || !was) return;
    if (was->flange == is->flange) {
        c.more.push_back({fits, {}, {}, {}});
        return;
    }
    c.more.push_back({adapter,
                      {{{Kind::PartLength, is->flange},
                        {Kind::PartLength, is->boltSquare},
                        {Kind::PartLength, is->pilot},
                        {Kind::PartLength, is->shaft}}},
                      {},
                      {}});
}

/// A stepper from stock with its rated current, from the step driver that is there or from one that gives it.
/// Whether there is one.
bool addStepper(Candidates& out, const Problem& p, const parts::Part& part, Message label,
                words::Arguments shown, auto change) {
    const double rated = figure(part, "rated_current_A");
    const bool enough =
        std::holds_alternative<Stepper>(p.axis().motor) && p.axis().driver.maxCurrent >= rated;
    const parts::Part* driver = enough ? nullptr : driverFor(p, rated);
    if (!enough && driver == nullptr) return false;
    add(out, p, std::max(costOf(part), driver != nullptr ? costOf(*driver) : FixCost::SettingOnly), label,
        shown, [&](Project& q) {
            putMotor(p, q, part);
            if (driver != nullptr) parts::usePart(q, p.verdict.axis, -1, *driver);
            Driver& d = p.axisIn(q).driver;
            d.runCurrent = std::min(rated, rounded(rated, 1.0, false));
            d.holdCurrent = rounded(0.5 * rated, 1.0, false);
            change(q);
        });
    out.back().part = part.name;
    if (driver != nullptr) out.back().more.push_back({driverOf, {}, {}, driver->name});
    addFit(out.back(), nameOf(p.axis().motor), part.name);
    return true;
}

bool chopped(const parts::Part& part) {
    return std::none_of(part.choices.begin(), part.choices.end(), [](const auto& choice) {
        return choice.first == "winding" && choice.second == "unipolar";
    });
}

/// The next larger steppers of the same step, by their holding torque.
Candidates largerSteppers(const Problem& p) {
    Candidates out;
    const auto* now = std::get_if<Stepper>(&p.axis().motor);
    if (now == nullptr) return out;
    std::vector<const parts::Part*> all = inStock(p, "stepper");
    std::erase_if(all, [&](const parts::Part* s) {
        return !chopped(*s) || figure(*s, "rotor_teeth") != now->rotorTeeth ||
               figure(*s, "holding_torque_Nm") <= now->holdingTorque.value * 1.05;
    });
    std::stable_sort(all.begin(), all.end(), [](const parts::Part* a, const parts::Part* b) {
        return figure(*a, "holding_torque_Nm") < figure(*b, "holding_torque_Nm");
    });
    for (const parts::Part* s : all) {
        if (out.size() >= mostTried) break;
        addStepper(out, p, *s, motorOf, {}, [](Project&) {});
    }
    return out;
}

/// Motors of the kind that is there, the nearest in torque or speed first.
Candidates likeMotors(const Problem& p, std::string_view family, std::string_view key, double now,
                      bool less) {
    Candidates out;
    std::vector<const parts::Part*> all = inStock(p, family);
    std::erase_if(all, [&](const parts::Part* s) {
        const double x = figure(*s, key);
        return less ? x >= now * 0.95 : x <= now * 1.05;
    });
    std::stable_sort(all.begin(), all.end(), [&](const parts::Part* a, const parts::Part* b) {
        return less ? figure(*a, key) > figure(*b, key) : figure(*a, key) < figure(*b, key);
    });
    for (const parts::Part* s : all) {
        if (out.size() >= mostTried) break;
        // A brushed motor wants a bridge or a knob that takes what it draws when it stalls.
        const double amps = rounded(figure(*s, "stall_current_A") * criteria::driverRating.value, 0.1, true);
        const bool knob = family == "geared_dc" && amps > p.axis().driver.maxCurrent;
        add(out, p, costOf(*s), motorOf, {}, [&](Project& q) {
            putMotor(p, q, *s);
            if (knob) p.axisIn(q).driver.maxCurrent = amps;
        });
        out.back().part = s->name;
        if (knob) out.back().more.push_back({knobFor, {{{Kind::Current, amps}}}, {}, {}});
    }
    return out;
}

Candidates larger(const Problem& p) {
    const Motor& motor = p.axis().motor;
    if (std::holds_alternative<Stepper>(motor)) return largerSteppers(p);
    if (const auto* m = std::get_if<ServoMotor>(&motor))
        return likeMotors(p, "servo", "rated_torque_Nm", m->ratedTorque.value, false);
    if (const auto* m = std::get_if<DcServo>(&motor))
        return likeMotors(p, "dc_servo", "stall_torque_Nm", m->figures.stallTorque.value, false);
    if (const auto* m = std::get_if<GearedDc>(&motor))
        return likeMotors(p, "geared_dc", "stall_torque_Nm", m->figures.stallTorque.value, false);
    return likeMotors(p, "hobby_servo", "stall_torque_Nm", std::get<HobbyServo>(motor).stallTorque.value,
                      false);
}

/// Brushed motors behind another gear: slower ones where it stutters, faster ones where it does not get
/// there.
Candidates otherSpeeds(const Problem& p) {
    Candidates out;
    const auto* m = std::get_if<GearedDc>(&p.axis().motor);
    if (m == nullptr) return out;
    const double speed = m->figures.noLoadSpeed.value;
    out = likeMotors(p, "geared_dc", "no_load_speed_rad_s", speed, true);
    Candidates faster = likeMotors(p, "geared_dc", "no_load_speed_rad_s", speed, false);
    std::move(faster.begin(), faster.end(), std::back_inserter(out));
    return out;
}

/// Watts that the copper of a stepper turns into heat at a current.
double copperHeat(double current, double resistance) {
    return 2.0 * current * current * resistance;
}

/// Smaller steppers, the smallest first, run at their rated current; with what is saved.
Candidates smaller(const Problem& p) {
    Candidates out;
    const auto* now = std::get_if<Stepper>(&p.axis().motor);
    if (now == nullptr) return out;
    std::vector<const parts::Part*> all = inStock(p, "stepper");
    double price = 0.0;
    for (const parts::Part* s : all)
        if (s->name == now->name) price = s->price;
    std::erase_if(all, [&](const parts::Part* s) {
        return !chopped(*s) || figure(*s, "rotor_teeth") != now->rotorTeeth ||
               figure(*s, "mass_kg") >= now->body.mass.value * 0.95;
    });
    std::stable_sort(all.begin(), all.end(), [](const parts::Part* a, const parts::Part* b) {
        return figure(*a, "holding_torque_Nm") < figure(*b, "holding_torque_Nm");
    });
    for (const parts::Part* s : all) {
        const double heat = copperHeat(p.axis().driver.runCurrent, now->resistance.value) -
                            copperHeat(figure(*s, "rated_current_A"), figure(*s, "resistance_ohm"));
        const double mass = now->body.mass.value - figure(*s, "mass_kg"), money = price - s->price;
        if (!(heat > 0.0)) continue;
        const bool cheaper = price > 0.0 && money > 0.0;
        addStepper(out, p, *s, cheaper ? smallerCheaper : smallerBy,
                   {{{Kind::Mass, mass}, {Kind::Power, heat}, {Kind::Money, cheaper ? money : 0.0}}},
                   [](Project&) {});
    }
    return out;
}

/// Settings down to what the shots need with their room: what another motor took says nothing here.
void settleFor(const Problem& p, Axis& axis) {
    double speed = 0.0, acceleration = 0.0;
    for (const ShotEvaluation& e : p.evaluation().shots) {
        speed = std::max(speed, criteria::shotRoom * e.motion.topSpeed.valueOr(0.0));
        acceleration = std::max(acceleration, criteria::shotRoom * e.motion.acceleration.valueOr(0.0));
    }
    std::visit(
        [&](auto& m) {
            if (speed > 0.0) m.motion.maxSpeed = std::min(m.motion.maxSpeed, speed);
            if (acceleration > 0.0)
                m.motion.maxAcceleration = std::min(m.motion.maxAcceleration, acceleration);
        },
        axis.mechanism);
}

/// A stepper in place of a motor that jumps, stutters or spans too few speeds; on a turning axis with belts
/// of three pulleys' ratios where one is needed.
Candidates steppers(const Problem& p) {
    Candidates out;
    if (std::holds_alternative<Stepper>(p.axis().motor)) return out;
    std::vector<const parts::Part*> all = inStock(p, "stepper");
    std::erase_if(all, [&](const parts::Part* s) {
        return !chopped(*s) || figure(*s, "rotor_teeth") != 50.0 || figure(*s, "holding_torque_Nm") < 0.25;
    });
    std::stable_sort(all.begin(), all.end(), [](const parts::Part* a, const parts::Part* b) {
        return figure(*a, "holding_torque_Nm") < figure(*b, "holding_torque_Nm");
    });
    if (all.size() > 3) all.resize(3);
    for (const int stages : {0, 1, 2})
        for (const parts::Part* s : all) {
            if (p.linear() && stages > 0) continue;
            const double ratio = std::pow(3.0, stages);
            const bool added = addStepper(out, p, *s, motorOf, {}, [&](Project& q) {
                Axis& axis = p.axisIn(q);
                axis.driver.microsteps = 32;
                settleFor(p, axis);
                if (p.linear()) return;
                axis.links.clear();
                for (int i = 0; i < stages; ++i) {
                    BeltStage stage;
                    stage.id = freeId(q, axis.id + "-belt");
                    axis.links.push_back(stage);
                }
            });
            if (!added || stages == 0) continue;
            out.back().cost = FixCost::ToBuy; // the belts are
            out.back().more.push_back({beltsTo, {{{Kind::Count, ratio}}}, {}, {}});
        }
    return out;
}

/// A driver for the voltage and the current that are there.
Candidates otherDriver(const Problem& p) {
    Candidates out;
    const Driver& now = p.axis().driver;
    if (const parts::Part* d = driverFor(p, now.runCurrent * criteria::driverRating.value)) {
        add(out, p, costOf(*d), driverOf, {}, [&](Project& q) { parts::usePart(q, p.verdict.axis, -1, *d); });
        out.back().part = d->name;
    }
    return out;
}

Candidates switching(const Problem& p) {
    Candidates out;
    const auto* m = std::get_if<GearedDc>(&p.axis().motor);
    if (m != nullptr && m->control == SpeedControl::LinearRegulator)
        add(out, p, FixCost::ToBuy, converter, {},
            [](Axis& a) { std::get<GearedDc>(a.motor).control = SpeedControl::SupplyVoltage; });
    return out;
}

constexpr std::array motorTexts{motorOf, knobFor, driverOf, fits, adapter};
constexpr std::array smallerTexts{smallerBy, smallerCheaper, driverOf, fits, adapter};
constexpr std::array stepperTexts{motorOf, driverOf, fits, adapter, beltsTo};

} // namespace

constinit const Family largerMotor{"larger_motor", motorTexts, larger};
constinit const Family smallerMotor{"smaller_motor", smallerTexts, smaller};
constinit const Family otherGearmotor{"other_gearmotor", motorTexts, otherSpeeds};
constinit const Family stepperInstead{"stepper_instead", stepperTexts, steppers};
constinit const Family driverExchange{"driver_exchange", words::listOf<driverOf>, otherDriver};
constinit const Family converterInstead{"converter_instead", words::listOf<converter>, switching};

} // namespace gantry::fixes
