// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/ramps_dialog.h"

#include "core/evaluate/compare_ramps.h"

#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace gantry::app {

using units::Kind;

RampsDialog::RampsDialog(const Context& context, QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("rampsDialog"));
    setWindowTitle(tr("Compare ramps"));
    resize(720, 300);
    auto* all = new QVBoxLayout(this);
    const ShotEvaluation* shot = context.shotEvaluation();
    const AxisEvaluation* e = context.axisEvaluation();
    const auto rows = shot != nullptr && e != nullptr ? compareRamps(context.document.project(), *e, *shot)
                                                      : std::vector<RampRow>{};
    auto* head = new QLabel;
    head->setWordWrap(true);
    if (rows.empty()) {
        head->setText(tr("This axis has no shot that can be driven yet."));
    } else {
        const QString name = QString::fromStdString(
            context.document.project().shots[static_cast<std::size_t>(shot->shot)].name);
        head->setText(
            e->model.mode
                ? tr("Shot “%1” at its own top speed and peak acceleration, rocking at %2:")
                      .arg(name, context.show(e->model.mode->frequency, Kind::Frequency))
                : tr("Shot “%1” at its own top speed and peak acceleration. Nothing known rocks; measure the "
                     "rocking frequency to see what ramps leave.")
                      .arg(name));
    }
    all->addWidget(head);
    auto* table = new QTableWidget(static_cast<int>(rows.size()), 6);
    table->setObjectName(QStringLiteral("rampsTable"));
    table->setAccessibleName(tr("Shapes of ramps"));
    table->setHorizontalHeaderLabels(
        {tr("Ramps"), tr("Takes"), tr("Leans"), tr("Left at the stop"), tr("Settles in"), tr("Controller")});
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    table->verticalHeader()->hide();
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setShowGrid(false);
    for (int i = 0; i < table->rowCount(); ++i) {
        const RampRow& r = rows[static_cast<std::size_t>(i)];
        const QString settles = r.settling ? context.show(r.settling, Kind::Time)
                                : r.settling.reason() == Reason::Unbounded ? tr("never, undamped")
                                                                           : QStringLiteral("–");
        const QStringList cells{QString::fromUtf8(shapeName(r.shape).data()),
                                context.show(r.time, Kind::Time),
                                context.show(r.leaning, Kind::Pixels),
                                context.show(r.rocking, Kind::Pixels),
                                settles,
                                r.offered ? tr("can do it") : tr("cannot")};
        for (int c = 0; c < cells.size(); ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            item->setTextAlignment(c == 0 ? Qt::AlignVCenter | Qt::AlignLeft : Qt::AlignCenter);
            table->setItem(i, c, item);
        }
    }
    all->addWidget(table, 1);
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    all->addWidget(close, 0, Qt::AlignRight);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

} // namespace gantry::app
