// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/rig_layout.h"

#include <string_view>

namespace gantry {

/// What a moving part comes near to.
enum class Obstacle { Ground, Base, KeepOut };

/// Closest that anything of the rig comes to ground, base or a keep-out room while every axis sweeps its
/// range.
struct Clearance {
    double distance = 1e6; ///< [m] the nearest seen; negative: it has gone in
    double atLeast = 1e6;  ///< [m] no pose comes nearer than this
    BodyKind body = BodyKind::Camera;
    Obstacle obstacle = Obstacle::Ground;
    int keepOut = -1;              ///< index in Project::keepOut
    BodyKind with = BodyKind::Leg; ///< the part of the base
    std::vector<double> pose;
    int looks = 0; ///< poses that were laid
};

/// Searches all poses of slides, lifts, swings, booms, pans and tilts. What is farther than 0.15 m from
/// anything is not looked at more closely; nearer it is found to a centimetre unless 400 poses were not
/// enough, and then `atLeast` is what is certain.
Clearance sweepRig(const RigSetup& rig);

/// How near that pose is, with the names of what is nearest.
Clearance clearanceAt(const RigSetup& rig, std::span<const double> pose);

/// Static words: "ground", "leg" …
std::string_view obstacleName(const Clearance& clearance);

} // namespace gantry
