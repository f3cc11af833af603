// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/envelope_plot.h"

#include "app/theme/tokens.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "io/tables/csv.h"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>
#include <qcustomplot.h>

namespace gantry::app {
namespace {

units::Kind speedKind(AxisKind kind) {
    return kind == AxisKind::Linear ? units::Kind::Speed : units::Kind::AngularSpeed;
}
units::Kind travelKind(AxisKind kind) {
    return kind == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle;
}
units::Kind accelerationKind(AxisKind kind) {
    return kind == AxisKind::Linear ? units::Kind::Acceleration : units::Kind::AngularAcceleration;
}
/// Labels 1, 2 and 5 of every decade: an envelope seldom spans more than three.
class OneTwoFive final : public QCPAxisTicker {
    QVector<double> createTickVector(double, const QCPRange& range) override {
        QVector<double> out;
        if (!(range.lower > 0.0) || !std::isfinite(range.upper)) return out;
        const bool dense = range.upper / range.lower < 2e3;
        for (double decade = std::pow(10.0, std::floor(std::log10(range.lower))); decade <= range.upper;
             decade *= 10.0)
            for (const double f : {1.0, 2.0, 5.0})
                if ((dense || f == 1.0) && f * decade >= range.lower && f * decade <= range.upper)
                    out.push_back(f * decade);
        return out;
    }
    int getSubTickCount(double) override { return 0; }
};
} // namespace

QString bandName(BandReason reason) {
    switch (reason) {
    case BandReason::RotorResonance:
        return EnvelopePlot::tr("rotor resonance");
    case BandReason::RotorOnDrive:
        return EnvelopePlot::tr("rotor against the drive");
    case BandReason::FullStepsOnMode:
        return EnvelopePlot::tr("steps shake the camera");
    case BandReason::MicrostepsOnMode:
        return EnvelopePlot::tr("microsteps shake the camera");
    case BandReason::VisibleSteps:
        return EnvelopePlot::tr("steps are seen");
    case BandReason::Noise:
        return EnvelopePlot::tr("heard");
    }
    return {};
}

EnvelopePlot::EnvelopePlot(const Context& context, QWidget* parent)
    : Plot(context, EnvelopePlot::tr("Operating range"), parent), one_(plot_->addGraph()),
      wanted_(plot_->addGraph()), shots_(plot_->addGraph()), recommended_(plot_->addGraph()),
      setPoint_(plot_->addGraph()), rungs_(plot_->addGraph()) {
    setObjectName(QStringLiteral("envelopePlot"));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) {
        axis->setScaleType(QCPAxis::stLogarithmic);
        const QSharedPointer<QCPAxisTicker> ticker(new OneTwoFive);
        axis->setTicker(ticker);
        axis->setNumberFormat(QStringLiteral("gb"));
        axis->setNumberPrecision(4);
    }
    for (QCPGraph* g : {shots_, recommended_, setPoint_, rungs_}) g->setLineStyle(QCPGraph::lsNone);
    connect(plot_, &QCustomPlot::mousePress, this, [this](QMouseEvent* e) {
        const double x = plot_->xAxis->coordToPixel(set_.speed / speedUnit()),
                     y = plot_->yAxis->coordToPixel(set_.acceleration / accelerationUnit());
        dragging_ = e->button() == Qt::LeftButton && !context_.document.readOnly() &&
                    std::hypot(e->position().x() - x, e->position().y() - y) < 14.0;
    });
    connect(plot_, &QCustomPlot::mouseMove, this, [this](QMouseEvent* e) {
        if (!dragging_) return;
        const QRect inside = plot_->axisRect()->rect();
        const double x = std::clamp<double>(e->position().x(), inside.left(), inside.right()),
                     y = std::clamp<double>(e->position().y(), inside.top(), inside.bottom());
        emit dragged(plot_->xAxis->pixelToCoord(x) * speedUnit(),
                     plot_->yAxis->pixelToCoord(y) * accelerationUnit());
    });
    connect(plot_, &QCustomPlot::mouseRelease, this, [this] { dragging_ = false; });
    applyTheme();
}

