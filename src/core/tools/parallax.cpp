// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/parallax.h"

namespace gantry {

double parallax(double focal, double travel, double nearest, double farthest) {
    return focal * travel * (1.0 / nearest - 1.0 / farthest);
}

double travelForParallax(double focal, double shift, double nearest, double farthest) {
    return shift / (focal * (1.0 / nearest - 1.0 / farthest));
}

double travelAcross(const geometry::Frame& from, const geometry::Frame& to) {
    const geometry::Place way = minus(to.at, from.at), looks = plus(from.ahead, to.ahead);
    const double length = lengthOf(looks);
    if (!(length > 0.0)) return lengthOf(way); // it looks back at the end
    return lengthOf(cross(way, looks)) / length;
}

} // namespace gantry
