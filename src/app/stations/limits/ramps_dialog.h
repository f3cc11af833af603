// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

namespace gantry::app {

/// The chosen shot with every shape of ramp: time, what it leaves rocking, and whether the controller can do
/// it.
class RampsDialog : public QDialog {
    Q_OBJECT
public:
    RampsDialog(const Context& context, QWidget* parent);
};

} // namespace gantry::app
