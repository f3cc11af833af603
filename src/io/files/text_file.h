// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>

namespace gantry::io {

/// The content of a file; nothing and a sentence in `error` if it cannot be read or is larger than `largest`
/// bytes.
std::optional<std::string> readTextFile(const std::string& path, std::size_t largest, std::string& error);

} // namespace gantry::io
