// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace gantry::app {

class CurveOverlay;

/// Side by side: the drives A, B, C … of one axis as columns of figures and verdicts, their torque curves
/// overlaid. A letter key puts one into use.
class CandidatesDialog : public ToolWindow {
    Q_OBJECT
public:
    CandidatesDialog(const Context& context, QWidget* parent);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void follow() override { refresh(); }
    void refresh();
    std::string chosen() const;
    void change(const QString& name, const std::function<void(Project&, int)>& how);

    std::vector<std::string> letters_;
    QTableWidget* table_;
    CurveOverlay* curves_;
    QLabel* status_;
    QPushButton *add_, *use_, *fitted_, *drop_;
};

} // namespace gantry::app
