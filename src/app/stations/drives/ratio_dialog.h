// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"
#include "core/ratiofinder/finder.h"

#include <QThreadPool>
#include <memory>
#include <stop_token>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace gantry::app {

class TrainView;

/// The ratio finder: what is wanted, from which wheels, within which limits; a short list of trains, the
/// chosen one drawn.
class RatioDialog : public ToolWindow {
    Q_OBJECT
public:
    RatioDialog(const Context& context, QWidget* parent);
    ~RatioDialog() override;

private:
    enum Wanted { Ratio, OutputSpeed, Span, WholeSteps, ChangeGears };
    void follow() override;
    void refreshWanted();
    /// The wanted ratios; empty with a sentence in `status_` if the entry cannot be read.
    std::vector<drivetrain::Ratio> targets();
    void search();
    void showTrains();
    void showChoice();
    void use();
    double linksRatio() const; ///< of the gear pairs and belt stages that a train would replace
    QString trainText(const std::vector<ratiofinder::Stage>& stages) const;

    QComboBox *wanted_, *source_, *sense_;
    QLineEdit *first_, *second_, *largest_, *efficiency_, *backlash_;
    QLabel *firstLabel_, *secondLabel_, *status_;
    QSpinBox* stages_;
    QTableWidget* table_;
    TrainView* view_;
    QPushButton *use_, *search_, *stopButton_;
    QThreadPool pool_;
    std::stop_source stop_;
    int searchNumber_ = 0;
    std::shared_ptr<const ratiofinder::Bin> bin_;
    std::vector<ratiofinder::Train> trains_;
    std::vector<ratiofinder::ChangeGears> changes_;
};

} // namespace gantry::app
