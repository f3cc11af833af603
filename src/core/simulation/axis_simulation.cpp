// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulation/axis_simulation.h"

#include "core/simulation/pulse_train.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::simulation {
namespace {

constexpr double preRoll = 0.15; ///< [s] in which the rotor comes to rest under gravity before the move
constexpr double calmed = 2e-3;  ///< [s] in which its swing dies down meanwhile
constexpr std::size_t traceLength = 2000;
constexpr double commandPeriod = 5e-5; ///< [s]; loops look far less often than the integration steps

template <class Drive>
constexpr bool isStepper = std::is_same_v<Drive, StepperDrive>;

template <class Drive>
class Run {
public:
    template <class DriveParams>
    Run(const AxisSimulation& in, const DriveParams& drive)
        : in_(in), h_(in.step), mechanism_(in.mechanism, in.step), drive_(drive, in.step) {
        if (in.commandStep > 0.0) pulses_ = pulseTrain(in.profile, in.commandStep, in.pulseCeiling);
        if constexpr (isStepper<Drive>) teeth_ = drive.rotorTeeth;
        // A train that the ceiling holds back goes on after the profile's own end.
        end_ = std::max(in.profile.time(), pulses_.empty() ? 0.0 : pulses_.back());
    }

    SimulationResult go(double band, const std::stop_token& stop,
                        const std::function<void(double)>& progress) {
        settle();
        const double whole = end_ + in_.tail;
        const auto steps = static_cast<long>(std::ceil(whole / h_));
        const long every = std::max(1L, steps / static_cast<long>(traceLength));
        long due = 1;
        out_.trace.reserve(traceLength + 2);
        const double start = storedEnergy();
        const Energy before = books();
        for (long n = 0; n < steps; ++n) {
            const double now = static_cast<double>(n) * h_;
            if ((n & 0xffff) == 0) {
                if (stop.stop_requested()) return out_;
                if (progress) progress(static_cast<double>(n) / static_cast<double>(steps));
            }
            command(now);
            if (now >= in_.fault.time) fault(now);
            torque_ = drive_.torque(mechanism_.middleAngle(), mechanism_.middleSpeed(), now);
            mechanism_.advance(torque_, fieldSpeed_);
            watch(now);
            if (--due <= 0) {
                record(now);
                due = every;
            }
        }
        record(whole);
        out_.finished = true;
        const Energy after = books();
        out_.energy = {after.supplied - before.supplied, after.copper - before.copper,
                       after.lost - before.lost,         after.lifted - before.lifted,
                       storedEnergy() - start,           after.atStop - before.atStop};
        conclude(band);
        return out_;
    }

private:
    /// The move begins at rest: the load on its flank, the spring wound by gravity, the rotor as far from its
    /// command as that pulls it. Where the drive holds nothing at rest (a motor on a knob), gears or friction
    /// do, and the rotor stays where it is.
    void settle() {
        const double kept = std::exp(-h_ / calmed);
        mechanism_.rest(0.0);
        if constexpr (!std::is_same_v<Drive, KnobDrive>) {
            const auto steps = static_cast<long>(preRoll / h_);
            for (long n = 0; n < steps; ++n) {
                mechanism_.advance(drive_.torque(mechanism_.middleAngle(), mechanism_.middleSpeed(),
                                                 static_cast<double>(n - steps) * h_));
                mechanism_.rest(kept);
            }
            mechanism_.rest(0.0);
        }
        if constexpr (!isStepper<Drive>) drive_.command(mechanism_.state().angle, 0.0);
        zero_ = mechanism_.state().position;
        angleZero_ = mechanism_.state().angle;
        if (in_.fault.kind == FaultKind::EndStop) mechanism_.setStop(zero_ + in_.fault.value);
    }

    void command(double now) {
        if (stopped_) return;
        const bool look = now >= nextCommand_;
        if (look) nextCommand_ = now + commandPeriod;
        if constexpr (isStepper<Drive>) {
            if (look) fieldSpeed_ = in_.profile.at(now).speed / in_.mechanism.outputPerRad;
            while (next_ < pulses_.size() && pulses_[next_] <= now) {
                drive_.pulse(1, now);
                ++next_;
            }
        } else if (look) {
            const motion::MotionState s = in_.profile.at(now);
            double place = s.position;
            if (in_.commandStep > 0.0) {
                while (next_ < pulses_.size() && pulses_[next_] <= now) ++next_;
                place = static_cast<double>(next_) * in_.commandStep;
            }
            drive_.command(angleZero_ + place / in_.mechanism.outputPerRad,
                           s.speed / in_.mechanism.outputPerRad);
        }
    }

    void cutPower() {
        drive_.cutPower();
        mechanism_.loseField();
        fieldSpeed_ = 0.0;
    }

    void fault(double now) {
        switch (in_.fault.kind) {
        case FaultKind::PowerCut:
            if (!stopped_) cutPower();
            stopped_ = true;
            break;
        case FaultKind::EmergencyStop:
            fieldSpeed_ = 0.0;
            if (!stopped_ && in_.fault.value <= 0.0) cutPower();
            if constexpr (!isStepper<Drive>)
                if (!stopped_) drive_.command(mechanism_.state().angle, 0.0);
            stopped_ = true;
            break;
        case FaultKind::Stuck:
            mechanism_.jam();
            break;
        case FaultKind::SupplySag:
            drive_.sag(now < in_.fault.time + 0.5 ? in_.fault.value : 1.0);
            break;
        case FaultKind::EndStop:
        case FaultKind::None:
            break;
        }
    }

