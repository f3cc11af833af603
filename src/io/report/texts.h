// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <compare>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

/// A text that the core shows to people, in English, and what it is: "field", "choice", "kind", "result",
/// "criterion", "reason", "rule", "fix", "need", "export" or "recipe".
struct Text {
    std::string_view group;
    std::string text;

    friend auto operator<=>(const Text&, const Text&) = default;
};

/// All of them, each once in its group, in order: the catalogue that a translation starts from. Gathered from
/// the descriptions, the rules, their fixes and the recipes themselves, so that what is added there is here.
std::vector<Text> everyText();

/// The same as a table, one a line (RFC 4180).
std::string textsCsv();

} // namespace gantry::io
