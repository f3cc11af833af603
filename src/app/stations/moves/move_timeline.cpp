// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/move_timeline.h"

#include "app/theme/card.h"
#include "app/theme/curve.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/evaluate/move/move_picture.h"
#include "core/evaluate/move/segment_aims.h"
#include "core/verdicts/moves/move_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using trajectory::Order;
using units::Kind;
constexpr int left = 104, right = 20, flagsTop = 8, flagHeight = 20, lanesTop = 60, timesHeight = 20;

Kind kindOfLane(const Axis& axis, LaneShows shows) {
    const bool linear = kindOf(axis) == AxisKind::Linear;
    switch (shows) {
    case LaneShows::Place:
        return linear ? Kind::Length : Kind::Angle;
    case LaneShows::Acceleration:
        return linear ? Kind::Acceleration : Kind::AngularAcceleration;
    case LaneShows::Speed:
        break;
    }
    return linear ? Kind::Speed : Kind::AngularSpeed;
}

Order orderOf(LaneShows shows) {
    return shows == LaneShows::Place          ? Order::Place
           : shows == LaneShows::Acceleration ? Order::Acceleration
                                              : Order::Speed;
}

/// "100 to 787 mm": a unit that both have is said once.
QString fromTo(QString from, const QString& to) {
    const qsizetype space = to.lastIndexOf(QLatin1Char(' '));
    if (space > 0 && from.endsWith(to.mid(space))) from.chop(to.size() - space);
    return MoveTimeline::tr("%1 to %2").arg(from, to);
}

} // namespace

