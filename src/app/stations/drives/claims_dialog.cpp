// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/claims_dialog.h"

#include "core/crosscheck/crosscheck.h"
#include "core/crosscheck/suspects.h"
#include "core/units/text.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>

namespace gantry::app {

ClaimsDialog::ClaimsDialog(const Context& context, QWidget* parent)
    : QDialog(parent), context_(context), text_(new QPlainTextEdit), findings_(new QTableWidget(0, 2)),
      suspects_(new QTableWidget(0, 3)), suspectsTitle_(new QLabel), fineness_(new QLabel) {
    setObjectName(QStringLiteral("claimsDialog"));
    setWindowTitle(tr("Check a claim"));
    resize(820, 600);
    text_->setObjectName(QStringLiteral("claimsText"));
    text_->setAccessibleName(tr("Settings or claims, one a line"));
    text_->setPlaceholderText(tr("One a line, such as:\nsteps/mm = 160\ncurrent = 2.4 A\ntop speed = "
                                 "250 mm/s\n2.2 N·m at 1500 rpm, lifts 8 kg at 0.5 m/s\n200 steps = 1 mm"));
    text_->setMaximumHeight(130);
    const auto setUp = [](QTableWidget* table, const QStringList& names, const QString& accessible) {
        table->setHorizontalHeaderLabels(names);
        table->horizontalHeader()->setStretchLastSection(true);
        table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
        table->verticalHeader()->hide();
        table->setEditTriggers(QAbstractItemView::NoEditTriggers);
        table->setSelectionMode(QAbstractItemView::NoSelection);
        table->setShowGrid(false);
        table->setWordWrap(true);
        table->setAccessibleName(accessible);
    };
    setUp(findings_, {tr("Told"), tr("Found")}, tr("Findings"));
    setUp(suspects_, {tr("It would be right with"), tr("steps per unit"), tr("then a commanded 100 goes")},
          tr("Suspects"));
    findings_->setObjectName(QStringLiteral("claimsFindings"));
    suspects_->setObjectName(QStringLiteral("claimsSuspects"));
    findings_->setColumnWidth(0, 190);
    suspects_->setColumnWidth(0, 420);
    suspects_->setColumnWidth(1, 130);
    fineness_->setWordWrap(true);
    suspectsTitle_->setWordWrap(true);
    auto* close = new QPushButton(tr("Close"));
    close->setProperty("role", "primary");
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(
        new QLabel(tr("Paste or type what a listing, a seller or a settings page says about %1. It is kept "
                      "with the rig:")
                       .arg(context_.axis() != nullptr ? QString::fromStdString(context_.axis()->name)
                                                       : tr("the axis"))));
    all->addWidget(text_);
    all->addWidget(findings_, 5);
    all->addWidget(suspectsTitle_);
    all->addWidget(suspects_, 2);
    all->addWidget(fineness_);
    all->addLayout(buttons);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    if (context_.axis() != nullptr) {
        QStringList told;
        for (const std::string& line : context_.axis()->told) told << QString::fromStdString(line);
        text_->setPlainText(told.join(QLatin1Char('\n')));
    }
    connect(text_, &QPlainTextEdit::textChanged, this, [this] {
        keep();
        check();
    });
    check();
}

void ClaimsDialog::check() {
    findings_->setRowCount(0);
    suspects_->setRowCount(0);
    suspects_->hide();
    suspectsTitle_->clear();
    const Axis* axis = context_.axis();
    const AxisEvaluation* e = context_.axisEvaluation();
    if (axis == nullptr || e == nullptr) {
        suspectsTitle_->setText(tr("There is no axis to compare with; add one first."));
        return;
    }
    fineness_->setText(QString::fromStdString(crosscheck::uselessFineness(*e)));
    const Project& project = context_.document.project();
    const units::System system = context_.system();
    for (const crosscheck::Claim& claim : crosscheck::readClaims(lines(), kindOf(*axis))) {
        const auto add = [&](const QString& found) {
            const int row = findings_->rowCount();
            findings_->setRowCount(row + 1);
            findings_->setItem(row, 0, new QTableWidgetItem(QString::fromStdString(claim.text)));
            findings_->setItem(row, 1, new QTableWidgetItem(found));
        };
        const std::vector<crosscheck::Finding> found = crosscheck::judge(project, *axis, *e, claim);
        for (const crosscheck::Finding& f : found)
            add((f.plausible ? QString() : tr("Look again: ")) +
                QString::fromStdString(crosscheck::sentenceOf(f, system)));
        if (!claim.understood())
            add(tr("Not understood: say what the number is, or its unit, such as “steps/mm = 80”, “1.7 A”, "
                   "“top speed 250 mm/s”, “2 N·m at 300 rpm”, “lifts 8 kg at 0.3 m/s”."));
        else if (claim.partly)
            add(tr("Only in part: another number in it is not understood. Give it a unit, and a line of its "
                   "own."));
        else if (found.empty())
            add(tr("This drive has nothing to compare it with."));
        if (const auto steps = crosscheck::stepsSaid(*e, claim)) showSuspects(*axis, *e, *steps);
    }
    findings_->resizeRowsToContents();
    if (findings_->rowCount() == 0 && !text_->toPlainText().trimmed().isEmpty())
        suspectsTitle_->setText(
            tr("No line with a name and a number yet; write one such as “steps/mm = 160”."));
}

void ClaimsDialog::showSuspects(const Axis& axis, const AxisEvaluation& e, double told) {
    const crosscheck::StepsFinding steps = crosscheck::explainSteps(axis, e, told);
    if (steps.suspects.empty()) return;
    const QString unit = kindOf(axis) == AxisKind::Linear ? tr("mm") : QStringLiteral("°");
    suspectsTitle_->setText(
        tr("To tell them apart, command 100 %1 on the present parts' number and measure. With %2 "
           "entered, a commanded 100 %1 goes %3 %1 if the parts are as entered here.")
            .arg(unit, QString::fromStdString(units::plainNumber(told, 4)),
                 QString::fromStdString(units::plainNumber(100.0 * steps.movesForOne, 2))));
    suspects_->show();
    suspects_->setRowCount(static_cast<int>(steps.suspects.size()));
    for (int i = 0; i < static_cast<int>(steps.suspects.size()); ++i) {
        const crosscheck::Suspect& s = steps.suspects[static_cast<std::size_t>(i)];
        suspects_->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(s.what)));
        suspects_->setItem(
            i, 1, new QTableWidgetItem(QString::fromStdString(units::plainNumber(s.stepsPerUnit, 4))));
        suspects_->setItem(i, 2,
                           new QTableWidgetItem(QString::fromStdString(units::plainNumber(s.testMove, 2)) +
                                                QLatin1Char(' ') + unit));
    }
}

std::vector<std::string> ClaimsDialog::lines() const {
    return crosscheck::linesOf(text_->toPlainText().toStdString());
}

/// What stands in the text belongs to the rig: it is in the file, and a verdict says where it does not hold.
void ClaimsDialog::keep() {
    const Axis* axis = context_.axis();
    const std::vector<std::string> told = lines();
    if (axis == nullptr || axis->told == told) return;
    const std::string id = axis->id;
    context_.document.change(
        tr("What was told"),
        [&](Project& p) {
            for (Axis& a : p.axes)
                if (a.id == id) a.told = told;
        },
        QStringLiteral("told/") + QString::fromStdString(id));
}

} // namespace gantry::app
