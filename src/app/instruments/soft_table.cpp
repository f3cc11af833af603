// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/soft_table.h"

#include "app/instruments/field_group.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/tools/structure_curves.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {
using units::Kind;

SoftTable::SoftTable(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("softTable"));
    setAccessibleName(tr("Compliance, largest first"));
}

void SoftTable::refresh() {
    words_.clear();
    if (const AxisEvaluation* e = context_.axisEvaluation())
        for (const SoftEntry& s : e->structure.soft)
            words_ +=
                tr("%1 %2, %3 of the movement. ")
                    .arg(QString::fromUtf8(softName(s.cause)),
                         context_.show(s.part.frequency, Kind::Frequency),
                         context_.show(structure::shareOf(s.part, e->structure.all), Kind::Percentage, 2));
    setAccessibleDescription(words_);
    update();
}

void SoftTable::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    const Tokens& t = tokens();
    const std::array columns{12, 236, 316, 390, 540};
    p.setFont(textFont(12, true));
    p.setPen(t.ink);
    const AxisEvaluation* e = context_.axisEvaluation();
    p.drawText(QRect(12, 4, 220, 20), Qt::AlignVCenter, tr("Compliance, largest first"));
    p.setFont(textFont(11));
    p.setPen(t.second);
    if (e == nullptr || e->structure.soft.empty()) {
        p.drawText(QRect(12, 26, width() - 24, 34), Qt::AlignTop | Qt::TextWordWrap,
                   e == nullptr
                       ? tr("Add an axis first.")
                       : tr("Nothing that gives way is known: enter the section, the stands or the mast, "
                            "or the springs of the drive."));
        return;
    }
    const auto cell = [&](int column, int y, const QString& text) {
        const int left = columns[static_cast<std::size_t>(column)];
        p.drawText(QRect(left, y, 160, 20), Qt::AlignVCenter, text);
    };
    // The shot after which it swings longest.
    const ShotEvaluation* shot = context_.shotEvaluation();
    for (const ShotEvaluation& s : e->shots)
        if (s.rocking.settling && (shot == nullptr || !shot->rocking.settling ||
                                   s.rocking.settling.value() > shot->rocking.settling.value()))
            shot = &s;
    cell(1, 4, tr("frequency"));
    cell(2, 4, tr("damping"));
    // Which stop it is, where there is room to say so: moves and plans have stops of their own.
    const QString after =
        shot == nullptr
            ? QString()
            : tr("settling after “%1”")
                  .arg(QString::fromStdString(context_.document.project().shots[shot->shot.at()].name));
    const bool fits =
        !after.isEmpty() && p.fontMetrics().horizontalAdvance(after) < columns[4] - columns[3] - 6;
    cell(3, 4, fits ? after : tr("settling time"));
    cell(4, 4, tr("share of the vibration"));
    int y = 26;
    for (const SoftEntry& s : e->structure.soft) {
        if (y + 20 > height()) break;
        p.setPen(t.faintLine);
        p.drawLine(12, y, width() - 12, y);
        p.setPen(t.ink);
        p.setFont(textFont(11, true));
        QString name = QString::fromUtf8(softName(s.cause));
        name[0] = name[0].toUpper();
        cell(0, y, name);
        p.setFont(textFont(11));
        cell(1, y, context_.show(s.part.frequency, Kind::Frequency));
        cell(2, y, context_.show(s.part.damping, Kind::Percentage, 2));
        QString alone = QStringLiteral("–");
        if (shot != nullptr && shot->problem == Reason::None) {
            const double limit = context_.document.project().shots[shot->shot.at()].limits.jitter;
            const Figure time = settlesAlone(*shot, s.part, limit);
            alone = time ? context_.show(time, Kind::Time, 2) : tr("for ever");
        }
        cell(3, y, alone);
        const double share = structure::shareOf(s.part, e->structure.all);
        const int room = width() - columns[4] - 66;
        p.fillRect(QRect(columns[4], y + 5, static_cast<int>(room * share), 10), t.lake);
        p.drawText(QRect(width() - 60, y, 48, 20), Qt::AlignRight | Qt::AlignVCenter,
                   context_.show(share, Kind::Percentage, 2));
        y += 21;
    }
}

} // namespace gantry::app
