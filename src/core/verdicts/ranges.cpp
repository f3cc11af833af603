// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/ranges.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/moved_inputs.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Ratios saturate where an error vanishes; such a ratio has no meaningful slope.
constexpr double saturated = 1e5;

class AxisRanges {
public:
    AxisRanges(int axis, std::vector<Verdict*> nominal)
        : axis_(axis), nominal_(std::move(nominal)), squares_(nominal_.size(), 0.0) {}

    /// Adds what the ratios do when the project stands with one input moved.
    void move(const Project& project) {
        const AxisEvaluation moved =
            evaluateAxis(project, project.axes[static_cast<std::size_t>(axis_)], Searches::No);
        verdicts_.clear();
        // Rules read the project too, so the input must still be moved.
        judgeAxis(project, axis_, moved, verdicts_);
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& n = *nominal_[i];
            const auto same = std::find_if(verdicts_.begin(), verdicts_.end(),
                                           [&](const Verdict& v) { return v.rule == n.rule; });
            if (same == verdicts_.end() || !same->ratio || !n.ratio || n.ratio.value() > saturated) continue;
            // Another sentence or shot: something else binds there, and a straight line no longer tells how
            // far it goes.
            if (same->sentence != n.sentence || same->shot != n.shot) n.switches = true;
            const double change = same->ratio.value() - n.ratio.value();
            squares_[i] += change * change;
        }
    }

    void finish() {
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& v = *nominal_[i];
            if (!v.ratio) continue;
            v.low = std::max(0.0, v.ratio.value() - std::sqrt(squares_[i]));
            // Oversized is a matter of the nominal size, not of the worst case.
            const State nominal = stateOf(v.ratio.value(), v.bounds);
            v.state = nominal == State::Oversized ? nominal : stateOf(v.low, v.bounds);
            if (v.ceiling == State::Tight && (v.state == State::Fine || v.state == State::Oversized))
                v.state = State::Tight;
        }
    }

private:
    int axis_;
    std::vector<Verdict*> nominal_;
    std::vector<double> squares_;
    std::vector<Verdict> verdicts_;
};

} // namespace

void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts) {
    for (std::size_t i = 0; i < evaluation.axes.size(); ++i) {
        std::vector<Verdict*> nominal;
        for (Verdict& v : verdicts)
            if (v.axis == static_cast<int>(i)) nominal.push_back(&v);
        AxisRanges ranges(static_cast<int>(i), std::move(nominal));
        // judge reads the axis through the project, so the moved axis must stand in a project of its own.
        Project moved = project;
        forEachMovedInput(moved, i, [&] { ranges.move(moved); });
        ranges.finish();
    }
}

Assessment assess(const Project& project) {
    Assessment out;
    out.evaluation = evaluate(project);
    out.verdicts = judge(project, out.evaluation);
    applyRanges(project, out.evaluation, out.verdicts);
    return out;
}

} // namespace gantry