MoveTimeline::MoveTimeline(const Context& context, MoveDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    setObjectName(QStringLiteral("moveTimeline"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Timeline of the move"));
}

void MoveTimeline::setShows(LaneShows shows) {
    shows_ = shows;
    refresh();
}

double MoveTimeline::whole() const {
    return held_ > 0.0 ? held_ : desk_.duration();
}

double MoveTimeline::xOf(double time) const {
    return left + (width() - left - right) * time / std::max(whole(), 1e-9);
}

double MoveTimeline::timeAt(double x) const {
    return (x - left) / std::max(1, width() - left - right) * whole();
}

QRectF MoveTimeline::laneBox(std::size_t lane) const {
    const double room = height() - lanesTop - timesHeight - 4;
    const double each = room / static_cast<double>(std::max<std::size_t>(1, lanes_.size()));
    return {static_cast<double>(left), lanesTop + each * static_cast<double>(lane),
            static_cast<double>(width() - left - right), each - 4};
}

QPointF MoveTimeline::flagAt(int pose) const {
    const PlannedMove* m = desk_.planned();
    if (m == nullptr || pose < 0 || pose >= static_cast<int>(m->plan.poseTimes.size())) return {};
    return {xOf(m->plan.poseTimes[static_cast<std::size_t>(pose)]), flagsTop + 0.5 * flagHeight};
}

QPointF MoveTimeline::headAt() const {
    return {xOf(desk_.time()), static_cast<double>(lanesTop) - 8};
}

void MoveTimeline::refresh() {
    collect();
    update();
}

void MoveTimeline::collect() {
    lanes_.clear();
    QStringList said;
    const PlannedMove* m = desk_.planned();
    const Project& project = context_.document.project();
    const MoveResults* results = desk_.results();
    if (m != nullptr && results != nullptr && !m->plan.trajectory.empty()) {
        const trajectory::Trajectory& t = m->plan.trajectory;
        const Order order = orderOf(shows_);
        for (std::size_t a = 0; a < project.axes.size(); ++a) {
            if (!(m->topSpeeds[a] > 0.0)) continue; // it stands, and has no lane
            Lane& lane = lanes_.emplace_back();
            lane.axis = static_cast<int>(a);
            lane.name = QString::fromStdString(project.axes[a].name);
            const trajectory::Extremes e = t.extremes(a, order);
            const motion::Limits& l = m->scene.limits[a];
            const Kind kind = kindOfLane(project.axes[a], shows_);
            if (shows_ == LaneShows::Place) {
                lane.limit = m->scene.travels[a];
                lane.low = std::min(0.0, e.least);
                lane.high = std::max(lane.limit, e.greatest);
                lane.over = e.least < -1e-9 || e.greatest > lane.limit * (1.0 + 1e-9);
                lane.range = fromTo(context_.show(e.least, kind), context_.show(e.greatest, kind));
            } else {
                lane.limit = shows_ == LaneShows::Speed ? l.speed : l.acceleration;
                lane.over = e.largest() > lane.limit * (1.0 + 1e-6);
                // As much of the limit as is used, and a tenth more; the limit itself where it is near.
                const double top = std::max(e.largest(), std::min(lane.limit, 1.6 * e.largest())) * 1.08;
                lane.low = e.least < -1e-12 ? -top : 0.0;
                lane.high = e.greatest > 1e-12 || e.least >= 0.0 ? top : 0.0;
                lane.range = context_.show(e.largest(), kind);
            }
            constexpr int points = 400;
            for (int i = 0; i <= points; ++i) {
                const double at = t.duration() * i / points;
                const trajectory::State s = t.at(a, at);
                const double v = shows_ == LaneShows::Place          ? s.place
                                 : shows_ == LaneShows::Acceleration ? s.acceleration
                                                                     : s.speed;
                lane.curve << QPointF(at, (v - lane.low) / std::max(lane.high - lane.low, 1e-12));
            }
            said << tr("%1 up to %2").arg(lane.name, lane.range);
            const MoveAxisResults& axis = results->axes[a];
            if (!(axis.overshoot.valueOr(0.0) > 0.0)) continue;
            if (shows_ == LaneShows::Place) collectPast(lane, *m);
            said << tr("%1 goes %2 past its poses at %3")
                        .arg(lane.name,
                             context_.show(axis.overshoot, kindOfLane(project.axes[a], LaneShows::Place)),
                             context_.show(axis.overshootAt, Kind::Time));
        }
        collectPicture(said);
    }
    words_ = said.join(QStringLiteral(" · "));
    setAccessibleDescription(words_);
}

/// What of an axis' way lies past the poses on either side of it.
void MoveTimeline::collectPast(Lane& lane, const PlannedMove& m) const {
    const SegmentAims aims(m.scene, *desk_.current());
    const auto axis = static_cast<std::size_t>(lane.axis);
    const auto share = [&](double place) { return (place - lane.low) / (lane.high - lane.low); };
    for (const SegmentPlan& s : m.plan.segments) {
        if (s.aimed && aims.leads(s.pose, axis)) continue;
        const auto [low, high] = std::minmax(m.plan.poses[s.pose - 1][axis], m.plan.poses[s.pose][axis]);
        QPolygonF out, level;
        constexpr int points = 120;
        for (int i = 0; i <= points; ++i) {
            const double at = s.from + (s.to - s.from) * i / points;
            const double place = m.plan.trajectory.at(axis, at).place, kept = std::clamp(place, low, high);
            if (place != kept) {
                out << QPointF(at, share(place));
                level.prepend(QPointF(at, share(kept)));
            }
            if ((place == kept || i == points) && !out.isEmpty()) {
                lane.past << out + level;
                out.clear();
                level.clear();
            }
        }
    }
}

/// How far the target is off its way and out of focus, both as shares of what is allowed.
void MoveTimeline::collectPicture(QStringList& said) {
    const Project& project = context_.document.project();
    const RigMove& move = *desk_.current();
    const PlannedMove& m = *desk_.planned();
    const Figure allowed = rules::driftAllowed(project, static_cast<std::size_t>(desk_.move()));
    if (move.targets.empty() || !allowed || !(allowed.value() > 0.0)) return;
    const RigSetup rig = setupOf(project, Courses::No);
    const MovePicture picture(rig, move, m);
    Lane lane;
    lane.name = tr("Picture");
    double off = 0.0, blur = 0.0, most = 0.0;
    constexpr int points = 300;
    for (int i = 0; i <= points; ++i) {
        const double at = m.plan.trajectory.duration() * i / points;
        const auto seen = picture.at(at);
        if (!seen) continue;
        const double share = seen->off / allowed.value(),
                     soft = seen->focusBlur.value_or(0.0) / criteria::sharpness;
        off = std::max(off, seen->off);
        blur = std::max(blur, seen->focusBlur.value_or(0.0));
        most = std::max({most, share, soft});
        lane.curve << QPointF(at, share);
        lane.second << QPointF(at, soft);
    }
    if (lane.curve.isEmpty()) return;
    lane.limit = 1.0;
    lane.over = most > 1.0;
    // Room above for what the lines are.
    lane.high = 1.35 * std::max(1.0, most);
    for (QPolygonF* curve : {&lane.curve, &lane.second})
        for (QPointF& p : *curve) p.setY(p.y() / lane.high);
    // What is left of an aim is rounding.
    constexpr double nothing = 1e-3;
    if (off < nothing) off = 0.0;
    // Whichever is nearer to what is allowed.
    lane.range = off / allowed.value() >= blur / criteria::sharpness
                     ? tr("%1 off").arg(context_.show(off, Kind::Pixels))
                     : tr("%1 soft").arg(context_.show(blur, Kind::Pixels));
    said << tr("target off its way by up to %1, out of focus by up to %2")
                .arg(context_.show(off, Kind::Pixels), context_.show(blur, Kind::Pixels));
    lanes_.push_back(std::move(lane));
}

void MoveTimeline::paintFlags(QPainter& p) const {
    const Tokens& t = tokens();
    const PlannedMove* m = desk_.planned();
    const MoveResults* results = desk_.results();
    if (m == nullptr || results == nullptr) return;
    p.setFont(textFont(11));
    for (std::size_t i = 0; i < m->plan.segments.size(); ++i) {
        const SegmentPlan& s = m->plan.segments[i];
        const QRectF box(xOf(s.from) + 11, flagsTop, xOf(s.to) - xOf(s.from) - 22, flagHeight);
        if (box.width() < 6) continue;
        const bool over = less(rules::limitRatio(results->segments[i]), 1.0);
        p.setPen(Qt::NoPen);
        QColor fill = over ? t.brick : t.lakeWash;
        if (over) fill.setAlpha(45);
        p.setBrush(fill);
        p.drawRoundedRect(box, 10, 10);
        QStringList said{context_.show(s.to - s.from, Kind::Time)};
        said << (s.aimed ? tr("aimed") : tr("straight"));
        if (over) said << tr("too quick");
        p.setPen(over ? t.brick : t.lake);
        // The time at least, and as much more as there is room for.
        const auto wide = [&] { return p.fontMetrics().horizontalAdvance(said.join(QStringLiteral(" · "))); };
        while (said.size() > 1 && wide() > box.width() - 10) said.removeLast();
        if (wide() <= box.width() - 4) p.drawText(box, Qt::AlignCenter, said.join(QStringLiteral(" · ")));
    }
    p.setFont(textFont(11, true));
    for (int i = 0; i < static_cast<int>(m->plan.poseTimes.size()); ++i) {
        const QPointF at = flagAt(i);
        const bool chosen = i == desk_.pose();
        p.setPen(QPen(t.lake, 1));
        p.drawLine(QPointF(at.x(), flagsTop + flagHeight), QPointF(at.x(), height() - timesHeight));
        p.setBrush(chosen ? t.lake : t.sheet);
        const double w = 9;
        p.drawPolygon(QPolygonF{
            QPointF(at.x() - w, flagsTop), QPointF(at.x() + w, flagsTop), QPointF(at.x() + w, flagsTop + 15),
            QPointF(at.x(), flagsTop + flagHeight + 3), QPointF(at.x() - w, flagsTop + 15)});
        p.setPen(chosen ? t.onLake : t.lake);
        p.drawText(QRectF(at.x() - 9, flagsTop, 18, 16), Qt::AlignCenter,
                   QString::fromStdString(poseLetter(static_cast<std::size_t>(i))));
    }
    // Names of poses, where they have room up to the next.
    p.setFont(textFont(10));
    p.setPen(t.second);
    const RigMove& move = *desk_.current();
    for (int i = 0; i < static_cast<int>(m->plan.poseTimes.size()); ++i) {
        const QString name = QString::fromStdString(move.poses[static_cast<std::size_t>(i)].name);
        const double from = flagAt(i).x() + 5, to = i + 1 < static_cast<int>(m->plan.poseTimes.size())
                                                        ? flagAt(i + 1).x() - 4
                                                        : width() - 4;
        const int wide = p.fontMetrics().horizontalAdvance(name);
        if (name.isEmpty()) continue;
        if (wide <= to - from)
            p.drawText(QRectF(from, flagsTop + flagHeight + 1, wide + 2, 14), Qt::AlignVCenter, name);
        else if (i + 1 == static_cast<int>(m->plan.poseTimes.size()) &&
                 wide < flagAt(i).x() - flagAt(i - 1).x() - 20)
            p.drawText(QRectF(flagAt(i).x() - wide - 6, flagsTop + flagHeight + 1, wide + 2, 14),
                       Qt::AlignVCenter, name);
    }
}

void MoveTimeline::paintLanes(QPainter& p) const {
    const Tokens& t = tokens();
    for (std::size_t i = 0; i < lanes_.size(); ++i) {
        const Lane& lane = lanes_[i];
        const QRectF box = laneBox(i);
        const auto y = [&](double share) { return box.bottom() - 2 - share * (box.height() - 4); };
        const auto yOf = [&](double v) { return y((v - lane.low) / std::max(lane.high - lane.low, 1e-12)); };
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(box.left(), yOf(0.0)), QPointF(box.right(), yOf(0.0)));
        const QBrush dots(lane.over ? t.brick : t.third,
                          Qt::Dense4Pattern); // a dotted pen takes ten times as long
        for (const double limit : {lane.limit, -lane.limit})
            if (limit >= lane.low && limit <= lane.high && limit != 0.0)
                p.fillRect(QRectF(box.left(), std::round(yOf(limit)), box.width(), 1.0), dots);
        const auto draw = [&](const QPolygonF& shares, const QPen& pen) {
            QPolygonF curve;
            for (const QPointF& at : shares) curve << QPointF(xOf(at.x()), y(at.y()));
            drawCurve(p, curve, pen);
        };
        QColor excess = t.brick;
        excess.setAlpha(110);
        for (const QPolygonF& past : lane.past) {
            QPolygonF area;
            for (const QPointF& at : past) area << QPointF(xOf(at.x()), y(at.y()));
            p.setPen(Qt::NoPen);
            p.setBrush(excess);
            p.drawPolygon(area);
        }
        draw(lane.second, QPen(t.third, 1.6, Qt::DashLine));
        draw(lane.curve, lane.axis < 0 ? QPen(t.ink, 1.6) : axisPen(lane.axis, 2.0));
        if (lane.axis < 0) { // which line is which, where there is room for it
            const QString words = tr("target off its way · dashed: out of focus · dotted: allowed");
            p.setFont(textFont(10));
            p.setPen(t.second);
            if (box.height() >= 56)
                p.drawText(QRectF(box.left() + 6, box.top() + 1, box.width() - 12, 14),
                           Qt::AlignRight | Qt::AlignVCenter, words);
        }
        p.setFont(textFont(11, true));
        p.setPen(t.ink);
        const bool two = box.height() >= 24;
        p.drawText(QRectF(10, box.top(), left - 16, two ? 13 : box.height()), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), lane.name, left - 16));
        if (!two) continue;
        p.setFont(textFont(10));
        p.setPen(lane.over ? t.brick : t.second);
        p.drawText(QRectF(10, box.top() + 13, left - 14, 12), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), lane.range, left - 14));
    }
}

