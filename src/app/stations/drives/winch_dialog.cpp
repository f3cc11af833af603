// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/winch_dialog.h"

#include "app/instruments/winch_plot.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace gantry::app {

WinchDialog::WinchDialog(const Context& context, QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("winchDialog"));
    setWindowTitle(tr("Along the winch"));
    resize(640, 480);
    auto* plot = new WinchPlot(context, this);
    auto* says = new QLabel(this);
    says->setWordWrap(true);
    says->setObjectName(QStringLiteral("winchSays"));
    const ShotEvaluation* shot = context.shotEvaluation();
    std::vector<WinchPoint> curve;
    if (shot != nullptr && shot->motion.motorSpeed)
        curve = winchCurve(*context.axis(), *context.axisEvaluation(), shot->motion.motorSpeed.value());
    if (!curve.empty()) {
        const double change = curve.back().speed / curve.front().speed - 1.0;
        says->setText(
            change > 0.0
                ? tr("At a steady motor the cart runs %1 faster on the last layer than on the first. Keep "
                     "the cord on one layer with a longer drum, or take the steps of the layer in use.")
                      .arg(context.show(change, units::Kind::Percentage))
                : tr("The cord stays on one layer: the speed is even."));
    }
    plot->show(std::move(curve));
    auto* close = new QPushButton(tr("Close"), this);
    close->setAutoDefault(false);
    auto* all = new QVBoxLayout(this);
    all->addWidget(plot, 1);
    all->addWidget(says);
    all->addWidget(close, 0, Qt::AlignRight);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

} // namespace gantry::app
