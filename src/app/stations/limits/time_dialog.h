// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

class QLabel;
class QLineEdit;

namespace gantry::app {

/// How long does a distance take under what is set, and is a given time possible, and how gently?
class TimeDialog : public QDialog {
    Q_OBJECT
public:
    TimeDialog(const Context& context, QWidget* parent);

private:
    void compute();

    Context context_;
    QLineEdit *distance_, *time_;
    QLabel* result_;
};

} // namespace gantry::app
