// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"

#include <QStringList>

class QPushButton;

namespace gantry::app {

/// A list of parts, a row of fields each, with its sum in the title, a button to add one, and at the end of
/// each row buttons that move or remove just this one.
class ListCard : public QWidget {
    Q_OBJECT
public:
    ListCard(const Context& context, const QString& name, QWidget* parent = nullptr);
    FieldGroup* fields() { return fields_; }
    int heightFor(int width) const;
    /// How many lines of fields an element takes; its buttons stand in the first.
    void setLinesEach(int lines) { linesEach_ = lines; }
    /// What stands in the rows, by name. `can`: it may be changed.
    void setRows(const QStringList& names, bool can);

signals:
    void addWanted();
    void removeWanted(int row);
    /// The row is to change places with the one `step` below it; −1: above.
    void moveWanted(int row, int step);
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void place();

    FieldGroup* fields_;
    QPushButton* add_;
    struct RowButtons {
        QPushButton *up, *down, *remove;
    };
    QList<RowButtons> buttons_;
    qsizetype rows_ = 0;
    int linesEach_ = 1;
};

/// Has a list of the project edited by its card. `list` finds it in a project, or gives null; `make` gives a
/// new element with an id of its own.
template <class List, class Make>
void connectList(ListCard* card, Document& document, List list, Make make, const QString& what) {
    QObject::connect(card, &ListCard::addWanted, card, [&document, list, make, what] {
        document.change(ListCard::tr("Add to %1").arg(what), [&](Project& p) {
            if (auto* all = list(p)) all->push_back(make(p));
        });
    });
    QObject::connect(card, &ListCard::removeWanted, card, [&document, list, what](int row) {
        document.change(ListCard::tr("Remove from %1").arg(what), [&](Project& p) {
            if (auto* all = list(p); all != nullptr && row < static_cast<int>(all->size()))
                all->erase(all->begin() + row);
        });
    });
    QObject::connect(card, &ListCard::moveWanted, card, [&document, list, what](int row, int step) {
        document.change(ListCard::tr("Move in %1").arg(what), [&](Project& p) {
            auto* all = list(p);
            if (all == nullptr || row + step < 0 || row + step >= static_cast<int>(all->size())) return;
            std::swap((*all)[static_cast<std::size_t>(row)], (*all)[static_cast<std::size_t>(row + step)]);
        });
    });
}

} // namespace gantry::app
