// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/chain_view.h"

#include "app/instruments/toothed_wheel.h"
#include "app/theme/tokens.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

namespace gantry::app {
namespace {

void paintWheel(QPainter& p, QPointF centre, qreal radius, int teeth) {
    p.drawPath(toothedWheel(centre, radius, teeth));
    p.drawEllipse(centre, radius * 0.2, radius * 0.2);
}

/// Two wheels with radii in the ratio of their teeth, meshing or joined by a belt.
void paintStage(QPainter& p, const QRectF& box, int motorTeeth, int loadTeeth, bool belt) {
    const double room = box.width() * 0.8;
    const double distance = belt ? 1.35 : 1.0;
    const double sum = static_cast<double>(motorTeeth + loadTeeth);
    double scale = std::min(room / (sum * (1 + distance) / 2 + sum / 2),
                            box.height() * 0.46 / std::max(motorTeeth, loadTeeth));
    const double r1 = std::max(4.0, motorTeeth * scale), r2 = std::max(4.0, loadTeeth * scale);
    const double between = (r1 + r2) * distance;
    const double left = box.center().x() - (r1 + between + r2) / 2 + r1;
    const QPointF a(left, box.center().y()), b(left + between, box.center().y());
    if (belt) {
        p.save();
        QPen pen(tokens().ink, 1.5);
        pen.setDashPattern({1.5, 1});
        p.setPen(pen);
        p.drawLine(a - QPointF(0, r1 + 1.5), b - QPointF(0, r2 + 1.5));
        p.drawLine(a + QPointF(0, r1 + 1.5), b + QPointF(0, r2 + 1.5));
        p.restore();
    }
    paintWheel(p, a, r1, motorTeeth);
    paintWheel(p, b, r2, loadTeeth);
}

void paintDriver(QPainter& p, const QRectF& box) {
    const QRectF chip(box.center().x() - 24, box.center().y() - 18, 48, 36);
    for (int i = 0; i < 5; ++i) {
        const double x = chip.left() + 7 + i * 8.5;
        p.drawLine(QPointF(x, chip.top() - 4), QPointF(x, chip.top()));
        p.drawLine(QPointF(x, chip.bottom()), QPointF(x, chip.bottom() + 4));
    }
    p.drawRoundedRect(chip, 2, 2);
    p.setPen(QPen(tokens().lake, 1.6));
    const double y = chip.center().y();
    QPolygonF pulses;
    for (int i = 0; i < 3; ++i) {
        const double x = chip.left() + 9 + i * 10;
        pulses << QPointF(x, y + 6) << QPointF(x, y - 6) << QPointF(x + 5, y - 6) << QPointF(x + 5, y + 6);
    }
    p.drawPolyline(pulses);
}

void paintMotor(QPainter& p, const QRectF& box) {
    const QRectF body(box.center().x() - 24, box.center().y() - 22, 44, 44);
    p.drawRect(QRectF(body.right(), body.center().y() - 3, 13, 6));
    p.drawRoundedRect(body, 5, 5);
    p.drawEllipse(body.center(), 11, 11);
    p.drawEllipse(body.center(), 2.5, 2.5);
    for (const QPointF& corner : {QPointF(6, 6), QPointF(38, 6), QPointF(6, 38), QPointF(38, 38)})
        p.drawEllipse(body.topLeft() + corner, 1.4, 1.4);
}

void paintBelt(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const double top = box.center().y() - 18, bottom = box.center().y() + 18;
    p.setBrush(t.ink);
    p.setPen(Qt::NoPen);
    p.drawRect(QRectF(box.left() + 2, top, box.width() - 4, 3));
    p.drawRect(QRectF(box.left() + 2, bottom - 3, box.width() - 4, 3));
    for (double x = box.left() + 5; x < box.right() - 6; x += 8) {
        p.drawRect(QRectF(x, top + 3, 4, 3.5));
        p.drawRect(QRectF(x, bottom - 6.5, 4, 3.5));
    }
    p.setPen(QPen(t.lake, 1.6));
    const QPointF c = box.center();
    p.drawLine(c - QPointF(13, 0), c + QPointF(13, 0));
    p.drawPolyline(QPolygonF{c + QPointF(8, -4), c + QPointF(13, 0), c + QPointF(8, 4)});
}

void paintCarriage(QPainter& p, const QRectF& box, double slope) {
    const Tokens& t = tokens();
    p.save();
    p.translate(box.center() + QPointF(0, 8));
    p.rotate(-slope * 57.29577951308232);
    p.setPen(QPen(t.ink, 2));
    p.drawLine(QPointF(-box.width() * 0.46, 13), QPointF(box.width() * 0.46, 13));
    p.setPen(QPen(t.ink, 1));
    p.setBrush(t.lakeWash);
    p.drawRect(QRectF(-24, -3, 48, 11));
    p.setBrush(t.sheet);
    p.drawEllipse(QPointF(-15, 10), 3.5, 3.5);
    p.drawEllipse(QPointF(15, 10), 3.5, 3.5);
    p.setPen(QPen(t.rust, 1.3));
    p.drawRect(QRectF(-13, -21, 22, 17));
    p.drawRect(QRectF(9, -17, 8, 9));
    p.restore();
}

void paintTurning(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const QPointF c = box.center() + QPointF(0, 4);
    p.drawEllipse(QRectF(c.x() - 26, c.y() + 6, 52, 13));
    p.setPen(QPen(t.rust, 1.3));
    p.drawRect(QRectF(c.x() - 12, c.y() - 16, 24, 18));
    p.drawRect(QRectF(c.x() + 12, c.y() - 11, 8, 9));
    p.setPen(QPen(t.lake, 1.5));
    p.drawArc(QRectF(c.x() - 34, c.y() + 1, 68, 24), -150 * 16, 120 * 16);
}

void paintPicture(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const QRectF frame(box.center().x() - 35, box.center().y() - 21, 70, 42);
    p.setPen(QPen(t.line, 1));
    for (int i = 1; i < 7; ++i)
        p.drawLine(QPointF(frame.left() + i * 10, frame.top()),
                   QPointF(frame.left() + i * 10, frame.bottom()));
    for (int i = 1; i < 4; ++i)
        p.drawLine(QPointF(frame.left(), frame.top() + i * 10.5),
                   QPointF(frame.right(), frame.top() + i * 10.5));
    p.setPen(QPen(t.ink, 1.2));
    p.drawRect(frame);
    p.setPen(QPen(t.plum, 1.5));
    p.drawEllipse(frame.center(), 4, 4);
    p.drawLine(frame.center() - QPointF(13, 0), frame.center() - QPointF(6, 0));
    p.drawLine(frame.center() + QPointF(6, 0), frame.center() + QPointF(13, 0));
}

} // namespace

ChainView::ChainView(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("chainView"));
    setAccessibleName(tr("Drive chain from pulse to picture"));
}

