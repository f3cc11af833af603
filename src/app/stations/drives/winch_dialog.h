// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

class QLabel;

namespace gantry::app {

class WinchPlot;

/// What a winch does along its travel at the motor speed of the chosen shot: a constant motor makes an
/// uneven cart, and steps per millimetre hold for one layer only.
class WinchDialog : public ToolWindow {
    Q_OBJECT
public:
    WinchDialog(const Context& context, QWidget* parent);

private:
    void follow() override;

    WinchPlot* plot_;
    QLabel* says_;
};

} // namespace gantry::app
