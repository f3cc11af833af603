// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/figure.h"
#include "core/units/text.h"

#include <string>

namespace gantry::cli {

/// A figure as tables show it, "-" where there is none. Counts are given in full, all else by so many digits.
inline std::string figureText(const Figure& f, units::Kind kind, int digits = 3) {
    if (kind == units::Kind::Count) digits = 7;
    return f ? units::format(f.value(), kind, units::System::Metric, digits) : "-";
}

} // namespace gantry::cli
