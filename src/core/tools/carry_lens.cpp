// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/carry_lens.h"

#include <Eigen/Dense>
#include <algorithm>
#include <utility>

namespace gantry {

std::vector<std::size_t> carriers(std::span<const Axis> axes, const MoveScene& scene) {
    std::vector<std::size_t> out;
    for (std::size_t a = 0; a < axes.size(); ++a)
        if (scene.linkOf[a] >= 0 && !turnsOnHead(axes[a].role)) out.push_back(a);
    return out;
}

std::vector<double> carryLens(std::span<const Axis> axes, const MoveScene& scene, std::vector<double> places,
                              geometry::Place to, Directions matter) {
    const Eigen::Vector3d counts(matter.x, matter.y, matter.z);
    std::vector<geometry::Frame> frames(scene.links.size());
    std::vector<std::size_t> free = carriers(axes, scene);
    constexpr int steps = 60;
    for (int step = 0; step < steps && !free.empty(); ++step) {
        kinematics::forward(scene.links, places, frames);
        const geometry::Place lens = frames.back().at, way = geometry::minus(to, lens);
        const Eigen::Vector3d miss = Eigen::Vector3d(way.x, way.y, way.z).cwiseProduct(counts);
        if (miss.norm() < 1e-9) break;
        const kinematics::Fixed at{static_cast<int>(scene.links.size()) - 1, lens};
        Eigen::Matrix3Xd columns(3, free.size());
        for (std::size_t i = 0; i < free.size(); ++i) {
            const geometry::Place v =
                kinematics::velocities(scene.links, frames, static_cast<int>(free[i]), {&at, 1}).front();
            columns.col(static_cast<Eigen::Index>(i)) = Eigen::Vector3d(v.x, v.y, v.z).cwiseProduct(counts);
        }
        // Damped so little that it slows nothing but what cannot be reached.
        const Eigen::Matrix3d normal = columns * columns.transpose() + 1e-8 * Eigen::Matrix3d::Identity();
        const Eigen::VectorXd go = columns.transpose() * normal.ldlt().solve(miss);
        // An axis that comes to its end stays there, and the others go on without it.
        std::vector<std::size_t> left;
        for (std::size_t i = 0; i < free.size(); ++i) {
            double& place = places[free[i]];
            const SoftEnds& ends = scene.ends[free[i]];
            const double wanted = place + std::clamp(go[static_cast<Eigen::Index>(i)], -0.5, 0.5);
            place = std::clamp(wanted, std::min(ends.low, place), std::max(ends.high, place));
            if (place == wanted) left.push_back(free[i]);
        }
        free = std::move(left);
    }
    return places;
}

} // namespace gantry
