// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/train_view.h"

#include "app/instruments/toothed_wheel.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {

TrainView::TrainView(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("trainView"));
    setMinimumHeight(120);
}

void TrainView::setStages(std::vector<Stage> stages, const QString& words) {
    stages_ = std::move(stages);
    setAccessibleName(words);
    update();
}

void TrainView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    if (stages_.empty()) {
        p.setPen(t.second);
        p.drawText(rect(), Qt::AlignCenter, tr("Choose a train to see it drawn"));
        return;
    }
    // Belts stand a fifth of their pulleys apart; wheels of one shaft are drawn over each other.
    double length = stages_.front().driverSize / 2, tallest = 0.0;
    for (const Stage& s : stages_) {
        length += (s.driverSize + s.drivenSize) / 2 * (s.gears ? 1.0 : 1.2);
        tallest = std::max({tallest, s.driverSize, s.drivenSize});
    }
    length += stages_.back().drivenSize / 2;
    const double scale = std::min((width() - 24) / length, (height() - 34) / tallest);
    QPointF shaft(12 + stages_.front().driverSize / 2 * scale, (height() - 18) / 2.0);
    p.setFont(textFont(10));
    for (const Stage& s : stages_) {
        const double between = (s.driverSize + s.drivenSize) / 2 * (s.gears ? 1.0 : 1.2) * scale;
        const QPointF next = shaft + QPointF(between, 0);
        const double r1 = std::max(2.0, s.driverSize / 2 * scale),
                     r2 = std::max(2.0, s.drivenSize / 2 * scale);
        p.setBrush(t.paper);
        p.setPen(QPen(t.ink, 1.1));
        p.drawPath(toothedWheel(next, r2, s.driven));
        p.setBrush(t.lakeWash);
        p.drawPath(toothedWheel(shaft, r1, s.driver));
        if (!s.gears) {
            QPen dashed(t.ink, 1.4);
            dashed.setDashPattern({1.5, 1});
            p.setPen(dashed);
            p.drawLine(shaft - QPointF(0, r1), next - QPointF(0, r2));
            p.drawLine(shaft + QPointF(0, r1), next + QPointF(0, r2));
        }
        p.setPen(t.second);
        p.drawText(QRectF((shaft.x() + next.x()) / 2 - 45, height() - 17, 90, 14), Qt::AlignCenter,
                   QStringLiteral("%1 : %2").arg(s.driver).arg(s.driven));
        shaft = next;
    }
}

} // namespace gantry::app
