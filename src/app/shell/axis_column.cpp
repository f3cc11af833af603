// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/axis_column.h"

#include "app/instruments/field_group.h"
#include "app/instruments/vial.h"
#include "app/theme/tokens.h"
#include "core/units/text.h"

#include <QPainter>
#include <QPushButton>

namespace gantry::app {

const Verdict* worstVerdict(const Document& document, int axis) {
    const Verdict* worst = nullptr;
    for (const Verdict& v : document.assessment().verdicts) {
        if (axis >= 0 && v.axis != axis) continue;
        if (setAsideFor(document.project(), v) != nullptr && !v.hazard) continue;
        if (worst == nullptr || worseThan(v, *worst)) worst = &v;
    }
    return worst;
}

AxisCard::AxisCard(const Context& context, int axis, QWidget* parent)
    : QAbstractButton(parent), context_(context), axis_(axis) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("axisCard%1").arg(axis));
    setCursor(Qt::PointingHandCursor);
}

void AxisCard::refresh() {
    const Axis& axis = context_.document.project().axes[static_cast<std::size_t>(axis_)];
    const AxisEvaluation& e = context_.document.assessment().evaluation.axes[static_cast<std::size_t>(axis_)];
    const bool linear = kindOf(axis) == AxisKind::Linear;
    QString drive;
    if (const auto* m = std::get_if<LinearMechanism>(&axis.mechanism))
        drive = tr("%1T belt").arg(m->output.teeth);
    else
        drive = axis.links.empty() ? tr("direct")
                                   : tr("%1:1").arg(context_.show(e.totalRatio, units::Kind::Ratio));
    detail_ = tr("%1 · %2 %3")
                  .arg(drive, QString::fromStdString(units::plainNumber(e.stepsPerUnit.value(), 3)),
                       linear ? tr("steps/mm") : tr("steps/°"));
    worst_ = worstVerdict(context_.document, axis_);
    setText(QString::fromStdString(axis.name));
    setAccessibleName(tr("Axis %1").arg(text()));
    setAccessibleDescription(detail_ +
                             (worst_ != nullptr
                                  ? QStringLiteral(", ") + QString::fromUtf8(stateWord(worst_->state).data())
                                  : QString()));
    update();
}

void AxisCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const bool chosen = context_.session.axis() == axis_;
    p.setPen(QPen(chosen || hasFocus() ? t.lake : t.line, hasFocus() ? 2 : 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
    if (chosen) p.fillRect(QRectF(1, 3, 4, height() - 6), t.lake);
    p.setPen(axisPen(axis_, 2.6));
    p.drawLine(QPointF(12, 18), QPointF(30, 18));
    p.setPen(t.ink);
    p.setFont(textFont(12, true));
    p.drawText(QRect(36, 8, width() - 110, 20), Qt::AlignVCenter,
               p.fontMetrics().elidedText(text(), Qt::ElideRight, width() - 110));
    p.setPen(t.second);
    p.setFont(textFont(11));
    p.drawText(QRect(12, 30, width() - 20, 20), Qt::AlignVCenter,
               p.fontMetrics().elidedText(detail_, Qt::ElideRight, width() - 20));
    if (worst_ != nullptr)
        paintVial(p, QRectF(width() - 72, 11, 62, 14), worst_->state, bubblePlace(*worst_));
}

AxisColumn::AxisColumn(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), add_(new QPushButton(tr("Add an axis"), this)),
      elevation_(new Elevation(context, this)) {
    add_->setObjectName(QStringLiteral("addAxis"));
    connect(add_, &QPushButton::clicked, this, &AxisColumn::addAxisWanted);
}

void AxisColumn::refresh() {
    const int n = static_cast<int>(context_.document.project().axes.size());
    while (cards_.size() < n) {
        const int i = static_cast<int>(cards_.size());
        auto* card = new AxisCard(context_, i, this);
        connect(card, &QAbstractButton::clicked, this, [this, i] { context_.session.setAxis(i); });
        card->show();
        cards_.push_back(card);
        if (i > 0) setTabOrder(cards_[i - 1], card);
        setTabOrder(card, add_);
    }
    while (cards_.size() > n) delete cards_.takeLast();
    for (AxisCard* card : cards_) card->refresh();
    add_->setEnabled(!context_.document.readOnly());
    elevation_->update();
    place();
}

void AxisColumn::place() {
    int y = 34;
    for (AxisCard* card : cards_) {
        card->setGeometry(12, y, width() - 24, 56);
        y += 64;
    }
    add_->setGeometry(12, y, width() - 24, 28);
    elevation_->setGeometry(12, y + 62, width() - 24, 138);
}

void AxisColumn::resizeEvent(QResizeEvent*) {
    place();
}

void AxisColumn::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setPen(tokens().line);
    p.drawLine(width() - 1, 0, width() - 1, height());
    p.setPen(tokens().second);
    p.setFont(textFont(11));
    p.drawText(QRect(12, 10, width() - 24, 20), Qt::AlignVCenter, tr("Axes, base to lens"));
    p.drawText(QRect(12, elevation_->y() - 22, width() - 24, 20), Qt::AlignVCenter, tr("Side view"));
}

} // namespace gantry::app
