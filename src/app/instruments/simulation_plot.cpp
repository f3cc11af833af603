// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/simulation_plot.h"

#include "app/theme/tokens.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <cmath>
#include <qcustomplot.h>

namespace gantry::app {

SimulationPlot::SimulationPlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Simulated move"), parent) {
    setObjectName(QStringLiteral("simulationPlot"));
    plot_->plotLayout()->clear();
    auto* margins = new QCPMarginGroup(plot_);
    for (std::size_t i = 0; i < 2; ++i) {
        rects_[i] = new QCPAxisRect(plot_, true);
        rects_[i]->setMarginGroup(QCP::msLeft | QCP::msRight, margins);
        rects_[i]->setMinimumSize(40, 20);
        plot_->plotLayout()->addElement(static_cast<int>(i), 0, rects_[i]);
        rects_[i]->axis(QCPAxis::atLeft)->ticker()->setTickCount(2);
        rects_[i]->axis(QCPAxis::atBottom)->setTickLabels(i == 1);
    }
    plot_->plotLayout()->setRowSpacing(4);
    plot_->plotLayout()->setRowStretchFactor(1, 1.6);
    const auto graph = [&](std::size_t rect) {
        return plot_->addGraph(rects_[rect]->axis(QCPAxis::atBottom), rects_[rect]->axis(QCPAxis::atLeft));
    };
    command_ = graph(0);
    position_ = graph(0);
    picture_ = graph(1);
    const auto line = [&](std::size_t rect) {
        auto* item = new QCPItemStraightLine(plot_);
        item->setClipAxisRect(rects_[rect]);
        for (QCPItemPosition* p : {item->point1, item->point2})
            p->setAxes(rects_[rect]->axis(QCPAxis::atBottom), rects_[rect]->axis(QCPAxis::atLeft));
        return item;
    };
    stall_ = line(0);
    end_ = line(1);
    stallText_ = new QCPItemText(plot_);
    stallText_->setClipAxisRect(rects_[0]);
    stallText_->position->setAxes(rects_[0]->axis(QCPAxis::atBottom), rects_[0]->axis(QCPAxis::atLeft));
    stallText_->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    stallText_->setFont(textFont(10, true));
    rects_[1]->axis(QCPAxis::atBottom)->setLabel(tr("seconds"));
    applyTheme();
    clear(tr("Simulate a shot to see how the drive follows it."));
}

void SimulationPlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    command_->setPen(QPen(t.second, 1, Qt::DashLine));
    position_->setPen(QPen(stale_ ? t.third : t.lake, 1.5));
    picture_->setPen(QPen(stale_ ? t.third : t.rust, 1.2));
    stall_->setPen(QPen(t.brick, 1.5));
    end_->setPen(QPen(t.second, 1, Qt::DotLine));
    stallText_->setColor(t.brick);
}

void SimulationPlot::clear(const QString& text) {
    result_ = {};
    setEmptyText(text);
}

void SimulationPlot::show(const simulation::SimulationResult& result, AxisKind kind, double pixelsPerUnit,
                          double moveTime, bool stale) {
    result_ = result;
    kind_ = kind;
    pixels_ = pixelsPerUnit;
    stale_ = stale;
    setEmptyText({});
    applyTheme();
    const auto unit = units::shownUnit(kind == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle,
                                       context_.system());
    QVector<QCPGraphData> command, position, picture;
    double low = 0, high = 0, least = 0, most = 0;
    for (const simulation::Sample& s : result.trace) {
        command.push_back({s.time, s.command / unit.factor});
        position.push_back({s.time, s.position / unit.factor});
        const double px = (s.picture - s.command) * pixelsPerUnit;
        picture.push_back({s.time, px});
        low = std::min({low, s.command / unit.factor, s.position / unit.factor});
        high = std::max({high, s.command / unit.factor, s.position / unit.factor});
        least = std::min(least, px);
        most = std::max(most, px);
    }
    command_->data()->set(command, true);
    position_->data()->set(position, true);
    picture_->data()->set(picture, true);
    const double end = result.trace.empty() ? 1.0 : result.trace.back().time;
    for (QCPAxisRect* r : rects_) r->axis(QCPAxis::atBottom)->setRange(0, end);
    const auto range = [&](std::size_t i, double from, double to) {
        const double room = 0.12 * std::max(to - from, 1e-6);
        rects_[i]->axis(QCPAxis::atLeft)->setRange(from - room, to + room);
    };
    range(0, low, high);
    range(1, least, most);
    rects_[0]->axis(QCPAxis::atLeft)->setLabel(tr("position\n%1").arg(QString::fromUtf8(unit.text)));
    rects_[1]->axis(QCPAxis::atLeft)->setLabel(tr("picture\noff, px"));
    const bool lost = result.lostAt >= 0.0;
    stall_->setVisible(lost);
    stallText_->setVisible(lost);
    if (lost) {
        stall_->point1->setCoords(result.lostAt, low);
        stall_->point2->setCoords(result.lostAt, high + 1);
        stallText_->position->setCoords(result.lostAt, high);
        stallText_->setText(tr(" out of step at %1").arg(context_.show(result.lostAt, units::Kind::Time)));
    }
    end_->point1->setCoords(moveTime, 0);
    end_->point2->setCoords(moveTime, 1);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString SimulationPlot::readOut(QPointF pixel) const {
    if (result_.trace.empty()) return {};
    const double t = rects_[0]->axis(QCPAxis::atBottom)->pixelToCoord(pixel.x());
    const auto it = std::lower_bound(result_.trace.begin(), result_.trace.end(), t,
                                     [](const simulation::Sample& s, double time) { return s.time < time; });
    if (it == result_.trace.end() || t < 0.0) return {};
    const units::Kind kind = kind_ == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle;
    return tr("%1: commanded %2, really %3, picture %4 off")
        .arg(context_.show(it->time, units::Kind::Time), context_.show(it->command, kind, 4),
             context_.show(it->position, kind, 4),
             context_.show((it->picture - it->command) * pixels_, units::Kind::Pixels));
}

std::string SimulationPlot::csv() const {
    using io::sevenDigits;
    const std::string u = kind_ == AxisKind::Linear ? "m" : "rad";
    io::CsvWriter out;
    out.line("time_s", "command_" + u, "position_" + u, "camera_" + u, "current_or_torque");
    for (const simulation::Sample& s : result_.trace)
        out.line(sevenDigits(s.time), sevenDigits(s.command), sevenDigits(s.position), sevenDigits(s.picture),
                 sevenDigits(s.current));
    return out.text();
}

} // namespace gantry::app
