// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_search.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/evaluate/rig/rig_scene.h"
#include "core/evaluate/rig/rig_sweep.h"
#include "core/geometry/silhouette.h"
#include "core/optics/picture.h"
#include "core/structure/nearest.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Least room beside what is wanted, over all moments: an interval of time is halved until what everything
/// can move within it hides nothing nearer.
void fillClearance(MoveSearchResults& out, const RigSetup& rig, const PlannedMove& planned) {
    const trajectory::Trajectory& t = planned.plan.trajectory;
    Scene scene(rig);
    constexpr std::size_t mostBodies = 120;
    if (scene.chain().bodies.size() > mostBodies) return;
    scene.findPairs();
    out.clearance = out.wanted = out.clearanceAt = Figure::none(Reason::NotApplicable);
    if (scene.pairs().empty()) return;
    std::vector<double> half(scene.sweeps().size(), 0.0);
    const auto lookAt = [&](double middle, double halfTime) {
        scene.pose(withinTravels(rig.axes, placesAt(t, middle)));
        const std::size_t first = t.pieceAt(middle - halfTime), last = t.pieceAt(middle + halfTime) + 1;
        for (std::size_t k = 0; k < half.size(); ++k)
            half[k] = halfTime > 0.0 ? halfTime * t.extremes(scene.sweeps()[k].axis, trajectory::Order::Speed,
                                                             first, std::min(last, t.pieceCount()))
                                                      .largest()
                                     : 0.0;
        structure::Approach look{1e6, 1e6, 0};
        const Pair* nearest = nullptr;
        for (const Pair& p : scene.pairs()) {
            const double stray = halfTime > 0.0 ? scene.stray(p, half).travel : 0.0;
            const double rough = scene.apartAtLeast(p);
            if (rough / p.wanted > look.distance && (rough - stray) / p.wanted > look.atLeast) continue;
            const double distance = scene.apart(p);
            look.atLeast = std::min(look.atLeast, (distance - stray) / p.wanted);
            if (distance / p.wanted < look.distance) {
                look.distance = distance / p.wanted;
                nearest = &p;
            }
        }
        return std::pair{look, nearest};
    };
    const double whole[]{t.duration()};
    const structure::SearchLimits limits{.harmless = 3.0, .tolerance = 0.1, .looks = 1500};
    const structure::Nearest nearest = structure::nearestApproach(
        whole,
        [&](std::span<const double> middle, std::span<const double> halves) {
            return lookAt(middle[0], halves[0]).first;
        },
        limits);
    if (nearest.pose.empty()) return;
    const double at = nearest.pose[0];
    const auto [look, pair] = lookAt(at, 0.0);
    if (pair == nullptr) return;
    Clearance named;
    named.pair = *pair;
    named.pose = placesAt(t, at);
    out.clearance = Figure::of(look.distance * pair->wanted);
    out.wanted = Figure::of(pair->wanted);
    out.clearanceAt = Figure::of(at);
    out.body = nearestBodyName(rig, named);
    out.with = obstacleName(rig, named);
}

/// Outlines of the rig's own parts in the picture with the axes at places [U], but for the camera and its
/// lens, and the share [0, 1] of the picture that they cover.
struct OwnParts {
    double share = 0.0;
    int most = -1; ///< index of the body that covers most; −1: nothing is in the picture
};
OwnParts ownPartsInView(const MoveScene& scene, const RigChain& chain, std::span<const double> places,
                        double halfWidth, double halfHeight) {
    std::vector<geometry::Frame> frames(scene.links.size());
    kinematics::forward(scene.links, places, frames);
    const geometry::Frame& eye = frames.back();
    // What the widest ray of the picture can reach; a body beside that is not in it.
    const double corner = std::hypot(halfWidth, halfHeight);
    OwnParts out;
    std::vector<std::vector<geometry::InView>> outlines;
    double most = 0.0;
    for (std::size_t i = 0; i < chain.bodies.size(); ++i) {
        const ChainBody& b = chain.bodies[i];
        if (!b.solid || b.kind == BodyKind::Camera || b.kind == BodyKind::Lens) continue;
        const geometry::Solid solid =
            solidOf(b, b.link < 0 ? geometry::Frame{} : frames[static_cast<std::size_t>(b.link)]);
        const geometry::Place middle = eye.seen(solid.frame.at);
        const double reach = 0.5 * std::hypot(solid.length, solid.width, solid.height) + solid.round;
        const double aside = std::hypot(middle.y, middle.z);
        if (middle.x + reach <= 0.0 ||
            aside - reach * std::sqrt(1.0 + corner * corner) > corner * std::max(0.0, middle.x))
            continue;
        std::vector<geometry::InView> outline = geometry::silhouette(solid, eye);
        if (outline.size() < 3) continue;
        const double share = geometry::coveredShare({&outline, 1}, halfWidth, halfHeight);
        if (!(share > 0.0)) continue;
        if (share > most) {
            most = share;
            out.most = static_cast<int>(i);
        }
        outlines.push_back(std::move(outline));
    }
    if (!outlines.empty()) out.share = geometry::coveredShare(outlines, halfWidth, halfHeight);
    return out;
}

void fillView(MoveSearchResults& out, const RigSetup& rig, const RigMove& move, const PlannedMove& planned) {
    const trajectory::Trajectory& t = planned.plan.trajectory;
    const RigChain chain = chainOf(rig);
    out.view = Figure::of(0.0);
    out.viewAt = out.viewFrom = out.viewTo = Figure::none(Reason::NotApplicable);
    constexpr double mostLooks = 1500.0; // frames of a minute; of longer moves that many
    const double recorded = t.duration() + move.preRoll + move.postRoll;
    const double step = std::max(1.0 / planned.scene.frameRate, recorded / mostLooks);
    const auto looks = static_cast<int>(std::floor(t.duration() / step + 1e-6));
    for (int i = 0; i <= looks + 1; ++i) {
        const double at = std::min(i * step, t.duration());
        const std::vector<double> places = placesAt(t, at);
        const double halfWidth = 0.5 * rig.camera.deliveredWidth / planned.scene.focal(places);
        const OwnParts seen =
            ownPartsInView(planned.scene, chain, places, halfWidth, halfWidth * optics::pictureShape);
        if (!(seen.share > 0.0)) continue;
        if (!out.viewFrom) out.viewFrom = Figure::of(at);
        out.viewTo = Figure::of(at);
        if (seen.share <= out.view.value()) continue;
        out.view = Figure::of(seen.share);
        out.viewAt = Figure::of(at);
        const ChainBody& body = chain.bodies[static_cast<std::size_t>(seen.most)];
        out.inView =
            body.name.empty() ? std::string(bodyName(body.kind)) : "“" + std::string(body.name) + "”";
    }
}

} // namespace

MoveSearchResults notSearched() {
    MoveSearchResults out;
    for (Figure* f :
         {&out.clearance, &out.wanted, &out.clearanceAt, &out.view, &out.viewAt, &out.viewFrom, &out.viewTo})
        *f = Figure::none(Reason::NotSearched);
    return out;
}

MoveSearchResults searchMove(const RigSetup& rig, const RigMove& move, const PlannedMove& planned) {
    MoveSearchResults out = notSearched();
    if (planned.plan.trajectory.empty()) return out;
    fillClearance(out, rig, planned);
    fillView(out, rig, move, planned);
    return out;
}

} // namespace gantry
