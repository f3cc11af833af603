// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/curve_overlay.h"

#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {

CurveOverlay::CurveOverlay(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("curveOverlay"));
    setMinimumHeight(170);
}

void CurveOverlay::show(std::vector<Line> lines, TorquePoint demand, bool linear) {
    lines_ = std::move(lines);
    demand_ = demand;
    linear_ = linear;
    QStringList names;
    for (const Line& l : lines_) names << l.name;
    setAccessibleName(tr("Pull against speed of drives %1").arg(names.join(QStringLiteral(", "))));
    update();
}

void CurveOverlay::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const QRectF box(58, 10, width() - 104, height() - 46);
    double speed = demand_.speed * 1.3, force = demand_.torque * 1.3;
    for (const Line& l : lines_)
        for (const TorquePoint& q : l.points) force = std::max(force, q.torque);
    // The widest useful speed: where the best line has a tenth of its pull left, but not past four times the
    // demand.
    for (const Line& l : lines_)
        for (const TorquePoint& q : l.points)
            if (!l.points.empty() && q.torque > 0.1 * l.points.front().torque)
                speed = std::max(speed, std::min(q.speed, std::max(4.0 * demand_.speed, 1e-9)));
    p.setPen(t.line);
    p.drawRect(box);
    p.setFont(textFont(10));
    p.setPen(t.second);
    if (!(speed > 0.0) || !(force > 0.0)) return;
    using units::Kind;
    const Kind speedKind = linear_ ? Kind::Speed : Kind::AngularSpeed,
               forceKind = linear_ ? Kind::Force : Kind::Torque;
    for (int i = 0; i <= 4; ++i) {
        const double x = box.left() + box.width() * i / 4, y = box.bottom() - box.height() * i / 4;
        p.drawText(QRectF(x - 45, box.bottom() + 3, 90, 14), Qt::AlignCenter,
                   context_.show(speed * i / 4, speedKind, 2));
        p.drawText(QRectF(0, y - 7, box.left() - 5, 14), Qt::AlignRight | Qt::AlignVCenter,
                   context_.show(force * i / 4, forceKind, 2));
    }
    p.drawText(QRectF(box.left(), box.bottom() + 18, box.width(), 14), Qt::AlignCenter,
               linear_ ? tr("carriage speed; pull above it") : tr("axis speed; torque above it"));
    const auto place = [&](const TorquePoint& q) {
        return QPointF(box.left() + box.width() * q.speed / speed,
                       box.bottom() - box.height() * q.torque / force);
    };
    p.setClipRect(box.adjusted(-1, -1, 1, 1));
    for (int i = 0; i < static_cast<int>(lines_.size()); ++i) {
        QPolygonF line;
        for (const TorquePoint& q : lines_[static_cast<std::size_t>(i)].points) line << place(q);
        if (line.isEmpty()) continue;
        p.setPen(axisPen(i, 1.8));
        p.drawPolyline(line);
        // Letters stand spread along their lines, so that close lines stay readable.
        const QPointF at = line[std::min<qsizetype>(line.size() - 1, line.size() * (i + 1) / 24)];
        p.drawText(at + QPointF(3, -4), lines_[static_cast<std::size_t>(i)].name);
    }
    p.setPen(QPen(t.plum, 1.6));
    p.drawEllipse(place(demand_), 4, 4);
    p.drawText(place(demand_) + QPointF(8, 4), tr("worst shot"));
}

} // namespace gantry::app
