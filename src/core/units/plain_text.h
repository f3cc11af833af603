// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace gantry::units {

/// A text as it may be shown on a terminal or a label: control characters other than line ends and tabs,
/// marks that turn the direction of writing, and bytes that are not UTF-8 become U+FFFD.
std::string plainText(std::string_view text);

/// A sentence for people: as plain text, with words that are longer than anybody's cut to 60 letters and "…".
std::string plainSentence(std::string_view text);

/// Whether it is the same as its plain text.
bool isPlainText(std::string_view text);

} // namespace gantry::units
