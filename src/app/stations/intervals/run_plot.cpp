// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/run_plot.h"

#include "app/theme/card.h"
#include "app/theme/curve.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int plotLeft = 108, plotRight = 92, plotTop = 30, plotFoot = 36, bandHeight = 20;

/// Curve of values over pictures as shares of a strip that shows from 0 to `high`.
QPolygonF shares(const std::vector<std::int64_t>& looks, const std::vector<double>& values, double high) {
    QPolygonF out;
    for (std::size_t i = 0; i < looks.size() && i < values.size(); ++i)
        out << QPointF(static_cast<double>(looks[i]), high > 0.0 ? values[i] / high : 0.0);
    return out;
}

} // namespace

RunPlot::RunPlot(const Context& context, PlanDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    setObjectName(QStringLiteral("runPlot"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The whole run"));
}

double RunPlot::xOf(double picture) const {
    const IntervalCourse* c = desk_.course();
    const double last = c != nullptr ? std::max(1.0, static_cast<double>(c->pictures() - 1)) : 1.0;
    return plotLeft + (width() - plotLeft - plotRight) * picture / last;
}

QRectF RunPlot::stripBox(std::size_t strip) const {
    const double band = spans_.empty() && !presence_ ? 0.0 : bandHeight + 4.0;
    const double each = (height() - plotTop - plotFoot - band) /
                        static_cast<double>(std::max<std::size_t>(1, strips_.size()));
    return {static_cast<double>(plotLeft), plotTop + each * static_cast<double>(strip),
            static_cast<double>(width() - plotLeft - plotRight), each - 6.0};
}

void RunPlot::refresh() {
    collect();
    update();
}

void RunPlot::collect() {
    strips_.clear();
    spans_.clear();
    words_.clear();
    presence_ = false;
    const IntervalCourse* c = desk_.course();
    if (c == nullptr || c->pictures() < 2 || desk_.results() == nullptr) return;
    std::vector<std::int64_t> looks = c->samples();
    looks.pop_back(); // from the last picture nothing goes on
    collectSteps(*c, looks);
    collectSharpness(*c, looks);
    collectExposure(*c, looks);
    collectBattery(*c, c->samples());
    collectSpans(*c);
    QStringList said;
    for (const Strip& s : strips_)
        said << (s.failsName.isEmpty() ? tr("%1 %2").arg(s.name, s.range)
                                       : tr("%1 %2, %3").arg(s.name, s.range, s.failsName));
    words_ = said.join(QStringLiteral(" · "));
    setAccessibleDescription(words_);
}

/// The step of the axis that goes through most of the picture.
void RunPlot::collectSteps(const IntervalCourse& c, const std::vector<std::int64_t>& looks) {
    const IntervalResults& r = *desk_.results();
    std::size_t axis = r.axes.size();
    double most = -1.0;
    for (std::size_t a = 0; a < r.axes.size(); ++a)
        if (r.axes[a].moves && r.axes[a].largestStep.valueOr(0.0) * c.pixelsPerUnit(a) > most) {
            most = r.axes[a].largestStep.valueOr(0.0) * c.pixelsPerUnit(a);
            axis = a;
        }
    if (axis == r.axes.size()) return;
    std::vector<double> steps;
    double high = 0.0;
    for (const std::int64_t k : looks) {
        steps.push_back(std::abs(c.stepAt(k, axis)));
        high = std::max(high, steps.back());
    }
    const Axis& of = context_.document.project().axes[axis];
    Strip s;
    s.axis = static_cast<int>(axis);
    s.name = tr("Step, %1").arg(QString::fromStdString(of.name));
    s.range =
        tr("%1 most").arg(context_.show(high, kindOf(of) == AxisKind::Linear ? Kind::Length : Kind::Angle));
    s.curve = shares(looks, steps, 1.15 * high);
    strips_.push_back(s);
}

void RunPlot::collectSharpness(const IntervalCourse& c, const std::vector<std::int64_t>& looks) {
    const IntervalResults& r = *desk_.results();
    if (!r.sharp.allowed) return;
    const bool runs = c.plan().mode == IntervalMode::Runs;
    if (!runs && !r.sharp.left) return;
    const double limit = runs ? 0.0 : r.sharp.allowed.value();
    std::vector<double> values;
    double high = 0.0;
    for (const IntervalCourse::Step& step : desk_.steps()) {
        const std::int64_t k = step.picture;
        values.push_back(runs ? step.inPicture / c.gaps().gap(k) * c.exposureOf(k) : c.leftOf(step));
        high = std::max(high, values.back());
    }
    Strip s;
    s.name = runs ? tr("Smear") : tr("Vibration left");
    s.range = runs ? tr("%1 most").arg(context_.show(high, Kind::Pixels))
                   : tr("%1 allowed").arg(context_.show(limit, Kind::Pixels));
    const double shown = 1.15 * std::max(high, limit);
    s.curve = shares(looks, values, shown);
    if (!runs && shown > 0.0) {
        s.limit = limit / shown;
        s.limitName = tr("limit");
        s.over = high > limit;
    }
    strips_.push_back(s);
}

void RunPlot::collectExposure(const IntervalCourse& c, const std::vector<std::int64_t>& looks) {
    if (c.plan().exposures.empty()) return;
    std::vector<double> values;
    double low = 1e300, high = 0.0;
    for (const std::int64_t k : looks) {
        values.push_back(c.exposureOf(k));
        low = std::min(low, values.back());
        high = std::max(high, values.back());
    }
    // In stops, as light goes.
    const double stops = std::max(1e-9, std::log2(high / low));
    Strip s;
    s.name = tr("Exposure");
    s.range = tr("%1 to %2")
                  .arg(context_.show(c.exposureOf(0), Kind::Time),
                       context_.show(c.exposureOf(c.pictures() - 1), Kind::Time));
    for (std::size_t i = 0; i < looks.size(); ++i)
        s.curve << QPointF(static_cast<double>(looks[i]), 0.08 + 0.8 * std::log2(values[i] / low) / stops);
    strips_.push_back(s);
}

void RunPlot::collectBattery(const IntervalCourse& c, const std::vector<std::int64_t>& looks) {
    const IntervalResults& r = *desk_.results();
    if (!r.energy.there) return;
    std::vector<double> values;
    values.reserve(looks.size());
    for (const std::int64_t k : looks)
        values.push_back(std::max(0.0, 1.0 - desk_.chargeTaken(k).value_or(0.0)));
    Strip s;
    s.name = tr("Battery");
    s.range = tr("%1 at the end").arg(context_.show(values.back(), Kind::Percentage));
    s.curve = shares(looks, values, 1.15);
    s.limit = 0.0;
    s.limitName = tr("flat");
    if (r.energy.flatAt) {
        s.over = true;
        s.range = tr("empty too soon");
        s.fails = r.energy.flatAt.value() - 1.0;
        s.failsName = tr("flat at picture %1").arg(context_.show(r.energy.flatAt, Kind::Count, 7));
    }
    Q_UNUSED(c);
    strips_.push_back(s);
}

/// Pictures that are to be deleted, in spans.
void RunPlot::collectSpans(const IntervalCourse& c) {
    presence_ = !c.plan().sensors.empty() || !c.plan().pauses.empty();
    const IntervalRun* run = desk_.run();
    if (run == nullptr) return;
    constexpr std::int64_t most = 20'000; // of longer runs the first so many
    const std::int64_t frames = std::min(run->frames(), most);
    if (run->deleted() == 0) return;
    for (std::int64_t i = 0; i < frames; ++i) {
        if (!run->at(i).deleted) continue;
        const auto at = static_cast<double>(i);
        if (!spans_.empty() && spans_.back().to == at)
            spans_.back().to = at + 1.0;
        else
            spans_.push_back({at, at + 1.0, c.plan().sensors.empty()});
    }
}

void RunPlot::headTo(double x) {
    const IntervalCourse* c = desk_.course();
    if (c == nullptr) return;
    const double share = (x - plotLeft) / std::max(1, width() - plotLeft - plotRight);
    desk_.setPicture(std::llround(share * static_cast<double>(c->pictures() - 1)));
}

void RunPlot::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton) headTo(event->position().x());
}

