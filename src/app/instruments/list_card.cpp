// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/list_card.h"

#include <QPushButton>

namespace gantry::app {
namespace {

constexpr int upWidth = 30, downWidth = 44, removeWidth = 56, rowRoom = upWidth + downWidth + removeWidth + 4;
/// At the right end of the head line stands the link of the fold that holds this card.
constexpr int foldRoom = 60, addWidth = 48;

} // namespace

ListCard::ListCard(const Context& context, const QString& name, QWidget* parent)
    : QWidget(parent), fields_(new FieldGroup(context, this)), add_(new QPushButton(tr("Add"), this)) {
    setObjectName(name);
    add_->setObjectName(name + QStringLiteral("Add"));
    add_->setProperty("role", "link");
    fields_->setRowRoom(rowRoom);
    connect(add_, &QPushButton::clicked, this, &ListCard::addWanted);
    connect(fields_, &FieldGroup::message, this, &ListCard::message);
}

int ListCard::heightFor(int width) const {
    return fields_->heightFor(width);
}

void ListCard::setRows(const QStringList& names, bool can) {
    rows_ = names.size();
    add_->setEnabled(can);
    add_->setAccessibleName(tr("Add to this list"));
    while (buttons_.size() < rows_) {
        const int row = static_cast<int>(buttons_.size());
        const auto make = [&](const QString& text, const QString& key) {
            auto* b = new QPushButton(text, this);
            b->setProperty("role", "link");
            b->setObjectName(objectName() + key + QString::number(row));
            return b;
        };
        const RowButtons b{make(tr("Up"), QStringLiteral("Up")), make(tr("Down"), QStringLiteral("Down")),
                           make(tr("Remove"), QStringLiteral("Remove"))};
        connect(b.up, &QPushButton::clicked, this, [this, row] { emit moveWanted(row, -1); });
        connect(b.down, &QPushButton::clicked, this, [this, row] { emit moveWanted(row, 1); });
        connect(b.remove, &QPushButton::clicked, this, [this, row] { emit removeWanted(row); });
        buttons_.push_back(b);
    }
    for (qsizetype i = 0; i < buttons_.size(); ++i) {
        const auto& [up, down, remove] = buttons_[i];
        for (QPushButton* b : {up, down, remove}) b->setVisible(i < rows_);
        if (i >= rows_) continue;
        up->setAccessibleName(tr("Move %1 up").arg(names[i]));
        down->setAccessibleName(tr("Move %1 down").arg(names[i]));
        remove->setAccessibleName(tr("Remove %1").arg(names[i]));
        up->setEnabled(can && i > 0);
        down->setEnabled(can && i + 1 < rows_);
        remove->setEnabled(can);
    }
    place();
}

void ListCard::place() {
    fields_->setGeometry(rect());
    fields_->setHeaderRoom(width() - foldRoom - addWidth - 16);
    add_->setGeometry(width() - addWidth - foldRoom, 3, addWidth, 22);
    add_->raise();
    for (qsizetype i = 0; i < rows_; ++i) {
        const auto& [up, down, remove] = buttons_[i];
        int x = width() - rowRoom - 4;
        const int y = FieldGroup::rowTop(static_cast<int>(i) * linesEach_) + 2;
        for (const auto& [button, wide] :
             {std::pair{up, upWidth}, std::pair{down, downWidth}, std::pair{remove, removeWidth}}) {
            button->setGeometry(x, y, wide, 22);
            button->raise();
            x += wide;
        }
    }
}

void ListCard::resizeEvent(QResizeEvent*) {
    place();
}

} // namespace gantry::app
