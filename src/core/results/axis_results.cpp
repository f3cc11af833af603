// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/axis_results.h"

#include "core/units/names.h"

namespace gantry {

std::string_view softName(SoftCause cause) {
    return units::nameOf<SoftCause::Pads>(cause, "drive", "camera tilting on the rail", "stands", "arm",
                                          "mast and pivot", "pads under the feet");
}

} // namespace gantry
