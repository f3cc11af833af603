// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/section_sketch.h"

#include "app/theme/card.h"
#include "app/theme/tokens.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

constexpr int sectionHead = 24, drawing = 92, barHeight = 6, sectionFoot = 40;

/// Width and height as it stands [m].
QSizeF sizeOf(const Section& s) {
    switch (s.shape) {
    case SectionShape::RoundTube:
        return {s.width, s.width};
    case SectionShape::RodPair:
        return s.onEdge ? QSizeF(s.width, s.spacing + s.width) : QSizeF(s.spacing + s.width, s.width);
    case SectionShape::NotGiven:
    case SectionShape::Own:
        return {0.0, 0.0};
    default:
        return s.onEdge ? QSizeF(s.height, s.width) : QSizeF(s.width, s.height);
    }
}

/// Its material, centred on the origin, in metres, as it stands.
QPainterPath crossSection(const Section& s) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    const double w = s.width, h = s.height;
    const auto rectangle = [&](double width, double height) {
        path.addRect(QRectF(-width / 2.0, -height / 2.0, width, height));
    };
    switch (s.shape) {
    case SectionShape::SolidRectangle:
        rectangle(w, h);
        break;
    case SectionShape::HollowRectangle:
        rectangle(w, h);
        rectangle(std::max(0.0, w - 2.0 * s.wall), std::max(0.0, h - 2.0 * s.wall));
        break;
    case SectionShape::RoundTube: {
        path.addEllipse(QPointF(), w / 2.0, w / 2.0);
        const double inner = std::max(0.0, w / 2.0 - s.wall);
        path.addEllipse(QPointF(), inner, inner);
        break;
    }
    case SectionShape::RodPair:
        for (const double side : {-0.5, 0.5})
            path.addEllipse(QPointF(side * s.spacing, 0.0), w / 2.0, w / 2.0);
        break;
    case SectionShape::Tee:
        path.setFillRule(Qt::WindingFill);
        path.addRect(QRectF(-w / 2.0, -h / 2.0, w, s.flange));
        path.addRect(QRectF(-s.wall / 2.0, -h / 2.0, s.wall, h));
        break;
    case SectionShape::SlottedProfile: {
        // A slot in the middle of every 20 or 40 mm of each side, as deep as a quarter of it.
        rectangle(w, h);
        const double pitch = std::min(w, h);
        const double slot = 0.2 * pitch, deep = 0.25 * pitch;
        for (double x = -w / 2.0 + pitch / 2.0; x < w / 2.0; x += pitch)
            for (const double side : {-1.0, 1.0})
                path.addRect(QRectF(x - slot / 2.0, side > 0.0 ? h / 2.0 - deep : -h / 2.0, slot, deep));
        for (double y = -h / 2.0 + pitch / 2.0; y < h / 2.0; y += pitch)
            for (const double side : {-1.0, 1.0})
                path.addRect(QRectF(side > 0.0 ? w / 2.0 - deep : -w / 2.0, y - slot / 2.0, deep, slot));
        break;
    }
    case SectionShape::NotGiven:
    case SectionShape::Own:
        break;
    }
    return s.onEdge ? QTransform().rotate(90.0).map(path) : path;
}

} // namespace

SectionSketch::SectionSketch(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("sectionSketch"));
    setAccessibleName(tr("Sections to scale"));
    setFixedHeight(sectionHead + drawing + sectionFoot);
}

void SectionSketch::show(const std::vector<SectionRow>& rows, int chosen) {
    rows_.assign(rows.begin(), rows.begin() + std::min<std::ptrdiff_t>(most, std::ssize(rows)));
    chosen_ = chosen;
    QStringList words;
    for (const SectionRow& r : rows_) words << context_.show(r.found.sag, units::Kind::Length);
    setAccessibleDescription(tr("Sag in the order of the table: %1").arg(words.join(QStringLiteral(", "))));
    update();
}

void SectionSketch::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("To scale, in the order of the table"), 2);
    if (rows_.empty()) return;
    const int each = (width() - 24) / static_cast<int>(rows_.size());
    double largest = 0.0, sag = 0.0;
    for (const SectionRow& r : rows_) {
        const QSizeF size = sizeOf(r.section);
        largest = std::max({largest, size.height() / (drawing - 10.0), size.width() / (each - 14.0)});
        sag = std::max(sag, r.found.sag.valueOr(0.0));
    }
    if (!(largest > 0.0)) return;
    p.setFont(textFont(10));
    p.setPen(t.second);
    // A rule as long as a round length.
    double rule = 0.01;
    while (rule / largest < 20.0) rule *= 2.0;
    const int ruleWidth = static_cast<int>(std::lround(rule / largest));
    p.drawLine(width() - 14 - ruleWidth, 14, width() - 14, 14);
    p.drawText(QRect(width() - 200 - ruleWidth, 4, 178, 20), Qt::AlignVCenter | Qt::AlignRight,
               context_.show(rule, units::Kind::PartLength));
    for (int i = 0; i < static_cast<int>(rows_.size()); ++i) {
        const SectionRow& r = rows_[static_cast<std::size_t>(i)];
        const int left = 12 + i * each;
        if (i == chosen_) p.fillRect(QRect(left, sectionHead, each, drawing + sectionFoot - 4), t.lakeWash);
        p.save();
        p.translate(left + each / 2.0, sectionHead + drawing / 2.0);
        p.scale(1.0 / largest, 1.0 / largest);
        p.fillPath(crossSection(r.section), i == 0 ? t.lake : t.third);
        p.restore();
        const int bar = sectionHead + drawing + 4, room = each - 16;
        const double share = sag > 0.0 ? r.found.sag.valueOr(0.0) / sag : 0.0;
        p.fillRect(QRect(left + 8, bar, std::max(1, static_cast<int>(room * share)), barHeight), t.rust);
        p.setPen(t.ink);
        p.drawText(QRect(left, bar + barHeight + 2, each, 18), Qt::AlignCenter,
                   tr("sags %1").arg(context_.show(r.found.sag, units::Kind::Length, 2)));
    }
}

} // namespace gantry::app
