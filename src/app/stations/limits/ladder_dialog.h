// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"
#include "core/tools/stall_ladder.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace gantry::app {

class EnvelopePlot;

/// A stall ladder: tests from easy to hopeless, with boxes for what came of each. The outcome narrows what is
/// known of the motor's torque. Shown only when its precautions are ticked.
class LadderDialog : public ToolWindow {
    Q_OBJECT
public:
    LadderDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void fillRungs();
    void showPlan();
    void compute();
    void take();

    std::vector<Rung> ladder_;
    QList<QCheckBox*> precautions_;
    QList<QComboBox*> outcomes_;
    QTableWidget* table_;
    EnvelopePlot* range_; ///< the operating range with the rungs
    QLabel* result_;
    QPushButton* take_;
};

} // namespace gantry::app