double EnvelopePlot::speedUnit() const {
    return units::shownUnit(speedKind(kind_), context_.system()).factor;
}
double EnvelopePlot::accelerationUnit() const {
    return units::shownUnit(accelerationKind(kind_), context_.system()).factor;
}

void EnvelopePlot::applyTheme() {
    Plot::applyTheme();
    const Tokens& t = tokens();
    QColor wash = t.lake;
    wash.setAlpha(45);
    one_->setPen(QPen(t.lake, 1, Qt::DotLine));
    one_->setBrush(wash);
    wash.setAlpha(70);
    wanted_->setPen(QPen(t.lake, 1.5));
    wanted_->setBrush(wash);
    shots_->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, t.rust, t.rust, 8));
    recommended_->setScatterStyle(
        QCPScatterStyle(QCPScatterStyle::ssDiamond, QPen(t.moss, 2), Qt::NoBrush, 13));
    setPoint_->setScatterStyle(
        QCPScatterStyle(QCPScatterStyle::ssCrossCircle, QPen(t.ink, 1.5), Qt::NoBrush, 18));
    rungs_->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssSquare, QPen(t.plum, 1.5), t.sheet, 7));
    if (!limits_.envelope.empty()) placeTexts({});
}

void EnvelopePlot::show(const AxisLimits& limits, const Triple& set, AxisKind kind,
                        const QStringList& shotNames) {
    limits_ = limits;
    set_ = set;
    kind_ = kind;
    if (limits.problem != Reason::None || limits.envelope.empty()) {
        setEmptyText(limits.problem != Reason::None
                         ? EnvelopePlot::tr("No limits yet: %1.")
                               .arg(QString::fromUtf8(words::reasonText(limits.problem).data()))
                         : EnvelopePlot::tr("This drive cannot move its load at all; see Drives."));
        return;
    }
    setEmptyText({});
    const double v = speedUnit(), a = accelerationUnit();
    QVector<QCPGraphData> one, wanted;
    double top = 0.0;
    for (const EnvelopePoint& p : limits.envelope) {
        if (p.atOne > 0.0 && std::isfinite(p.atOne)) one.push_back({p.speed / v, p.atOne / a});
        if (p.atWanted > 0.0 && std::isfinite(p.atWanted)) wanted.push_back({p.speed / v, p.atWanted / a});
        if (std::isfinite(p.atOne)) top = std::max(top, p.atOne);
    }
    double low = set.acceleration;
    for (const StripShot& s : limits.shots)
        if (s.acceleration > 0.0) low = std::min(low, s.acceleration);
    if (low <= 0.0) low = top / 1e3;
    top = std::max(top, set.acceleration);
    plot_->xAxis->setRange(limits.envelope.front().speed / v, limits.envelope.back().speed / v);
    plot_->yAxis->setRange(0.3 * std::max(low, top * 1e-5) / a, 4.0 * top / a);
    for (QVector<QCPGraphData>* data : {&one, &wanted})
        if (!data->isEmpty()) data->push_back({data->back().key * 1.0001, plot_->yAxis->range().lower});
    one_->data()->set(one, true);
    wanted_->data()->set(wanted, true);
    QVector<QCPGraphData> shots;
    for (const StripShot& s : limits.shots) shots.push_back({s.speed / v, s.acceleration / a});
    shots_->data()->set(shots, false);
    recommended_->data()->set(
        QVector<QCPGraphData>{{limits.recommended.speed / v, limits.recommended.acceleration / a}}, true);
    setPoint_->data()->set(QVector<QCPGraphData>{{set.speed / v, set.acceleration / a}}, true);
    plot_->xAxis->setLabel(EnvelopePlot::tr("speed, %1").arg(context_.unit(speedKind(kind))));
    plot_->yAxis->setLabel(EnvelopePlot::tr("acceleration, %1").arg(context_.unit(accelerationKind(kind))));
    placeTexts(shotNames);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

void EnvelopePlot::showRungs(const std::vector<Rung>& ladder) {
    ladder_ = ladder;
    QVector<QCPGraphData> points;
    for (const Rung& r : ladder)
        points.push_back({r.speed / speedUnit(), r.acceleration / accelerationUnit()});
    rungs_->data()->set(points, false);
    QCPRange xs = plot_->xAxis->range(), ys = plot_->yAxis->range();
    for (const QCPGraphData& p : points) {
        xs.expand(p.key * 1.5);
        ys.expand(p.value * 2.0);
    }
    plot_->xAxis->setRange(xs);
    plot_->yAxis->setRange(ys);
    placeTexts({});
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

void EnvelopePlot::clear(const QString& text) {
    limits_ = {};
    setEmptyText(text);
}

void EnvelopePlot::placeTexts(const QStringList& shotNames) {
    for (QCPItemText* t : texts_) plot_->removeItem(t);
    for (QCPItemRect* r : bands_) plot_->removeItem(r);
    for (QCPItemStraightLine* l : lines_) plot_->removeItem(l);
    texts_.clear();
    bands_.clear();
    lines_.clear();
    const Tokens& t = tokens();
    const double v = speedUnit(), a = accelerationUnit();
    const QCPRange xs = plot_->xAxis->range(), ys = plot_->yAxis->range();
    const auto text = [&](double x, double y, const QString& words, const QColor& colour,
                          Qt::Alignment side) {
        auto* item = new QCPItemText(plot_);
        item->setPositionAlignment(side);
        item->setFont(textFont(10));
        item->setColor(colour);
        item->setPadding(QMargins(5, 2, 5, 2));
        item->setText(words);
        item->position->setCoords(x, y);
        texts_ << item;
    };
    // Where rungs lie close together the number of the first says enough.
    QPointF before(-1e9, -1e9);
    for (std::size_t i = 0; i < ladder_.size(); ++i) {
        const Rung& r = ladder_[i];
        const QPointF at(plot_->xAxis->coordToPixel(r.speed / v),
                         plot_->yAxis->coordToPixel(r.acceleration / a));
        if (std::hypot(at.x() - before.x(), at.y() - before.y()) < 16.0) continue;
        before = at;
        text(r.speed / v, r.acceleration / a, QString::number(i + 1), t.plum,
             Qt::AlignLeft | Qt::AlignVCenter);
    }
    for (const SpeedBand& b : limits_.bands) {
        if (b.high / v <= xs.lower || b.low / v >= xs.upper) continue;
        auto* rect = new QCPItemRect(plot_);
        QColor fill = b.reason == BandReason::Noise ? t.heather : t.straw;
        fill.setAlpha(55);
        rect->setBrush(fill);
        rect->setPen(Qt::NoPen);
        rect->topLeft->setCoords(std::max(xs.lower, b.low / v), ys.upper);
        rect->bottomRight->setCoords(std::min(xs.upper, b.high / v), ys.lower);
        bands_ << rect;
        // The first at the bottom; others above the shots, which mostly stand low.
        const double height = bands_.size() == 1 ? 0.06 : 0.5 - 0.08 * static_cast<double>(bands_.size() - 2);
        text(std::max(xs.lower, b.low / v), ys.lower * std::pow(ys.upper / ys.lower, height),
             bandName(b.reason), t.straw, Qt::AlignLeft | Qt::AlignVCenter);
    }
    // The two machine limits that bind, as lines.
    const auto upright = [&](const Limit& l, double at) {
        if (l.value / v >= xs.upper || l.value / v <= xs.lower) return;
        auto* line = new QCPItemStraightLine(plot_);
        line->setPen(QPen(t.brick, 1, Qt::DashLine));
        line->point1->setCoords(l.value / v, ys.lower);
        line->point2->setCoords(l.value / v, ys.upper);
        lines_ << line;
        text(l.value / v, ys.lower * std::pow(ys.upper / ys.lower, at),
             QString::fromUtf8(limitName(l.reason).data()), t.brick, Qt::AlignRight | Qt::AlignVCenter);
    };
    double at = 0.12;
    int shown = 0;
    for (const Limit& l : limits_.speed) {
        if (l.reason == LimitReason::Torque || l.reason == LimitReason::LowBattery || ++shown > 3) continue;
        upright(l, at);
        at += 0.09;
    }
    for (const Limit& l : limits_.acceleration) {
        const bool tips = l.reason == LimitReason::Tipping;
        if ((l.reason != LimitReason::RampPicture && !tips) || l.value / a <= ys.lower ||
            l.value / a >= ys.upper)
            continue;
        auto* line = new QCPItemStraightLine(plot_);
        line->setPen(QPen(tips ? t.brick : t.heather, 1, Qt::DashLine));
        line->point1->setCoords(xs.lower, l.value / a);
        line->point2->setCoords(xs.upper, l.value / a);
        lines_ << line;
        // Tipping at the right end, where the curves of the torque fall away; the vibration below its line at
        // the left, where neither their names nor the shots stand.
        text(tips ? xs.upper : xs.lower, l.value / a,
             tips ? EnvelopePlot::tr("tips above this")
                  : EnvelopePlot::tr("deflects past the jitter limit above this"),
             tips ? t.brick : t.heather,
             tips ? Qt::AlignRight | Qt::AlignBottom : Qt::AlignLeft | Qt::AlignTop);
    }
    const auto corner = [&](const QCPGraph* graph, const QString& words, Qt::Alignment side) {
        const auto data = graph->data();
        if (data->isEmpty()) return;
        const QCPGraphData first = *data->constBegin();
        text(first.key, first.value, words, t.lake, Qt::AlignLeft | side);
    };
    corner(one_, EnvelopePlot::tr("torque ×1"), Qt::AlignBottom);
    corner(wanted_, EnvelopePlot::tr("torque with the target margin"), Qt::AlignTop);
    for (qsizetype i = 0; i < shotNames.size() && i < static_cast<qsizetype>(limits_.shots.size()); ++i) {
        const StripShot& s = limits_.shots[static_cast<std::size_t>(i)];
        text(s.speed / v, s.acceleration / a, shotNames[i], t.rust, Qt::AlignRight | Qt::AlignVCenter);
    }
    text(limits_.recommended.speed / v, limits_.recommended.acceleration / a,
         EnvelopePlot::tr("   recommended"), t.moss, Qt::AlignLeft | Qt::AlignBottom);
    text(set_.speed / v, set_.acceleration / a, EnvelopePlot::tr("  set"), t.ink,
         Qt::AlignLeft | Qt::AlignTop);
    // What is set and recommended stands where it should; the rest makes room.
    QList<QCPItemText*> order(texts_.rbegin(), texts_.rend());
    keepApart(order);
}

QString EnvelopePlot::readOut(QPointF pixel) const {
    if (limits_.envelope.empty() || !plot_->axisRect()->rect().contains(pixel.toPoint())) return {};
    const double speed = plot_->xAxis->pixelToCoord(pixel.x()) * speedUnit();
    const auto it =
        std::min_element(limits_.envelope.begin(), limits_.envelope.end(),
                         [&](const EnvelopePoint& p, const EnvelopePoint& q) {
                             return std::abs(std::log(p.speed / speed)) < std::abs(std::log(q.speed / speed));
                         });
    return EnvelopePlot::tr("%1: up to %2 with the target margin, %3 at all; stops in %4, at the hardest %5")
        .arg(context_.show(it->speed, speedKind(kind_)), context_.show(it->atWanted, accelerationKind(kind_)),
             context_.show(it->atOne, accelerationKind(kind_)), context_.show(it->stopsIn, travelKind(kind_)),
             context_.show(it->stopsHard, travelKind(kind_)));
}

std::string EnvelopePlot::csv() const {
    using io::sevenDigits;
    const std::string u = kind_ == AxisKind::Linear ? "m" : "rad";
    io::CsvWriter out;
    out.line("speed_" + u + "_s", "acceleration_at_margin_1_" + u + "_s2",
             "acceleration_at_wanted_" + u + "_s2");
    for (const EnvelopePoint& p : limits_.envelope)
        out.line(sevenDigits(p.speed), sevenDigits(p.atOne), sevenDigits(p.atWanted));
    return out.text();
}

} // namespace gantry::app
