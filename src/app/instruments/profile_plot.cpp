// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/profile_plot.h"

#include "app/theme/tokens.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <algorithm>
#include <qcustomplot.h>

namespace gantry::app {
namespace {

std::array<units::Kind, 3> kinds(AxisKind kind) {
    using units::Kind;
    if (kind == AxisKind::Linear) return {Kind::Length, Kind::Speed, Kind::Acceleration};
    return {Kind::Angle, Kind::AngularSpeed, Kind::AngularAcceleration};
}

constexpr int samples = 160;

} // namespace

ProfilePlot::ProfilePlot(const Context& context, QWidget* parent)
    : Plot(context, tr("Motion profile"), parent) {
    setObjectName(QStringLiteral("profilePlot"));
    plot_->plotLayout()->clear();
    auto* margins = new QCPMarginGroup(plot_);
    for (std::size_t i = 0; i < 3; ++i) {
        rects_[i] = new QCPAxisRect(plot_, true);
        rects_[i]->setMinimumSize(40, 20);
        rects_[i]->setMarginGroup(QCP::msLeft | QCP::msRight, margins);
        rects_[i]->setAutoMargins(QCP::msLeft | QCP::msRight | (i == 2 ? QCP::msBottom : QCP::MarginSides()));
        rects_[i]->setMargins(QMargins(0, 3, 0, 3));
        plot_->plotLayout()->addElement(static_cast<int>(i), 0, rects_[i]);
        graphs_[i] = plot_->addGraph(rects_[i]->axis(QCPAxis::atBottom), rects_[i]->axis(QCPAxis::atLeft));
        cursors_[i] = new QCPItemStraightLine(plot_);
        cursors_[i]->setClipAxisRect(rects_[i]);
        for (QCPItemPosition* p : {cursors_[i]->point1, cursors_[i]->point2})
            p->setAxes(rects_[i]->axis(QCPAxis::atBottom), rects_[i]->axis(QCPAxis::atLeft));
        cursors_[i]->setVisible(false);
        rects_[i]->axis(QCPAxis::atLeft)->ticker()->setTickCount(2);
        rects_[i]->axis(QCPAxis::atBottom)->setTickLabels(i == 2);
        rects_[i]->axis(QCPAxis::atBottom)->setTicks(i == 2);
    }
    plot_->plotLayout()->setRowSpacing(4);
    rects_[2]->axis(QCPAxis::atBottom)->setLabel(tr("seconds"));
    connect(plot_, &QCustomPlot::mouseMove, this, [this](QMouseEvent* e) {
        const double t = rects_[0]->axis(QCPAxis::atBottom)->pixelToCoord(e->position().x());
        for (QCPItemStraightLine* c : cursors_) {
            c->setVisible(t >= 0 && t <= profile_.time());
            c->point1->setCoords(t, 0);
            c->point2->setCoords(t, 1);
        }
        plot_->replot(QCustomPlot::rpQueuedReplot);
    });
    applyTheme();
}

void ProfilePlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    graphs_[0]->setPen(QPen(t.lake, 1.5));
    graphs_[1]->setPen(QPen(t.lake, 1.5));
    graphs_[2]->setPen(QPen(t.rust, 1.5));
    for (QCPItemStraightLine* c : cursors_) c->setPen(QPen(t.second, 1));
}

void ProfilePlot::show(const AxisEvaluation* axis, const ShotEvaluation* shot) {
    if (axis == nullptr || shot == nullptr || shot->problem != Reason::None) {
        if (axis == nullptr) return setEmptyText(tr("Add an axis and a shot to see how it moves."));
        const Reason why = shot == nullptr ? Reason::NoShot : shot->problem;
        setEmptyText(tr("No profile: %1.").arg(QString::fromUtf8(words::reasonText(why).data())));
        return;
    }
    setEmptyText({});
    const Drawn now{shot->profile, axis->model.kind, context_.system(), isNight()};
    if (drawn_ == now) return;
    drawn_ = now;
    profile_ = shot->profile;
    kind_ = axis->model.kind;
    const auto k = kinds(kind_);
    std::array<QVector<QCPGraphData>, 3> data;
    std::array<double, 3> unit{};
    static const std::array<const char*, 3> names{QT_TR_NOOP("pos."), QT_TR_NOOP("speed"),
                                                  QT_TR_NOOP("accel.")};
    for (std::size_t i = 0; i < 3; ++i) {
        const auto shown = units::shownUnit(k[i], context_.system());
        unit[i] = shown.factor;
        rects_[i]
            ->axis(QCPAxis::atLeft)
            ->setLabel(tr(names[i]) + QLatin1Char('\n') + QString::fromUtf8(shown.text));
    }
    for (int i = 0; i <= samples; ++i) {
        const double t = profile_.time() * i / samples;
        const motion::MotionState s = profile_.at(t);
        data[0].push_back({t, s.position / unit[0]});
        data[1].push_back({t, s.speed / unit[1]});
        data[2].push_back({t, s.acceleration / unit[2]});
    }
    for (std::size_t i = 0; i < 3; ++i) {
        graphs_[i]->data()->set(data[i], true);
        rects_[i]->axis(QCPAxis::atBottom)->setRange(0, profile_.time());
        double low = 0, high = 0;
        for (const QCPGraphData& d : data[i]) {
            low = std::min(low, d.value);
            high = std::max(high, d.value);
        }
        const double room = (high - low) * 0.12;
        rects_[i]->axis(QCPAxis::atLeft)->setRange(low - (low < 0 ? room : 0), high + room);
    }
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

QString ProfilePlot::readOut(QPointF pixel) const {
    const double t = rects_[0]->axis(QCPAxis::atBottom)->pixelToCoord(pixel.x());
    if (t < 0 || t > profile_.time()) return {};
    const motion::MotionState s = profile_.at(t);
    const auto k = kinds(kind_);
    return tr("%1: %2, %3, %4")
        .arg(context_.show(t, units::Kind::Time), context_.show(s.position, k[0]),
             context_.show(s.speed, k[1]), context_.show(s.acceleration, k[2]));
}

std::string ProfilePlot::csv() const {
    using io::sevenDigits;
    const std::string u = kind_ == AxisKind::Linear ? "m" : "rad";
    io::CsvWriter out;
    out.line("time_s", "position_" + u, "speed_" + u + "_s", "acceleration_" + u + "_s2");
    for (int i = 0; i <= samples; ++i) {
        const double t = profile_.time() * i / samples;
        const motion::MotionState s = profile_.at(t);
        out.line(sevenDigits(t), sevenDigits(s.position), sevenDigits(s.speed), sevenDigits(s.acceleration));
    }
    return out.text();
}

} // namespace gantry::app
