// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <iosfwd>
#include <string>
#include <vector>

namespace gantry::cli {

/// Exit code of the program when what it printed could not be written (a full disk).
inline constexpr int outputFailed = 3;

/// Exit codes: 0 done, 1 a verdict is over, 2 the call or the file was wrong, 130 stopped by Ctrl+C.
int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
