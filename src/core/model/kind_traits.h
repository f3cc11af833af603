// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

/// What each kind of motor, link and output can do, so that nobody asks for a kind by name who means a
/// capability. A new kind has no traits until they are stated here, and does not compile before.
namespace gantry {

struct MotorTraits {
    bool takesPulses = false; ///< counts commands, so it needs a place to count from
    bool currentSet = false;  ///< the driver's run current is set, and is what it gets
};

struct LinkTraits {
    bool toothed = false;    ///< its ratio is that of two wheels with teeth, which can be exchanged
    bool pullsForce = false; ///< its load is a force at the pitch circle; else a torque
    bool couples = false;    ///< passes motion on as it is, so it says nothing about a ratio
};

struct OutputTraits {
    bool flexible = false;  ///< a belt or cord of its own length moves the load, with a spring of its own
    bool pullsOnly = false; ///< cannot push
    bool none = false;      ///< the last shaft is the axis
    bool lensRing = false;  ///< moves a ring with marks instead of the camera
};

template <class Kind>
struct TraitsOf; // stated below for every kind

template <>
struct TraitsOf<Stepper> {
    static constexpr MotorTraits value{.takesPulses = true, .currentSet = true};
};
template <>
struct TraitsOf<ServoMotor> {
    static constexpr MotorTraits value{.takesPulses = true};
};
template <>
struct TraitsOf<DcServo> {
    static constexpr MotorTraits value{.takesPulses = true, .currentSet = true};
};
template <>
struct TraitsOf<GearedDc> {
    static constexpr MotorTraits value{};
};
template <>
struct TraitsOf<HobbyServo> {
    static constexpr MotorTraits value{};
};

template <>
struct TraitsOf<Coupling> {
    static constexpr LinkTraits value{.couples = true};
};
template <>
struct TraitsOf<BeltStage> {
    static constexpr LinkTraits value{.toothed = true, .pullsForce = true};
};
template <>
struct TraitsOf<GearStage> {
    static constexpr LinkTraits value{.toothed = true, .pullsForce = true};
};
template <>
struct TraitsOf<PlanetaryStage> {
    static constexpr LinkTraits value{};
};
template <>
struct TraitsOf<StrainWaveStage> {
    static constexpr LinkTraits value{};
};
template <>
struct TraitsOf<WormStage> {
    static constexpr LinkTraits value{};
};
template <>
struct TraitsOf<ReducerStage> {
    static constexpr LinkTraits value{};
};
template <>
struct TraitsOf<RollerStage> {
    static constexpr LinkTraits value{};
};

template <>
struct TraitsOf<BeltOutput> {
    static constexpr OutputTraits value{.flexible = true};
};
template <>
struct TraitsOf<ScrewOutput> {
    static constexpr OutputTraits value{};
};
template <>
struct TraitsOf<RackOutput> {
    static constexpr OutputTraits value{};
};
template <>
struct TraitsOf<WheelOutput> {
    static constexpr OutputTraits value{};
};
template <>
struct TraitsOf<WinchOutput> {
    static constexpr OutputTraits value{.flexible = true, .pullsOnly = true};
};
template <>
struct TraitsOf<DirectOutput> {
    static constexpr OutputTraits value{.none = true};
};
template <>
struct TraitsOf<RingOutput> {
    static constexpr OutputTraits value{};
};
template <>
struct TraitsOf<LensRingOutput> {
    static constexpr OutputTraits value{.lensRing = true};
};

/// Traits of the kind that a variant holds.
template <class... Kinds>
constexpr auto traitsOf(const std::variant<Kinds...>& part) {
    return std::visit([]<class Kind>(const Kind&) { return TraitsOf<Kind>::value; }, part);
}

inline MotorTraits motorTraits(const Axis& axis) {
    return traitsOf(axis.motor);
}
inline OutputTraits outputTraits(const Axis& axis) {
    return std::visit([](const auto& mechanism) { return traitsOf(mechanism.output); }, axis.mechanism);
}

/// Whether an axis turns about a line that gravity pulls round: tilts and rolls do; pans, swings and
/// turntables stand upright.
constexpr bool gravityTurns(Role role) {
    return role == Role::BoomTilt || role == Role::Tilt || role == Role::Roll || role == Role::Other;
}

/// Whether an axis turns about an upright line and carries no long arm: without power it may come round, but
/// nothing falls. A swing sweeps with its boom.
inline bool upright(const Axis& axis) {
    return axis.role == Role::Pan || axis.role == Role::Turntable;
}

} // namespace gantry