/// Where a block runs, in the lane of its axis; empty where that has none.
QRectF MoveTimeline::blockBox(std::size_t block) const {
    const RigMove* m = desk_.current();
    if (m == nullptr || block >= m->blocks.size()) return {};
    const AxisBlock& b = m->blocks[block];
    const auto& axes = context_.document.project().axes;
    for (std::size_t i = 0; i < lanes_.size(); ++i)
        if (lanes_[i].axis >= 0 && axes[static_cast<std::size_t>(lanes_[i].axis)].id == b.axis) {
            const QRectF lane = laneBox(i);
            return {xOf(b.start), lane.top(), std::max(4.0, xOf(b.start + b.length) - xOf(b.start)),
                    lane.height()};
        }
    return {};
}

QPointF MoveTimeline::blockAt(int block) const {
    return blockBox(static_cast<std::size_t>(block)).center();
}

void MoveTimeline::paintBlocks(QPainter& p) const {
    const Tokens& t = tokens();
    const RigMove* m = desk_.current();
    if (m == nullptr) return;
    for (std::size_t b = 0; b < m->blocks.size(); ++b) {
        const QRectF box = blockBox(b);
        if (box.isEmpty()) continue;
        p.setPen(QPen(t.lake, 1));
        QColor fill = t.lakeWash;
        fill.setAlpha(90);
        p.setBrush(fill);
        p.drawRoundedRect(box.adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
    }
}

void MoveTimeline::paintTimes(QPainter& p) const {
    const Tokens& t = tokens();
    const double shown = whole();
    if (!(shown > 0.0)) return;
    double step = 0.1;
    for (const double of :
         {0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 30.0, 60.0, 120.0, 300.0, 600.0, 1800.0, 3600.0}) {
        step = of;
        if ((xOf(of) - xOf(0.0)) > 52) break;
    }
    p.setFont(textFont(10));
    p.setFont(textFont(10));
    p.setPen(t.second);
    for (double at = 0.0; at <= shown + 1e-9; at += step) {
        const double x = xOf(at);
        p.drawLine(QPointF(x, height() - timesHeight), QPointF(x, height() - timesHeight + 3));
        p.drawText(QRectF(x - 30, height() - timesHeight + 3, 60, 14), Qt::AlignHCenter | Qt::AlignVCenter,
                   context_.show(at, Kind::Time));
    }
}

void MoveTimeline::paintHead(QPainter& p) const {
    if (!(desk_.duration() > 0.0)) return;
    const Tokens& t = tokens();
    const QPointF at = headAt();
    p.setPen(QPen(t.ink, 1));
    p.drawLine(QPointF(at.x(), at.y()), QPointF(at.x(), height() - timesHeight));
    p.setBrush(desk_.jogged() ? t.sheet : t.ink);
    p.drawRoundedRect(QRectF(at.x() - 11, at.y() - 7, 22, 9), 2, 2);
    p.setBrush(t.ink);
    p.drawEllipse(QPointF(at.x() - 6, at.y() + 3), 2, 2);
    p.drawEllipse(QPointF(at.x() + 6, at.y() + 3), 2, 2);
}

void MoveTimeline::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1));
    if (lanes_.empty()) {
        p.setFont(textFont(12));
        p.setPen(t.second);
        const RigMove* m = desk_.current();
        const QString begin = tr("Set the rig with the sliders above and press “Store pose”: first where the "
                                 "move begins, then where it ends.");
        const QString text =
            m == nullptr ? tr("No move yet. %1 Or take a ready-made one under “Move”.").arg(begin)
            : m->poses.size() < 2 ? begin
                                  : tr("Nothing moves yet: give two poses different places.");
        p.drawText(rect().adjusted(20, 10, -20, -10), Qt::AlignCenter | Qt::TextWordWrap, text);
        if (m == nullptr || m->poses.size() < 2) return;
    }
    for (std::size_t i = 0; i < lanes_.size(); ++i)
        p.fillRect(laneBox(i), isNight() ? t.paper : t.paper.lighter(102));
    paintBlocks(p);
    paintLanes(p);
    paintFlags(p);
    paintTimes(p);
    paintHead(p);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.lake, 1));
        p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -1.5, -1.5), 6, 6);
    }
}

