// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/claim_bars.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {
constexpr int row = 20, head = 44, nameWidth = 210;
constexpr double widest = 10.0; // times too much or too little; beyond it a bar ends in an arrow
} // namespace

ClaimBars::ClaimBars(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("claimBars"));
    setAccessibleName(tr("Told against what the parts give"));
}

void ClaimBars::show(QList<Bar> bars) {
    bars_ = std::move(bars);
    QStringList words;
    for (const Bar& b : bars_)
        words << tr("%1: %2 of what is there").arg(b.told, QString::number(b.over, 'g', 3));
    setAccessibleDescription(words.join(QStringLiteral(". ")));
    setVisible(!bars_.isEmpty());
    setFixedHeight(head + row * static_cast<int>(bars_.size()) + 8);
    update();
}

void ClaimBars::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("Told against what the parts give"), 2);
    const QRect area(nameWidth, head, width() - nameWidth - 70, row * static_cast<int>(bars_.size()));
    const double middle = area.center().x(), half = area.width() / 2.0;
    const auto place = [&](double over) {
        return middle + half * std::clamp(std::log(over) / std::log(widest), -1.0, 1.0);
    };
    p.setFont(textFont(10));
    for (const double mark : {0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0}) {
        const double x = place(mark);
        p.setPen(mark == 1.0 ? t.second : t.faintLine);
        p.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
        p.setPen(t.second);
        p.drawText(QRectF(x - 30, head - 18, 60, 16), Qt::AlignCenter,
                   mark == 1.0 ? tr("agrees") : QStringLiteral("×%1").arg(QString::number(mark, 'g', 2)));
    }
    for (int i = 0; i < static_cast<int>(bars_.size()); ++i) {
        const Bar& b = bars_[i];
        const int y = area.top() + i * row;
        p.setFont(textFont(11));
        p.setPen(t.ink);
        p.drawText(QRect(12, y, nameWidth - 20, row), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), b.told, nameWidth - 20));
        const double x = place(b.over);
        const QColor colour = b.plausible ? t.lake : t.brick;
        p.fillRect(QRectF(std::min(x, middle), y + 6, std::max(2.0, std::abs(x - middle)), row - 12), colour);
        p.setPen(colour);
        p.drawText(QRect(area.right() + 8, y, 62, row), Qt::AlignVCenter,
                   QStringLiteral("×%1").arg(QString::number(b.over, 'g', 3)));
    }
}

} // namespace gantry::app
