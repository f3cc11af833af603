// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fix.h"

#include "core/criteria/criteria.h"
#include "core/model/acceptable.h"
#include "core/model/fields.h"
#include "core/recipes/recipe.h"
#include "core/units/names.h"
#include "core/units/text.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/rules.h"
#include "core/words/input_name.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <optional>

namespace gantry {
namespace {

constexpr words::Message measurePart{"measure {part}"};
constexpr words::Message muchLonger{" (takes {0} times as long)"};
constexpr words::Message longWait{" (a long wait)"};
constexpr words::Message heavyBallast{" (heavy: rather a wider base)"};

/// How bad a state is; an oversized motor is no worse than a fine one here.
int badness(State state) {
    switch (state) {
    case State::Over:
        return 4;
    case State::AtRisk:
        return 3;
    case State::Unknown:
        return 2;
    case State::Tight:
        return 1;
    case State::Fine:
    case State::Oversized:
        break;
    }
    return 0;
}

/// The verdict that takes the place of another. What is judged of the whole rig may concern another axis.
const Verdict* sameVerdict(const std::vector<Verdict>& verdicts, const Verdict& wanted) {
    const rules::Rule& rule = ruleOf(wanted);
    const bool anyAxis = rule.judgeRig != nullptr;
    const Verdict* found = nullptr;
    for (const Verdict& v : verdicts) {
        if (v.rule != wanted.rule) continue;
        if (v.axis == wanted.axis) return &v;
        if (anyAxis && found == nullptr) found = &v;
    }
    return found;
}

/// Whether a candidate changes a field that is locked, by itself or with all that it stands in.
bool touchesLocked(const Project& project, const Project& changed) {
    if (project.lockedFields.empty()) return false;
    const std::vector<std::string> paths = changedFields(project, changed);
    return std::any_of(paths.begin(), paths.end(), [&](const std::string& path) {
        return std::any_of(
            project.lockedFields.begin(), project.lockedFields.end(),
            [&](const std::string& lock) { return path == lock || path.starts_with(lock + "/"); });
    });
}

/// Whether an axis would hold with more current than it runs with, and did not before.
bool holdsAboveRun(const Project& before, const Project& after) {
    for (std::size_t i = 0; i < after.axes.size(); ++i) {
        const Driver &was = before.axes[i].driver, &is = after.axes[i].driver;
        if (is.holdCurrent > is.runCurrent &&
            is.holdCurrent - is.runCurrent > was.holdCurrent - was.runCurrent)
            return true;
    }
    return false;
}

/// How long a shot takes: the longest of its axes. [s]
double durationOf(const Evaluation& e, std::size_t shot) {
    double longest = 0.0;
    for (const AxisEvaluation& axis : e.axes)
        for (const ShotEvaluation& s : axis.shots)
            if (s.shot == ShotIndex(shot)) longest = std::max(longest, s.motion.time.valueOr(0.0));
    return longest;
}

/// What speaks against a fix although it mends.
void findDrawback(const Project& project, const Assessment& now, Fix& fix) {
    constexpr double mostLonger = 3.0, mostWait = 10.0, mostBallast = 30.0;
    const auto worse = [&](Drawback what, double value) {
        fix.drawback = what;
        fix.drawbackValue = value;
    };
    const double ballast = fix.result.base.ballast.value;
    if (ballast > project.base.ballast.value) {
        const Figure weighs = now.evaluation.rig.mass;
        const double bare = weighs ? weighs.value() - project.base.ballast.value : mostBallast;
        if (ballast > std::min(mostBallast, bare)) worse(Drawback::HeavyBallast, ballast);
    }
    for (std::size_t i = 0; i < project.shots.size(); ++i) {
        const double settle = fix.result.shots[i].settle;
        if (settle > mostWait && settle > project.shots[i].settle) worse(Drawback::LongWait, settle);
        const double was = durationOf(now.evaluation, i), is = durationOf(fix.after.evaluation, i);
        if (was > 0.0 && is > mostLonger * was * (1.0 + 1e-6) && is / was > fix.drawbackValue)
            worse(Drawback::MuchLonger, is / was);
    }
}

/// A candidate and what became of it.
struct Tried {
    Fix fix;
    bool mends = false;                 ///< the verdict itself gets better
    bool harms = false;                 ///< what may not be harmed
    bool gains = false;                 ///< the verdict's ratio at least rises
    std::vector<const Verdict*> harmed; ///< in fix.after
};

Tried tryOut(const Assessment& now, const Verdict& verdict, const Project& project, fixes::Candidate c) {
    Tried t;
    Fix& fix = t.fix;
    // While the window has not looked through all poses yet, no change is: it looks again when it has.
    const Poses poses = now.evaluation.poses != nullptr ? Poses::Search : Poses::Later;
    fix.after = assess(c.result, {}, poses, now.evaluation.known(), {}, &now);
    fix.result = std::move(c.result);
    fix.cost = c.cost;
    fix.axis = fix.result.axes[static_cast<std::size_t>(verdict.axis)].id;
    fix.steps.push_back({c.label, c.arguments, c.shot, std::move(c.part)});
    std::move(c.more.begin(), c.more.end(), std::back_inserter(fix.steps));
    const Verdict* mended = sameVerdict(fix.after.verdicts, verdict);
    fix.stateAfter = mended != nullptr ? mended->state : State::Fine;
    fix.ratioAfter = mended != nullptr ? mended->ratio.valueOr(0.0) : 0.0;
    fix.lowAfter = mended != nullptr && mended->ratio ? mended->low : 0.0;
    // What is unknown is never better. One that was over-dimensioned is mended when it is so no more.
    t.mends = fix.stateAfter != State::Unknown &&
              (verdict.state == State::Oversized
                   ? fix.stateAfter != State::Oversized && badness(fix.stateAfter) == 0
                   : badness(fix.stateAfter) < badness(verdict.state));
    t.gains = mended == nullptr ||
              (mended->ratio && verdict.ratio && mended->ratio.value() > verdict.ratio.value() * 1.01);
    for (const Verdict& v : fix.after.verdicts) {
        if (mended == &v) continue;
        const Verdict* before = sameVerdict(now.verdicts, v);
        const int was = before != nullptr ? badness(before->state) : 0, is = badness(v.state);
        // What stays in its state and falls deeper is worse as well.
        const bool deeper = is == was && is > 0 && v.ratio && before != nullptr && before->ratio &&
                            v.ratio.value() < before->ratio.value() * 0.98;
        if (is <= was && !deeper) continue;
        if (is > was && (v.state == State::Over || v.state == State::AtRisk || v.hazard)) {
            t.harms = true;
            t.harmed.push_back(&v);
            continue;
        }
        // A fault that gets clearly worse is no side effect, unless something hangs that may fall; settings
        // are put right by setting them. A drive that is too weak gets no more to do.
        const double clearly = ruleKey(v) == criteria::torque.id ? 1.0 : 0.75;
        const bool excused =
            ruleKey(v) == criteria::settings.id || (verdict.hazard && ruleKey(v) != criteria::torque.id);
        const bool graver = is > badness(verdict.state); // than what is to be mended
        if (deeper && v.state == State::Over && !excused &&
            (graver || v.ratio.value() < clearly * before->ratio.value())) {
            t.harms = true;
            t.harmed.push_back(&v);
            continue;
        }
        Verdict missing = v;
        missing.state = State::Fine;
        fix.sideEffects.push_back({before != nullptr ? *before : missing, v});
    }
    std::sort(fix.sideEffects.begin(), fix.sideEffects.end(),
              [](const SideEffect& a, const SideEffect& b) { return worseThan(a.after, b.after); });
    // What only saves may cost nothing elsewhere.
    t.harms = t.harms || holdsAboveRun(project, fix.result) ||
              (verdict.state == State::Oversized &&
               std::any_of(fix.sideEffects.begin(), fix.sideEffects.end(), [](const SideEffect& s) {
                   return badness(s.after.state) > badness(s.before.state);
               }));
    if (t.mends && !t.harms) findDrawback(project, now, fix);
    return t;
}

/// Takes an input as measured, at the value that is entered; says whether it is known better then.
bool measured(Project& project, const std::string& path) {
    const std::optional<FieldRef> field = findField(project, path);
    if (!field || !std::holds_alternative<Estimate*>(field->target)) return false;
    Estimate& e = *std::get<Estimate*>(field->target);
    const std::vector<const recipes::Recipe*> how = recipes::forField(path);
    const double tolerance =
        how.empty() ? usualTolerance(field->info, Source::Measured, e.value) : how.front()->tolerance;
    if (tolerance >= e.tolerance) return false;
    e.tolerance = tolerance;
    e.source = Source::Measured;
    return true;
}

/// Measuring what decides, and then what decides of the rest, until the verdict is out of doubt.
std::optional<Fix> measuring(const Project& project, const Assessment& now, const Verdict& verdict) {
    constexpr std::size_t mostToMeasure = 4;
    fixes::Candidate c;
    c.cost = FixCost::Measure;
    c.label = measurePart;
    c.result = project;
    std::vector<std::string> paths, next = verdict.deciding;
    while (paths.size() < mostToMeasure) {
        const std::size_t before = paths.size();
        for (const std::string& path : next)
            if (measured(c.result, path)) paths.push_back(path);
        if (paths.size() == before) return std::nullopt;
        Tried t = tryOut(now, verdict, project, c);
        if (t.mends && !t.harms) {
            t.fix.measures = std::move(paths);
            return std::move(t.fix);
        }
        const Verdict* still = sameVerdict(t.fix.after.verdicts, verdict);
        if (still == nullptr) return std::nullopt;
        next = still->state == State::AtRisk ? still->deciding : std::vector<std::string>();
    }
    return std::nullopt;
}

/// Whether a fix is to be offered before another: by cost, then by what it leaves.
bool before(const Fix& a, const Fix& b) {
    const auto key = [](const Fix& f) {
        // All that is left to mend, so that what cures two things goes before what cures one.
        int left = 0;
        for (const Verdict& v : f.after.verdicts) left += badness(v.state);
        return std::array{f.drawback == Drawback::None ? 0 : 1,
                          static_cast<int>(f.cost),
                          badness(f.stateAfter),
                          static_cast<int>(f.sideEffects.size()),
                          left,
                          static_cast<int>(f.steps.size())};
    };
    return key(a) < key(b);
}

/// A search for what mends one verdict.
class Search {
public:
    Search(const Project& project, const Assessment& now, const Verdict& verdict, const std::stop_token& stop,
           const parts::Sources& stock)
        : project_(project), now_(now), verdict_(verdict),
          stop_(stop), problem_{project, now, verdict, stock} {}

