// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/identify_dialog.h"

#include "app/stations/drives/identify_steps.h"
#include "core/units/text.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QStackedWidget>
#include <cmath>
#include <numbers>

namespace gantry::app {
namespace {

using UnitKind = units::Kind;

QString warmKey(int reading, bool current) {
    return QStringLiteral("warm_%1_%2")
        .arg(current ? QStringLiteral("current") : QStringLiteral("case"))
        .arg(reading);
}
UnitKind warmKind(bool current) {
    return current ? UnitKind::Current : UnitKind::Celsius;
}
QLabel* label(const QString& text, const char* role) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    if (role[0] != '\0') l->setProperty("role", role);
    return l;
}
int whole(double value) {
    return static_cast<int>(std::lround(value));
}

} // namespace

IdentifyDialog::IdentifyDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("identifyDialog"), tr("A motor without a label"), parent),
      pages_(new QStackedWidget), stepper_(nullptr), dc_(nullptr), where_(label({}, "hint")),
      trouble_(label({}, "error")), result_(label({}, "")), back_(new QPushButton(tr("Back"))),
      next_(new QPushButton(tr("Next"))), use_(new QPushButton(tr("Use this motor"))) {
    resize(620, 520);
    pages_->addWidget(makeChoice());
    for (int i = 0; i < static_cast<int>(identifySteps().size()); ++i) pages_->addWidget(makeStep(i));
    pages_->addWidget(makeResult());
    use_->setProperty("role", "primary");
    next_->setObjectName(QStringLiteral("identifyNext"));
    trouble_->setObjectName(QStringLiteral("identifyTrouble"));
    result_->setObjectName(QStringLiteral("identifyResult"));
    auto* close = new QPushButton(tr("Close"));
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(where_, 1);
    for (QPushButton* b : {back_, next_, use_, close}) {
        b->setAutoDefault(false);
        buttons->addWidget(b);
    }
    auto* all = new QVBoxLayout(this);
    all->addWidget(pages_, 1);
    all->addWidget(trouble_);
    all->addLayout(buttons);
    connect(back_, &QPushButton::clicked, this, [this] { go(-1); });
    connect(next_, &QPushButton::clicked, this, [this] { go(1); });
    connect(use_, &QPushButton::clicked, this, &IdentifyDialog::use);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

QWidget* IdentifyDialog::makeChoice() {
    auto* page = new QWidget;
    auto* all = new QVBoxLayout(page);
    stepper_ =
        new QRadioButton(tr("A stepper: 4, 5, 6 or 8 leads, clicks from place to place when turned by hand"));
    dc_ = new QRadioButton(tr("A brushed DC motor: 2 leads, runs as soon as it gets a voltage"));
    stepper_->setChecked(true);
    all->addWidget(label(tr("What is it?"), "title"));
    all->addWidget(stepper_);
    all->addWidget(dc_);
    all->addWidget(
        label(tr("Three thick leads and a plug for an encoder are a servo motor. Without its data sheet it "
                 "cannot be identified safely; find its plate, or ask who built it. A small box with a "
                 "horn and three thin leads is a hobby servo: choose that kind in Drives and time it."),
              "hint"));
    all->addStretch();
    return page;
}

QWidget* IdentifyDialog::makeStep(int index) {
    const IdentifyStep& step = identifySteps()[static_cast<std::size_t>(index)];
    auto* page = new QWidget;
    auto* all = new QVBoxLayout(page);
    all->addWidget(label(tr(step.title), "title"));
    if (step.care[0] != '\0') all->addWidget(label(tr("First: %1").arg(tr(step.care)), "error"));
    all->addWidget(label(tr(step.what), ""));
    auto* form = new QFormLayout;
    const auto add = [&](const QString& key, const QString& name, const QString& start, const QString& hint) {
        auto* edit = new QLineEdit(start);
        edit->setPlaceholderText(hint);
        edit->setAccessibleName(name);
        edit->setObjectName(QStringLiteral("%1/%2").arg(index).arg(key));
        edits_[edit->objectName()] = edit;
        return edit;
    };
    for (const StepField& f : step.fields)
        form->addRow(tr(f.label),
                     add(QString::fromLatin1(f.key), tr(f.label), QString::fromLatin1(f.start), tr(f.hint)));
    all->addLayout(form);
    if (step.warm) {
        auto* table = new QGridLayout;
        table->addWidget(label(tr("Current"), "hint"), 0, 1);
        table->addWidget(label(tr("Case"), "hint"), 0, 2);
        for (int i = 0; i < warmReadings; ++i) {
            table->addWidget(label(tr("Reading %1").arg(i + 1), ""), i + 1, 0);
            for (bool current : {true, false}) {
                auto* edit = add(
                    warmKey(i, current),
                    (current ? tr("Current of reading %1") : tr("Case at reading %1")).arg(i + 1), {}, {});
                table->addWidget(edit, i + 1, current ? 1 : 2);
                connect(edit, &QLineEdit::editingFinished, this, &IdentifyDialog::adviseWarmTest);
            }
        }
        all->addLayout(table);
        auto* advice = label({}, "title");
        advice->setObjectName(QStringLiteral("warmAdvice"));
        advice_ << advice;
        all->addWidget(advice);
    }
    all->addStretch();
    return page;
}

QWidget* IdentifyDialog::makeResult() {
    auto* page = new QWidget;
    auto* all = new QVBoxLayout(page);
    all->addWidget(label(tr("What it is"), "title"));
    all->addWidget(result_);
    all->addStretch();
    return page;
}

std::vector<int> IdentifyDialog::steps() const {
    std::vector<int> out;
    for (int i = 0; i < static_cast<int>(identifySteps().size()); ++i) {
        const IdentifyStep& s = identifySteps()[static_cast<std::size_t>(i)];
        if (dc_->isChecked() ? s.dc : s.stepper) out.push_back(i);
    }
    return out;
}

void IdentifyDialog::go(int by) {
    if (by > 0 && !read()) return;
    const std::vector<int> way = steps();
    const int last = static_cast<int>(way.size()) + 1;
    at_ = std::clamp(at_ + by, 0, last);
    const bool result = at_ == last;
    pages_->setCurrentIndex(at_ == 0 ? 0
                            : result ? pages_->count() - 1
                                     : 1 + way[static_cast<std::size_t>(at_ - 1)]);
    where_->setText(at_ == 0 ? tr("Every step may be left empty.") : tr("Step %1 of %2").arg(at_).arg(last));
    back_->setEnabled(at_ > 0);
    next_->setVisible(!result);
    use_->setVisible(result);
    trouble_->clear();
    if (result) compute();
    if (QWidget* page = pages_->currentWidget())
        if (auto* first = page->findChild<QLineEdit*>()) first->setFocus();
    adviseWarmTest();
}

bool IdentifyDialog::read() {
    values_.clear();
    const auto take = [&](int index, const QString& key, const QString& name, UnitKind kind) {
        const QString typed = edits_[QStringLiteral("%1/%2").arg(index).arg(key)]->text().trimmed();
        if (typed.isEmpty()) return true;
        const auto parsed = units::parse(typed.toStdString(), kind, context_.system());
        if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
            trouble_->setText(QStringLiteral("%1: %2").arg(name, QString::fromStdString(bad->sentence)));
            return false;
        }
        const double value = std::get<double>(parsed);
        if (value < 0.0 && kind != UnitKind::Celsius) {
            trouble_->setText(tr("%1 cannot be less than zero; “%2” was typed.").arg(name, typed));
            return false;
        }
        if (kind == UnitKind::Count && value > 1e8) {
            trouble_->setText(tr("%1: “%2” is too many; 100 million at most.").arg(name, typed));
            return false;
        }
        values_[key] = value;
        return true;
    };
    for (int index : steps()) {
        const IdentifyStep& step = identifySteps()[static_cast<std::size_t>(index)];
        for (const StepField& f : step.fields)
            if (!take(index, QString::fromLatin1(f.key), tr(f.label), f.kind)) return false;
        for (int i = 0; step.warm && i < warmReadings; ++i)
            for (bool current : {true, false})
                if (!take(index, warmKey(i, current), tr("Reading %1").arg(i + 1), warmKind(current)))
                    return false;
    }
    trouble_->clear();
    return true;
}

