// SPDX-License-Identifier: GPL-3.0-or-later
// Closed forms against the simulation in time, over rigs drawn at random: how long the camera swings, how
// fast the picture drifts while the drive's spring winds up, from which speed on a carriage no longer sticks.
// The two share the project and nothing else.
#include "core/evaluate/evaluate.h"
#include "core/motion/rocking.h"
#include "core/rigs/rigs.h"
#include "core/tools/simulation_view.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

using namespace gantry;

namespace {

constexpr double pi = std::numbers::pi;
#ifdef __SANITIZE_ADDRESS__
constexpr int rigsDrawn = 8, wantedAgree = 7; // sanitizers look at how it is computed, Release at what
#else
constexpr int rigsDrawn = 200, wantedAgree = 190;
#endif

class Draw {
public:
    explicit Draw(unsigned seed) : random_(seed) {}
    double between(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random_);
    }
    /// Evenly over its decades.
    double decades(double low, double high) { return std::exp(between(std::log(low), std::log(high))); }

private:
    std::mt19937 random_;
};

LinearMechanism& linear(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}

/// A level slider on a belt with one move; steps so fine that they do not show.
Project slider(Draw& draw, double distance, double speed, double acceleration, double jerk) {
    Project p = rigs::make(rigs::RigKind::BeltSlider);
    p.axes.resize(1);
    p.payload.clear();
    LinearMechanism& m = linear(p);
    m.railLength = distance + 0.6;
    m.slope = estimate(0.0, Source::Measured);
    m.movingMass = estimate(draw.between(1.0, 5.0), Source::Measured);
    m.rail.section.shape = SectionShape::NotGiven;
    m.motion.jerk = jerk;
    p.controller.ramps = jerk > 0.0 ? RampKind::SCurve : RampKind::Trapezoid;
    p.controller.pulseCeiling = 1e6;
    p.axes[0].driver.microsteps = 256;
    std::get<Stepper>(p.axes[0].motor).detentTorque.value = 0.0;
    auto& belt = std::get<BeltOutput>(m.output);
    belt.backlash.value = 0.0;
    p.shots.resize(1);
    p.shots[0].keepFramed = false;
    p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{distance, speed, acceleration}}};
    return p;
}

void friction(Project& p, double running, double breakaway) {
    linear(p).runningFriction = estimate(running, Source::Measured);
    linear(p).staticFriction = estimate(breakaway, Source::Measured);
    linear(p).cableDrag.value = linear(p).disturbance.value = 0.0;
}

struct Run {
    AxisEvaluation axis;
    simulation::AxisSimulation input;
    const ShotEvaluation& shot() const { return axis.shots.at(0); }
};
Run prepared(const Project& p, double step = 1e-5) {
    Run out{evaluate(p).axes[0], {}};
    out.input = simulationOf(p.axes[0], out.axis, out.axis.shots.at(0)).value();
    out.input.step = step;
    return out;
}

} // namespace

class AgreementTest : public QObject {
    Q_OBJECT

    QStringList apart_;
    int agreed_ = 0;

