// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/move_plan_view.h"

#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/model/edit_moves.h"
#include "core/optics/picture.h"
#include "core/tools/carry_lens.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using geometry::Place;
using geometry::plus;
constexpr int planHead = 26, planEdge = 12;
constexpr double frustum = 0.28; ///< [m] of a camera's sight that is drawn, on a rig of a metre

std::vector<kinematics::Moving> linksAt(const MoveScene& s, const std::vector<double>& places) {
    std::vector<kinematics::Moving> out(s.links.size());
    kinematics::forwardMotion(s.links, {places, {}, {}}, out);
    return out;
}

} // namespace

MovePlanView::MovePlanView(const Context& context, MoveDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    setObjectName(QStringLiteral("movePlan"));
    setMouseTracking(true);
}

void MovePlanView::setFromAbove(bool on) {
    above_ = on;
    refresh();
}

MovePlanView::Camera MovePlanView::cameraOf(const geometry::Frame& lens, double focal) const {
    const double half = 0.5 * context_.document.project().camera.deliveredWidth;
    // From the side what is seen up and down, of a picture that is nine to sixteen.
    const double wide = (above_ ? half : half * optics::pictureShape) / focal;
    const Place aside = above_ ? lens.left : lens.up;
    const auto end = [&](double side) {
        return plus(lens.at, plus(plus({}, lens.ahead, frustum), aside, side * wide * frustum));
    };
    return {lens.at, plus(lens.at, lens.ahead, frustum), end(1.0), end(-1.0)};
}

void MovePlanView::refresh() {
    collect();
    fit();
    update();
}

void MovePlanView::collect() {
    cameras_.clear();
    way_.clear();
    const PlannedMove* m = desk_.planned();
    QStringList said;
    if (m != nullptr) {
        for (const std::vector<double>& pose : m->plan.poses)
            cameras_.push_back(cameraOf(linksAt(m->scene, pose).back().frame, m->scene.focal(pose)));
        const double time = m->plan.trajectory.duration();
        constexpr int points = 120;
        if (time > 0.0)
            for (int i = 0; i <= points; ++i)
                way_.push_back(cameraAt(m->scene, m->plan.trajectory, time * i / points).frame.at);
        said << tr("%n poses", nullptr, static_cast<int>(cameras_.size()));
        for (const AimTarget& t : desk_.current()->targets)
            said << tr("target “%1” %2 ahead, %3 to the left, %4 up")
                        .arg(QString::fromStdString(t.name), context_.show(t.x, units::Kind::Length),
                             context_.show(t.y, units::Kind::Length),
                             context_.show(t.z, units::Kind::Length));
    }
    words_ = said.join(QStringLiteral(" · "));
    setAccessibleName(above_ ? tr("The move from above") : tr("The move from the side"));
    setAccessibleDescription(words_);
}

void MovePlanView::fit() {
    double left = 1e9, right = -1e9, low = 1e9, high = -1e9;
    const auto take = [&](Place p) {
        const double v = above_ ? p.y : p.z;
        left = std::min(left, p.x);
        right = std::max(right, p.x);
        low = std::min(low, v);
        high = std::max(high, v);
    };
    const Project& project = context_.document.project();
    for (const RigBody& b : context_.document.results().layout().bodies) {
        take(b.from);
        take(b.to);
    }
    for (const Camera& c : cameras_)
        for (const Place& p : {c.at, c.left, c.right}) take(p);
    for (const Place& p : way_) take(p);
    // What is far off keeps out of it: a target beyond four times the rig is pointed at.
    const double reach = std::max(1.0, 4.0 * std::max(right - left, high - low));
    if (const RigMove* m = desk_.current())
        for (const AimTarget& t : m->targets)
            if (std::abs(t.x) < reach && std::abs(t.y) < reach) take({t.x, t.y, t.z});
    for (const KeepOut& k : project.keepOut)
        if (std::abs(k.x) < reach && std::abs(k.y) < reach) take({k.x, k.y, k.z});
    if (!(right > left)) {
        left -= 0.5;
        right += 0.5;
    }
    if (!(high > low)) high = low + 0.5;
    const double w = std::max(10, width() - 2 * planEdge - 24),
                 h = std::max(10, height() - planHead - planEdge - 30);
    scale_ = std::min(w / (right - left), h / (high - low));
    origin_ = QPointF(0.5 * width() - scale_ * 0.5 * (left + right),
                      planHead + 4 + 0.5 * (height() - planHead - 26) + scale_ * 0.5 * (low + high));
}

