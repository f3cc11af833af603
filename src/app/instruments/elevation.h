// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

namespace gantry::app {

/// A small live side view of the rig: rails at their slope and length, what stands on them, each axis in its
/// colour.
class Elevation : public QWidget {
    Q_OBJECT
public:
    explicit Elevation(const Context& context, QWidget* parent = nullptr);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
};

} // namespace gantry::app
