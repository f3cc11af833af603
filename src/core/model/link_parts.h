// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>
#include <variant>

namespace gantry {

/// Shaft to shaft, 1:1.
struct Coupling {
    std::string id;
    Estimate stiffness = assumed(50.0); ///< [N·m/rad]; 0: not given, left out
    Estimate inertia = assumed(5e-7);   ///< [kg·m²]

    friend bool operator==(const Coupling&, const Coupling&) = default;
};

/// Losses and springs of one stage. Play and spring are counted at its output, inertia at its input.
struct StageFigures {
    Estimate efficiency = assumed(0.95, 0.03); ///< [1]
    Estimate backlash = assumed(0.0);          ///< [rad] at the stage's output
    Estimate stiffness = assumed(40.0);        ///< [N·m/rad] at the stage's output; 0: not given, left out
    Estimate inertia = assumed(1e-6);          ///< [kg·m²] at the stage's input

    friend bool operator==(const StageFigures&, const StageFigures&) = default;
};

/// Tooth shapes do not fit each other even at equal pitch.
enum class BeltProfile { Trapezoid, Round, ModifiedRound };

/// Toothed belt between two shafts.
struct BeltStage {
    std::string id;
    int motorTeeth = 20;
    int loadTeeth = 60;
    Estimate pitch = assumed(0.002, 0.0); ///< [m]
    BeltProfile profile = BeltProfile::Round;
    int beltTeeth = 0;                    ///< of the closed belt; 0: not chosen yet
    double width = 0.006;                 ///< [m]
    Estimate preload = assumed(8.0, 0.3); ///< [N] in each span
    StageFigures figures;

    friend bool operator==(const BeltStage&, const BeltStage&) = default;
};

enum class GearMaterial {
    Steel,
    Brass,
    Aluminium,
    Acetal,
    Nylon,
    PrintedPla,
    PrintedPetg,
    Plywood,
    Hardwood
};

/// One mesh of two spur gears. A compound train is several of these in series.
struct GearStage {
    std::string id;
    int motorTeeth = 20;
    int loadTeeth = 60;
    double module = 0.001;    ///< [m]
    double faceWidth = 0.008; ///< [m]
    GearMaterial material = GearMaterial::Acetal;
    bool split = false; ///< spring-loaded split gear: no play
    StageFigures figures{assumed(0.93, 0.04), assumed(0.003), assumed(200.0), assumed(1e-6)};

    friend bool operator==(const GearStage&, const GearStage&) = default;
};

/// Planetary gearhead with equal stages: ring held, sun drives, carrier out.
struct PlanetaryStage {
    std::string id;
    int sunTeeth = 12;
    int ringTeeth = 48;
    int stages = 1;
    Estimate ratedTorque = assumed(4.0, 0.2); ///< [N·m] at the output
    StageFigures figures{assumed(0.9, 0.05), assumed(0.009), assumed(400.0), assumed(1e-6)};

    friend bool operator==(const PlanetaryStage&, const PlanetaryStage&) = default;
};

/// Strain-wave gear: ratio is half the teeth of the flexible ring.
struct StrainWaveStage {
    std::string id;
    int flexTeeth = 100;
    Estimate ratedTorque = assumed(5.0, 0.2); ///< [N·m] at the output
    StageFigures figures{assumed(0.7, 0.1), assumed(0.0003), assumed(2500.0), assumed(3e-6)};

    friend bool operator==(const StrainWaveStage&, const StrainWaveStage&) = default;
};

/// Worm and wheel. What it locks at rest, shaking may undo.
struct WormStage {
    std::string id;
    int starts = 1;
    int wheelTeeth = 40;
    Estimate leadAngle = assumed(0.0785, 0.1); ///< [rad] of the worm
    Estimate friction = assumed(0.08, 0.3);    ///< [1] between the flanks
    Estimate startFriction =
        assumed(0.0, 0.3); ///< [1] between the flanks at break-away; 0: not given, half as much again
    Estimate backlash = assumed(0.002);  ///< [rad] at the wheel
    Estimate stiffness = assumed(300.0); ///< [N·m/rad] at the wheel; 0: not given, left out
    Estimate inertia = assumed(1e-6);    ///< [kg·m²] of the worm

    friend bool operator==(const WormStage&, const WormStage&) = default;
};

/// A closed box with a known ratio, as an exact fraction: zero-backlash reducers, gearheads with odd ratios.
struct ReducerStage {
    std::string id;
    int numerator = 10;                       ///< turns in per …
    int denominator = 1;                      ///< … turns out
    Estimate ratedTorque = assumed(5.0, 0.2); ///< [N·m] at the output
    StageFigures figures{assumed(0.85, 0.05), assumed(0.0), assumed(800.0), assumed(2e-6)};

    friend bool operator==(const ReducerStage&, const ReducerStage&) = default;
};

/// Roller pressed on a wheel, a disc or a ring without teeth.
struct RollerStage {
    std::string id;
    Estimate rollerDiameter = assumed(0.012, 0.01); ///< [m]
    Estimate wheelDiameter = assumed(0.12, 0.01);   ///< [m]
    Estimate friction = assumed(0.5, 0.3);          ///< [1] between the two
    Estimate pressure = assumed(20.0, 0.3);         ///< [N]
    StageFigures figures{assumed(0.92, 0.05), assumed(0.0), assumed(100.0), assumed(1e-6)};

    friend bool operator==(const RollerStage&, const RollerStage&) = default;
};

/// Whether gears of a material ring like metal and run as fast.
constexpr bool metal(GearMaterial material) {
    return material == GearMaterial::Steel || material == GearMaterial::Brass ||
           material == GearMaterial::Aluminium;
}

using Link = std::variant<Coupling, BeltStage, GearStage, PlanetaryStage, StrainWaveStage, WormStage,
                          ReducerStage, RollerStage>;

/// Id of a link, of any kind.
const std::string& linkId(const Link& link);
std::string& linkId(Link& link);

} // namespace gantry
