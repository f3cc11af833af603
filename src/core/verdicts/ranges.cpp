// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/ranges.h"

#include "core/evaluate/pose_search.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/evaluate/moved_inputs.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/evaluate/setup_of.h"
#include "core/evaluate/work_count.h"
#include "core/solve/root.h"
#include "core/verdicts/judge_by.h"
#include "core/verdicts/low_ends.h"
#include "core/verdicts/rules.h"

#include <algorithm>
#include <atomic>
#include <optional>
#include <span>
#include <unordered_map>

namespace gantry {
namespace {

/// Moves inputs in a project of its own and says what is found then.
class Mover {
public:
    Mover(const Project& project, std::shared_ptr<const std::vector<PlannedMove>> planned)
        : project_(project), setup_(setupWithMoves(project_, std::move(planned))) {}

    /// @param inputs of project(); @param both whether one end says nothing of the other; @param judged
    /// judges it as it stands, by the rules that it is given
    template <class Judged, class Path>
    std::vector<std::vector<Fall>> run(const std::vector<UncertainInput>& inputs, LowEnds& ends, bool both,
                                       Judged judged, Path path) {
        const auto look = [&](const UncertainInput& input, double end, std::span<const int> rules,
                              bool isFirst = false) {
            const Moved moved(input, end);
            ends.at(end, rules, judged(rules, isFirst));
        };
        const bool open = !ends.rules().empty();
        for (std::size_t i = 0; open && i < inputs.size(); ++i) {
            const UncertainInput& input = inputs[i];
            const double value = input.estimate->value, first = fartherEnd(input);
            if (first == value) continue;
            const double other = otherEnd(input);
            look(input, first, ends.rules(), true);
            const std::vector<int> inside = ends.leastInside();
            if (!inside.empty())
                for (const double end : {other, 0.5 * (value + first), 0.5 * (value + other)})
                    look(input, end, inside);
            if (both) look(input, other, ends.rules());
            ends.take(static_cast<int>(i), other, both);
        }
        for (const auto& [i, rules] : ends.openInputs()) {
            const UncertainInput& input = inputs[static_cast<std::size_t>(i)];
            look(input, otherEnd(input), rules);
            ends.correct(i, rules);
        }
        return ends.finish({[&](const Verdict& v, const std::vector<Fall>& falls) {
                                return worst(inputs, v, falls, judged);
                            },
                            [&](Verdict& v, const Fall& fall) {
                                findEdge(inputs[static_cast<std::size_t>(fall.input)], v, fall, judged);
                            },
                            path});
    }

    Project& project() { return project_; }
    RigSetup& setup() { return setup_; }

private:
    static double otherEnd(const UncertainInput& input) {
        const Ends range = endsOf(input.info, *input.estimate);
        return fartherEnd(input) == range.high ? range.low : range.high;
    }

    /// The ratio of a verdict in a list; as it is where the list has none.
    static double ratioIn(const std::vector<Verdict>& found, const Verdict& v) {
        const auto same =
            std::find_if(found.begin(), found.end(), [&](const Verdict& x) { return x.rule == v.rule; });
        return same != found.end() && same->ratio ? same->ratio.value() : v.ratio.value();
    }

    /// How far the input that decides may go until the verdict no longer holds, looked for to twice its
    /// tolerance; to a thousandth of it.
    template <class Judged>
    static void findEdge(const UncertainInput& input, Verdict& v, const Fall& fall, Judged judged) {
        const double nominal = input.estimate->value;
        const double farthest =
            std::clamp(nominal + 2.0 * (fall.at - nominal), input.info.min, input.info.max);
        constexpr double justHolds = 1.0 - 1e-9; // what just holds, holds
        const auto over = [&](double x) {
            const Moved moved(input, x);
            return ratioIn(judged(std::span(&v.rule, 1), false), v) - justHolds;
        };
        solve::At holds{nominal, v.ratio.value() - justHolds}, fails{fall.at, over(fall.at)};
        if (fails.f > 0.0) {
            holds = fails;
            fails = {farthest, over(farthest)};
        }
        constexpr int bits = 12, mostCalls = 24;
        const auto edge = holds.x < fails.x ? solve::rootBetween(over, holds, fails, bits, mostCalls)
                                            : solve::rootBetween(over, fails, holds, bits, mostCalls);
        if (!edge || *edge == nominal) return;
        v.holdsUntil = Figure::of(*edge);
        v.holdsUntilKind = input.info.kind;
        v.holdsBelow = farthest > nominal;
    }

