// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/field_group.h"
#include "app/instruments/rig_view.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/evaluate/rig/rig_bodies.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

/// How the rig is painted; what it is made of and what can be dragged stands in rig_view.cpp.
namespace gantry::app {

using units::Kind;

void RigView::paintBody(QPainter& p, std::size_t index) const {
    const RigBody& b = layout_.bodies[index];
    const Tokens& t = tokens();
    const QPointF from = toScreen(b.from), to = toScreen(b.to);
    const double thick = std::max(3.0, 2.0 * b.radius * scale_);
    const auto line = [&](const QColor& colour, double width) {
        p.setPen(QPen(colour, width, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(from, to);
    };
    // A beam as two edges with the sheet between them, in its axis' pen.
    const auto beam = [&](const QPen& pen) {
        const QPointF d = to - from;
        const double length = std::hypot(d.x(), d.y());
        if (length < 1.0) return;
        const QPointF n(-d.y() / length * std::min(thick, 12.0) / 2,
                        d.x() / length * std::min(thick, 12.0) / 2);
        p.setPen(pen);
        p.setBrush(t.line);
        p.drawPolygon(QPolygonF{{from + n, to + n, to - n, from - n}});
    };
    switch (b.kind) {
    case BodyKind::Leg:
    case BodyKind::Stand:
        line(t.ink, 2.5);
        break;
    case BodyKind::Column:
        if (std::hypot(to.x() - from.x(), to.y() - from.y()) < 2.0) {
            p.setPen(QPen(t.ink, 1.2));
            p.setBrush(t.line);
            p.drawEllipse(from, 6, 6);
            break;
        }
        line(t.ink, 9);
        line(t.line, 7);
        break;
    case BodyKind::Rail:
    case BodyKind::Arm:
        beam(axisPen(b.axis, b.axis == context_.session.axis() ? 2.0 : 1.2));
        break;
    case BodyKind::Carriage: {
        QPointF up(0, above_ ? 0 : -8);
        p.setPen(axisPen(b.axis, 1.6));
        p.setBrush(t.sheet);
        const QPointF d = to - from;
        p.save();
        p.translate((from + to) / 2 + up);
        p.rotate(std::atan2(d.y(), d.x()) * 57.29577951308232);
        const double w = std::hypot(d.x(), d.y());
        p.drawRect(QRectF(-w / 2, -5, w, 10));
        p.restore();
        break;
    }
    case BodyKind::Counterweight: {
        p.setPen(QPen(t.lake, 1.5));
        p.setBrush(t.lakeWash);
        p.drawRoundedRect(QRectF(from.x() - 14, from.y() - 14, 28, 28), 3, 3);
        break;
    }
    case BodyKind::Head:
        if (b.from == b.to) break; // a weight, which stands beside its figure
        [[fallthrough]];
    case BodyKind::Load:
    case BodyKind::Placed:
    case BodyKind::Camera:
    case BodyKind::Lens: {
        const bool camera = b.kind == BodyKind::Camera || b.kind == BodyKind::Lens;
        p.setPen(camera ? QPen(t.ink, 1.3) : axisPen(b.axis, 1.2));
        p.setBrush(camera ? t.paper : t.line);
        p.drawPolygon(outlineOf(solids_[index]));
        break;
    }
    case BodyKind::Ballast:
        p.setPen(QPen(t.lake, 1.3));
        p.setBrush(t.lakeWash);
        p.drawRoundedRect(QRectF(QPointF(std::min(from.x(), to.x()) - 8, from.y() - 9),
                                 QSizeF(std::abs(to.x() - from.x()) + 16, 18)),
                          5, 5);
        break;
    }
}

/// A box as it is seen from here: the hull of its corners.
QPolygonF RigView::outlineOf(const geometry::Solid& s) const {
    // What is round is drawn with the corners of the box around it.
    const double length = s.length + 2.0 * s.round, width = s.width + 2.0 * s.round,
                 height = s.height + 2.0 * s.round;
    std::vector<structure::Plan> corners;
    for (const double x : {-0.5, 0.5})
        for (const double y : {-0.5, 0.5})
            for (const double z : {-0.5, 0.5}) {
                const QPointF at = toScreen(s.frame.to({x * length, y * width, z * height}));
                corners.push_back({at.x(), at.y()});
            }
    QPolygonF out;
    for (const structure::Plan& c : structure::hullOf(corners)) out << QPointF(c.x, c.y);
    return out;
}

void RigView::paintFeet(QPainter& p) const {
    const Tokens& t = tokens();
    if (!above_) {
        // A track that lies on the ground shows how it falls.
        const LinearMechanism* track = lowestRail(context_.document.project().axes);
        const double fall = track != nullptr && track->rail.support == RailSupport::Bedded
                                ? std::tan(track->slope.value)
                                : 0.0;
        p.setPen(QPen(t.third, 1));
        paintMount(p);
        if (!layout_.feet.empty()) {
            const double middle = toScreen({}).x(), ground = toScreen({}).y();
            p.drawLine(QPointF(16, ground + (middle - 16) * fall),
                       QPointF(width() - 16, ground - (width() - 16 - middle) * fall));
            for (const structure::Plan& f : layout_.feet) {
                const QPointF at = toScreen({f.x, f.y, f.x * fall});
                p.setPen(QPen(t.brick, 1.5));
                p.drawLine(at, at + QPointF(0, 9));
            }
        }
        return;
    }
    const std::vector<structure::Plan> hull = structure::hullOf(layout_.feet);
    if (hull.size() < 3) return;
    QPolygonF polygon;
    for (const structure::Plan& f : hull) polygon << toScreen({f.x, f.y, 0.0});
    p.setPen(QPen(t.brick, 1.2, Qt::DashLine));
    p.setBrush(t.lakeWash);
    p.drawPolygon(polygon);
}

bool RigView::standsOnAnchors() const {
    const BaseKind kind = context_.document.project().base.kind;
    return kind == BaseKind::Overhead || kind == BaseKind::WallBracket;
}

/// Ceiling or wall, and the anchors in it.
void RigView::paintMount(QPainter& p) const {
    const Tokens& t = tokens();
    const Base& base = context_.document.project().base;
    const bool wall = base.kind == BaseKind::WallBracket;
    if (!standsOnAnchors()) return;
    const auto on = [&](double aside) {
        return wall ? toScreen({-base.mount, 0.0, base.height + aside})
                    : toScreen({aside, 0.0, base.height + base.mount});
    };
    const QPointF middle = on(0.0);
    constexpr double hatch = 7.0; // [px]
    if (wall)
        p.drawLine(QPointF(middle.x(), head_), QPointF(middle.x(), height() - 30.0));
    else
        p.drawLine(QPointF(16, middle.y()), QPointF(width() - 16, middle.y()));
    for (double at = wall ? head_ + hatch : 16.0; at < (wall ? height() - 30.0 : width() - 16.0);
         at += 2 * hatch) {
        const QPointF from = wall ? QPointF(middle.x(), at) : QPointF(at, middle.y());
        p.drawLine(from, from + (wall ? QPointF(-hatch, hatch) : QPointF(hatch, -hatch)));
    }
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.sheet);
    for (const double side : {-0.5, 0.5}) p.drawEllipse(on(side * base.anchorSpread), 3.5, 3.5);
    p.setPen(QPen(t.third, 1));
}

/// The arm or rail as it bends, enlarged so that it is seen, and how far in truth.
void RigView::paintBend(QPainter& p) const {
    const Tokens& t = tokens();
    const Project& project = context_.document.project();
    if (above_) return;
    for (const RigBody& b : layout_.bodies) {
        if (b.kind != BodyKind::Arm && b.kind != BodyKind::Rail) continue;
        const AxisEvaluation& e =
            context_.document.assessment().evaluation.axes[static_cast<std::size_t>(b.axis)];
        if (e.structure.problem != Reason::None || !e.structure.sag) continue;
        const double sag = e.structure.sag.value();
        if (b.kind == BodyKind::Arm) {
            const auto& r =
                std::get<RotaryMechanism>(project.axes[static_cast<std::size_t>(b.axis)].mechanism);
            const QPointF tip = toScreen(b.to), rear = toScreen(b.from);
            const double whole = r.boom.reach + r.boom.rear;
            const QPointF pivot = tip + (rear - tip) * (r.boom.reach / whole);
            QPainterPath path(pivot);
            constexpr double drop = 16.0; // [px] at the end: how far in truth stands beside it
            path.quadTo((pivot + tip) / 2.0, tip + QPointF(0, drop));
            p.setPen(QPen(t.rust, 1.3, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawPath(path);
        }
        QString text = b.kind == BodyKind::Arm ? tr("deflects %1").arg(context_.show(sag, Kind::Length))
                                               : tr("sags %1 at most").arg(context_.show(sag, Kind::Length));
        for (const ShotEvaluation& s : e.shots)
            if (s.sag.pixels && s.shot == (e.worst() != nullptr ? e.worst()->shot : s.shot)) {
                text += tr(", %1 over the range").arg(context_.show(s.sag.pixels, Kind::Pixels));
                break;
            }
        p.setFont(textFont(11));
        p.setPen(t.rust);
        const QPointF middle = (toScreen(b.from) + toScreen(b.to)) / 2.0;
        // Beside the arm, on the side from which it slopes away; under one that hangs.
        const bool hangs = standsOnAnchors();
        const bool falls = toScreen(b.to).y() > toScreen(b.from).y() + 8.0;
        const QRectF at = b.kind != BodyKind::Arm ? QRectF(12, head_ + 2, width() - 24, 16)
                          : falls                 ? QRectF(middle.x() + 18, middle.y() - 14, 240, 16)
                                  : QRectF(middle.x() - 20, middle.y() + (hangs ? 34 : 18), 240, 16);
        // Inside the card, whatever it says.
        const double wide = p.fontMetrics().horizontalAdvance(text) + 2.0;
        const QRectF fitting(std::min(at.x(), width() - 12.0 - wide), at.y(), wide, at.height());
        paintWords(p, fitting, Qt::AlignLeft | Qt::AlignVCenter, text);
    }
}

void RigView::paintMasses(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(textFont(11));
    for (const RigBody& b : layout_.bodies) {
        if (b.mass <= 0.0 ||
            (b.kind != BodyKind::Counterweight && b.kind != BodyKind::Head && b.kind != BodyKind::Ballast))
            continue;
        const QPointF at = toScreen(b.centre);
        double mass = b.mass;
        if (b.kind == BodyKind::Head) {
            // What lies close together, as the parts of a payload do, is one weight to the eye.
            const auto close = [&](const RigBody& other) {
                const QPointF d = toScreen(other.centre) - at;
                return other.kind == BodyKind::Head && other.mass > 0.0 && std::hypot(d.x(), d.y()) < 40.0;
            };
            const auto first = std::find_if(layout_.bodies.begin(), layout_.bodies.end(), close);
            if (&*first != &b) continue;
            mass = 0.0;
            for (const RigBody& other : layout_.bodies)
                if (close(other)) mass += other.mass;
        }
        p.setPen(b.kind == BodyKind::Head ? t.second : t.lake);
        // A single mass on an arm stands above it, the payload beside its camera.
        const bool payload =
            mass > b.mass || b.axis < 0 ||
            kindOf(context_.document.project().axes[static_cast<std::size_t>(b.axis)]) == AxisKind::Linear;
        const bool hangs = standsOnAnchors(); // then there is room below and not above
        QRectF box(at.x() - 45, hangs ? at.y() + 17 : at.y() - 34, 90, 15);
        if (b.kind == BodyKind::Ballast) box = QRectF(at.x() - 112, at.y() + 12, 90, 15);
        if (b.kind == BodyKind::Head)
            box = payload ? QRectF(at.x() + 32, at.y() - 8, 90, 15)
                  : hangs ? QRectF(at.x() + 12, at.y() + 9, 90, 15)
                          : QRectF(at.x() - 26, at.y() - 34, 90, 15);
        paintWords(p, box, (b.kind == BodyKind::Head ? Qt::AlignLeft : Qt::AlignHCenter) | Qt::AlignVCenter,
                   context_.show(mass, Kind::Mass));
    }
    if (layout_.mass <= 0.0 || context_.document.project().base.kind == BaseKind::NotGiven) return;
    const QPointF at = toScreen(layout_.centre);
    p.setPen(QPen(t.heather, 1.4));
    p.setBrush(t.sheet);
    p.drawEllipse(at, 6, 6);
    p.setBrush(t.heather);
    p.drawPie(QRectF(at.x() - 6, at.y() - 6, 12, 12), 0, 90 * 16);
    p.drawPie(QRectF(at.x() - 6, at.y() - 6, 12, 12), 180 * 16, 90 * 16);
    if (!above_) {
        p.setPen(QPen(t.heather, 1, Qt::DotLine));
        p.drawLine(at + QPointF(0, 7), QPointF(at.x(), toScreen({}).y()));
    }
    p.setPen(t.heather);
    // What hangs has its centre of gravity in the arm, where other words stand already.
    const bool hangs = standsOnAnchors();
    paintWords(p,
               hangs ? QRectF(at.x() - 170, at.y() + 34, 160, 16) : QRectF(at.x() + 11, at.y() + 1, 160, 16),
               (hangs ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
               tr("whole rig %1").arg(context_.show(layout_.mass, Kind::Mass)));
}

void RigView::paintWords(QPainter& p, QRectF box, Qt::Alignment side, const QString& words) const {
    const auto covers = [&](const QRectF& in) { return p.boundingRect(in, static_cast<int>(side), words); };
    QRectF at = box;
    for (int shift = 1; shift < 8; ++shift) {
        const QRectF taken = covers(at);
        if (std::none_of(wordBoxes_.begin(), wordBoxes_.end(),
                         [&](const QRectF& other) { return other.intersects(taken); }))
            break;
        at = box.translated(0.0, box.height() * (shift % 2 == 1 ? (shift + 1) / 2 : -shift / 2));
    }
    wordBoxes_ << covers(at);
    p.drawText(at, static_cast<int>(side), words);
}

void RigView::paintScale(QPainter& p) const {
    const Tokens& t = tokens();
    double length = 0.1;
    for (const double l : {0.1, 0.2, 0.5, 1.0, 2.0, 5.0})
        if (l * scale_ < 0.3 * width()) length = l;
    const QPointF right(width() - 20.0, height() - 14.0);
    const QPointF left = right - QPointF(length * scale_, 0);
    p.setPen(QPen(t.second, 1));
    p.drawLine(left, right);
    p.drawLine(left + QPointF(0, -3), left + QPointF(0, 3));
    p.drawLine(right + QPointF(0, -3), right + QPointF(0, 3));
    p.setFont(textFont(10));
    p.drawText(QRectF(left.x() - 30, right.y() - 17, length * scale_ + 60, 14), Qt::AlignCenter,
               context_.show(length, Kind::Length));
}

void RigView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    wordBoxes_.clear();
    paintCard(p, rect());
    const Tokens& t = tokens();
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    const Figure& mass = context_.document.assessment().evaluation.rig.mass;
    const QString title = above_           ? tr("From above, to scale")
                          : quiet_ && mass ? tr("The whole rig, %1").arg(context_.show(mass, Kind::Mass))
                                           : tr("From the side, to scale");
    if (!small_) p.drawText(QRect(12, 5, width() - 24, 20), Qt::AlignVCenter, title);
    p.setFont(textFont(11));
    p.setPen(t.second);
    if (layout_.bodies.empty()) {
        p.drawText(rect().adjusted(20, head_, -20, -20), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Add an axis to see the rig."));
        return;
    }
    p.setRenderHint(QPainter::Antialiasing);
    paintFeet(p);
    p.setBrush(Qt::NoBrush);
    for (const KeepOut& k : small_ ? std::vector<KeepOut>{} : context_.document.project().keepOut) {
        p.setPen(QPen(t.brick, 1, Qt::DotLine));
        const double h = above_ ? k.width : k.height;
        const QPointF at = toScreen({k.x, k.y, k.z});
        const QRectF box(at.x() - 0.5 * k.length * scale_, at.y() - 0.5 * h * scale_, k.length * scale_,
                         h * scale_);
        p.drawRect(box);
        if (quiet_) continue;
        p.setFont(textFont(10));
        // Above it, or below where what hangs has its words above.
        const QRectF name = standsOnAnchors()
                                ? QRectF(box.left() - 40, box.bottom() + 2, box.width() + 80, 16)
                                : QRectF(box.left() - 40, box.top() - 16, box.width() + 80, 16);
        paintWords(p, name, Qt::AlignTop | Qt::AlignHCenter, QString::fromStdString(k.name));
    }
    for (std::size_t i = 0; i < layout_.bodies.size(); ++i) paintBody(p, i);
    for (const RigBody& b : layout_.bodies)
        if (b.kind == BodyKind::Arm) {
            const QPointF tip = toScreen(b.to), rear = toScreen(b.from);
            const auto& r = std::get<RotaryMechanism>(
                context_.document.project().axes[static_cast<std::size_t>(b.axis)].mechanism);
            const double whole = r.boom.reach + r.boom.rear;
            const double share =
                r.boom.section.shape != SectionShape::NotGiven ? r.boom.reach / whole : 1 / 1.2;
            p.setPen(QPen(t.ink, 1.5));
            p.setBrush(t.sheet);
            p.drawEllipse(tip + (rear - tip) * share, 6, 6);
        }
    if (small_) return;
    if (!quiet_) {
        paintBend(p);
        paintMasses(p);
    }
    paintScale(p);
    p.setFont(textFont(10));
    p.setPen(t.second);
    QStringList names;
    for (const Handle& h : handles_)
        if (!names.contains(h.name)) names << h.name;
    const int room = width() * 6 / 10;
    QString hint = tr("drag: %1").arg(names.join(QStringLiteral(", ")));
    if (p.fontMetrics().horizontalAdvance(hint) > room) hint = tr("drag what moves");
    if (!names.isEmpty()) p.drawText(QRect(12, height() - 22, room, 16), Qt::AlignVCenter, hint);
}

} // namespace gantry::app
