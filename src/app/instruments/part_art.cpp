// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/part_art.h"

#include "app/instruments/toothed_wheel.h"
#include "app/theme/tokens.h"
#include "core/model/overload.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

void paintWheel(QPainter& p, QPointF centre, qreal radius, int teeth) {
    p.drawPath(toothedWheel(centre, radius, teeth));
    p.drawEllipse(centre, radius * 0.2, radius * 0.2);
}

} // namespace

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

namespace {

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

void paintPlanetary(QPainter& p, const QRectF& box, int sunTeeth, int ringTeeth) {
    const QPointF c = box.center();
    const double ring = std::min(box.width(), box.height()) * 0.44;
    const double sun = std::max(5.0, ring * sunTeeth / ringTeeth), planet = (ring - sun) / 2.0;
    p.drawEllipse(c, ring + 3, ring + 3);
    p.drawEllipse(c, ring, ring);
    for (int i = 0; i < 3; ++i) {
        const double angle = 2.0943951 * i - 1.5707963;
        p.drawEllipse(c + QPointF(std::cos(angle), std::sin(angle)) * (sun + planet), planet, planet);
    }
    paintWheel(p, c, sun, sunTeeth);
}

void paintStrainWave(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    const double r = std::min(box.width(), box.height()) * 0.44;
    p.drawEllipse(c, r + 3, r + 3);
    p.drawEllipse(c, r, r * 0.84);
    p.drawEllipse(c, r * 0.72, r * 0.56);
    p.drawEllipse(c, 3.0, 3.0);
}

void paintWorm(QPainter& p, const QRectF& box, int wheelTeeth) {
    const QPointF c = box.center() + QPointF(0, 8);
    paintWheel(p, c, std::min(box.width(), box.height()) * 0.3, wheelTeeth);
    const double y = c.y() - std::min(box.width(), box.height()) * 0.3 - 6;
    p.drawRoundedRect(QRectF(c.x() - 26, y - 5, 52, 10), 2, 2);
    for (int i = 0; i < 8; ++i)
        p.drawLine(QPointF(c.x() - 24 + i * 6.4, y + 5), QPointF(c.x() - 20 + i * 6.4, y - 5));
}

void paintBox(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    p.drawRect(QRectF(c.x() - 34, c.y() - 3, 68, 6));
    p.drawRoundedRect(QRectF(c.x() - 22, c.y() - 20, 44, 40), 4, 4);
    p.drawLine(c + QPointF(-12, -8), c + QPointF(12, 0));
    p.drawLine(c + QPointF(-12, 8), c + QPointF(12, 0));
}

void paintRollers(QPainter& p, const QRectF& box, double small, double large) {
    const double r2 = box.height() * 0.4, r1 = std::max(4.0, r2 * std::min(1.0, small / large));
    const QPointF b = box.center() + QPointF(r1, 0);
    p.drawEllipse(b, r2, r2);
    p.drawEllipse(b - QPointF(r1 + r2, 0), r1, r1);
    p.drawEllipse(b, 2.5, 2.5);
}

void paintScrew(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    p.drawRect(QRectF(box.left() + 4, c.y() - 5, box.width() - 8, 10));
    for (double x = box.left() + 6; x < box.right() - 10; x += 5)
        p.drawLine(QPointF(x, c.y() + 5), QPointF(x + 3, c.y() - 5));
    p.drawRoundedRect(QRectF(c.x() - 11, c.y() - 13, 22, 26), 2, 2);
}

void paintRack(QPainter& p, const QRectF& box, int teeth) {
    const double y = box.center().y() + 16;
    QPolygonF rack;
    for (double x = box.left() + 3; x < box.right() - 6; x += 8)
        rack << QPointF(x, y) << QPointF(x + 2, y - 5) << QPointF(x + 4, y - 5) << QPointF(x + 6, y);
    p.drawPolyline(rack);
    p.drawLine(QPointF(box.left() + 3, y + 5), QPointF(box.right() - 3, y + 5));
    paintWheel(p, QPointF(box.center().x(), y - 21), 17, teeth);
}

void paintDriveWheel(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    p.drawLine(QPointF(box.left() + 3, c.y() + 21), QPointF(box.right() - 3, c.y() + 21));
    p.drawEllipse(c, 20, 20);
    p.drawEllipse(c, 14, 14);
    p.drawEllipse(c, 3, 3);
}

void paintDrum(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    p.drawRect(QRectF(c.x() - 20, c.y() - 12, 34, 24));
    p.drawRect(QRectF(c.x() - 24, c.y() - 20, 4, 40));
    p.drawRect(QRectF(c.x() + 14, c.y() - 20, 4, 40));
    for (int i = 0; i < 6; ++i)
        p.drawLine(QPointF(c.x() - 18 + i * 5.5, c.y() + 12), QPointF(c.x() - 15 + i * 5.5, c.y() - 12));
    p.drawLine(QPointF(c.x() + 10, c.y() - 12), QPointF(box.right(), c.y() - 12));
}

void paintHobbyServo(QPainter& p, const QRectF& box) {
    const QPointF c = box.center();
    p.drawRoundedRect(QRectF(c.x() - 26, c.y() - 8, 46, 26), 2, 2);
    p.drawLine(QPointF(c.x() - 33, c.y() - 2), QPointF(c.x() + 27, c.y() - 2));
    p.drawEllipse(QPointF(c.x() - 14, c.y() - 12), 5, 5);
    p.drawLine(QPointF(c.x() - 14, c.y() - 14), QPointF(c.x() + 8, c.y() - 20));
}

void paintCan(QPainter& p, const QRectF& box, bool gearbox) {
    const QPointF c = box.center();
    p.drawRoundedRect(QRectF(c.x() - 32, c.y() - 14, 36, 28), 8, 8);
    if (gearbox) p.drawRect(QRectF(c.x() + 4, c.y() - 14, 16, 28));
    p.drawRect(QRectF(c.x() + (gearbox ? 20 : 4), c.y() - 2.5, 12, 5));
}

struct LinkPainter {
    QPainter& p;
    const QRectF& box;
    void operator()(const Coupling&) const {
        p.drawRect(QRectF(box.center().x() - 26, box.center().y() - 5, 52, 10));
        p.drawRoundedRect(QRectF(box.center().x() - 15, box.center().y() - 13, 30, 26), 3, 3);
    }
    void operator()(const BeltStage& s) const { paintStage(p, box, s.motorTeeth, s.loadTeeth, true); }
    void operator()(const GearStage& s) const { paintStage(p, box, s.motorTeeth, s.loadTeeth, false); }
    void operator()(const PlanetaryStage& s) const { paintPlanetary(p, box, s.sunTeeth, s.ringTeeth); }
    void operator()(const StrainWaveStage&) const { paintStrainWave(p, box); }
    void operator()(const WormStage& s) const { paintWorm(p, box, s.wheelTeeth); }
    void operator()(const ReducerStage&) const { paintBox(p, box); }
    void operator()(const RollerStage& s) const {
        paintRollers(p, box, s.rollerDiameter.value, s.wheelDiameter.value);
    }
};

struct OutputPainter {
    QPainter& p;
    const QRectF& box;
    void operator()(const BeltOutput& o) const {
        const Tokens& t = tokens();
        QPen dashed(t.ink, 1.5);
        dashed.setDashPattern({1.5, 1});
        p.setPen(dashed);
        p.drawLine(box.center() + QPointF(0, -21), QPointF(box.right(), box.center().y() - 21));
        p.drawLine(box.center() + QPointF(0, 21), QPointF(box.right(), box.center().y() + 21));
        p.setPen(QPen(t.ink, 1.1));
        paintWheel(p, box.center(), 19, o.teeth);
    }
    void operator()(const ScrewOutput&) const { paintScrew(p, box); }
    void operator()(const RackOutput& o) const { paintRack(p, box, o.teeth); }
    void operator()(const WheelOutput&) const { paintDriveWheel(p, box); }
    void operator()(const WinchOutput&) const { paintDrum(p, box); }
    void operator()(const DirectOutput&) const {}
    void operator()(const RingOutput& o) const { paintStage(p, box, o.pinionTeeth, o.ringTeeth, false); }
    void operator()(const LensRingOutput& o) const { paintStage(p, box, o.pinionTeeth, o.ringTeeth, false); }
};

void paintAnyMotor(QPainter& p, const QRectF& box, const Motor& motor) {
    std::visit(overload{[&](const Stepper&) { paintMotor(p, box); },
                        [&](const ServoMotor&) { paintMotor(p, box); },
                        [&](const DcServo&) { paintCan(p, box, false); },
                        [&](const GearedDc&) { paintCan(p, box, true); },
                        [&](const HobbyServo&) { paintHobbyServo(p, box); }},
               motor);
}

} // namespace

