// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/chain_view.h"

#include "app/instruments/part_art.h"
#include "app/instruments/part_words.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPaintEvent>
#include <QPainter>
#include <algorithm>

namespace gantry::app {
ChainView::ChainView(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("chainView"));
    setAccessibleName(tr("Drive chain from pulse to picture"));
}

void ChainView::setColumns(const std::vector<ChainColumn>& columns) {
    std::vector<Words> words;
    words.reserve(columns.size());
    for (const ChainColumn& c : columns) words.push_back({partName(context_, c), partDetail(context_, c)});
    const Axis* axis = context_.axis();
    const bool another = !drawn_ || axis == nullptr || columns.size() != columns_.size();
    if (another) update();
    // Art is dear to paint: only the tiles that differ.
    for (std::size_t i = 0; i < columns.size() && !another; ++i)
        if (words[i] != words_[i] || columns[i].part != columns_[i].part ||
            !sameArt(*drawn_, *axis, columns[i]))
            update(tile(static_cast<int>(i)).toAlignedRect());
    columns_ = columns;
    words_ = std::move(words);
    drawn_ = axis != nullptr ? std::optional(*axis) : std::nullopt;
}

void ChainView::setSelected(int column) {
    if (column != selected_) update();
    selected_ = column;
    if (column >= 0 && column < static_cast<int>(columns_.size())) {
        const Words& w = words_[static_cast<std::size_t>(column)];
        setAccessibleDescription(w.name + QStringLiteral(", ") + w.detail);
    }
}

QRectF ChainView::tile(int column) const {
    const double each = static_cast<double>(width() - labelWidth_) /
                        static_cast<double>(std::max<std::size_t>(1, columns_.size()));
    return {labelWidth_ + column * each + 3, 1, each - 6, height() - 2.0};
}

bool ChainView::chosen(int column) const {
    return dragged_ >= 0 && over_ >= 0 ? column == over_ : column == selected_;
}

void ChainView::paintEvent(QPaintEvent* event) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (context_.axis() == nullptr) return;
    const Tokens& t = tokens();
    p.setPen(t.third);
    p.setFont(textFont(10));
    p.drawText(QRectF(0, 8, labelWidth_ - 12, height() - 8),
               Qt::AlignBottom | Qt::AlignLeft | Qt::TextWordWrap,
               tr("A line under a number is as long as the number may lie off; full width is ±50 %."));
    for (int i = 0; i < static_cast<int>(columns_.size()); ++i) {
        const QRectF box = tile(i);
        if (!event->region().intersects(box.toAlignedRect())) continue;
        const ChainColumn& c = columns_[static_cast<std::size_t>(i)];
        p.setPen(QPen(chosen(i) ? t.lake : t.line, chosen(i) && hasFocus() ? 2 : 1));
        p.setBrush(chosen(i) ? t.lakeWash : t.sheet);
        p.drawRoundedRect(box, 4, 4);
        paintPart(p, box.adjusted(2, 4, -2, -38), *context_.axis(), c);
        p.setPen(t.ink);
        p.setFont(textFont(12, true));
        const auto& [name, detail] = words_[static_cast<std::size_t>(i)];
        if (p.fontMetrics().horizontalAdvance(name) > box.width() - 4) p.setFont(textFont(10, true));
        p.drawText(QRectF(box.left(), box.bottom() - 36, box.width(), 18), Qt::AlignCenter,
                   fitted(p.fontMetrics(), name, static_cast<int>(box.width()) - 4));
        p.setPen(t.second);
        p.setFont(textFont(10));
        p.drawText(QRectF(box.left() + 1, box.bottom() - 19, box.width() - 2, 16), Qt::AlignCenter,
                   fitted(p.fontMetrics(), detail, static_cast<int>(box.width()) - 2));
    }
}

int ChainView::columnAt(const QPointF& place) const {
    for (int i = 0; i < static_cast<int>(columns_.size()); ++i)
        if (tile(i).contains(place)) return i;
    return -1;
}

void ChainView::mousePressEvent(QMouseEvent* event) {
    const int column = columnAt(event->position());
    if (column < 0) return;
    emit selected(column);
    dragged_ = columns_[static_cast<std::size_t>(column)].part == ChainPart::Link ? column : -1;
    over_ = column;
}

void ChainView::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ < 0) return;
    const int column = columnAt(event->position());
    if (column >= 0 && columns_[static_cast<std::size_t>(column)].part == ChainPart::Link &&
        column != over_) {
        over_ = column;
        update();
    }
}

void ChainView::mouseReleaseEvent(QMouseEvent*) {
    const int step = dragged_ >= 0 ? over_ - dragged_ : 0;
    dragged_ = over_ = -1;
    update();
    if (step != 0) emit moveWanted(step);
}

void ChainView::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    if (event->modifiers() & Qt::ControlModifier) {
        emit moveWanted(step);
        return;
    }
    emit selected(std::clamp(selected_ + step, 0, static_cast<int>(columns_.size()) - 1));
}

} // namespace gantry::app
