// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/parts/parts_csv.h"

#include "core/units/plain_text.h"
#include "core/units/text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <set>
#include <unordered_map>

namespace gantry::io {
namespace {

/// Words that people write above columns, and what they mean here.
struct Synonym {
    std::string_view word, meaning;
};
constexpr std::array synonyms{Synonym{"type", "family"},
                              Synonym{"kind", "family"},
                              Synonym{"part", "name"},
                              Synonym{"description", "name"},
                              Synonym{"qty", "count"},
                              Synonym{"quantity", "count"},
                              Synonym{"number", "count"},
                              Synonym{"pieces", "count"},
                              Synonym{"cost", "price"},
                              Synonym{"note", "reason"},
                              Synonym{"notes", "reason"},
                              Synonym{"tooth count", "teeth"},
                              Synonym{"pitch", "pitch_m"},
                              Synonym{"module", "module_m"},
                              Synonym{"torque", "holding_torque_Nm"},
                              Synonym{"holding torque", "holding_torque_Nm"},
                              Synonym{"current", "rated_current_A"},
                              Synonym{"resistance", "resistance_ohm"},
                              Synonym{"inductance", "inductance_H"},
                              Synonym{"voltage", "voltage_V"},
                              Synonym{"diameter", "diameter_m"},
                              Synonym{"width", "width_m"},
                              Synonym{"mass", "mass_kg"},
                              Synonym{"weight", "mass_kg"},
                              Synonym{"length", "length_m"},
                              Synonym{"lead", "lead_m"}};

std::string lower(std::string_view s) {
    std::string out(s);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

std::string quoted(std::string_view s) {
    return "“" + std::string(s.substr(0, 60)) + "”";
}

/// Plain numbers fast; anything with a unit through the parser of fields.
std::variant<double, std::string> numberIn(std::string_view cell, const FieldInfo& info) {
    double value = 0.0;
    const auto [end, problem] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
    if (problem != std::errc() || end != cell.data() + cell.size()) {
        const units::ParseResult parsed = units::parse(cell, info.kind, units::System::Metric);
        if (const auto* bad = std::get_if<units::ParseError>(&parsed)) return bad->sentence;
        value = std::get<double>(parsed);
    }
    if (!std::isfinite(value) || value < info.min || value > info.max)
        return quoted(cell) + " lies outside of what “" + std::string(info.label) +
               "” can be; check the unit (a bare number counts in " + std::string(info.key) + ")";
    return value;
}

class Reader {
public:
    /// With headings and a place for lines it keeps what it does not understand.
    Reader(const ColumnMap& columns, std::string_view fallback, PartsTable& out,
           const std::vector<std::string>* headings = nullptr, std::vector<KeptLine>* lines = nullptr)
        : columns_(columns), fallback_(parts::findFamily(fallback)), out_(out), headings_(headings),
          lines_(lines) {
        familyColumn_ =
            static_cast<std::size_t>(std::find(columns.begin(), columns.end(), "family") - columns.begin());
        for (const parts::Family& f : parts::families()) {
            Lookup& look = lookups_[std::string(f.key)];
            look.family = &f;
            look.numbers.resize(columns.size());
            look.choices.resize(columns.size());
            for (std::size_t c = 0; c < columns.size(); ++c) {
                for (const FieldInfo& info : f.numbers)
                    if (info.key == columns[c]) look.numbers[c] = &info;
                for (const auto& choice : f.choices)
                    if (choice.first == columns[c]) look.choices[c] = &choice.second;
            }
        }
    }

    void line(const std::vector<std::string>& cells, std::size_t number) {
        if (std::all_of(cells.begin(), cells.end(), [](const std::string& c) { return c.empty(); })) return;
        cells_ = &cells;
        const Lookup* look = nullptr;
        if (familyColumn_ < cells.size() && !cells[familyColumn_].empty()) {
            const auto it = lookups_.find(lower(cells[familyColumn_]));
            if (it == lookups_.end())
                return bad(number, familyColumn_,
                           quoted(cells[familyColumn_]) +
                               " is not a family of parts; write stepper, pulley, gear, …");
            look = &it->second;
        } else if (fallback_ != nullptr) {
            look = &lookups_.at(std::string(fallback_->key));
        } else {
            return bad(number, familyColumn_ < columns_.size() ? familyColumn_ : 0,
                       "the family is missing; write stepper, pulley, gear, …");
        }
        parts::Part part;
        part.family = look->family->key;
        part.count = 1;
        for (std::size_t c = 0; c < cells.size() && c < columns_.size(); ++c) {
            const std::string_view cell = cells[c];
            const std::string& meaning = columns_[c];
            if (cell.empty() || c == familyColumn_) continue;
            if (meaning.empty())
                keep(part, c, cell);
            else if (meaning == "name")
                part.name = units::plainText(cell);
            else if (meaning == "reason")
                part.reason = units::plainText(cell);
            else if (meaning == "count" || meaning == "price") {
                double value = 0.0;
                const auto [end, problem] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
                const bool whole = meaning == "price" || value == std::floor(value);
                if (problem != std::errc() || end != cell.data() + cell.size() || !(value >= 0.0) ||
                    value > 1e9 || !whole)
                    return bad(number, c,
                               quoted(cell) + " is not a " + meaning + "; write a number such as 2");
                (meaning == "count" ? static_cast<void>(part.count = static_cast<int>(value))
                                    : static_cast<void>(part.price = value));
            } else if (const FieldInfo* info = look->numbers[c]) {
                const auto value = numberIn(cell, *info);
                if (const auto* why = std::get_if<std::string>(&value)) return bad(number, c, *why);
                part.numbers.emplace_back(meaning, std::get<double>(value));
            } else if (const auto* members = look->choices[c]) {
                if (std::find(members->begin(), members->end(), cell) == members->end()) {
                    std::string list;
                    for (const std::string_view m : *members)
                        list += (list.empty() ? "" : ", ") + std::string(m);
                    return bad(number, c, quoted(cell) + " is none of " + list);
                }
                part.choices.emplace_back(meaning, cell);
            } else
                keep(part, c, cell); // a column of other families
        }
        if (headings_ != nullptr)
            for (std::size_t c = columns_.size(); c < cells.size(); ++c)
                if (!cells[c].empty()) keep(part, c, cells[c]);
        if (part.name.empty()) part.name = look->family->label;
        out_.parts.push_back(std::move(part));
    }

    /// A line whose quotes do not fit.
    void broken(const std::vector<std::string>& cells, const CsvError& error) {
        cells_ = &cells;
        bad(error.line, error.column - 1, error.sentence);
    }

    void bad(std::size_t line, std::size_t column, std::string sentence) {
        ++out_.badLines;
        if (lines_ != nullptr) {
            KeptLine& kept = lines_->emplace_back();
            for (std::size_t c = 0; c < cells_->size(); ++c)
                if (!(*cells_)[c].empty())
                    kept.emplace_back(c < columns_.size() && !columns_[c].empty() ? columns_[c] : heading(c),
                                      (*cells_)[c]);
        }
        if (out_.errors.size() < mostErrors) out_.errors.push_back({line, column + 1, std::move(sentence)});
    }

private:
    /// Cells behind the last heading get one of their own.
    std::string heading(std::size_t column) const {
        return column < headings_->size() && !(*headings_)[column].empty()
                   ? (*headings_)[column]
                   : "column " + std::to_string(column + 1);
    }
    void keep(parts::Part& part, std::size_t column, std::string_view cell) const {
        if (headings_ != nullptr)
            part.kept.emplace_back(columns_.size() > column && !columns_[column].empty() ? columns_[column]
                                                                                         : heading(column),
                                   cell);
    }

    struct Lookup {
        const parts::Family* family = nullptr;
        std::vector<const FieldInfo*> numbers;
        std::vector<const std::span<const std::string_view>*> choices;
    };
    const ColumnMap& columns_;
    const parts::Family* fallback_;
    PartsTable& out_;
    const std::vector<std::string>* headings_;
    std::vector<KeptLine>* lines_;
    const std::vector<std::string>* cells_ = nullptr; ///< of the line at hand
    std::size_t familyColumn_ = 0;
    std::unordered_map<std::string, Lookup> lookups_;
};

/// Lines of a table that do not fit its form count as bad ones, with their cells kept like any other.
void readLines(CsvReader& table, Reader& reader, const std::function<bool(std::size_t)>& goOn = {}) {
    std::vector<std::string> cells;
    for (std::size_t lines = 0; table.next(cells); ++lines) {
        if (goOn && !goOn(lines)) return;
        if (table.errors().empty())
            reader.line(cells, table.line());
        else
            reader.broken(cells, table.errors().front());
    }
}

} // namespace

std::vector<std::string> csvHeader(std::string_view text) {
    std::vector<std::string> cells;
    CsvReader(text).next(cells);
    return cells;
}

std::vector<std::string> columnMeanings() {
    std::set<std::string> keys;
    for (const parts::Family& f : parts::families()) {
        for (const FieldInfo& info : f.numbers) keys.emplace(info.key);
        for (const auto& choice : f.choices) keys.emplace(choice.first);
    }
    std::vector<std::string> out{"", "family", "name", "count", "price", "reason"};
    out.insert(out.end(), keys.begin(), keys.end());
    return out;
}

ColumnMap suggestedColumns(const std::vector<std::string>& header) {
    const std::vector<std::string> known = columnMeanings();
    ColumnMap out;
    for (const std::string& column : header) {
        const std::string word = lower(column);
        std::string meaning;
        for (const std::string& k : known)
            if (!k.empty() && lower(k) == word) meaning = k;
        for (const Synonym& s : synonyms)
            if (meaning.empty() && s.word == word) meaning = s.meaning;
        // No meaning twice: the first column keeps it.
        if (std::find(out.begin(), out.end(), meaning) != out.end()) meaning.clear();
        out.push_back(meaning);
    }
    return out;
}

PartsTable readParts(std::string_view text, const ColumnMap& columns, std::string_view fallbackFamily,
                     const std::stop_token& stop, const std::function<void(double)>& progress) {
    PartsTable out;
    CsvReader table(text);
    Reader reader(columns, fallbackFamily, out);
    std::vector<std::string> header;
    table.next(header);
    readLines(table, reader, [&](std::size_t lines) {
        if (lines % 1000 != 999) return true;
        out.stopped = stop.stop_requested();
        if (progress && !out.stopped) progress(table.progress());
        return !out.stopped;
    });
    return out;
}

ShelfTable readShelf(std::string_view text) {
    ShelfTable out;
    const std::vector<std::string> headings = csvHeader(text);
    const ColumnMap columns = suggestedColumns(headings);
    PartsTable table;
    Reader reader(columns, {}, table, &headings, &out.lines);
    CsvReader lines(text);
    std::vector<std::string> header;
    lines.next(header);
    readLines(lines, reader);
    out.parts = std::move(table.parts);
    return out;
}

std::vector<parts::Part> merged(const std::vector<parts::Part>& before, const std::vector<parts::Part>& ours,
                                const std::vector<parts::Part>& theirs) {
    // Parts that stand in both, each as often as it does in both.
    const auto without = [](std::vector<parts::Part> all, const std::vector<parts::Part>& taken) {
        for (const parts::Part& p : taken)
            if (const auto it = std::find(all.begin(), all.end(), p); it != all.end()) all.erase(it);
        return all;
    };
    if (theirs == before) return ours;
    std::vector<parts::Part> out = without(theirs, without(before, ours));
    for (parts::Part& added : without(ours, before)) out.push_back(std::move(added));
    return out;
}

std::string writeParts(std::span<const parts::Part> list, std::span<const KeptLine> lines) {
    std::vector<std::string> keys{"family", "name", "count", "price", "reason"};
    const auto learn = [&](const std::string& key) {
        if (std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(key);
    };
    for (const parts::Part& p : list) {
        for (const auto& [key, value] : p.numbers) learn(key);
        for (const auto& [key, value] : p.choices) learn(key);
    }
    for (const parts::Part& p : list)
        for (const auto& [key, value] : p.kept) learn(key);
    for (const KeptLine& line : lines)
        for (const auto& [key, value] : line) learn(key);
    CsvWriter out("\n");
    for (const std::string& key : keys) out.cell(key);
    out.endLine();
    const auto among = [](const auto& pairs, const std::string& key) -> std::string_view {
        for (const auto& [k, cell] : pairs)
            if (k == key) return cell;
        return {};
    };
    for (const parts::Part& p : list) {
        out.cell(p.family).cell(p.name).cell(p.count).cell(p.price).cell(p.reason);
        for (std::size_t k = 5; k < keys.size(); ++k) {
            const std::string_view choice = among(p.choices, keys[k]);
            if (const auto value = parts::numberOf(p, keys[k]))
                out.cell(*value);
            else
                out.cell(choice.empty() ? among(p.kept, keys[k]) : choice);
        }
        out.endLine();
    }
    for (const KeptLine& line : lines) {
        for (const std::string& key : keys) out.cell(among(line, key));
        out.endLine();
    }
    return out.text();
}

} // namespace gantry::io
