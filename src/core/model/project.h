// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/brief_parts.h"
#include "core/model/drive_parts.h"
#include "core/model/interval_parts.h"
#include "core/model/load_parts.h"
#include "core/model/move_parts.h"
#include "core/model/optics_parts.h"
#include "core/model/shot_index.h"
#include "core/model/structure_parts.h"

#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

namespace gantry {

enum class HomeEnd { Low, High };

/// What an axis does for the camera. Decides what gravity and the axes below do to it.
enum class Role { Slide, Lift, Swing, BoomTilt, Pan, Tilt, Roll, Focus, Zoom, Turntable, Other };

/// What an emergency stop or a reset of the controller does to an axis: it stops as hard as it can and goes
/// on holding, loses its current, or comes to rest by the ramp of its acceleration setting and goes on
/// holding.
enum class OnStop { NotAsked, KeepsHolding, CutsCurrent, RampsDown };
constexpr bool holdsAfter(OnStop stop) {
    return stop == OnStop::KeepsHolding || stop == OnStop::RampsDown;
}

/// One of the few speeds that an axis runs at where it has no others.
template <AxisKind>
struct FixedSpeed {
    std::string id;     ///< its number: "1"
    double speed = 0.1; ///< [m/s] or [rad/s]

    friend bool operator==(const FixedSpeed&, const FixedSpeed&) = default;
};

/// What is typed into the controller for one axis. Lengths in [m] on linear axes, angles in [rad] on rotary
/// ones.
template <AxisKind Kind>
struct MotionSettings {
    double maxSpeed = 0.0;        ///< [m/s] or [rad/s]
    double maxAcceleration = 0.0; ///< [m/s²] or [rad/s²]
    double jerk = 0.0;            ///< [m/s³] or [rad/s³]; 0: ramps without jerk limit
    double instantSpeedStep =
        0.0; ///< [m/s] or [rad/s] for controllers that start and corner with a jump in speed
    double softLimitMargin = 0.0; ///< [m] or [rad] kept clear of each end of the usable travel
    double homingSpeed = 0.0;     ///< [m/s] or [rad/s]
    double homingBackOff = 0.0;   ///< [m] or [rad]
    HomeEnd homeEnd = HomeEnd::Low;
    bool reversed = false;                  ///< positive direction pulse moves towards the low end
    std::vector<FixedSpeed<Kind>> speeds{}; ///< all that it runs at; none: any up to the top speed

    friend bool operator==(const MotionSettings&, const MotionSettings&) = default;
};

struct LinearMechanism {
    double railLength = 1.0;                 ///< [m]
    double carriageLength = 0.15;            ///< [m]
    double bumperLength = 0.0;               ///< [m] at each end
    Estimate slope = assumed(0.0);           ///< [rad] positive: the high end is up
    Estimate movingMass = assumed(3.0);      ///< [kg] everything on the carriage
    Estimate runningFriction = assumed(3.0); ///< [N]
    Estimate staticFriction = assumed(4.0);  ///< [N] at break-away
    Estimate frameStiffness =
        assumed(0.0);               ///< [N/m] of motor and idler mounts in series with the belt; 0: left out
    std::vector<MassItem> items;    ///< further things carried, added to the moving mass
    std::vector<PlacedBody> bodies; ///< on the carriage that might run into something
    Estimate cableDrag = assumed(0.0);   ///< [N]
    Estimate disturbance = assumed(0.0); ///< [N] either way: a hand, a cable that tugs
    double windArea = 0.0;               ///< [m²] that the wind meets
    Guide guide;
    Rail rail;
    PanBar panBar;
    LinearOutput output;
    MotionSettings<AxisKind::Linear> motion{0.5, 1.0, 0.0, 0.0, 0.005, 0.03, 0.005};

