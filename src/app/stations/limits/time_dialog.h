// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

class QLabel;
class QLineEdit;

namespace gantry::app {

/// How long does a distance take under what is set, and is a given time possible, and how gently?
class TimeDialog : public ToolWindow {
    Q_OBJECT
public:
    TimeDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void compute();

    QLineEdit *distance_, *time_;
    QLabel* result_;
    std::string axis_; ///< of which the distance was proposed
};

} // namespace gantry::app
