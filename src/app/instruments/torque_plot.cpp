// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/torque_plot.h"

#include "app/theme/tokens.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <numbers>
#include <qcustomplot.h>

namespace gantry::app {
namespace {

constexpr double rpm = 2.0 * std::numbers::pi / 60.0;

QVector<QCPCurveData> pathData(const std::vector<TorquePoint>& path, double torqueUnit) {
    QVector<QCPCurveData> out;
    for (std::size_t i = 0; i < path.size(); ++i)
        out.push_back({static_cast<double>(i), path[i].speed / rpm, path[i].torque / torqueUnit});
    return out;
}

void fill(QCPGraph* graph, const std::vector<TorquePoint>& curve, double torqueUnit) {
    QVector<QCPGraphData> data;
    for (const TorquePoint& p : curve) data.push_back({p.speed / rpm, p.torque / torqueUnit});
    graph->data()->set(data, true);
}

} // namespace

TorquePlot::TorquePlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Torque against speed"), parent), nominal_(plot_->addGraph()), low_(plot_->addGraph()),
      best_(plot_->addGraph()), there_(new QCPCurve(plot_->xAxis, plot_->yAxis)),
      back_(new QCPCurve(plot_->xAxis, plot_->yAxis)), margin_(new QCPItemLine(plot_)),
      wanted_(new QCPItemLine(plot_)), resonance_(new QCPItemRect(plot_)),
      marginText_(new QCPItemText(plot_)), nominalText_(new QCPItemText(plot_)),
      lowText_(new QCPItemText(plot_)) {
    setObjectName(QStringLiteral("torquePlot"));
    plot_->xAxis->setLabel(tr("motor speed, rpm"));
    plot_->yAxis->ticker()->setTickCount(4);
    for (QCPItemText* text : {marginText_, nominalText_, lowText_}) {
        text->setPositionAlignment(Qt::AlignLeft | Qt::AlignVCenter);
        text->setFont(textFont(10));
    }
    nominalText_->setPositionAlignment(Qt::AlignRight | Qt::AlignBottom);
    lowText_->setPositionAlignment(Qt::AlignRight | Qt::AlignTop);
    applyTheme();
}

void TorquePlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    nominal_->setPen(QPen(t.lake, 1.6));
    QColor wash = t.lakeWash;
    wash.setAlpha(150);
    nominal_->setBrush(wash);
    low_->setPen(QPen(t.lake, 1, Qt::DashLine));
    best_->setPen(QPen(t.third, 1, Qt::DotLine));
    there_->setPen(QPen(t.rust, 1.4));
    back_->setPen(QPen(t.rust, 1, Qt::DashLine));
    margin_->setPen(QPen(t.ink, 1, Qt::DotLine));
    wanted_->setPen(QPen(t.rust, 2));
    QColor band = t.straw;
    band.setAlpha(60);
    resonance_->setBrush(band);
    resonance_->setPen(Qt::NoPen);
    marginText_->setColor(t.ink);
    nominalText_->setColor(t.lake);
    lowText_->setColor(t.lake);
}