void RunPlot::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons().testFlag(Qt::LeftButton)) headTo(event->position().x());
}

void RunPlot::keyPressEvent(QKeyEvent* event) {
    const IntervalCourse* c = desk_.course();
    if (c == nullptr) return QWidget::keyPressEvent(event);
    const std::int64_t far = std::max<std::int64_t>(1, c->pictures() / 20);
    switch (event->key()) {
    case Qt::Key_Left:
        return desk_.setPicture(desk_.picture() - (event->modifiers() & Qt::ShiftModifier ? far : 1));
    case Qt::Key_Right:
        return desk_.setPicture(desk_.picture() + (event->modifiers() & Qt::ShiftModifier ? far : 1));
    case Qt::Key_Home:
        return desk_.setPicture(0);
    case Qt::Key_End:
        return desk_.setPicture(c->pictures() - 1);
    case Qt::Key_Space:
        emit playWanted();
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

QString RunPlot::readOut() const {
    const IntervalCourse* c = desk_.course();
    if (c == nullptr) return {};
    const std::int64_t k = desk_.picture();
    QStringList said{tr("picture %1").arg(k + 1), context_.show(c->clockAt(k), Kind::TimeOfDay)};
    const Project& project = context_.document.project();
    const std::vector<double> places = c->placesAt(k);
    for (std::size_t a = 0; a < places.size() && a < project.axes.size(); ++a)
        if (c->moves(a))
            said << tr("%1 at %2")
                        .arg(QString::fromStdString(project.axes[a].name),
                             context_.show(places[a],
                                           kindOf(project.axes[a]) == AxisKind::Linear ? Kind::Length
                                                                                       : Kind::Angle,
                                           4));
    if (const auto taken = desk_.chargeTaken(k))
        said << tr("battery %1").arg(context_.show(std::max(0.0, 1.0 - *taken), Kind::Percentage));
    return said.join(QStringLiteral(" · "));
}

void RunPlot::paintStrips(QPainter& p) const {
    const Tokens& t = tokens();
    for (std::size_t i = 0; i < strips_.size(); ++i) {
        const Strip& s = strips_[i];
        const QRectF box = stripBox(i);
        const auto y = [&](double share) { return box.bottom() - share * box.height(); };
        p.setPen(t.faintLine);
        p.drawLine(box.bottomLeft(), box.bottomRight());
        if (s.limit >= 0.0) {
            p.setPen(QPen(t.brick, 1, Qt::DashLine));
            p.drawLine(QPointF(box.left(), y(s.limit)), QPointF(box.right(), y(s.limit)));
            p.setFont(textFont(10));
            p.setPen(t.brick);
            p.drawText(QRectF(box.right() + 6, y(s.limit) - 8, plotRight - 10, 16),
                       Qt::AlignLeft | Qt::AlignVCenter, s.limitName);
        }
        QPolygonF curve;
        for (const QPointF& at : s.curve) curve << QPointF(xOf(at.x()), y(at.y()));
        drawCurve(p, curve, s.axis >= 0 ? axisPen(s.axis, 2.0) : QPen(s.over ? t.brick : t.moss, 1.8));
        if (s.fails >= 0.0) {
            const double x = xOf(s.fails);
            p.setBrush(t.brick);
            p.setPen(Qt::NoPen);
            p.drawEllipse(QPointF(x, y(std::max(0.0, s.limit))), 4, 4);
            p.setFont(textFont(10));
            p.setPen(t.brick);
            const double wide = p.fontMetrics().horizontalAdvance(s.failsName) + 4.0;
            p.drawText(QRectF(std::max(box.left(), x - wide - 6.0), y(std::max(0.0, s.limit)) - 16, wide, 14),
                       Qt::AlignRight | Qt::AlignVCenter, s.failsName);
        }
        p.setFont(textFont(11));
        p.setPen(t.ink);
        p.drawText(QRectF(12, box.top(), plotLeft - 18, 15), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), s.name, plotLeft - 18));
        p.setFont(textFont(10));
        p.setPen(s.over ? t.brick : t.second);
        p.drawText(QRectF(12, box.top() + 15, plotLeft - 18, 13), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), s.range, plotLeft - 18));
    }
}

