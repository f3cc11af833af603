// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/confidence_card.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/model/fields.h"
#include "core/recipes/recipe.h"

#include <QPainter>
#include <QPushButton>
#include <array>

namespace gantry::app {
namespace {

constexpr int shownInfluences = 5, rowHeight = 20;

/// "7 in 10 000", or "none in 10 000".
QString chance(double share, int samples) {
    const int count = static_cast<int>(std::lround(share * samples));
    return count == 0 ? ConfidenceCard::tr("none") : QString::number(count);
}

} // namespace

ConfidenceCard::ConfidenceCard(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), measure_(new QPushButton(this)) {
    setObjectName(QStringLiteral("confidenceCard"));
    measure_->setObjectName(QStringLiteral("measureFirst"));
    measure_->setProperty("role", "fix");
    measure_->hide();
    connect(measure_, &QPushButton::clicked, this, [this] { emit measureWanted(measurePath_); });
}

QString ConfidenceCard::caption(const std::string& path) const {
    Project copy = context_.document.project();
    const auto field = findField(copy, path);
    if (!field) return QString::fromStdString(path);
    return QString::fromUtf8(field->info.label);
}

void ConfidenceCard::clear(const QString& text) {
    show(std::nullopt, false);
    instead_ = text;
}

void ConfidenceCard::show(const std::optional<sampling::Confidence>& confidence, bool stale) {
    confidence_ = confidence;
    stale_ = stale;
    instead_.clear();
    measure_->hide();
    measurePath_.clear();
    if (confidence_)
        for (const sampling::Influence& i : confidence_->influences) {
            const bool weak = i.input.source != Source::Measured && i.input.source != Source::Counted;
            if (!weak || recipes::forField(i.path).empty()) continue;
            measurePath_ = QString::fromStdString(i.path);
            measure_->setText(tr("Measure it first: %1").arg(caption(i.path)));
            measure_->show();
            break;
        }
    resizeEvent(nullptr);
    update();
}

void ConfidenceCard::resizeEvent(QResizeEvent*) {
    measure_->setGeometry(12, height() - 34, std::min(width() - 24, measure_->sizeHint().width() + 8), 25);
}

void ConfidenceCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("Confidence"), 6);
    p.setFont(textFont(11));
    p.setPen(t.second);
    if (!confidence_) {
        p.drawText(QRect(12, 28, width() - 24, 18), Qt::AlignVCenter,
                   instead_.isEmpty() ? tr("sampling the tolerances …") : instead_);
        return;
    }
    const sampling::Confidence& c = *confidence_;
    if (stale_) p.setPen(t.third);
    const QString line =
        tr("Of %1 rigs within your tolerances: %2 lack torque, %3 pass a limit, %4 vibrate visibly.")
            .arg(QString::number(c.samples), chance(c.stalls, c.samples), chance(c.exceeds, c.samples),
                 chance(c.rocks, c.samples));
    p.drawText(QRect(12, 26, width() - 24, 34), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, line);
    static constexpr std::array sources{"measured", "counted", "data sheet", "label", "guess", "assumed"};
    int y = 62;
    for (std::size_t i = 0; i < c.influences.size() && i < shownInfluences && y + rowHeight < height() - 34;
         ++i) {
        const sampling::Influence& in = c.influences[i];
        p.setPen(stale_ ? t.third : t.ink);
        const int third = (width() - 24) / 3;
        p.drawText(QRect(12, y, third + 10, rowHeight), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), caption(in.path), third + 6));
        p.setPen(stale_ ? t.third : t.second);
        p.drawText(QRect(26 + third, y, third - 4, rowHeight), Qt::AlignVCenter,
                   tr("%1 ±%2").arg(tr(sources[static_cast<std::size_t>(in.input.source)]),
                                    context_.show(in.input.tolerance, units::Kind::Percentage, 2)));
        const int room = third - 50;
        p.fillRect(QRect(22 + 2 * third, y + 6, std::max(1, static_cast<int>(room * in.share)), 8),
                   stale_ ? t.line : t.heather);
        p.drawText(QRect(width() - 56, y, 44, rowHeight), Qt::AlignVCenter | Qt::AlignRight,
                   context_.show(in.share, units::Kind::Percentage, 2));
        y += rowHeight;
    }
    if (c.influences.empty())
        p.drawText(QRect(12, y, width() - 24, rowHeight), Qt::AlignVCenter,
                   tr("No shot moves this axis, or nothing is uncertain."));
}

} // namespace gantry::app
