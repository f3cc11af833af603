// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/curve.h"

#include <QVarLengthArray>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

/// Without the points that lie on the line between their neighbours as nearly as can be seen.
QPolygonF thinned(const QPolygonF& curve) {
    constexpr double unseen = 0.1;
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

/// A line a little longer at either end than between its points, so that no wedge is left open at a bend.
QLineF joined(QPointF from, QPointF to) {
    constexpr double reach = 0.3;
    const QPointF way = to - from;
    const double length = std::hypot(way.x(), way.y());
    const QPointF more = length > 0.0 ? way * (reach / length) : QPointF();
    return {from - more, to + more};
}

/// The drawn parts of a broken line. @param pattern lengths drawn and left out in turn [px]
void addDashes(QVarLengthArray<QLineF, 256>& out, const QPolygonF& points, const QList<double>& pattern) {
    qsizetype part = 0;
    double left = pattern.front();
    for (qsizetype i = 1; i < points.size(); ++i) {
        const QPointF way = points[i] - points[i - 1];
        const double length = std::hypot(way.x(), way.y());
        for (double at = 0.0; at < length;) {
            const double to = std::min(length, at + left);
            if (part % 2 == 0)
                out.append(QLineF(points[i - 1] + way * (at / length), points[i - 1] + way * (to / length)));
            left -= to - at;
            at = to;
            if (left > 1e-6) continue;
            part = (part + 1) % pattern.size();
            left = pattern[part];
        }
    }
}

} // namespace

void drawCurve(QPainter& painter, const QPolygonF& curve, QPen pen) {
    // Lines of their own are drawn several times as fast as a path, above all a broken one.
    const QPolygonF points = thinned(curve);
    QVarLengthArray<QLineF, 256> lines;
    if (pen.style() == Qt::SolidLine) {
        for (qsizetype i = 1; i < points.size(); ++i) lines.append(joined(points[i - 1], points[i]));
    } else {
        QList<double> pattern = pen.dashPattern();
        for (double& length : pattern) length = std::max(0.5, length * pen.widthF());
        addDashes(lines, points, pattern);
        pen.setStyle(Qt::SolidLine);
    }
    painter.setBrush(Qt::NoBrush);
    pen.setCapStyle(Qt::FlatCap); // longer ends would lie on each other at bends, and show
    painter.setPen(pen);
    painter.drawLines(lines.constData(), static_cast<int>(lines.size()));
}

} // namespace gantry::app
