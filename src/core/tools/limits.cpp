// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/limits.h"

#include "core/motor/at_once.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/drive/checks.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/model/kind_traits.h"
#include "core/model/overload.h"
#include "core/motor/stepper_motion.h"
#include "core/solve/root.h"
#include "core/tools/near_people.h"
#include "core/units/names.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;
constexpr double slowest = 1e-12; // [U/s] below which a speed means nothing

/// Largest acceleration along the ramp to a speed with a margin of its own, at a supply voltage.
double accelerationWith(const DriveModel& model, double margin, double speed) {
    DriveModel m = model;
    m.wantedMargin = margin;
    return m.largestAcceleration(speed);
}

/// Largest speed at which the torque still gives the wanted margin with an acceleration.
double torqueSpeed(const DriveModel& m, double acceleration, double ceiling, bool lowVoltage) {
    const auto enough = [&](double speed) {
        const double motorSpeed = speed / m.outputPerRad;
        const double available = lowVoltage ? m.availableAtLowVoltage(motorSpeed) : m.available(motorSpeed);
        return available >= m.wantedMargin * m.rampTorque(speed, acceleration);
    };
    return solve::largestWhere(enough, 0.0, ceiling).value_or(0.0);
}

void ascending(std::vector<Limit>& limits) {
    std::erase_if(limits, [](const Limit& l) { return !std::isfinite(l.value); });
    std::stable_sort(limits.begin(), limits.end(),
                     [](const Limit& a, const Limit& b) { return a.value < b.value; });
}

class Builder {
public:
    Builder(const Project& project, const Axis& axis, const AxisEvaluation& e)
        : project_(project), axis_(axis), e_(e), m_(e.model) {}

    AxisLimits build() {
        if (m_.missing != Reason::None) {
            out_.problem = m_.missing;
            return out_;
        }
        out_.mode = m_.mode;
        out_.modeMeasured = axis_.vibration.frequency.value > 0.0;
        fillDemand();
        fillSpeeds();
        fillRecommendedSpeed();
        fillAccelerations();
        fillJerk();
        markShots();
        fillStops();
        fillSlowMotion();
        fillBands();
        fillEnvelope();
        return out_;
    }

private:
    void fillDemand() {
        for (const ShotEvaluation& s : e_.shots) {
            if (s.problem != Reason::None) continue;
            if (!s.motion.topSpeed || !s.motion.acceleration) continue;
            const double speed = s.motion.topSpeed.value(), acceleration = s.motion.acceleration.value();
            fastest_ = std::max(fastest_, speed);
            steepest_ = std::max(steepest_, acceleration);
            out_.shots.push_back({s.shot, speed, acceleration, std::nullopt});
        }
    }

    void fillSpeeds() {
        const double demanded = steepest_ > 0.0 ? steepest_ : m_.settings.acceleration;
        double ceiling = m_.pulses ? e_.pulseLimitSpeed.valueOr(0.0) * 4.0 : 1e5 * m_.outputPerRad;
        if (e_.checks.motorTopSpeed) ceiling = std::min(ceiling, e_.checks.motorTopSpeed.value());
        auto& s = out_.speed;
        s.push_back({LimitReason::Torque, torqueSpeed(m_, demanded, ceiling, false)});
        s.push_back({LimitReason::LowBattery, torqueSpeed(m_, demanded, ceiling, true)});
        if (e_.pulseLimitSpeed) s.push_back({LimitReason::PulseRate, e_.pulseLimitSpeed.value()});
        if (e_.checks.motorTopSpeed) s.push_back({LimitReason::MotorTop, e_.checks.motorTopSpeed.value()});
        if (e_.checks.whirlSpeed)
            s.push_back({LimitReason::Whirl, criteria::whirlShare * e_.checks.whirlSpeed.value()});
        addPartSpeeds();
        const PeopleCaps people = capsNearPeople(project_, axis_, e_);
        if (people.bySpeed) s.push_back({LimitReason::PeopleSpeed, people.bySpeed.value()});
        if (people.byEnergy) s.push_back({LimitReason::PeopleEnergy, people.byEnergy.value()});
        double judder = 0.0;
        for (const ShotEvaluation& shot : e_.shots) {
            if (!shot.picture.crossingTime || !less(0.0, shot.motion.topSpeed)) continue;
            const Shot& asked = project_.shots[shot.shot.at()];
            const double least =
                asked.limits.crossingTime * std::min(1.0, criteria::judderRate / asked.frameRate);
            // The gentlest shot decides: it stays watchable however the others are framed.
            const double speed = shot.motion.topSpeed.value() * shot.picture.crossingTime.value() / least;
            judder = std::max(judder, speed);
        }
        if (judder > 0.0) s.push_back({LimitReason::Judder, judder});
        ascending(s);
        // What a picture asks is advice; the machine's own limit binds.
        for (const Limit& l : s)
            if (l.reason != LimitReason::Judder) {
                out_.largest.speed = l.value;
                break;
            }
    }