QPointF MovePlanView::toScreen(Place p) const {
    return {origin_.x() + scale_ * p.x, origin_.y() - scale_ * (above_ ? p.y : p.z)};
}

Place MovePlanView::placeAt(QPointF s, Place like) const {
    const double x = (s.x() - origin_.x()) / scale_, v = (origin_.y() - s.y()) / scale_;
    return above_ ? Place{x, v, like.z} : Place{x, like.y, v};
}

QPointF MovePlanView::poseAt(int pose) const {
    return pose >= 0 && pose < static_cast<int>(cameras_.size())
               ? toScreen(cameras_[static_cast<std::size_t>(pose)].at)
               : QPointF();
}

QPointF MovePlanView::targetAt(int target) const {
    const RigMove* m = desk_.current();
    if (m == nullptr || target < 0 || target >= static_cast<int>(m->targets.size())) return {};
    return toScreen(desk_.placeOf(m->targets[static_cast<std::size_t>(target)]));
}

void MovePlanView::paintRig(QPainter& p) const {
    const Tokens& t = tokens();
    const RigLayout laid = layRig(setupOf(context_.document.project(), Courses::No), desk_.places());
    for (const RigBody& b : laid.bodies) {
        if (b.kind == BodyKind::Camera || b.kind == BodyKind::Lens) continue;
        QPen pen(b.kind == BodyKind::Leg || b.kind == BodyKind::Stand ? t.third : t.line,
                 std::clamp(2.0 * b.radius * scale_, 1.5, 14.0), Qt::SolidLine, Qt::FlatCap);
        p.setPen(pen);
        p.drawLine(toScreen(b.from), toScreen(b.to));
    }
}

void MovePlanView::paintRooms(QPainter& p) const {
    const Tokens& t = tokens();
    for (const KeepOut& k : context_.document.project().keepOut) {
        const double w = k.length, h = above_ ? k.width : k.height;
        const QPointF middle = toScreen({k.x, k.y, k.z});
        const QRectF box(middle.x() - 0.5 * w * scale_, middle.y() - 0.5 * h * scale_, w * scale_,
                         h * scale_);
        p.setPen(QPen(t.brick, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(box);
    }
}

void MovePlanView::paintCameras(QPainter& p) const {
    const Tokens& t = tokens();
    p.setPen(QPen(t.second, 1, Qt::DotLine));
    QPolygonF way;
    for (const Place& at : way_) way << toScreen(at);
    p.drawPolyline(way);
    for (std::size_t i = 0; i < cameras_.size(); ++i) {
        const Camera& c = cameras_[i];
        const bool chosen = static_cast<int>(i) == desk_.pose();
        p.setPen(QPen(chosen ? t.lake : t.third, chosen ? 1.5 : 1));
        p.drawLine(toScreen(c.at), toScreen(c.left));
        p.drawLine(toScreen(c.at), toScreen(c.right));
        p.setBrush(chosen ? t.lake : t.sheet);
        p.drawEllipse(toScreen(c.at), 4, 4);
    }
    // Letters on the far side of what is seen; those that would stand on another step aside.
    QList<QRectF> taken;
    p.setFont(textFont(11, true));
    for (std::size_t i = 0; i < cameras_.size(); ++i) {
        const Camera& c = cameras_[i];
        QPointF back = toScreen(c.at) - toScreen(c.ahead);
        const double length = std::hypot(back.x(), back.y());
        back = length > 4.0 ? back / length : QPointF(0, 1);
        QRectF box(0, 0, 16, 14);
        for (double away = 14.0; away < 90.0; away += 13.0) {
            box.moveCenter(toScreen(c.at) + away * back);
            if (std::none_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(box); }))
                break;
        }
        taken << box;
        p.setPen(static_cast<int>(i) == desk_.pose() ? t.lake : t.ink);
        p.drawText(box, Qt::AlignCenter, QString::fromStdString(poseLetter(i)));
    }
    const Camera now = cameraOf(desk_.camera().frame, desk_.focal());
    QColor wash = t.lake;
    wash.setAlpha(50);
    p.setPen(QPen(t.lake, 1.5));
    p.setBrush(wash);
    p.drawPolygon(QPolygonF{toScreen(now.at), toScreen(now.left), toScreen(now.right)});
    p.setBrush(t.ink);
    p.setPen(Qt::NoPen);
    p.drawEllipse(toScreen(now.at), 3.5, 3.5);
}