    void compare(const QString& rig, double told, double found, double share, double floor) {
        if (std::abs(told - found) <= std::max(share * std::max(told, found), floor))
            ++agreed_;
        else
            apart_ << QStringLiteral("%1: told %2, simulated %3").arg(rig).arg(told).arg(found);
    }
    void enough() {
        qInfo("%d of %d agree", agreed_, rigsDrawn);
        for (const QString& s : std::as_const(apart_)) qInfo("%s", qPrintable(s));
        QVERIFY(agreed_ >= wantedAgree);
        apart_.clear();
        agreed_ = 0;
    }

private slots:
    /// A camera on mounts of its own swings after the stop.
    void settlingAgrees() {
        Draw draw(1);
        for (int n = 0; n < rigsDrawn; ++n) {
            const double speed = draw.between(0.05, 0.25), acceleration = draw.between(0.2, 1.5);
            const double distance = speed * speed / acceleration + draw.between(0.1, 0.4);
            Project p =
                slider(draw, distance, speed, acceleration, n % 2 == 0 ? 0.0 : draw.between(2.0, 20.0));
            friction(p, draw.between(0.5, 4.0), 0.0);
            linear(p).staticFriction.value = linear(p).runningFriction.value * draw.between(1.0, 1.5);
            // Mounts that are soft against the drive; what is not swings with the drive as one.
            const DriveModel plain = evaluate(p).axes[0].model;
            const double drive =
                std::sqrt(plain.stiffnessWithField() / plain.chain.load.inertia) / (2.0 * pi);
            p.axes[0].vibration.frequency = estimate(draw.between(2.0, 0.3 * drive), Source::Measured);
            p.axes[0].vibration.damping = estimate(draw.between(0.02, 0.12), Source::Measured);
            Run r = prepared(p);
            const double told = r.shot().rocking.settling.value();
            const double swing = 1.0 / p.axes[0].vibration.frequency.value;
            r.input.tail = std::max(1.5 * told, told + 6.0 * swing);
            const double band = p.shots[0].limits.jitter / r.shot().pixelsPerUnit;
            const double found = simulation::simulate(r.input, band).settled;
            // It leaves the band for the last time somewhere within half a swing.
            // Where ramps nearly cancel what they leave, or the mode is near the drive's own, little decides.
            const motion::Profile& move = r.shot().profile;
            const motion::Mode mode = *r.axis.model.mode;
            compare(QStringLiteral("%1 Hz, ζ %2, %3 of the drive's, its ramps leave %4 of the most")
                        .arg(mode.frequency)
                        .arg(mode.damping)
                        .arg(mode.frequency / drive)
                        .arg(motion::rockingAfter(move, mode) / motion::mostRockingAfter(move, mode)),
                    told, found, 0.15, 0.5 * swing);
        }
        enough();
    }
    /// While its acceleration changes, the drive's spring winds up and the picture drifts: by the slope of a
    /// straight line through the lag of a jerk phase, on which the load's own swing is even.
    void driftAgrees() {
        Draw draw(2);
        for (int n = 0; n < rigsDrawn; ++n) {
            const double acceleration = draw.between(0.2, 0.6), phase = draw.between(0.6, 1.0);
            const double speed = acceleration * (phase + draw.between(0.1, 0.3));
            const double ramp = speed / acceleration + phase;
            const double distance = speed * ramp + speed * draw.between(0.1, 0.3);
            Project p = slider(draw, distance, speed, acceleration, acceleration / phase);
            friction(p, 0.5, 0.5);
            std::get<BeltOutput>(linear(p).output).tensileStiffness.value *= draw.decades(0.1, 0.5);
            // A motor whose field follows its command at once, so that only the spring is seen.
            std::get<Stepper>(p.axes[0].motor).inductance.value = 2e-4;
            p.axes[0].driver.microsteps = 64;
            Run r = prepared(p, 5e-6); // as often as the chopper looks
            r.input.tail = 0.1;
            const auto trace = simulation::simulate(r.input).trace;
            // The second jerk phase: in the first one the load has to break away.
            const motion::Ramp& in = r.shot().profile.in;
            const double until = in.time(), from = until - in.jerkTime;
            double count = 0.0, t = 0.0, l = 0.0, tt = 0.0, tl = 0.0;
            for (const simulation::Sample& x : trace) {
                if (x.time < from || x.time > until) continue;
                const double lag = x.command - x.position, time = x.time - from;
                count += 1.0;
                t += time;
                l += lag;
                tt += time * time;
                tl += time * lag;
            }
            const double slope = (count * tl - t * l) / (count * tt - t * t);
            // What disagrees is below a hundredth of a pixel a frame, where microsteps show.
            compare(QStringLiteral("jerk for %1 s").arg(in.jerkTime), r.shot().errors.drift.value(),
                    std::abs(slope) * r.shot().pixelsPerUnit / p.shots[0].frameRate, 0.1, 0.0);
        }
        enough();
    }
    /// Below a speed a carriage sticks again after it has broken away, above it no longer does.
    void stickingAgrees() {
        Draw draw(3);
        for (int n = 0; n < rigsDrawn; ++n) {
            Project p = slider(draw, 0.2, 0.05, 5.0, 0.0);
            const double running = draw.between(0.5, 4.0);
            friction(p, running, running + draw.between(0.5, 4.0));
            p.axes[0].vibration.frequency.value = 0.0;
            p.axes[0].vibration.damping = estimate(draw.between(0.02, 0.1), Source::Measured);
            std::get<BeltOutput>(linear(p).output).tensileStiffness.value *= draw.decades(0.05, 0.3);
            const double told = evaluate(p).axes[0].smoothFrom;
            const auto sticks = [&](double speed) {
                Project at = p;
                const DriveModel m = evaluate(p).axes[0].model;
                const double swing = 2.0 * pi * std::sqrt(m.chain.load.inertia / m.outputStiffness);
                const double away = m.staticFriction / m.outputStiffness;
                // Far enough to break away and swing some times, from a start as abrupt as steps allow.
                const double time = away / speed + 8.0 * swing;
                at.shots[0].moves[0].movement =
                    BySpeed<AxisKind::Linear>{speed * time, speed, speed / (0.05 * away / speed)};
                linear(at).railLength = speed * time + 0.6;
                linear(at).motion.maxAcceleration = 1e4;
                Run r = prepared(at);
                r.input.tail = 0.0;
                const auto trace = simulation::simulate(r.input).trace;
                bool moved = false;
                for (std::size_t i = 1; i < trace.size(); ++i) {
                    if (trace[i].time > r.shot().profile.time() - r.shot().profile.out.time()) break;
                    const double step = trace[i].position - trace[i - 1].position;
                    if (step > 0.1 * speed * (trace[i].time - trace[i - 1].time))
                        moved = true;
                    else if (moved && step <= 0.0)
                        return true;
                }
                return false;
            };
            const bool below = sticks(0.8 * told), above = sticks(1.25 * told);
            if (below && !above)
                ++agreed_;
            else
                apart_ << QStringLiteral("%1: %2 below, %3 above").arg(told).arg(below).arg(above);
        }
        enough();
    }
};

QTEST_APPLESS_MAIN(AgreementTest)
#include "agreement_test.moc"
