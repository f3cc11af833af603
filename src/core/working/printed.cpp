// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/printed.h"

#include "core/model/fields.h"
#include "core/units/plain_text.h"
#include "core/units/text.h"
#include "core/words/input_name.h"

#include <array>
#include <charconv>

namespace gantry::working {
namespace {

constexpr int digits = 4;

/// A number in as few characters as hold `digits` figures: "0.0123", "4.5e-06".
std::string significant(double value) {
    std::array<char, 32> buffer{};
    const auto end =
        std::to_chars(buffer.data(), buffer.data() + buffer.size(), value, std::chars_format::general, digits)
            .ptr;
    return {buffer.data(), end};
}

/// How an input is known: "±40 %, assumed", or that it is taken as entered.
std::string knownBy(const Project& project, const std::string& path) {
    // The walk only reads.
    const std::optional<FieldRef> field = findField(const_cast<Project&>(project), path);
    if (!field || !std::holds_alternative<Estimate*>(field->target)) return "entered";
    const Estimate& e = *std::get<Estimate*>(field->target);
    if (e.tolerance == 0.0)
        return std::string(ChoiceNames<Source>::labels[static_cast<std::size_t>(e.source)]);
    return "±" + units::plainNumber(100.0 * e.tolerance, 1) + " %, " +
           std::string(ChoiceNames<Source>::labels[static_cast<std::size_t>(e.source)]);
}

std::string capital(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

} // namespace

std::string valueText(const Quantity& q, units::System system) {
    if (!q.unit.empty()) return significant(q.value) + " " + q.unit;
    return units::format(q.value, q.kind, system, digits);
}

std::vector<Row> rowsOf(const Working& working, const Project& project, units::System system) {
    std::vector<Row> out;
    for (const Quantity& q : working.quantities)
        out.push_back({q.symbol, q.formula, valueText(q, system), q.label,
                       q.isInput() ? knownBy(project, q.path) : q.origin, q.isInput()});
    return out;
}

std::string headline(const Working& working, units::System system) {
    return capital(working.result().label) + ": " + valueText(working.result(), system);
}

std::string influenceSentence(const std::vector<Influence>& influences, const Project& project,
                              const PlacedFigure& figure, units::System system) {
    if (influences.empty()) return {};
    const Influence& most = influences.front();
    const std::string_view axis =
        figure.axis >= 0 ? std::string_view(project.axes[static_cast<std::size_t>(figure.axis)].id)
                         : std::string_view();
    const auto text = [&](const Figure& f) {
        return f ? units::format(f.value(), figure.kind(), system) : std::string("no number");
    };
    std::string name = words::inputName(project, most.path, axis, system);
    if (name.empty()) {
        const std::optional<FieldRef> field = findField(const_cast<Project&>(project), most.path);
        name = field ? "the " + std::string(field->info.label) : most.path;
    }
    if (!most.uncertain)
        return "Nothing in it is uncertain. " + capital(name) + " moves it most: 1 % less or more makes it " +
               text(most.low) + " or " + text(most.high) + ".";
    return capital(name) + " moves it most: from " + text(most.low) + " to " + text(most.high) + ".";
}

} // namespace gantry::working
