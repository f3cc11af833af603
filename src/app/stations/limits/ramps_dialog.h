// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_pane.h"
#include "app/shell/context.h"

namespace gantry::app {

class RampSketch;

/// The shapes of ramps side by side for the shot in hand: time, leaning, what is left at the stop.
class RampsDialog : public TableWindow {
    Q_OBJECT
public:
    RampsDialog(const Context& context, QWidget* parent);

private:
    void follow() override;

    RampSketch* sketch_;
};

} // namespace gantry::app
