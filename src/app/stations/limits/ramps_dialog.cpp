// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/ramps_dialog.h"

#include "core/tools/compare_ramps.h"

namespace gantry::app {

using units::Kind;

RampsDialog::RampsDialog(const Context& context, QWidget* parent)
    : TableDialog(QStringLiteral("rampsDialog"), tr("Compare ramps"), parent) {
    const ShotEvaluation* shot = context.shotEvaluation();
    const AxisEvaluation* e = context.axisEvaluation();
    const auto ramps = shot != nullptr && e != nullptr ? compareRamps(context.document.project(), *e, *shot)
                                                       : std::vector<RampRow>{};
    if (ramps.empty()) {
        setSentence(tr("This axis has no shot that can be driven yet."));
    } else {
        const QString name = QString::fromStdString(context.document.project().shots[shot->shot.at()].name);
        setSentence(e->model.mode
                        ? tr("Shot “%1” at its own top speed and peak acceleration, natural frequency %2:")
                              .arg(name, context.show(e->model.mode->frequency, Kind::Frequency))
                        : tr("Shot “%1” at its own top speed and peak acceleration. No natural frequency is "
                             "known; measure "
                             "it to see what ramps leave.")
                              .arg(name));
    }
    QList<QStringList> rows;
    for (const RampRow& r : ramps) {
        const QString settles = r.settling ? context.show(r.settling, Kind::Time)
                                : r.settling.reason() == Reason::Unbounded ? tr("never, undamped")
                                                                           : QStringLiteral("–");
        rows << QStringList{QString::fromUtf8(shapeName(r.shape).data()),
                            context.show(r.time, Kind::Time),
                            context.show(r.leaning, Kind::Pixels),
                            context.show(r.rocking, Kind::Pixels),
                            settles,
                            r.offered ? tr("can do it") : tr("cannot")};
    }
    setTable({tr("Ramps"), tr("Takes"), tr("Deflects"), tr("Left at the stop"), tr("Settles in"),
              tr("Controller")},
             rows);
}

} // namespace gantry::app
