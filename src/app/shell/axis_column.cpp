// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/axis_column.h"

#include "app/instruments/field_group.h"
#include "app/instruments/part_words.h"
#include "app/instruments/vial.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/model/edit_axes.h"
#include "core/units/text.h"

#include <algorithm>

#include <QMenu>
#include <QPainter>
#include <QPushButton>

namespace gantry::app {
namespace {

constexpr int vialWidth = 62;

}

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
    detail_ = driveInShort(context_, axis, e);
    if (e.steps.stepsPerUnit)
        detail_ += tr(" · %1 %2")
                       .arg(QString::fromStdString(units::plainNumber(e.steps.stepsPerUnit.value(), 3)),
                            linear ? tr("steps/mm") : tr("steps/°"));
    worst_ = worstVerdict(context_.document, axis_);
    setText(QString::fromStdString(axis.name));
    setAccessibleName(tr("Axis %1").arg(text()));
    setAccessibleDescription(detail_ +
                             (worst_ != nullptr
                                  ? QStringLiteral(", ") + QString::fromUtf8(stateWord(worst_->state).data())
                                  : QString()));
    Shown now{text(), detail_, std::nullopt, 0, context_.session.axis() == axis_};
    if (worst_ != nullptr) {
        now.state = worst_->state;
        now.bubble = qRound(vialWidth * bubblePlace(*worst_));
    }
    if (shown_ != now) update();
    shown_ = now;
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
               fitted(p.fontMetrics(), text(), width() - 110));
    p.setPen(t.second);
    p.setFont(textFont(11));
    if (height() >= 50)
        p.drawText(QRect(12, 30, width() - 20, 20), Qt::AlignVCenter,
                   fitted(p.fontMetrics(),
                          p.fontMetrics().horizontalAdvance(detail_) > width() - 20
                              ? detail_.section(QStringLiteral(" · "), -1) // what one types in, if not both
                              : detail_,
                          width() - 20));
    if (worst_ != nullptr)
        paintVial(p, QRectF(width() - 72, 11, vialWidth, 14), worst_->state, bubblePlace(*worst_));
}

AxisColumn::AxisColumn(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), add_(new QPushButton(tr("Add an axis"), this)),
      edit_(new QPushButton(tr("Edit axis"), this)), elevation_(new RigView(context, this)) {
    elevation_->setSmall();
    add_->setObjectName(QStringLiteral("addAxis"));
    connect(add_, &QPushButton::clicked, this, &AxisColumn::addAxisWanted);
    edit_->setObjectName(QStringLiteral("editAxis"));
    auto* menu = new QMenu(this);
    const auto entry = [&](const QString& text, const QKeySequence& keys, auto how) {
        QAction* action = menu->addAction(text, this, how);
        action->setShortcut(keys);
        addAction(action);
    };
    entry(tr("Copy"), QKeySequence(tr("Ctrl+D")), [this] {
        int now = -1;
        context_.document.change(tr("Copy axis"),
                                 [&](Project& p) { now = copyAxis(p, context_.session.axis()); });
        if (now >= 0) context_.session.setAxis(now);
    });
    entry(tr("Move towards the base"), QKeySequence(tr("Ctrl+Shift+Up")), [this] { move(-1); });
    entry(tr("Move towards the lens"), QKeySequence(tr("Ctrl+Shift+Down")), [this] { move(1); });
    entry(tr("Remove"), {}, [this] {
        context_.document.change(tr("Remove axis"),
                                 [&](Project& p) { removeAxis(p, context_.session.axis()); });
    });
    edit_->setMenu(menu);
    add_->setProperty("small", true);
    edit_->setProperty("small", true);
    edit_->setProperty("menu", true);
}

void AxisColumn::move(int step) {
    int now = context_.session.axis();
    context_.document.change(tr("Move axis"), [&](Project& p) { now = moveAxis(p, now, step); });
    context_.session.setAxis(now);
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
        setTabOrder(add_, edit_);
    }
    while (cards_.size() > n) delete cards_.takeLast();
    for (AxisCard* card : cards_) card->refresh();
    add_->setEnabled(!context_.document.readOnly());
    edit_->setEnabled(n > 0 && !context_.document.readOnly());
    elevation_->refresh();
    place();
}

void AxisColumn::place() {
    // With many axes the cards close up, so that the drawing below keeps its room.
    const int n = static_cast<int>(cards_.size());
    const int room = height() - 34 - 28 - 62 - 138 - 12;
    const int each = n > 0 ? std::clamp(room / n, 34, 64) : 64;
    int y = 34;
    for (AxisCard* card : cards_) {
        card->setGeometry(12, y, width() - 24, each - (each > 50 ? 8 : 3));
        y += each;
    }
    const int half = (width() - 30) / 2;
    add_->setGeometry(12, y, half, 28);
    edit_->setGeometry(18 + half, y, half, 28);
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
