// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <ostream>
#include <string>

namespace gantry::cli {

/// What `find-ratio` was asked.
struct RatioCall {
    std::string ratio; ///< as typed: "57/11"
    int stages = 2;    ///< 1 to 4
    std::string from;  ///< a stock by name or a table; empty: 2 mm pulleys
    int most = 20;     ///< 1 to 1000
    bool json = false;
};

/// Prints trains, best first. Returns 2 with a sentence on err if the call is off, 1 if nothing fits.
int findRatio(const RatioCall& call, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
