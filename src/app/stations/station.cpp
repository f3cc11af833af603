// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/station.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QComboBox>
#include <QPainter>
#include <algorithm>

namespace gantry::app {

void Station::updateHead(int bottom, const QString& texts) {
    const Axis* axis = context_.axis();
    const QString now = (axis != nullptr ? QString::fromStdString(axis->name) : QString()) + '\n' + texts;
    if (now == headTexts_) return;
    // Only the line below the buttons has changed, unless another axis' name stands beside them.
    const bool named = now.section('\n', 0, 0) != headTexts_.section('\n', 0, 0);
    const int from = named ? 0 : headTop + headRow;
    headTexts_ = now;
    setAccessibleDescription(texts);
    update(0, from, width(), bottom - from);
}

void Station::showChoices(QComboBox& box, const QStringList& names, int current) {
    const QSignalBlocker block(&box);
    QStringList now;
    for (int i = 0; i < box.count(); ++i) now << box.itemText(i);
    if (now != names) {
        box.clear();
        box.addItems(names);
    }
    box.setCurrentIndex(std::clamp(current, 0, std::max(0, box.count() - 1)));
}

qsizetype Station::letterAt(QPoint at, const QRect& card, int lineHeight, const QString& lead,
                            const QString& text) {
    const int left = card.left() + 12 + QFontMetrics(textFont(12, true)).horizontalAdvance(lead) + 8;
    const QFontMetrics metrics(textFont(12));
    if (at.y() < card.top() || at.y() >= card.top() + lineHeight || at.x() < left) return -1;
    for (qsizetype i = 0; i < text.size(); ++i)
        if (left + metrics.horizontalAdvance(text.left(i + 1)) > at.x()) return i;
    return -1;
}

void Station::paintEvent(QPaintEvent*) {
    QPainter(this).fillRect(rect(), tokens().paper);
}

void Station::paintHead(QPainter& p, const QRect& card, int lineHeight, const QString& lead,
                        const QString& text, const QString& title) const {
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const Axis* axis = context_.axis();
    p.setFont(textFont(14, true));
    p.setPen(t.ink);
    p.drawText(QRect(card.left(), headTop, 86, headRow), Qt::AlignVCenter,
               fitted(p.fontMetrics(),
                      !title.isEmpty()  ? title
                      : axis != nullptr ? QString::fromStdString(axis->name)
                                        : name(),
                      84));
    paintCard(p, card);
    const QRect line(card.left() + 12, card.top(), card.width() - 20, lineHeight);
    p.setFont(textFont(12, true));
    p.drawText(line, Qt::AlignVCenter, lead);
    const int used = p.fontMetrics().horizontalAdvance(lead) + 8;
    p.setFont(textFont(12));
    p.setPen(t.second);
    // Whole parts or none: what does not fit stands in the tooltip.
    p.drawText(line.adjusted(used, 0, 0, 0), Qt::AlignVCenter,
               wholeParts(p.fontMetrics(), text, line.width() - used));
}

} // namespace gantry::app