    /// The ratio of a verdict with everything at its worst.
    template <class Judged>
    static Figure worst(const std::vector<UncertainInput>& inputs, const Verdict& v, std::vector<Fall> falls,
                        Judged judged) {
        std::stable_sort(falls.begin(), falls.end(),
                         [](const Fall& a, const Fall& b) { return a.by > b.by; });
        std::vector<Ends> box;
        std::vector<double> corner;
        std::vector<UncertainInput> targets;
        for (const Fall& f : falls) {
            if (f.input == searchedInput || f.by <= negligibleFall) continue;
            const UncertainInput& input = inputs[static_cast<std::size_t>(f.input)];
            box.push_back(endsOf(input.info, *input.estimate));
            corner.push_back(f.at);
            targets.push_back(input);
        }
        MovedTogether moved(std::move(targets));
        const auto ratioAt = [&](const std::vector<double>& values) {
            moved.put(values);
            return ratioIn(judged(std::span(&v.rule, 1), false), v);
        };
        // Where all worse ends together do less harm than their squares, some of them act against each other.
        double least = ratioAt(corner);
        if (least > v.low) least = leastCorner(std::span<const Ends>(box), corner, ratioAt);
        moved.restore();
        return least;
    }

    Project project_; // rules read the project, so inputs are moved in one of our own
    RigSetup setup_;
};

/// Moves inputs of one axis after the other, or of the rig; several may do so at once.
class Worker {
public:
    Worker(const Project& project, const Evaluation& evaluation, const EachMoved& each)
        : evaluation_(evaluation), each_(each), mover_(project, evaluation.planned) {}

    std::vector<std::vector<Fall>> ofAxis(std::size_t i, std::vector<Verdict*> nominal,
                                          std::span<const KnownEnd> known) {
        LowEnds ends(std::move(nominal), known);
        const std::vector<UncertainInput> inputs = inputsOfAxis(mover_.project(), i);
        // A thread that locks does so at once and altogether: more friction changes nothing, less may.
        const bool locked = evaluation_.axes[i].checks.locks && evaluation_.axes[i].powerOff.loaded;
        auto falls = mover_.run(
            inputs, ends, locked,
            [&](std::span<const int> rules, bool first) -> const std::vector<Verdict>& {
                mover_.setup().refresh(i);
                AxisEvaluation moved = evaluateAxis(mover_.setup(), i, Searches::No, &evaluation_.axes[i]);
                found_.clear();
                judgeAxisBy(rules, mover_.project(), static_cast<int>(i), moved, found_);
                if (first && each_) each_(i, std::move(moved));
                return found_;
            },
            [&](int input) { return pathOf(inputs, input); });
        mover_.setup().refresh(i);
        return falls;
    }

    std::vector<std::vector<Fall>> ofRig(std::vector<Verdict*> nominal) {
        LowEnds ends(std::move(nominal));
        Evaluation rig;
        const auto judged = [&](std::span<const int> rules) -> const std::vector<Verdict>& {
            found_.clear();
            judgeRigBy(rules, mover_.project(), rig, found_);
            return found_;
        };
        // What a search has not looked into closely enough counts like an input that is not known better.
        rig.rig = evaluation_.rig;
        rig.plans = evaluation_.plans; // whose figures are judged as they are
        rig.moves = evaluation_.moves; // which but for tipping lean on settings and places alone
        if (rig.rig.clearance.distance) rig.rig.clearance.distance = rig.rig.clearance.atLeast;
        const bool close =
            rig.rig.clearance.distance &&
            rig.rig.clearance.distance.value() < criteria::ampleRatio * rig.rig.clearance.wanted.value();
        ends.at(0.0, ends.rules(), judged(ends.rules()));
        ends.take(searchedInput, 0.0, true);
        std::vector<UncertainInput> inputs = inputsOfRig(mover_.project());
        if (close)
            for (const UncertainInput& input : uncertainInputsOf(mover_.project().head))
                inputs.push_back(input);
        auto falls = mover_.run(
            inputs, ends, false,
            [&](std::span<const int> rules, bool) -> const std::vector<Verdict>& {
                mover_.setup().refreshMasses();
                rig.rig = rigAgain(mover_.setup(), evaluation_.axes, evaluation_.rig);
                rig.rig.clearance = evaluation_.rig.clearance;
                for (std::size_t m = 0; m < rig.moves.size(); ++m)
                    if (evaluation_.moves[m].tipping)
                        rig.moves[m].tipping =
                            tippingAgain(mover_.setup(), (*evaluation_.planned)[m],
                                         evaluation_.moves[m].tippingAt.value(), evaluation_.axes);
                if (close)
                    rig.rig.clearance.distance =
                        Figure::of(apartAt(mover_.setup(), evaluation_.poses->clearance));
                return judged(rules);
            },
            [&](int input) { return pathOf(inputs, input); });
        mover_.setup().refreshMasses();
        return falls;
    }

private:
    /// Places of inputs are wanted only where one decides.
    std::string pathOf(const std::vector<UncertainInput>& inputs, int input) {
        if (paths_.empty())
            for (auto& [estimate, path] : pathsOfEstimates(mover_.project()))
                paths_.emplace(estimate, std::move(path));
        return paths_[inputs[static_cast<std::size_t>(input)].estimate];
    }

