// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_sweep.h"

#include "core/structure/nearest.h"

#include <algorithm>
#include <functional>
#include <map>

namespace gantry {
namespace {

/// What one box of poses shows, by shares of what is wanted: the nearest thing in its middle, and the least
/// that anything can be apart.
struct Look {
    double nearest = 1e6, atLeast = 1e6; ///< [1]
    std::size_t widest = 0;
    const Pair* pair = nullptr;
    double distance = 1e6; ///< [m]
};

/// @param of the pairs to look at; @param half of each sweep; empty: one pose
Look lookAt(const Scene& scene, std::span<const Pair* const> of, std::span<const double> half) {
    Look out;
    for (const Pair* p : of) {
        const Stray stray = half.empty() ? Stray{} : scene.stray(*p, half);
        const double rough = scene.apartAtLeast(*p);
        if (rough / p->wanted > out.nearest && (rough - stray.travel) / p->wanted > out.atLeast) continue;
        const double distance = scene.apart(*p);
        if ((distance - stray.travel) / p->wanted < out.atLeast) {
            out.atLeast = (distance - stray.travel) / p->wanted;
            out.widest = stray.widest;
        }
        if (distance / p->wanted < out.nearest) {
            out.nearest = distance / p->wanted;
            out.pair = p;
            out.distance = distance;
        }
    }
    return out;
}

Clearance clearanceOf(const Look& look, std::span<const double> pose) {
    Clearance out;
    out.looks = 1;
    if (look.pair == nullptr) return out;
    out.distance = out.atLeast = look.distance;
    out.pair = *look.pair;
    out.pose.assign(pose.begin(), pose.end());
    return out;
}

std::string inQuotes(std::string_view name) {
    return "“" + std::string(name) + "”";
}

std::string nameOf(const RigSetup& rig, int body) {
    const RigChain chain = chainOf(rig);
    const ChainBody& b = chain.bodies[static_cast<std::size_t>(body)];
    return b.name.empty() ? std::string(bodyName(b.kind)) : inQuotes(b.name);
}

} // namespace

std::string obstacleName(const RigSetup& rig, const Clearance& c) {
    switch (c.pair.obstacle) {
    case Obstacle::Ground:
        return "the ground";
    case Obstacle::Wall:
        return "the wall";
    case Obstacle::Ceiling:
        return "the ceiling";
    case Obstacle::Body:
        return nameOf(rig, c.pair.with);
    case Obstacle::KeepOut:
        return inQuotes(rig.keepOut[static_cast<std::size_t>(c.pair.with)].name);
    case Obstacle::None:
        break;
    }
    return {};
}

std::string nearestBodyName(const RigSetup& rig, const Clearance& c) {
    return c.any() ? nameOf(rig, c.pair.body) : std::string();
}

Clearance clearanceAt(const RigSetup& rig, std::span<const double> pose) {
    Scene scene(rig);
    scene.findPairs();
    scene.pose(withinTravels(rig.axes, pose));
    std::vector<const Pair*> all;
    for (const Pair& p : scene.pairs()) all.push_back(&p);
    return clearanceOf(lookAt(scene, all, {}), pose);
}

double apartAt(const RigSetup& rig, const Clearance& c) {
    Scene scene(rig);
    const auto bodies = static_cast<int>(scene.chain().bodies.size());
    if (c.pair.body >= bodies || (c.pair.obstacle == Obstacle::Body && c.pair.with >= bodies))
        return c.distance; // of a lens that is no longer there
    scene.pose(withinTravels(rig.axes, c.pose), c.pair);
    return scene.apart(c.pair);
}

Clearance sweepRig(const RigSetup& rig, int mostLooks, long mostWork) {
    Scene scene(rig);
    constexpr std::size_t mostBodies = 120;
    Clearance out;
    out.whole = out.complete = scene.chain().bodies.size() <= mostBodies;
    if (!out.whole) return out;
    scene.findPairs();
    // Pairs that the same axes move are looked at together, so that no search has more joints than it needs.
    std::map<std::vector<std::size_t>, std::vector<const Pair*>> groups;
    for (std::size_t i = 0; i < scene.pairs().size(); ++i)
        groups[scene.sweepsOf(i)].push_back(&scene.pairs()[i]);
    const structure::SearchLimits limits{.harmless = 3.0, .tolerance = 0.2, .looks = mostLooks};
    double atLeast = 1e6;
    int looks = 0;
    bool complete = true;
    for (const auto& group : groups) {
        const std::vector<std::size_t>& sweeps = group.first;
        const std::vector<const Pair*>& pairs = group.second;
        if (mostWork <= 0) {
            out.whole = out.complete = false;
            return out;
        }
        std::vector<double> ranges;
        ranges.reserve(sweeps.size());
        for (const std::size_t k : sweeps) ranges.push_back(scene.sweeps()[k].range);
        std::vector<double> pose = withinTravels(rig.axes, shownPose(rig.axes));
        std::vector<double> half(scene.sweeps().size(), 0.0);
        const auto at = [&](std::span<const double> middle) {
            for (std::size_t i = 0; i < sweeps.size(); ++i) pose[scene.sweeps()[sweeps[i]].axis] = middle[i];
            scene.pose(pose);
        };
        const structure::Nearest nearest = structure::nearestApproach(
            ranges,
            [&](std::span<const double> middle, std::span<const double> halves) {
                at(middle);
                for (std::size_t i = 0; i < sweeps.size(); ++i) half[sweeps[i]] = halves[i];
                const Look look = lookAt(scene, pairs, half);
                const auto widest = std::find(sweeps.begin(), sweeps.end(), look.widest);
                return structure::Approach{
                    look.nearest, look.atLeast,
                    widest == sweeps.end() ? 0 : static_cast<std::size_t>(widest - sweeps.begin())};
            },
            limits);
        looks += nearest.looks;
        mostWork -= nearest.looks * static_cast<long>(pairs.size() + scene.chain().bodies.size());
        complete = complete && nearest.looks < mostLooks;
        atLeast = std::min(atLeast, nearest.atLeast);
        if (out.any() && nearest.distance >= out.ratio()) continue;
        at(nearest.pose);
        out = clearanceOf(lookAt(scene, pairs, {}), pose);
    }
    out.atLeast = atLeast * out.pair.wanted;
    out.looks = looks;
    out.complete = complete;
    return out;
}

std::vector<int> axesBetween(const RigSetup& rig, const Clearance& c) {
    Scene scene(rig);
    scene.findPairs();
    std::vector<int> out;
    for (std::size_t i = 0; i < scene.pairs().size(); ++i) {
        const Pair& p = scene.pairs()[i];
        if (p.body != c.pair.body || p.obstacle != c.pair.obstacle || p.with != c.pair.with) continue;
        for (const std::size_t k : scene.sweepsOf(i)) out.push_back(static_cast<int>(scene.sweeps()[k].axis));
    }
    std::sort(out.begin(), out.end(), std::greater());
    return out;
}

std::optional<ClearRange> clearRange(const RigSetup& rig, const Clearance& c, std::size_t axis) {
    Scene scene(rig);
    scene.findPairs();
    std::vector<const Pair*> pairs;
    for (std::size_t i = 0; i < scene.pairs().size(); ++i) {
        const auto moves = [&](std::size_t k) { return scene.sweeps()[k].axis == axis; };
        const auto& by = scene.sweepsOf(i);
        if (std::any_of(by.begin(), by.end(), moves)) pairs.push_back(&scene.pairs()[i]);
    }
    std::vector<double> pose = withinTravels(rig.axes, c.pose);
    const double travel = usableTravel(rig.axes[axis]);
    const auto at = [&](double place) {
        pose[axis] = place;
        scene.pose(pose);
        return lookAt(scene, pairs, {});
    };
    const auto clear = [&](double place) { return at(place).nearest >= 1.0; };
    // The longest run of clear places among many, its ends then halved upon.
    constexpr int places = 240;
    int bestFrom = -1, bestTo = -2, from = -1;
    for (int i = 0; i <= places + 1; ++i) {
        const bool free = i <= places && clear(travel * i / places);
        if (free && from < 0) from = i;
        if (!free && from >= 0) {
            if (i - 1 - from > bestTo - bestFrom) {
                bestFrom = from;
                bestTo = i - 1;
            }
            from = -1;
        }
    }
    if (bestFrom < 0) return std::nullopt;
    ClearRange out;
    const auto edge = [&](int inside, int outside) {
        if (outside < 0 || outside > places) return travel * inside / places;
        double good = travel * inside / places, bad = travel * outside / places;
        for (int i = 0; i < 20; ++i) {
            const double middle = 0.5 * (good + bad);
            (clear(middle) ? good : bad) = middle;
        }
        if ((outside < inside) == (c.pose[axis] < good)) out.first = clearanceOf(at(bad), pose).pair;
        return good;
    };
    out.low = edge(bestFrom, bestFrom - 1);
    out.high = edge(bestTo, bestTo + 1);
    return out;
}

} // namespace gantry
