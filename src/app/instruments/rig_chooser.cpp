// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/rig_chooser.h"

#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {
namespace {

constexpr int tileHeight = 118, tileGap = 8, leastWidth = 140;
using rigs::RigKind;

/// Small line drawings on a 120 × 60 sheet, the camera in rust.
class Sketch {
public:
    explicit Sketch(QPainter& p) : p_(p) {}

    void line(qreal x1, qreal y1, qreal x2, qreal y2) { p_.drawLine(QPointF(x1, y1), QPointF(x2, y2)); }
    void box(qreal x, qreal y, qreal w, qreal h) { p_.drawRect(QRectF(x, y, w, h)); }
    void round(qreal x, qreal y, qreal r) { p_.drawEllipse(QPointF(x, y), r, r); }
    void camera(qreal x, qreal y) {
        p_.save();
        p_.setPen(QPen(tokens().rust, 1.3));
        box(x - 8, y - 6, 14, 12);
        box(x + 6, y - 3.5, 6, 7);
        p_.restore();
    }
    void arrow(qreal x1, qreal y1, qreal x2, qreal y2) {
        p_.save();
        p_.setPen(QPen(tokens().lake, 1.4));
        line(x1, y1, x2, y2);
        const QPointF d(x2 - x1, y2 - y1);
        const qreal n = std::max(1.0, std::hypot(d.x(), d.y()));
        const QPointF u = d / n, v(-u.y(), u.x()), end(x2, y2);
        p_.drawPolyline(QPolygonF{end - u * 5 + v * 3, end, end - u * 5 - v * 3});
        p_.restore();
    }
    void turn(qreal x, qreal y, qreal w, qreal h) {
        p_.save();
        p_.setPen(QPen(tokens().lake, 1.4));
        p_.drawArc(QRectF(x - w / 2, y - h / 2, w, h), 200 * 16, 140 * 16);
        p_.restore();
    }
    void rail(qreal y) {
        line(10, y, 110, y);
        line(10, y + 4, 110, y + 4);
    }

    void draw(RigKind kind) {
        switch (kind) {
        case RigKind::BeltSlider:
            rail(42);
            round(14, 38, 4);
            round(106, 38, 4);
            line(14, 34, 106, 34);
            box(46, 28, 28, 10);
            camera(58, 20);
            arrow(78, 24, 98, 24);
            break;
        case RigKind::ScrewSlider:
            rail(46);
            box(12, 36, 96, 5);
            for (int i = 0; i < 12; ++i) line(14 + i * 8, 41, 18 + i * 8, 36);
            box(48, 30, 26, 14);
            camera(60, 22);
            break;
        case RigKind::WinchedCart:
            line(10, 54, 110, 26);
            line(10, 58, 110, 30);
            round(104, 18, 7);
            line(60, 34, 98, 21);
            box(38, 32, 24, 9);
            round(42, 44, 3);
            round(58, 40, 3);
            camera(50, 24);
            break;
        case RigKind::WheelDolly:
            line(10, 56, 110, 56);
            box(34, 38, 52, 9);
            round(44, 50, 6);
            round(76, 50, 6);
            line(60, 38, 60, 24);
            camera(60, 18);
            arrow(88, 42, 106, 42);
            break;
        case RigKind::LiftColumn:
            box(52, 8, 6, 48);
            line(38, 56, 76, 56);
            box(58, 26, 12, 12);
            camera(80, 32);
            arrow(98, 42, 98, 20);
            break;
        case RigKind::PanTiltHead:
            line(40, 56, 60, 40);
            line(80, 56, 60, 40);
            box(50, 34, 20, 6);
            line(52, 34, 52, 16);
            line(68, 34, 68, 16);
            camera(59, 18);
            turn(60, 38, 56, 20);
            break;
        case RigKind::OrbitBoom:
            line(60, 4, 60, 16);
            round(60, 18, 4);
            line(24, 18, 104, 18);
            box(18, 14, 9, 9);
            line(104, 18, 104, 34);
            camera(102, 40);
            round(60, 50, 6);
            turn(60, 18, 84, 26);
            break;
        case RigKind::JibCrane:
            line(44, 56, 54, 30);
            line(64, 56, 54, 30);
            line(30, 40, 104, 10);
            box(22, 36, 11, 11);
            camera(104, 16);
            arrow(112, 34, 112, 20);
            break;
        case RigKind::StopMotionStage:
            rail(48);
            box(40, 40, 40, 8);
            for (int i = 0; i < 5; ++i) box(22 + i * 18, 54, 8, 4);
            round(60, 30, 7);
            line(60, 37, 60, 40);
            camera(18, 28);
            break;
        case RigKind::SubjectTurntable:
            p_.drawEllipse(QRectF(58, 40, 46, 13));
            box(72, 22, 18, 22);
            turn(81, 47, 60, 22);
            camera(22, 34);
            line(22, 40, 22, 56);
            break;
        case RigKind::MultiAxis:
            rail(50);
            box(40, 42, 28, 8);
            box(48, 36, 12, 6);
            line(48, 36, 48, 22);
            line(60, 36, 60, 22);
            camera(54, 22);
            round(68, 22, 5);
            arrow(72, 44, 92, 44);
            turn(54, 38, 44, 14);
            break;
        case RigKind::WhatIHave:
            box(14, 26, 20, 20);
            round(24, 36, 5);
            round(54, 36, 11);
            round(54, 36, 3);
            line(72, 26, 108, 26);
            line(72, 46, 108, 46);
            break;
        case RigKind::Empty:
            p_.setPen(QPen(tokens().line, 1.2, Qt::DashLine));
            box(30, 14, 60, 38);
            break;
        }
    }

private:
    QPainter& p_;
};

} // namespace

