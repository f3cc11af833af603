// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/figure.h"
#include "core/units/kind.h"

#include <array>
#include <string>
#include <string_view>

namespace gantry::words {

/// A sentence, title or label with places for quantities ({0} … {5}) and names ({axis}, {shot}, {part},
/// {room}, {reason}). Written once, as a constant beside what says it; the English text is the key for
/// translation.
struct Message {
    std::string_view text;

    friend constexpr bool operator==(const Message&, const Message&) = default;
};

/// Constants of messages in a row that lives as long as the program, for what lists those it may say.
template <const Message&... Texts>
inline constexpr std::array<Message, sizeof...(Texts)> listOf{Texts...};

inline constexpr Message unknownText{"Not known yet: {reason}."};

/// A quantity that a sentence names.
struct Argument {
    units::Kind kind = units::Kind::Ratio;
    Figure value = 0.0;
    int significant = 3; ///< digits
};
using Arguments = std::array<Argument, 6>;

/// Names that a sentence may use.
struct Names {
    std::string_view axis;
    std::string_view shot;
    std::string_view part{};      ///< what gives way or comes near
    std::string_view room{};      ///< what it comes near to
    Reason reason = Reason::None; ///< why there is no number
};

/// Renders a message with its quantities in the unit system. Not finite: "–".
std::string render(Message message, const Arguments& arguments, const Names& names, units::System system);

/// Why a figure has no number, to follow "not known: …".
std::string_view reasonText(Reason reason);

} // namespace gantry::words
