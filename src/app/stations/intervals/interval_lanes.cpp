// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/interval_lanes.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int left = 108, right = 22, top = 30, foot = 24;
enum Look { Moves, Settles, Wakes, Exposes, Writes, Spare, Lacks };

} // namespace

IntervalLanes::IntervalLanes(const Context& context, PlanDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    setObjectName(QStringLiteral("intervalLanes"));
    setAccessibleName(tr("One interval of the run"));
    setMouseTracking(true);
}

double IntervalLanes::xOf(double time) const {
    const double whole = heldScale_ > 0.0 ? heldScale_ : shown_;
    return left + (width() - left - right) * time / whole;
}

double IntervalLanes::timeAt(double x) const {
    const double whole = heldScale_ > 0.0 ? heldScale_ : shown_;
    return (x - left) / std::max(1, width() - left - right) * whole;
}

QRectF IntervalLanes::laneBox(int lane) const {
    const double each = (height() - top - foot) / std::max(1.0, static_cast<double>(lanes_.size()));
    return {static_cast<double>(left), top + each * lane, static_cast<double>(width() - left - right), each};
}

QRectF IntervalLanes::boxOf(const Bar& bar) const {
    const QRectF lane = laneBox(bar.lane);
    const double tall = std::min(22.0, lane.height() - 4.0), x = xOf(bar.from);
    return {x, lane.center().y() - 0.5 * tall, std::max(1.5, xOf(bar.to) - x), tall};
}

void IntervalLanes::refresh() {
    collect();
    update();
}

/// The interval after the picture that is looked at, from the moment its first bar begins.
void IntervalLanes::collect() {
    bars_.clear();
    lanes_.clear();
    words_.clear();
    const IntervalCourse* course = desk_.course();
    const IntervalPlan* plan = desk_.current();
    if (course == nullptr || plan == nullptr || course->pictures() < 2) return;
    const std::int64_t k = std::min(desk_.picture(), course->gaps().count() - 1);
    const IntervalCourse::Step step = course->step(k);
    const intervals::BudgetResults b = course->budgetOf(step);
    gap_ = course->gaps().gap(k);
    lanes_ << tr("Rig") << tr("Picture still");
    const bool moves = b.move.length() > 0.0;
    if (moves) {
        bars_.push_back({0, b.move.from, b.move.to, tr("move"), Moves, End::None, -1});
        if (b.settle.length() > 0.0)
            bars_.push_back({1, b.settle.from, b.settle.to, tr("settle"), Settles, End::Settle, -1});
    } else if (plan->mode == IntervalMode::Timers) {
        // By its own clock, wherever that is by now.
        const double counted =
            plan->clocks.countsFromEnd ? static_cast<double>(k) * course->longestExposure() : 0.0;
        const double opens = (course->gaps().timeOf(k) + counted) * (1.0 + plan->clocks.cameraSlow),
                     period = plan->clocks.rigInterval * (1.0 + plan->clocks.rigSlow), move = step.moveTime,
                     settle = step.settle;
        for (double m = std::max(0.0, std::ceil((opens - plan->clocks.offset - move - settle) / period));
             m * period + plan->clocks.offset < opens + gap_; ++m) {
            const double from = m * period + plan->clocks.offset - opens;
            bars_.push_back(
                {0, std::max(0.0, from), std::max(0.0, from + move), tr("move"), Moves, End::None, -1});
            if (settle > 0.0)
                bars_.push_back({1, std::max(0.0, from + move), std::max(0.0, from + move + settle),
                                 tr("settle"), Settles, End::None, -1});
        }
    } else if (plan->mode == IntervalMode::Runs) {
        bars_.push_back({0, 0.0, gap_, tr("moves on"), Moves, End::None, -1});
    }
    const std::vector<intervals::CameraTimes> cameras = course->cameraTimesAt(k);
    double ready = b.settle.to;
    for (std::size_t c = 0; c < cameras.size() && c < b.exposures.size(); ++c) {
        const int lane = static_cast<int>(lanes_.size()), camera = static_cast<int>(c);
        lanes_ << (c < plan->cameras.size() ? QString::fromStdString(plan->cameras[c].name) : tr("Camera"));
        const double opens = b.exposures[c].from, wakes = opens - cameras[c].lag - cameras[c].focus;
        if (cameras[c].focus > 0.0)
            bars_.push_back({lane, wakes, wakes + cameras[c].focus, tr("focus"), Wakes, End::Focus, camera});
        if (cameras[c].lag > 0.0)
            bars_.push_back({lane, wakes + cameras[c].focus, opens, tr("lag"), Wakes, End::None, camera});
        bars_.push_back({lane, opens, b.exposures[c].to, tr("exposure"), Exposes, End::Exposure, camera});
        if (b.writes[c].length() > 0.0)
            bars_.push_back(
                {lane, b.writes[c].from, b.writes[c].to, tr("write"), Writes, End::Write, camera});
        ready = std::max(ready, b.writes[c].to);
    }
    lanes_ << tr("Spare");
    const double least = b.least - plan->spare, spare = gap_ - least;
    const int last = static_cast<int>(lanes_.size()) - 1;
    if (spare >= 0.0)
        bars_.push_back({last, least, gap_, tr("spare"), Spare, End::None, -1});
    else
        bars_.push_back({last, gap_, least, tr("too long"), Lacks, End::None, -1});
    shown_ = 1.12 * std::max({gap_, least, ready});
    QStringList said;
    for (const Bar& bar : bars_)
        said << tr("%1 %2 %3").arg(lanes_[bar.lane], bar.name, context_.show(bar.to - bar.from, Kind::Time));
    words_ = tr("Interval of %1: %2").arg(context_.show(gap_, Kind::Time), said.join(QStringLiteral(" · ")));
    setAccessibleDescription(words_);
}

