// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/card.h"

#include "app/theme/tokens.h"

#include <QPainter>
#include <QPixmap>
#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

namespace gantry::app {
namespace {

void stroke(QPainter& p, const QRectF& box, const QColor& line, const QColor& fill, int radius) {
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(line, 1));
    p.setBrush(fill);
    p.drawRoundedRect(box.adjusted(0.5, 0.5, -0.5, -0.5), radius, radius);
}

/// A box no larger than its four corners, drawn once for each look: outlines are the dearest thing to paint
/// anew in every card.
const QPixmap& corners(const QColor& line, const QColor& fill, int radius, int scale) {
    static std::map<std::tuple<QRgb, QRgb, int, int>, QPixmap> drawn;
    QPixmap& box = drawn[{line.rgba(), fill.rgba(), radius, scale}];
    if (box.isNull()) {
        const int side = 2 * (radius + 1);
        box = QPixmap(side * scale, side * scale);
        box.setDevicePixelRatio(scale);
        box.fill(Qt::transparent);
        QPainter p(&box);
        stroke(p, QRectF(0, 0, side, side), line, fill, radius);
    }
    return box;
}

} // namespace

void paintBox(QPainter& p, const QRect& box, const QColor& line, const QColor& fill, int radius) {
    const double scale = p.device()->devicePixelRatioF();
    const int c = radius + 1;
    // Corners meet edges only where a pixel of the screen is not parted.
    if (scale != std::floor(scale) || p.transform().isScaling() ||
        std::min(box.width(), box.height()) < 2 * c) {
        p.save();
        stroke(p, box, line, fill, radius);
        p.restore();
        return;
    }
    const int s = static_cast<int>(scale);
    const QPixmap& from = corners(line, fill, radius, s);
    const int right = box.left() + box.width() - c, bottom = box.top() + box.height() - c;
    const auto corner = [&](int x, int y, int column, int row) {
        p.drawPixmap(QPoint(x, y), from, QRect(column * c * s, row * c * s, c * s, c * s));
    };
    corner(box.left(), box.top(), 0, 0);
    corner(right, box.top(), 1, 0);
    corner(box.left(), bottom, 0, 1);
    corner(right, bottom, 1, 1);
    const int across = box.width() - 2 * c, down = box.height() - 2 * c;
    p.fillRect(box.left() + c, box.top() + 1, across, box.height() - 2, fill);
    p.fillRect(box.left() + 1, box.top() + c, c - 1, down, fill);
    p.fillRect(right, box.top() + c, c - 1, down, fill);
    p.fillRect(box.left() + c, box.top(), across, 1, line);
    p.fillRect(box.left() + c, box.top() + box.height() - 1, across, 1, line);
    p.fillRect(box.left(), box.top() + c, 1, down, line);
    p.fillRect(box.left() + box.width() - 1, box.top() + c, 1, down, line);
}

void paintCard(QPainter& p, const QRect& box) {
    paintBox(p, box, tokens().line, tokens().sheet, 5);
}

} // namespace gantry::app