void MoveTimeline::mousePressEvent(QMouseEvent* event) {
    flag_ = -1;
    moved_ = scrubs_ = again_ = false;
    const PlannedMove* m = desk_.planned();
    if (m == nullptr || event->button() != Qt::LeftButton) return;
    if (event->position().y() < flagsTop + flagHeight + 4)
        for (int i = 0; i < static_cast<int>(m->plan.poseTimes.size()); ++i)
            if (std::abs(event->position().x() - flagAt(i).x()) < 11) flag_ = i;
    block_ = -1;
    if (flag_ < 0)
        for (std::size_t b = 0; b < desk_.current()->blocks.size(); ++b)
            if (blockBox(b).contains(event->position())) block_ = static_cast<int>(b);
    if (flag_ >= 0) {
        // The rig stands there already: pressed once more, the flag is let go of.
        again_ =
            flag_ == desk_.pose() && !desk_.jogged() &&
            std::abs(desk_.time() - m->plan.poseTimes[static_cast<std::size_t>(flag_)]) < desk_.frameTime();
        desk_.setPose(flag_);
        held_ = desk_.duration();
    } else if (block_ >= 0) {
        blockHeld_ =
            timeAt(event->position().x()) - desk_.current()->blocks[static_cast<std::size_t>(block_)].start;
        desk_.setPose(-1); // its fields stand with those of the whole move
        held_ = desk_.duration();
    } else if (desk_.duration() > 0.0) {
        scrubs_ = true;
        desk_.setTime(timeAt(event->position().x()));
    }
}

