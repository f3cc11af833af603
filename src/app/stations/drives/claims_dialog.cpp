// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/claims_dialog.h"

#include "app/instruments/claim_bars.h"
#include "core/crosscheck/crosscheck.h"
#include "core/crosscheck/suspects.h"
#include "core/units/text.h"
#include "core/working/printed.h"
#include "core/working/working.h"

#include <QFontMetrics>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <algorithm>

namespace gantry::app {

ClaimsDialog::ClaimsDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("claimsDialog"), tr("Check a claim"), parent),
      text_(new QPlainTextEdit), findings_(new QTableWidget(0, 2)), suspects_(new QTableWidget(0, 3)),
      bars_(new ClaimBars(this)), chain_(new QLabel), ask_(new QLabel), suspectsTitle_(new QLabel),
      fineness_(new QLabel) {
    resize(820, 300);
    text_->setObjectName(QStringLiteral("claimsText"));
    text_->setAccessibleName(tr("Settings or claims, one a line"));
    text_->setPlaceholderText(tr("One a line, such as:\nsteps/mm = 160\ncurrent = 2.4 A\ntop speed = "
                                 "250 mm/s\n2.2 N·m at 1500 rpm, lifts 8 kg at 0.5 m/s\n200 steps = 1 mm"));
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
    chain_->setWordWrap(true);
    chain_->setObjectName(QStringLiteral("claimsChain"));
    suspectsTitle_->setWordWrap(true);
    auto* close = new QPushButton(tr("Close"));
    close->setProperty("role", "primary");
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(ask_);
    all->addWidget(text_);
    all->addWidget(findings_);
    all->addWidget(bars_);
    all->addWidget(chain_);
    all->addWidget(suspectsTitle_);
    all->addWidget(suspects_);
    all->addWidget(fineness_);
    all->addStretch(1);
    all->addLayout(buttons);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(text_, &QPlainTextEdit::textChanged, this, [this] {
        keep();
        check();
    });
}

void ClaimsDialog::follow() {
    const Axis* axis = context_.axis();
    ask_->setText(tr("Paste or type what a listing, a seller or a settings page says about %1. It is kept "
                     "with the rig:")
                      .arg(axis != nullptr ? QString::fromStdString(axis->name) : tr("the axis")));
    // Typing keeps every line with the rig, so only another axis, or Undo, brings another text.
    if (axis != nullptr && axis->told != lines()) {
        const QSignalBlocker quiet(text_);
        QStringList told;
        for (const std::string& line : axis->told) told << QString::fromStdString(line);
        text_->setPlainText(told.join(QLatin1Char('\n')));
    }
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
        bars_->show({});
        chain_->clear();
        return;
    }
    QList<ClaimBars::Bar> bars;
    bool saysSteps = false;
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
        for (const crosscheck::Finding& f : found) {
            // Steps may be too many as well as too few.
            const auto steps =
                f.against == crosscheck::Against::Steps ? crosscheck::stepsSaid(*e, claim) : std::nullopt;
            const double over = steps && e->steps.stepsPerUnit ? *steps / e->steps.stepsPerUnit.value()
                                : f.ratio > 0.0                ? 1.0 / f.ratio
                                                               : 0.0;
            if (over > 0.0) bars << ClaimBars::Bar{QString::fromStdString(claim.text), over, f.plausible};
            saysSteps = saysSteps || f.against == crosscheck::Against::Steps;
            add((f.plausible ? QString() : tr("Look again: ")) +
                QString::fromStdString(crosscheck::sentenceOf(f, system)));
        }
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
    bars_->show(std::move(bars));
    chain_->setText(saysSteps ? chainInWords() : QString());
    chain_->setVisible(saysSteps);
    if (findings_->rowCount() == 0 && !text_->toPlainText().trimmed().isEmpty())
        suspectsTitle_->setText(
            tr("No line with a name and a number yet; write one such as “steps/mm = 160”."));
    fit();
}

QString ClaimsDialog::chainInWords() const {
    const Project& project = context_.document.project();
    const auto figure =
        working::figureAt(project, static_cast<std::size_t>(context_.session.axis()),
                          *context_.axisEvaluation(), "axes/" + context_.axis()->id + "/steps_per_unit");
    const auto steps = figure
                           ? working::workingOf(project, context_.document.assessment().evaluation, *figure)
                           : std::nullopt;
    if (!steps) return {};
    // Part by part: what the number is made of.
    QStringList parts;
    for (const working::Row& r : working::rowsOf(*steps, project, context_.system()))
        if (r.input)
            parts << tr("%1 %2").arg(QString::fromStdString(r.label), QString::fromStdString(r.value));
    return tr("The parts' own number, %1: %2.")
        .arg(QString::fromStdString(working::valueText(steps->result(), context_.system())),
             parts.join(QStringLiteral(" · ")));
}

/// Every part as high as what it holds, the window as high as all of them.
void ClaimsDialog::fit() {
    const int line = QFontMetrics(text_->font()).lineSpacing();
    text_->setFixedHeight(std::clamp<int>(text_->document()->blockCount() + 1, 6, 12) * line + 14);
    for (QTableWidget* table : {findings_, suspects_}) {
        int height = table->horizontalHeader()->sizeHint().height() + 4;
        for (int r = 0; r < table->rowCount(); ++r) height += table->rowHeight(r);
        table->setFixedHeight(std::min(height, 260));
    }
    resize(width(), sizeHint().height());
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
