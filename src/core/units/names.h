// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <string_view>

namespace gantry::units {

/// The word for a member of an enumeration, of words in its order from the first member to `Last`. One word
/// too few or too many does not compile, so a new member is not left without. Empty for what is no member.
template <auto Last, class... Words>
requires(sizeof...(Words) == static_cast<std::size_t>(Last) + 1) constexpr std::string_view
    nameOf(decltype(Last) member, const Words&... words) {
    const std::array<std::string_view, sizeof...(Words)> all{words...};
    const auto place = static_cast<std::size_t>(member);
    return place < all.size() ? all[place] : std::string_view();
}

} // namespace gantry::units
