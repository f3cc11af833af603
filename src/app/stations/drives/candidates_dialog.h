// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

class QLabel;
class QPushButton;
class QTableWidget;

namespace gantry::app {

class CurveOverlay;

/// Side by side: the drives A, B, C … of one axis as columns of figures and verdicts, their torque curves
/// overlaid. A letter key puts one into use.
class CandidatesDialog : public QDialog {
    Q_OBJECT
public:
    CandidatesDialog(const Context& context, QWidget* parent);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void refresh();
    std::string chosen() const;
    void change(const QString& name, const std::function<void(Project&, int)>& how);

    Context context_;
    std::vector<std::string> letters_;
    QTableWidget* table_;
    CurveOverlay* curves_;
    QLabel* status_;
    QPushButton *add_, *use_, *fitted_, *drop_;
};

} // namespace gantry::app