    /// Speeds at the pitch circle that makers allow.
    void addPartSpeeds() {
        double turns = 1.0; // of the motor per turn of the shaft in hand
        const auto add = [&](double radius, double fastest) {
            out_.speed.push_back({LimitReason::PartSpeed, fastest / radius * turns * m_.outputPerRad});
        };
        for (std::size_t i = 0; i < axis_.links.size() && i < m_.chain.stages.size(); ++i) {
            std::visit(
                overload{[&](const GearStage& g) {
                             add(0.5 * g.motorTeeth * g.module,
                                 metal(g.material) ? criteria::metalToothSpeed : criteria::softToothSpeed);
                         },
                         [&](const BeltStage& b) {
                             add(b.motorTeeth * b.pitch.value / (2.0 * pi), criteria::beltSpeed);
                         },
                         // Closed gearheads have a speed of their own; the rest has no teeth to fly off.
                         [](const PlanetaryStage&) {}, [](const StrainWaveStage&) {}, [](const WormStage&) {},
                         [](const ReducerStage&) {}, [](const RollerStage&) {}, [](const Coupling&) {}},
                axis_.links[i]);
            turns *= m_.chain.stages[i].ratio;
        }
        const auto limit = [&](double fastest) { out_.speed.push_back({LimitReason::PartSpeed, fastest}); };
        const overload outputs{[&](const BeltOutput&) { limit(criteria::beltSpeed); },
                               [&](const RackOutput&) { limit(criteria::metalToothSpeed); },
                               [](const ScrewOutput&) {}, // it whirls before
                               [](const WheelOutput&) {}, [](const WinchOutput&) {},
                               [](const DirectOutput&) {},
                               // Rings turn far slower than their teeth could.
                               [](const RingOutput&) {}, [](const LensRingOutput&) {}};
        std::visit([&](const auto& mechanism) { std::visit(outputs, mechanism.output); }, axis_.mechanism);
    }

    void fillRecommendedSpeed() {
        const double largest = out_.largest.speed;
        if (fastest_ <= 0.0) {
            out_.recommended.speed = criteria::speedShare * largest;
            return;
        }
        // Torque falls with speed: no more room above the shots than leaves them their ramps.
        const double roomy = std::min(largest, criteria::shotRoom * fastest_);
        DriveModel low = m_;
        low.curve = motor::atVoltage(m_.curve, m_.lowVoltage);
        const auto ramps = [&](double v) {
            return m_.largestAcceleration(v) >= steepest_ && low.largestAcceleration(v) >= steepest_;
        };
        out_.recommended.speed =
            roomy > fastest_ ? solve::largestWhere(ramps, fastest_, roomy).value_or(fastest_) : roomy;
    }

    /// The ramps that a mode asks for, unless the shots could not run with them any more.
    void tuneAcceleration(double tuned) {
        double needed = 0.0; // of the shots that can run at all
        for (const StripShot& s : out_.shots)
            if (s.acceleration <= out_.largest.acceleration) needed = std::max(needed, s.acceleration);
        if (tuned >= needed * (1.0 - 1e-9)) out_.recommended.acceleration = tuned;
    }

    void markShots() {
        for (StripShot& s : out_.shots) {
            s.tooFast = s.speed > out_.recommended.speed * (1.0 + 1e-6);
            s.tooHard = s.acceleration > out_.recommended.acceleration * (1.0 + 1e-6);
        }
    }

