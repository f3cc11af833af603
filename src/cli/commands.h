// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <iosfwd>
#include <string>
#include <vector>

namespace gantry::cli {

/// Exit codes: 0 done, 1 a verdict is over, 2 the call or the file was wrong.
int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
