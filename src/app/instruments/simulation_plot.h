// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/simulation/axis_simulation.h"

#include <array>

class QCPGraph;
class QCPItemStraightLine;
class QCPItemText;

namespace gantry::app {

/// What the simulation gave: command and real position, and below how far the picture is off. A slip out of
/// step is marked where it happens.
class SimulationPlot : public Plot {
    Q_OBJECT
public:
    explicit SimulationPlot(const Context& context, QWidget* parent = nullptr);
    void show(const simulation::SimulationResult& result, AxisKind kind, double pixelsPerUnit,
              double moveTime, bool stale);
    /// Nothing simulated yet; says what to do.
    void clear(const QString& text);
    void applyTheme() override;

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    simulation::SimulationResult result_;
    AxisKind kind_ = AxisKind::Linear;
    double pixels_ = 0.0;
    bool stale_ = false;
    std::array<QCPAxisRect*, 2> rects_{};
    QCPGraph *command_, *position_, *picture_;
    QCPItemStraightLine *stall_, *end_;
    QCPItemText* stallText_;
};

} // namespace gantry::app
