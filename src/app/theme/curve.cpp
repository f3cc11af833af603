// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/curve.h"

#include <QVarLengthArray>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

/// Without the points that lie on the line between their neighbours as nearly as can be seen.
QPolygonF thinned(const QPolygonF& curve) {
    constexpr double unseen = 0.2;
    QPolygonF out;
    if (curve.isEmpty()) return out;
    out << curve.front();
    // Slopes of all lines from the last point kept that pass every point behind it closely enough.
    double low = -1e300, high = 1e300;
    for (qsizetype i = 1; i < curve.size(); ++i) {
        const QPointF from = out.back();
        const bool last = i + 1 == curve.size();
        if (!last) {
            const double along = curve[i].x() - from.x(), rise = curve[i].y() - from.y();
            if (along > 0.0) {
                low = std::max(low, (rise - unseen) / along);
                high = std::min(high, (rise + unseen) / along);
            }
            const double next = curve[i + 1].x() - from.x();
            const double slope = (curve[i + 1].y() - from.y()) / next;
            if (along > 0.0 && next > 0.0 && slope >= low && slope <= high) continue;
        }
        out << curve[i];
        low = -1e300;
        high = 1e300;
    }
    return out;
}

} // namespace

void drawCurve(QPainter& painter, const QPolygonF& curve, QPen pen) {
    const QPolygonF points = thinned(curve);
    painter.setBrush(Qt::NoBrush);
    if (pen.style() == Qt::SolidLine) {
        // Lines of their own are drawn several times as fast as a path; ends as round as the bends need.
        QVarLengthArray<QLineF, 256> lines;
        for (qsizetype i = 1; i < points.size(); ++i) lines.append(QLineF(points[i - 1], points[i]));
        painter.setPen(pen);
        painter.drawLines(lines.constData(), static_cast<int>(lines.size()));
        return;
    }
    constexpr qsizetype run = 4; // segments
    double drawn = 0.0;
    for (qsizetype from = 0; from + 1 < points.size(); from += run) {
        const qsizetype count = std::min(run, points.size() - 1 - from);
        pen.setDashOffset(drawn / pen.widthF());
        painter.setPen(pen);
        painter.drawPolyline(points.constData() + from, static_cast<int>(count + 1));
        for (qsizetype i = from; i < from + count; ++i)
            drawn += std::hypot(points[i + 1].x() - points[i].x(), points[i + 1].y() - points[i].y());
    }
}

} // namespace gantry::app