QPointF IntervalLanes::endAt(End end) const {
    if (end == End::Interval) return {xOf(gap_), static_cast<double>(top) + 2.0};
    for (const Bar& bar : bars_)
        if (bar.end == end) return {boxOf(bar).right(), boxOf(bar).center().y()};
    return {};
}

const IntervalLanes::Bar* IntervalLanes::barEndAt(QPointF at) const {
    constexpr double near = 6.0; // [px]
    for (const Bar& bar : bars_) {
        const QRectF box = boxOf(bar);
        if (bar.end != End::None && std::abs(at.x() - box.right()) < near && at.y() > box.top() - 2 &&
            at.y() < box.bottom() + 2)
            return &bar;
    }
    return nullptr;
}

void IntervalLanes::mousePressEvent(QMouseEvent* event) {
    held_ = {};
    heldScale_ = 0.0;
    if (event->button() != Qt::LeftButton || desk_.course() == nullptr || context_.document.readOnly())
        return;
    if (const Bar* taken = barEndAt(event->position())) {
        held_ = *taken;
    } else if (std::abs(event->position().x() - xOf(gap_)) < 6.0) {
        held_.end = End::Interval;
    } else {
        for (const Bar& bar : bars_)
            if (bar.look == Moves && boxOf(bar).contains(event->position()))
                emit message(tr("The rig's time comes from the limits that are set on its axes."), false);
        return;
    }
    heldScale_ = shown_;
}

void IntervalLanes::mouseMoveEvent(QMouseEvent* event) {
    if (held_.end != End::None) return drag(event->position().x());
    const bool over = barEndAt(event->position()) != nullptr ||
                      (!bars_.empty() && std::abs(event->position().x() - xOf(gap_)) < 6.0);
    setCursor(over ? Qt::SizeHorCursor : Qt::ArrowCursor);
}

void IntervalLanes::mouseReleaseEvent(QMouseEvent*) {
    held_ = {};
    heldScale_ = 0.0;
    refresh();
}

void IntervalLanes::leaveEvent(QEvent*) {
    unsetCursor();
}

/// To hundredths of a second of a short interval, tenths of a long one.
void IntervalLanes::drag(double x) {
    const double grid = shown_ < 20.0 ? 0.01 : 0.1;
    const auto onGrid = [&](double t) { return std::max(0.0, std::round(t / grid) * grid); };
    const double to = timeAt(x), length = onGrid(to - held_.from);
    const auto camera = static_cast<std::size_t>(std::max(0, held_.camera));
    const QString merge = QStringLiteral("lane end");
    switch (held_.end) {
    case End::Settle:
        return desk_.change(
            tr("Settling"),
            [&](IntervalPlan& p) {
                p.settleBy = SettleBy::Entered;
                p.settle = length;
            },
            merge);
    case End::Exposure: {
        // At the mark that this picture stands at or behind, where the exposure changes over the run.
        const std::int64_t k = desk_.picture();
        return desk_.change(
            tr("Exposure"),
            [&](IntervalPlan& p) {
                double* of = &p.exposure;
                int last = 0;
                for (ExposureMark& m : p.exposures)
                    if (m.picture - 1 <= k && m.picture > last) {
                        of = &m.exposure;
                        last = m.picture;
                    }
                *of = std::max(grid, length);
            },
            merge);
    }
    case End::Focus:
        return desk_.change(
            tr("Focus"), [&](IntervalPlan& p) { p.cameras[camera].focus = length; }, merge);
    case End::Write:
        return desk_.change(
            tr("Writing"), [&](IntervalPlan& p) { p.cameras[camera].write = length; }, merge);
    case End::Interval: {
        const double interval = std::max(grid, onGrid(to));
        return desk_.change(
            tr("Interval"),
            [&](IntervalPlan& p) {
                const double by = gap_ > 0.0 ? interval / gap_ : 1.0;
                if (p.follows == FollowingFact::Interval) p.follows = FollowingFact::Duration;
                p.interval = p.gaps == GapsGo::Even ? interval : p.interval * by;
                p.lastInterval = p.gaps == GapsGo::Even ? interval : p.lastInterval * by;
            },
            merge);
    }
    case End::None:
        break;
    }
}

