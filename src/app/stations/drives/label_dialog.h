// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/model/motor_parts.h"

#include <QDialog>

class QLabel;
class QLineEdit;

namespace gantry::app {

/// I only know the label: a stepper from its size and what stands on it.
class LabelDialog : public QDialog {
    Q_OBJECT
public:
    LabelDialog(const Context& context, QWidget* parent);

private:
    void compute();
    void use();

    Context context_;
    QList<QLineEdit*> edits_;
    QLabel* result_;
    QWidget* use_;
    Stepper stepper_;
};

} // namespace gantry::app
