// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/verdict.h"

#include "core/verdicts/judge_by.h"

#include "core/units/names.h"
#include "core/units/text.h"
#include "core/verdicts/rules.h"
#include "core/words/input_name.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace gantry {

State stateOf(double ratio, const Bounds& bounds) {
    if (!std::isfinite(ratio)) return State::Unknown;
    if (ratio < 1.0) return State::Over;
    if (ratio < bounds.wanted) return State::Tight;
    if (bounds.oversizedFrom > 0.0 && ratio >= bounds.oversizedFrom) return State::Oversized;
    return State::Fine;
}

std::string_view stateWord(State state) {
    return units::nameOf<State::Unknown>(state, "over", "at risk", "tight", "fine", "oversized", "unknown");
}

std::string_view stateKey(State state) {
    return state == State::AtRisk ? "at_risk" : stateWord(state);
}

State stateOf(const Verdict& v) {
    if (!v.ratio) return State::Unknown;
    const State entered = stateOf(v.ratio.value(), v.bounds);
    if (entered == State::Over || entered == State::Unknown) return entered;
    if (v.low < 1.0) return State::AtRisk;
    return v.ceiling == State::Tight ? State::Tight : entered;
}

bool mendable(State state) {
    return state == State::Over || state == State::AtRisk || state == State::Tight;
}

const rules::Rule& ruleOf(const Verdict& v) {
    return *rules::all()[static_cast<std::size_t>(v.rule)];
}

bool concerns(const Verdict& verdict, int axis) {
    return verdict.axis == axis || ruleOf(verdict).anyAxis;
}

std::string_view ruleKey(const Verdict& v) {
    return ruleOf(v).key();
}

std::string title(const Verdict& v) {
    return std::string(ruleOf(v).title.text);
}

std::string advice(const Verdict& v) {
    return std::string(ruleOf(v).advice.text);
}

namespace {

constexpr words::Message atRiskText{" As entered it holds; at the low end of the tolerances it is ×{0}."};
constexpr words::Message oneDecidesText{" What decides is {part}: measure it first."};
constexpr words::Message holdsUpToText{" What decides is {part}: measure it first. Up to {0} it holds."};
constexpr words::Message holdsDownToText{" What decides is {part}: measure it first. Down to {0} it holds."};
constexpr words::Message twoDecideText{" What decides is {part} with {room}: measure them first."};
constexpr words::Message worstText{" With everything at its worst it is ×{0}."};

/// What its tolerances leave open, to follow its sentence.
std::string doubt(const Verdict& v, const Project& project, units::System system) {
    std::string out;
    const auto say = [&](words::Message text, words::Argument value, std::string_view part = {},
                         std::string_view room = {}) {
        out += words::render(text, {{value}}, {{}, {}, part, room}, system);
    };
    const auto ratio = [](const Figure& f) { return words::Argument{units::Kind::Ratio, f}; };
    if (v.state == State::AtRisk) {
        say(atRiskText, ratio(v.low));
        const std::string_view axis = project.axes[static_cast<std::size_t>(v.axis)].id;
        std::vector<std::string> inputs;
        for (const std::string& path : v.deciding)
            inputs.push_back(words::inputName(project, path, axis, system));
        if (inputs.size() == 1)
            say(!v.holdsUntil  ? oneDecidesText
                : v.holdsBelow ? holdsUpToText
                               : holdsDownToText,
                {v.holdsUntilKind, v.holdsUntil}, inputs[0]);
        if (inputs.size() > 1) say(twoDecideText, ratio(0.0), inputs[0], inputs[1]);
    }
    // Beside what can hurt its worst case stands, also where it holds.
    if (v.state != State::Over && less(v.worst, v.low)) say(worstText, ratio(v.worst));
    return out;
}

} // namespace

std::string sentence(const Verdict& v, const Project& project, units::System system) {
    words::Names names{
        project.axes[static_cast<std::size_t>(v.axis)].name, {}, v.part, v.with, v.ratio.reason()};
    if (v.shot) names.shot = project.shots[v.shot.at()].name;
    return words::render(v.sentence, v.arguments, names, system) + doubt(v, project, system);
}

std::span<const words::Message> doubtTexts() {
    return words::listOf<atRiskText, oneDecidesText, holdsUpToText, holdsDownToText, twoDecideText,
                         worstText>;
}

