// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

class QLabel;
class QPlainTextEdit;
class QTableWidget;

namespace gantry::app {

class ClaimBars;

/// Check what I was told: settings or claims, pasted or typed, against the parts; suspects with the test move
/// that tells them apart. The lines are kept with the axis.
class ClaimsDialog : public ToolWindow {
    Q_OBJECT
public:
    ClaimsDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void check();
    void fit();
    void keep();
    void showSuspects(const Axis& axis, const AxisEvaluation& evaluation, double told);
    QString chainInWords() const; ///< what steps per unit are made of
    std::vector<std::string> lines() const;

    QPlainTextEdit* text_;
    QTableWidget *findings_, *suspects_;
    ClaimBars* bars_;
    QLabel *chain_, *ask_, *suspectsTitle_, *fineness_;
};

} // namespace gantry::app