    // Defined in special_members.cpp, which says why.
    LinearMechanism();
    LinearMechanism(const LinearMechanism&);
    LinearMechanism(LinearMechanism&&) noexcept;
    LinearMechanism& operator=(const LinearMechanism&);
    LinearMechanism& operator=(LinearMechanism&&) noexcept;
    ~LinearMechanism();
    bool operator==(const LinearMechanism&) const;
};

struct RotaryMechanism {
    double range = 6.283185307179586;        ///< [rad] usable
    Estimate inertia = assumed(0.02);        ///< [kg·m²] about the axis
    Estimate pointMass = assumed(0.0);       ///< [kg] further mass …
    double pointRadius = 0.0;                ///< [m] … at this radius
    Estimate friction = assumed(0.05);       ///< [N·m] running
    Estimate staticFriction = assumed(0.06); ///< [N·m] at break-away
    Estimate unbalance = assumed(0.0); ///< [N·m] largest gravity torque over the range, known otherwise
    bool leanKnown = false;            ///< of an upright axis: how far it leans, and which way, is measured
    Estimate lean = estimate(0.0, Source::Measured); ///< [rad] off upright …
    double downhill = 0.0;          ///< [rad] … place from the low end at which its weight points downhill
    double lowAngle = 0.0;          ///< [rad] above level of the arm at the low end of the range
    std::vector<MassItem> items;    ///< arm, payload, counterweight, with their places
    std::vector<PlacedBody> bodies; ///< on what it turns that might run into something
    Counterspring spring;
    Boom boom;
    Estimate cableDrag = assumed(0.0);   ///< [N·m]
    Estimate disturbance = assumed(0.0); ///< [N·m] either way: a hand, a cable that tugs
    double windArea = 0.0;               ///< [m²] that the wind meets …
    double windArm = 0.0;                ///< [m] … at this distance from the axis
    RotaryOutput output;
    MotionSettings<AxisKind::Rotary> motion{1.0, 2.0, 0.0, 0.0, 0.02, 0.2, 0.03};

    // Defined in special_members.cpp, which says why.
    RotaryMechanism();
    RotaryMechanism(const RotaryMechanism&);
    RotaryMechanism(RotaryMechanism&&) noexcept;
    RotaryMechanism& operator=(const RotaryMechanism&);
    RotaryMechanism& operator=(RotaryMechanism&&) noexcept;
    ~RotaryMechanism();
    bool operator==(const RotaryMechanism&) const;
};

using Mechanism = std::variant<LinearMechanism, RotaryMechanism>;

/// Any output, for a candidate that may belong to either kind of axis.
using AnyOutput = std::variant<BeltOutput, ScrewOutput, RackOutput, WheelOutput, WinchOutput, DirectOutput,
                               RingOutput, LensRingOutput>;

/// Another drive for the same axis, kept beside the one in use.
struct DriveCandidate {
    std::string id; ///< its letter: "B"
    std::string note;
    double price = 0.0; ///< in the user's money
    Motor motor;
    Driver driver;
    std::vector<Link> links;
    Brake brake;
    AnyOutput output;

    friend bool operator==(const DriveCandidate&, const DriveCandidate&) = default;
};

/// How what an axis carries rocks on it, as far as it was measured.
struct Vibration {
    Estimate frequency = assumed(0.0, 0.1); ///< [Hz] of the camera on this axis; 0: not measured
    Estimate damping = assumed(0.02, 0.5);  ///< [1] of critical: metal 0.01, wood 0.03, rubber pads 0.1

    friend bool operator==(const Vibration&, const Vibration&) = default;
};

struct Axis {
    std::string id;
    std::string name;
    Role role = Role::Other;
    double wantedMargin =
        2.0; ///< [1] of pull-out torque over needed torque; 1.5 only for a drive proven damped
    Motor motor;
    Driver driver;
    std::vector<Link> links; ///< from the motor to the output
    Brake brake;
    OnStop onStop = OnStop::NotAsked;
    Mechanism mechanism;
    Vibration vibration;
    std::vector<std::string> told; ///< what a listing, a seller or a settings page says of it, a line each
    bool carriesPayload = false;   ///< what Brief lists on the camera comes on top of what is entered here
    std::string candidate = "A";   ///< letter of the drive in use
    std::string candidateNote;
    double price = 0.0;      ///< of the drive in use, in the user's money
    std::string fittedToday; ///< letter of the drive that is on the rig now; empty: the one in use
    std::vector<DriveCandidate> candidates; ///< the others

