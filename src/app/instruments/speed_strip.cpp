// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/speed_strip.h"

#include "app/instruments/envelope_plot.h"
#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/units/unit_table.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {
constexpr int left = 70, right = 16;
}

SpeedStrip::SpeedStrip(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("speedStrip"));
}

void SpeedStrip::show(const AxisLimits& limits, AxisKind kind, const QStringList& shotNames) {
    limits_ = limits;
    kind_ = kind;
    names_ = shotNames;
    const units::Kind speed = kind == AxisKind::Linear ? units::Kind::Speed : units::Kind::AngularSpeed;
    QStringList said;
    for (const SpeedBand& b : limits.bands)
        said << tr("%1 from %2 to %3")
                    .arg(bandName(b.reason), context_.show(b.low, speed), context_.show(b.high, speed));
    for (const Limit& l : limits.speed)
        said << tr("%1 ends at %2")
                    .arg(QString::fromUtf8(limitName(l.reason).data()), context_.show(l.value, speed));
    for (qsizetype i = 0; i < names_.size(); ++i) {
        const StripShot& s = limits.shots[static_cast<std::size_t>(i)];
        said << (s.better
                     ? tr("“%1” at %2 lies in a band; %3 is the nearest outside")
                           .arg(names_[i], context_.show(s.speed, speed), context_.show(*s.better, speed))
                     : tr("“%1” at %2").arg(names_[i], context_.show(s.speed, speed)));
    }
    words_ = said.join(QStringLiteral(" · "));
    setAccessibleName(tr("Speed strip"));
    setAccessibleDescription(words_);
    setToolTip(words_);
    update();
}

double SpeedStrip::place(double speed) const {
    const double low = limits_.envelope.front().speed, high = limits_.envelope.back().speed;
    const double share = std::log(std::clamp(speed, low, high) / low) / std::log(high / low);
    return left + share * (width() - left - right);
}

void SpeedStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1));
    p.setFont(textFont(11, true));
    p.setPen(t.ink);
    p.drawText(QRect(12, 0, left - 12, height()), Qt::AlignVCenter, tr("Speeds"));
    if (limits_.envelope.empty()) return;
    const int middle = height() / 2 + 2;
    for (const SpeedBand& b : limits_.bands) {
        QColor fill = b.reason == BandReason::Noise ? t.heather : t.straw;
        fill.setAlpha(90);
        const double from = place(b.low), to = place(b.high);
        if (to - from >= 1.0) p.fillRect(QRectF(from, middle - 8, to - from, 12), fill);
    }
    p.setPen(QPen(t.second, 1));
    p.drawLine(left, middle + 4, width() - right, middle + 4);
    const units::Kind kind = kind_ == AxisKind::Linear ? units::Kind::Speed : units::Kind::AngularSpeed;
    const double unit = units::shownUnit(kind, context_.system()).factor;
    p.setFont(textFont(10));
    const double low = limits_.envelope.front().speed / unit, high = limits_.envelope.back().speed / unit;
    double lastLabel = -1e9;
    for (double decade = std::pow(10.0, std::floor(std::log10(low))); decade <= high; decade *= 10.0)
        for (const double step : {1.0, 2.0, 5.0}) {
            const double v = decade * step;
            if (v < low || v > high) continue;
            const double x = place(v * unit);
            p.setPen(QPen(t.second, 1));
            p.drawLine(QPointF(x, middle + 1), QPointF(x, middle + 7));
            const QString label = context_.show(v * unit, kind);
            if (x - lastLabel < 70 || x > width() - right - 20) continue;
            lastLabel = x;
            p.drawText(QRectF(x - 40, middle + 7, 80, 14), Qt::AlignCenter, label);
        } // Every limit is a tick, the one that binds a bold one with its name.
    bool named = false;
    for (const Limit& l : limits_.speed) {
        if (l.value > limits_.envelope.back().speed) continue;
        const bool binds = l.value == limits_.largest.speed;
        const double x = place(l.value);
        p.setPen(QPen(l.reason == LimitReason::Judder ? t.straw : t.brick, binds ? 2 : 1));
        p.drawLine(QPointF(x, middle - (binds ? 12 : 7)), QPointF(x, middle + 5));
        if (!binds || named) continue;
        named = true;
        const QString name = QString::fromUtf8(limitName(l.reason).data());
        const bool room = x + 6 + p.fontMetrics().horizontalAdvance(name) < width() - right;
        p.drawText(QRectF(room ? x + 5 : x - 185, middle - 21, 180, 14),
                   Qt::AlignVCenter | (room ? Qt::AlignLeft : Qt::AlignRight), name);
    }
    for (qsizetype i = 0; i < names_.size(); ++i) {
        const StripShot& s = limits_.shots[static_cast<std::size_t>(i)];
        const double x = place(s.speed);
        p.setPen(Qt::NoPen);
        p.setBrush(s.better ? t.brick : t.rust);
        p.drawEllipse(QPointF(x, middle - 2), 4, 4);
        p.setPen(s.better ? t.brick : t.rust);
        p.drawText(QRectF(x - 60, middle - 21, 120, 14), Qt::AlignCenter, names_[i]);
        if (!s.better) continue;
        const double to = place(*s.better);
        p.setPen(QPen(t.moss, 1.5));
        p.drawLine(QPointF(x + (to > x ? 5 : -5), middle - 2), QPointF(to, middle - 2));
        p.drawLine(QPointF(to, middle - 2), QPointF(to + (to > x ? -4 : 4), middle - 5));
        p.drawLine(QPointF(to, middle - 2), QPointF(to + (to > x ? -4 : 4), middle + 1));
    }
}

} // namespace gantry::app
