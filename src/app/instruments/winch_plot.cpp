// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/winch_plot.h"

#include "app/theme/tokens.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <qcustomplot.h>

namespace gantry::app {
WinchPlot::WinchPlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Along the travel"), parent) {
    setObjectName(QStringLiteral("winchPlot"));
    plot_->plotLayout()->clear();
    auto* margins = new QCPMarginGroup(plot_);
    for (std::size_t i = 0; i < 2; ++i) {
        rects_[i] = new QCPAxisRect(plot_, true);
        rects_[i]->setMarginGroup(QCP::msLeft | QCP::msRight, margins);
        plot_->plotLayout()->addElement(static_cast<int>(i), 0, rects_[i]);
        graphs_[i] = plot_->addGraph(rects_[i]->axis(QCPAxis::atBottom), rects_[i]->axis(QCPAxis::atLeft));
        rects_[i]->axis(QCPAxis::atLeft)->ticker()->setTickCount(3);
    }
    applyTheme();
}

void WinchPlot::applyTheme() {
    Plot::applyTheme();
    graphs_[0]->setPen(QPen(tokens().lake, 1.5));
    graphs_[1]->setPen(QPen(tokens().rust, 1.5));
}

void WinchPlot::show(std::vector<WinchPoint> curve) {
    curve_ = std::move(curve);
    if (curve_.empty()) return setEmptyText(tr("Only a winch that a shot moves has a course to show."));
    setEmptyText({});
    using units::Kind;
    const double length = units::shownUnit(Kind::Length, context_.system()).factor,
                 speed = units::shownUnit(Kind::Speed, context_.system()).factor;
    QVector<QCPGraphData> speeds, steps;
    for (const WinchPoint& p : curve_) {
        speeds.push_back({p.wound / length, p.speed / speed});
        steps.push_back({p.wound / length, p.stepsPerUnit});
    }
    graphs_[0]->data()->set(speeds, true);
    graphs_[1]->data()->set(steps, true);
    const bool stepping = curve_.front().stepsPerUnit > 0.0;
    rects_[1]->setVisible(stepping);
    graphs_[1]->setVisible(stepping);
    for (std::size_t i = 0; i < 2; ++i) {
        const auto& data = i == 0 ? speeds : steps;
        const auto [low, high] = std::minmax_element(
            data.begin(), data.end(), [](const auto& a, const auto& b) { return a.value < b.value; });
        const double room = std::max(0.02 * high->value, 0.2 * (high->value - low->value));
        rects_[i]->axis(QCPAxis::atLeft)->setRange(low->value - room, high->value + room);
        rects_[i]->axis(QCPAxis::atBottom)->setRange(0, speeds.back().key);
        rects_[i]
            ->axis(QCPAxis::atBottom)
            ->setLabel(tr("cord on the drum, %1").arg(context_.unit(Kind::Length)));
    }
    rects_[0]->axis(QCPAxis::atLeft)->setLabel(tr("speed\n%1").arg(context_.unit(Kind::Speed)));
    rects_[1]->axis(QCPAxis::atLeft)->setLabel(tr("steps\nper mm"));
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString WinchPlot::readOut(QPointF pixel) const {
    if (curve_.empty()) return {};
    const double wound = rects_[0]->axis(QCPAxis::atBottom)->pixelToCoord(pixel.x()) *
                         units::shownUnit(units::Kind::Length, context_.system()).factor;
    for (std::size_t i = 0; i + 1 < curve_.size(); i += 2) {
        if (wound < curve_[i].wound || wound > curve_[i + 1].wound) continue;
        const QString at = tr("%1, layer %2: %3")
                               .arg(context_.show(wound, units::Kind::Length))
                               .arg(curve_[i].layer)
                               .arg(context_.show(curve_[i].speed, units::Kind::Speed));
        return curve_[i].stepsPerUnit > 0.0
                   ? tr("%1, %2 steps/mm")
                         .arg(at, context_.show(curve_[i].stepsPerUnit, units::Kind::Ratio, 4))
                   : at;
    }
    return {};
}

std::string WinchPlot::csv() const {
    using io::sevenDigits;
    io::CsvWriter out;
    out.line("wound_m", "layer", "speed_m_s", "steps_per_mm");
    for (const WinchPoint& p : curve_)
        out.line(sevenDigits(p.wound), p.layer, sevenDigits(p.speed), sevenDigits(p.stepsPerUnit));
    return out.text();
}

} // namespace gantry::app
