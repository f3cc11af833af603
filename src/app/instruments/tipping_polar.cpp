// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/tipping_polar.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/criteria/criteria.h"

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
    cases_ = context_.document.results().tipping();
    const RigStructure& rig = a.evaluation.rig;
    if (rig.tipping)
        words_ = tr("holds %1 times at worst, towards %2")
                     .arg(context_.show(lesser(rig.tipping, rig.tippingEmergency), units::Kind::Ratio),
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

/// What hangs does not tip: pull of the anchors against what they stand, on one scale.
void TippingPolar::paintAnchors(QPainter& p) const {
    const Tokens& t = tokens();
    const RigStructure& rig = context_.document.assessment().evaluation.rig;
    const double pull = rig.anchorPull.valueOr(0.0),
                 stand = context_.document.project().base.anchorStrength.value;
    const double wanted = criteria::anchors;
    const double whole = 1.1 * std::max(stand, wanted * pull);
    if (!(whole > 0.0)) return;
    const bool tight = height() < 150;
    const int left = 14, room = width() - 28, high = tight ? 10 : 16, row = tight ? 32 : 46;
    const auto x = [&](double force) { return left + room * force / whole; };
    const auto bar = [&](int y, const QString& text, double force, const QColor& colour) {
        p.setPen(t.second);
        p.drawText(QRect(left, y, room, 14), Qt::AlignVCenter, text);
        p.setPen(QPen(colour, 1.2));
        p.setBrush(force > 0.0 ? t.lakeWash : Qt::NoBrush);
        p.drawRect(QRectF(left, y + 16, force > 0.0 ? x(force) - left : room, high));
    };
    const int top = std::max(28, (height() - 34 - 2 * row) / 2);
    p.setFont(textFont(11));
    bar(top, tr("pull at most %1").arg(context_.show(pull, units::Kind::Force)), pull, t.rust);
    if (stand > 0.0) {
        bar(top + row, tr("anchors withstand %1").arg(context_.show(stand, units::Kind::Force)), stand,
            t.lake);
    } else {
        p.setPen(t.brick);
        p.drawText(QRectF(left, top + row, x(wanted * pull) - left - 8, 34),
                   Qt::AlignVCenter | Qt::TextWordWrap,
                   tr("What the anchors withstand is not entered: it is never presumed."));
    }
    p.setPen(QPen(t.ink, 1.2, Qt::DashLine));
    p.drawLine(QPointF(x(wanted * pull), top + 14), QPointF(x(wanted * pull), top + 2 * row - 12));
    p.setPen(t.second);
    const double line = std::clamp(x(wanted * pull), left + 63.0, left + room - 63.0);
    p.drawText(QRectF(line - 63, top + 2 * row + (tight ? 6 : -9), 126, 14), Qt::AlignCenter,
               tr("target: × %1").arg(context_.show(wanted, units::Kind::Ratio)));
}

void TippingPolar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    const Tokens& t = tokens();
    const bool anchors = bool(context_.document.assessment().evaluation.rig.anchorPull);
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    p.drawText(QRect(12, 5, width() - 24, 20), Qt::AlignVCenter,
               anchors ? tr("Anchors") : tr("Tipping, by direction"));
    p.setFont(textFont(11));
    p.setPen(t.second);
    if (anchors) return paintAnchors(p);
    const QRect line(12, height() - 34, width() - 24, 30);
    p.drawText(line, Qt::AlignHCenter | Qt::AlignVCenter | Qt::TextWordWrap, words_);
    if (cases_.empty()) return;
    p.setRenderHint(QPainter::Antialiasing);
    // Where there is room the words in the corners stay clear of the rim.
    const int words = height() > 200 ? 22 : 0;
    const QPointF middle(width() / 2.0, 28 + words + (height() - 66 - words) / 2.0);
    const double radius = std::min((height() - 70 - words) / 2.0, (width() - 40) / 2.0);
    const auto at = [&](double ratio, double direction) {
        const double r = radius * std::clamp(ratio, 0.0, outermost) / outermost;
        return middle + QPointF(r * std::cos(direction), -r * std::sin(direction));
    };
    p.setBrush(Qt::NoBrush);
    p.setFont(textFont(10));
    for (const double ring : {1.0, criteria::tipping.value, outermost}) {
        p.setPen(QPen(ring == 1.0 ? t.brick : t.line, 1, ring == 1.0 ? Qt::DashLine : Qt::SolidLine));
        const double r = radius * ring / outermost;
        p.drawEllipse(middle, r, r);
    }
    // The feet by direction, with the numbers by which ballast names them.
    int number = 0;
    for (const structure::Plan& f :
         feetOf(context_.document.project().axes, context_.document.project().base)) {
        const double d = std::atan2(f.y, f.x);
        const QPointF out(std::cos(d), -std::sin(d)), foot = middle + 0.45 * radius * out;
        p.setPen(QPen(t.ink, 2.0));
        p.drawLine(middle, foot);
        p.setPen(t.ink);
        ++number;
        if (radius < 40.0) continue;
        p.drawText(QRectF(foot.x() + 9 * out.x() - 8, foot.y() + 9 * out.y() - 8, 16, 16), Qt::AlignCenter,
                   QString::number(number));
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
