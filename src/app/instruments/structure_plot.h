// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/tools/structure_curves.h"

class QCPGraph;
class QCPItemStraightLine;
class QCPItemText;

namespace gantry::app {

/// Along the range of the axis: how far a rail sags and what the picture makes of it, or the gravity torque
/// of an arm with what its motor holds.
class StructurePlot : public Plot {
    Q_OBJECT
public:
    explicit StructurePlot(const Context& context, QWidget* parent = nullptr);
    void refresh();
    void applyTheme() override;

protected:
    void resizeEvent(QResizeEvent* event) override;
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    void showSag(const ShotEvaluation* shot);
    void showBalance(const AxisEvaluation& e);
    double unit(units::Kind kind) const;

    std::vector<SagPoint> sag_;
    std::vector<BalancePoint> balance_;
    double held_ = 0.0;
    QCPGraph *curve_, *low_, *high_;
};

} // namespace gantry::app