parts::WarmTest IdentifyDialog::warmTest() const {
    parts::WarmTest t;
    t.resistance = values_.value(QStringLiteral("resistance"));
    t.windings = dc_->isChecked() ? 1 : 2;
    t.air = values_.value(QStringLiteral("air"), 22.0);
    t.limit = values_.value(QStringLiteral("limit"), 70.0);
    for (int i = 0; i < warmReadings; ++i)
        if (values_.contains(warmKey(i, true)) && values_.contains(warmKey(i, false)))
            t.readings.push_back({values_[warmKey(i, true)], values_[warmKey(i, false)]});
    return t;
}

void IdentifyDialog::adviseWarmTest() {
    if (!read()) return;
    const parts::WarmTest test = warmTest();
    const parts::WarmResult r = parts::evaluateWarmTest(test);
    for (QLabel* advice : advice_) {
        if (test.resistance <= 0.0)
            advice->setText(tr("Measure the resistance first; without it the heat is not known."));
        else if (r.stop)
            advice->setText(tr("Stop here: switch off and let it cool. It withstands %1.")
                                .arg(context_.show(r.ratedCurrent.value, UnitKind::Current)));
        else
            advice->setText(tr("Next: %1. Wait until the case stops warming; stop at %2.")
                                .arg(context_.show(r.nextCurrent, UnitKind::Current),
                                     context_.show(test.limit, UnitKind::Celsius)));
    }
}