void ChainView::setColumns(const std::vector<ChainColumn>& columns) {
    columns_ = columns;
    update();
}

void ChainView::setSelected(int column) {
    selected_ = column;
    if (column >= 0 && column < static_cast<int>(columns_.size())) {
        const ChainColumn& c = columns_[static_cast<std::size_t>(column)];
        setAccessibleDescription(partName(context_, c) + QStringLiteral(", ") + partDetail(c));
    }
    update();
}

QRectF ChainView::tile(int column) const {
    const double each = static_cast<double>(width() - labelWidth_) /
                        static_cast<double>(std::max<std::size_t>(1, columns_.size()));
    return {labelWidth_ + column * each + 3, 1, each - 6, height() - 2.0};
}

QString ChainView::partName(const Context& context, const ChainColumn& c) {
    switch (c.part) {
    case ChainPart::Driver:
        return tr("Driver");
    case ChainPart::Motor:
        return tr("Motor");
    case ChainPart::Link: {
        const Axis* axis = context.axis();
        if (axis == nullptr || c.link >= static_cast<int>(axis->links.size())) return {};
        const Link& link = axis->links[static_cast<std::size_t>(c.link)];
        if (std::holds_alternative<Coupling>(link)) return tr("Coupling");
        return std::holds_alternative<BeltStage>(link) ? tr("Belt stage") : tr("Gear stage");
    }
    case ChainPart::Output:
        return context.axis() && kindOf(*context.axis()) == AxisKind::Linear ? tr("Pulley") : tr("Ring");
    case ChainPart::Belt:
        return tr("Belt");
    case ChainPart::Load:
        return context.axis() && kindOf(*context.axis()) == AxisKind::Linear ? tr("Carriage") : tr("Load");
    case ChainPart::Picture:
        return tr("Picture");
    }
    return {};
}

