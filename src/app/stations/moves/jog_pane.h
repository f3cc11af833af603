// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/moves/move_desk.h"

#include <QWidget>
#include <vector>

class QLabel;
class QLineEdit;
class QPushButton;
class QScrollArea;
class QSlider;

namespace gantry::app {

/// Where the rig stands, axis by axis: a slider over its travel, which keys step, and a field that takes a
/// place. Below them the lens is carried by all axes together. What is set here is not the project's until it
/// is stored as a pose.
class JogPane : public QWidget {
    Q_OBJECT
public:
    JogPane(const Context& context, MoveDesk& desk, QWidget* parent = nullptr);
    void refresh();

signals:
    void message(const QString& sentence, bool refused);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    struct Row {
        QLabel* name;
        QSlider* slider;
        QLineEdit* place;
    };
    void make(std::size_t count);
    void lay();
    void typed(std::size_t row);
    void makeLens();

    Context context_;
    MoveDesk& desk_;
    QScrollArea* area_;
    QWidget* inside_;
    std::vector<Row> rows_;
    QLabel* lens_;
    std::vector<QPushButton*> ways_; ///< in which the lens is carried: three, and the ways back
    bool showing_ = false;
};

} // namespace gantry::app
