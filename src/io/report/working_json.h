// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/working/explain.h"

#include <string>

namespace gantry::io {

/// A working as text in JSON, all in SI, keys as docs/command-line.md lists them.
std::string workingJson(const Project& project, const working::Explanation& explanation);

} // namespace gantry::io
