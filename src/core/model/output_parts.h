// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry {

/// Output of a linear axis: pulley on the last shaft, belt pulling the carriage.
struct BeltOutput {
    int teeth = 20;
    Estimate pitch = assumed(0.002, 0.0);           ///< [m]
    Estimate efficiency = assumed(0.95, 0.03);      ///< [1] of belt and idler
    Estimate tensileStiffness = assumed(10e3, 0.4); ///< [N] EA of the belt: force for unit strain
    Estimate backlash = assumed(5e-5);              ///< [m] play between pulley and carriage
    Estimate pulleyInertia = assumed(0.0);          ///< [kg·m²]
    Estimate preload = assumed(12.0, 0.4);          ///< [N] in each span
    bool motorRides = false; ///< the motor travels on the carriage, the belt stands still
    bool doubled = false;    ///< belt runs round a pulley on the carriage: half the speed, twice the pull
    int motors = 1;          ///< equal motors on this axis

    friend bool operator==(const BeltOutput&, const BeltOutput&) = default;
};

enum class EndFixity { FixedFree, SimpleSimple, FixedSimple, FixedFixed };

/// Screw on the last shaft, nut on the carriage.
struct ScrewOutput {
    Estimate lead = assumed(0.008, 0.0);           ///< [m] a turn, all starts together
    int starts = 4;                                ///< threads side by side
    Estimate pitchDiameter = assumed(0.007, 0.05); ///< [m]
    Estimate rootDiameter = assumed(0.006, 0.05);  ///< [m]
    Estimate friction = assumed(0.15, 0.3);        ///< [1] thread; about 0.003 stands for balls
    double threadHalfAngle = 0.2617993877991494;   ///< [rad] in the axial section
    EndFixity ends = EndFixity::FixedSimple;
    Estimate nutDrag = assumed(0.01, 0.5);  ///< [N·m] of a preloaded anti-backlash nut and its bearings
    Estimate backlash = assumed(1e-4);      ///< [m]
    Estimate axialStiffness = assumed(5e6); ///< [N/m] of screw, nut and bearings; 0: not given, left out

    friend bool operator==(const ScrewOutput&, const ScrewOutput&) = default;
};

/// Pinion on the last shaft, rack along the rail.
struct RackOutput {
    int teeth = 20;
    Estimate module = assumed(0.001, 0.0);     ///< [m]
    Estimate efficiency = assumed(0.93, 0.04); ///< [1]
    Estimate backlash = assumed(1e-4);         ///< [m]
    Estimate pinionInertia = assumed(1e-6);    ///< [kg·m²]
    Estimate stiffness = assumed(2e6);         ///< [N/m]; 0: not given, left out

    friend bool operator==(const RackOutput&, const RackOutput&) = default;
};

/// Driven wheel on a floor or a track.
struct WheelOutput {
    Estimate diameter = assumed(0.1, 0.01);    ///< [m]
    Estimate friction = assumed(0.5, 0.3);     ///< [1] wheel on its track
    Estimate drivenShare = assumed(0.4, 0.2);  ///< [1] of the weight on driven wheels
    Estimate efficiency = assumed(0.95, 0.03); ///< [1]
    Estimate wheelInertia = assumed(5e-5);     ///< [kg·m²] of the driven wheels
    Estimate backlash = assumed(0.0);          ///< [m]
    double wheelbase = 0.4;                    ///< [m] between steered and fixed wheels
    double steeringAngle = 0.0;                ///< [rad] 0: straight
    friend bool operator==(const WheelOutput&, const WheelOutput&) = default;
};

/// Drum that winds a cord. A cord pulls only.
struct WinchOutput {
    Estimate drumDiameter = assumed(0.04, 0.01);  ///< [m]
    Estimate cordDiameter = assumed(0.0015, 0.1); ///< [m]
    double drumWidth = 0.03;                      ///< [m] between the cheeks
    Estimate layerHeight = assumed(1.0, 0.06); ///< [1] cord diameters that a layer adds; less where it nests
    double turnsOn = 0.0;                      ///< [1] that stay on the drum at the low end of the travel
    double flangeDiameter = 0.0;               ///< [m] of the cheeks; 0: not said
    bool closedLoop = false;                   ///< cord runs back round a pulley and pulls both ways
    Estimate efficiency = assumed(0.93, 0.04); ///< [1]
    Estimate drumInertia = assumed(1e-5);      ///< [kg·m²]
    Estimate breakingLoad = assumed(900.0, 0.2);    ///< [N]
    Estimate tensileStiffness = assumed(12e3, 0.5); ///< [N] EA of the cord
    Estimate backlash = assumed(0.0);               ///< [m]

    friend bool operator==(const WinchOutput&, const WinchOutput&) = default;
};

using LinearOutput = std::variant<BeltOutput, ScrewOutput, RackOutput, WheelOutput, WinchOutput>;

/// Output of a rotary axis: the last shaft is the axis.
struct DirectOutput {
    Estimate stiffness = assumed(100.0); ///< [N·m/rad]; 0: not given, left out

    friend bool operator==(const DirectOutput&, const DirectOutput&) = default;
};

/// Output of a rotary axis: pinion on the last shaft, ring on the axis.
struct RingOutput {
    int pinionTeeth = 20;
    int ringTeeth = 100;
    double module = 0.001;                     ///< [m]
    Estimate efficiency = assumed(0.92, 0.04); ///< [1]
    Estimate backlash = assumed(0.002);        ///< [rad] of the ring
    Estimate stiffness = assumed(150.0);       ///< [N·m/rad] of the ring; 0: not given, left out

    friend bool operator==(const RingOutput&, const RingOutput&) = default;
};

/// A mark on a lens ring: where the ring stands and what it reads there.
struct RingMark {
    std::string id;
    double angle = 0.0;   ///< [rad] from the near or wide end
    double reading = 1.0; ///< [m] focus distance, or focal length on a zoom ring

    friend bool operator==(const RingMark&, const RingMark&) = default;
};

/// Output on the gear of a lens: pinion on the last shaft, ring on the lens.
struct LensRingOutput {
    int pinionTeeth = 40;
    int ringTeeth = 110;
    double module = 0.0008;              ///< [m]
    double ringThrow = 4.71238898038469; ///< [rad] of the ring from stop to stop
    bool hardStops = true;               ///< the ring ends at stops
    bool steadyElectronics =
        true; ///< the reading depends on the angle alone, not on how fast the ring is turned
    Estimate efficiency = assumed(0.93, 0.04); ///< [1]
    Estimate backlash = assumed(0.004);        ///< [rad] of the ring
    Estimate stiffness = assumed(20.0);        ///< [N·m/rad]; 0: not given, left out
    std::vector<RingMark> marks{{"near", 0.0, 0.45}, {"far", 4.71238898038469, 20.0}};

    friend bool operator==(const LensRingOutput&, const LensRingOutput&) = default;
};

using RotaryOutput = std::variant<DirectOutput, RingOutput, LensRingOutput>;

/// Power-off brake: holds when the power is gone, and only while its torque exceeds what pulls on it.
enum class BrakePlace { MotorShaft, LoadSide };
struct Brake {
    bool fitted = false;
    BrakePlace place = BrakePlace::MotorShaft;
    Estimate holdingTorque = assumed(0.3); ///< [N·m] at the shaft it sits on; on a linear axis the last shaft

    friend bool operator==(const Brake&, const Brake&) = default;
};

} // namespace gantry
