// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/card.h"

#include "app/theme/tokens.h"

#include <QImage>
#include <QPainter>
#include <QString>
#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

namespace gantry::app {
namespace {

constexpr int radius = 5, corner = radius + 1; // [px]

void stroke(QPainter& p, const QRectF& box) {
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(tokens().line, 1));
    p.setBrush(tokens().sheet);
    p.drawRoundedRect(box.adjusted(0.5, 0.5, -0.5, -0.5), radius, radius);
}

/// A card no larger than its four corners, drawn once for each look: outlines are the dearest thing to paint
/// anew in every card.
const QImage& corners(int scale) {
    static std::map<std::tuple<QRgb, QRgb, int>, QImage> drawn;
    QImage& box = drawn[{tokens().line.rgba(), tokens().sheet.rgba(), scale}];
    if (box.isNull()) {
        box = QImage(2 * corner * scale, 2 * corner * scale, QImage::Format_ARGB32_Premultiplied);
        box.setDevicePixelRatio(scale);
        box.fill(Qt::transparent);
        QPainter p(&box);
        stroke(p, QRectF(0, 0, 2 * corner, 2 * corner));
    }
    return box;
}

} // namespace

void paintCard(QPainter& p, const QRect& box) {
    const double scale = p.device()->devicePixelRatioF();
    const int x = box.left(), y = box.top(), w = box.width(), h = box.height();
    // Corners meet edges only where a pixel of the screen is not parted.
    if (scale != std::floor(scale) || p.transform().isScaling() || std::min(w, h) < 2 * corner) {
        p.save();
        stroke(p, box);
        p.restore();
        return;
    }
    const int s = static_cast<int>(scale), side = corner * s;
    for (const int column : {0, 1})
        for (const int row : {0, 1})
            p.drawImage(QPoint(x + column * (w - corner), y + row * (h - corner)), corners(s),
                        QRect(column * side, row * side, side, side));
    const QColor &line = tokens().line, &sheet = tokens().sheet;
    const int across = w - 2 * corner, down = h - 2 * corner;
    p.fillRect(x + corner, y + 1, across, h - 2, sheet);
    p.fillRect(x + 1, y + corner, corner - 1, down, sheet);
    p.fillRect(x + w - corner, y + corner, corner - 1, down, sheet);
    p.fillRect(x + corner, y, across, 1, line);
    p.fillRect(x + corner, y + h - 1, across, 1, line);
    p.fillRect(x, y + corner, 1, down, line);
    p.fillRect(x + w - 1, y + corner, 1, down, line);
}

void paintCard(QPainter& p, const QRect& box, const QString& title, int below) {
    paintCard(p, box);
    p.setFont(textFont(12, true));
    p.setPen(tokens().ink);
    p.drawText(QRect(box.left() + 12, box.top() + below, box.width() - 24, 20), Qt::AlignVCenter, title);
}

} // namespace gantry::app
