// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/next_step.h"

#include "core/model/fields.h"
#include "core/words/input_name.h"

#include <algorithm>
#include <map>

namespace gantry {
namespace {

constexpr words::Message knownText{"All {0} inputs measured, counted or from a sheet"};
constexpr words::Message guessedText{"{0} of {1} inputs are guesses"};
constexpr words::Message decidesText{"decided by {part}: {room}"};
constexpr words::Message unknownDecidesText{"not known yet: {part}"};
constexpr words::Message measureText{"measure {part}"};
constexpr words::Message measureForText{"measure {part}: it decides {0} verdicts"};
constexpr words::Message measureGuessText{"measure {part}, the guess that counts most"};
constexpr words::Message mendText{"choose a fix for it"};
constexpr words::Message enterText{"see what it needs"};

} // namespace

Knowledge knowledgeOf(const Project& project, int axis) {
    Knowledge out;
    if (axis < 0 || axis >= static_cast<int>(project.axes.size())) return out;
    Axis copy = project.axes[static_cast<std::size_t>(axis)];
    for (const Estimate* e : estimatesOf(copy)) {
        if (e->value == 0.0) continue;
        ++out.inputs;
        out.guessed += e->source == Source::Guess || e->source == Source::Assumed;
    }
    return out;
}

std::string sentence(const Knowledge& k) {
    return words::render(k.guessed == 0 ? knownText : guessedText,
                         {{{units::Kind::Ratio, static_cast<double>(k.guessed == 0 ? k.inputs : k.guessed)},
                           {units::Kind::Ratio, static_cast<double>(k.inputs)}}},
                         {}, units::System::Metric);
}

NextStep nextStep(const Project& project, std::span<const Matter> own) {
    NextStep out;
    std::map<std::string, int> decided;
    for (const Matter& m : own) {
        if (setAsideFor(project, *m.verdict) != nullptr) continue; // a hazard stays in sight, not in the way
        if (!out.verdict) out.verdict = *m.verdict;
        if (m.verdict->state == State::AtRisk)
            for (const std::string& path : m.verdict->deciding) ++decided[path];
    }
    if (!out.verdict || out.verdict->state != State::AtRisk) return out;
    for (const std::string& path : out.verdict->deciding)
        if (decided[path] > out.decided) {
            out.measure = path;
            out.decided = decided[path];
        }
    return out;
}

std::string guessThatCounts(const Project& project, std::span<const Verdict> verdicts, int axis) {
    for (const Verdict& v : verdicts) {
        if (v.axis != axis || v.state == State::AtRisk || v.deciding.empty()) continue;
        Project copy = project;
        const auto field = findField(copy, v.deciding.front());
        const auto* estimate = field ? std::get_if<Estimate*>(&field->target) : nullptr;
        if (estimate != nullptr &&
            ((*estimate)->source == Source::Guess || (*estimate)->source == Source::Assumed))
            return v.deciding.front();
    }
    return {};
}

std::string measureGuessSentence(const Project& project, const std::string& path, int axis) {
    const std::string part =
        words::inputLabel(project, path, project.axes[static_cast<std::size_t>(axis)].id);
    return words::render(measureGuessText, {}, {{}, {}, part}, units::System::Metric);
}

std::string decidesSentence(const NextStep& step, units::System system) {
    if (!step.verdict) return {};
    const Verdict& v = *step.verdict;
    if (!v.ratio) return words::render(unknownDecidesText, {}, {{}, {}, title(v)}, system);
    return words::render(decidesText, {}, {{}, {}, title(v), stateWord(v.state)}, system) + " ×" +
           ratioText(v.ratio.value(), v.bounds, system);
}

std::string toDoSentence(const NextStep& step, const Project& project) {
    if (!step.verdict) return {};
    const Verdict& v = *step.verdict;
    const std::string_view axis = project.axes[static_cast<std::size_t>(v.axis)].id;
    if (!step.measure.empty())
        return words::render(step.decided > 1 ? measureForText : measureText,
                             {{{units::Kind::Ratio, static_cast<double>(step.decided)}}},
                             {{}, {}, words::inputLabel(project, step.measure, axis)}, units::System::Metric);
    // A search that is under way needs nobody.
    if (v.state == State::Unknown)
        return std::string(v.ratio.reason() == Reason::NotSearched ? std::string_view() : enterText.text);
    return mendable(v.state) ? std::string(mendText.text) : std::string();
}

std::span<const words::Message> nextStepTexts() {
    return words::listOf<knownText, guessedText, decidesText, unknownDecidesText, measureText, measureForText,
                         measureGuessText, mendText, enterText>;
}

} // namespace gantry
