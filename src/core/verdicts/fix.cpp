// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fix.h"

#include "core/model/acceptable.h"
#include "core/model/fields.h"
#include "core/recipes/recipe.h"
#include "core/units/names.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/rules.h"
#include "core/words/input_name.h"

#include <algorithm>
#include <array>
#include <optional>

namespace gantry {
namespace {

constexpr words::Message measureText{"measure {part}"};

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

const Verdict* sameVerdict(const std::vector<Verdict>& verdicts, const Verdict& wanted) {
    const auto it = std::find_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) {
        return v.rule == wanted.rule && v.axis == wanted.axis;
    });
    return it == verdicts.end() ? nullptr : &*it;
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

/// The candidate as a fix, if it mends the verdict and harms nothing that may not be harmed.
std::optional<Fix> tried(const Assessment& now, const Verdict& verdict, fixes::Candidate c) {
    Assessment after = assess(c.result, {}, Poses::Search, now.evaluation.poses);
    const Verdict* mended = sameVerdict(after.verdicts, verdict);
    const State stateAfter = mended != nullptr ? mended->state : State::Fine;
    // What is unknown is never better.
    if (badness(stateAfter) >= badness(verdict.state) || stateAfter == State::Unknown) return std::nullopt;
    Fix fix;
    fix.cost = c.cost;
    fix.axis = c.result.axes[static_cast<std::size_t>(verdict.axis)].id;
    fix.label = c.label;
    fix.arguments = c.arguments;
    fix.shot = c.shot;
    fix.stateAfter = stateAfter;
    fix.ratioAfter = mended != nullptr ? mended->ratio.valueOr(0.0) : 0.0;
    for (const Verdict& v : after.verdicts) {
        if (mended == &v) continue;
        const Verdict* before = sameVerdict(now.verdicts, v);
        const int was = before != nullptr ? badness(before->state) : 0;
        if (badness(v.state) <= was) continue;
        if (v.state == State::Over || v.state == State::AtRisk || v.hazard) return std::nullopt;
        Verdict missing = v;
        missing.state = State::Fine;
        fix.sideEffects.push_back({before != nullptr ? *before : missing, v});
    }
    std::sort(fix.sideEffects.begin(), fix.sideEffects.end(),
              [](const SideEffect& a, const SideEffect& b) { return worseThan(a.after, b.after); });
    fix.result = std::move(c.result);
    fix.after = std::move(after);
    return fix;
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
    c.label = measureText;
    c.result = project;
    std::vector<std::string> paths, next = verdict.deciding;
    while (paths.size() < mostToMeasure) {
        const std::size_t before = paths.size();
        for (const std::string& path : next)
            if (measured(c.result, path)) paths.push_back(path);
        if (paths.size() == before) return std::nullopt;
        if (std::optional<Fix> fix = tried(now, verdict, c)) {
            fix->measures = std::move(paths);
            return fix;
        }
        const Assessment after = assess(c.result, {}, Poses::Search, now.evaluation.poses);
        const Verdict* still = sameVerdict(after.verdicts, verdict);
        if (still == nullptr) return std::nullopt;
        next = still->deciding;
    }
    return std::nullopt;
}

} // namespace

std::string_view costWords(FixCost cost) {
    return units::nameOf<FixCost::ToBuy>(cost, "if it proves as entered", "setting only", "part on hand",
                                         "to buy");
}

std::string describe(const Fix& fix, const Project& project, units::System system) {
    words::Names names;
    if (fix.shot) names.shot = project.shots[fix.shot.at()].name;
    if (const Axis* axis = findAxis(project, fix.axis)) names.axis = axis->name;
    std::string measured;
    for (const std::string& path : fix.measures)
        measured += (measured.empty() ? "" : ", ") + words::inputLabel(project, path, fix.axis);
    names.part = measured;
    return words::render(fix.label, fix.arguments, names, system);
}

std::span<const words::Message> measuringTexts() {
    return words::listOf<measureText>;
}

std::vector<Fix> findFixes(const Project& project, const Assessment& now, const Verdict& verdict,
                           const std::stop_token& stop, std::size_t most, const parts::Sources& stock) {
    std::vector<Fix> out;
    if (verdict.state == State::AtRisk)
        if (std::optional<Fix> first = measuring(project, now, verdict)) out.push_back(std::move(*first));
    const fixes::Problem problem{project, now, verdict, stock};
    for (const fixes::Family* family : ruleOf(verdict).fixes) {
        std::optional<Fix> best;
        for (fixes::Candidate& c : family->candidates(problem)) {
            if (stop.stop_requested()) return out;
            // A family may scale a part past what its field takes; such a project could not be kept.
            if (touchesLocked(project, c.result) || !objectionTo(c.result).empty()) continue;
            std::optional<Fix> fix = tried(now, verdict, std::move(c));
            if (!fix) continue;
            if (!best || badness(fix->stateAfter) < badness(best->stateAfter)) best = std::move(fix);
            if (badness(best->stateAfter) == 0) break; // gentlest change of this family that is fine
        }
        if (best) out.push_back(std::move(*best));
    }
    std::stable_sort(out.begin(), out.end(), [](const Fix& a, const Fix& b) {
        const auto key = [](const Fix& f) {
            return std::array{f.cost == FixCost::Measure ? 0 : 1, badness(f.stateAfter),
                              static_cast<int>(f.sideEffects.size()), static_cast<int>(f.cost)};
        };
        return key(a) < key(b);
    });
    if (out.size() > most) out.resize(most);
    return out;
}

} // namespace gantry
