// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/ramps_dialog.h"

#include "app/instruments/ramp_sketch.h"

#include <QVBoxLayout>

namespace gantry::app {

using units::Kind;

RampsDialog::RampsDialog(const Context& context, QWidget* parent)
    : TableWindow(context, QStringLiteral("rampsDialog"), tr("Compare ramps"), parent),
      sketch_(new RampSketch(context, this)) {
    pane_->content()->insertWidget(TablePane::belowTable, sketch_);
}

void RampsDialog::follow() {
    const Context& context = context_;
    const ShotEvaluation* shot = context.shotEvaluation();
    const AxisEvaluation* e = context.axisEvaluation();
    const auto ramps = shot != nullptr && e != nullptr ? compareRamps(context.document.project(), *e, *shot)
                                                       : std::vector<RampRow>{};
    if (ramps.empty()) {
        pane_->setSentence(tr("This axis has no shot that can be driven yet."));
    } else {
        const QString name = QString::fromStdString(context.document.project().shots[shot->shot.at()].name);
        pane_->setSentence(
            e->model.mode
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
    pane_->setTable({tr("Ramps"), tr("Takes"), tr("Deflects"), tr("Left at the stop"), tr("Settles in"),
                     tr("Controller")},
                    rows);
    // Drawn is what swings; without a frequency nobody knows how.
    const bool swings = !ramps.empty() && e->model.mode && shot->pixelsPerUnit > 0.0;
    sketch_->setVisible(swings);
    if (swings)
        sketch_->show(ramps, *e->model.mode, context.document.project().shots[shot->shot.at()].limits.jitter);
    pane_->fit();
}

} // namespace gantry::app
