// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/label_dialog.h"

#include "core/parts/label.h"
#include "core/units/text.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <array>

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
          QT_TR_NOOP("with the current it tells the resistance")},
    Entry{
        QT_TR_NOOP("Steps counted in a turn"), Kind::Count, "",
        QT_TR_NOOP("power one phase after the other by hand and count: 200 or 400, 20 to 48 on small ones")},
    Entry{QT_TR_NOOP("Phase resistance measured"), Kind::Resistance, "",
          QT_TR_NOOP("motor unplugged; subtract the probes")},
    Entry{
        QT_TR_NOOP("Current of the warm test, rms"), Kind::Current, "",
        QT_TR_NOOP("raise it in steps of 0.1 A, ten minutes each; stop when the case is 50 K above the air")},
    Entry{QT_TR_NOOP("Case above the air then"), Kind::Ratio, "",
          QT_TR_NOOP("kelvin; use a thermometer, not a finger")}};

} // namespace

LabelDialog::LabelDialog(const Context& context, QWidget* parent)
    : QDialog(parent), context_(context), result_(new QLabel) {
    setObjectName(QStringLiteral("labelDialog"));
    setWindowTitle(tr("A stepper from its label, or from readings"));
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
    auto* care = new QLabel(tr("The warm test heats the motor enough to burn: mount it on metal, keep paper "
                               "away, stay with it, and switch off at the "
                               "agreed temperature. Unplug the motor before measuring resistance."));
    care->setProperty("role", "error");
    care->setWordWrap(true);
    result_->setWordWrap(true);
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
    all->addWidget(care);
    all->addWidget(result_, 1);
    all->addLayout(buttons);
    connect(use, &QPushButton::clicked, this, &LabelDialog::use);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    compute();
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
    parts::BenchReadings r;
    r.size = {v[0], v[1], v[2], v[3], 0.0314159265358979};
    r.stepsPerTurn = static_cast<int>(v[4]);
    r.resistance = v[5];
    r.warmCurrent = v[6];
    r.caseRise = v[7];
    const bool bench = v[4] > 0.0 || v[5] > 0.0 || v[6] > 0.0;
    stepper_ = bench ? parts::stepperFromReadings(r) : parts::stepperFromLabel(r.size);
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
    use_->setEnabled(context_.axis() != nullptr && !context_.document.readOnly());
}

void LabelDialog::use() {
    context_.document.change(tr("Motor from its label"), [&](Project& p) {
        p.axes[static_cast<std::size_t>(context_.session.axis())].motor = stepper_;
    });
    accept();
}

} // namespace gantry::app
