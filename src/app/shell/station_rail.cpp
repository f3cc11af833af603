// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/station_rail.h"

#include "app/theme/tokens.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

namespace gantry::app {

StationRail::StationRail(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("stationRail"));
    setFixedHeight(62);
}

void StationRail::setStations(const QStringList& names) {
    names_ = names;
    worst_ = QList<State>(names.size(), State::Unknown);
    describe();
    update();
}

void StationRail::describe() {
    setAccessibleName(
        tr("Station %1 of %2: %3").arg(current_ + 1).arg(names_.size()).arg(names_.value(current_)));
}

void StationRail::setCurrent(int station) {
    if (station == current_) return;
    current_ = station;
    describe();
    update();
}

void StationRail::setWorst(int station, State state) {
    if (worst_.value(station) == state) return;
    worst_[station] = state;
    update();
}

qreal StationRail::place(int station) const {
    // Few stations stand close together rather than far apart.
    const qreal each = std::min<qreal>(150, static_cast<qreal>(width()) /
                                                static_cast<qreal>(std::max<qsizetype>(1, names_.size())));
    return width() / 2.0 + (station - (static_cast<qreal>(names_.size()) - 1) / 2) * each;
}

void StationRail::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const int n = static_cast<int>(names_.size());
    if (n == 0) return;
    p.setPen(QPen(t.line.darker(isNight() ? 80 : 115), 2));
    const qreal left = place(0) - 60, right = place(n - 1) + 60;
    p.drawLine(QPointF(left, 25), QPointF(right, 25));
    p.drawLine(QPointF(left, 30), QPointF(right, 30));
    for (int i = 0; i < n; ++i) {
        const qreal x = place(i);
        p.setPen(QPen(t.third, 2));
        p.drawLine(QPointF(x, 21), QPointF(x, 34));
        if (worst_[i] != State::Unknown) {
            p.setPen(Qt::NoPen);
            p.setBrush(stateColour(worst_[i]));
            // Over is a square, at risk a triangle, tight a lozenge, fine a dot: shape repeats the colour.
            const QPointF c(x, i == current_ ? 7 : 15);
            if (worst_[i] == State::Over)
                p.drawRect(QRectF(c.x() - 4, c.y() - 4, 8, 8));
            else if (worst_[i] == State::AtRisk)
                p.drawPolygon(QPolygonF{c + QPointF(-5.5, 4), c + QPointF(0, -5), c + QPointF(5.5, 4)});
            else if (worst_[i] == State::Tight)
                p.drawPolygon(QPolygonF{c + QPointF(-6, 0), c + QPointF(0, -4.5), c + QPointF(6, 0),
                                        c + QPointF(0, 4.5)});
            else
                p.drawEllipse(c, 4, 4);
        }
        if (i == current_) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.lake);
            p.drawRoundedRect(QRectF(x - 22, 13, 44, 13), 2, 2);
            p.drawEllipse(QPointF(x - 12, 28), 3.5, 3.5);
            p.drawEllipse(QPointF(x + 12, 28), 3.5, 3.5);
        }
        p.setFont(textFont(12, i == current_));
        p.setPen(i == current_ ? t.ink : t.second);
        const QRectF label(x - 60, 38, 120, 20);
        p.drawText(label, Qt::AlignCenter, names_[i]);
        if (i == current_ && hasFocus()) {
            const qreal half = p.fontMetrics().horizontalAdvance(names_[i]) / 2.0;
            p.setPen(QPen(t.lake, 1.5));
            p.drawLine(QPointF(x - half, 58), QPointF(x + half, 58));
        }
    }
}

void StationRail::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(names_.size()); ++i)
        if (std::abs(event->position().x() - place(i)) < 60) {
            emit chosen(i);
            return;
        }
}

void StationRail::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    emit chosen(std::clamp(current_ + step, 0, static_cast<int>(names_.size()) - 1));
}

} // namespace gantry::app
