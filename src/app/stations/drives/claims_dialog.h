// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

class QLabel;
class QPlainTextEdit;
class QTableWidget;

namespace gantry::app {

/// Check what I was told: settings or claims, pasted or typed, against the parts; suspects with the test move
/// that tells them apart. The lines are kept with the axis.
class ClaimsDialog : public QDialog {
    Q_OBJECT
public:
    ClaimsDialog(const Context& context, QWidget* parent);

private:
    void check();
    void keep();
    void showSuspects(const Axis& axis, const AxisEvaluation& evaluation, double told);
    std::vector<std::string> lines() const;

    Context context_;
    QPlainTextEdit* text_;
    QTableWidget *findings_, *suspects_;
    QLabel *suspectsTitle_, *fineness_;
};

} // namespace gantry::app