    void fillAccelerations() {
        const double v = out_.recommended.speed;
        auto& a = out_.acceleration;
        a.push_back({LimitReason::Torque, m_.largestAcceleration(v)});
        DriveModel low = m_;
        low.curve = motor::atVoltage(m_.curve, m_.lowVoltage);
        a.push_back({LimitReason::LowBattery, low.largestAcceleration(v)});
        addParts();
        for (const ShotEvaluation& s : e_.shots)
            if (s.slackDeceleration && s.slackDeceleration.value() > 0.0)
                a.push_back({LimitReason::CordSlack, s.slackDeceleration.value() / criteria::cordSlack});
        if (out_.mode) {
            const double w = 2.0 * pi * out_.mode->frequency;
            double gentle = std::numeric_limits<double>::infinity();
            for (const ShotEvaluation& s : e_.shots)
                if (s.pixelsPerUnit > 0.0)
                    gentle =
                        std::min(gentle, project_.shots[s.shot.at()].limits.jitter * w * w / s.pixelsPerUnit);
            a.push_back({LimitReason::RampPicture, gentle});
        }
        if (const auto tips = tippingLimit()) a.push_back({LimitReason::Tipping, *tips});
        ascending(a);
        for (const Limit& l : a)
            if (l.reason != LimitReason::RampPicture) { // it leans, but a smooth ramp leans smoothly
                out_.largest.acceleration = l.value;
                break;
            }
        const double wanted = steepest_ > 0.0 ? criteria::shotRoom * steepest_
                                              : criteria::accelerationShare * out_.largest.acceleration;
        out_.recommended.acceleration = std::min(out_.largest.acceleration, wanted);
    }

    std::optional<double> tippingLimit() const {
        const Axis* axis = findAxis(project_, axis_.id);
        if (axis == nullptr) return std::nullopt;
        return accelerationBeforeTipping(setupOf(project_, Courses::No),
                                         static_cast<std::size_t>(axis - project_.axes.data()), e_);
    }

    /// Parts stand a force; what is left of it after the steady one accelerates the load.
    void addParts() {
        if (m_.chain.load.inertia <= 0.0) return;
        // The loads of the parts are those of this demand, and go with it.
        const HardestDemand demand = hardestDemand(e_);
        const double checked = loadForce(m_, demand);
        const double steady = std::abs(m_.chain.load.steady) + demand.carried + m_.chain.load.coulomb;
        for (const PartCheck& p : e_.checks.parts) {
            if (!p.allowed || !p.load || p.load.value() <= 0.0) continue;
            const double force = checked * p.allowed.value() / p.load.value() / wantedOf(p);
            // A part that does not even stand the steady force with its factor leaves nothing.
            out_.acceleration.push_back({p.slip ? LimitReason::Slip : LimitReason::PartStrength,
                                         std::max(0.0, (force - steady) / m_.chain.load.inertia)});
        }
    }
    /// The factor with which a part's rule calls it fine.
    double wantedOf(const PartCheck& part) const {
        if (part.slip) return criteria::grip;
        const bool cord = part.link < 0 && outputTraits(axis_).pullsOnly;
        return cord ? criteria::cordFactor * criteria::cordStrength : criteria::toothStrength.value;
    }

    void fillJerk() {
        const bool sCurve = project_.controller.ramps == RampKind::SCurve;
        // Two jerk phases of a period each reach no more than a T₀: a slower top speed takes less
        // acceleration, or the phases would come out shorter than the period.
        if (out_.mode && sCurve)
            tuneAcceleration(
                std::min(out_.recommended.acceleration, out_.recommended.speed * out_.mode->frequency));
        if (out_.mode) {
            out_.jerk.push_back(
                {LimitReason::OnePeriod, out_.recommended.acceleration * out_.mode->frequency});
            if (sCurve) out_.recommended.jerk = out_.largest.jerk = out_.jerk.front().value;
        } else if (sCurve) {
            // Nothing known rocks: half of each ramp in jerk phases.
            const double ramp = out_.recommended.speed / std::max(slowest, out_.recommended.acceleration);
            out_.recommended.jerk = out_.recommended.acceleration / std::max(slowest, 0.25 * ramp);
        }
        switch (project_.controller.ramps) {
        case RampKind::None:
            out_.ramps = RampAdvice::NoRamps;
            break;
        case RampKind::Trapezoid:
            out_.ramps = out_.mode ? RampAdvice::TunedTrapezoid : RampAdvice::Trapezoid;
            break;
        case RampKind::SCurve:
            out_.ramps = out_.mode ? RampAdvice::TunedSCurve : RampAdvice::SCurve;
            break;
        }
        if (out_.ramps == RampAdvice::TunedTrapezoid && out_.recommended.acceleration > 0.0) {
            const double periods =
                             out_.recommended.speed / out_.recommended.acceleration * out_.mode->frequency,
                         perPeriod = out_.recommended.speed * out_.mode->frequency;
            // Softer by the next whole number of periods; harder by the one before, if the shots need it and
            // the axis stands it.
            const double harder = std::floor(periods + 1e-9);
            if (harder >= 1.0 && perPeriod / harder <= out_.largest.acceleration)
                tuneAcceleration(perPeriod / harder);
            tuneAcceleration(perPeriod / std::max(1.0, std::ceil(periods - 1e-9)));
        }
    }

