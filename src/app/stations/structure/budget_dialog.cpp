// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/budget_dialog.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QComboBox>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace gantry::app {
using units::Kind;

namespace {

constexpr int rowHeight = 18, linesAKind = 5;

Kind unitOf(ErrorKind kind) {
    return kind == ErrorKind::Drift ? Kind::PixelsPerFrame : Kind::Pixels;
}

} // namespace

BudgetBars::BudgetBars(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("budgetBars"));
    setAccessibleName(tr("Error budget"));
    setMinimumHeight(4 * (26 + linesAKind * rowHeight) + 20);
}

void BudgetBars::show(ErrorBudget budget) {
    budget_ = std::move(budget);
    words_.clear();
    const Project& p = context_.document.project();
    for (const BudgetLine& l : budget_.lines)
        words_ += tr("%1, %2 of %3: %4. ")
                      .arg(QString::fromUtf8(errorKindName(l.kind)), QString::fromUtf8(causeName(l.cause)),
                           QString::fromStdString(p.axes[static_cast<std::size_t>(l.axis)].name),
                           context_.show(l.amount, unitOf(l.kind)));
    setAccessibleDescription(words_);
    update();
}

void BudgetBars::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const Project& project = context_.document.project();
    const int barLeft = 300, barRight = width() - 130;
    int y = 4;
    for (const ErrorKind kind :
         {ErrorKind::Drift, ErrorKind::Jitter, ErrorKind::Repeat, ErrorKind::Framing}) {
        const auto k = static_cast<std::size_t>(kind);
        const QRect card(0, y, width(), 26 + linesAKind * rowHeight - 4);
        paintCard(p, card);
        p.setFont(textFont(12, true));
        p.setPen(t.ink);
        QString name = QString::fromUtf8(errorKindName(kind));
        name[0] = name[0].toUpper();
        p.drawText(QRect(12, y + 2, 200, 20), Qt::AlignVCenter, name);
        p.setFont(textFont(11));
        p.setPen(budget_.sums[k] > budget_.allowed[k] ? t.brick : t.second);
        p.drawText(QRect(200, y + 2, width() - 212, 20), Qt::AlignVCenter | Qt::AlignRight,
                   tr("%1 together, %2 allowed")
                       .arg(context_.show(budget_.sums[k], unitOf(kind)),
                            context_.show(budget_.allowed[k], unitOf(kind))));
        int row = y + 22, shown = 0;
        double largest = budget_.allowed[k];
        for (const BudgetLine& l : budget_.lines)
            if (l.kind == kind) largest = std::max(largest, l.amount);
        for (const BudgetLine& l : budget_.lines) {
            if (l.kind != kind || shown == linesAKind - 1) continue;
            ++shown;
            p.setPen(t.ink);
            p.drawText(QRect(12, row, barLeft - 20, rowHeight), Qt::AlignVCenter,
                       fitted(p.fontMetrics(),
                              tr("%1: %2").arg(
                                  QString::fromStdString(project.axes[static_cast<std::size_t>(l.axis)].name),
                                  QString::fromUtf8(causeName(l.cause))),
                              barLeft - 20));
            const int w = static_cast<int>((barRight - barLeft) * l.amount / largest);
            const double share = budget_.share(l);
            p.fillRect(QRect(barLeft, row + 4, std::max(1, w), rowHeight - 8), share > 1.0   ? t.brick
                                                                               : share > 0.5 ? t.straw
                                                                                             : t.lake);
            p.drawText(QRect(barRight + 8, row, 118, rowHeight), Qt::AlignVCenter | Qt::AlignRight,
                       context_.show(l.amount, unitOf(kind)));
            row += rowHeight;
        }
        // The limit, where it lies in the same scale.
        const int limit = barLeft + static_cast<int>((barRight - barLeft) * budget_.allowed[k] / largest);
        p.setPen(QPen(t.ink, 1, Qt::DashLine));
        p.drawLine(limit, y + 22, limit, card.bottom() - 2);
        if (shown == 0) {
            p.setPen(t.third);
            p.drawText(QRect(12, row, width() - 24, rowHeight), Qt::AlignVCenter,
                       tr("nothing known adds to it"));
        }
        y = card.bottom() + 6;
    }
}

BudgetDialog::BudgetDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("budgetDialog"), tr("Error budget"), parent), shot_(new QComboBox),
      bars_(new BudgetBars(context, this)) {
    resize(780, 560);
    auto* all = new QVBoxLayout(this);
    shot_->setObjectName(QStringLiteral("budgetShot"));
    shot_->setAccessibleName(tr("Shot"));
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    all->addWidget(shot_);
    all->addWidget(bars_, 1);
    all->addWidget(close, 0, Qt::AlignRight);
    connect(shot_, &QComboBox::currentIndexChanged, this, &BudgetDialog::refresh);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void BudgetDialog::follow() {
    QStringList names, there;
    for (const Shot& s : context_.document.project().shots) names << QString::fromStdString(s.name);
    for (int i = 0; i < shot_->count(); ++i) there << shot_->itemText(i);
    if (names != there) {
        const QSignalBlocker quiet(shot_);
        const int chosen = shot_->currentIndex();
        shot_->clear();
        shot_->addItems(names);
        const ShotEvaluation* e = context_.shotEvaluation();
        shot_->setCurrentIndex(chosen >= 0    ? std::min(chosen, shot_->count() - 1)
                               : e != nullptr ? e->shot.row()
                                              : 0);
    }
    refresh();
}

void BudgetDialog::refresh() {
    bars_->show(errorBudget(context_.document.project(), context_.document.assessment().evaluation,
                            ShotIndex(static_cast<std::size_t>(std::max(0, shot_->currentIndex())))));
}

} // namespace gantry::app
