// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

#include <functional>

class QLabel;
class QLineEdit;
class QPushButton;

namespace gantry::app {

/// One number wanted, one setting solved: the electronic gear of a servo for wanted steps per unit, or the
/// angle of a pan bar for a wanted turn over the travel.
class SolveDialog : public ToolWindow {
    Q_OBJECT
public:
    enum What { Gear, PanBar };
    SolveDialog(const Context& context, What what, QWidget* parent);

private:
    void follow() override { solve(); }
    void solve();
    void solveGear(Axis& axis);
    void solvePanBar(Axis& axis);

    What what_;
    QLineEdit* wanted_;
    QLabel* result_;
    QPushButton* take_;
    std::function<void(Axis&)> change_; ///< applies the solution
};

/// Each of them by itself.
class GearDialog : public SolveDialog {
    Q_OBJECT
public:
    GearDialog(const Context& context, QWidget* parent) : SolveDialog(context, Gear, parent) {}
};
class PanBarDialog : public SolveDialog {
    Q_OBJECT
public:
    PanBarDialog(const Context& context, QWidget* parent) : SolveDialog(context, PanBar, parent) {}
};

} // namespace gantry::app
