// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/motor_band_plot.h"

#include "app/theme/tokens.h"
#include "core/evaluate/drive/make_drive.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <numbers>
#include <qcustomplot.h>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int points = 96;

/// Its torque curve in the place of the axis' motor, with every figure so much of its tolerance to one side:
/// −1 weakest, +1 strongest.
std::vector<TorquePoint> curveOf(const Project& project, std::size_t axis, Stepper stepper, double side,
                                 double top) {
    const auto moved = [&](Estimate& e, double way) {
        e.value *= std::max(0.05, 1.0 + way * side * e.tolerance);
    };
    moved(stepper.holdingTorque, 1.0);
    moved(stepper.inductance, -1.0);
    moved(stepper.resistance, -1.0);
    Project with = project;
    with.axes[axis].motor = std::move(stepper);
    return torqueCurves(makeDriveModel(setupOf(with), axis), top, points).nominal;
}

QVector<QCPGraphData> shown(const std::vector<TorquePoint>& curve, double speed, double torque) {
    QVector<QCPGraphData> out;
    for (const TorquePoint& p : curve) out.push_back({p.speed / speed, p.torque / torque});
    return out;
}

} // namespace

MotorBandPlot::MotorBandPlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Torque on this driver and supply"), parent), lowGraph_(plot_->addGraph()),
      highGraph_(plot_->addGraph()), estimatedGraph_(plot_->addGraph()), thereGraph_(plot_->addGraph()) {
    setObjectName(QStringLiteral("motorBandPlot"));
    applyTheme();
}

void MotorBandPlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    QColor wash = t.lake;
    wash.setAlpha(50);
    lowGraph_->setPen(QPen(t.lake, 1, Qt::DashLine));
    highGraph_->setPen(QPen(t.lake, 1, Qt::DashLine));
    highGraph_->setBrush(wash);
    highGraph_->setChannelFillGraph(lowGraph_);
    estimatedGraph_->setPen(QPen(t.lake, 2));
    thereGraph_->setPen(QPen(t.rust, 1.5, Qt::DotLine));
}

void MotorBandPlot::show(const Stepper& stepper) {
    const AxisEvaluation* e = context_.axisEvaluation();
    if (e == nullptr)
        return setEmptyText(tr("Add an axis: its driver and supply decide what the motor gives."));
    const auto axis = static_cast<std::size_t>(context_.session.axis());
    const Project& project = context_.document.project();
    const ShotEvaluation* shot = context_.shotEvaluation();
    const double asked = shot != nullptr ? shot->motion.motorSpeed.valueOr(0.0) : 0.0;
    const double top = std::max(1.5 * asked, 2.0 * std::numbers::pi * 20.0); // 1200 turns a minute at least
    low_ = curveOf(project, axis, stepper, -1.0, top);
    high_ = curveOf(project, axis, stepper, 1.0, top);
    estimated_ = curveOf(project, axis, stepper, 0.0, top);
    there_ = torqueCurves(e->model, top, points).nominal;
    if (estimated_.empty() || low_.empty() || high_.empty())
        return setEmptyText(tr("A torque curve needs the label's current and volts."));
    setEmptyText({});
    const units::ShownUnit &speed = units::shownUnit(Kind::RotationRate, context_.system()),
                           &torque = units::shownUnit(Kind::Torque, context_.system());
    lowGraph_->data()->set(shown(low_, speed.factor, torque.factor), true);
    highGraph_->data()->set(shown(high_, speed.factor, torque.factor), true);
    estimatedGraph_->data()->set(shown(estimated_, speed.factor, torque.factor), true);
    thereGraph_->data()->set(shown(there_, speed.factor, torque.factor), true);
    plot_->xAxis->setLabel(tr("motor speed, %1").arg(QString::fromUtf8(speed.text)));
    plot_->yAxis->setLabel(tr("torque, %1").arg(QString::fromUtf8(torque.text)));
    double most = 0.0;
    for (const auto* curve : {&high_, &there_})
        for (const TorquePoint& p : *curve) most = std::max(most, p.torque);
    plot_->xAxis->setRange(0.0, top / speed.factor);
    plot_->yAxis->setRange(0.0, 1.1 * most / torque.factor);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString MotorBandPlot::readOut(QPointF pixel) const {
    if (estimated_.empty()) return tr("solid: estimated · band: tolerances · dotted: the motor there now");
    const double speed = plot_->xAxis->pixelToCoord(pixel.x()) *
                         units::shownUnit(Kind::RotationRate, context_.system()).factor;
    for (std::size_t i = 0; i + 1 < estimated_.size(); ++i) {
        if (speed < estimated_[i].speed || speed > estimated_[i + 1].speed) continue;
        return tr("%1: %2, between %3 and %4")
            .arg(context_.show(speed, Kind::RotationRate), context_.show(estimated_[i].torque, Kind::Torque),
                 context_.show(low_[i].torque, Kind::Torque), context_.show(high_[i].torque, Kind::Torque));
    }
    return {};
}

std::string MotorBandPlot::csv() const {
    using io::sevenDigits;
    io::CsvWriter out;
    out.line("motor_speed_rad_s", "torque_Nm", "torque_low_Nm", "torque_high_Nm");
    for (std::size_t i = 0; i < estimated_.size() && i < low_.size() && i < high_.size(); ++i)
        out.line(sevenDigits(estimated_[i].speed), sevenDigits(estimated_[i].torque),
                 sevenDigits(low_[i].torque), sevenDigits(high_[i].torque));
    return out.text();
}

} // namespace gantry::app