std::string ratioText(double ratio, const Bounds& bounds, units::System system) {
    constexpr int most = 6;
    const auto sameSide = [&](double shown, double line) { return (shown < line) == (ratio < line); };
    for (int figures = 2; figures < most; ++figures) {
        const double scale =
            std::pow(10.0, figures - 1 - std::floor(std::log10(std::max(std::abs(ratio), 1e-12))));
        const double shown = std::round(ratio * scale) / scale;
        if (sameSide(shown, 1.0) && sameSide(shown, bounds.wanted))
            return units::format(ratio, units::Kind::Ratio, system, figures);
    }
    return units::format(ratio, units::Kind::Ratio, system, most);
}

const SetAside* setAsideFor(const Project& project, const Verdict& v) {
    const std::string_view axis = project.axes[static_cast<std::size_t>(v.axis)].id;
    const auto it = std::find_if(project.setAside.begin(), project.setAside.end(), [&](const SetAside& s) {
        return s.rule == ruleKey(v) && s.axis == axis &&
               (s.shot.empty() || (v.shot && project.shots[v.shot.at()].id == s.shot));
    });
    return it == project.setAside.end() ? nullptr : &*it;
}

bool worseThan(const Verdict& a, const Verdict& b) {
    constexpr std::array rank{0, 1, 3, 4, 5, 2}; // over, at risk, unknown, tight, fine, oversized
    const auto key = [&](const Verdict& v) { return rank[static_cast<std::size_t>(v.state)]; };
    if (key(a) != key(b)) return key(a) < key(b);
    if (a.ratio && b.ratio) return a.low / a.bounds.wanted < b.low / b.bounds.wanted;
    return static_cast<bool>(b.ratio);
}

namespace {

void finish(Verdict verdict, const rules::Rule& rule, int index, int axis, double wanted,
            std::vector<Verdict>& out) {
    // There is nothing to say of what is not asked at all: no play, no rounding, no sag.
    if (verdict.ratio && verdict.ratio.value() >= rules::plenty) return;
    verdict.rule = index;
    if (!rule.namesAxis) verdict.axis = axis;
    verdict.bounds = rule.bounds();
    if (wanted > 0.0) verdict.bounds.wanted = wanted;
    verdict.low = verdict.ratio ? verdict.ratio.value() : 0.0;
    verdict.state = stateOf(verdict);
    out.push_back(std::move(verdict));
}

} // namespace

void judgeAxisBy(std::span<const int> rules, const Project& project, int axisIndex,
                 const AxisEvaluation& evaluation, std::vector<Verdict>& out) {
    const rules::AxisView view{project, project.axes[static_cast<std::size_t>(axisIndex)], evaluation};
    for (const int i : rules) {
        const rules::Rule& rule = *rules::all()[static_cast<std::size_t>(i)];
        if (rule.judge == nullptr) continue;
        if (std::optional<Verdict> verdict = rule.judge(view))
            finish(std::move(*verdict), rule, i, axisIndex, rule.wanted != nullptr ? rule.wanted(view) : 0.0,
                   out);
    }
}

void judgeRigBy(std::span<const int> rules, const Project& project, const Evaluation& evaluation,
                std::vector<Verdict>& out) {
    if (project.axes.empty()) return;
    for (const int i : rules) {
        const rules::Rule& rule = *rules::all()[static_cast<std::size_t>(i)];
        if (rule.judgeRig == nullptr) continue;
        if (std::optional<Verdict> verdict = rule.judgeRig({project, evaluation}))
            finish(std::move(*verdict), rule, i, evaluation.rig.tippingAxis, 0.0, out);
    }
}

namespace {

const std::vector<int>& everyRule() {
    static const std::vector<int> all = [] {
        std::vector<int> out(rules::all().size());
        std::iota(out.begin(), out.end(), 0);
        return out;
    }();
    return all;
}

} // namespace

void judgeAxis(const Project& project, int axisIndex, const AxisEvaluation& evaluation,
               std::vector<Verdict>& out) {
    judgeAxisBy(everyRule(), project, axisIndex, evaluation, out);
}

void judgeRig(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& out) {
    judgeRigBy(everyRule(), project, evaluation, out);
}

std::vector<Verdict> judge(const Project& project, const Evaluation& evaluation) {
    std::vector<Verdict> out;
    out.reserve(evaluation.axes.size() * rules::all().size());
    for (std::size_t i = 0; i < evaluation.axes.size(); ++i)
        judgeAxis(project, static_cast<int>(i), evaluation.axes[i], out);
    judgeRig(project, evaluation, out);
    return out;
}

} // namespace gantry
