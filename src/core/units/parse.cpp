// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/text.h"
#include "core/units/unit_table.h"

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

namespace gantry::units {
namespace {

bool isDigit(char c) {
    return std::isdigit(static_cast<unsigned char>(c)) != 0;
}
bool isBlank(char c) {
    return c == ' ' || c == '\t';
}

void skipBlanks(std::string_view& s) {
    while (!s.empty() && isBlank(s.front())) s.remove_prefix(1);
}

std::string_view trimmed(std::string_view s) {
    skipBlanks(s);
    while (!s.empty() && isBlank(s.back())) s.remove_suffix(1);
    return s;
}

std::string quoted(std::string_view s) {
    return "“" + std::string(s) + "”";
}

/// A number read from the front of a text, or the sentence that says why not.
struct Number {
    double value = 0.0;
    std::string error;
};

/// Digits with at most one decimal mark and an optional exponent.
std::optional<Number> readDecimal(std::string_view& s) {
    std::string digits;
    std::size_t i = 0, before = 0, after = 0, marks = 0;
    bool leadingZero = false;
    for (; i < s.size(); ++i) {
        const char c = s[i];
        if (isDigit(c)) {
            if (marks == 0 && before == 0) leadingZero = c == '0';
            (marks != 0 ? after : before) += 1;
            digits += c;
        } else if (c == '.' || c == ',') {
            ++marks;
            if (marks == 1) digits += '.';
        } else {
            break;
        }
    }
    if (before + after == 0) return std::nullopt;
    const std::string_view raw = s.substr(0, i);
    if (marks > 1)
        return Number{0.0,
                      quoted(raw) + " has more than one decimal mark. Write it without thousands marks."};
    if (marks == 1 && after == 3 && before >= 1 && before <= 3 && !leadingZero) {
        const std::string whole = digits.substr(0, before) + digits.substr(before + 1);
        std::string decimal = digits;
        if (decimal.back() == '0')
            while (decimal.back() == '0') decimal.pop_back();
        else
            decimal += '0';
        if (decimal.back() == '.') decimal.pop_back();
        return Number{0.0, quoted(raw) + " could mean two numbers: write " + whole + " or " + decimal + "."};
    }
    if (i + 1 < s.size() && (s[i] == 'e' || s[i] == 'E')) {
        std::size_t k = i + 1;
        if (s[k] == '-' || s[k] == '+') ++k;
        if (k < s.size() && isDigit(s[k])) {
            std::string exponent = "e";
            if (s[i + 1] == '-') exponent += '-';
            while (k < s.size() && isDigit(s[k])) exponent += s[k++];
            digits += exponent;
            i = k;
        }
    }
    Number n;
    const auto r = std::from_chars(digits.data(), digits.data() + digits.size(), n.value);
    if (r.ec != std::errc() || !std::isfinite(n.value))
        return Number{0.0, quoted(raw) + " is too large or too small a number."};
    s.remove_prefix(i);
    return n;
}

/// Decimal, fraction "1/4" or mixed "3 1/8" with an optional sign.
std::optional<Number> readNumber(std::string_view& s) {
    skipBlanks(s);
    std::string_view rest = s;
    double sign = 1.0;
    if (rest.starts_with("−")) {
        sign = -1.0;
        rest.remove_prefix(std::string_view("−").size());
    } else if (!rest.empty() && (rest.front() == '-' || rest.front() == '+')) {
        sign = rest.front() == '-' ? -1.0 : 1.0;
        rest.remove_prefix(1);
    }
    std::optional<Number> n = readDecimal(rest);
    if (!n || !n->error.empty()) return n;

    const auto denominator = [](std::string_view& r) -> std::optional<double> {
        std::string_view probe = r;
        skipBlanks(probe);
        if (probe.empty() || probe.front() != '/') return std::nullopt;
        probe.remove_prefix(1);
        skipBlanks(probe);
        if (probe.empty() || !isDigit(probe.front()))
            return std::nullopt; // "mm/s" style division, not a fraction
        const std::optional<Number> d = readDecimal(probe);
        if (!d || !d->error.empty()) return std::nullopt;
        r = probe;
        return d->value;
    };

    if (const std::optional<double> d = denominator(rest)) {
        if (*d == 0.0) return Number{0.0, "a fraction cannot have 0 below the line."};
        n->value /= *d;
    } else {
        std::string_view probe = rest;
        if (!probe.empty() && (isBlank(probe.front()) || probe.front() == '-')) {
            probe.remove_prefix(1);
            skipBlanks(probe);
            if (!probe.empty() && isDigit(probe.front())) {
                const std::optional<Number> top = readDecimal(probe);
                const std::optional<double> bottom =
                    top && top->error.empty() ? denominator(probe) : std::nullopt;
                if (bottom && *bottom != 0.0) {
                    n->value += top->value / *bottom;
                    rest = probe;
                }
            }
        }
    }
    n->value *= sign;
    s = rest;
    return n;
}

/// Everything up to the next number is the unit; a last 1 to 4 directly behind letters ("cm2") belongs to
/// it.
std::string_view takeUnit(std::string_view& s) {
    std::size_t i = 0;
    while (i < s.size()) {
        const bool exponent = i > 0 && s[i] >= '1' && s[i] <= '4' && !isBlank(s[i - 1]) &&
                              (i + 1 == s.size() || std::isalnum(static_cast<unsigned char>(s[i + 1])) == 0);
        if (isDigit(s[i]) && !exponent) break;
        ++i;
    }
    const std::string_view unit = trimmed(s.substr(0, i));
    s.remove_prefix(i);
    return unit;
}

bool compoundsAllowed(Kind kind) {
    return kind == Kind::Length || kind == Kind::PartLength || kind == Kind::Time || kind == Kind::Angle ||
           kind == Kind::Mass;
}

std::string wrongUnit(std::string_view unit, Kind kind) {
    const KindWords want = kindWords(kind);
    std::string s = quoted(unit);
    if (const std::optional<Kind> other = kindOfUnit(normaliseUnit(unit)); other && *other != kind)
        s += " is " + std::string(kindWords(*other).article) + " unit";
    else
        s += " is not a unit known here";
    return s + ". This field takes " + std::string(want.article) + ", for example " +
           std::string(want.example) + ".";
}

ParseResult parseSum(std::string_view text, Kind kind, System system) {
    std::string_view rest = text;
    double sum = 0.0;
    int parts = 0;
    bool negative = false;
    while (!trimmed(rest).empty()) {
        std::optional<Number> n = readNumber(rest);
        if (!n) {
            const KindWords want = kindWords(kind);
            return ParseError{quoted(text) + " is not a number. This field takes " +
                              std::string(want.article) + ", for example " + std::string(want.example) + "."};
        }
        if (!n->error.empty()) return ParseError{n->error};
        const std::string_view unit = takeUnit(rest);
        const bool last = trimmed(rest).empty();
        if (unit.empty() && (!last || parts > 0))
            return ParseError{quoted(text) + " has two numbers without a unit between them."};
        double factor = shownUnit(kind, system).factor;
        if (!unit.empty()) {
            const std::optional<double> f = unitFactor(kind, normaliseUnit(unit));
            if (!f) return ParseError{wrongUnit(unit, kind)};
            factor = *f;
        }
        if (!last && !compoundsAllowed(kind))
            return ParseError{quoted(text) + " has more than one number where one is wanted."};
        if (parts == 0) negative = std::signbit(n->value);
        sum += parts > 0 && negative ? -n->value * factor : n->value * factor;
        ++parts;
    }
    if (parts == 0)
        return ParseError{"nothing entered. This field takes " + std::string(kindWords(kind).article) + "."};
    if (!std::isfinite(sum)) return ParseError{quoted(text) + " is too large a number."};
    return sum;
}

/// "1 ft in 15 min", "20 cm over 30 s", "90° / 4 s", "1 in per min".
std::optional<double> parseDistanceInTime(std::string_view text, Kind kind, System system) {
    const Kind distanceKind = kind == Kind::Speed ? Kind::Length : Kind::Angle;
    for (const std::string_view separator : {" in ", " over ", " per ", "/"}) {
        for (auto at = text.find(separator); at != std::string_view::npos;
             at = text.find(separator, at + 1)) {
            const std::string_view left = trimmed(text.substr(0, at));
            const std::string_view right = trimmed(text.substr(at + separator.size()));
            if (left.empty() || right.empty() || isDigit(left.back())) continue;
            const ParseResult distance = parseSum(left, distanceKind, system);
            const std::optional<double> bareUnit = unitFactor(Kind::Time, normaliseUnit(right));
            const ParseResult time = bareUnit ? ParseResult{*bareUnit} : parseSum(right, Kind::Time, system);
            if (!std::holds_alternative<double>(distance) || !std::holds_alternative<double>(time)) continue;
            if (const double t = std::get<double>(time); t > 0.0) return std::get<double>(distance) / t;
        }
    }
    return std::nullopt;
}

/// "3:1" and "57:11".
std::optional<double> parseColonRatio(std::string_view text) {
    const auto colon = text.find(':');
    if (colon == std::string_view::npos) return std::nullopt;
    std::string_view left = text.substr(0, colon), right = text.substr(colon + 1);
    const std::optional<Number> a = readNumber(left), b = readNumber(right);
    if (!a || !b || !a->error.empty() || !b->error.empty() || b->value == 0.0) return std::nullopt;
    if (!trimmed(left).empty() || !trimmed(right).empty()) return std::nullopt;
    return a->value / b->value;
}

/// "18:40", "18:40:05", "6:30 pm", and a later day as "day 3, 06:00". Nothing where there is no colon.
std::optional<ParseResult> parseClock(std::string_view text) {
    constexpr double day = 86400.0;
    std::string_view rest = text;
    double days = 0.0;
    const auto whole = [](std::string_view& s) -> std::optional<int> {
        int value = 0;
        const auto r = std::from_chars(s.data(), s.data() + s.size(), value);
        if (r.ec != std::errc() || r.ptr == s.data()) return std::nullopt;
        s.remove_prefix(static_cast<std::size_t>(r.ptr - s.data()));
        return value;
    };
    if (rest.starts_with("day ")) {
        rest.remove_prefix(4);
        const auto n = whole(rest);
        if (!n || !rest.starts_with(",")) return std::nullopt;
        rest.remove_prefix(1);
        rest = trimmed(rest);
        days = *n - 1.0;
    }
    const bool half = rest.ends_with("am") || rest.ends_with("pm");
    if (rest.find(':') == std::string_view::npos && !half) return std::nullopt;
    const ParseError wrong{quoted(text) + " is not a time of day. Write it as 18:40, or as 6:40 pm."};
    const auto hours = whole(rest);
    if (!hours) return wrong;
    std::optional<int> minutes = half ? std::optional(0) : std::nullopt;
    if (rest.starts_with(":")) {
        rest.remove_prefix(1);
        minutes = whole(rest);
    }
    if (!minutes) return wrong;
    double seconds = 0.0;
    if (rest.starts_with(":")) {
        rest.remove_prefix(1);
        const auto r = std::from_chars(rest.data(), rest.data() + rest.size(), seconds);
        if (r.ec != std::errc() || r.ptr == rest.data()) return wrong;
        rest.remove_prefix(static_cast<std::size_t>(r.ptr - rest.data()));
    }
    rest = trimmed(rest);
    double hour = *hours;
    if (rest == "pm" || rest == "am") {
        if (*hours < 1 || *hours > 12) return wrong;
        hour = *hours % 12 + (rest == "pm" ? 12 : 0);
    } else if (!rest.empty()) {
        return wrong;
    }
    if (hour < 0.0 || hour > 24.0 || *minutes < 0 || *minutes > 59 || !(seconds >= 0.0 && seconds < 60.0))
        return wrong;
    return days * day + hour * 3600.0 + *minutes * 60.0 + seconds;
}

} // namespace

ParseResult parse(std::string_view text, Kind kind, System system) {
    text = trimmed(text);
    if (text.size() > 200) return ParseError{"that is far too long for a number."};
    if (kind == Kind::Ratio)
        if (const std::optional<double> r = parseColonRatio(text)) return *r;
    if (kind == Kind::TimeOfDay)
        if (const std::optional<ParseResult> clock = parseClock(text)) return *clock;
    ParseResult direct = parseSum(text, kind, system);
    if (std::holds_alternative<double>(direct)) {
        if (kind == Kind::Count) {
            const double v = std::get<double>(direct);
            if (v != std::floor(v) || std::abs(v) > 1e9)
                return ParseError{quoted(text) + " is not a whole number."};
        }
        return direct;
    }
    if (kind == Kind::Speed || kind == Kind::AngularSpeed || kind == Kind::RotationRate)
        if (const std::optional<double> v = parseDistanceInTime(text, kind, system)) return *v;
    return direct;
}

} // namespace gantry::units
