// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/ramp_sketch.h"

#include "app/theme/card.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::app {
namespace {

constexpr int lane = 40, rampHead = 24, rampFoot = 20, rampNameWidth = 176, valueWidth = 84;
constexpr double periods = 6.0; // that are drawn of the swing

QString nameOf(const RampRow& row) {
    const std::string_view name = shapeName(row.shape);
    return QString::fromUtf8(name);
}

} // namespace

RampSketch::RampSketch(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("rampSketch"));
    setAccessibleName(tr("What each ramp leaves"));
}

void RampSketch::show(std::vector<RampRow> ramps, const motion::Mode& mode, double limit) {
    ramps_ = std::move(ramps);
    mode_ = mode;
    limit_ = limit;
    setAccessibleDescription(inWords());
    setFixedHeight(sizeHint().height());
    update();
}

QSize RampSketch::sizeHint() const {
    return {480, rampHead + rampFoot + lane * static_cast<int>(ramps_.size())};
}

double RampSketch::left(const RampRow& row) const {
    return row.rocking.valueOr(0.0);
}

QString RampSketch::inWords() const {
    QStringList out;
    for (const RampRow& r : ramps_)
        if (r.rocking)
            out << tr("%1: %2, %3")
                       .arg(nameOf(r), context_.show(r.rocking, units::Kind::Pixels),
                            left(r) > limit_ ? tr("beyond the limit") : tr("within the limit"));
    return out.join(QStringLiteral(". "));
}

void RampSketch::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("Vibration after the stop"), 2);
    double most = limit_;
    for (const RampRow& r : ramps_) most = std::max(most, left(r));
    const QRect area(rampNameWidth, rampHead, width() - rampNameWidth - valueWidth - 12,
                     lane * static_cast<int>(ramps_.size()));
    const double shown = periods / mode_.frequency, rate = 2.0 * std::numbers::pi * mode_.frequency;
    for (std::size_t i = 0; i < ramps_.size(); ++i) {
        const RampRow& r = ramps_[i];
        const int top = rampHead + lane * static_cast<int>(i), middle = top + lane / 2;
        const double scale = (lane / 2.0 - 3.0) / (most / 2.0);
        const bool beyond = left(r) > limit_;
        p.setFont(textFont(11));
        p.setPen(r.offered ? t.ink : t.third);
        p.drawText(QRect(12, top, rampNameWidth - 16, lane), Qt::AlignVCenter, nameOf(r));
        const int band = std::max(1, static_cast<int>(std::lround(limit_ / 2.0 * scale)));
        p.fillRect(QRect(area.left(), middle - band, area.width(), 2 * band), t.lakeWash);
        p.setPen(t.faintLine);
        p.drawLine(area.left(), middle, area.right(), middle);
        QPolygonF line;
        for (int x = 0; x <= area.width(); ++x) {
            const double time = shown * x / area.width();
            line << QPointF(area.left() + x, middle - scale * left(r) / 2.0 *
                                                          std::exp(-mode_.damping * rate * time) *
                                                          std::cos(rate * time));
        }
        p.setPen(QPen(beyond ? t.brick : t.lake, 1.4));
        p.drawPolyline(line);
        p.drawText(QRect(area.right() + 8, top, valueWidth, lane), Qt::AlignVCenter,
                   context_.show(r.rocking, units::Kind::Pixels));
    }
    p.setFont(textFont(10));
    p.setPen(t.second);
    const QRect below(area.left(), area.bottom() + 1, area.width(), rampFoot - 4);
    p.drawText(below, Qt::AlignLeft | Qt::AlignVCenter,
               tr("at the stop · band: the limit of %1").arg(context_.show(limit_, units::Kind::Pixels)));
    p.drawText(below, Qt::AlignRight | Qt::AlignVCenter,
               tr("%1 later").arg(context_.show(shown, units::Kind::Time)));
}

} // namespace gantry::app
