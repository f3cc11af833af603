// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/kind_traits.h"
#include "core/motion/rocking.h"
#include "core/motor/stepper_motion.h"
#include "core/optics/picture.h"
#include "support/every_rig.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;

/// What is told of a shot, held on every rig that ships to the laws that it must obey: worked from the
/// profile and the drive, the other way round where there is one.
class ShotLawsTest : public QObject {
    Q_OBJECT
    using Case = EveryRig::Case;
    const EveryRig rigs_;

    /// The load with what the axes below bring to it in this shot.
    static drivetrain::Chain chainIn(const Case& c) {
        drivetrain::Chain chain = c.e.model.chain;
        if (c.shot.carried.value() > 0.0)
            chain.load.steady = std::abs(chain.load.steady) + c.shot.carried.value();
        return chain;
    }

private slots:
    void motion() {
        rigs_.everyShot([](const Case& c) {
            const DriveModel& m = c.e.model;
            const ShotMotion& x = c.shot.motion;
            const motion::Profile& p = c.shot.profile;
            if (!c.shot.follows) {
                // Walked through: the largest speed, acceleration and way are those that are told.
                double speed = 0.0, acceleration = 0.0;
                for (int i = 0; i <= 4000; ++i) {
                    const motion::MotionState at = p.at(p.time() * i / 4000);
                    speed = std::max(speed, at.speed);
                    acceleration = std::max(acceleration, std::abs(at.acceleration));
                }
                QVERIFY2(isNear(x.topSpeed.value(), speed, 1e-3) && speed <= x.topSpeed.value() * (1 + 1e-9),
                         c.name);
                QVERIFY2(acceleration <= x.acceleration.value() * (1 + 1e-9) &&
                             acceleration > 0.9 * x.acceleration.value(),
                         c.name);
                QVERIFY2(isNear(x.time.value(), p.time(), 1e-12), c.name);
                QVERIFY2(isNear(p.at(p.time()).position, p.distance, 1e-9), c.name);
                if (!stepwise(c.entered()))
                    QVERIFY2(isNear(c.shot.distance.value(), p.distance, 1e-9), c.name);
            }
            // Braking from its top speed covers what the ramp out covers.
            const double braking = p.distance - p.at(p.time() - p.out.time()).position;
            QVERIFY2(isNear(x.stoppingDistance.value(), braking * x.topSpeed.value() / p.peakSpeed, 1e-6),
                     c.name);
            // With an empty drum a motor turns faster.
            const double full = x.topSpeed.value() * m.layerSpread();
            QVERIFY2(isNear(x.motorSpeed.value() * m.outputPerRad, full, 1e-12), c.name);
            if (m.pulses)
                QVERIFY2(isNear(c.shot.pulseRate.value() * m.microstep(), full, 1e-12), c.name);
            else
                QVERIFY2(c.shot.pulseRate.reason() == Reason::NotApplicable, c.name);
        });
    }
    /// The largest torque of a walk through the shot both ways, and its mean square.
    void torque() {
        int walked = 0, followed = 0;
        rigs_.everyShot([&](const Case& c) {
            const DriveModel& m = c.e.model;
            const ShotTorque& t = c.shot.torque;
            const drivetrain::Chain chain = chainIn(c);
            const double a = c.shot.motion.acceleration.value();
            const double force = std::abs(chain.load.steady) + chain.load.coulomb + chain.load.inertia * a;
            QVERIFY2(isNear(t.force.value(), force, 1e-9), c.name);
            if (!chain.stages.empty())
                QVERIFY2(isNear(t.lastShaft.value(),
                                force / (chain.stages.back().ratio * chain.stages.back().efficiency), 1e-9),
                         c.name);
            double square = 0.0;
            const auto mean = [&](const motion::Profile& p, int direction) {
                constexpr int steps = 4000;
                double sum = 0.0;
                for (int i = 0; i < steps; ++i) {
                    // The middle of each piece, so that no corner is counted twice.
                    const motion::MotionState at = p.at(p.time() * (i + 0.5) / steps);
                    const double torque =
                        drivetrain::motorTorque(chain, at.speed / m.outputPerRad,
                                                direction * at.acceleration / m.outputPerRad, direction);
                    sum += torque * torque / steps;
                }
                return sum;
            };
            square = 0.5 * (mean(c.shot.profile, 1) + mean(c.shot.profile, -1));
            if (!c.shot.follows) {
                ++walked;
                QVERIFY2(isNear(t.rms.value(), std::sqrt(square), 0.01),
                         c.name + QByteArray::number(t.rms.value()) + ' ' +
                             QByteArray::number(std::sqrt(square)));
            } else {
                ++followed;
                // Between the least and the most that is ever asked.
                QVERIFY2(t.rms.value() <= t.needed.value() * (1 + 1e-9) && t.rms.value() > 0.0, c.name);
                const double rest = c.shot.motion.time.value() - c.shot.profile.time();
                DriveModel loaded = m;
                loaded.chain = chain;
                const double steady = loaded.rampTorque(c.shot.motion.topSpeed.value(), 0.0);
                if (rest > 0.0)
                    QVERIFY2(isNear(t.rms.value(),
                                    std::sqrt((square * c.shot.profile.time() + steady * steady * rest) /
                                              c.shot.motion.time.value()),
                                    0.01),
                             c.name);
            }
            QVERIFY2(isNear(t.margin.value(),
                            std::min(t.available.value() / t.needed.value(),
                                     m.available(0.0) / t.breakaway.value()),
                            1e-9),
                     c.name);
            QVERIFY2(isNear(t.available.value(), m.available(c.shot.motion.motorSpeed.value()), 1e-9),
                     c.name);
            QVERIFY2(t.availableLow.value() <= t.available.value() * (1 + 1e-9), c.name);
        });
        QVERIFY2(walked > 30 && followed > 2, qPrintable(QStringLiteral("%1 %2").arg(walked).arg(followed)));
    }
    /// Set to the least current that is told, a stepper has just the margin that is wanted.
    void leastCurrent() {
        int set = 0;
        rigs_.everyShot([&](const Case& c) {
            if (!std::holds_alternative<Stepper>(c.axis.motor) || !c.shot.torque.leastCurrent) return;
            Project p = c.project;
            const auto index = static_cast<std::size_t>(&c.axis - c.project.axes.data());
            const double amps = c.shot.torque.leastCurrent.value();
            if (amps > std::get<Stepper>(c.axis.motor).ratedCurrent.value) return; // beyond it torque stays
            p.axes[index].driver.runCurrent = amps;
            const Evaluation e = evaluate(p);
            for (const ShotEvaluation& s : e.axes[index].shots)
                if (s.shot == c.shot.shot) {
                    ++set;
                    QVERIFY2(isNear(s.torque.margin.value(), c.e.model.wantedMargin, 1e-3),
                             c.name + QByteArray::number(s.torque.margin.value()));
                }
        });
        QVERIFY(set > 20);
    }
    /// Play is kept where what rests on the drive keeps its sign by more than ramps and disturbances need:
    /// walked through at four hundred places of the range.
    void whereThePlayLetsGo() {
        int reverses = 0, kept = 0, placed = 0;
        rigs_.everyShot([&](const Case& c) {
            if (c.shot.follows) return;
            const DriveModel& m = c.e.model;
            const drivetrain::Load& load = m.chain.load;
            const double distance = distanceOf(*findMovement(c.entered(), c.axis.id)),
                         sense = distance < 0.0 ? -1.0 : 1.0;
            const double disturbing =
                load.inertia * std::max(c.shot.profile.in.acceleration, c.shot.profile.out.acceleration) +
                c.shot.carried.value() + load.coulomb - m.friction;
            double least = 1e300, most = -1e300;
            const auto* rotary = std::get_if<RotaryMechanism>(&c.axis.mechanism);
            const AxisMasses masses = massesOf(c.project, c.axis);
            for (int i = 0; i <= 400; ++i) {
                double resting = load.steady;
                double either = 0.0;
                if (rotary != nullptr) {
                    const double tilt = gravityTurns(c.axis.role) ? m.tilted : 0.0;
                    const double place = rotary->lowAngle - tilt + (rotary->range + 2 * tilt) * i / 400.0;
                    resting = armTorque(gravityTurns(c.axis.role) ? masses.felt()
                                                                  : std::vector<structure::ArmMass>(),
                                        *rotary, place);
                    // An unbalance may stand anywhere, and so does a pan on a slope; none of these has a
                    // spring.
                    either = gravityTurns(c.axis.role) ? rotary->unbalance.value : m.gravityHigh;
                }
                least = std::min(least, resting + sense * m.friction - either);
                most = std::max(most, resting + sense * m.friction + either);
            }
            const bool holds = least > disturbing * (1 + 1e-9) || most < -disturbing * (1 + 1e-9);
            const bool edge = std::abs(std::max(least, -most) / disturbing - 1.0) < 1e-3; // of the walk
            QVERIFY2(edge || c.shot.loadReverses == !holds, c.name);
            reverses += c.shot.loadReverses;
            kept += !c.shot.loadReverses;
            if (m.backlash <= 0.0) return;
            QVERIFY2(isNear(c.shot.flank.ratio.value(), std::max(least, -most) / disturbing, 2e-3), c.name);
            QVERIFY2(static_cast<bool>(c.shot.flank.play) == c.shot.loadReverses, c.name);
            if (!c.shot.loadReverses) return;
            QVERIFY2(c.shot.flank.play.value() <= m.backlash && c.shot.flank.missing.value() > 0.0, c.name);
            QVERIFY2(c.shot.flank.place || c.shot.flank.moment, c.name);
            placed += static_cast<bool>(c.shot.flank.place);
        });
        QVERIFY2(reverses > 3 && kept > 10,
                 qPrintable(QStringLiteral("%1 %2 %3").arg(reverses).arg(kept).arg(placed)));
    }
    /// Everything in the picture is what it is at the axis, times the pixels of a unit.
    void picture() {
        int scaled = 0, steps = 0, sticking = 0;
        rigs_.everyShot([&](const Case& c) {
            const double px = c.shot.pixelsPerUnit;
            if (!(px > 0.0)) return;
            ++scaled;
            const DriveModel& m = c.e.model;
            const Shot& shot = c.entered();
            const ShotEvaluation& s = c.shot;
            const auto near = [&](const Figure& f, double value) {
                QVERIFY2(f && isNear(f.value(), value, 1e-9, 1e-15),
                         c.name + QByteArray::number(f.valueOr(-1)) + ' ' + QByteArray::number(value));
            };
            const bool still = stepwise(shot);
            steps += still;
            const double shown = still ? s.profile.distance * shot.frameRate : s.motion.topSpeed.value();
            near(s.picture.speed, shown * px);
            near(s.picture.perFrame, shown * px / shot.frameRate);
            near(s.picture.blur, still ? 0.0 : shown * px * shot.exposure);
            near(s.picture.crossingTime, c.project.camera.deliveredWidth / (shown * px));
            near(s.errors.backlash, s.flank.play.valueOr(0.0) * px);
            near(s.stretchTravel,
                 2 * m.chain.load.inertia * s.motion.acceleration.value() / m.outputStiffness);
            near(s.errors.stretch, s.stretchTravel.value() * px);
            const double frames =
                std::max(1.0, std::min(s.profile.in.jerkTime, s.profile.out.jerkTime) * shot.frameRate);
            // A swing of half the stretch moves no more than this from one frame to the next.
            const double most = m.mode
                                    ? s.errors.stretch.value() *
                                          std::sin(M_PI * std::min(0.5, m.mode->frequency / shot.frameRate))
                                    : 1e300;
            near(s.errors.drift, std::min(s.errors.stretch.value() / 2 / frames, most));
            const double letGo = s.errors.backlash.value();
            // Springs of the drive under friction and gravity.
            const double k = m.outputStiffness,
                         pull = std::max(std::abs(m.gravityLow), std::abs(m.gravityHigh)),
                         jump = 2 * (m.staticFriction - m.chain.load.coulomb) / k;
            const bool sticks = still || s.motion.topSpeed.value() < c.e.smoothFrom;
            if (sticks && jump > 0.0) ++sticking;
            near(s.errors.jitter, s.place.stepping.valueOr(0.0) + letGo + (sticks ? jump * px : 0.0));
            near(s.errors.repeat, s.place.frictionBand.valueOr(0.0) +
                                      std::abs(s.place.idleShift.valueOr(0.0)) + letGo +
                                      (shot.thereAndBack ? 2 * m.friction / k : jump) * px);
            near(s.errors.framing, s.place.lag.valueOr(0.0) + s.place.accuracy.valueOr(0.0) +
                                       s.roundingPixels.valueOr(0.0) + (m.friction + pull) / k * px);
            near(s.motion.energy,
                 0.5 * c.e.inertiaAtMotor.value() * std::pow(s.motion.topSpeed.value() / m.outputPerRad, 2));
            if (m.pulses)
                near(s.roundingPixels, std::abs(c.e.steps.roundingShare.value()) * s.distance.value() * px);
            if (m.mode && !s.follows) {
                const bool measured = c.axis.vibration.frequency.value > 0.0;
                const double left = measured ? motion::rockingAfter(s.profile, *m.mode)
                                             : motion::mostRockingAfter(s.profile, *m.mode);
                // Friction holds the load that much behind while it brakes, and where it stands if it
                // outweighs what is left then.
                const double begins = std::max(0.0, left - m.swingBand);
                near(s.rocking.pixels, begins <= m.swingBand && m.swingBand > 0.0 ? 0.0 : 2 * begins * px);
            }
            if (!(m.commandAngle > 0.0)) {
                QVERIFY2(s.place.step.reason() == Reason::NotApplicable, c.name);
                return;
            }
            near(s.place.step, m.microstep() * px);
            near(s.place.lag, s.lag.travel.value() * px);
            near(s.lag.travel, s.lag.angle.value() * m.outputPerRad);
            const double accuracy = m.angleError * m.outputPerRad * px;
            near(s.place.accuracy, accuracy);
            if (still) near(s.place.stepping, m.jump() * px + 2 * accuracy);
            if (const motor::StepperParams* p = m.stepper()) {
                // A rotor under a torque T lags by asin(T / amplitude) over its teeth: friction alone, and
                // gravity at run and at hold current.
                const auto lag = [&](double torque, double amplitude) {
                    return std::asin(std::min(1.0, torque / amplitude)) / p->rotorTeeth;
                };
                const double run = m.motors * m.torqueAmplitude, hold = m.motors * m.holdAmplitude;
                near(s.place.frictionBand,
                     lag(m.chain.load.coulomb * m.outputPerRad, run) * m.outputPerRad * px);
                const double gravity =
                    std::max(std::abs(m.gravityLow), std::abs(m.gravityHigh)) * m.outputPerRad;
                if (hold > 0.0)
                    near(s.place.idleShift, (lag(gravity, hold) - lag(gravity, run)) * m.outputPerRad * px);
            }
        });
        QVERIFY(sticking > 1);
        QVERIFY2(scaled > 30 && steps > 1, qPrintable(QStringLiteral("%1 %2").arg(scaled).arg(steps)));
    }
    /// Sag, slope and twist through the lens; play of the guides turns the picture.
    void structureInThePicture() {
        int sagging = 0;
        rigs_.everyShot([&](const Case& c) {
            const double focal = deliveredFocal(c.project.camera, c.entered());
            const AxisStructure& s = c.e.structure;
            if (s.problem == Reason::None && c.shot.sag.pixels) {
                ++sagging;
                const double far = focal / c.entered().subjectDistance;
                QVERIFY2(
                    isNear(c.shot.sag.pixels.value(),
                           far * s.sagShift.value() + focal * (s.slopeShift.value() + s.twistShift.value()),
                           1e-9),
                    c.name);
            }
            if (const auto* linear = std::get_if<LinearMechanism>(&c.axis.mechanism))
                QVERIFY2(isNear(c.shot.guidePixels.value(),
                                focal * linear->guide.play.value / linear->guide.wheelbase, 1e-9),
                         c.name);
        });
        QVERIFY(sagging > 5);
    }
    void picturesAndTimesByHand() {
        Shot s;
        s.frameRate = 25.0;
        s.kind = ShotKind::Interval;
        s.frames = 240;
        s.interval = 5.0;
        s.exposure = 0.5;
        s.stepTime = 1.2;
        QVERIFY(stepwise(s));
        QCOMPARE(picturesOf(s), 240);
        VERIFY_NEAR(shownTime(s), 9.6, 1e-12);
        VERIFY_NEAR(shootingTime(s), 239 * 5.0 + 0.5, 1e-12);
        s.frames = 0; // two at least
        QCOMPARE(picturesOf(s), 2);
        s.kind = ShotKind::StopMotion;
        s.clipTime = 3.5;
        QCOMPARE(picturesOf(s), 88); // 87.5
        VERIFY_NEAR(shootingTime(s), 88 / 25.0, 1e-12);
        s.kind = ShotKind::Live;
        QVERIFY(!stepwise(s));
        s.moves = {{"a", BySpeed<AxisKind::Linear>{-0.6, 0.2, 1.0}},
                   {"b", ByTime<AxisKind::Rotary>{1.0, 2.0}},
                   {"c", BySpeed<AxisKind::Linear>{0.6, 0.0, 1.0}}};
        QCOMPARE(picturesOf(s), 75); // 3 s
        s.moves[1] = {"b", ByTime<AxisKind::Rotary>{1.0, 4.0}};
        QCOMPARE(picturesOf(s), 100);
        s.thereAndBack = true; // filmed on the way back too
        QCOMPARE(picturesOf(s), 200);
        s.thereAndBack = false;
        // A step takes its share of the movement between two pictures, eased at both ends.
        s.kind = ShotKind::Interval;
        s.frames = 101;
        const Movement linear = demandedMovement(s, BySpeed<AxisKind::Linear>{0.6, 0.2, 1.0});
        VERIFY_NEAR(distanceOf(linear), 0.006, 1e-12);
        VERIFY_NEAR(std::get<ByTime<AxisKind::Linear>>(linear).time, 1.2, 1e-12);
        VERIFY_NEAR(std::get<ByTime<AxisKind::Linear>>(linear).easeIn, rampShareOfStep * 1.2, 1e-12);
        const Movement rotary = demandedMovement(s, ByTime<AxisKind::Rotary>{-1.0, 9.0, 1.0, 2.0});
        VERIFY_NEAR(distanceOf(rotary), -0.01, 1e-12);
        VERIFY_NEAR(std::get<ByTime<AxisKind::Rotary>>(rotary).easeOut, rampShareOfStep * 1.2, 1e-12);
    }
};

QTEST_APPLESS_MAIN(ShotLawsTest)
#include "shot_laws_test.moc"
