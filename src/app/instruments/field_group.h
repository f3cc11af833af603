// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_editor.h"

#include <QFrame>
#include <QList>

class QLabel;

namespace gantry::app {

/// One field to show: its path and, where wanted, another caption or a second view of the value.
struct FieldSlot {
    QString path;
    QString caption;
    double view = 1.0;
    bool startsRow = false; ///< the first field of a thing of which there are several
    bool fillsRow = false;  ///< a long text: takes what is left of its row
};

/// A card with a title above and editors flowing below it, in rows of fixed columns.
class FieldGroup : public QFrame {
    Q_OBJECT
public:
    FieldGroup(const Context& context, QWidget* parent = nullptr);

    void setTitle(const QString& title, const QString& subtitle = {});
    /// Shows these fields; editors are reused, so that changing the part costs little.
    void setFields(const QList<FieldSlot>& fields);
    void refresh();
    /// Width of the head line that the title may use; 0: all of it.
    void setHeaderRoom(int width) {
        if (width == headerRoom_) return;
        headerRoom_ = width;
        update();
    }
    /// Fields in a row, where rows belong together; 0: as many as fit.
    void setColumns(int columns) { fixedColumns_ = columns; }
    /// Keeps room [px] free at the right end of each row, for buttons about what stands in it.
    void setRowRoom(int room) { rowRoom_ = room; }
    /// Top of the value lines of a row, counted from 0.
    static int rowTop(int row);
    /// Height that the fields need at a width.
    int heightFor(int width) const;

signals:
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    int columnsAt(int width) const;
    /// Where a field stands, counted in cells along the rows.
    std::vector<int> cells(int columns) const;
    void place();

    Context context_;
    QString title_, subtitle_;
    QList<FieldEditor*> editors_;
    std::vector<bool> starts_, fills_; ///< of those in use
    qsizetype used_ = 0;
    int headerRoom_ = 0, fixedColumns_ = 0, rowRoom_ = 0;
};

} // namespace gantry::app
