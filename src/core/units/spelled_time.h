// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

namespace gantry::units {

/// A time as people say it, from a tenth of a second up: "29 min 56 s", "7 h 59 min 2 s", "2 d 3 h"; below
/// two minutes in seconds alone, from a day on without seconds. Reads back as a time to what it shows. Not
/// finite: "–".
std::string spelledTime(double seconds);

} // namespace gantry::units
