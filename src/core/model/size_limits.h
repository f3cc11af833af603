// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <string_view>

/// How much a project may hold, so that everything stays readable and is assessed in less than two seconds
/// (extremes_test measures it at the limits). Edits, the schema and the reader go by the same numbers.
namespace gantry {

inline constexpr std::size_t mostLetters = 20000;     ///< of a text field
inline constexpr std::size_t mostLinkedTexts = 2000;  ///< locks, retired ids
inline constexpr std::size_t mostLettersOfOne = 2000; ///< of one of these
inline constexpr std::size_t mostMovements = 1500;    ///< of all shots together
inline constexpr std::size_t mostPlaces = 8000;       ///< of axes in the poses of all moves together
inline constexpr std::size_t mostAxisParts = 2000;    ///< links and items of all axes together
inline constexpr std::size_t mostKeptKeys = 200000;   ///< keys of the file that this version does not know

/// Texts in the list with this key.
constexpr std::size_t mostTextsOf(std::string_view list) {
    return list == "told" ? 40 : mostLinkedTexts;
}

/// Elements of the list with this key in the file.
constexpr std::size_t mostOf(std::string_view list) {
    if (list == "tests") return 5000;
    if (list == "poses") return 500;
    if (list == "moves") return 200; // also what a shot asks of its axes
    if (list == "links") return 24;
    if (list == "plans") return 40;
    if (list == "candidates") return 5; // beside the drive in use
    if (list == "keep_out" || list == "discs" || list == "marks" || list == "items" || list == "bodies" ||
        list == "loads" || list == "blocks" || list == "speeds" || list == "times" || list == "exposures" ||
        list == "cameras" || list == "faults" || list == "sensors" || list == "pauses" ||
        list == "consumers" || list == "readings")
        return 60;
    return 200;
}

} // namespace gantry
