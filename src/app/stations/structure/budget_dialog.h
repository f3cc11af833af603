// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"
#include "core/tools/error_budget.h"

class QComboBox;

namespace gantry::app {

/// Bars for each cause under the four kinds of picture error, against what the shot allows.
class BudgetBars : public QWidget {
    Q_OBJECT
public:
    explicit BudgetBars(const Context& context, QWidget* parent);
    void show(ErrorBudget budget);
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    ErrorBudget budget_;
    QString words_;
};

/// The error budget of one shot: what to mend first.
class BudgetDialog : public ToolWindow {
    Q_OBJECT
public:
    explicit BudgetDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void refresh();

    QComboBox* shot_;
    BudgetBars* bars_;
};

} // namespace gantry::app
