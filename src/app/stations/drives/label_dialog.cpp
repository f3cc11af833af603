// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/label_dialog.h"

#include "app/instruments/motor_band_plot.h"
#include "core/parts/label.h"
#include "core/units/text.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <array>
#include <numbers>

namespace gantry::app {
namespace {

using units::Kind;
struct Entry {
    const char* label;
    Kind kind;
    const char* start;
    const char* hint;
};
constexpr std::array entries{
    Entry{QT_TR_NOOP("Flange, across"), Kind::PartLength, "42.3 mm",
          QT_TR_NOOP("28 mm, 35.2 mm, 42.3 mm, 56.4 mm, 86 mm …")},
    Entry{QT_TR_NOOP("Body length"), Kind::PartLength, "40 mm", ""},
    Entry{QT_TR_NOOP("Label current"), Kind::Current, "", QT_TR_NOOP("a phase; empty if it does not say")},
    Entry{QT_TR_NOOP("Label volts"), Kind::Voltage, "",
          QT_TR_NOOP("with the current it tells the resistance")}};

} // namespace

LabelDialog::LabelDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("labelDialog"), tr("A stepper from its label"), parent),
      result_(new QLabel), plot_(new MotorBandPlot(context, this)) {
    resize(640, 520);
    auto* form = new QFormLayout;
    for (const Entry& e : entries) {
        auto* edit = new QLineEdit(QString::fromLatin1(e.start));
        edit->setPlaceholderText(tr(e.hint));
        edit->setAccessibleName(tr(e.label));
        edit->setObjectName(QStringLiteral("label%1").arg(edits_.size()));
        connect(edit, &QLineEdit::textChanged, this, &LabelDialog::compute);
        edits_.push_back(edit);
        form->addRow(tr(e.label), edit);
    }
    auto* other =
        new QLabel(tr("No label either? Close this and take “A motor without a label” from Tools: it "
                      "leads through counting, measuring and warming."));
    other->setProperty("role", "hint");
    other->setWordWrap(true);
    result_->setWordWrap(true);
    result_->setAlignment(Qt::AlignTop);
    result_->setObjectName(QStringLiteral("labelResult"));
    auto* use = new QPushButton(tr("Use this motor"));
    use->setProperty("role", "primary");
    use->setAutoDefault(false);
    use_ = use;
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(use);
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addLayout(form);
    all->addWidget(other);
    plot_->setMinimumHeight(220);
    all->addWidget(result_);
    all->addWidget(plot_, 1);
    all->addLayout(buttons);
    connect(use, &QPushButton::clicked, this, &LabelDialog::use);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void LabelDialog::compute() {
    std::array<double, entries.size()> v{};
    use_->setEnabled(false);
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const QString typed = edits_[static_cast<qsizetype>(i)]->text().trimmed();
        if (typed.isEmpty()) continue;
        const auto parsed = units::parse(typed.toStdString(), entries[i].kind, context_.system());
        if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
            result_->setText(tr("%1: %2").arg(tr(entries[i].label), QString::fromStdString(bad->sentence)));
            return;
        }
        v[i] = std::get<double>(parsed);
        if (v[i] < 0.0) {
            result_->setText(
                tr("%1 cannot be less than zero; “%2” was typed.").arg(tr(entries[i].label), typed));
            return;
        }
    }
    if (v[0] < 0.01 || v[0] > 0.2 || v[1] < 0.005 || v[1] > 0.5) {
        result_->setText(
            tr("Give flange and body length; measured with a rule they say most about a motor."));
        return;
    }
    stepper_ = parts::stepperFromLabel({v[0], v[1], v[2], v[3], std::numbers::pi / 100.0});
    const auto with = [&](const Estimate& e, Kind kind) {
        if (e.value <= 0.0) return tr("not known");
        return tr("%1 ±%2").arg(context_.show(e.value, kind), context_.show(e.tolerance, Kind::Percentage));
    };
    result_->setText(
        tr("Holding torque %1 · rotor inertia %2 · resistance %3 · inductance %4 · rated current %5 · mass "
           "%6 · %7 K/W")
            .arg(with(stepper_.holdingTorque, Kind::Torque), with(stepper_.rotorInertia, Kind::Inertia),
                 with(stepper_.resistance, Kind::Resistance), with(stepper_.inductance, Kind::Inductance),
                 with(stepper_.ratedCurrent, Kind::Current), with(stepper_.body.mass, Kind::Mass),
                 context_.show(stepper_.body.thermalResistance.value, Kind::Ratio)));
    plot_->show(stepper_);
    use_->setEnabled(context_.axis() != nullptr && !context_.document.readOnly());
}

void LabelDialog::use() {
    context_.document.change(tr("Motor from its label"), [&](Project& p) {
        p.axes[static_cast<std::size_t>(context_.session.axis())].motor = stepper_;
    });
    accept();
}

} // namespace gantry::app