    const Evaluation& evaluation_;
    const EachMoved& each_;
    Mover mover_;
    std::unordered_map<const Estimate*, std::string> paths_;
    std::vector<Verdict> found_;
};

/// A project but for its moves: what everything hangs on that is not about a move.
Project butMoves(const Project& project) {
    Project out = project;
    out.moves.clear();
    return out;
}

bool anyRealises(const Project& project) {
    return std::any_of(project.moves.begin(), project.moves.end(),
                       [](const RigMove& m) { return m.realises; });
}

/// Of verdicts on one axis those that an earlier assessment found the low ends of: all that are not about
/// moves, where but for moves the project is the same.
std::vector<KnownEnd> knownEnds(const std::vector<Verdict*>& nominal, const Assessment& before) {
    std::vector<KnownEnd> out(nominal.size());
    auto next = before.verdicts.begin();
    for (std::size_t i = 0; i < nominal.size(); ++i) {
        const Verdict& n = *nominal[i];
        if (ruleOf(n).alongMoves) continue;
        next = std::find_if(next, before.verdicts.end(), [&](const Verdict& v) {
            return v.axis == n.axis && v.rule == n.rule && !aboutRig(v);
        });
        if (next == before.verdicts.end()) break;
        out[i] = {&*next, &before.ranged->falls[static_cast<std::size_t>(next - before.verdicts.begin())]};
    }
    return out;
}

/// @param before whose low ends still hold where they are not about moves; may be null
/// @return for each verdict what its low end was found from
std::vector<std::vector<Fall>> rangesOf(const Project& project, const Evaluation& evaluation,
                                        std::vector<Verdict>& verdicts, const EachMoved& each,
                                        const Crew& crew, const Assessment* before) {
    // The verdicts of an axis stand together, and those of the rig behind them all.
    std::vector<std::vector<Verdict*>> ofAxes(evaluation.axes.size());
    auto next = verdicts.begin();
    for (std::size_t i = 0; i < ofAxes.size(); ++i)
        for (; next != verdicts.end() && next->axis == static_cast<int>(i) && !aboutRig(*next); ++next)
            ofAxes[i].push_back(&*next);
    std::vector<Verdict*> ofRig;
    for (Verdict& v : verdicts)
        if (aboutRig(v) && v.ratio) ofRig.push_back(&v);

    std::vector<std::vector<Fall>> out(verdicts.size());
    const auto keep = [&](const std::vector<Verdict*>& of, std::vector<std::vector<Fall>> falls) {
        for (std::size_t i = 0; i < of.size(); ++i)
            out[static_cast<std::size_t>(of[i] - verdicts.data())] = std::move(falls[i]);
    };
    // None reads what another writes, so every thread takes the next that is left; the rig comes first,
    // for it takes longest.
    std::atomic<std::size_t> left{0};
    const std::size_t tasks = ofAxes.size() + 1;
    const auto work = [&] {
        std::optional<Worker> worker;
        for (std::size_t i = left++; i < tasks; i = left++) {
            if (i == 0 && ofRig.empty()) continue;
            if (!worker) worker.emplace(project, evaluation, each);
            if (i == 0) {
                keep(ofRig, worker->ofRig(ofRig));
                continue;
            }
            const std::vector<Verdict*>& nominal = ofAxes[i - 1];
            const std::vector<KnownEnd> known =
                before != nullptr ? knownEnds(nominal, *before) : std::vector<KnownEnd>();
            keep(nominal, worker->ofAxis(i - 1, nominal, known));
        }
    };
    // Other threads count for themselves what they evaluate; it is ours.
    std::atomic<std::uint64_t> all{0};
    const std::uint64_t first = axisEvaluations();
    doneBy(crew, [&] {
        const std::uint64_t own = axisEvaluations();
        work();
        all += axisEvaluations() - own;
    });
    addAxisEvaluations(all - (axisEvaluations() - first));
    return out;
}

} // namespace

void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts,
                 const EachMoved& each, const Crew& crew) {
    rangesOf(project, evaluation, verdicts, each, crew, nullptr);
}

Assessment assess(const Project& project, const EachMoved& each, Poses poses, const Known& known,
                  const Crew& crew, const Assessment* before) {
    Assessment out;
    out.evaluation = evaluate(project, poses, known, crew);
    out.verdicts = judge(project, out.evaluation);
    if (before == nullptr) {
        applyRanges(project, out.evaluation, out.verdicts, each, crew);
        return out;
    }
    auto ranged = std::make_shared<Ranged>();
    ranged->of = butMoves(project);
    ranged->shotsByMoves = anyRealises(project);
    const Ranged* was = before->ranged.get();
    // What a move realises is judged as a shot too.
    const bool holds = was != nullptr && !was->shotsByMoves && !ranged->shotsByMoves && was->of == ranged->of;
    ranged->falls = rangesOf(project, out.evaluation, out.verdicts, each, crew, holds ? before : nullptr);
    out.ranged = std::move(ranged);
    return out;
}

} // namespace gantry
