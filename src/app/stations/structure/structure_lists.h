// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

namespace gantry::app {

class ListCard;

/// What a structure has several of, edited in place: rooms to keep out of, discs on hand, bodies that stick
/// out of an axis or the column, loads on a rail. One card a list, those that belong to the page in sight.
class StructureLists : public QWidget {
    Q_OBJECT
public:
    explicit StructureLists(const Context& context, QWidget* parent = nullptr);
    enum List { Rooms = 1, Discs = 2, AxisBodies = 4, ColumnBodies = 8, Loads = 16 };
    /// @param which those that are shown, or-ed
    void refresh(int which);
    int heightFor(int width) const;

signals:
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    Context context_;
    ListCard *rooms_, *discs_, *axisBodies_, *columnBodies_, *loads_;
    QList<ListCard*> shown_;
};

} // namespace gantry::app
