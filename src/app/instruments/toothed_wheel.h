// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPainterPath>

namespace gantry::app {

/// Outline of a toothed wheel with exactly this many teeth (drawn as a plain rim above 200, where teeth would
/// blur).
QPainterPath toothedWheel(QPointF centre, qreal radius, int teeth);

} // namespace gantry::app