void IntervalLanes::paintBars(QPainter& p) const {
    const Tokens& t = tokens();
    const auto wash = [](QColor c, int alpha) {
        c.setAlpha(alpha);
        return c;
    };
    struct Style {
        QColor line, fill;
        Qt::PenStyle pen;
    };
    const std::array<Style, 7> styles{Style{t.lake, t.lakeWash, Qt::SolidLine},
                                      Style{t.straw, wash(t.straw, 40), Qt::SolidLine},
                                      Style{t.second, wash(t.second, 26), Qt::SolidLine},
                                      Style{t.heather, wash(t.heather, 40), Qt::SolidLine},
                                      Style{t.second, wash(t.second, 26), Qt::SolidLine},
                                      Style{t.moss, Qt::transparent, Qt::DashLine},
                                      Style{t.brick, wash(t.brick, 40), Qt::SolidLine}};
    for (const Bar& bar : bars_) {
        const Style& s = styles[static_cast<std::size_t>(bar.look)];
        const QRectF box = boxOf(bar);
        p.setPen(QPen(s.line, 1.2, s.pen));
        p.setBrush(s.fill);
        p.drawRoundedRect(box, 3, 3);
        p.setFont(textFont(11));
        p.setPen(bar.look == Lacks ? t.brick : t.ink);
        const QString time = context_.show(bar.to - bar.from, Kind::Time);
        const QString both = tr("%1 %2").arg(bar.name, time);
        const int room = static_cast<int>(box.width()) - 6;
        // What finds no room in its bar is told in words beside the picture.
        if (p.fontMetrics().horizontalAdvance(both) <= room)
            p.drawText(box, Qt::AlignCenter, both);
        else if (p.fontMetrics().horizontalAdvance(time) <= room)
            p.drawText(box, Qt::AlignCenter, time);
    }
}

void IntervalLanes::paintScale(QPainter& p) const {
    const Tokens& t = tokens();
    double step = 0.01;
    for (const double of : {0.01, 0.02, 0.05,  0.1,   0.2,   0.5,    1.0,    2.0,    5.0,     10.0,   20.0,
                            30.0, 60.0, 120.0, 300.0, 600.0, 1800.0, 3600.0, 7200.0, 21600.0, 86400.0}) {
        step = of;
        if (xOf(of) - xOf(0.0) > 58) break;
    }
    const double whole = heldScale_ > 0.0 ? heldScale_ : shown_;
    p.setFont(textFont(10));
    for (double at = 0.0; at <= whole * (1.0 + 1e-9); at += step) {
        const double x = xOf(at);
        p.setPen(t.faintLine);
        p.drawLine(QPointF(x, top), QPointF(x, height() - foot));
        p.setPen(t.second);
        p.drawText(QRectF(x - 34, height() - foot + 3, 68, 14), Qt::AlignCenter,
                   context_.show(at, Kind::Time));
    }
    // The next picture.
    const double x = xOf(gap_);
    p.setPen(QPen(t.ink, 2));
    p.drawLine(QPointF(x, top - 6), QPointF(x, height() - foot));
    p.setPen(t.ink);
    const QString next = tr("next picture");
    const double wide = p.fontMetrics().horizontalAdvance(next) + 4.0;
    p.drawText(QRectF(std::min(x + 6.0, width() - wide - 6.0), top - 15, wide, 14),
               Qt::AlignLeft | Qt::AlignVCenter, next);
    // Where the play head is within the interval.
    if (desk_.within() > 0.0) {
        const double now = xOf(std::min(desk_.within(), gap_));
        p.setPen(QPen(t.brick, 1.4));
        p.drawLine(QPointF(now, top), QPointF(now, height() - foot));
    }
}

void IntervalLanes::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1));
    if (bars_.empty()) {
        p.setFont(textFont(12));
        p.setPen(t.second);
        p.drawText(
            rect().adjusted(20, 10, -20, -10), Qt::AlignCenter | Qt::TextWordWrap,
            desk_.current() == nullptr
                ? tr("No plan yet. Press “New plan”: it takes pictures along the first move, or by the "
                     "distances of the first shot.")
                : tr("This plan cannot run yet; the verdict beside says what it lacks."));
        return;
    }
    paintScale(p);
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    const QString lead = tr("One interval of %1").arg(context_.show(gap_, Kind::Time));
    p.drawText(QRectF(12, 6, width() - 24, 18), Qt::AlignLeft | Qt::AlignVCenter, lead);
    const int used = p.fontMetrics().horizontalAdvance(lead) + 24;
    p.setFont(textFont(11));
    p.setPen(t.second);
    const int room = static_cast<int>(xOf(gap_)) - used - 16;
    p.drawText(QRectF(used, 6, std::max(0, room), 18), Qt::AlignLeft | Qt::AlignVCenter,
               wholeParts(p.fontMetrics(), tr("picture %1 · drag any end").arg(desk_.picture() + 1),
                          std::max(60, room)));
    p.setFont(textFont(11));
    p.setPen(t.ink);
    for (int i = 0; i < lanes_.size(); ++i)
        p.drawText(QRectF(12, laneBox(i).top(), left - 18, laneBox(i).height()), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), lanes_[i], left - 18));
    paintBars(p);
}

} // namespace gantry::app