void paintPart(QPainter& p, const QRectF& box, const Axis& axis, const ChainColumn& c) {
    const Tokens& t = tokens();
    p.save();
    p.setClipRect(box);
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.paper);
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    switch (c.part) {
    case ChainPart::Driver:
        paintDriver(p, box);
        break;
    case ChainPart::Motor:
        paintAnyMotor(p, box, axis.motor);
        break;
    case ChainPart::Link:
        std::visit(LinkPainter{p, box}, axis.links[static_cast<std::size_t>(c.link)]);
        break;
    case ChainPart::Output:
        if (linear != nullptr)
            std::visit(OutputPainter{p, box}, linear->output);
        else
            std::visit(OutputPainter{p, box}, std::get<RotaryMechanism>(axis.mechanism).output);
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

bool sameArt(const Axis& a, const Axis& b, const ChainColumn& c) {
    const auto* la = std::get_if<LinearMechanism>(&a.mechanism);
    const auto* lb = std::get_if<LinearMechanism>(&b.mechanism);
    if ((la != nullptr) != (lb != nullptr)) return false;
    switch (c.part) {
    case ChainPart::Motor:
        return a.motor.index() == b.motor.index(); // one drawing a kind
    case ChainPart::Link: {
        const auto at = static_cast<std::size_t>(c.link);
        return at < a.links.size() && at < b.links.size() && a.links[at] == b.links[at];
    }
    case ChainPart::Output:
        return la != nullptr ? la->output == lb->output
                             : std::get<RotaryMechanism>(a.mechanism).output ==
                                   std::get<RotaryMechanism>(b.mechanism).output;
    case ChainPart::Load:
        return la == nullptr || la->slope.value == lb->slope.value;
    case ChainPart::Driver:
    case ChainPart::Belt:
    case ChainPart::Picture:
        return true;
    }
    return false;
}

} // namespace gantry::app
