// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/structure_plot.h"

#include "app/theme/tokens.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <qcustomplot.h>

namespace gantry::app {
using units::Kind;

StructurePlot::StructurePlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Along the range"), parent), curve_(plot_->addGraph()), low_(plot_->addGraph()),
      high_(plot_->addGraph()) {
    setObjectName(QStringLiteral("structurePlot"));
    plot_->xAxis->ticker()->setTickCount(4);
    plot_->yAxis->ticker()->setTickCount(4);
    high_->setChannelFillGraph(low_);
    applyTheme();
}

void StructurePlot::resizeEvent(QResizeEvent* event) {
    Plot::resizeEvent(event);
    plot_->yAxis->ticker()->setTickCount(height() < 150 ? 3 : 4);
}

double StructurePlot::unit(Kind kind) const {
    return units::shownUnit(kind, context_.system()).factor;
}

void StructurePlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    curve_->setPen(QPen(t.rust, 1.6));
    QColor wash = t.lake;
    wash.setAlpha(40);
    high_->setBrush(wash);
    high_->setPen(QPen(t.lake, 1, Qt::DotLine));
    low_->setPen(QPen(t.lake, 1, Qt::DotLine));
}

void StructurePlot::refresh() {
    sag_.clear();
    balance_.clear();
    const Axis* axis = context_.axis();
    const AxisEvaluation* e = context_.axisEvaluation();
    if (axis == nullptr || e == nullptr) return setEmptyText(tr("Add an axis first."));
    const Project& project = context_.document.project();
    if (kindOf(*axis) == AxisKind::Linear) {
        sag_ = sagCurve(project, *axis, context_.shotEvaluation());
        if (sag_.empty()) return setEmptyText(tr("Say what the rail is made of and how it is supported."));
        setEmptyText({});
        return showSag(context_.shotEvaluation());
    }
    balance_ = balanceCurve(project, *axis);
    if (balance_.empty())
        return setEmptyText(tr("Gravity does not turn this axis, or nothing is listed on it."));
    setEmptyText({});
    showBalance(*e);
}

void StructurePlot::showSag(const ShotEvaluation* shot) {
    QVector<QCPGraphData> data;
    const bool pixels = shot != nullptr;
    const double length = unit(Kind::Length);
    for (const SagPoint& s : sag_) data.push_back({s.at / length, pixels ? s.pixels : s.sag / length});
    curve_->data()->set(data, true);
    low_->data()->clear();
    high_->data()->clear();
    plot_->xAxis->setLabel(tr("carriage at, %1").arg(context_.unit(Kind::Length)));
    plot_->yAxis->setLabel(pixels ? tr("picture shift, px") : tr("sag, %1").arg(context_.unit(Kind::Length)));
    plot_->xAxis->setRange(data.front().key, data.back().key);
    curve_->rescaleValueAxis();
    plot_->yAxis->scaleRange(1.2);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

void StructurePlot::showBalance(const AxisEvaluation& e) {
    QVector<QCPGraphData> data, low, high;
    const double degree = unit(Kind::Angle), torque = unit(Kind::Torque);
    const Figure held = heldTorque(e);
    held_ = held ? held.value() : 0.0;
    for (const BalancePoint& b : balance_) data.push_back({b.elevation / degree, b.torque / torque});
    double most = 0.0;
    for (const auto& d : data) most = std::max(most, std::abs(d.value));
    // What the motor holds is drawn only where it can be seen beside the curve.
    const bool shown = held_ > 0.0 && held_ / torque < 6.0 * std::max(most, 1e-9);
    if (shown)
        for (const double x : {data.front().key, data.back().key}) {
            low.push_back({x, -held_ / torque});
            high.push_back({x, held_ / torque});
        }
    curve_->data()->set(data, true);
    low_->data()->set(low, true);
    high_->data()->set(high, true);
    plot_->xAxis->setLabel(tr("elevation, %1").arg(context_.unit(Kind::Angle)));
    plot_->yAxis->setLabel(tr("gravity, %1").arg(context_.unit(Kind::Torque)));
    plot_->xAxis->setRange(data.front().key, data.back().key);
    const double top = 1.15 * std::max({most, shown ? held_ / torque : 0.0, 1e-6});
    plot_->yAxis->setRange(-top, top);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString StructurePlot::readOut(QPointF pixel) const {
    const double x = plot_->xAxis->pixelToCoord(pixel.x());
    if (!sag_.empty()) {
        const double at = x * unit(Kind::Length);
        const auto it = std::min_element(sag_.begin(), sag_.end(), [&](const SagPoint& a, const SagPoint& b) {
            return std::abs(a.at - at) < std::abs(b.at - at);
        });
        return tr("%1: sags %2, slopes %3, twists %4, %5")
            .arg(context_.show(it->at, Kind::Length), context_.show(it->sag, Kind::Length),
                 context_.show(it->slope, Kind::Angle), context_.show(it->twist, Kind::Angle),
                 context_.show(it->pixels, Kind::Pixels));
    }
    if (balance_.empty()) return {};
    const double angle = x * unit(Kind::Angle);
    const auto it =
        std::min_element(balance_.begin(), balance_.end(), [&](const BalancePoint& a, const BalancePoint& b) {
            return std::abs(a.elevation - angle) < std::abs(b.elevation - angle);
        });
    QString text =
        tr("%1: %2").arg(context_.show(it->elevation, Kind::Angle), context_.show(it->torque, Kind::Torque));
    if (held_ > 0.0) text += tr(", motor holds %1").arg(context_.show(held_, Kind::Torque));
    return text;
}

std::string StructurePlot::csv() const {
    using io::sevenDigits;
    io::CsvWriter out;
    if (!sag_.empty()) {
        out.line("at_m", "sag_m", "slope_rad", "twist_rad", "shift_px");
        for (const SagPoint& s : sag_)
            out.line(sevenDigits(s.at), sevenDigits(s.sag), sevenDigits(s.slope), sevenDigits(s.twist),
                     sevenDigits(s.pixels));
        return out.text();
    }
    out.line("elevation_rad", "torque_Nm");
    for (const BalancePoint& b : balance_) out.line(sevenDigits(b.elevation), sevenDigits(b.torque));
    return out.text();
}

} // namespace gantry::app
