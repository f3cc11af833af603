// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/tools/limits.h"
#include "core/tools/stall_ladder.h"

class QCPGraph;
class QCPItemRect;
class QCPItemStraightLine;
class QCPItemText;
class QCPItemTracer;

namespace gantry::app {

/// Speed across, acceleration up, both logarithmic: the region that works, shaded by margin; bands to stay
/// out of; limits; the shots; what is recommended, and what is set, which can be dragged.
class EnvelopePlot : public Plot {
    Q_OBJECT
public:
    explicit EnvelopePlot(const Context& context, QWidget* parent = nullptr);
    /// `set`: the controller's own top speed and acceleration.
    void show(const AxisLimits& limits, const Triple& set, AxisKind kind,
              const QStringList& shotNames); /// Nothing to draw; says why.
    void clear(const QString& text);
    /// Draws a ladder of tests into it, numbered from 1.
    void showRungs(const std::vector<Rung>& ladder);
    void applyTheme() override;

signals:
    /// The set point is being dragged to these values [U/s], [U/s²].
    void dragged(double speed, double acceleration);

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    void placeTexts(const QStringList& shotNames);
    double speedUnit() const;
    double accelerationUnit() const;

    AxisLimits limits_;
    Triple set_;
    AxisKind kind_ = AxisKind::Linear;
    bool dragging_ = false;
    QCPGraph *one_, *wanted_, *shots_, *recommended_, *setPoint_, *rungs_;
    std::vector<Rung> ladder_;
    QList<QCPItemRect*> bands_;
    QList<QCPItemText*> texts_;
    QList<QCPItemStraightLine*> lines_;
};

/// Plain words for a band: "resonance".
QString bandName(BandReason reason);

} // namespace gantry::app
