// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/text.h"
#include "core/units/unit_table.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace gantry::units {
namespace {

std::string fixed(double value, int decimals) {
    std::array<char, 400> buffer{};
    const auto r = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value,
                                 std::chars_format::fixed, std::clamp(decimals, 0, 25));
    return {buffer.data(), r.ptr};
}

void dropTrailingZeros(std::string& s) {
    if (s.find('.') != std::string::npos) {
        while (s.back() == '0') s.pop_back();
        if (s.back() == '.') s.pop_back();
    }
    if (s == "-0") s = "0";
}

int decimalsFor(double value, int significant) {
    if (value == 0.0) return 0;
    const int magnitude = static_cast<int>(std::floor(std::log10(std::abs(value)) + 1e-12));
    return std::max(0, significant - 1 - magnitude);
}

std::string significantDigits(double value, int significant) {
    if (!std::isfinite(value)) return "–"; // a number that the shown unit makes too large
    // Large numbers keep one digit more than asked, since whole units are what people act on, and no further
    // ones.
    if (const double limit = std::pow(10.0, significant + 1);
        std::abs(value) >= limit && std::abs(value) < 1e15) {
        const double grid = std::pow(10.0, std::floor(std::log10(std::abs(value))) - significant);
        value = std::round(value / grid) * grid;
    }
    std::string s = fixed(value, decimalsFor(value, significant));
    dropTrailingZeros(s);
    return s;
}

/// The parser refuses three digits behind a single mark; one more zero makes the text clear again.
void avoidThousandsLook(std::string& s) {
    const auto mark = s.find('.');
    if (mark == std::string::npos || s.size() - mark - 1 != 3) return;
    const std::size_t first = s.front() == '-' ? 1 : 0;
    if (s[first] != '0' && mark - first <= 3) s += '0';
}

/// "18:40", "18:40:05.25"; of a later day "day 3, 06:00". To a microsecond.
std::string onTheClock(double seconds) {
    constexpr double day = 86400.0, furthest = 1e12;
    if (!(std::abs(seconds) < furthest)) return "–";
    const double whole = std::round(seconds * 1e6) / 1e6, days = std::floor(whole / day);
    const double within = whole - days * day;
    const auto two = [](double n) {
        std::string s = fixed(n, 0);
        return s.size() < 2 ? "0" + s : s;
    };
    const double hours = std::floor(within / 3600.0), minutes = std::floor((within - 3600.0 * hours) / 60.0);
    const double rest = within - 3600.0 * hours - 60.0 * minutes;
    std::string out = two(hours) + ":" + two(minutes);
    if (rest >= 0.5e-6) {
        std::string s = fixed(rest, 6);
        dropTrailingZeros(s);
        out += (rest < 10.0 ? ":0" : ":") + s;
    }
    return days == 0.0 ? out : "day " + fixed(days + 1.0, 0) + ", " + out;
}

std::string withUnit(std::string number, std::string_view unit) {
    if (unit.empty()) return number;
    if (unit != "°") number += ' ';
    return number.append(unit);
}

} // namespace

std::string format(double si, Kind kind, System system, int significant) {
    if (!std::isfinite(si)) return "–";
    // What is shown is to the second.
    if (kind == Kind::TimeOfDay) return onTheClock(std::round(si));
    const ShownUnit unit = shownUnit(kind, system, si);
    if (!std::isfinite(si / unit.factor)) return "–";
    return withUnit(significantDigits(si / unit.factor, significant), unit.text);
}

std::string formatNumber(double si, Kind kind, System system, int significant) {
    if (!std::isfinite(si)) return "–";
    if (kind == Kind::TimeOfDay) return onTheClock(std::round(si));
    return significantDigits(si / shownUnit(kind, system).factor, significant);
}

std::string formatForEditing(double si, Kind kind, System system) {
    if (!std::isfinite(si)) return {};
    if (kind == Kind::TimeOfDay) return onTheClock(si);
    std::string s = significantDigits(si / shownUnit(kind, system).factor, 9);
    avoidThousandsLook(s);
    return s;
}

std::string formatForField(double si, Kind kind, System system) {
    if (!std::isfinite(si)) return {};
    if (kind == Kind::TimeOfDay) return onTheClock(si);
    std::string s = significantDigits(si / shownUnit(kind, system).factor, 5);
    avoidThousandsLook(s);
    return s;
}

std::string plainNumber(double value, int decimals) {
    if (!std::isfinite(value)) return {};
    std::string s = fixed(value, decimals);
    dropTrailingZeros(s);
    return s;
}

} // namespace gantry::units