void MovePlanView::paintTargets(QPainter& p) const {
    const RigMove* m = desk_.current();
    if (m == nullptr) return;
    const Tokens& t = tokens();
    p.setFont(textFont(11));
    for (const AimTarget& target : m->targets) {
        QPointF at = toScreen(desk_.placeOf(target));
        const QRectF inside(planEdge + 8, planHead + 8, width() - 2 * planEdge - 16,
                            height() - planHead - planEdge - 30);
        const bool off = !inside.adjusted(-6, -6, 6, 6).contains(at);
        if (off)
            at = QPointF(std::clamp(at.x(), inside.left(), inside.right()),
                         std::clamp(at.y(), inside.top(), inside.bottom()));
        p.setPen(QPen(t.moss, 1.5));
        p.setBrush(off ? QBrush(Qt::NoBrush) : QBrush(t.sheet));
        p.drawEllipse(at, 6, 6);
        p.drawLine(at - QPointF(3, 0), at + QPointF(3, 0));
        p.drawLine(at - QPointF(0, 3), at + QPointF(0, 3));
        const QString name = QString::fromStdString(target.name);
        const int wide = p.fontMetrics().horizontalAdvance(name) + 4;
        const bool leftOf = at.x() + 12 + wide > width() - planEdge;
        p.setPen(t.second);
        p.drawText(QRectF(leftOf ? at.x() - 12 - wide : at.x() + 12, at.y() - 8, wide, 16),
                   Qt::AlignVCenter | (leftOf ? Qt::AlignRight : Qt::AlignLeft), name);
    }
}

void MovePlanView::paintScale(QPainter& p) const {
    const Tokens& t = tokens();
    const double unit = context_.system() == units::System::Metric ? 1.0 : 0.3048;
    double length = unit;
    for (const double of : {10.0, 5.0, 2.0, 1.0, 0.5, 0.2, 0.1}) {
        length = of * unit;
        if (length * scale_ < 0.3 * width()) break;
    }
    const double y = height() - 12, x = planEdge + 2;
    p.setPen(QPen(t.third, 1));
    p.drawLine(QPointF(x, y), QPointF(x + length * scale_, y));
    for (const double at : {x, x + length * scale_}) p.drawLine(QPointF(at, y - 3), QPointF(at, y + 3));
    p.setFont(textFont(10));
    p.drawText(QRectF(x + length * scale_ + 6, y - 8, 90, 16), Qt::AlignVCenter,
               context_.show(length, units::Kind::Length));
}

void MovePlanView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paintCard(p, rect().adjusted(0, 0, -1, -1), above_ ? tr("From above") : tr("From the side"), 4);
    p.setClipRect(QRect(1, planHead - 2, width() - 2, height() - planHead));
    paintRig(p);
    paintRooms(p);
    paintCameras(p);
    paintTargets(p);
    paintScale(p);
}

