// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/rig_view.h"

#include "core/model/fields.h"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr double grabRadius = 14.0; // [px]

QString axisPath(const Axis& axis, const char* rest) {
    return QStringLiteral("axes/%1/%2").arg(QString::fromStdString(axis.id), QLatin1String(rest));
}

} // namespace

RigView::RigView(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("rigView"));
    setAccessibleName(tr("Drawing of the rig"));
    setMouseTracking(true);
}

void RigView::setFromAbove(bool on) {
    above_ = on;
    refresh();
}

void RigView::setSmall() {
    small_ = true;
    setObjectName(QStringLiteral("sideView"));
    setAccessibleName(tr("Side view of the rig"));
}

void RigView::refresh() {
    layout_ = context_.document.results().layout();
    solids_ = context_.document.results().solids();
    heading_ = 0.0;
    for (const RigBody& b : layout_.bodies)
        if (b.kind == BodyKind::Arm && std::hypot(b.to.x - b.from.x, b.to.y - b.from.y) > 1e-6)
            heading_ = std::atan2(b.to.y - b.from.y, b.to.x - b.from.x);
    fit();
    if (!small_) collectHandles();
    const RigStructure& rig = context_.document.assessment().evaluation.rig;
    words_ = layout_.bodies.empty()
                 ? tr("Nothing to draw yet")
                 : tr("Weighs %1, centre of gravity %2 from the middle and %3 high")
                       .arg(context_.show(rig.mass, Kind::Mass),
                            context_.show(Figure::of(std::hypot(layout_.centre.x, layout_.centre.y)),
                                          Kind::Length),
                            context_.show(rig.centreHeight, Kind::Length));
    setAccessibleDescription(words_);
    setToolTip(words_);
    update();
}

QPointF RigView::toScreen(Place p) const {
    if (above_) return origin_ + QPointF(p.x * scale_, -p.y * scale_);
    const double along = p.x * std::cos(heading_) + p.y * std::sin(heading_);
    return origin_ + QPointF(along * scale_, -p.z * scale_);
}

/// Scale and place so that everything, and the floor, is in the picture. While something is held nothing
/// moves.
void RigView::fit() {
    if (held_ >= 0 || width() < 40) return;
    scale_ = 1.0;
    origin_ = {};
    QRectF box;
    const auto take = [&](Place p, double r) {
        const QPointF at = toScreen(p);
        box |= QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r);
    };
    for (const RigBody& b : layout_.bodies) {
        take(b.from, b.radius + 0.03);
        take(b.to, b.radius + 0.03);
    }
    for (const structure::Plan& f : layout_.feet) take({f.x, f.y, 0.0}, 0.03);
    if (!small_)
        for (const KeepOut& k : context_.document.project().keepOut)
            take({k.x, k.y, k.z}, 0.5 * std::max({k.length, k.width, k.height}));
    if (!above_) take({}, 0.02);
    if (box.isEmpty()) box = QRectF(-1, -1, 2, 2);
    const QRectF room = small_ ? QRectF(rect()).adjusted(14, 14, -14, -14)
                               : QRectF(rect()).adjusted(64, head_ + 30, -64, -44);
    scale_ = std::max(1.0, std::min(room.width() / box.width(), room.height() / box.height()));
    origin_ = room.center() - QPointF(box.center().x(), box.center().y()) * scale_;
}

