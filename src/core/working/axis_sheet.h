// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/rig_setup.h"
#include "core/tools/chain_table.h"
#include "core/working/sheet.h"

#include <string>
#include <vector>

namespace gantry::working {

/// A sheet on which the quantities of one axis, and of one of its shots, are worked out from the inputs. Each
/// is written down once, however often it is asked for. U is m or rad.
class AxisSheet : public Sheet {
public:
    /// How much cord is on the drum of a winch: what sizes it is full, what counts its pulses is bare.
    enum class Drum { Full, Bare };

    /// @param shot of that axis; null: none. Both evaluation and project must live on.
    AxisSheet(const Project& project, const Evaluation& evaluation, std::size_t axis,
              const ShotEvaluation* shot, Drum drum = Drum::Full);

    // Drive: drive_terms.cpp
    Term shaftRatio();   ///< n [1] motor turns per turn of the last shaft or of the axis
    Term travelPerRad(); ///< r [U/rad] of the motor
    Term commandAngle(); ///< θ [rad] of the motor for the finest command
    Term microstep();    ///< [U]
    Term stepsPerUnit(); ///< [1/mm] or [1/°]
    Term stepsKept();    ///< as the controller rounds it
    Term motorInertia(); ///< [kg·m²] of all motors
    Term inertiaAtMotor();
    Term backlash();        ///< [U]
    Term outputStiffness(); ///< [N/m] or [N·m/rad]

    // What hangs on it: load_terms.cpp
    Term loadInertia();  ///< [kg] or [kg·m²]
    Term steadyLoad();   ///< gravity, and what the axes below bring [N] or [N·m]
    Term friction();     ///< running, without wind
    Term opposing();     ///< friction and what pushes against it
    Term breakaway();    ///< the same at rest
    Term worstGravity(); ///< the larger of its ends over the travel

    // Torque: torque_terms.cpp
    Term torqueNeeded(const Term& acceleration);
    Term breakawayTorque();
    Term forceNeeded(const Term& acceleration);
    /// With the wanted margin: the hardest ramp up to the shot's speed, and the fastest with the ramp of the
    /// axis' worst shot.
    Term hardestRamp();
    Term fastestByTorque();

    // What it can do at the wanted margin in its worst shot, each near what was found: capability_terms.cpp
    Term capableLoad(bool ofSlope, double known); ///< mass or inertia, or slope
    Term capableRamp(double known);
    Term capableSpeed(double known);
    Term pulseLimit(); ///< [U/s] by the pulse rate

    // Between motor and load, behind the first so many stages of the chain: chain_terms.cpp
    Term turnsBefore(std::size_t stages);                 ///< [1] of the motor per turn of that shaft
    Term shaftSpeed(std::size_t stages);                  ///< [rad/s]
    Term shaftCommand(std::size_t stages);                ///< [rad] of the finest command
    Term neededBehind(std::size_t stages);                ///< [N·m], behind all of them [N] on a linear axis
    Term availableBehind(std::size_t stages);             ///< the same unit
    Term partInertia(ChainPart part, std::size_t stages); ///< [kg·m²]

    // Motor: motor_terms.cpp
    Term torqueConstant();
    Term torqueAvailable(const Term& motorSpeed);
    Term lag(const Term& torque, const Term& motorSpeed); ///< [rad] of the rotor
    Term holdTorque();                                    ///< that holds at rest while powered, of all motors
    Term heldAmplitude();  ///< static torque of all steppers at run current [N·m]
    Term fieldStiffness(); ///< at the motor [N·m/rad]
    Term rotorFrequency(); ///< [Hz] the lower of rotor and load

    // Shot: shot_terms.cpp
    Term topSpeed();
    Term acceleration();      ///< that the ramps ask for
    Term firstAcceleration(); ///< of a drive without a ramp that of its first moment
    Term motorSpeed();
    Term pulseRate();

    // Picture: picture_terms.cpp
    Term focalPixels();   ///< [px/rad]
    Term pixelsPerUnit(); ///< [px/U]
    Term steppingPixels();
    Term stepAccuracyPixels();
    Term frictionBandPixels();
    Term idleShiftPixels();
    Term lagPixels();
    Term backlashPixels();
    Term stretchTravel();
    Term stretchPixels();
    Term roundingPixels();
    Term windUpTravel();
    Term driftPixels();
    Term jitterPixels();
    Term repeatPixels();
    Term framingPixels();
    Term sagPixels();
    Term speedPerFrame(); ///< [px/frame]
    Term rockingPixels();
    Term settlingTime();

