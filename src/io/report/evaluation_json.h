// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/ranges.h"

#include <string>

namespace gantry::io {

/// The whole assessment as JSON, keys as docs/command-line.md lists them. A figure without a number is null,
/// with the reason beside it under "<key>_why".
std::string evaluationJson(const Project& project, const Assessment& assessment);

} // namespace gantry::io