    void fillStops() {
        const Triple& r = out_.recommended;
        if (r.speed > slowest && r.acceleration > slowest) {
            out_.stoppingOrdinary =
                Figure::of(motion::stoppingDistance(r.speed, {r.speed, r.acceleration, r.jerk}));
            const double most = accelerationWith(m_, 1.0, r.speed);
            out_.stoppingEmergency = Figure::of(r.speed * r.speed / (2.0 * most), Reason::OutOfRange);
        }
        if (const motor::StepperParams* p = m_.stepper()) {
            const double friction = m_.chain.load.coulomb * m_.outputPerRad;
            const double load = m_.gravityAtMotor() + friction;
            const double jump =
                motor::catchSpeed(p->rotorTeeth, m_.motors * m_.torqueAmplitude / m_.wantedMargin, load,
                                  e_.inertiaAtMotor.valueOr(0.0)) *
                m_.outputPerRad;
            out_.startStop = Figure::of(std::min(jump, out_.largest.speed));
            // Half of it, and no more than what leaves the camera rocking by half the jitter limit: Δv/ω each
            // way.
            double step = criteria::instantStepShare * out_.startStop.valueOr(0.0);
            if (out_.mode)
                for (const ShotEvaluation& s : e_.shots)
                    if (s.pixelsPerUnit > 0.0)
                        step = std::min(step, 0.25 * project_.shots[s.shot.at()].limits.jitter /
                                                  s.pixelsPerUnit * 2.0 * pi * out_.mode->frequency);
            if (project_.controller.ramps != RampKind::SCurve) out_.instantStep = Figure::of(step);
        }
    }

    void fillSlowMotion() {
        const motor::StepperParams* p = m_.stepper();
        double px = 0.0;
        for (const ShotEvaluation& s : e_.shots) px = std::max(px, s.pixelsPerUnit);
        // From static to running friction springs and field give way by the difference, and swing as far
        // beyond.
        const double less = m_.staticFriction - m_.chain.load.coulomb;
        const double field = (m_.lag(m_.staticFriction * m_.outputPerRad, 0.0) -
                              m_.lag(m_.chain.load.coulomb * m_.outputPerRad, 0.0)) *
                             m_.outputPerRad;
        out_.stickSlipPixels = Figure::of(2.0 * (less / m_.outputStiffness + field) * px);
        if (p == nullptr) {
            if (m_.commandAngle > 0.0) out_.finestMove = Figure::of(m_.jump());
            return;
        }
        const double amplitude = m_.motors * m_.torqueAmplitude;
        const double friction = m_.staticFriction * m_.outputPerRad;
        const double band = 2.0 * motor::rotorLag(p->rotorTeeth, amplitude, friction);
        out_.finestMove = Figure::of(std::max(m_.commandAngle, band) * m_.outputPerRad);
        // A microstep as large as half the band that friction holds, or as the error of a full step, is fine
        // enough: beyond that the rotor does not know the difference.
        const double noticed = std::max({0.5 * band, m_.angleError, 1e-6});
        int useful = 1;
        while (useful < 256 && m_.fullStepAngle / useful > noticed) useful *= 2;
        out_.usefulMicrosteps = useful;
        out_.ripplePixels =
            Figure::of(2.0 * motor::rotorLag(p->rotorTeeth, amplitude, m_.motors * m_.detentTorque) *
                       m_.outputPerRad * px);
        out_.powerUpPixels = Figure::of(2.0 * m_.fullStep() * px);
    }