QString ChainView::partDetail(const ChainColumn& c) const {
    const Axis* axis = context_.axis();
    if (axis == nullptr) return {};
    const auto* linear = std::get_if<LinearMechanism>(&axis->mechanism);
    using units::Kind;
    switch (c.part) {
    case ChainPart::Driver:
        return QStringLiteral("1/%1 · %2")
            .arg(axis->driver.microsteps)
            .arg(context_.show(context_.document.project().controller.pulseCeiling, Kind::Frequency));
    case ChainPart::Motor:
        return QStringLiteral("%1 · %2").arg(
            context_.show(std::get<Stepper>(axis->motor).holdingTorque.value, Kind::Torque),
            context_.show(context_.document.project().supply.voltage.value, Kind::Voltage));
    case ChainPart::Link: {
        const Link& link = axis->links[static_cast<std::size_t>(c.link)];
        if (const auto* b = std::get_if<BeltStage>(&link))
            return QStringLiteral("%1 : %2 T").arg(b->motorTeeth).arg(b->loadTeeth);
        if (const auto* g = std::get_if<GearStage>(&link))
            return QStringLiteral("%1 : %2 T").arg(g->motorTeeth).arg(g->loadTeeth);
        return QStringLiteral("1 : 1");
    }
    case ChainPart::Output:
        if (linear != nullptr)
            return QStringLiteral("%1T × %2")
                .arg(linear->output.teeth)
                .arg(context_.show(linear->output.pitch.value, Kind::PartLength, 4));
        if (const auto* ring = std::get_if<RingOutput>(&std::get<RotaryMechanism>(axis->mechanism).output))
            return QStringLiteral("%1 : %2 T").arg(ring->pinionTeeth).arg(ring->ringTeeth);
        return {};
    case ChainPart::Belt:
        return tr("EA %1").arg(context_.show(linear->output.tensileStiffness.value, Kind::Force));
    case ChainPart::Load:
        if (linear != nullptr)
            return tr("%1 · %2 up")
                .arg(context_.show(linear->movingMass.value, Kind::Mass),
                     context_.show(linear->slope.value, Kind::Angle));
        return context_.show(std::get<RotaryMechanism>(axis->mechanism).inertia.value, Kind::LoadInertia);
    case ChainPart::Picture:
        if (const ShotEvaluation* s = context_.shotEvaluation()) {
            const Shot& shot = context_.document.project().shots[static_cast<std::size_t>(s->shot)];
            return tr("%1 at %2")
                .arg(context_.show(shot.focalLength, Kind::PartLength),
                     context_.show(shot.subjectDistance, Kind::Length));
        }
        return {};
    }
    return {};
}

void ChainView::paintPart(QPainter& p, const QRectF& box, const ChainColumn& c) const {
    const Tokens& t = tokens();
    p.save();
    p.setClipRect(box);
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.paper);
    const Axis& axis = *context_.axis();
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    switch (c.part) {
    case ChainPart::Driver:
        paintDriver(p, box);
        break;
    case ChainPart::Motor:
        paintMotor(p, box);
        break;
    case ChainPart::Link: {
        const Link& link = axis.links[static_cast<std::size_t>(c.link)];
        if (const auto* b = std::get_if<BeltStage>(&link))
            paintStage(p, box, b->motorTeeth, b->loadTeeth, true);
        else if (const auto* g = std::get_if<GearStage>(&link))
            paintStage(p, box, g->motorTeeth, g->loadTeeth, false);
        else {
            p.drawRect(QRectF(box.center().x() - 26, box.center().y() - 5, 52, 10));
            p.drawRoundedRect(QRectF(box.center().x() - 15, box.center().y() - 13, 30, 26), 3, 3);
        }
        break;
    }
    case ChainPart::Output:
        if (linear != nullptr) {
            QPen dashed(t.ink, 1.5);
            dashed.setDashPattern({1.5, 1});
            p.setPen(dashed);
            p.drawLine(box.center() + QPointF(0, -21), QPointF(box.right(), box.center().y() - 21));
            p.drawLine(box.center() + QPointF(0, 21), QPointF(box.right(), box.center().y() + 21));
            p.setPen(QPen(t.ink, 1.1));
            paintWheel(p, box.center(), 19, linear->output.teeth);
        } else if (const auto* ring =
                       std::get_if<RingOutput>(&std::get<RotaryMechanism>(axis.mechanism).output)) {
            paintStage(p, box, ring->pinionTeeth, ring->ringTeeth, false);
        }
        break;
    case ChainPart::Belt:
        paintBelt(p, box);
        break;
    case ChainPart::Load:
        if (linear != nullptr)
            paintCarriage(p, box, linear->slope.value);
        else
            paintTurning(p, box);
        break;
    case ChainPart::Picture:
        paintPicture(p, box);
        break;
    }
    p.restore();
}

void ChainView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (context_.axis() == nullptr) return;
    const Tokens& t = tokens();
    for (int i = 0; i < static_cast<int>(columns_.size()); ++i) {
        const ChainColumn& c = columns_[static_cast<std::size_t>(i)];
        const QRectF box = tile(i);
        const bool chosen = i == selected_;
        p.setPen(QPen(chosen ? t.lake : t.line, chosen && hasFocus() ? 2 : 1));
        p.setBrush(chosen ? t.lakeWash : t.sheet);
        p.drawRoundedRect(box, 4, 4);
        paintPart(p, box.adjusted(2, 4, -2, -38), c);
        p.setPen(t.ink);
        p.setFont(textFont(12, true));
        p.drawText(QRectF(box.left(), box.bottom() - 36, box.width(), 18), Qt::AlignCenter,
                   partName(context_, c));
        p.setPen(t.second);
        p.setFont(textFont(10));
        p.drawText(
            QRectF(box.left() + 1, box.bottom() - 19, box.width() - 2, 16), Qt::AlignCenter,
            p.fontMetrics().elidedText(partDetail(c), Qt::ElideRight, static_cast<int>(box.width()) - 2));
    }
}

void ChainView::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(columns_.size()); ++i)
        if (tile(i).contains(event->position())) emit selected(i);
}

void ChainView::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    emit selected(std::clamp(selected_ + step, 0, static_cast<int>(columns_.size()) - 1));
}

} // namespace gantry::app
