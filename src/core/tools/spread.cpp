// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/spread.h"

#include "core/evaluate/moved_inputs.h"

#include <cmath>

namespace gantry {
namespace {

using Each = void (*)(Figure& sum, const Figure& nominal, const Figure& moved);

void addSquare(Figure& sum, const Figure& nominal, const Figure& moved) {
    const Figure change = moved - nominal;
    if (sum) sum = sum + change * change;
}
void start(Figure& sum, const Figure& nominal, const Figure&) {
    sum = nominal ? Figure::of(0.0) : nominal;
}
void root(Figure& sum, const Figure&, const Figure&) {
    sum = sum.map([](double squares) { return std::sqrt(squares); });
}

template <class S>
void each(S& sum, const S& nominal, const S& moved, Each f) {
    results::forEachFigure(
        [&](const FigureInfo&, Figure& s, const Figure& n, const Figure& m) { f(s, n, m); }, sum, nominal,
        moved);
}

void each(std::vector<ChainColumn>& sum, const std::vector<ChainColumn>& nominal,
          const std::vector<ChainColumn>& moved, Each f) {
    for (std::size_t i = 0; i < sum.size() && i < moved.size(); ++i) each(sum[i], nominal[i], moved[i], f);
}

} // namespace

AxisEvaluation axisSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                          Searches searches) {
    AxisEvaluation sum = nominal;
    each(sum, nominal, nominal, start);
    Project moved = project;
    RigSetup rig = setupOf(moved);
    forEachMovedInput(moved, axis, [&] {
        rig.refresh(axis);
        each(sum, nominal, evaluateAxis(rig, axis, searches), addSquare);
    });
    each(sum, nominal, nominal, root);
    return sum;
}

std::vector<AxisEvaluation> movedEvaluations(const Project& project, std::size_t axis) {
    std::vector<AxisEvaluation> out;
    Project moved = project;
    RigSetup rig = setupOf(moved);
    forEachMovedInput(moved, axis, [&] {
        rig.refresh(axis);
        out.push_back(evaluateAxis(rig, axis, Searches::No));
    });
    return out;
}

std::vector<ChainColumn> columnSpread(const Axis& axis, const AxisEvaluation& nominal,
                                      std::span<const AxisEvaluation> moved, std::size_t shot) {
    const auto columns = [&](const AxisEvaluation& e) { return chainColumns(axis, e, e.shots[shot]); };
    const std::vector<ChainColumn> centre = columns(nominal);
    std::vector<ChainColumn> sum = centre;
    each(sum, centre, centre, start);
    for (const AxisEvaluation& e : moved)
        if (shot < e.shots.size()) each(sum, centre, columns(e), addSquare);
    each(sum, centre, centre, root);
    return sum;
}

} // namespace gantry