RigTile::RigTile(const rigs::RigInfo& info, QWidget* parent) : QAbstractButton(parent), info_(info) {
    setText(QString::fromUtf8(info.name.data()));
    setAccessibleName(text());
    setAccessibleDescription(QString::fromUtf8(info.sentence.data()));
    setToolTip(accessibleDescription());
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
}

void RigTile::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.setPen(QPen(hasFocus() || underMouse() ? t.lake : t.line, hasFocus() ? 2 : 1));
    p.setBrush(isDown() ? t.lakeWash : t.sheet);
    p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 5, 5);
    p.save();
    p.translate((width() - 120) / 2.0, 6);
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.paper);
    Sketch(p).draw(info_.kind);
    p.restore();
    p.setPen(t.ink);
    p.setFont(textFont(12, true));
    p.drawText(QRect(4, 70, width() - 8, 18), Qt::AlignCenter, text());
    p.setPen(t.second);
    p.setFont(textFont(10));
    p.drawText(QRect(6, 86, width() - 12, 28), Qt::AlignHCenter | Qt::TextWordWrap, accessibleDescription());
}

RigChooser::RigChooser(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("rigChooser"));
    for (const rigs::RigInfo& info : rigs::all()) {
        auto* tile = new RigTile(info, this);
        connect(tile, &QAbstractButton::clicked, this, [this, tile] { emit chosen(tile->kind()); });
        tiles_.push_back(tile);
    }
}

int RigChooser::heightFor(int width) const {
    const int columns = std::max(1, (width + tileGap) / (leastWidth + tileGap));
    const int rows = (static_cast<int>(tiles_.size()) + columns - 1) / columns;
    return rows * (tileHeight + tileGap);
}

void RigChooser::resizeEvent(QResizeEvent*) {
    const int columns = std::max(1, (width() + tileGap) / (leastWidth + tileGap));
    const int each = (width() + tileGap) / columns - tileGap;
    for (int i = 0; i < static_cast<int>(tiles_.size()); ++i)
        tiles_[i]->setGeometry(i % columns * (each + tileGap), i / columns * (tileHeight + tileGap), each,
                               tileHeight);
}

} // namespace gantry::app