    double commanded() const {
        if constexpr (isStepper<Drive>) return drive_.commanded() * in_.mechanism.outputPerRad;
        return (drive_.commanded() - angleZero_) * in_.mechanism.outputPerRad;
    }
    double moved() const { return mechanism_.state().position - zero_; }

    void watch(double now) {
        if constexpr (isStepper<Drive>) {
            const double lag = drive_.commanded() - mechanism_.state().angle;
            const double electrical = teeth_ * lag;
            if (out_.lostAt < 0.0) {
                if (std::abs(electrical) > std::numbers::pi) {
                    out_.lostAt = now;
                    out_.lostSpeed = in_.profile.at(now).speed;
                } else {
                    noteLag(now);
                }
            }
            peakSquared_ = std::max(peakSquared_, drive_.currentSquared());
        } else {
            noteLag(now);
        }
        if (out_.hitSpeed == 0.0 && mechanism_.atStop()) out_.hitSpeed = mechanism_.state().velocity;
        if (now >= end_) {
            const double picture = moved() + mechanism_.state().deflection;
            high_ = std::max(high_, picture);
            low_ = std::min(low_, picture);
        }
    }

    void noteLag(double now) {
        const double lag = std::abs(commanded() - moved());
        if (lag <= out_.peakLag) return;
        out_.peakLag = lag;
        out_.peakLagAt = now;
    }

    void record(double now) {
        const double current = [&] {
            if constexpr (isStepper<Drive>) return std::sqrt(drive_.currentSquared());
            return torque_;
        }();
        out_.trace.push_back({now, commanded(), moved(), moved() + mechanism_.state().deflection, current});
    }

    void conclude(double band) {
        out_.finalError = moved() - commanded();
        out_.rocking = high_ >= low_ ? high_ - low_ : 0.0;
        for (const Sample& s : out_.trace)
            if (std::abs(s.position - s.command) > std::abs(out_.farthest))
                out_.farthest = s.position - s.command;
        if constexpr (isStepper<Drive>) {
            out_.peakCurrent = std::sqrt(peakSquared_);
            const double cycles =
                teeth_ * (drive_.commanded() - mechanism_.state().angle) / (2.0 * std::numbers::pi);
            out_.lostFullSteps = 4 * std::lround(cycles);
            if (out_.lostFullSteps == 0) out_.lostAt = -1.0; // it swung past and came back
        }
        // Backwards from the end until the picture leaves the band.
        if (band > 0.0 && out_.lostAt < 0.0) {
            const double rest = out_.trace.back().picture;
            out_.settled = 0.0;
            for (auto it = out_.trace.rbegin(); it != out_.trace.rend() && it->time >= end_; ++it)
                if (std::abs(it->picture - rest) > 0.5 * band) {
                    out_.settled = it->time - end_;
                    break;
                }
        }
    }
    double storedEnergy() const {
        double e = mechanism_.storedEnergy();
        if constexpr (isStepper<Drive>)
            e += drive_.storedEnergy() + drive_.detentEnergy(mechanism_.state().angle);
        return e;
    }
    Energy books() const {
        const MechanismLedger& m = mechanism_.ledger();
        Energy e;
        e.lost = m.lost;
        e.lifted = m.lifted;
        e.atStop = m.atStop;
        if constexpr (isStepper<Drive>) {
            e.supplied = drive_.ledger().electrical;
            e.copper = drive_.ledger().copper;
        } else {
            e.supplied = m.motorWork;
        }
        return e;
    }

    const AxisSimulation& in_;
    double h_;
    Mechanism mechanism_;
    Drive drive_;
    std::vector<double> pulses_;
    std::size_t next_ = 0;
    double end_ = 0.0, zero_ = 0.0, angleZero_ = 0.0, nextCommand_ = 0.0, torque_ = 0.0, fieldSpeed_ = 0.0;
    double high_ = -1e300, low_ = 1e300, teeth_ = 1.0, peakSquared_ = 0.0;
    bool stopped_ = false;
    SimulationResult out_;
};

template <class Params>
struct DriveOf;
template <>
struct DriveOf<StepperDriveParams> {
    using type = StepperDrive;
};
template <>
struct DriveOf<ServoDriveParams> {
    using type = ServoDrive;
};
template <>
struct DriveOf<KnobDriveParams> {
    using type = KnobDrive;
};
template <>
struct DriveOf<HobbyDriveParams> {
    using type = HobbyDrive;
};

} // namespace

double Energy::imbalance() const {
    const double known = copper + lost + lifted + stored + atStop;
    const double scale = std::max({std::abs(supplied), std::abs(known), 1e-12});
    return (supplied - known) / scale;
}

SimulationResult simulate(const AxisSimulation& in, double band, std::stop_token stop,
                          const std::function<void(double)>& progress) {
    return std::visit(
        [&](const auto& params) {
            using Drive = typename DriveOf<std::decay_t<decltype(params)>>::type;
            return Run<Drive>(in, params).go(band, stop, progress);
        },
        in.drive);
}

} // namespace gantry::simulation
