// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/time_dialog.h"

#include "core/tools/limits.h"
#include "core/units/text.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace gantry::app {

using units::Kind;

TimeDialog::TimeDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("timeDialog"), tr("Time for a distance"), parent),
      distance_(new QLineEdit), time_(new QLineEdit), result_(new QLabel) {
    resize(480, 260);
    auto* form = new QFormLayout;
    distance_->setAccessibleName(tr("Distance"));
    distance_->setObjectName(QStringLiteral("timeDistance"));
    time_->setAccessibleName(tr("Target time"));
    time_->setObjectName(QStringLiteral("timeWanted"));
    time_->setPlaceholderText(tr("empty: as fast as set"));
    form->addRow(tr("Distance"), distance_);
    form->addRow(tr("Target time"), time_);
    result_->setWordWrap(true);
    result_->setAlignment(Qt::AlignTop);
    result_->setObjectName(QStringLiteral("timeResult"));
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    auto* all = new QVBoxLayout(this);
    all->addLayout(form);
    all->addWidget(result_, 1);
    all->addWidget(close, 0, Qt::AlignRight);
    for (QLineEdit* edit : {distance_, time_})
        connect(edit, &QLineEdit::textChanged, this, &TimeDialog::compute);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void TimeDialog::follow() {
    const Axis* axis = context_.axis();
    if (const AxisEvaluation* e = context_.axisEvaluation();
        e != nullptr && axis != nullptr && axis->id != axis_) {
        axis_ = axis->id;
        distance_->setText(
            context_.typed(e->model.travel, e->model.kind == AxisKind::Linear ? Kind::Length : Kind::Angle));
    }
    compute();
}

void TimeDialog::compute() {
    const AxisEvaluation* e = context_.axisEvaluation();
    if (e == nullptr) return result_->setText(tr("Add an axis first."));
    const bool linear = e->model.kind == AxisKind::Linear;
    const auto read = [&](const QLineEdit* edit, Kind kind, double& value) {
        const auto parsed = units::parse(edit->text().toStdString(), kind, context_.system());
        if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
            result_->setText(tr("%1: %2").arg(edit->accessibleName(), QString::fromStdString(bad->sentence)));
            return false;
        }
        value = std::get<double>(parsed);
        if (value > 0.0) return true;
        result_->setText(tr("%1 must be more than zero.").arg(edit->accessibleName()));
        return false;
    };
    double distance = 0.0, time = 0.0;
    if (!read(distance_, linear ? Kind::Length : Kind::Angle, distance)) return;
    const motion::Limits& set = e->model.settings;
    const motion::Profile fastest = motion::plan(distance, set);
    QString said = tr("At the quickest it takes %1, reaching %2 with ramps of %3.")
                       .arg(context_.show(fastest.time(), Kind::Time),
                            context_.show(fastest.peakSpeed, linear ? Kind::Speed : Kind::AngularSpeed),
                            context_.show(fastest.in.time(), Kind::Time));
    if (distance > e->model.travel)
        said +=
            QLatin1Char(' ') + tr("The axis has only %1.")
                                   .arg(context_.show(e->model.travel, linear ? Kind::Length : Kind::Angle));
    if (!time_->text().trimmed().isEmpty()) {
        if (!read(time_, Kind::Time, time)) return;
        const auto p = motion::planInTime(distance, time, set);
        if (!p || p->peakSpeed > set.speed * (1.0 + 1e-9))
            said += QLatin1Char('\n') + tr("%1 is too short.").arg(context_.show(time, Kind::Time));
        else {
            // The gentlest way to the same end: a third in each ramp.
            const double speed = 1.5 * distance / time, a = speed / (time / 3.0);
            said += QLatin1Char('\n') +
                    tr("In %1 it cruises at %2 with the set ramps. At its gentlest, a third of the time in "
                       "each ramp, it "
                       "needs %3 and %4.")
                        .arg(context_.show(time, Kind::Time),
                             context_.show(p->peakSpeed, linear ? Kind::Speed : Kind::AngularSpeed),
                             context_.show(speed, linear ? Kind::Speed : Kind::AngularSpeed),
                             context_.show(a, linear ? Kind::Acceleration : Kind::AngularAcceleration));
            if (speed > set.speed || a > set.acceleration)
                said += QLatin1Char(' ') + tr("That is more than is set.");
        }
    }
    result_->setText(said);
}

} // namespace gantry::app
