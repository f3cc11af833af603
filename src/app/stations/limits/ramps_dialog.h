// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_dialog.h"
#include "app/shell/context.h"

namespace gantry::app {

/// The shapes of ramps side by side for the shot in hand: time, leaning, what is left at the stop.
class RampsDialog : public TableDialog {
    Q_OBJECT
public:
    explicit RampsDialog(const Context& context, QWidget* parent = nullptr);
};

} // namespace gantry::app
