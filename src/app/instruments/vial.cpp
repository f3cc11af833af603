// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/vial.h"

#include "app/theme/tokens.h"

#include <algorithm>
#include <cmath>

namespace gantry::app {

double bubblePlace(const Verdict& v) {
    if (!v.ratio) return 0.5;
    const double wanted = std::max(1.0, v.bounds.wanted);
    if (v.state == State::Oversized) return 0.12;
    if (v.state == State::Over) return 0.87;
    const double ratio = v.ratio.value();
    // Short of what is wanted: from the right line at "wanted" to the right end at 1.
    if (v.state == State::Tight || ratio < wanted) {
        const double t = wanted > 1.0 ? std::clamp((wanted - ratio) / (wanted - 1.0), 0.0, 1.0) : 0.5;
        return 0.7 + 0.1 * t;
    }
    // Fine: drifts left over two octaves of reserve.
    return 0.6 - 0.2 * std::clamp(std::log2(ratio / wanted) / 2.0, 0.0, 1.0);
}

void paintVial(QPainter& p, const QRectF& box, State state, double place) {
    const Tokens& t = tokens();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.third, 1));
    p.setBrush(t.paper);
    p.drawRoundedRect(box.adjusted(0.5, 0.5, -0.5, -0.5), box.height() / 2.2, box.height() / 2.2);
    for (const double line : {1.0 / 3.0, 2.0 / 3.0}) {
        const double x = box.left() + box.width() * line;
        p.drawLine(QPointF(x, box.top() + 1), QPointF(x, box.bottom() - 1));
    }
    if (state != State::Unknown) {
        const QColor colour = stateColour(state);
        const QRectF bubble(box.left() + box.width() * place - 7.5, box.center().y() - 3.8, 15, 7.6);
        const QColor edge = colour.darker(isNight() ? 100 : 120);
        if (state == State::AtRisk) {
            // A hollow bubble where it stands as entered, and how far the tolerances let it run.
            p.setPen(QPen(edge, 1.6));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(bubble);
            const qreal end = box.right() - 4;
            p.drawLine(QPointF(bubble.right(), bubble.center().y()), QPointF(end, bubble.center().y()));
            p.drawLine(QPointF(end, bubble.top() + 0.5), QPointF(end, bubble.bottom() - 0.5));
        } else {
            p.setPen(QPen(edge, 1));
            p.setBrush(colour);
            p.drawEllipse(bubble);
            p.setPen(Qt::NoPen);
            p.setBrush(QColor(255, 255, 255, 130));
            p.drawEllipse(QRectF(bubble.left() + 3.5, bubble.top() + 1.6, 4.5, 2));
        }
    }
    p.restore();
}

} // namespace gantry::app
