// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/rig_scene.h"
#include "core/results/rig_results.h"

#include <optional>
#include <string>
#include <vector>

namespace gantry {

/// Closest that anything of the rig comes to ground, wall, ceiling, another part or a keep-out room while
/// every axis sweeps its range: closest beside the room that is wanted there, since fingers need more of it
/// than a lens needs from its own rail.
struct Clearance {
    double distance = 1e6; ///< [m] the nearest seen; negative: it has gone in, by no certain depth
    double atLeast = 1e6;  ///< [m] no pose comes nearer than this, beside what is wanted
    Pair pair;
    std::vector<double> pose;
    int looks = 0;        ///< poses that were laid
    bool complete = true; ///< everything was looked for as closely as it may be
    bool whole = true;    ///< everything was looked for

    bool any() const { return pair.obstacle != Obstacle::None; }
    double ratio() const { return distance / pair.wanted; }
};

/// Searches all poses of everything that moves. What has more than three times the room that is wanted is not
/// looked at more closely; nearer it is found to a fifth of what is wanted unless too many poses of the same
/// axes were needed, and then `atLeast` is what is certain.
/// Rigs of more than 120 bodies are not searched.
/// @param mostLooks poses that are looked at for what the same axes move
/// @param mostWork bodies and pairs that are looked at in all
Clearance sweepRig(const RigSetup& rig, int mostLooks = 4000, long mostWork = 4'000'000);

/// How near that pose is, with what is nearest.
Clearance clearanceAt(const RigSetup& rig, std::span<const double> pose);

/// Distance [m] of the two things of a clearance in its pose, of a rig whose inputs were moved a little.
double apartAt(const RigSetup& rig, const Clearance& clearance);

/// "the ground", "the leg" …, or in quotes what the user called it.
std::string obstacleName(const RigSetup& rig, const Clearance& clearance);
/// "the lens", "the arm" …
std::string nearestBodyName(const RigSetup& rig, const Clearance& clearance);

/// Axes that move the two things of a clearance against each other, from the lens down.
std::vector<int> axesBetween(const RigSetup& rig, const Clearance& clearance);

/// The longest run of places [U] of one axis at which everything that it moves keeps what is wanted, the
/// other axes where they are in the pose of a clearance; nothing where there are none.
struct ClearRange {
    double low = 0.0, high = 0.0;
    Pair first; ///< what comes too near first beyond it, on the side of that pose; none: nothing there
};
std::optional<ClearRange> clearRange(const RigSetup& rig, const Clearance& clearance, std::size_t axis);

} // namespace gantry