void RunPlot::paintSpans(QPainter& p) const {
    if (spans_.empty() && !presence_) return;
    const Tokens& t = tokens();
    const QRectF band(plotLeft, height() - plotFoot - bandHeight, width() - plotLeft - plotRight,
                      bandHeight - 6);
    p.setFont(textFont(11));
    p.setPen(t.ink);
    p.drawText(QRectF(12, band.top() - 1, plotLeft - 18, band.height() + 2), Qt::AlignVCenter,
               fitted(p.fontMetrics(), tr("Presence"), plotLeft - 18));
    p.setPen(Qt::NoPen);
    p.setBrush(t.lakeWash);
    p.drawRect(band);
    p.setFont(textFont(10));
    for (const Span& s : spans_) {
        const QRectF box(xOf(s.from), band.top(), std::max(2.0, xOf(s.to) - xOf(s.from)), band.height());
        p.setPen(QPen(t.straw, 1, Qt::DashLine));
        p.setBrush(t.sheet);
        p.drawRect(box);
    }
    if (!spans_.empty()) {
        p.setPen(t.straw);
        std::int64_t all = 0;
        for (const Span& s : spans_) all += std::llround(s.to - s.from);
        p.drawText(QRectF(band.right() + 6, band.top() - 1, plotRight - 8, band.height() + 2),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   fitted(p.fontMetrics(),
                          spans_.size() == 1 && all > 1
                              ? tr("delete %1–%2").arg(spans_[0].from + 1.0).arg(spans_[0].to)
                              : tr("delete %1").arg(all),
                          plotRight - 10));
    }
}

