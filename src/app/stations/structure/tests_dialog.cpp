// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/tests_dialog.h"

#include "core/evidence/fingerprint.h"
#include "core/model/fields.h"
#include "core/model/retired_ids.h"
#include "core/units/text.h"

#include <QComboBox>
#include <QDate>
#include <QFormLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace gantry::app {
namespace {

/// Inputs of Structure that a workshop test gives, for one axis.
QStringList testablePaths(const Axis& axis) {
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis.id));
    QStringList out{base + QStringLiteral("vibration/frequency_hz"),
                    base + QStringLiteral("vibration/damping")};
    if (kindOf(axis) == AxisKind::Linear)
        out << base + QStringLiteral("mechanism/rail/section/stiffness_factor")
            << base + QStringLiteral("mechanism/running_friction_N")
            << base + QStringLiteral("mechanism/moving_mass_kg");
    else
        out << base + QStringLiteral("mechanism/boom/section/stiffness_factor")
            << base + QStringLiteral("mechanism/boom/counterweight/mass_kg")
            << base + QStringLiteral("mechanism/friction_Nm");
    out << QStringLiteral("base/side_push_N") << QStringLiteral("base/mass_kg");
    return out;
}

/// The lean at which a rig tips is no input: it tests what the program says of tipping.
constexpr FieldInfo tipInfo{"tip_angle_rad", "Leaned until it tips", units::Kind::Angle, 0.0, 1.5, 0.0, 1.0};

} // namespace

TestsDialog::TestsDialog(const Context& context, QWidget* parent)
    : TableWindow(context, QStringLiteral("testsDialog"), tr("Tests and what is stale"), parent),
      what_(new QComboBox), value_(new QLineEdit), remark_(new QLineEdit) {
    what_->setObjectName(QStringLiteral("testWhat"));
    what_->setAccessibleName(tr("What was tested"));
    value_->setObjectName(QStringLiteral("testValue"));
    value_->setAccessibleName(tr("Result"));
    remark_->setObjectName(QStringLiteral("testNote"));
    remark_->setAccessibleName(tr("Note"));
    remark_->setPlaceholderText(tr("how, for example 2 kg in the middle"));
    auto* form = new QFormLayout;
    form->addRow(tr("What was tested"), what_);
    form->addRow(tr("Result"), value_);
    form->addRow(tr("Note"), remark_);
    pane_->content()->insertLayout(TablePane::belowTable, form);
    connect(pane_->addButton(tr("Note the test"), QStringLiteral("noteTest")), &QPushButton::clicked, this,
            &TestsDialog::note);
    connect(pane_->addButton(tr("Remove the chosen one"), QStringLiteral("removeTest")),
            &QPushButton::clicked, this, &TestsDialog::remove);
}

void TestsDialog::offer() {
    what_->clear();
    if (const Axis* axis = context_.axis())
        for (const QString& path : testablePaths(*axis))
            if (const auto field =
                    findField(const_cast<Project&>(context_.document.project()), path.toStdString()))
                what_->addItem(QString::fromUtf8(field->info.label), path);
    what_->addItem(tr("Leaned until it tips"), QString::fromUtf8(evidence::tipAngle.data()));
}

void TestsDialog::follow() {
    if (const std::string axis = context_.axis() != nullptr ? context_.axis()->id : std::string();
        axis != axis_ || what_->count() == 0) {
        axis_ = axis;
        offer();
    }
    const Project& p = context_.document.project();
    QList<QStringList> rows;
    int stale = 0;
    for (const TestRecord& test : p.tests) {
        const auto field = findField(const_cast<Project&>(p), test.path);
        const auto changed = evidence::changedSince(p, test);
        QStringList words;
        for (const std::string& c : changed) words << QString::fromStdString(c);
        stale += changed.empty() ? 0 : 1;
        const bool tip = test.path == evidence::tipAngle;
        rows << QStringList{field ? QString::fromUtf8(field->info.label)
                            : tip ? tr("Leaned until it tips")
                                  : QString::fromStdString(test.path),
                            field ? context_.show(test.value, field->info.kind)
                            : tip ? context_.show(test.value, units::Kind::Angle)
                                  : QString(),
                            QString::fromStdString(test.date), QString::fromStdString(test.note),
                            changed.empty() ? tr("holds")
                                            : tr("stale: %1 changed").arg(words.join(QStringLiteral(", ")))};
    }
    pane_->setSentence(
        p.tests.empty()
            ? tr("A test is kept with the state of the rig it was made with. When mass, height, supports, "
                 "feet, motor or lens change, it is marked stale. Tilt tests need a catch strap, a dummy "
                 "mass, and "
                 "hands clear.")
            : tr("%1 tests, %2 stale: the rig is no longer what was tested.").arg(p.tests.size()).arg(stale));
    pane_->setTable({tr("Tested"), tr("Result"), tr("Date"), tr("Note"), tr("Today")}, rows);
    pane_->fit();
}

void TestsDialog::note() {
    const std::string path = what_->currentData().toString().toStdString();
    const auto field = findField(const_cast<Project&>(context_.document.project()), path);
    if ((!field && path != evidence::tipAngle) || context_.document.readOnly()) return;
    const FieldInfo info = field ? field->info : tipInfo;
    const auto parsed = units::parse(value_->text().toStdString(), info.kind, context_.system());
    if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
        pane_->setSentence(tr("Result: %1").arg(QString::fromStdString(bad->sentence)));
        value_->setFocus();
        return;
    }
    const double value = std::get<double>(parsed);
    if (value < info.min || value > info.max) {
        pane_->setSentence(
            tr("Result: %1 is outside of what the field takes, %2 to %3.")
                .arg(value_->text(), context_.show(info.min, info.kind), context_.show(info.max, info.kind)));
        value_->setFocus();
        return;
    }
    context_.document.change(tr("Note a test"), [&](Project& p) {
        const auto target = findField(p, path);
        if (auto* e = target ? std::get_if<Estimate*>(&target->target) : nullptr)
            **e = estimate(value, Source::Measured);
        TestRecord test;
        test.id = freeIdIn(p, p.tests, "test");
        test.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        test.path = path;
        test.note = remark_->text().toStdString();
        test.value = value;
        test.fingerprint = evidence::fingerprint(p, path);
        p.tests.push_back(test);
    });
    value_->clear();
    remark_->clear();
}

void TestsDialog::remove() {
    const int row = pane_->chosenRow();
    if (row < 0 || context_.document.readOnly()) return;
    context_.document.change(tr("Remove a test"), [&](Project& p) {
        if (row < static_cast<int>(p.tests.size())) p.tests.erase(p.tests.begin() + row);
    });
}

} // namespace gantry::app
