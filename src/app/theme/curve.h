// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPainter>
#include <QPolygonF>

namespace gantry::app {

/// Draws a curve of many points, which go from left to right, as an antialiased stroke. Wide strokes cost by
/// the point and by the length of one outline, so points that lie on the line between those that are kept, to
/// a fifth of a pixel, are left out, and the rest is drawn in short runs. Dashes go on from run to run.
void drawCurve(QPainter& painter, const QPolygonF& curve, QPen pen);

} // namespace gantry::app