void MoveTimeline::mouseMoveEvent(QMouseEvent* event) {
    if (scrubs_) desk_.setTime(timeAt(event->position().x()));
    if (flag_ > 0 && !context_.document.readOnly()) dragFlag(event->position().x());
    if (block_ >= 0 && !context_.document.readOnly()) dragBlock(event->position().x());
}

/// The segment that comes to the flag ends where it is dragged to, on a frame; those behind it keep their
/// times.
void MoveTimeline::dragFlag(double x) {
    const PlannedMove* m = desk_.planned();
    const auto segment =
        std::find_if(m->plan.segments.begin(), m->plan.segments.end(),
                     [&](const SegmentPlan& s) { return static_cast<int>(s.pose) == flag_; });
    if (segment == m->plan.segments.end()) return;
    const double frame = desk_.frameTime();
    const double to = std::round(timeAt(x) / frame) * frame;
    const double time = std::max(frame, to - segment->from);
    moved_ = true;
    context_.document.change(
        tr("Drag pose in time"),
        [&](Project& p) {
            MoveSegment& s =
                p.moves[static_cast<std::size_t>(desk_.move())].poses[static_cast<std::size_t>(flag_)].arrive;
            s.pace = SegmentPace::Time;
            s.time = time;
        },
        QStringLiteral("move flag %1").arg(flag_));
}

