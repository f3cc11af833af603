// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/lens_view.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/optics/picture.h"

#include <QPainter>
#include <cmath>

namespace gantry::app {
namespace {

using geometry::Place;
using geometry::plus;
constexpr int lensHead = 26, lensFoot = 22, lensEdge = 10;
constexpr double nearest = 0.02; ///< [m] before the lens, nearer is not drawn
constexpr double shape = optics::pictureShape;

} // namespace

LensView::LensView(const Context& context, MoveDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    setObjectName(QStringLiteral("lensView"));
}

QRectF LensView::frame() const {
    const QRectF room(lensEdge, lensHead, width() - 2 * lensEdge, height() - lensHead - lensFoot);
    const double w = std::min(room.width(), room.height() / shape);
    return QRectF(room.center().x() - 0.5 * w, room.center().y() - 0.5 * w * shape, w, w * shape);
}

std::optional<QPointF> LensView::project(const kinematics::Moving& camera, Place at) const {
    const kinematics::InPicture seen = kinematics::pictureOf(camera, {at, {}, {}}, {desk_.focal()});
    if (!seen.inFront || seen.depth < nearest) return std::nullopt;
    const QRectF f = frame();
    const double by = f.width() / context_.document.project().camera.deliveredWidth;
    return QPointF(f.center().x() + seen.u * by, f.center().y() - seen.v * by);
}

std::optional<QPointF> LensView::targetSeen() const {
    const AimTarget* target = desk_.target();
    if (target == nullptr) return std::nullopt;
    const kinematics::InPicture seen = desk_.seen(*target);
    if (!seen.inFront) return std::nullopt;
    return QPointF(seen.u, seen.v);
}

void LensView::refresh() {
    const QString foot_ = footLine();
    if (foot_ != words_) {
        words_ = foot_;
        setAccessibleName(tr("Through the lens"));
        setAccessibleDescription(words_);
    }
    update();
}

QString LensView::footLine() const {
    QStringList said;
    // A tenth of a pixel is what can be seen.
    const auto tenths = [](double v) { return std::round(v * 10.0) / 10.0 + 0.0; };
    if (const auto at = targetSeen()) {
        const double x = tenths(at->x()), y = tenths(at->y());
        const auto off = [&](double by, const QString& plus, const QString& minus) {
            return tr("%1 %2").arg(context_.show(std::abs(by), units::Kind::Pixels), by < 0.0 ? minus : plus);
        };
        QStringList place;
        if (x != 0.0) place << off(x, tr("right"), tr("left"));
        if (y != 0.0) place << off(y, tr("above"), tr("below"));
        said << tr("%1 %2").arg(QString::fromStdString(desk_.target()->name),
                                place.isEmpty() ? tr("in the middle") : place.join(QStringLiteral(", ")));
    } else if (desk_.target() != nullptr)
        said << tr("%1 is behind the camera").arg(QString::fromStdString(desk_.target()->name));
    // How well its place is known, as the picture shows it.
    if (const AimTarget* target = desk_.target(); target != nullptr && target->deviation > 0.0) {
        const kinematics::InPicture seen = desk_.seen(*target);
        if (seen.inFront)
            said << tr("known within %1")
                        .arg(context_.show(desk_.focal() * target->deviation / seen.range,
                                           units::Kind::Pixels));
    }
    if (desk_.scene().zoom)
        said << tr("lens at %1")
                    .arg(context_.show(desk_.scene().focalLength(desk_.places()), units::Kind::PartLength));
    const double level = kinematics::horizonAngle(desk_.camera().frame);
    if (std::abs(level) > 1e-4) said << tr("horizon turned %1").arg(context_.show(level, units::Kind::Angle));
    if (said.isEmpty()) said << tr("The picture of the chosen shot's lens");
    return said.join(QStringLiteral(" · "));
}

/// A line in space, cut where it comes too near to the lens.
void LensView::paintLine(QPainter& p, const kinematics::Moving& camera, Place from, Place to) const {
    const auto depth = [&](Place at) { return dot(minus(at, camera.frame.at), camera.frame.ahead); };
    double a = depth(from), b = depth(to);
    if (a < nearest && b < nearest) return;
    if (a < nearest) from = plus(from, minus(to, from), (1.01 * nearest - a) / (b - a));
    if (b < nearest) to = plus(to, minus(from, to), (1.01 * nearest - b) / (a - b));
    const auto s = project(camera, from), e = project(camera, to);
    if (s && e) p.drawLine(*s, *e);
}

void LensView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("Through the lens"), 4);
    const QRectF f = frame();
    p.setFont(textFont(11));
    p.setPen(t.second);
    p.drawText(QRectF(lensEdge, height() - lensFoot, width() - 2 * lensEdge, lensFoot - 4), Qt::AlignVCenter,
               wholeParts(p.fontMetrics(), words_, width() - 2 * lensEdge));
    const int frames = static_cast<int>(std::lround(desk_.time() / desk_.frameTime()));
    p.drawText(QRectF(width() - 180, 4, 170, 20), Qt::AlignVCenter | Qt::AlignRight,
               desk_.jogged()
                   ? tr("jogged")
                   : tr("%1 · frame %2").arg(context_.show(desk_.time(), units::Kind::Time)).arg(frames));
    p.fillRect(f, isNight() ? t.paper : t.faintLine);
    p.save();
    p.setClipRect(f);
    const kinematics::Moving camera = desk_.camera();
    // Ground: lines half a metre apart, round where the camera is.
    p.setPen(QPen(t.line, 1));
    constexpr double step = 0.5, reach = 6.0;
    const double cx = std::round(camera.frame.at.x / step) * step,
                 cy = std::round(camera.frame.at.y / step) * step;
    for (double d = -reach; d <= reach; d += step) {
        paintLine(p, camera, {cx + d, cy - reach, 0.0}, {cx + d, cy + reach, 0.0});
        paintLine(p, camera, {cx - reach, cy + d, 0.0}, {cx + reach, cy + d, 0.0});
    }
    // Horizon: far away at the height of the lens.
    p.setPen(QPen(t.third, 1));
    Place level{camera.frame.ahead.x, camera.frame.ahead.y, 0.0};
    if (const double length = lengthOf(level); length > 1e-6) {
        level = plus({}, level, 1.0 / length);
        const Place side{-level.y, level.x, 0.0}, far = plus(camera.frame.at, level, 1e4);
        paintLine(p, camera, plus(far, side, 1e4), plus(far, side, -1e4));
    }
    p.setPen(QPen(t.brick, 1, Qt::DashLine));
    for (const KeepOut& k : context_.document.project().keepOut) {
        const auto corner = [&](int i) {
            return Place{k.x + (i & 1 ? 0.5 : -0.5) * k.length, k.y + (i & 2 ? 0.5 : -0.5) * k.width,
                         k.z + (i & 4 ? 0.5 : -0.5) * k.height};
        };
        for (int i = 0; i < 8; ++i)
            for (const int bit : {1, 2, 4})
                if (!(i & bit)) paintLine(p, camera, corner(i), corner(i | bit));
    }
    // The way of the target along the segment under the play head.
    const PlannedMove* m = desk_.planned();
    const AimTarget* target = desk_.target();
    if (const int pose = desk_.segmentPose(); m != nullptr && target != nullptr && pose > 0)
        for (const SegmentPlan& s : m->plan.segments) {
            if (static_cast<int>(s.pose) != pose) continue;
            QPolygonF way;
            constexpr int points = 60;
            for (int i = 0; i <= points; ++i) {
                const AxisStates states =
                    statesAt(m->scene, m->plan.trajectory, s.from + (s.to - s.from) * i / points);
                if (const auto at = project(cameraAt(m->scene, states.motion()),
                                            pointOf(m->scene, *target, states.motion()).at))
                    way << *at;
            }
            p.setPen(QPen(t.straw, 1.5, Qt::DashLine));
            p.drawPolyline(way);
        }
    if (desk_.current() != nullptr)
        for (const AimTarget& each : desk_.current()->targets)
            if (const auto at = project(camera, desk_.placeOf(each))) {
                p.setPen(QPen(t.moss, 1.5));
                p.setBrush(t.sheet);
                p.drawEllipse(*at, 6, 6);
                p.drawLine(*at - QPointF(3, 0), *at + QPointF(3, 0));
                p.drawLine(*at - QPointF(0, 3), *at + QPointF(0, 3));
            }
    p.restore();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.third, 1, Qt::DotLine));
    p.drawRect(f.adjusted(0.05 * f.width(), 0.05 * f.height(), -0.05 * f.width(), -0.05 * f.height()));
    p.setPen(QPen(t.line, 1));
    p.drawRect(f);
    p.setPen(QPen(t.third, 1));
    p.drawLine(f.center() - QPointF(5, 0), f.center() + QPointF(5, 0));
    p.drawLine(f.center() - QPointF(0, 5), f.center() + QPointF(0, 5));
}

} // namespace gantry::app
