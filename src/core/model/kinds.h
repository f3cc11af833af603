// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe.h"

#include <array>
#include <string_view>
#include <utility>

/// The kinds that a variant of parts offers, as the window lists them.
namespace gantry {

struct KindInfo {
    std::string_view key;   ///< in the file
    std::string_view label; ///< on screen
};

namespace detail {
template <class V>
struct Kinds;
template <class... Ts>
struct Kinds<std::variant<Ts...>> {
    static constexpr std::array<KindInfo, sizeof...(Ts)> list{
        KindInfo{KindName<Ts>::key, KindName<Ts>::label}...};

    static std::variant<Ts...> make(std::size_t index) {
        std::variant<Ts...> out;
        [&]<std::size_t... I>(std::index_sequence<I...>) {
            ((I == index ? static_cast<void>(out.template emplace<I>()) : void()), ...);
        }
        (std::index_sequence_for<Ts...>{});
        return out;
    }
};
} // namespace detail

/// Kinds of a variant in the order of its alternatives.
template <class V>
constexpr const auto& kindsOf() {
    return detail::Kinds<V>::list;
}

/// A default part of the kind at `index`.
template <class V>
V makeKind(std::size_t index) {
    return detail::Kinds<V>::make(index);
}

/// Name on screen of the kind that a variant holds.
template <class V>
std::string_view labelOf(const V& part) {
    return kindsOf<V>()[part.index()].label;
}

} // namespace gantry