void IdentifyDialog::compute() {
    foundStepper_.reset();
    foundDc_.reset();
    use_->setEnabled(false);
    const auto value = [&](const char* key) { return values_.value(QString::fromLatin1(key)); };
    const auto with = [&](const Estimate& e, UnitKind kind) {
        if (e.value <= 0.0) return tr("not known");
        return tr("%1 ±%2").arg(context_.show(e.value, kind),
                                context_.show(e.tolerance, UnitKind::Percentage));
    };
    const double gearIn = std::max(1.0, value("gear_in")), gearOut = std::max(1.0, value("gear_out"));
    QStringList said;
    if (dc_->isChecked()) {
        parts::DcReadings r;
        r.voltage = value("voltage");
        r.turns = value("turns");
        r.time = value("time");
        r.freeCurrent = value("free_current");
        r.resistance = value("resistance");
        r.gearTurnsIn = whole(gearIn);
        r.gearTurnsOut = whole(gearOut);
        r.warm = warmTest();
        r.stallPull = value("pull");
        r.stallArm = value("arm");
        r.stallVoltage = value("pull_voltage");
        r.frame = value("frame");
        r.length = value("length");
        foundDc_ = parts::identify(r);
        if (!foundDc_) {
            result_->setText(
                tr("Voltage, turns, time and resistance are needed, and a free current below what the "
                   "resistance lets through. Go back and give them."));
            return;
        }
        const DcFigures& f = foundDc_->figures;
        said << tr("No-load speed %1").arg(with(f.noLoadSpeed, UnitKind::RotationRate))
             << tr("Stall current %1").arg(with(f.stallCurrent, UnitKind::Current))
             << tr("Stall torque %1").arg(with(f.stallTorque, UnitKind::Torque))
             << tr("Rated torque %1").arg(with(f.ratedTorque, UnitKind::Torque))
             << tr("Case to air %1").arg(with(foundDc_->body.thermalResistance, UnitKind::ThermalResistance));
    } else {
        parts::StepperReadings r;
        r.size = {value("frame"), value("length"), 0.0, 0.0, std::numbers::pi / 100.0};
        if (r.size.frame < 0.005 || r.size.frame > 0.3 || r.size.length < 0.003 || r.size.length > 0.6) {
            result_->setText(tr("The size of the body is needed, 5 to 300 mm across. Go back and give it."));
            return;
        }
        r.leads = values_.contains(QStringLiteral("leads")) ? whole(value("leads")) : 4;
        r.resistance = value("resistance");
        r.stepsPerTurn = whole(value("steps"));
        r.gearTurnsIn = whole(gearIn);
        r.gearTurnsOut = whole(gearOut);
        r.warm = warmTest();
        r.pull = value("pull");
        r.pullArm = value("arm");
        r.pullCurrent = value("pull_current");
        foundStepper_ = parts::identify(r);
        const Stepper& s = foundStepper_->motor;
        said << tr("Rotor teeth %1, %2")
                    .arg(s.rotorTeeth)
                    .arg(s.winding == Winding::Unipolar ? tr("switched winding") : tr("for a chopper driver"))
             << tr("Holding torque %1").arg(with(s.holdingTorque, UnitKind::Torque))
             << tr("Rated current %1").arg(with(s.ratedCurrent, UnitKind::Current))
             << tr("Resistance %1").arg(with(s.resistance, UnitKind::Resistance))
             << tr("Inductance %1").arg(with(s.inductance, UnitKind::Inductance))
             << tr("Rotor inertia %1").arg(with(s.rotorInertia, UnitKind::Inertia))
             << tr("Case to air %1").arg(with(s.body.thermalResistance, UnitKind::ThermalResistance));
        if (foundStepper_->gearbox)
            said << tr("Its gearbox, %1 : %2, is added as a part").arg(r.gearTurnsIn).arg(r.gearTurnsOut);
    }
    result_->setText(said.join(QLatin1Char('\n')));
    use_->setEnabled(context_.axis() != nullptr && !context_.document.readOnly());
}

void IdentifyDialog::use() {
    context_.document.change(tr("Motor identified on the bench"), [&](Project& p) {
        Axis& axis = p.axes[static_cast<std::size_t>(context_.session.axis())];
        if (foundDc_) axis.motor = *foundDc_;
        if (!foundStepper_) return;
        axis.motor = foundStepper_->motor;
        if (!foundStepper_->gearbox) return;
        ReducerStage box = *foundStepper_->gearbox;
        box.id = freeId(p, axis.id + "-gearbox");
        axis.links.insert(axis.links.begin(), box);
    });
    accept();
}

} // namespace gantry::app
