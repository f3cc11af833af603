// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"
#include "core/model/motor_parts.h"

class QLabel;
class QLineEdit;

namespace gantry::app {

class MotorBandPlot;

/// I only know the label: a stepper from its size and what stands on it.
class LabelDialog : public ToolWindow {
    Q_OBJECT
public:
    LabelDialog(const Context& context, QWidget* parent);

private:
    void follow() override { compute(); }
    void compute();
    void use();

    QList<QLineEdit*> edits_;
    QLabel* result_;
    MotorBandPlot* plot_;
    QWidget* use_;
    Stepper stepper_;
};

} // namespace gantry::app
