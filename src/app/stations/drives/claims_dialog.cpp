// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/claims_dialog.h"

#include "core/crosscheck/crosscheck.h"
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
    setWindowTitle(tr("Check what I was told"));
    resize(820, 600);
    text_->setObjectName(QStringLiteral("claimsText"));
    text_->setAccessibleName(tr("Settings or claims, one a line"));
    text_->setPlaceholderText(tr("One a line, such as:\nsteps/mm = 160\ncurrent = 2.4 A\ntop speed = "
                                 "15000\nacceleration = 800\noutput torque = 2.2 N·m"));
    text_->setMaximumHeight(130);
    const auto setUp = [](QTableWidget* table, const QStringList& names, const QString& accessible) {
        table->setHorizontalHeaderLabels(names);
        table->horizontalHeader()->setStretchLastSection(true);
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
    auto* checkButton = new QPushButton(tr("Check"));
    auto* close = new QPushButton(tr("Close"));
    checkButton->setProperty("role", "primary");
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(checkButton);
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(
        new QLabel(tr("Paste or type what a listing, a seller or a settings page says about %1:")
                       .arg(context_.axis() != nullptr ? QString::fromStdString(context_.axis()->name)
                                                       : tr("the axis"))));
    all->addWidget(text_);
    all->addWidget(findings_, 2);
    all->addWidget(suspectsTitle_);
    all->addWidget(suspects_, 2);
    all->addWidget(fineness_);
    all->addLayout(buttons);
    connect(checkButton, &QPushButton::clicked, this, &ClaimsDialog::check);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(text_, &QPlainTextEdit::textChanged, this, &ClaimsDialog::check);
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
    for (const crosscheck::Claim& claim :
         crosscheck::readClaims(text_->toPlainText().toStdString(), kindOf(*axis))) {
        const crosscheck::Finding finding = crosscheck::judge(project, *axis, *e, claim);
        const int row = findings_->rowCount();
        findings_->setRowCount(row + 1);
        findings_->setItem(row, 0, new QTableWidgetItem(QString::fromStdString(claim.text)));
        findings_->setItem(row, 1,
                           new QTableWidgetItem((finding.plausible ? QString() : tr("Look again: ")) +
                                                QString::fromStdString(finding.sentence)));
        if (claim.subject != crosscheck::Subject::StepsPerUnit) continue;
        const crosscheck::StepsFinding steps = crosscheck::explainSteps(project, *axis, claim.value);
        if (steps.suspects.empty()) continue;
        const QString unit = kindOf(*axis) == AxisKind::Linear ? tr("mm") : QStringLiteral("°");
        suspectsTitle_->setText(
            tr("To tell them apart, command 100 %1 on the present parts' number and measure. With %2 "
               "entered, a commanded 100 %1 "
               "goes %3 %1 if the parts are as entered here.")
                .arg(unit, QString::fromStdString(units::plainNumber(claim.value, 4)),
                     QString::fromStdString(units::plainNumber(100.0 * steps.movesForOne, 2))));
        suspects_->show();
        suspects_->setRowCount(static_cast<int>(steps.suspects.size()));
        for (int i = 0; i < static_cast<int>(steps.suspects.size()); ++i) {
            const crosscheck::Suspect& s = steps.suspects[static_cast<std::size_t>(i)];
            suspects_->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(s.what)));
            suspects_->setItem(
                i, 1, new QTableWidgetItem(QString::fromStdString(units::plainNumber(s.stepsPerUnit, 4))));
            suspects_->setItem(
                i, 2,
                new QTableWidgetItem(QString::fromStdString(units::plainNumber(s.testMove, 2)) +
                                     QLatin1Char(' ') + unit));
        }
    }
    findings_->resizeRowsToContents();
    if (findings_->rowCount() == 0 && !text_->toPlainText().trimmed().isEmpty())
        suspectsTitle_->setText(
            tr("No line with a name and a number yet; write one such as “steps/mm = 160”."));
}

} // namespace gantry::app
