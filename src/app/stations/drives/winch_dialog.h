// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

namespace gantry::app {

/// What a winch does along its travel at the motor speed of the chosen shot: a constant motor makes an
/// uneven cart, and steps per millimetre hold for one layer only.
class WinchDialog : public QDialog {
    Q_OBJECT
public:
    WinchDialog(const Context& context, QWidget* parent);
};

} // namespace gantry::app
