// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_dialog.h"
#include "app/shell/context.h"

class QComboBox;
class QLineEdit;

namespace gantry::app {

/// Tests that were made, with the state of the rig then, and which of them something has changed since.
class TestsDialog : public TableDialog {
    Q_OBJECT
public:
    explicit TestsDialog(const Context& context, QWidget* parent = nullptr);

private:
    void fill();
    void note();
    void remove();

    Context context_;
    QComboBox* what_;
    QLineEdit *value_, *remark_;
};

} // namespace gantry::app
