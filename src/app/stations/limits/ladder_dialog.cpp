// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/ladder_dialog.h"

#include "app/instruments/envelope_plot.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <algorithm>
#include <cmath>

namespace gantry::app {

using units::Kind;

LadderDialog::LadderDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("ladderDialog"), tr("Stall ladder"), parent),
      table_(new QTableWidget), range_(new EnvelopePlot(context, this)), result_(new QLabel),
      take_(new QPushButton(tr("Take it over"))) {
    resize(640, 200);
    auto* all = new QVBoxLayout(this);
    auto* care = new QLabel(
        tr("Every rung may end in a stall: the carriage stops dead, a loaded axis may drop. Before you "
           "begin, and before each rung:"));
    care->setProperty("role", "error");
    care->setWordWrap(true);
    all->addWidget(care);
    // The first is about the axis in hand.
    for (const QString& text : {QString(), tr("A dummy mass is on in place of the camera."),
                                tr("Hands, cables and people are clear.")}) {
        auto* box = new QCheckBox(text);
        connect(box, &QCheckBox::toggled, this, &LadderDialog::showPlan);
        precautions_ << box;
        all->addWidget(box);
    }
    table_->setObjectName(QStringLiteral("ladderTable"));
    table_->setAccessibleName(tr("Rungs of the ladder"));
    table_->setColumnCount(5);
    table_->setHorizontalHeaderLabels(
        {tr("Speed"), tr("Acceleration"), tr("Takes"), tr("Foreseen margin"), tr("What came of it")});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table_->verticalHeader()->setDefaultSectionSize(27);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionMode(QAbstractItemView::NoSelection);
    table_->setShowGrid(false);
    range_->setMinimumHeight(230);
    all->addWidget(table_, 60);
    all->addWidget(range_, 40);
    result_->setWordWrap(true);
    result_->setObjectName(QStringLiteral("ladderResult"));
    all->addWidget(result_);
    all->addStretch(1); // keeps the text at the top while the plan is hidden
    take_->setProperty("role", "primary");
    take_->setObjectName(QStringLiteral("ladderTake"));
    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"));
    for (QPushButton* b : {take_, close}) b->setAutoDefault(false);
    buttons->addStretch();
    buttons->addWidget(take_);
    buttons->addWidget(close);
    all->addLayout(buttons);
    connect(take_, &QPushButton::clicked, this, &LadderDialog::take);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void LadderDialog::follow() {
    const AxisEvaluation* e = context_.axisEvaluation();
    const bool loaded = e != nullptr && e->powerOff.loaded;
    precautions_.front()->setText(loaded ? tr("A catch strap holds the load, or the rail lies level.")
                                         : tr("The ends are blocked so that nothing can run off."));
    std::vector<Rung> ladder = e != nullptr ? stallLadder(*e) : std::vector<Rung>{};
    // What came of rungs counts as long as they are the same.
    if (ladder != ladder_ || outcomes_.isEmpty()) {
        ladder_ = std::move(ladder);
        fillRungs();
    }
    showPlan();
}

void LadderDialog::fillRungs() {
    outcomes_.clear();
    const bool linear = context_.axis() == nullptr || kindOf(*context_.axis()) == AxisKind::Linear;
    table_->setRowCount(static_cast<int>(ladder_.size()));
    for (int row = 0; row < table_->rowCount(); ++row) {
        const Rung& r = ladder_[static_cast<std::size_t>(row)];
        const QStringList cells{
            context_.show(r.speed, linear ? Kind::Speed : Kind::AngularSpeed),
            context_.show(r.acceleration, linear ? Kind::Acceleration : Kind::AngularAcceleration),
            context_.show(r.distance, linear ? Kind::Length : Kind::Angle),
            QStringLiteral("×%1").arg(context_.show(r.margin, Kind::Ratio, 2))};
        for (int column = 0; column < cells.size(); ++column) {
            auto* item = new QTableWidgetItem(cells[column]);
            item->setTextAlignment(Qt::AlignCenter);
            table_->setItem(row, column, item);
        }
        auto* outcome = new QComboBox;
        outcome->addItems({tr("not run"), tr("passed"), tr("lost steps")});
        outcome->setObjectName(QStringLiteral("rung%1").arg(row));
        outcome->setAccessibleName(tr("What came of rung %1").arg(row + 1));
        connect(outcome, &QComboBox::activated, this, &LadderDialog::compute);
        table_->setCellWidget(row, 4, outcome);
        outcomes_ << outcome;
    }
}

void LadderDialog::showPlan() {
    const bool ready = std::all_of(precautions_.begin(), precautions_.end(),
                                   [](const QCheckBox* b) { return b->isChecked(); });
    table_->setVisible(ready && !ladder_.empty());
    range_->setVisible(table_->isVisibleTo(this));
    if (range_->isVisibleTo(this)) {
        const int axis = context_.session.axis();
        const AxisLimits& limits = context_.document.results().limits(static_cast<std::size_t>(axis));
        const motion::Limits& set = context_.axisEvaluation()->model.settings;
        range_->show(limits, {set.speed, set.acceleration, set.jerk}, kindOf(*context_.axis()), {});
        range_->showRungs(ladder_);
    }
    layout()->activate(); // what was just shown or hidden counts
    resize(width(), layout()->sizeHint().height());
    compute();
    if (!ready) result_->setText(tr("Tick all of them to see the plan."));
    if (ready && ladder_.empty())
        result_->setText(tr(
            "No ladder for this axis: its motor's data is incomplete, or the travel is too short for it."));
}

void LadderDialog::compute() {
    std::vector<Outcome> outcomes;
    for (const QComboBox* c : outcomes_) outcomes.push_back(static_cast<Outcome>(c->currentIndex()));
    const TorqueFactor f = torqueFactor(ladder_, outcomes);
    const bool can =
        f.known() && !context_.document.readOnly() && context_.axis() != nullptr && table_->isVisible();
    take_->setEnabled(can);
    if (f.contradictory)
        result_->setText(tr(
            "A harder rung passed than one that lost steps. Repeat both: something else than torque was at "
            "work, resonance or a loose wheel."));
    else if (f.low > 0.0 && std::isfinite(f.high))
        result_->setText(
            tr("The motor gives %1 to %2 of the torque that is entered.")
                .arg(context_.show(f.low, Kind::Percentage, 2), context_.show(f.high, Kind::Percentage, 2)));
    else if (f.low > 0.0)
        result_->setText(tr("The motor gives at least %1 of the torque that is entered. Go on until steps "
                            "are lost to know "
                            "how much.")
                             .arg(context_.show(f.low, Kind::Percentage, 2)));
    else if (std::isfinite(f.high))
        result_->setText(tr("The motor gives less than %1 of the torque that is entered; begin with an "
                            "easier rung to know "
                            "how much.")
                             .arg(context_.show(f.high, Kind::Percentage, 2)));
    else
        result_->setText(
            tr("Run the rungs from the top, note what came of each, stop at the first that loses steps."));
}

void LadderDialog::take() {
    std::vector<Outcome> outcomes;
    for (const QComboBox* c : outcomes_) outcomes.push_back(static_cast<Outcome>(c->currentIndex()));
    const TorqueFactor f = torqueFactor(ladder_, outcomes);
    context_.document.change(tr("Take over a stall ladder"), [&](Project& p) {
        applyTorqueFactor(p.axes[static_cast<std::size_t>(context_.session.axis())], f);
    });
    accept();
}

} // namespace gantry::app