    std::vector<Fix> run() {
        if (verdict_.state == State::AtRisk)
            if (std::optional<Fix> first = measuring(project_, now_, verdict_)) take(std::move(*first));
        for (const fixes::Family* family : ruleOf(verdict_).fixes) {
            if (!singly(*family)) return std::move(found_);
        }
        // What only saves needs no second change.
        if (verdict_.state != State::Oversized &&
            std::all_of(found_.begin(), found_.end(), [](const Fix& f) { return !f.measures.empty(); }))
            together();
        std::stable_sort(found_.begin(), found_.end(), before);
        return std::move(found_);
    }

private:
    bool allowed(const Project& result) const {
        // A family may scale a part past what its field takes; such a project could not be kept.
        return !touchesLocked(project_, result) && objectionTo(result).empty() && !(result == project_);
    }
    void take(Fix fix) {
        const bool there =
            std::any_of(found_.begin(), found_.end(), [&](const Fix& f) { return f.result == fix.result; });
        if (!there) found_.push_back(std::move(fix));
    }

    /// The gentlest change of a family that is fine, or the best that it has, for each cost. False: stopped.
    bool singly(const fixes::Family& family) {
        std::array<std::optional<Fix>, 4> best;
        for (fixes::Candidate& c : family.candidates(problem_)) {
            if (stop_.stop_requested()) return false;
            auto& of = best[static_cast<std::size_t>(c.cost)];
            if (of && badness(of->stateAfter) == 0) continue;
            if (!allowed(c.result)) continue;
            fixes::Candidate kept = c;
            Tried t = tryOut(now_, verdict_, project_, std::move(c));
            if (t.mends && !t.harms) {
                if (!of || before(t.fix, *of)) of = std::move(t.fix);
                continue;
            }
            // What helps and does not suffice, or harms, may do with another change.
            if (t.gains || t.mends) keepHalf(family, std::move(kept), std::move(t));
        }
        for (std::optional<Fix>& fix : best)
            if (fix) take(std::move(*fix));
        return true;
    }

