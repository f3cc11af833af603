// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/tipping_polar.h"

#include "app/instruments/field_group.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {
constexpr double outermost = 3.0; // ratio at the rim; better is drawn there too
}

TippingPolar::TippingPolar(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("tippingPolar"));
    setAccessibleName(tr("Tipping, by direction"));
}

void TippingPolar::refresh() {
    const Assessment& a = context_.document.assessment();
    cases_ = tippingPolar(context_.document.project(), a.evaluation.axes);
    const RigStructure& rig = a.evaluation.rig;
    if (rig.tipping)
        words_ = tr("holds %1 times at worst, towards %2")
                     .arg(context_.show(std::min(rig.tipping.value(), rig.tippingEmergency.value()),
                                        units::Kind::Ratio),
                          context_.show(rig.tippingDirection, units::Kind::Angle));
    else if (rig.anchorPull)
        words_ = tr("held by anchors that pull with up to %1")
                     .arg(context_.show(rig.anchorPull, units::Kind::Force));
    else
        words_ =
            tr("not known yet: %1").arg(QString::fromUtf8(words::reasonText(rig.tipping.reason()).data()));
    setAccessibleDescription(words_);
    setToolTip(words_);
    update();
}

void TippingPolar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    const Tokens& t = tokens();
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    p.drawText(QRect(12, 5, width() - 24, 20), Qt::AlignVCenter, tr("Tipping, by direction"));
    p.setFont(textFont(11));
    p.setPen(t.second);
    const QRect line(12, height() - 34, width() - 24, 30);
    p.drawText(line, Qt::AlignHCenter | Qt::AlignVCenter | Qt::TextWordWrap, words_);
    if (cases_.empty()) return;
    p.setRenderHint(QPainter::Antialiasing);
    const QPointF middle(width() / 2.0, 28 + (height() - 66) / 2.0);
    const double radius = (height() - 70) / 2.0;
    const auto at = [&](double ratio, double direction) {
        const double r = radius * std::clamp(ratio, 0.0, outermost) / outermost;
        return middle + QPointF(r * std::cos(direction), -r * std::sin(direction));
    };
    p.setBrush(Qt::NoBrush);
    p.setFont(textFont(10));
    for (const double ring : {1.0, 1.5, outermost}) {
        p.setPen(QPen(ring == 1.0 ? t.brick : t.line, 1, ring == 1.0 ? Qt::DashLine : Qt::SolidLine));
        const double r = radius * ring / outermost;
        p.drawEllipse(middle, r, r);
    }
    // The feet, to scale among themselves.
    const Base& base = context_.document.project().base;
    p.setPen(QPen(t.ink, 2.0));
    for (const structure::Plan& f : feetOf(base)) {
        const double d = std::atan2(f.y, f.x);
        p.drawLine(middle, middle + QPointF(0.45 * radius * std::cos(d), -0.45 * radius * std::sin(d)));
    }
    if (cases_.size() < 3) {
        p.setPen(QPen(t.lake, 2));
        for (const TippingCase& c : cases_)
            p.drawLine(middle, at(std::min(c.ordinary, c.emergency), c.direction));
        return;
    }
    const auto outline = [&](auto ratioOf) {
        QPolygonF polygon;
        for (const TippingCase& c : cases_) polygon << at(ratioOf(c), c.direction);
        p.drawPolygon(polygon);
    };
    p.setPen(QPen(t.lake, 1.5));
    QColor wash = t.lake;
    wash.setAlpha(35);
    p.setBrush(wash);
    outline([](const TippingCase& c) { return c.ordinary; });
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.rust, 1.3, Qt::DashLine));
    outline([](const TippingCase& c) { return c.emergency; });
    const RigStructure& rig = context_.document.assessment().evaluation.rig;
    if (rig.tippingDirection) {
        p.setPen(QPen(t.rust, 1.5));
        p.drawLine(middle, at(outermost, rig.tippingDirection.value()));
    }
    p.setFont(textFont(10));
    p.setPen(t.lake);
    p.drawText(QRect(12, 26, 90, 14), Qt::AlignLeft, tr("planned stop"));
    p.setPen(t.rust);
    p.drawText(QRect(12, 38, 90, 14), Qt::AlignLeft, tr("hardest stop"));
    p.setPen(t.brick);
    p.drawText(QRect(width() - 102, 26, 92, 14), Qt::AlignRight, tr("inner ring: tips"));
    p.setPen(t.second);
    p.drawText(QRect(width() - 102, 38, 92, 14), Qt::AlignRight,
               tr("rim: ×%1").arg(context_.show(outermost, units::Kind::Ratio)));
}

} // namespace gantry::app