void MovePlanView::mousePressEvent(QMouseEvent* event) {
    constexpr double near = 9.0;
    held_ = Held::Nothing;
    const RigMove* m = desk_.current();
    if (m == nullptr || event->button() != Qt::LeftButton) return;
    const auto apart = [&](QPointF at) {
        return std::hypot(at.x() - event->position().x(), at.y() - event->position().y());
    };
    for (int i = 0; i < static_cast<int>(m->targets.size()); ++i)
        if (apart(targetAt(i)) < near) {
            held_ = Held::Target;
            index_ = i;
            return;
        }
    double best = near;
    for (int i = 0; i < static_cast<int>(cameras_.size()); ++i)
        if (apart(poseAt(i)) < best) {
            best = apart(poseAt(i));
            held_ = Held::Pose;
            index_ = i;
        }
    if (held_ == Held::Pose) desk_.setPose(index_);
}

void MovePlanView::mouseMoveEvent(QMouseEvent* event) {
    const RigMove* m = desk_.current();
    if (held_ == Held::Nothing || m == nullptr || context_.document.readOnly()) return;
    if (held_ == Held::Pose) {
        if (index_ < static_cast<int>(cameras_.size()))
            dragPose(placeAt(event->position(), cameras_[static_cast<std::size_t>(index_)].at));
        return;
    }
    if (index_ >= static_cast<int>(m->targets.size())) return;
    const AimTarget& now = m->targets[static_cast<std::size_t>(index_)];
    Place to = placeAt(event->position(), desk_.placeOf(now));
    if (!now.rides.empty()) {
        // Kept as it is with the turntable at its low end.
        const std::vector<double> places = desk_.places();
        to = ridingBack(desk_.scene(), now, places, to);
    }
    const auto millimetres = [](double v) { return std::round(v * 1e3) * 1e-3; };
    context_.document.change(
        tr("Drag target"),
        [&](Project& p) {
            AimTarget& t =
                p.moves[static_cast<std::size_t>(desk_.move())].targets[static_cast<std::size_t>(index_)];
            t.x = millimetres(to.x);
            t.y = millimetres(to.y);
            t.z = millimetres(to.z);
        },
        QStringLiteral("move target %1").arg(index_));
}

void MovePlanView::mouseReleaseEvent(QMouseEvent*) {
    held_ = Held::Nothing;
}

/// The axes that carry the head are moved until the lens stands where it was dragged to in the plane that is
/// seen, as near as their travels let it.
void MovePlanView::dragPose(Place to) {
    const PlannedMove* m = desk_.planned();
    if (m == nullptr || index_ < 0 || index_ >= static_cast<int>(m->plan.poses.size())) return;
    const Project& project = context_.document.project();
    const std::vector<std::size_t> free = carriers(project.axes, m->scene);
    const std::vector<double> places =
        carryLens(project.axes, m->scene, m->plan.poses[static_cast<std::size_t>(index_)], to,
                  {.x = true, .y = above_, .z = !above_});
    context_.document.change(
        tr("Drag pose"),
        [&](Project& p) {
            for (const std::size_t a : free) {
                PosePlace* place = placeIn(p, desk_.move(), index_, static_cast<int>(a));
                if (place == nullptr) continue;
                const bool linear = place->place.index() == 0;
                const double unit = linear ? 1e-3 : 1e-3 * 3.141592653589793 / 180.0 * 10.0;
                std::visit(
                    [&](auto& at) {
                        at.from = PlaceFrom::LowEnd;
                        at.at = std::min(std::round(places[a] / unit) * unit, m->scene.ends[a].high);
                    },
                    place->place);
            }
        },
        QStringLiteral("move pose %1").arg(index_));
}

void MovePlanView::resizeEvent(QResizeEvent*) {
    fit();
}

} // namespace gantry::app