    /// Of each family the one that helps most and the one that does so without harm.
    void keepHalf(const fixes::Family& family, fixes::Candidate candidate, Tried t) {
        Half half{&family, std::move(candidate), {}, {}, t.mends, t.fix.ratioAfter};
        for (const Verdict* v : t.harmed) half.harmed.push_back(*v);
        half.after = std::move(t.fix.after);
        const auto same = std::find_if(halves_.begin(), halves_.end(), [&](const Half& h) {
            return h.family == &family && h.harmed.empty() == half.harmed.empty();
        });
        if (same == halves_.end())
            halves_.push_back(std::move(half));
        else if (same->worth() < half.worth())
            *same = std::move(half);
    }

    /// A change that helps, with a second one: of the families of what it harms, or of the same verdict.
    void together() {
        std::stable_sort(halves_.begin(), halves_.end(),
                         [](const Half& a, const Half& b) { return a.worth() > b.worth(); });
        int left = mostTries;
        std::optional<Fix> best;
        for (const Half& half : halves_) {
            // Two harms or more are no near miss.
            if (half.harmed.size() > 1) continue;
            const Verdict* after = sameVerdict(half.after.verdicts, verdict_);
            const Verdict* mend = !half.harmed.empty() ? &half.harmed.front() : after;
            if (mend == nullptr) continue;
            const fixes::Problem rest{half.first.result, half.after, *mend, problem_.stock};
            for (const fixes::Family* family : ruleOf(*mend).fixes) {
                if (stop_.stop_requested() || left <= 0) break;
                if (family == half.family) continue; // twice the same is one change, and was tried
                for (fixes::Candidate& c : family->candidates(rest)) {
                    if (stop_.stop_requested() || left <= 0) break;
                    if (!allowed(c.result)) continue;
                    --left;
                    c.cost = std::max(c.cost, half.first.cost);
                    std::vector<FixStep> first{
                        {half.first.label, half.first.arguments, half.first.shot, half.first.part}};
                    first.insert(first.end(), half.first.more.begin(), half.first.more.end());
                    Tried t = tryOut(now_, verdict_, project_, std::move(c));
                    if (!t.mends || t.harms) continue;
                    t.fix.steps.insert(t.fix.steps.begin(), first.begin(), first.end());
                    if (!best || before(t.fix, *best)) best = std::move(t.fix);
                }
            }
            if (best && badness(best->stateAfter) == 0) break;
        }
        if (best) take(std::move(*best));
    }

