// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/views.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>

namespace gantry::kinematics {
namespace {

using Vector = Eigen::Vector3d;
using Matrix = Eigen::Matrix3d;

Vector vectorOf(geometry::Place p) {
    return {p.x, p.y, p.z};
}
geometry::Place placeOf(const Vector& v) {
    return {v.x(), v.y(), v.z()};
}

/// What is square to a ray.
Matrix squareTo(const Vector& d) {
    return Matrix::Identity() - d * d.transpose();
}

} // namespace

ToldPoint pointFrom(std::span<const View> views, double angle, double position) {
    constexpr double worstAllowed = 0.1, likely = 0.999;
    constexpr int rounds = 5;
    ToldPoint out;
    if (views.size() < 2) {
        out.no = NoPoint::TooFew;
        return out;
    }
    for (std::size_t i = 0; i < views.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            out.parallax = std::max(
                out.parallax, std::acos(std::clamp(dot(views[i].towards, views[k].towards), -1.0, 1.0)));
    std::vector<double> weights(views.size(), 1.0);
    Vector at = Vector::Zero();
    Matrix normal = Matrix::Zero();
    const auto solve = [&] {
        normal.setZero();
        Vector right = Vector::Zero();
        for (std::size_t i = 0; i < views.size(); ++i) {
            const Matrix square = weights[i] * squareTo(vectorOf(views[i].towards));
            normal += square;
            right += square * vectorOf(views[i].from);
        }
        Eigen::FullPivLU<Matrix> lu(normal);
        lu.setThreshold(1e-13);
        if (!lu.isInvertible()) return false;
        at = lu.solve(right);
        return at.allFinite();
    };
    if (!solve()) {
        out.no = NoPoint::Parallel;
        return out;
    }
    for (int round = 0; round < rounds; ++round) {
        for (std::size_t i = 0; i < views.size(); ++i) {
            const double range = (at - vectorOf(views[i].from)).norm();
            const double spread = angle * range;
            weights[i] = 1.0 / (spread * spread + position * position);
        }
        if (!solve()) {
            out.no = NoPoint::Parallel;
            return out;
        }
    }
    const Matrix covariance = normal.inverse();
    out.at = placeOf(at);
    out.deviation = placeOf(covariance.diagonal().cwiseMax(0.0).cwiseSqrt());
    out.worstDeviation =
        std::sqrt(std::max(0.0, Eigen::SelfAdjointEigenSolver<Matrix>(covariance).eigenvalues().maxCoeff()));
    double nearest = 0.0;
    bool behind = false;
    for (std::size_t i = 0; i < views.size(); ++i) {
        const Vector way = at - vectorOf(views[i].from), towards = vectorOf(views[i].towards);
        const double miss = (squareTo(towards) * way).norm(), range = way.norm();
        out.misses.push_back(miss);
        out.misfit += weights[i] * miss * miss;
        nearest = i == 0 ? range : std::min(nearest, range);
        behind = behind || way.dot(towards) <= 0.0;
    }
    out.worstShare = nearest > 0.0 ? out.worstDeviation / nearest : 0.0;
    const boost::math::chi_squared misses(2.0 * static_cast<double>(views.size()) - 3.0);
    if (behind)
        out.no = NoPoint::Behind;
    else if (out.worstShare > worstAllowed)
        out.no = NoPoint::Parallel;
    else if (out.misfit > boost::math::quantile(misses, likely))
        out.no = NoPoint::Disagree;
    return out;
}

} // namespace gantry::kinematics
