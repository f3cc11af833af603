// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPainter>
#include <QPolygonF>

namespace gantry::app {

/// Draws a curve of many points, which go from left to right, as antialiased lines of their own: a path of as
/// many costs several times as much, and a dashed one more. Points that lie on the line between those that
/// are kept, to a tenth of a pixel, are left out. Dashes go on from line to line.
void drawCurve(QPainter& painter, const QPolygonF& curve, QPen pen);

} // namespace gantry::app
