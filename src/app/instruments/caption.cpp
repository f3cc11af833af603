// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/caption.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QPainter>

namespace gantry::app {

Caption::Caption(bool card, QWidget* parent) : QWidget(parent), card_(card) {}

void Caption::setText(const QString& lead, const QString& rest) {
    if (lead == lead_ && rest == rest_) return;
    lead_ = lead;
    rest_ = rest;
    setAccessibleName(text());
    update();
}

void Caption::paintEvent(QPaintEvent*) {
    QPainter p(this);
    if (card_) paintCard(p, rect());
    const int left = card_ ? 12 : 0;
    p.setFont(textFont(card_ ? 12 : 14, true));
    p.setPen(tokens().ink);
    p.drawText(rect().adjusted(left, 0, 0, 0), Qt::AlignVCenter, lead_);
    const int used = left + (lead_.isEmpty() ? 0 : p.fontMetrics().horizontalAdvance(lead_) + 8);
    p.setFont(textFont(12));
    p.setPen(tokens().second);
    p.drawText(rect().adjusted(used, 0, -8, 0), Qt::AlignVCenter,
               fitted(p.fontMetrics(), rest_, width() - used - 8));
}

} // namespace gantry::app
