// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>
#include <functional>

class QLabel;
class QLineEdit;
class QPushButton;

namespace gantry::app {

/// One number wanted, one setting solved: the electronic gear of a servo for wanted steps per unit, or the
/// angle of a pan bar for a wanted turn over the travel.
class SolveDialog : public QDialog {
    Q_OBJECT
public:
    enum What { Gear, PanBar };
    SolveDialog(const Context& context, What what, QWidget* parent);

private:
    void solve();
    void solveGear(Axis& axis);
    void solvePanBar(Axis& axis);

    Context context_;
    What what_;
    QLineEdit* wanted_;
    QLabel* result_;
    QPushButton* take_;
    std::function<void(Axis&)> change_; ///< applies the solution
};

} // namespace gantry::app