void RigView::collectHandles() {
    handles_.clear();
    const Project& p = context_.document.project();
    const std::vector<double> pose = shownPose(p.axes);
    const RigBody* rail = nullptr;
    for (const RigBody& b : layout_.bodies) {
        const Axis* axis = b.axis >= 0 ? &p.axes[static_cast<std::size_t>(b.axis)] : nullptr;
        const double length = std::hypot(b.to.x - b.from.x, b.to.y - b.from.y, b.to.z - b.from.z);
        const Place unit = length > 0.0 ? Place{(b.to.x - b.from.x) / length, (b.to.y - b.from.y) / length,
                                                (b.to.z - b.from.z) / length}
                                        : Place{1.0, 0.0, 0.0};
        if (b.kind == BodyKind::Rail && axis->role != Role::Lift) {
            rail = &b;
            const auto& linear = std::get<LinearMechanism>(axis->mechanism);
            if (linear.rail.section.shape == SectionShape::NotGiven) continue;
            const auto on = [&](double at) {
                return Place{b.from.x + unit.x * at, b.from.y + unit.y * at, b.from.z + unit.z * at};
            };
            const auto stand = [&](const char* key, double at, const QString& name) {
                handles_.push_back({axisPath(*axis, key), on(at), b.from, unit, false, 0.0, name});
            };
            if (linear.rail.support == RailSupport::TwoStands) {
                stand("mechanism/rail/first_stand_m", linear.rail.firstStand, tr("first stand"));
                stand("mechanism/rail/second_stand_m", linear.rail.secondStand, tr("second stand"));
            } else if (linear.rail.support == RailSupport::OneHead)
                stand("mechanism/rail/head_at_m", linear.rail.headAt, tr("head"));
        } else if (b.kind == BodyKind::Carriage && rail != nullptr) {
            const Place middle = b.centre;
            const double at = pose[static_cast<std::size_t>(b.axis)];
            handles_.push_back({axisPath(*axis, "mechanism/rail/shown_at_m"),
                                middle,
                                {middle.x - unit.x * at, middle.y - unit.y * at, middle.z - unit.z * at},
                                unit,
                                false,
                                0.0,
                                tr("carriage")});
        } else if (b.kind == BodyKind::Arm) {
            const auto& r = std::get<RotaryMechanism>(axis->mechanism);
            const double rear =
                r.boom.section.shape != SectionShape::NotGiven ? r.boom.rear : 0.2 * length / 1.2;
            const Place pivot{b.from.x + unit.x * rear, b.from.y + unit.y * rear, b.from.z + unit.z * rear};
            const bool tilts = axis->role == Role::BoomTilt;
            if (tilts != above_)
                handles_.push_back({axisPath(*axis, "mechanism/boom/shown_at_rad"),
                                    b.to,
                                    pivot,
                                    {},
                                    true,
                                    r.lowAngle,
                                    tr("arm")});
            else if (above_ && tilts) {
                // Seen from above the arm turns with the swing that carries it.
                for (const Axis& other : p.axes)
                    if (other.role == Role::Swing)
                        handles_.push_back({axisPath(other, "mechanism/boom/shown_at_rad"),
                                            b.to,
                                            pivot,
                                            {},
                                            true,
                                            std::get<RotaryMechanism>(other.mechanism).lowAngle,
                                            tr("swing")});
            }
            if (r.boom.counterweight.mass.value > 0.0) {
                const double behind = r.boom.counterweight.behind;
                handles_.push_back(
                    {axisPath(*axis, "mechanism/boom/counterweight/behind_m"),
                     {pivot.x - unit.x * behind, pivot.y - unit.y * behind, pivot.z - unit.z * behind},
                     pivot,
                     {-unit.x, -unit.y, -unit.z},
                     false,
                     0.0,
                     tr("counterweight")});
            }
        } else if (b.kind == BodyKind::Ballast && p.base.ballastLeg == 0) {
            handles_.push_back({QStringLiteral("base/ballast_out_m"),
                                b.centre,
                                {0.0, 0.0, b.centre.z},
                                {-1.0, 0.0, 0.0},
                                false,
                                0.0,
                                tr("ballast")});
        }
    }
    if (p.base.kind == BaseKind::Legs && !layout_.feet.empty()) {
        const structure::Plan foot = layout_.feet.front();
        const double r = std::max(1e-6, std::hypot(foot.x, foot.y));
        handles_.push_back({QStringLiteral("base/leg_radius_m"),
                            {foot.x, foot.y, 0.0},
                            {},
                            {foot.x / r, foot.y / r, 0.0},
                            false,
                            0.0,
                            tr("foot")});
    }
}

QPointF RigView::handleAt(const QString& path) const {
    for (const Handle& h : handles_)
        if (h.path == path) return toScreen(h.at);
    return {};
}

void RigView::mousePressEvent(QMouseEvent* event) {
    held_ = -1;
    if (small_) return;
    if (event->button() != Qt::LeftButton || context_.document.readOnly()) return;
    double nearest = grabRadius;
    for (std::size_t i = 0; i < handles_.size(); ++i) {
        const QPointF d = toScreen(handles_[i].at) - event->position();
        if (const double distance = std::hypot(d.x(), d.y()); distance < nearest) {
            nearest = distance;
            held_ = static_cast<int>(i);
        }
    }
}

void RigView::mouseMoveEvent(QMouseEvent* event) {
    if (held_ < 0) {
        const bool over = std::any_of(handles_.begin(), handles_.end(), [&](const Handle& h) {
            const QPointF d = toScreen(h.at) - event->position();
            return std::hypot(d.x(), d.y()) < grabRadius;
        });
        setCursor(over ? Qt::SizeAllCursor : Qt::ArrowCursor);
        return;
    }
    if (held_ >= static_cast<int>(handles_.size())) return;
    const Handle h = handles_[static_cast<std::size_t>(held_)];
    double value = 0.0;
    if (h.turns) {
        const QPointF from = toScreen(h.origin);
        const QPointF d = event->position() - from;
        value = std::remainder(std::atan2(-d.y(), d.x()) - h.offset, 2.0 * M_PI);
        if (value < 0.0 && above_) value += 2.0 * M_PI;
    } else {
        // Along the handle's own line as it lies in the drawing.
        const QPointF zero = toScreen(h.origin);
        const QPointF unit =
            toScreen({h.origin.x + h.along.x, h.origin.y + h.along.y, h.origin.z + h.along.z}) - zero;
        const QPointF d = event->position() - zero;
        const double square = QPointF::dotProduct(unit, unit);
        if (square < 1e-9) return;
        value = QPointF::dotProduct(d, unit) / square;
    }
    drag(h.path, value);
}

void RigView::drag(const QString& path, double value) {
    context_.document.change(
        tr("Drag in the drawing"),
        [&](Project& p) {
            const auto field = findField(p, path.toStdString());
            if (!field) return;
            // Dragged things land on whole millimetres and tenths of a degree.
            const double grid = field->info.kind == units::Kind::Angle ? 0.1 * 0.017453292519943295 : 1e-3;
            setNumberAt(p, path.toStdString(), clampToField(field->info, std::round(value / grid) * grid));
        },
        QStringLiteral("drawing/") + path);
}

void RigView::mouseReleaseEvent(QMouseEvent*) {
    held_ = -1;
    refresh();
}

void RigView::resizeEvent(QResizeEvent*) {
    fit();
}

} // namespace gantry::app
