// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_pane.h"
#include "app/shell/context.h"

class QComboBox;
class QLineEdit;

namespace gantry::app {

/// Tests that were made, with the state of the rig then, and which of them something has changed since.
class TestsDialog : public TableWindow {
    Q_OBJECT
public:
    explicit TestsDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void offer(); ///< what may be tested of the chosen axis
    void note();
    void remove();

    QComboBox* what_;
    QLineEdit *value_, *remark_;
    std::string axis_; ///< of which the tests are offered
};

} // namespace gantry::app
