// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace gantry::io {

/// Reads a JSON text without building it and returns what makes it unfit to build: not JSON (with line and
/// column), nested deeper than `deepest`, a key given twice in one object. Empty if it is fit.
std::string jsonObjection(std::string_view text, int deepest);

} // namespace gantry::io
