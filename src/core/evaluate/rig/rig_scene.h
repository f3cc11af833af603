// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/criteria/criteria.h"
#include "core/evaluate/rig/rig_layout.h"

#include <vector>

namespace gantry {

/// What a moving part comes near to.
enum class Obstacle { None, Ground, Wall, Ceiling, Body, KeepOut };

/// Two things of a rig that may come near each other.
struct Pair {
    int body = -1; ///< place among the bodies of the chain
    Obstacle obstacle = Obstacle::None;
    int with = -1;                               ///< another body, or a place in Project::keepOut
    int below = -1;                              ///< link that both stand on; what is under it moves neither
                                                 ///< against the other
    double wanted = criteria::clearanceDistance; ///< [m]
    bool cut = false;                            ///< the body is an arm, looked at only away from its pivot
    bool onArm = false;   ///< the other is the arm whose links keep the body level: it turns about their end
    bool endless = false; ///< the other is a rail that the body runs along, as if it had no ends
};

/// How far [m] the two things of a pair may get within a box of poses from where they are in its middle.
struct Stray {
    double travel = 0.0;    ///< [m]
    std::size_t widest = 0; ///< the sweep that does most of it
};

/// A rig in a pose, and what of it may come near what.
///
/// Never compared: what is fixed to each other, or mounted one on the other; a carriage and what carries its
/// rail, or the ground; what only rides along and turns upright and what it rides on; an arm within 0.25 m of
/// its pivot and what it stands on. What an arm on a carriage carries is not compared with that rail while
/// the height of its mast is an assumption.
class Scene {
public:
    /// A view of the rig, which must live on.
    explicit Scene(const RigSetup& rig);

    /// An axis that sweeps.
    struct Sweep {
        std::size_t axis = 0;
        double range = 0.0; ///< [U]
    };
    /// Finds all pairs that anything moves against each other, and which sweeps do.
    void findPairs();
    const std::vector<Sweep>& sweeps() const { return sweeps_; }
    const std::vector<Pair>& pairs() const { return pairs_; }
    const std::vector<std::size_t>& sweepsOf(std::size_t pair) const { return movers_[pair]; }

    const RigChain& chain() const { return chain_; }
    Place groundUp() const { return groundUp_; } ///< square to the ground

    /// Puts every axis to a place within its travel.
    void pose(std::span<const double> places);
    /// The same for one pair alone.
    void pose(std::span<const double> places, const Pair& pair);
    /// Distance [m] of a pair in that pose.
    double apart(const Pair& pair) const;
    /// Less than which [m] the two are not apart, without looking closely.
    double apartAtLeast(const Pair& pair) const;
    /// How far they can stray within `half` [U] of each sweep. Against a plane only what goes up or down
    /// counts. From each of the two down to what both stand on: a joint swings a point by its distance, to
    /// which comes what the joints above it have moved it already.
    Stray stray(const Pair& pair, std::span<const double> half) const;

private:
    void findGround();
    void addBodies(int body, int lower);
    void keepMoving();
    template <class F>
    void eachStray(const Pair& pair, std::span<const double> half, F f) const;
    double swing(const Pair& pair, int link, const geometry::Solid& solid, double moved) const;
    double share(const Pair& pair, int link) const;

    geometry::Frame frameOf(int link) const;
    geometry::Plane planeOf(Obstacle obstacle) const;
    const geometry::Solid& solid(int body) const { return solids_[static_cast<std::size_t>(body)]; }
    const ChainBody& body(int i) const { return chain_.bodies[static_cast<std::size_t>(i)]; }
    const kinematics::Link& linkAt(int link) const { return chain_.links[static_cast<std::size_t>(link)]; }
    /// The sweep of a link's axis; −1: it does not move.
    int sweepOf(int link) const { return sweepOfAxis_[static_cast<std::size_t>(linkAt(link).axis)]; }
    bool leansBetween(int link, int below) const;
    bool keptLevelOn(int link, int arm) const;
    bool standsOnArm(int link, int below) const;
    bool runsAlong(int link, int below, int rail) const;
    bool anyBelow(int link, bool (*is)(kinematics::Joint)) const;

    const RigSetup& rig_;
    RigChain chain_;
    Place groundUp_{0.0, 0.0, 1.0};
    std::vector<Sweep> sweeps_;
    std::vector<int> sweepOfAxis_; ///< place in `sweeps_`; −1: it does not move
    std::vector<Pair> pairs_;
    std::vector<std::vector<std::size_t>> movers_; ///< of each pair
    std::vector<geometry::Frame> frames_;
    std::vector<geometry::Solid> solids_;
};

} // namespace gantry
