// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/model/motor_parts.h"
#include "core/tools/curves.h"

class QCPGraph;

namespace gantry::app {

/// Torque against speed of a stepper that is only estimated, on the chosen axis' driver and supply, between
/// what its tolerances leave open; beside it the motor that is there.
class MotorBandPlot : public Plot {
    Q_OBJECT
public:
    explicit MotorBandPlot(const Context& context, QWidget* parent);
    void show(const Stepper& stepper);
    void applyTheme() override;

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    std::vector<TorquePoint> low_, high_, estimated_, there_;
    QCPGraph *lowGraph_, *highGraph_, *estimatedGraph_, *thereGraph_;
};

} // namespace gantry::app