    // Defined in special_members.cpp, which says why.
    Axis();
    Axis(const Axis&);
    Axis(Axis&&) noexcept;
    Axis& operator=(const Axis&);
    Axis& operator=(Axis&&) noexcept;
    ~Axis();
    bool operator==(const Axis&) const;
};

enum class Silence { Any, Quiet, Silent };

/// What the place and the work ask of the whole rig.
struct Conditions {
    Silence silence = Silence::Any;  ///< sound recorded while it moves
    double windSpeed = 0.0;          ///< [m/s]
    double ambient = 25.0;           ///< [°C]
    double energyNearPeople = 0.0;   ///< [J] that nothing moving may hold near people; 0: nobody is near
    double speedNearPeople = 0.0;    ///< [m/s] that nothing may exceed near people; 0: nobody is near
    double microphoneDistance = 0.0; ///< [m] from the drives to the nearest microphone; 0: not said
    double weightBudget = 0.0;       ///< [kg] that the whole rig may weigh; 0: any
    double moneyBudget = 0.0;        ///< in the user's money; 0: any
    double handSpeed = 0.2;          ///< [m/s] at which a carriage or a boom's end may be pushed by hand

    friend bool operator==(const Conditions&, const Conditions&) = default;
};

/// A verdict that the user has judged and put aside, with the reason.
struct SetAside {
    std::string rule, axis, shot; ///< ids; shot may be empty
    std::string reason;

    friend bool operator==(const SetAside&, const SetAside&) = default;
};

/// A key of the file that this version does not know, kept as it came.
struct KeptKey {
    std::string owner; ///< path of the part it stands in, by ids: "axes/slide"; empty for the document itself
    std::string key;
    std::string rawJson;

    friend bool operator==(const KeptKey&, const KeptKey&) = default;
};

/// Everything that a person decides about a rig. A plain value; copying it is undo.
struct Project {
    std::string name;
    std::string notes;
    Camera camera;
    Conditions conditions;
    Supply supply;
    Controller controller;
    Base base;
    Head head;
    Equipment equipment;
    std::vector<MassItem> payload; ///< what is mounted as the camera, from the mount along the lens and above
    std::vector<KeepOut> keepOut;
    std::vector<Kit> kits;
    std::vector<Profile> profiles; ///< sections to compare with those in use
    std::vector<LaterAxis> later;
    std::vector<TestRecord> tests; ///< noted in Structure and the logbook, oldest first
    std::vector<Axis> axes;        ///< base to lens
    std::vector<Shot> shots;
    std::vector<RigMove> moves;
    std::vector<IntervalPlan> plans;
    std::vector<std::string>
        lockedFields; ///< paths that fixes may not touch: "axes/slide/mechanism/rail_length_m"
    std::vector<SetAside> setAside;
    std::vector<std::string> retiredIds; ///< of parts that were removed; see retired_ids.h
    std::vector<KeptKey> kept;

    // Defined in special_members.cpp, which says why.
    Project();
    Project(const Project&);
    Project(Project&&) noexcept;
    Project& operator=(const Project&);
    Project& operator=(Project&&) noexcept;
    ~Project();
    bool operator==(const Project&) const;
};

AxisKind kindOf(const Axis& axis);

/// What the rail or arm of an axis is made of.
Section& sectionOf(Axis& axis);
const Section& sectionOf(const Axis& axis);

/// Whether an output moves something along a line.
bool isLinear(const AnyOutput& output);

/// Usable travel [m] or range [rad]; never negative.
double usableTravel(const Axis& axis);

const Axis* findAxis(const Project& project, std::string_view id);

/// The movement that a shot asks of an axis; null if the shot leaves it at rest.
const Movement* findMovement(const Shot& shot, std::string_view axisId);

double distanceOf(const Movement& movement);             ///< signed [m] or [rad]
std::optional<double> startOf(const Movement& movement); ///< [m] or [rad] from the low end, where it is set
AxisKind kindOf(const Movement& movement);

/// Mass on a carriage [kg]: what is entered, the listed items, a motor that rides along, and the payload
/// where the axis carries it.
double movingMass(std::span<const MassItem> payload, const Axis& axis, const LinearMechanism& linear);

/// What is wrong with a project as a whole, beyond the range of any single field: ids that are empty or
/// doubled, movements of axes that do not exist or are of the other kind. One sentence each; empty when
/// consistent.
std::vector<std::string> inconsistencies(const Project& project);

/// An id that no axis, shot or link of the project has, made from a wish ("slide", "slide-2", …).
std::string freeId(const Project& project, std::string_view wish);

} // namespace gantry
