// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/curve.h"

#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

QPolygonF thinned(const QPolygonF& curve) {
    constexpr double unseen = 0.2;
    QPolygonF out;
    qsizetype from = 0;
    for (qsizetype i = 0; i < curve.size(); ++i) {
        bool lies = !out.isEmpty() && i + 1 < curve.size();
        if (lies) {
            const QPointF a = curve[from], way = curve[i + 1] - a;
            lies = way.x() > 0.0;
            for (qsizetype k = from + 1; lies && k <= i; ++k)
                lies = std::abs(a.y() + way.y() * (curve[k].x() - a.x()) / way.x() - curve[k].y()) <= unseen;
        }
        if (lies) continue;
        out << curve[i];
        from = i;
    }
    return out;
}

} // namespace

void drawCurve(QPainter& painter, const QPolygonF& curve, QPen pen) {
    constexpr qsizetype run = 4; // segments
    const QPolygonF points = thinned(curve);
    painter.setBrush(Qt::NoBrush);
    double drawn = 0.0;
    for (qsizetype from = 0; from + 1 < points.size(); from += run) {
        const qsizetype count = std::min(run, points.size() - 1 - from);
        if (pen.style() != Qt::SolidLine) pen.setDashOffset(drawn / pen.widthF());
        painter.setPen(pen);
        painter.drawPolyline(points.constData() + from, static_cast<int>(count + 1));
        for (qsizetype i = from; i < from + count; ++i)
            drawn += std::hypot(points[i + 1].x() - points[i].x(), points[i + 1].y() - points[i].y());
    }
}

} // namespace gantry::app
