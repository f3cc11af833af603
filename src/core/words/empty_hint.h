// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string_view>

namespace gantry::words {

/// What a number field says in grey where its 0 means that nothing was entered.
struct EmptyHint {
    std::string_view key;  ///< of the field in the file
    std::string_view hint; ///< "none", "any", "not measured"
    std::string_view part; ///< the part that holds it, where the same key is a plain number elsewhere
};

/// The hint of the field at a path ("conditions/weight_budget_kg"); empty where 0 is a number like any other.
std::string_view emptyHint(std::string_view path);

std::span<const EmptyHint> emptyHints();

} // namespace gantry::words