    // Structure: structure_terms.cpp
    Term axisFrequency(); ///< [Hz] of all that gives way in series
    Term sag();
    Term modeFrequency(); ///< of what rocks on the axis

    const Axis& axis() const { return axis_; }
    const AxisEvaluation& evaluation() const { return e_; }
    const DriveModel& model() const { return m_; }
    bool linear() const { return m_.kind == AxisKind::Linear; }
    bool hasShot() const { return shot_ != nullptr; }
    const ShotEvaluation& shotEvaluation() const { return *shot_; }
    const Shot& shot() const { return project().shots[shot_->shot.at()]; }
    std::string at(const std::string& field) const { return "axes/" + axis_.id + "/" + field; }
    std::string ofShot(const std::string& field) const { return "shots/" + shot().id + "/" + field; }

    units::Kind travelKind() const { return linear() ? units::Kind::Length : units::Kind::Angle; }
    units::Kind speedKind() const { return linear() ? units::Kind::Speed : units::Kind::AngularSpeed; }
    units::Kind accelerationKind() const {
        return linear() ? units::Kind::Acceleration : units::Kind::AngularAcceleration;
    }
    units::Kind forceKind() const { return linear() ? units::Kind::Force : units::Kind::Torque; }
    units::Kind stiffnessKind() const {
        return linear() ? units::Kind::Stiffness : units::Kind::AngularStiffness;
    }

private:
    struct StageTerms {
        Term ratio = 1.0, efficiency = 1.0, back = 1.0, start = 0.0, inertia = 0.0;
    };
    StageTerms stage(std::size_t i);
    StageTerms linkStage(std::size_t i);
    StageTerms outputStage();
    Term linkRatio(std::size_t i);
    /// Whether a stage of the chain is a coupling, which turns as it is turned; the output stage is none.
    bool isCoupling(std::size_t i) const {
        return i < axis_.links.size() && std::holds_alternative<Coupling>(axis_.links[i]);
    }
    Term exactSteps();
    Term outputRadius(); ///< [m] of a linear axis per radian of its last shaft
    Term times(const Term& value, int count) const { return count == 1 ? value : Term(count) * value; }
    /// The recursion from the load to the motor, a stage at a time. `sense`: of the motion, +1 or −1.
    Term throughChain(const Term& acceleration, const Term& steady, double sense, bool starting,
                      std::size_t from);
    Term worst(const Term& acceleration, bool starting);
    /// The direction and the sense of the ramp in which a chain asks most of the motor.
    struct Corner {
        double way = 1.0, sense = 1.0;
    };
    Corner hardestCorner(const drivetrain::Chain& chain, double acceleration) const;
    drivetrain::Chain atRest(drivetrain::Chain chain) const;
    /// A torque that is straight in something: what it is without it, and for each unit of it.
    struct Straight {
        Term rest, each;
    };
    /// From the load to the motor. `shafts`: the acceleration of the axis that what turns on them has, also
    /// straight in it; `x`: where, which decides which way power flows.
    Straight straightThroughChain(Straight line, const Straight& shafts, double x, double sense,
                                  bool starting, const char* unit, const std::string& suffix);
    Term allowedAt(const Term& motorSpeed);
    Term hardestRamp(const Term& steady, double known);
    struct Weight {
        Term mass, along, above, own, beyond;
        bool levelled = false;
    };
    /// What turns with a rotary axis, where it lists anything itself.
    std::vector<Weight> weights();
    Term windForce(const std::string& areaPath);
    Term armGravity(const std::vector<Weight>& weights);
    Term gravity(); ///< signed as in the model, without the axes below
    Term stepperTorque(const Term& motorSpeed);
    Term servoTorque(const Term& motorSpeed);
    Term dcTorque(const Term& motorSpeed);
    Term dcVoltage();
    Term sourceResistance();
    Term entered(const std::string& symbol, const char* label, units::Kind kind, double value,
                 const char* linearField, const char* rotaryField, const char* origin);
    Term jumpAngle();  ///< [rad] by which the motor really moves on
    Term angleError(); ///< [rad] either way, of the motor at rest
    Term still();
    Term swingBand(); ///< [U]
    Term swingLeft();
    Term dampingRatio();
    Term armBend(bool slope);

    const Evaluation& whole_;
    std::size_t index_;
    const Axis& axis_;
    const AxisEvaluation& e_;
    const ShotEvaluation* shot_;
    Drum drum_;
    RigSetup rig_;
    DriveModel m_; ///< with what the axes below bring in the shot
};

} // namespace gantry::working