/// The block starts where it is dragged to, on a frame and within the move.
void MoveTimeline::dragBlock(double x) {
    const RigMove* m = desk_.current();
    if (m == nullptr || block_ >= static_cast<int>(m->blocks.size())) return;
    const double frame = desk_.frameTime();
    const double latest =
        std::max(0.0, desk_.duration() - m->blocks[static_cast<std::size_t>(block_)].length);
    const double start = std::clamp(std::round((timeAt(x) - blockHeld_) / frame) * frame, 0.0, latest);
    context_.document.change(
        tr("Drag a block in time"),
        [&](Project& p) {
            p.moves[static_cast<std::size_t>(desk_.move())].blocks[static_cast<std::size_t>(block_)].start =
                start;
        },
        QStringLiteral("move block %1").arg(block_));
}

void MoveTimeline::mouseReleaseEvent(QMouseEvent*) {
    scrubs_ = false;
    held_ = 0.0;
    if (flag_ >= 0 && moved_)
        desk_.setPose(flag_);
    else if (again_)
        desk_.setPose(-1);
    flag_ = block_ = -1;
    update();
}

void MoveTimeline::keyPressEvent(QKeyEvent* event) {
    const RigMove* m = desk_.current();
    const int poses = m != nullptr ? static_cast<int>(m->poses.size()) : 0;
    switch (event->key()) {
    case Qt::Key_Left:
        desk_.step(event->modifiers() & Qt::ShiftModifier ? -10 : -1);
        return;
    case Qt::Key_Right:
        desk_.step(event->modifiers() & Qt::ShiftModifier ? 10 : 1);
        return;
    case Qt::Key_Home:
        desk_.setTime(0.0);
        return;
    case Qt::Key_End:
        desk_.setTime(desk_.duration());
        return;
    case Qt::Key_PageUp:
        desk_.setPose(std::max(0, desk_.pose() - 1));
        return;
    case Qt::Key_PageDown:
        desk_.setPose(std::min(poses - 1, desk_.pose() + 1));
        return;
    case Qt::Key_Escape:
        desk_.setPose(-1);
        return;
    case Qt::Key_Space:
        emit playWanted();
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace gantry::app