    struct Half {
        const fixes::Family* family;
        fixes::Candidate first;
        Assessment after;
        std::vector<Verdict> harmed;
        bool mends;
        double ratio;
        std::pair<bool, double> worth() const { return {mends, ratio}; }
    };
    static constexpr int mostTries = 120;

    const Project& project_;
    const Assessment& now_;
    const Verdict& verdict_;
    const std::stop_token& stop_;
    fixes::Problem problem_;
    std::vector<Fix> found_;
    std::vector<Half> halves_;
};

} // namespace

std::string_view costWords(FixCost cost) {
    return units::nameOf<FixCost::ToBuy>(cost, "if it proves as entered", "setting only", "part on hand",
                                         "to buy");
}

std::string_view costKey(FixCost cost) {
    return units::nameOf<FixCost::ToBuy>(cost, "measure", "setting", "part_on_hand", "to_buy");
}

std::string describe(const Fix& fix, const Project& project, units::System system) {
    words::Names names;
    if (const Axis* axis = findAxis(project, fix.axis)) names.axis = axis->name;
    std::string measured, out;
    for (const std::string& path : fix.measures)
        measured += (measured.empty() ? "" : ", ") + words::inputLabel(project, path, fix.axis);
    for (const FixStep& step : fix.steps) {
        if (step.shot) names.shot = project.shots[step.shot.at()].name;
        names.part = fix.measures.empty() ? std::string_view(step.part) : std::string_view(measured);
        out += (out.empty() ? "" : "; ") + words::render(step.label, step.arguments, names, system);
    }
    const auto add = [&](words::Message text) {
        out += words::render(text, {{{units::Kind::Ratio, std::round(fix.drawbackValue)}}}, names, system);
    };
    if (fix.drawback == Drawback::MuchLonger) add(muchLonger);
    if (fix.drawback == Drawback::LongWait) add(longWait);
    if (fix.drawback == Drawback::HeavyBallast) add(heavyBallast);
    return out;
}

std::span<const words::Message> fixTexts() {
    return words::listOf<measurePart, muchLonger, longWait, heavyBallast>;
}

std::vector<Fix> findFixes(const Project& project, const Assessment& now, const Verdict& verdict,
                           const std::stop_token& stop, std::size_t most, const parts::Sources& stock) {
    // What is too much by far is said once, of the motor.
    if (verdict.state == State::Oversized && ruleKey(verdict) != criteria::motorSize.id) return {};
    std::vector<Fix> out = Search(project, now, verdict, stop, stock).run();
    if (out.size() > most) out.resize(most);
    return out;
}

} // namespace gantry
