// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <ostream>
#include <string>

namespace gantry::cli {

/// What `find-ratio` was asked, as typed; empty texts mean the defaults (2 stages, 2 mm pulleys, 20 trains).
struct RatioCall {
    std::string ratio, stages, from, most;
    bool json = false;
};

/// Prints trains, best first. Returns 2 with a sentence on err if the call is off, 1 if nothing fits.
int findRatio(const RatioCall& call, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