    void fillBands() {
        const auto add = [&](BandReason reason, double low, double high) {
            if (std::isfinite(low) && std::isfinite(high) && high > low && low >= 0.0)
                out_.bands.push_back({reason, low, high});
        };
        if (m_.stepper()) {
            add(BandReason::RotorResonance, e_.resonance.low.valueOr(0.0), e_.resonance.high.valueOr(0.0));
            add(BandReason::RotorOnDrive, e_.resonance.secondLow.valueOr(0.0),
                e_.resonance.secondHigh.valueOr(0.0));
            if (out_.mode)
                add(BandReason::FullStepsOnMode, 0.9 * m_.fullStep() * out_.mode->frequency,
                    1.1 * m_.fullStep() *
                        out_.mode
                            ->frequency); // Microsteps only where they are large enough to be seen ringing.
            if (out_.mode && largestStepPixels() > 0.1)
                add(BandReason::MicrostepsOnMode, 0.9 * m_.microstep() * out_.mode->frequency,
                    1.1 * m_.microstep() * out_.mode->frequency);
            if (project_.conditions.silence != Silence::Any)
                add(BandReason::Noise, 100.0 * m_.fullStep(), 5000.0 * m_.fullStep());
        }
        // Slower than one step a frame, steps larger than the jitter limit are seen one by one.
        double visible = 0.0;
        for (const ShotEvaluation& s : e_.shots) {
            const Shot& shot = project_.shots[s.shot.at()];
            if (m_.commandAngle > 0.0 && m_.jump() * s.pixelsPerUnit > shot.limits.jitter)
                visible = std::max(visible, m_.jump() * shot.frameRate);
        }
        if (visible > 0.0) add(BandReason::VisibleSteps, 0.0, visible);
        for (StripShot& s : out_.shots) s.better = outside(s.speed);
    }
    double largestStepPixels() const {
        double px = 0.0;
        for (const ShotEvaluation& s : e_.shots) px = std::max(px, m_.microstep() * s.pixelsPerUnit);
        return px;
    }

    std::optional<double> outside(double speed) const {
        const auto inside = [&](double v) {
            return std::any_of(out_.bands.begin(), out_.bands.end(),
                               [&](const SpeedBand& b) { return v > b.low && v < b.high; });
        };
        if (!inside(speed)) return std::nullopt;
        std::optional<double> best;
        for (const SpeedBand& b : out_.bands)
            for (const double v : {0.98 * b.low, 1.02 * b.high}) {
                if (v <= slowest || v > out_.largest.speed || inside(v)) continue;
                if (!best || std::abs(std::log(v / speed)) < std::abs(std::log(*best / speed))) best = v;
            }
        return best;
    }

    void fillEnvelope() {
        constexpr int points = 48;
        const double top = std::max(out_.largest.speed, fastest_) * 2.0;
        if (!(top > slowest)) return;
        const double low = std::min(top / 300.0, fastest_ > 0.0 ? 0.5 * slowestShot() : top);
        for (int i = 0; i < points; ++i) {
            const double v = low * std::pow(top / low, static_cast<double>(i) / (points - 1));
            const double hardest = accelerationWith(m_, 1.0, v);
            out_.envelope.push_back({v, hardest, m_.largestAcceleration(v),
                                     motion::stoppingDistance(v, m_.settings),
                                     hardest > 0.0 ? v * v / (2.0 * hardest) : 0.0});
        }
    }
    double slowestShot() const {
        double v = fastest_;
        for (const StripShot& s : out_.shots)
            if (s.speed > slowest) v = std::min(v, s.speed);
        return v;
    }

    const Project& project_;
    const Axis& axis_;
    const AxisEvaluation& e_;
    const DriveModel& m_;
    AxisLimits out_;
    double fastest_ = 0.0, steepest_ = 0.0;
};

} // namespace

AxisLimits axisLimits(const Project& project, const Axis& axis, const AxisEvaluation& evaluation) {
    return Builder(project, axis, evaluation).build();
}

std::vector<Triple> alike(const std::vector<AxisLimits>& limits) {
    double time = 0.0;
    for (const AxisLimits& l : limits)
        if (l.problem == Reason::None && l.recommended.acceleration > slowest)
            time = std::max(time, l.recommended.speed / l.recommended.acceleration);
    std::vector<Triple> out;
    for (const AxisLimits& l : limits) {
        Triple t;
        if (l.problem == Reason::None && time > 0.0) {
            t = l.recommended;
            const double before = t.acceleration;
            t.acceleration = t.speed / time;
            // The same share of each ramp in jerk phases, and never shorter ones than the axis' own.
            if (before > 0.0) t.jerk *= t.acceleration / before;
        }
        out.push_back(t);
    }
    return out;
}

std::string_view limitName(LimitReason reason) {
    return units::nameOf<LimitReason::OnePeriod>(
        reason, "torque", "torque at low supply", "pulse rate", "motor's top speed", "screw whip", "judder",
        "people near", "energy near people", "speed of belts and teeth", "strength of a part", "slip",
        "slack cord", "tipping", "vibration in the ramp", "one period of vibration");
}

} // namespace gantry
