// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/toothed_wheel.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::app {

QPainterPath toothedWheel(QPointF centre, qreal radius, int teeth) {
    QPainterPath path;
    if (teeth > 200 || teeth < 3) {
        path.addEllipse(centre, radius, radius);
        return path;
    }
    const double pitch = 2.0 * std::numbers::pi / teeth;
    const double depth = std::min(radius * 0.18, radius * pitch * 0.45);
    const auto at = [&](double angle, double r) {
        return centre + QPointF(r * std::cos(angle), r * std::sin(angle));
    };
    for (int i = 0; i < teeth; ++i) {
        const double a = i * pitch;
        if (i == 0) path.moveTo(at(a, radius));
        path.lineTo(at(a + pitch * 0.42, radius));
        path.lineTo(at(a + pitch * 0.56, radius - depth));
        path.lineTo(at(a + pitch * 0.86, radius - depth));
        path.lineTo(at(a + pitch, radius));
    }
    path.closeSubpath();
    return path;
}

} // namespace gantry::app
