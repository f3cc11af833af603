// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Dense>
#include <cmath>
#include <vector>

/// A small finite-element model of one straight beam: Euler-Bernoulli elements with two degrees of freedom a
/// node (sag, slope), consistent masses, springs and lumped masses at nodes. Written for the tests alone, by
/// another method than the closed forms that it checks.
class BeamElements {
public:
    /// Even mesh of `elements` over `length` [m]; stiffness EI [N·m²], mass [kg/m].
    BeamElements(double length, int elements, double ei, double massPerLength)
        : h_(length / elements), n_(elements), ei_(ei), mu_(massPerLength),
          k_(Eigen::MatrixXd::Zero(size(), size())), m_(k_), f_(Eigen::VectorXd::Zero(size())) {
        for (int e = 0; e < n_; ++e) {
            Eigen::Matrix4d k, m;
            k << 12, 6 * h_, -12, 6 * h_, 6 * h_, 4 * h_ * h_, -6 * h_, 2 * h_ * h_, -12, -6 * h_, 12,
                -6 * h_, 6 * h_, 2 * h_ * h_, -6 * h_, 4 * h_ * h_;
            m << 156, 22 * h_, 54, -13 * h_, 22 * h_, 4 * h_ * h_, 13 * h_, -3 * h_ * h_, 54, 13 * h_, 156,
                -22 * h_, -13 * h_, -3 * h_ * h_, -22 * h_, 4 * h_ * h_;
            k_.block<4, 4>(2 * e, 2 * e) += ei_ / (h_ * h_ * h_) * k;
            m_.block<4, 4>(2 * e, 2 * e) += mu_ * h_ / 420.0 * m;
        }
    }
    void spring(double at, double stiffness) { k_.diagonal()[2 * node(at)] += stiffness; }
    void turningSpring(double at, double stiffness) { k_.diagonal()[2 * node(at) + 1] += stiffness; }
    /// A point load anywhere, spread to its element's nodes by the shape functions.
    void load(double at, double force) {
        const int e = std::min(n_ - 1, static_cast<int>(at / h_));
        f_.segment<4>(2 * e) += force * shapes(at / h_ - e);
    }
    void moment(double at, double torque) { f_[2 * node(at) + 1] += torque; }
    void ownWeight(double gravity) {
        const double w = mu_ * gravity;
        for (int e = 0; e < n_; ++e)
            f_.segment<4>(2 * e) += w * h_ / 12.0 * Eigen::Vector4d(6.0, h_, 6.0, -h_);
    }
    /// A mass at a node whose centre of gravity lies `offset` beyond it along the beam.
    void mass(double at, double kg, double offset) {
        const int i = 2 * node(at);
        m_(i, i) += kg;
        m_(i, i + 1) += kg * offset;
        m_(i + 1, i) += kg * offset;
        m_(i + 1, i + 1) += kg * offset * offset;
    }
    /// A moment of inertia [kg·m²] that turns with a node.
    void turning(double at, double inertia) { m_(2 * node(at) + 1, 2 * node(at) + 1) += inertia; }
    void solve() { u_ = k_.ldlt().solve(f_); }
    double sag(double at) const {
        const int e = std::min(n_ - 1, static_cast<int>(at / h_));
        return shapes(at / h_ - e).dot(u_.segment<4>(2 * e));
    }
    double slope(double at) const { return u_[2 * node(at) + 1]; }
    double firstFrequency() const {
        const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> s(k_, m_, Eigen::EigenvaluesOnly);
        return std::sqrt(s.eigenvalues()[0]) / (2.0 * 3.14159265358979323846);
    }
    double atNode(double at) const { return node(at) * h_; }

private:
    Eigen::Index size() const { return 2 * (n_ + 1); }
    int node(double at) const { return static_cast<int>(std::lround(at / h_)); }
    Eigen::Vector4d shapes(double s) const {
        return {1 - 3 * s * s + 2 * s * s * s, h_ * (s - 2 * s * s + s * s * s), 3 * s * s - 2 * s * s * s,
                h_ * (s * s * s - s * s)};
    }
    double h_;
    int n_;
    double ei_, mu_;
    Eigen::MatrixXd k_, m_;
    Eigen::VectorXd f_, u_;
};
