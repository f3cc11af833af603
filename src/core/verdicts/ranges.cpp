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
#include "core/verdicts/low_end.h"
#include "core/verdicts/rules.h"

#include <algorithm>
#include <atomic>
#include <optional>
#include <span>
#include <unordered_map>

namespace gantry {
namespace {

bool aboutRig(const Verdict& v) {
    return ruleOf(v).judgeRig != nullptr;
}

/// Falls of less than this share of a ratio are not worth another look.
constexpr double notable = 0.02;
/// A low end that comes no nearer to 1 than this is told by straight lines.
constexpr double near = 1.5;
/// Stands for what a search found too little of, in place of an input.
constexpr int searched = -1;
/// Falls smaller than this [1] count as none.
constexpr double negligible = 1e-9;

/// The low ends of some verdicts, gathered while one input after the other is moved.
class LowEnds {
public:
    explicit LowEnds(std::vector<Verdict*> nominal) : nominal_(std::move(nominal)), of_(nominal_.size()) {
        for (const Verdict* v : nominal_)
            if (v->ratio) rules_.push_back(v->rule);
    }

    /// Of those verdicts whose ratio may fall.
    std::span<const int> rules() const { return rules_; }

    /// What was found with an input at one of its ends. Another sentence or shot says that something else
    /// binds there, and a straight line no longer tells how far it goes.
    void at(double end, const std::vector<Verdict>& found) {
        auto from = found.begin(); // both lists are in order of rules
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& n = *nominal_[i];
            if (!n.ratio) continue;
            const auto same =
                std::find_if(from, found.end(), [&](const Verdict& v) { return v.rule >= n.rule; });
            if (same == found.end()) break;
            from = same;
            if (same->rule != n.rule || !same->ratio) continue;
            if (!aboutRig(n) && (same->sentence != n.sentence || same->shot != n.shot)) n.switches = true;
            const double rise = onScale(same->ratio.value()) - scaled(i);
            of_[i].rise = std::max(of_[i].rise, rise);
            if (-rise > of_[i].now.by) of_[i].now = {-1, -rise, end};
        }
    }

    /// Whether a ratio that may be least inside an input's range has changed.
    bool insideMatters() const {
        for (std::size_t i = 0; i < of_.size(); ++i)
            if (nominal_[i]->ratio && ruleOf(*nominal_[i]).leastInside && nominal_[i]->ratio.value() >= 1.0 &&
                scaled(i) < criteria::ampleRatio &&
                std::max(of_[i].rise, of_[i].now.by) > notable * scaled(i))
                return true;
        return false;
    }

    /// All that was looked at of one input. What only rose is taken to fall as much at the other end, unless
    /// that was looked at too.
    void take(int input, double otherEnd, bool bothEnds) {
        for (Falls& f : of_) {
            f.guessed = f.now.by <= 0.0 && !bothEnds && f.rise > 0.0;
            if (f.guessed) f.now = {input, f.rise, otherEnd};
            if (f.now.by > negligible) {
                f.now.input = input;
                f.all.push_back(f.now);
                if (f.guessed) f.mirrored.push_back(f.all.size() - 1);
            }
            f.now = {};
            f.rise = 0.0;
        }
    }

    /// Inputs whose other end was only guessed, where it may decide a state.
    std::vector<int> openInputs() const {
        std::vector<int> out;
        for (std::size_t i = 0; i < of_.size(); ++i) {
            const Figure& ratio = nominal_[i]->ratio;
            if (!ratio || ratio.value() < 1.0 || lowEndOf(ratio.value(), of_[i].all) >= near) continue;
            for (const std::size_t fall : of_[i].mirrored)
                if (of_[i].all[fall].by > notable * scaled(i)) out.push_back(of_[i].all[fall].input);
        }
        std::sort(out.begin(), out.end());
        out.erase(std::unique(out.begin(), out.end()), out.end());
        return out;
    }
    /// The other end of an input, looked at after all.
    void correct(int input) {
        for (Falls& f : of_) {
            for (const std::size_t fall : f.mirrored)
                if (f.all[fall].input == input) f.all[fall].by = std::max(0.0, f.now.by);
            f.now = {};
            f.rise = 0.0;
        }
    }

    /// Sets low ends and states. `worst` gives the worst case of a verdict from its falls, `path` the place
    /// of an input.
    template <class Worst, class Edge, class Path>
    void finish(Worst worst, Edge edge, Path path) {
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            Verdict& v = *nominal_[i];
            if (!v.ratio) continue;
            v.low = lowEndOf(v.ratio.value(), of_[i].all);
            if (ruleOf(v).harmless && v.ratio.value() >= 1.0) v.low = std::max(v.low, 1.0);
            v.state = stateOf(v);
            if (v.state == State::AtRisk) {
                const std::vector<Fall> deciding = decidingFalls(scaled(i), of_[i].all);
                for (const Fall& f : deciding)
                    if (f.input != searched) v.deciding.push_back(path(f.input));
                if (deciding.size() == 1 && deciding[0].input != searched) edge(v, deciding[0]);
            }
            // What stays ample needs no worst case, which costs most of all.
            if (v.hazard && v.state != State::Over && v.low < criteria::ampleRatio && !of_[i].all.empty())
                v.worst = worst(v, of_[i].all);
        }
        nameWhatMattersMost(path);
    }

private:
    /// Of all that holds, what comes nearest to its target says which input counts most. Paths are dear, so
    /// no other does.
    template <class Path>
    void nameWhatMattersMost(Path path) {
        std::size_t nearest = nominal_.size();
        const auto left = [&](std::size_t i) { return nominal_[i]->low / nominal_[i]->bounds.wanted; };
        for (std::size_t i = 0; i < nominal_.size(); ++i) {
            const State state = nominal_[i]->state;
            if ((state == State::Tight || state == State::Fine) && !of_[i].all.empty() &&
                (nearest == nominal_.size() || left(i) < left(nearest)))
                nearest = i;
        }
        if (nearest == nominal_.size()) return;
        const auto& all = of_[nearest].all;
        const auto most = std::max_element(all.begin(), all.end(),
                                           [](const Fall& a, const Fall& b) { return a.by < b.by; });
        if (most->input != searched) nominal_[nearest]->deciding = {path(most->input)};
    }

