// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <numbers>

/// What starting rigs are put together from: motors of common sizes, slides, heads and shots with figures
/// that are usual for them, marked as assumed where a builder has to look.
namespace gantry::rigs::blocks {

inline constexpr double deg = std::numbers::pi / 180.0;

/// Torque [N·m], current [A rms], resistance [ohm], inductance [H], inertia [kg·m²], mass [kg], length [m].
Stepper stepper(const char* name, double torque, double amps, double ohms, double henries, double inertia,
                double mass, double length);
Stepper small17();
Stepper long17();
Stepper mid23();
/// Run current and rating [A rms].
Driver driver(double run, double rating);
Axis axis(const char* id, const char* name, Role role, Motor motor, const Driver& d);
/// Rail [m] and moving mass [kg].
LinearMechanism slide(double rail, double mass);
/// What is mounted as the camera: body, lens, battery and plate, 1.9 kg.
std::vector<MassItem> camera();
/// Width and height [m], wall [m] of tubes, price of a metre.
Section section(SectionShape shape, double width, double height, double wall, double price);
/// Puts a rail on two stands, a tenth of its length from its ends.
void onStands(LinearMechanism& m, const Section& rail);
/// Puts a rail on the head of one tripod, in its middle.
void onOneHead(LinearMechanism& m, const Section& rail);
/// Lays a rail on a floor or a table all along.
void bedded(LinearMechanism& m, const Section& rail);
/// Length and width between the feet, height of what it carries and mass [m, kg]; pushed by hand at its top.
Base plate(double length, double width, double height, double mass);
/// Legs on a circle of this radius.
Base legs(double radius, double height, double mass);
/// Tensioned with `preload` [N] in each span.
BeltStage beltStage(const char* id, int motorTeeth, int loadTeeth, double preload = 8.0);
/// Inertia [kg·m²] and range [rad].
RotaryMechanism head(double inertia, double range);
Project project(const char* name);
/// Focal length and subject distance [m].
Shot shot(const char* id, const char* name, double lens, double distance);
/// Adds a movement: distance in the axis' unit, time and ease at both ends [s].
void moves(Shot& s, const Axis& a, double distance, double time, double ease);
/// A carriage of 1.6 kg on a metre of rail; what it carries comes on top.
Axis beltSlide();
/// An axis of a camera head with a belt stage of its own.
Axis headAxis(const char* id, const char* name, Role role);
Axis pan();
Axis tilt();

} // namespace gantry::rigs::blocks
