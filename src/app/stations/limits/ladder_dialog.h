// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/stall_ladder.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace gantry::app {

/// A stall ladder: tests from easy to hopeless, with boxes for what came of each. The outcome narrows what is
/// known of the motor's torque. Shown only when its precautions are ticked.
class LadderDialog : public QDialog {
    Q_OBJECT
public:
    LadderDialog(const Context& context, QWidget* parent);

private:
    void showPlan();
    void compute();
    void take();

    Context context_;
    std::vector<Rung> ladder_;
    QList<QCheckBox*> precautions_;
    QList<QComboBox*> outcomes_;
    QTableWidget* table_;
    QLabel* result_;
    QPushButton* take_;
};

} // namespace gantry::app
