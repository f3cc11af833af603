// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/arm_modes.h"

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry::structure {
namespace {

/// A stiff turn, and of each side the shapes of a force and of a couple at the end.
constexpr int turn = 0, shapes = 2, most = 1 + 2 * shapes;
using Matrix = Eigen::Matrix<double, most, most>;
using Some = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, most, most>; ///< the rows in use

/// Deflection and its slope of both shapes at a place, each shape 1 of load.
struct Shapes {
    std::array<double, shapes> deflection{}, slope{};
};

/// Shapes of one side, section by section: the bending moment of shape 0 is L − s, of shape 1 it is 1, so
/// that slopes and deflections are polynomials within a section.
class SideShapes {
public:
    explicit SideShapes(const ArmSide& side) : side_(side), length_(side.length()) {
        Shapes now;
        double s = 0.0;
        for (const ArmSection& section : side.sections) {
            roots_.push_back(now);
            now = within(section, now, s, section.length);
            s += section.length;
        }
        end_ = now;
    }
    double length() const { return length_; }

    /// At a place behind the inner end of the section that begins at `from`.
    Shapes within(const ArmSection& section, const Shapes& root, double from, double x) const {
        const double give = 1.0 / section.bendingStiffness, far = length_ - from;
        Shapes out = root;
        out.slope[0] += give * (far * x - 0.5 * x * x);
        out.slope[1] += give * x;
        out.deflection[0] += root.slope[0] * x + give * (0.5 * far * x * x - x * x * x / 6.0);
        out.deflection[1] += root.slope[1] * x + give * 0.5 * x * x;
        return out;
    }
    Shapes at(double place) const {
        double from = 0.0;
        for (std::size_t i = 0; i < side_.sections.size(); ++i) {
            const ArmSection& section = side_.sections[i];
            if (place <= from + section.length) return within(section, roots_[i], from, place - from);
            from += section.length;
        }
        Shapes out = end_;
        for (std::size_t k = 0; k < shapes; ++k) out.deflection[k] += (place - length_) * end_.slope[k];
        return out;
    }
    const std::vector<Shapes>& roots() const { return roots_; }

private:
    const ArmSide& side_;
    double length_;
    std::vector<Shapes> roots_;
    Shapes end_;
};

/// Adds mass and stiffness of one side. `first` is the row of its first shape; behind the pivot a turn moves
/// the other way.
void addSide(Matrix& mass, Matrix& stiffness, const ArmSide& side, int first, double sign) {
    const SideShapes shape(side);
    const auto add = [&](double m, double own, double place, const Shapes& at) {
        std::array<double, 1 + shapes> move{sign * place}, twist{sign};
        for (std::size_t k = 0; k < shapes; ++k) {
            move[k + 1] = at.deflection[k];
            twist[k + 1] = at.slope[k];
        }
        const auto row = [&](std::size_t k) { return k == 0 ? turn : first + static_cast<int>(k) - 1; };
        for (std::size_t a = 0; a < move.size(); ++a)
            for (std::size_t b = 0; b < move.size(); ++b)
                mass(row(a), row(b)) += m * move[a] * move[b] + own * twist[a] * twist[b];
    };
    // Gauss's rule with four points is exact for the squares of cubics.
    constexpr std::array<double, 4> points{-0.8611363115940526, -0.3399810435848563, 0.3399810435848563,
                                           0.8611363115940526};
    constexpr std::array<double, 4> weights{0.3478548451374538, 0.6521451548625461, 0.6521451548625461,
                                            0.3478548451374538};
    double from = 0.0;
    for (std::size_t i = 0; i < side.sections.size(); ++i) {
        const ArmSection& section = side.sections[i];
        const double half = 0.5 * section.length;
        for (std::size_t g = 0; g < points.size(); ++g) {
            const double x = half * (1.0 + points[g]);
            add(section.massPerMetre * half * weights[g], 0.0, from + x,
                shape.within(section, shape.roots()[i], from, x));
        }
        // Stiffness: the product of two moments over EI.
        const double outer = shape.length() - from - section.length, inner = shape.length() - from,
                     give = 1.0 / section.bendingStiffness;
        stiffness(first, first) += give * (inner * inner * inner - outer * outer * outer) / 3.0;
        const double both = give * (inner * inner - outer * outer) / 2.0;
        stiffness(first, first + 1) += both;
        stiffness(first + 1, first) += both;
        stiffness(first + 1, first + 1) += give * section.length;
        from += section.length;
    }
    for (const ArmBody& body : side.bodies) add(body.mass, body.own, body.at, shape.at(body.at));
}

double lowest(const Some& mass, const Some& stiffness) {
    // Scaled to a unit diagonal of the mass: metres, newtons and newton metres lie far apart.
    std::array<double, most> scale{};
    for (Eigen::Index i = 0; i < mass.rows(); ++i) {
        if (!(mass(i, i) > 0.0)) return 0.0;
        scale[static_cast<std::size_t>(i)] = 1.0 / std::sqrt(mass(i, i));
    }
    Some m = mass, k = stiffness;
    for (Eigen::Index i = 0; i < mass.rows(); ++i)
        for (Eigen::Index j = 0; j < mass.rows(); ++j) {
            const double by = scale[static_cast<std::size_t>(i)] * scale[static_cast<std::size_t>(j)];
            m(i, j) *= by;
            k(i, j) *= by;
        }
    const Eigen::GeneralizedSelfAdjointEigenSolver<Some> solver(k, m, Eigen::EigenvaluesOnly);
    if (solver.info() != Eigen::Success) return 0.0;
    const double w2 = solver.eigenvalues()(0);
    return w2 > 0.0 && std::isfinite(w2) ? std::sqrt(w2) / (2.0 * std::numbers::pi) : 0.0;
}

bool empty(const ArmSide& side) {
    return side.sections.empty() || !(side.length() > 0.0);
}

} // namespace

double ArmSide::length() const {
    double out = 0.0;
    for (const ArmSection& s : sections) out += s.length;
    return out;
}

double firstFrequency(const ArmSide& front, const ArmSide& back, double spring) {
    Matrix mass = Matrix::Zero(), stiffness = Matrix::Zero();
    std::vector<int> rows;
    if (spring > 0.0) {
        stiffness(turn, turn) = spring;
        rows.push_back(turn);
    }
    const auto side = [&](const ArmSide& s, int first, double sign) {
        if (empty(s)) {
            for (const ArmBody& b : s.bodies) mass(turn, turn) += b.mass * b.at * b.at + b.own;
            return;
        }
        addSide(mass, stiffness, s, first, sign);
        rows.push_back(first);
        rows.push_back(first + 1);
    };
    side(front, 1, 1.0);
    side(back, 1 + shapes, -1.0);
    if (rows.empty()) return 0.0;
    const auto n = static_cast<Eigen::Index>(rows.size());
    Some m(n, n), k(n, n);
    for (Eigen::Index a = 0; a < n; ++a)
        for (Eigen::Index b = 0; b < n; ++b) {
            m(a, b) = mass(rows[static_cast<std::size_t>(a)], rows[static_cast<std::size_t>(b)]);
            k(a, b) = stiffness(rows[static_cast<std::size_t>(a)], rows[static_cast<std::size_t>(b)]);
        }
    return lowest(m, k);
}

double largestStress(const ArmSide& side, double gravity) {
    double worst = 0.0, from = 0.0;
    for (std::size_t i = 0; i < side.sections.size(); ++i) {
        double moment = 0.0, at = from;
        for (std::size_t j = i; j < side.sections.size(); ++j) {
            const ArmSection& s = side.sections[j];
            moment += s.massPerMetre * s.length * (at + 0.5 * s.length - from);
            at += s.length;
        }
        for (const ArmBody& b : side.bodies)
            if (b.at > from) moment += b.mass * (b.at - from);
        if (side.sections[i].modulus > 0.0)
            worst = std::max(worst, gravity * moment / side.sections[i].modulus);
        from += side.sections[i].length;
    }
    return worst;
}

} // namespace gantry::structure
