// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/field_group.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {
namespace {
constexpr int margin = 12, gap = 10, fieldWidth = 134, header = 26;
}

FieldGroup::FieldGroup(const Context& context, QWidget* parent) : QFrame(parent), context_(context) {}

void FieldGroup::setTitle(const QString& title, const QString& subtitle) {
    if (title == title_ && subtitle == subtitle_) return;
    title_ = title;
    subtitle_ = subtitle;
    update(0, 0, width(), header);
}

void FieldGroup::setFields(const QList<FieldSlot>& fields) {
    while (editors_.size() < fields.size()) {
        auto* editor = new FieldEditor(context_, this);
        connect(editor, &FieldEditor::message, this, &FieldGroup::message);
        editors_.push_back(editor);
    }
    std::vector<bool> starts, fills;
    for (const FieldSlot& f : fields) {
        starts.push_back(f.startsRow);
        fills.push_back(f.fillsRow);
    }
    const bool shape = starts != starts_ || fills != fills_;
    starts_ = std::move(starts);
    fills_ = std::move(fills);
    used_ = fields.size();
    for (qsizetype i = 0; i < editors_.size(); ++i) {
        if (i < used_) {
            editors_[i]->setView(fields[i].view);
            editors_[i]->setPath(fields[i].path, fields[i].caption);
            editors_[i]->refresh();
        } else
            editors_[i]->setPath({});
        editors_[i]->setVisible(i < used_);
    }
    if (shape) place();
}

void FieldGroup::refresh() {
    for (qsizetype i = 0; i < used_; ++i) editors_[i]->refresh();
}

int FieldGroup::columnsAt(int width) const {
    const int fit = std::max(1, (width - rowRoom_ - 2 * margin + gap) / (fieldWidth + gap));
    return fixedColumns_ > 0 ? std::min(fit, fixedColumns_) : fit;
}

int FieldGroup::rowTop(int row) {
    return header + row * (FieldEditor::height_ + 4) + FieldEditor::captionHeight;
}

int FieldGroup::heightFor(int width) const {
    const int columns = columnsAt(width);
    const int rows = used_ == 0 ? 0 : cells(columns).back() / columns + 1;
    return header + rows * (FieldEditor::height_ + 4) + 6;
}

std::vector<int> FieldGroup::cells(int columns) const {
    std::vector<int> out;
    int cell = 0;
    for (std::size_t i = 0; i < starts_.size(); ++i) {
        if (starts_[i] && cell % columns != 0) cell += columns - cell % columns;
        out.push_back(cell);
        cell += fills_[i] ? columns - cell % columns : 1;
    }
    return out;
}

void FieldGroup::place() {
    const int columns = columnsAt(width());
    const int room = width() - rowRoom_ - 2 * margin;
    const int each = (room + gap) / columns - gap;
    const std::vector<int> at = cells(columns);
    for (int i = 0; i < static_cast<int>(used_); ++i) {
        const int cell = at[static_cast<std::size_t>(i)];
        const int cellsWide = fills_[static_cast<std::size_t>(i)] ? columns - cell % columns : 1;
        editors_[i]->setGeometry(margin + cell % columns * (each + gap),
                                 header + cell / columns * (FieldEditor::height_ + 4),
                                 cellsWide * (each + gap) - gap, FieldEditor::height_);
    }
}

void FieldGroup::resizeEvent(QResizeEvent*) {
    place();
}

void FieldGroup::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    p.setFont(textFont(12, true));
    p.setPen(tokens().ink);
    p.drawText(QRect(margin, 5, width() - 2 * margin, 20), Qt::AlignVCenter, title_);
    const int used = p.fontMetrics().horizontalAdvance(title_) + 10;
    p.setFont(textFont(11));
    p.setPen(tokens().second);
    const int room = (headerRoom_ > 0 ? headerRoom_ : width() - 2 * margin) - used;
    p.drawText(QRect(margin + used, 5, room, 20), Qt::AlignVCenter,
               wholeParts(p.fontMetrics(), subtitle_, room));
}

} // namespace gantry::app
