// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/winch_dialog.h"

#include "app/instruments/winch_plot.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace gantry::app {

WinchDialog::WinchDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("winchDialog"), tr("Along the winch"), parent),
      plot_(new WinchPlot(context, this)), says_(new QLabel(this)) {
    resize(640, 480);
    says_->setWordWrap(true);
    says_->setObjectName(QStringLiteral("winchSays"));
    auto* close = new QPushButton(tr("Close"), this);
    close->setAutoDefault(false);
    auto* all = new QVBoxLayout(this);
    all->addWidget(plot_, 1);
    all->addWidget(says_);
    all->addWidget(close, 0, Qt::AlignRight);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void WinchDialog::follow() {
    const ShotEvaluation* shot = context_.shotEvaluation();
    std::vector<WinchPoint> curve;
    if (shot != nullptr && shot->motion.motorSpeed)
        curve = winchCurve(*context_.axis(), *context_.axisEvaluation(), shot->motion.motorSpeed.value());
    says_->clear();
    if (!curve.empty()) {
        const double change = curve.back().speed / curve.front().speed - 1.0;
        says_->setText(
            change > 0.0
                ? tr("At a steady motor the cart runs %1 faster on the last layer than on the first. Keep "
                     "the cord on one layer with a longer drum, or take the steps of the layer in use.")
                      .arg(context_.show(change, units::Kind::Percentage))
                : tr("The cord stays on one layer: the speed is even."));
    }
    plot_->applyTheme();
    plot_->show(std::move(curve));
}

} // namespace gantry::app
