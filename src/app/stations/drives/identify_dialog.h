// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"
#include "core/parts/identify.h"

#include <QMap>

class QLabel;
class QLineEdit;
class QPushButton;
class QRadioButton;
class QStackedWidget;

namespace gantry::app {

/// A motor without a label, step by step: what comes out of it, what turns, what it measures, how it warms,
/// what it pulls. Steps may be left empty; what they would have told is then estimated. Back keeps all
/// readings.
class IdentifyDialog : public ToolWindow {
    Q_OBJECT
public:
    IdentifyDialog(const Context& context, QWidget* parent);

private:
    QWidget* makeChoice();
    QWidget* makeStep(int step);
    QWidget* makeResult();
    void follow() override { go(0); }
    void go(int by);
    /// Reads every field of the way in hand; the first one that cannot be read is named and nothing is used.
    bool read();
    void compute();
    void adviseWarmTest();
    parts::WarmTest warmTest() const;
    std::vector<int> steps() const;
    void use();

    QStackedWidget* pages_;
    QRadioButton *stepper_, *dc_;
    QLabel *where_, *trouble_, *result_;
    QList<QLabel*> advice_;
    QPushButton *back_, *next_, *use_;
    QMap<QString, QLineEdit*> edits_;
    QMap<QString, double> values_;
    int at_ = 0; ///< place in the way in hand; 0 is the choice
    std::optional<parts::IdentifiedStepper> foundStepper_;
    std::optional<GearedDc> foundDc_;
};

} // namespace gantry::app
