// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QStringList>
#include <QWidget>

class QPushButton;

namespace gantry::app {

/// One line above every station: how well the axis is known, what decides, and what to do next, which is
/// done by pressing it.
class PathLine : public QWidget {
    Q_OBJECT
public:
    explicit PathLine(QWidget* parent);

    /// `known` and `decides` may be empty; without `next` there is nothing to press.
    void show(const QString& known, const QString& decides, const QString& next);

signals:
    void pressed();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void place();

    QStringList parts_; ///< of the text, what counts most last
    QString text_;      ///< those that fit beside the next step
    QPushButton* next_;
};

} // namespace gantry::app
