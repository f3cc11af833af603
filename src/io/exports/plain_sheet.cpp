// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/exports/settings_forms.h"

#include <algorithm>

namespace gantry::io {
namespace {

/// Columns of a terminal or page, counting characters, not bytes.
std::string padded(std::string text, std::size_t width) {
    const auto characters = static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
    if (characters < width) text.append(width - characters, ' ');
    return text;
}

/// Lines of at most `width` bytes, broken at blanks.
std::string wrapped(const std::string& text, std::size_t width) {
    std::string out;
    std::size_t start = 0;
    while (text.size() - start > width) {
        std::size_t end = text.rfind(' ', start + width);
        if (end == std::string::npos || end <= start) end = text.find(' ', start + width);
        if (end == std::string::npos) break;
        out += text.substr(start, end - start) + '\n';
        start = end + 1;
    }
    return out + text.substr(start);
}

} // namespace

std::string settingsText(const SettingsSheet& sheet) {
    std::string out = "Controller settings for " + sheet.project + '\n';
    if (!sheet.controller.empty()) out += "Controller: " + sheet.controller + '\n';
    for (const std::string& caution : sheet.cautions) out += '\n' + wrapped("CAUTION  " + caution, 78) + '\n';
    for (const AxisSettings& axis : sheet.axes) {
        out += '\n' + axis.name + " (" + axis.kind + ", " + axis.unit + ")\n";
        for (const Setting& s : axis.rows)
            out += "  " + padded(s.label, 24) + padded(s.value.empty() ? "-" : s.value, 12) +
                   padded(s.unit, 10) + s.note + '\n';
    }
    return out;
}

} // namespace gantry::io