void RunPlot::paintScale(QPainter& p) const {
    const Tokens& t = tokens();
    const IntervalCourse& c = *desk_.course();
    const auto last = static_cast<double>(c.pictures());
    double step = 1.0;
    for (double of = 1.0; of < last; of *= 10.0)
        for (const double by : {1.0, 2.0, 5.0}) {
            step = of * by;
            if (xOf(step) - xOf(0.0) > 64) {
                of = last;
                break;
            }
        }
    p.setFont(textFont(10));
    // Pictures count from 1.
    const auto mark = [&](double picture) {
        const double x = xOf(picture - 1.0);
        p.setPen(t.faintLine);
        p.drawLine(QPointF(x, plotTop), QPointF(x, height() - plotFoot));
        p.setPen(t.second);
        p.drawText(QRectF(x - 32, height() - plotFoot + 2, 64, 14), Qt::AlignCenter,
                   context_.show(picture, Kind::Count, 7));
    };
    mark(1.0);
    for (double picture = step; picture < last - 0.5 * step; picture += step)
        if (picture > 1.0 && xOf(picture) - xOf(1.0) > 30) mark(picture);
    mark(last);
    p.setPen(t.second);
    p.drawText(QRectF(plotLeft, height() - 18, width() - plotLeft - plotRight, 14),
               Qt::AlignRight | Qt::AlignVCenter,
               tr("picture · %1 to %2 on the clock")
                   .arg(context_.show(c.clockAt(0), Kind::TimeOfDay),
                        context_.show(desk_.results()->endsAfter, Kind::TimeOfDay)));
}

void RunPlot::paintHead(QPainter& p) const {
    const Tokens& t = tokens();
    const IntervalCourse& c = *desk_.course();
    const double gap = desk_.picture() + 1 < c.pictures() ? c.gaps().gap(desk_.picture()) : 1.0;
    const double x =
        xOf(static_cast<double>(desk_.picture()) + std::min(1.0, desk_.within() / std::max(1e-9, gap)));
    p.setPen(QPen(t.ink, 1));
    p.setBrush(t.ink);
    p.drawLine(QPointF(x, plotTop - 2), QPointF(x, height() - plotFoot));
    p.drawRoundedRect(QRectF(x - 8, plotTop - 8, 16, 7), 2, 2);
}

void RunPlot::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1));
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    const QString title = tr("The whole run");
    p.drawText(QRectF(12, 6, width() - 24, 16), Qt::AlignLeft | Qt::AlignVCenter, title);
    const int used = p.fontMetrics().horizontalAdvance(title) + 24;
    if (strips_.empty()) {
        p.setFont(textFont(12));
        p.setPen(t.second);
        p.drawText(rect().adjusted(20, 10, -20, -10), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Nothing to show yet: a run needs two pictures and a way."));
        return;
    }
    p.setFont(textFont(11));
    p.setPen(t.second);
    p.drawText(QRectF(used, 6, width() - used - 12, 16), Qt::AlignRight | Qt::AlignVCenter,
               wholeParts(p.fontMetrics(), readOut(), width() - used - 12));
    paintScale(p);
    paintStrips(p);
    paintSpans(p);
    paintHead(p);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.lake, 1));
        p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -1.5, -1.5), 6, 6);
    }
}

} // namespace gantry::app
