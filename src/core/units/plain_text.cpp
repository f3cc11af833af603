// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/plain_text.h"

#include <algorithm>

namespace gantry::units {
namespace {

constexpr std::string_view replacement = "\xEF\xBF\xBD";

unsigned byteAt(std::string_view s, std::size_t i) {
    return i < s.size() ? static_cast<unsigned char>(s[i]) : 0u;
}

/// Bytes of the character at the front; 0 if they are not UTF-8 (Unicode 15, table 3-7).
std::size_t lengthOf(std::string_view s) {
    const unsigned a = byteAt(s, 0), b = byteAt(s, 1);
    const auto follows = [&](std::size_t i) { return (byteAt(s, i) & 0xC0u) == 0x80u; };
    if (a < 0x80) return 1;
    if (a >= 0xC2 && a <= 0xDF) return follows(1) ? 2 : 0;
    if (a >= 0xE0 && a <= 0xEF) {
        const bool second = a == 0xE0 ? b >= 0xA0 : a == 0xED ? b <= 0x9F : true;
        return second && follows(1) && follows(2) ? 3 : 0;
    }
    if (a >= 0xF0 && a <= 0xF4) {
        const bool second = a == 0xF0 ? b >= 0x90 : a == 0xF4 ? b <= 0x8F : true;
        return second && follows(1) && follows(2) && follows(3) ? 4 : 0;
    }
    return 0;
}

/// Control characters, and the marks that embed, override and isolate directions.
bool isControl(std::string_view character) {
    const unsigned a = byteAt(character, 0), b = byteAt(character, 1), c = byteAt(character, 2);
    if (character.size() == 1) return (a < 0x20 && a != '\n' && a != '\t') || a == 0x7F;
    if (character.size() == 2) return a == 0xC2 && b < 0xA0;
    if (character.size() == 3 && a == 0xE2)
        return (b == 0x80 && c >= 0xA8 && c <= 0xAE) || (b == 0x81 && c >= 0xA6 && c <= 0xA9);
    return false;
}

} // namespace

bool isPlainText(std::string_view text) {
    while (!text.empty()) {
        const std::size_t n = lengthOf(text);
        if (n == 0 || isControl(text.substr(0, n))) return false;
        text.remove_prefix(n);
    }
    return true;
}

std::string plainText(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    while (!text.empty()) {
        const std::size_t n = lengthOf(text);
        out += n == 0 || isControl(text.substr(0, n)) ? replacement : text.substr(0, n);
        text.remove_prefix(std::max<std::size_t>(n, 1));
    }
    return out;
}

std::string plainSentence(std::string_view text) {
    constexpr std::size_t longest = 60;
    std::string out;
    std::size_t letters = 0; // of the word at hand
    const std::string plain = plainText(text);
    for (std::string_view rest = plain; !rest.empty();) {
        const std::string_view letter = rest.substr(0, lengthOf(rest));
        rest.remove_prefix(letter.size());
        const bool ends = letter == " " || letter == "/" || letter == "\n" || letter == "\t";
        letters = ends ? 0 : letters + 1;
        if (letters <= longest)
            out += letter;
        else if (letters == longest + 1)
            out += "…";
    }
    return out;
}

} // namespace gantry::units
