// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/report/settings.h"

#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

inline constexpr std::size_t largestTemplate = 256u << 10; ///< [bytes]
inline constexpr int deepestTemplate = 32;                 ///< sections within sections

/// A template filled with a sheet, or why not.
struct FilledTemplate {
    std::string text;
    std::string error; ///< not empty: nothing usable was made
    std::vector<std::string>
        missingNames; ///< names that the template uses and the data does not have, each once
};

/// Fills a mustache template. Text is not escaped; partials are refused; look-ups are limited. The data that
/// templates can use is listed in docs/templates.md.
FilledTemplate fillTemplate(std::string_view mustache, const SettingsSheet& sheet);

} // namespace gantry::io
