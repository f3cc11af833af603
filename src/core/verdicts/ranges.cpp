// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/ranges.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/moved_inputs.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/verdicts/rules.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Ratios saturate where an error vanishes; such a ratio has no meaningful slope.
constexpr double saturated = 1e5;

/// Low end of a ratio from what moving each input by its tolerance did to it. Contributions are added as
/// squares of what the *error* grows by (1/ratio), so that several inputs never take it below nothing. An
/// input that made the ratio better is taken to make it worse by as much the other way, or by half the same
/// factor where as much would leave next to nothing. To first order this is the root of the summed squares of
/// the ratio's own changes.
class LowEnd {
public:
    void add(double nominal, double moved) {
        if (!(nominal > 0.0) || !(moved >= 0.0)) return;
        const double worse =
            moved <= nominal ? moved : std::max(2.0 * nominal - moved, 0.5 * nominal * nominal / moved);
        if (worse <= 0.0) {
            nothingLeft_ = true;
            return;
        }
        const double growth = 1.0 / worse - 1.0 / nominal;
        squares_ += growth * growth;
    }
    double of(double nominal) const {
        if (nothingLeft_ || !(nominal > 0.0)) return 0.0;
        return squares_ > 0.0 ? 1.0 / (1.0 / nominal + std::sqrt(squares_)) : nominal;
    }

private:
    double squares_ = 0.0;
    bool nothingLeft_ = false;
};

bool aboutRig(const Verdict& v) {
    return ruleOf(v).judgeRig != nullptr;
}

class AxisRanges {
public:
    AxisRanges(int axis, std::vector<Verdict*> nominal)
        : axis_(axis), nominal_(std::move(nominal)), low_(nominal_.size()) {}

    /// Adds what the ratios do when the project and the rig set up from it stand with one input moved.
    AxisEvaluation move(const Project& project, const RigSetup& rig) {
        AxisEvaluation moved = evaluateAxis(rig, static_cast<std::size_t>(axis_), Searches::No);
        verdicts_.clear();
        // Rules read the project too, so the input must still be moved.
        judgeAxis(project, axis_, moved, verdicts_);
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& n = *nominal_[i];
            const auto same = std::find_if(verdicts_.begin(), verdicts_.end(),
                                           [&](const Verdict& v) { return v.rule == n.rule; });
            if (same == verdicts_.end() || !same->ratio || !n.ratio || n.ratio.value() > saturated ||
                same->ratio.value() > saturated)
                continue;
            // Another sentence or shot: something else binds there, and a straight line no longer tells how
            // far it goes.
            if (same->sentence != n.sentence || same->shot != n.shot) n.switches = true;
            low_[i].add(n.ratio.value(), same->ratio.value());
        }
        return moved;
    }

    void finish() {
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& v = *nominal_[i];
            if (!v.ratio) continue;
            v.low = low_[i].of(v.ratio.value());
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
    std::vector<LowEnd> low_;
    std::vector<Verdict> verdicts_;
};

} // namespace

namespace {

/// Verdicts about the whole rig, with every input of every axis, of the base and of the payload moved in
/// turn.
void applyRigRanges(Project& moved, RigSetup& setup, const Evaluation& evaluation,
                    std::vector<Verdict>& verdicts) {
    std::vector<Verdict*> nominal;
    for (Verdict& v : verdicts)
        if (aboutRig(v) && v.ratio) nominal.push_back(&v);
    if (nominal.empty()) return;
    std::vector<LowEnd> low(nominal.size());
    Evaluation rig;
    std::vector<Verdict> found;
    const auto judgeMoved = [&] {
        found.clear();
        judgeRig(moved, rig, found);
        for (std::size_t i = 0; i < nominal.size(); ++i)
            for (const Verdict& v : found)
                if (v.rule == nominal[i]->rule && v.ratio && nominal[i]->ratio.value() < saturated)
                    low[i].add(nominal[i]->ratio.value(), v.ratio.value());
    };
    forEachMovedRigInput(moved, [&] {
        setup.refreshMasses();
        rig.rig = rigAgain(setup, evaluation.axes, evaluation.rig);
        judgeMoved();
    });
    // What a search has not looked into closely enough counts like an input that is not known better.
    rig.rig = evaluation.rig;
    if (rig.rig.clearance) rig.rig.clearance = rig.rig.clearanceAtLeast;
    judgeMoved();
    for (std::size_t i = 0; i < nominal.size(); ++i) {
        Verdict& v = *nominal[i];
        v.low = low[i].of(v.ratio.value());
        v.state = stateOf(v.low, v.bounds);
    }
}

} // namespace

void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts,
                 const EachMoved& each) {
    // Rules read the project, so each input is moved in one of our own, and put back.
    Project moved = project;
    RigSetup rig = setupOf(moved);
    // The verdicts of an axis stand together, and those of the rig behind them all.
    auto next = verdicts.begin();
    for (std::size_t i = 0; i < evaluation.axes.size(); ++i) {
        std::vector<Verdict*> nominal;
        for (; next != verdicts.end() && next->axis == static_cast<int>(i) && !aboutRig(*next); ++next)
            nominal.push_back(&*next);
        AxisRanges ranges(static_cast<int>(i), std::move(nominal));
        forEachMovedInput(moved, i, [&] {
            rig.refresh(i);
            AxisEvaluation there = ranges.move(moved, rig);
            if (each) each(i, std::move(there));
        });
        rig.refresh(i);
        ranges.finish();
    }
    applyRigRanges(moved, rig, evaluation, verdicts);
}

Assessment assess(const Project& project, const EachMoved& each) {
    Assessment out;
    out.evaluation = evaluate(project);
    out.verdicts = judge(project, out.evaluation);
    applyRanges(project, out.evaluation, out.verdicts, each);
    return out;
}

} // namespace gantry
