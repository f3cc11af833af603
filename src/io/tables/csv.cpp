// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/tables/csv.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace gantry::io {
namespace {

constexpr std::string_view blanks = " \t";

std::string_view trimmed(std::string_view s) {
    s.remove_prefix(std::min(s.size(), s.find_first_not_of(blanks)));
    const auto last = s.find_last_not_of(blanks);
    return s.substr(0, last == std::string_view::npos ? 0 : last + 1);
}

void append(std::string& out, unsigned long code) {
    const auto byte = [&](unsigned long b) { out += static_cast<char>(b); };
    if (code < 0x80)
        byte(code);
    else if (code < 0x800) {
        byte(0xC0 | code >> 6);
        byte(0x80 | (code & 0x3F));
    } else if (code < 0x10000) {
        byte(0xE0 | code >> 12);
        byte(0x80 | (code >> 6 & 0x3F));
        byte(0x80 | (code & 0x3F));
    } else {
        byte(0xF0 | code >> 18);
        byte(0x80 | (code >> 12 & 0x3F));
        byte(0x80 | (code >> 6 & 0x3F));
        byte(0x80 | (code & 0x3F));
    }
}

/// UTF-16 behind its mark, as some spreadsheets export it. Halves of pairs alone become U+FFFD.
std::string fromUtf16(std::string_view text, bool littleEndian) {
    std::string out;
    const auto unit = [&](std::size_t i) {
        const auto a = static_cast<unsigned char>(text[i]), b = static_cast<unsigned char>(text[i + 1]);
        return static_cast<unsigned long>(littleEndian ? b << 8 | a : a << 8 | b);
    };
    for (std::size_t i = 2; i + 1 < text.size(); i += 2) {
        unsigned long code = unit(i);
        if (code >= 0xD800 && code < 0xDC00 && i + 3 < text.size()) {
            const unsigned long low = unit(i + 2);
            if (low >= 0xDC00 && low < 0xE000) {
                code = 0x10000 + ((code - 0xD800) << 10) + (low - 0xDC00);
                i += 2;
            }
        }
        append(out, code >= 0xD800 && code < 0xE000 ? 0xFFFD : code);
    }
    return out;
}

/// The mark that stands most often in the first line.
char separatorOf(std::string_view text) {
    const std::string_view first = text.substr(0, text.find_first_of("\r\n"));
    char best = ',';
    std::ptrdiff_t most = 0;
    for (const char c : {',', ';', '\t'})
        if (const auto n = std::count(first.begin(), first.end(), c); n > most) {
            best = c;
            most = n;
        }
    return best;
}

} // namespace

CsvReader::CsvReader(std::string_view text) : text_(text) {
    if (text.starts_with("\xFF\xFE") || text.starts_with("\xFE\xFF")) {
        converted_ = fromUtf16(text, text.front() == '\xFF');
        text_ = converted_;
    } else if (text.starts_with("\xEF\xBB\xBF"))
        text_.remove_prefix(3);
    separator_ = separatorOf(text_);
}

double CsvReader::progress() const {
    return text_.empty() ? 1.0 : static_cast<double>(at_) / static_cast<double>(text_.size());
}

std::string CsvReader::quoted(std::size_t column) {
    std::string cell;
    const std::size_t openedIn = lineAt_;
    for (++at_;; ++at_) {
        if (at_ >= text_.size()) {
            errors_.push_back(
                {openedIn, column, "the quote that is opened here is never closed; close it with \""});
            return cell;
        }
        const char c = text_[at_];
        if (c == '"') {
            if (at_ + 1 >= text_.size() || text_[at_ + 1] != '"') break;
            ++at_;
        } else if (c == '\n' || (c == '\r' && (at_ + 1 >= text_.size() || text_[at_ + 1] != '\n')))
            ++lineAt_;
        cell += c;
    }
    ++at_;
    const std::size_t end =
        std::min(text_.size(), text_.find_first_of(std::string{separator_, '\r', '\n'}, at_));
    if (const std::string_view behind = trimmed(text_.substr(at_, end - at_)); !behind.empty())
        errors_.push_back(
            {lineAt_, column,
             "“" + std::string(behind.substr(0, 40)) +
                 "” stands behind a closing quote; put the whole cell in quotes, and double those inside"});
    at_ = end;
    return cell;
}

bool CsvReader::next(std::vector<std::string>& cells) {
    cells.clear();
    errors_.clear();
    if (at_ >= text_.size()) return false;
    line_ = lineAt_;
    for (;;) {
        // Blanks before a quote do not make it part of a plain cell.
        const std::size_t start = text_.find_first_not_of(separator_ == '\t' ? " " : blanks, at_);
        if (start != std::string_view::npos && text_[start] == '"') {
            at_ = start;
            cells.push_back(quoted(cells.size() + 1));
        } else {
            const std::size_t begin = at_;
            while (at_ < text_.size() && text_[at_] != separator_ && text_[at_] != '\n' && text_[at_] != '\r')
                ++at_;
            cells.emplace_back(trimmed(text_.substr(begin, at_ - begin)));
        }
        if (at_ >= text_.size()) return true;
        const char mark = text_[at_++];
        if (mark == separator_) continue;
        if (mark == '\r' && at_ < text_.size() && text_[at_] == '\n') ++at_;
        ++lineAt_;
        return true;
    }
}

void CsvWriter::separate() {
    if (!fresh_) text_ += ',';
    fresh_ = false;
}

CsvWriter& CsvWriter::cell(std::string_view text) {
    separate();
    if (text.find_first_of(",\"\n\r") == std::string_view::npos && text == trimmed(text)) {
        text_ += text;
        return *this;
    }
    text_ += '"';
    for (const char c : text) {
        if (c == '"') text_ += '"';
        text_ += c;
    }
    text_ += '"';
    return *this;
}

CsvWriter& CsvWriter::cell(double number) {
    separate();
    if (!std::isfinite(number)) return *this;
    std::array<char, 40> digits{};
    const auto [end, problem] = std::to_chars(digits.data(), digits.data() + digits.size(), number);
    if (problem == std::errc()) text_.append(digits.data(), end);
    return *this;
}

void CsvWriter::endLine() {
    text_ += lineEnd_;
    fresh_ = true;
}

double sevenDigits(double number) {
    if (number == 0.0 || !std::isfinite(number)) return number;
    std::array<char, 40> digits{};
    const auto [end, problem] =
        std::to_chars(digits.data(), digits.data() + digits.size(), number, std::chars_format::scientific, 6);
    double out = number;
    if (problem == std::errc()) std::from_chars(digits.data(), end, out);
    return out;
}

} // namespace gantry::io
