// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

/// A place in a table, and what is wrong there.
struct CsvError {
    std::size_t line = 0;   ///< counted from 1, as spreadsheets do
    std::size_t column = 0; ///< counted from 1
    std::string sentence;   ///< names the value and what to do
};

/// Reads tables as spreadsheets write them (RFC 4180 and what is usual beside it): comma, semicolon or tab
/// between cells, whichever stands most often in the first line; cells in quotes with doubled quotes,
/// separators and line ends inside; line ends LF, CR LF or CR; UTF-8, or UTF-16 with its mark. What does not
/// fit is kept as well as it can be and reported.
class CsvReader {
public:
    explicit CsvReader(std::string_view text);

    /// Cells of the next line, without blanks around those that are not in quotes; false at the end.
    bool next(std::vector<std::string>& cells);
    /// Number of the line that came last, where it began.
    std::size_t line() const { return line_; }
    /// How much was read [1].
    double progress() const;
    /// What did not fit in the line that came last: text behind a closing quote, a quote that is never
    /// closed.
    const std::vector<CsvError>& errors() const { return errors_; }

private:
    std::string quoted(std::size_t column);

    std::string converted_; ///< of UTF-16
    std::string_view text_;
    char separator_ = ',';
    std::size_t at_ = 0, line_ = 0, lineAt_ = 1;
    std::vector<CsvError> errors_;
};

/// Writes tables by RFC 4180: comma between cells, quotes where they are needed.
class CsvWriter {
public:
    explicit CsvWriter(std::string_view lineEnd = "\r\n") : lineEnd_(lineEnd) {}

    CsvWriter& cell(std::string_view text);
    /// The shortest text that reads back the same, with a point; nothing where the number is not finite.
    CsvWriter& cell(double number);
    CsvWriter& cell(int number) { return cell(static_cast<double>(number)); }
    void endLine();
    template <class... Cells>
    void line(const Cells&... cells) {
        (cell(cells), ...);
        endLine();
    }
    const std::string& text() const { return text_; }

private:
    void separate();

    std::string_view lineEnd_;
    std::string text_;
    bool fresh_ = true;
};

/// A number for people: at most seven significant digits.
double sevenDigits(double number);

} // namespace gantry::io
