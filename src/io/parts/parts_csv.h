// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "io/tables/csv.h"

#include <functional>
#include <stop_token>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

/// A table of parts as spreadsheets write it: first line the names of the columns; comma, semicolon or tab
/// between them; quotes as in RFC 4180 (tables/csv.h). Columns of this program: family, name, count, price,
/// reason and the fields' own keys.

/// Column names of a table's first line.
std::vector<std::string> csvHeader(std::string_view text);

/// What each column of a table means; an empty entry leaves a column out.
using ColumnMap = std::vector<std::string>;

/// The map that the column names themselves suggest: keys as they are, and common words ("teeth", "qty",
/// "torque").
ColumnMap suggestedColumns(const std::vector<std::string>& header);

/// Every meaning that a column may have.
std::vector<std::string> columnMeanings();

struct PartsTable {
    std::vector<parts::Part> parts; ///< good lines
    std::vector<CsvError> errors;   ///< bad ones, at most `mostErrors` of them
    std::size_t badLines = 0;
    bool stopped = false;
};
inline constexpr std::size_t mostErrors = 1000;

/// Reads parts; good lines are kept, bad ones reported. Numbers may carry a unit ("0.44 Nm", "57 oz in");
/// without one they are in the SI unit of their key. `fallbackFamily` is used where no column says the
/// family.
/// @param progress gets the share done now and then; may be empty
PartsTable readParts(std::string_view text, const ColumnMap& columns, std::string_view fallbackFamily = {},
                     const std::stop_token& stop = {}, const std::function<void(double)>& progress = {});

/// A line that could not be read: its cells, each with what its column means, or else with its heading.
using KeptLine = std::vector<std::pair<std::string, std::string>>;

/// Writes parts in the same form, every field that any of them has as a column, then the lines that could not
/// be read.
std::string writeParts(std::span<const parts::Part> parts, std::span<const KeptLine> lines = {});

/// The parts on hand as they are kept: what the program does not understand of the table, columns and whole
/// lines, is kept beside the parts and written back.
struct ShelfTable {
    std::vector<parts::Part> parts;
    std::vector<KeptLine> lines;
};
ShelfTable readShelf(std::string_view text);

/// What two windows made of one list: what each added is there, what each removed is not. A part that was
/// changed counts as one removed and one added, so that of two changes both stay.
std::vector<parts::Part> merged(const std::vector<parts::Part>& before, const std::vector<parts::Part>& ours,
                                const std::vector<parts::Part>& theirs);

} // namespace gantry::io
