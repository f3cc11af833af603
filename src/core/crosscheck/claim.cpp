// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/claim.h"

#include "core/units/constants.h"
#include "core/units/text.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <numbers>

namespace gantry::crosscheck {
namespace {

using units::Kind;

bool isDigit(char c) {
    return std::isdigit(static_cast<unsigned char>(c)) != 0;
}
bool isLetter(char c) {
    return std::isalpha(static_cast<unsigned char>(c)) != 0;
}
bool isBlank(char c) {
    return c == ' ' || c == '\t' || c == '\r';
}

std::string lower(std::string_view s) {
    std::string out(s);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

bool has(std::string_view text, std::initializer_list<std::string_view> words) {
    return std::any_of(words.begin(), words.end(),
                       [&](std::string_view w) { return text.find(w) != std::string_view::npos; });
}

std::string_view trimmed(std::string_view s) {
    while (!s.empty() && isBlank(s.front())) s.remove_prefix(1);
    while (!s.empty() && (isBlank(s.back()) || s.back() == ',' || s.back() == '.')) s.remove_suffix(1);
    return s;
}

/// A number in a piece of text, and the words behind it.
struct Written {
    std::string_view number;
    std::string_view behind;
};

/// Digits with marks, a fraction "1/16" or a ratio "50:1", from `at` on.
std::size_t numberEnd(std::string_view s, std::size_t at) {
    std::size_t i = at;
    const auto digitsFrom = [&](std::size_t k) {
        while (k < s.size() &&
               (isDigit(s[k]) || ((s[k] == '.' || s[k] == ',') && k + 1 < s.size() && isDigit(s[k + 1]))))
            ++k;
        return k;
    };
    i = digitsFrom(i);
    for (const char mark : {'/', ':'})
        if (i + 1 < s.size() && s[i] == mark && isDigit(s[i + 1])) return digitsFrom(i + 1);
    return i;
}

/// Every number of a piece; digits within a word ("s2", "S48") are none.
std::vector<Written> numbersOf(std::string_view piece) {
    std::vector<Written> out;
    for (std::size_t i = 0; i < piece.size();) {
        const bool begins = isDigit(piece[i]) && (i == 0 || !isLetter(piece[i - 1]));
        if (!begins) {
            ++i;
            continue;
        }
        const std::size_t from = i > 0 && piece[i - 1] == '-' ? i - 1 : i, end = numberEnd(piece, i);
        out.push_back({piece.substr(from, end - from), trimmed(piece.substr(end))});
        i = end;
    }
    return out;
}

/// The first `count` words of a text; all of it where there are fewer.
std::string_view firstWords(std::string_view s, int count) {
    std::size_t i = 0;
    for (int n = 0; n < count && i < s.size(); ++n) {
        while (i < s.size() && isBlank(s[i])) ++i;
        while (i < s.size() && !isBlank(s[i])) ++i;
    }
    return trimmed(s.substr(0, i));
}

/// Settings and listings write a decimal point, also before three digits ("steps/mm = 80.032"), which a field
/// would ask about; a comma there may still part thousands.
std::optional<double> read(std::string_view number, std::string_view unit, Kind kind) {
    std::string digits(number);
    if (const auto point = digits.find('.');
        point != std::string::npos && digits.size() == point + 4 && digits.find(',') == std::string::npos)
        digits += '0';
    const units::ParseResult parsed =
        units::parse(digits + " " + std::string(unit), kind, units::System::Metric);
    const double* value = std::get_if<double>(&parsed);
    return value != nullptr ? std::optional(*value) : std::nullopt;
}

/// A bare number.
std::optional<double> read(std::string_view number) {
    return read(number, "", Kind::Ratio);
}

/// Motor turns a time, not degrees of an axis.
bool turnsInTime(std::string_view unit) {
    return has(unit, {"rpm", "rev", "turn", "r/min", "1/min"});
}

/// What steps are counted for: a length or an angle, or a turn.
struct Per {
    double si = 0.0; ///< [m] or [rad]; 0: none named
    AxisKind kind = AxisKind::Linear;
    bool turn = false;
};

/// The unit at the front of a text: "mm", "° of pan", "a turn".
Per perUnit(std::string_view text) {
    std::string rest = lower(trimmed(text));
    for (const std::string_view article : {"per ", "a ", "an ", "one ", "each ", "/", "=", "for "})
        while (rest.starts_with(article)) rest = trimmed(std::string(rest).substr(article.size()));
    double count = 1.0;
    if (!rest.empty() && isDigit(rest.front())) {
        const std::size_t end = numberEnd(rest, 0);
        count = read(rest.substr(0, end)).value_or(0.0);
        rest = trimmed(rest.substr(end));
    }
    std::size_t end = 0;
    while (end < rest.size() && !isBlank(rest[end]) &&
           has("=:)]", {std::string_view(&rest[end], 1)}) == false)
        ++end;
    const std::string unit = rest.substr(0, end);
    constexpr std::array<std::string_view, 7> turns{"turn", "turns", "rev",     "revolution",
                                                    "revs", "round", "rotation"};
    if (std::find(turns.begin(), turns.end(), unit) != turns.end())
        return {2.0 * std::numbers::pi * count, AxisKind::Rotary, true};
    if (const auto length = read("1", unit, Kind::Length); length && !unit.empty())
        return {*length * count, AxisKind::Linear, false};
    if (const auto angle = read("1", unit, Kind::Angle); angle && !unit.empty())
        return {*angle * count, AxisKind::Rotary, false};
    return {};
}

/// Steps for a length, an angle or a turn, if the piece is about that.
void readSteps(std::string_view piece, const std::string& small, const std::vector<Written>& numbers,
               Claim& c, AxisKind kind) {
    if (numbers.empty()) return;
    // "200 steps = 1 mm", "2400 steps a turn"; or "steps/mm = 80", "steps per turn: 2400".
    const Written& first = numbers.front();
    const std::string behind = lower(first.behind);
    std::optional<double> count = read(first.number);
    Per per;
    if (has(behind, {"step", "pulse"})) {
        const std::size_t at = behind.find(has(behind, {"step"}) ? "step" : "pulse");
        std::size_t end = at;
        while (end < behind.size() && isLetter(behind[end])) ++end;
        per = perUnit(first.behind.substr(end));
    } else {
        const std::size_t at = small.find(has(small, {"step"}) ? "step" : "pulse");
        std::size_t end = at;
        while (end < small.size() && isLetter(small[end])) ++end;
        const auto number = static_cast<std::size_t>(first.number.data() - piece.data());
        if (number > end) per = perUnit(piece.substr(end, number - end));
    }
    if (!count || !(*count > 0.0)) return;
    if (per.si <= 0.0) {
        // Of one unit of the axis, unless it is about the driver.
        if (has(small, {"micro", "full"})) return;
        c.stepsPerUnit = *count / (kind == AxisKind::Linear ? 1e-3 : units::degree);
    } else if (per.turn) {
        c.stepsPerTurn = *count / (per.si / (2.0 * std::numbers::pi));
    } else if (per.kind == kind) {
        c.stepsPerUnit = *count / per.si;
    }
}

/// Puts a number that has a unit where it belongs. False: no unit that is known here, or the place is taken.
bool place(const Written& w, AxisKind kind, Claim& c) {
    if (has(w.number, {":"})) {
        const std::optional<double> r = read(w.number);
        if (!r) return false;
        c.ratio = *r < 1.0 ? 1.0 / *r : *r; // "1:50" is said of what turns the motor down
        return true;
    }
    const bool linear = kind == AxisKind::Linear;
    for (int words = 3; words >= 1; --words) {
        const std::string unit(firstWords(w.behind, words));
        if (unit.empty()) return false;
        const auto put = [&](std::optional<double>& slot, Kind k) {
            const auto value = slot ? std::nullopt : read(w.number, unit, k);
            if (value) slot = value;
            return value.has_value();
        };
        if (turnsInTime(lower(unit)) && put(c.motorSpeed, Kind::RotationRate)) return true;
        if (put(c.torque, Kind::Torque) || put(c.force, Kind::Force) ||
            put(c.acceleration, linear ? Kind::Acceleration : Kind::AngularAcceleration) ||
            put(c.speed, linear ? Kind::Speed : Kind::AngularSpeed) || put(c.mass, Kind::Mass) ||
            put(c.current, Kind::Current) || put(c.power, Kind::Power))
            return true;
    }
    return false;
}

/// Puts a bare number where its name says.
void placeByName(const Written& w, const std::string& small, AxisKind kind, Claim& c) {
    const auto value = read(w.number);
    if (!value) return;
    const double unit = kind == AxisKind::Linear ? 1e-3 : units::degree;
    if (has(small, {"current", "amp"}))
        c.current = value;
    else if (has(small, {"accel"}))
        c.acceleration = *value * unit;
    else if (has(small, {"speed", "feed", "velocity", "rate"}))
        c.speed = *value * unit;
    else if (has(small, {"torque"}))
        c.torque = value;
    else if (has(small, {"power", "watt"}))
        c.power = value;
    else if (has(small, {"ratio", "reduction", "gear"}))
        c.ratio = value;
    else if (has(small, {"mass", "load", "payload", "weigh", "carries", "lifts"}))
        c.mass = value;
}

Claim readPiece(std::string_view piece, std::size_t line, AxisKind kind) {
    Claim c;
    c.text = std::string(piece);
    c.line = line;
    const std::string small = lower(piece);
    c.atMotor = has(small, {"motor", "holding torque"});
    const std::vector<Written> numbers = numbersOf(piece);
    if (has(small, {"step", "pulse"})) {
        readSteps(piece, small, numbers, c, kind);
        return c;
    }
    for (const Written& w : numbers) {
        if (place(w, kind, c)) continue;
        if (numbers.size() == 1 && trimmed(w.behind).empty())
            placeByName(w, small, kind, c);
        else
            c.partly = true;
    }
    if (c.current && has(small, {"peak"})) c.current = *c.current / std::numbers::sqrt2;
    return c;
}

} // namespace

bool Claim::understood() const {
    return stepsPerUnit || stepsPerTurn || current || torque || force || motorSpeed || speed ||
           acceleration || mass || power || ratio;
}

std::vector<std::string> linesOf(std::string_view text) {
    std::vector<std::string> out;
    while (!text.empty()) {
        const std::string_view line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        if (!trimmed(line).empty()) out.emplace_back(trimmed(line));
    }
    return out;
}

const std::vector<Claim>& claimsOf(const Axis& axis) {
    struct Kept {
        std::vector<std::string> lines;
        AxisKind kind = AxisKind::Linear;
        std::vector<Claim> claims;
    };
    static thread_local std::array<Kept, 8> kept;
    static thread_local std::size_t next = 0;
    const AxisKind kind = kindOf(axis);
    for (const Kept& k : kept)
        if (k.kind == kind && k.lines == axis.told) return k.claims;
    Kept& fresh = kept[next++ % kept.size()];
    fresh = {axis.told, kind, readClaims(axis.told, kind)};
    return fresh.claims;
}

std::vector<Claim> readClaims(std::span<const std::string> lines, AxisKind kind) {
    std::vector<Claim> out;
    for (std::size_t n = 0; n < lines.size(); ++n) {
        std::string_view rest = lines[n];
        while (!rest.empty()) {
            // A comma between digits is a decimal mark.
            std::size_t end = 0;
            while (end < rest.size() && rest[end] != ';' && rest[end] != '\n' &&
                   !(rest[end] == ',' && (end + 1 == rest.size() || isBlank(rest[end + 1]))))
                ++end;
            const std::string_view piece = trimmed(rest.substr(0, end));
            rest.remove_prefix(std::min(rest.size(), end + 1));
            if (std::any_of(piece.begin(), piece.end(), isDigit)) out.push_back(readPiece(piece, n, kind));
        }
    }
    return out;
}

} // namespace gantry::crosscheck
