// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/sheet.h"

#include "core/model/fields.h"
#include "core/words/input_name.h"

#include <algorithm>
#include <cassert>
#include <iterator>
#include <limits>
#include <set>

namespace gantry::working {
namespace {

/// The symbols and function names in a formula.
std::vector<std::string> wordsIn(std::string formula) {
    for (const std::string_view mark : {"−", "·", "²", "√"})
        for (std::size_t at = 0; (at = formula.find(mark, at)) != std::string::npos;)
            formula.replace(at, mark.size(), " ");
    std::vector<std::string> out;
    for (std::size_t at = 0; (at = formula.find_first_not_of(" +/();", at)) != std::string::npos;) {
        const std::size_t end = std::min(formula.find_first_of(" +/();", at), formula.size());
        out.push_back(formula.substr(at, end - at));
        at = end;
    }
    return out;
}

/// Leaves out what the last one does not need.
void prune(std::vector<Quantity>& quantities) {
    std::set<std::string> needed{quantities.back().symbol};
    std::vector<Quantity> kept;
    for (auto q = quantities.rbegin(); q != quantities.rend(); ++q) {
        if (!needed.contains(q->symbol)) continue;
        for (std::string& word : wordsIn(q->formula)) needed.insert(std::move(word));
        needed.insert(q->needs.begin(), q->needs.end());
        kept.push_back(std::move(*q));
    }
    quantities.assign(std::make_move_iterator(kept.rbegin()), std::make_move_iterator(kept.rend()));
}

} // namespace

Term Sheet::add(Quantity quantity) {
    if (const std::optional<Term> there = known(quantity.symbol)) {
        // Two quantities of one symbol would be read as one: what comes of it must not be shown.
        const bool same = there->value() == quantity.value;
        assert(same);
        return same ? *there : Term::symbol(quantity.symbol, std::numeric_limits<double>::quiet_NaN());
    }
    quantities_.push_back(std::move(quantity));
    return Term::symbol(quantities_.back().symbol, quantities_.back().value);
}

void Sheet::foundFrom(const std::string& symbol, const std::vector<std::string>& needs) {
    for (Quantity& q : quantities_)
        if (q.symbol == symbol) q.needs = needs;
}

std::optional<Term> Sheet::known(const std::string& symbol) const {
    for (const Quantity& q : quantities_)
        if (q.symbol == symbol) return Term::symbol(q.symbol, q.value);
    return std::nullopt;
}

Term Sheet::input(const std::string& symbol, const std::string& path) {
    if (const auto there = known(symbol)) return *there;
    Project& looked = const_cast<Project&>(project_); // only read
    const std::optional<FieldRef> field = findField(looked, path);
    const std::optional<double> value = numberAt(project_, path);
    assert(field && value);
    if (!field || !value) return std::numeric_limits<double>::quiet_NaN();
    Quantity q;
    q.symbol = symbol;
    q.path = path;
    q.kind = field->info.kind;
    q.value = *value;
    q.label = words::inputLabel(project_, path, axis_);
    if (q.label.empty()) q.label = std::string(field->info.label);
    if (q.label.starts_with("the ")) q.label.erase(0, 4);
    return add(std::move(q));
}

Term Sheet::named(const std::string& symbol, std::string label, units::Kind kind, const Term& term) {
    if (known(term.text())) return term;
    return add({symbol, std::move(label), kind, {}, term.value(), {}, term.text(), {}, {}});
}
Term Sheet::named(const std::string& symbol, std::string label, const char* unit, const Term& term) {
    if (known(term.text())) return term;
    return add({symbol, std::move(label), units::Kind::Ratio, unit, term.value(), {}, term.text(), {}, {}});
}
Term Sheet::found(const std::string& symbol, std::string label, units::Kind kind, double value,
                  std::string origin) {
    return add({symbol, std::move(label), kind, {}, value, {}, {}, std::move(origin), {}});
}
Term Sheet::found(const std::string& symbol, std::string label, const char* unit, double value,
                  std::string origin) {
    return add({symbol, std::move(label), units::Kind::Ratio, unit, value, {}, {}, std::move(origin), {}});
}

Working Sheet::finish(std::string label, units::Kind kind, const Term& figure, std::string reference) {
    const auto same = std::find_if(quantities_.begin(), quantities_.end(),
                                   [&](const Quantity& q) { return q.symbol == figure.text(); });
    if (same != quantities_.end()) {
        if (!same->isInput()) same->label = std::move(label);
        std::rotate(same, same + 1, quantities_.end());
    } else {
        named(known("x") ? "y" : "x", std::move(label), kind, figure);
    }
    prune(quantities_);
    return {std::move(quantities_), std::move(reference)};
}

} // namespace gantry::working
