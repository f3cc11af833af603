// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/elevation.h"

#include "app/instruments/field_group.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {

Elevation::Elevation(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setAccessibleName(tr("Side view of the rig"));
}

void Elevation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const auto& axes = context_.document.project().axes;
    const LinearMechanism* rail = nullptr;
    for (const Axis& a : axes)
        if (rail == nullptr) rail = std::get_if<LinearMechanism>(&a.mechanism);
    const double ground = height() - 16.0;
    p.setPen(QPen(t.third, 1));
    p.drawLine(QPointF(10, ground), QPointF(width() - 10.0, ground));
    if (axes.empty()) {
        p.setPen(t.second);
        p.setFont(textFont(11));
        p.drawText(rect().adjusted(8, 8, -8, -20), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Nothing to draw yet"));
        return;
    }
    const double slope = rail != nullptr ? rail->slope.value : 0.0;
    const double length =
        rail != nullptr ? std::min(150.0, (ground - 44) / std::max(0.05, std::abs(std::sin(slope)))) : 60.0;
    p.save();
    const double rise = std::abs(std::sin(slope)) * length / 2;
    p.translate(width() / 2.0, std::min(ground - 22 - rise, height() / 2.0 + 18));
    if (rail != nullptr) {
        // Legs reach the ground whatever the slope.
        const double down = ground - (std::min(ground - 22 - rise, height() / 2.0 + 18));
        p.setPen(QPen(t.second, 2));
        for (const double at : {-0.38, 0.38}) {
            const double x = at * length * std::cos(slope), y = -at * length * std::sin(slope);
            p.drawLine(QPointF(x, y), QPointF(x - 7, down));
            p.drawLine(QPointF(x, y), QPointF(x + 7, down));
        }
    }
    p.rotate(-slope * 57.29577951308232);
    if (rail != nullptr) {
        p.setPen(QPen(t.ink, 1));
        p.setBrush(t.line);
        p.drawRect(QRectF(-length / 2, -3, length, 6));
    }
    // The stack, base to lens: one block an axis in the axis' pen.
    double y = -4;
    const double width0 =
        rail != nullptr ? std::clamp(rail->carriageLength / rail->railLength * length, 18.0, 60.0) : 40.0;
    for (std::size_t i = 0; i < axes.size(); ++i) {
        const double w = i == 0 ? width0 : std::max(12.0, 24.0 - 3.0 * static_cast<double>(i)),
                     h = i == 0 ? 7 : 9;
        p.setPen(axisPen(static_cast<int>(i), static_cast<int>(i) == context_.session.axis() ? 2.2 : 1.3));
        p.setBrush(t.sheet);
        p.drawRect(QRectF(-w / 2, y - h, w, h));
        y -= h + 1;
    }
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.paper);
    p.drawRect(QRectF(-13, y - 17, 24, 17));
    p.drawRect(QRectF(11, y - 13, 9, 9));
    p.restore();
    if (rail != nullptr) {
        p.setPen(t.second);
        p.setFont(textFont(10));
        p.drawText(rect().adjusted(8, 6, -8, -18), Qt::AlignRight | Qt::AlignTop,
                   tr("%1 up").arg(context_.show(slope, units::Kind::Angle)));
        p.drawText(rect().adjusted(8, 0, -8, -2), Qt::AlignRight | Qt::AlignBottom,
                   tr("rail %1").arg(context_.show(rail->railLength, units::Kind::Length, 4)));
    }
}

} // namespace gantry::app
