// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/frame.h"

#include <algorithm>
#include <array>
#include <charconv>

namespace gantry::motor {

std::optional<Frame> frameOf(std::string_view name) {
    static constexpr std::array frames{
        Frame{8, 0.0202, 0.0154, 0.015, 0.004},  Frame{11, 0.0282, 0.023, 0.022, 0.005},
        Frame{14, 0.0352, 0.026, 0.022, 0.005},  Frame{16, 0.0393, 0.031, 0.022, 0.005},
        Frame{17, 0.0423, 0.031, 0.022, 0.005},  Frame{23, 0.0564, 0.04714, 0.0381, 0.00635},
        Frame{24, 0.06, 0.04714, 0.0381, 0.008}, Frame{34, 0.086, 0.0696, 0.073, 0.014}};
    // "Size 17, 40 mm" as well as "Stepper size 17": the first letter may be either.
    constexpr std::string_view word = "ize ";
    const auto at = name.find(word);
    if (at == std::string_view::npos || at == 0 || (name[at - 1] != 's' && name[at - 1] != 'S'))
        return std::nullopt;
    const std::string_view digits = name.substr(at + word.size());
    int size = 0;
    if (std::from_chars(digits.data(), digits.data() + digits.size(), size).ec != std::errc{})
        return std::nullopt;
    const auto it =
        std::find_if(frames.begin(), frames.end(), [&](const Frame& f) { return f.size == size; });
    return it == frames.end() ? std::nullopt : std::optional(*it);
}

} // namespace gantry::motor
