// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

class QLabel;
class QLineEdit;

namespace gantry::app {

class MoveDesk;

/// By how much what is near shifts against the background in each segment of the move in hand, and what
/// travel gives a wanted shift.
class ParallaxDialog : public ToolWindow {
    Q_OBJECT
public:
    ParallaxDialog(const Context& context, const MoveDesk& desk, QWidget* parent);

private:
    void follow() override;
    void compute();
    /// A value typed into a field, more than nothing; says what is wrong with it and gives nothing.
    std::optional<double> read(const QLineEdit* edit, units::Kind kind);

    const MoveDesk& desk_;
    QLineEdit *near_, *far_, *wanted_;
    QLabel* result_;
};

} // namespace gantry::app