    struct Falls {
        Fall now;
        double rise = 0.0;
        bool guessed = false;
        std::vector<Fall> all;
        std::vector<std::size_t> mirrored; ///< places in `all`
    };
    double scaled(std::size_t i) const { return onScale(nominal_[i]->ratio.value()); }

    std::vector<Verdict*> nominal_;
    std::vector<Falls> of_;
    std::vector<int> rules_;
};

/// Moves inputs in a project of its own and says what is found then.
class Mover {
public:
    Mover(const Project& project, std::shared_ptr<const std::vector<PlannedMove>> planned)
        : project_(project), setup_(setupWithMoves(project_, std::move(planned))) {}

    /// @param inputs of project(); @param both whether one end says nothing of the other; @param judged
    /// judges it as it stands, by the rules that it is given
    template <class Judged, class Path>
    void run(const std::vector<UncertainInput>& inputs, LowEnds& ends, bool both, Judged judged, Path path) {
        const auto look = [&](const UncertainInput& input, double end, bool isFirst) {
            const Moved moved(input, end);
            ends.at(end, judged(ends.rules(), isFirst));
        };
        for (std::size_t i = 0; i < inputs.size(); ++i) {
            const UncertainInput& input = inputs[i];
            const double value = input.estimate->value, first = fartherEnd(input);
            if (first == value) continue;
            const double other = otherEnd(input);
            look(input, first, true);
            const bool inside = ends.insideMatters();
            if (inside)
                for (const double end : {other, 0.5 * (value + first), 0.5 * (value + other)})
                    look(input, end, false);
            else if (both)
                look(input, other, false);
            ends.take(static_cast<int>(i), other, inside || both);
        }
        for (const int i : ends.openInputs()) {
            const UncertainInput& input = inputs[static_cast<std::size_t>(i)];
            look(input, otherEnd(input), false);
            ends.correct(i);
        }
        ends.finish(
            [&](const Verdict& v, const std::vector<Fall>& falls) { return worst(inputs, v, falls, judged); },
            [&](Verdict& v, const Fall& fall) {
                findEdge(inputs[static_cast<std::size_t>(fall.input)], v, fall, judged);
            },
            path);
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
            if (f.input == searched || f.by <= negligible) continue;
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

    void ofAxis(std::size_t i, std::vector<Verdict*> nominal) {
        LowEnds ends(std::move(nominal));
        const std::vector<UncertainInput> inputs = inputsOfAxis(mover_.project(), i);
        // A thread that locks does so at once and altogether: more friction changes nothing, less may.
        const bool locked = evaluation_.axes[i].checks.locks && evaluation_.axes[i].powerOff.loaded;
        mover_.run(
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
    }

    void ofRig(std::vector<Verdict*> nominal) {
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
        ends.at(0.0, judged(ends.rules()));
        ends.take(searched, 0.0, true);
        std::vector<UncertainInput> inputs = inputsOfRig(mover_.project());
        if (close)
            for (const UncertainInput& input : uncertainInputsOf(mover_.project().head))
                inputs.push_back(input);
        mover_.run(
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

} // namespace

void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts,
                 const EachMoved& each, const Crew& crew) {
    // The verdicts of an axis stand together, and those of the rig behind them all.
    std::vector<std::vector<Verdict*>> ofAxes(evaluation.axes.size());
    auto next = verdicts.begin();
    for (std::size_t i = 0; i < ofAxes.size(); ++i)
        for (; next != verdicts.end() && next->axis == static_cast<int>(i) && !aboutRig(*next); ++next)
            ofAxes[i].push_back(&*next);
    std::vector<Verdict*> ofRig;
    for (Verdict& v : verdicts)
        if (aboutRig(v) && v.ratio) ofRig.push_back(&v);

    // None reads what another writes, so every thread takes the next that is left; the rig comes first,
    // for it takes longest.
    std::atomic<std::size_t> left{0};
    const std::size_t tasks = ofAxes.size() + 1;
    const auto work = [&] {
        std::optional<Worker> worker;
        for (std::size_t i = left++; i < tasks; i = left++) {
            if (i == 0 && ofRig.empty()) continue;
            if (!worker) worker.emplace(project, evaluation, each);
            if (i == 0)
                worker->ofRig(ofRig);
            else
                worker->ofAxis(i - 1, ofAxes[i - 1]);
        }
    };
    // Other threads count for themselves what they evaluate; it is ours.
    std::atomic<std::uint64_t> all{0};
    const std::uint64_t before = axisEvaluations();
    doneBy(crew, [&] {
        const std::uint64_t first = axisEvaluations();
        work();
        all += axisEvaluations() - first;
    });
    addAxisEvaluations(all - (axisEvaluations() - before));
}

Assessment assess(const Project& project, const EachMoved& each, Poses poses, const Known& known,
                  const Crew& crew) {
    Assessment out;
    out.evaluation = evaluate(project, poses, known, crew);
    out.verdicts = judge(project, out.evaluation);
    applyRanges(project, out.evaluation, out.verdicts, each, crew);
    return out;
}

} // namespace gantry
