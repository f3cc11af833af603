// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/tools/curves.h"

class QCPCurve;
class QCPGraph;
class QCPItemLine;
class QCPItemRect;
class QCPItemText;

namespace gantry::app {

/// Torque against speed: the sizing curve at full and low voltage, what it may reach at best, the shot's path
/// there and back, the margin at its top speed, the wanted margin, and the resonance band.
class TorquePlot : public Plot {
    Q_OBJECT
public:
    explicit TorquePlot(const Context& context, QWidget* parent = nullptr);
    void show(const AxisEvaluation* axis, const ShotEvaluation* shot);
    void applyTheme() override;

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    TorqueCurves curves_;
    const AxisEvaluation* axis_ = nullptr;
    QCPGraph *nominal_, *low_, *best_;
    QCPCurve *there_, *back_;
    QCPItemLine *margin_, *wanted_;
    QCPItemRect* resonance_;
    QCPItemText *marginText_, *nominalText_, *lowText_;
};

} // namespace gantry::app
