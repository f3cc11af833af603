// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/spelled_time.h"

#include "core/units/text.h"

#include <cmath>

namespace gantry::units {

std::string spelledTime(double seconds) {
    constexpr double minute = 60.0, hour = 3600.0, day = 86400.0;
    if (!std::isfinite(seconds) || seconds < 2.0 * minute)
        return format(seconds, Kind::Time, System::Metric, 5);
    // Of what takes an hour nobody counts tenths, of what takes a day no seconds.
    const double grid = seconds < hour ? 0.1 : seconds < day ? 1.0 : minute;
    double left = std::round(seconds / grid) * grid;
    std::string out;
    const auto take = [&](double unit, const char* name) {
        const double count = std::floor(left / unit + 1e-9);
        left -= count * unit;
        if (count > 0.0) out += (out.empty() ? "" : " ") + plainNumber(count, 0) + name;
    };
    take(day, " d");
    take(hour, " h");
    take(minute, " min");
    if (seconds < day && left > 0.05) out += " " + plainNumber(left, 1) + " s";
    return out;
}

} // namespace gantry::units
