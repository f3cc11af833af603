// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/fold.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QPainter>

namespace gantry::app {

Fold::Fold(const QString& name, const QString& title, QWidget* parent) : QPushButton(parent), title_(title) {
    setObjectName(QStringLiteral("fold_") + name);
    setCheckable(true);
    setCursor(Qt::PointingHandCursor);
    setText(title); // read by those who look for words, painted by itself
    connect(this, &QPushButton::toggled, this, &Fold::describe);
    describe();
}

void Fold::setTitle(const QString& title) {
    if (title == title_) return;
    title_ = title;
    setText(title);
    describe();
}

void Fold::setSummary(const QString& summary) {
    if (summary == summary_) return;
    summary_ = summary;
    describe();
}

void Fold::describe() {
    setAccessibleName(isOpen() ? tr("Hide %1").arg(title_) : tr("Show %1").arg(title_));
    setAccessibleDescription(summary_);
    setToolTip(isOpen() ? accessibleName() : summary_);
    update();
}

void Fold::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    if (isOpen()) {
        p.setFont(textFont(11));
        p.setPen(t.lake);
        p.drawText(rect().adjusted(0, 0, -6, 0), Qt::AlignRight | Qt::AlignVCenter, tr("Hide"));
    } else {
        paintCard(p, rect());
        const int middle = height() / 2;
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(Qt::NoPen);
        p.setBrush(t.lake);
        p.drawPolygon(QPolygonF{QPointF(12, middle - 4), QPointF(18, middle), QPointF(12, middle + 4)});
        p.setFont(textFont(12, true));
        p.setPen(t.ink);
        const QRect line = rect().adjusted(26, 0, -12, 0);
        p.drawText(line, Qt::AlignVCenter, title_);
        const int used = p.fontMetrics().horizontalAdvance(title_) + 10;
        p.setFont(textFont(11));
        p.setPen(t.second);
        p.drawText(line.adjusted(used, 0, 0, 0), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), summary_, line.width() - used));
    }
    if (hasFocus()) {
        p.setRenderHint(QPainter::Antialiasing, false);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.lake, 1, Qt::DotLine));
        p.drawRect(rect().adjusted(2, 2, -3, -3));
    }
}

} // namespace gantry::app
