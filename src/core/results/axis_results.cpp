// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/axis_results.h"

namespace gantry {

std::string_view softName(SoftCause cause) {
    switch (cause) {
    case SoftCause::Drive:
        return "drive";
    case SoftCause::Rail:
        return "camera nodding on the rail";
    case SoftCause::Stands:
        return "stands";
    case SoftCause::Boom:
        return "arm";
    case SoftCause::Mast:
        return "mast and pivot";
    case SoftCause::Pads:
        return "pads under the feet";
    }
    return "";
}

} // namespace gantry