void TorquePlot::show(const AxisEvaluation* axis, const ShotEvaluation* shot) {
    axis_ = axis;
    if (axis == nullptr || axis->model.missing != Reason::None) {
        setEmptyText(axis == nullptr
                         ? tr("Add an axis to see its motor's torque.")
                         : tr("No curve yet: %1.")
                               .arg(QString::fromUtf8(words::reasonText(axis->model.missing).data())));
        return;
    }
    setEmptyText({});
    const DriveModel& m = axis->model;
    const bool hasShot = shot != nullptr && shot->problem == Reason::None;
    const double shotSpeed = hasShot ? shot->motion.motorSpeed.valueOr(0.0) : 0.0;
    // Steppers to beyond their corner, other motors to where their torque ends.
    const double own = axis->cornerSpeed ? axis->cornerSpeed.value() * 2.2
                       : axis->checks.motorTopSpeed
                           ? axis->checks.motorTopSpeed.value() / m.outputPerRad * 1.05
                           : 0.0;
    const double top = std::max({own, shotSpeed * 1.6, 0.01 * rpm});
    const auto unit = units::shownUnit(units::Kind::Torque, context_.system());
    curves_ = torqueCurves(m, top, 120);
    fill(nominal_, curves_.nominal, unit.factor);
    fill(low_, curves_.lowVoltage, unit.factor);
    // The dotted line: what a stepper does at best, or what another motor stands for hours.
    fill(best_, m.stepper() ? curves_.atBest : curves_.continuous, unit.factor);
    double lowest = 0.0;
    for (auto [curve, direction] : {std::pair{there_, 1}, std::pair{back_, -1}}) {
        const auto path = hasShot ? shotPath(m, shot->profile, direction, 40) : std::vector<TorquePoint>{};
        for (const TorquePoint& p : path) lowest = std::min(lowest, p.torque);
        curve->data()->set(pathData(path, unit.factor), true);
    }
    plot_->yAxis->setLabel(tr("torque, %1").arg(QString::fromUtf8(unit.text)));
    plot_->xAxis->setRange(0, top / rpm);
    const double highest = curves_.atBest.front().torque * 1.16 / unit.factor;
    plot_->yAxis->setRange(lowest < 0 ? lowest * 1.2 / unit.factor : 0.0, highest);

    for (QCPAbstractItem* item :
         {static_cast<QCPAbstractItem*>(margin_), static_cast<QCPAbstractItem*>(wanted_),
          static_cast<QCPAbstractItem*>(marginText_)})
        item->setVisible(hasShot);
    if (hasShot) {
        const double x = shotSpeed / rpm, needed = shot->torque.needed.valueOr(0.0) / unit.factor,
                     available = shot->torque.available.valueOr(0.0) / unit.factor;
        margin_->start->setCoords(x, needed);
        margin_->end->setCoords(x, available);
        const double tick = top / rpm * 0.03;
        wanted_->start->setCoords(x - tick, needed * m.wantedMargin);
        wanted_->end->setCoords(x + tick, needed * m.wantedMargin);
        put(marginText_, x + tick * 1.3, std::min(needed * m.wantedMargin, highest * 0.9),
            Qt::AlignLeft | Qt::AlignVCenter);
        marginText_->setText(tr("margin ×%1, target ×%2")
                                 .arg(context_.show(shot->torque.margin, units::Kind::Ratio, 2),
                                      context_.show(m.wantedMargin, units::Kind::Ratio, 2)));
    }
    const double perRpm = m.outputPerRad * rpm;
    resonance_->setVisible(static_cast<bool>(axis->resonance.low));
    if (axis->resonance.low) resonance_->topLeft->setCoords(axis->resonance.low.value() / perRpm, highest);
    if (axis->resonance.low)
        resonance_->bottomRight->setCoords(axis->resonance.high.valueOr(0.0) / perRpm,
                                           plot_->yAxis->range().lower);
    const double volts = std::visit(
        [](const auto& p) {
            if constexpr (requires { p.supplyVoltage; })
                return p.supplyVoltage;
            else
                return p.voltage;
        },
        m.curve);
    nominalText_->setText(context_.show(volts, units::Kind::Voltage));
    put(nominalText_, top / rpm, curves_.nominal.back().torque / unit.factor,
        Qt::AlignRight | Qt::AlignBottom);
    lowText_->setText(tr("%1, low").arg(context_.show(m.lowVoltage, units::Kind::Voltage)));
    put(lowText_, top / rpm, curves_.lowVoltage.back().torque / unit.factor, Qt::AlignRight | Qt::AlignTop);
    keepApart(hasShot ? QList{marginText_, nominalText_, lowText_} : QList{nominalText_, lowText_});
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString TorquePlot::readOut(QPointF pixel) const {
    if (axis_ == nullptr || !plot_->axisRect()->rect().contains(pixel.toPoint())) return {};
    const double speed = plot_->xAxis->pixelToCoord(pixel.x()) * rpm;
    return tr("%1: %2 available")
        .arg(context_.show(speed, units::Kind::RotationRate),
             context_.show(axis_->model.available(speed), units::Kind::Torque));
}

std::string TorquePlot::csv() const {
    using io::sevenDigits;
    io::CsvWriter out;
    out.line("motor_speed_rpm", "pull_out_Nm", "pull_out_low_voltage_Nm", "at_best_Nm");
    for (std::size_t i = 0; i < curves_.nominal.size(); ++i)
        out.line(sevenDigits(curves_.nominal[i].speed / rpm), sevenDigits(curves_.nominal[i].torque),
                 sevenDigits(curves_.lowVoltage[i].torque), sevenDigits(curves_.atBest[i].torque));
    return out.text();
}

} // namespace gantry::app
