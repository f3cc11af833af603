// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/candidates_dialog.h"

#include "app/instruments/part_words.h"
#include "app/stations/drives/curve_overlay.h"
#include "core/evaluate/evaluate.h"
#include "core/model/edit_axes.h"
#include "core/model/kinds.h"
#include "core/verdicts/ranges.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <algorithm>
#include <map>

namespace gantry::app {
namespace {

using units::Kind;

/// The project with one candidate of an axis in use.
Project with(const Project& project, int axis, const std::string& letter) {
    Project p = project;
    p.axes[static_cast<std::size_t>(axis)] = withCandidate(p.axes[static_cast<std::size_t>(axis)], letter);
    return p;
}

/// "×0.36 over": the number as in the column at the right, then the word.
QString verdictInShort(const Context& context, const Verdict& v) {
    QString word = QString::fromUtf8(stateWord(v.state).data());
    if (!v.ratio) return word;
    if (v.ratio.value() >= 100.0) return CandidatesDialog::tr("×100+ %1").arg(word);
    return QStringLiteral("×%1 %2").arg(
        QString::fromStdString(ratioText(v.ratio.value(), v.bounds, context.system())), word);
}

} // namespace

CandidatesDialog::CandidatesDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("candidatesDialog"), tr("Side by side"), parent),
      table_(new QTableWidget), curves_(new CurveOverlay(context)), status_(new QLabel),
      add_(new QPushButton(tr("Keep this and start another"))), use_(new QPushButton(tr("Use this drive"))),
      fitted_(new QPushButton(tr("This one is fitted today"))), drop_(new QPushButton(tr("Drop"))) {
    resize(900, 620);
    table_->setObjectName(QStringLiteral("candidatesTable"));
    table_->setAccessibleName(tr("Drives side by side"));
    table_->setSelectionBehavior(QAbstractItemView::SelectColumns);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->verticalHeader()->setDefaultSectionSize(22);
    add_->setObjectName(QStringLiteral("addCandidate"));
    use_->setObjectName(QStringLiteral("useCandidate"));
    fitted_->setObjectName(QStringLiteral("fittedToday"));
    use_->setProperty("role", "primary");
    status_->setWordWrap(true);
    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"));
    for (QPushButton* b : {add_, use_, fitted_, drop_}) {
        b->setAutoDefault(false);
        buttons->addWidget(b);
    }
    buttons->addStretch();
    close->setAutoDefault(false);
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(table_, 3);
    all->addWidget(curves_, 2);
    all->addWidget(status_);
    all->addLayout(buttons);
    connect(add_, &QPushButton::clicked, this,
            [this] { change(tr("Add a candidate"), [](Project& p, int axis) { addCandidate(p, axis); }); });
    connect(use_, &QPushButton::clicked, this, [this] {
        const std::string letter = chosen();
        change(tr("Use drive %1").arg(QString::fromStdString(letter)),
               [&](Project& p, int axis) { useCandidate(p, axis, letter); });
    });
    connect(fitted_, &QPushButton::clicked, this, [this] {
        const std::string letter = chosen();
        change(tr("Mark as fitted today"),
               [&](Project& p, int axis) { p.axes[static_cast<std::size_t>(axis)].fittedToday = letter; });
    });
    connect(drop_, &QPushButton::clicked, this, [this] {
        const std::string letter = chosen();
        change(tr("Drop a candidate"), [&](Project& p, int axis) { dropCandidate(p, axis, letter); });
    });
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(table_, &QTableWidget::itemSelectionChanged, this, [this] {
        const Axis* axis = context_.axis();
        drop_->setEnabled(axis != nullptr && chosen() != axis->candidate);
    });
    followAfter(200); // each drive is assessed with the whole rig
}

std::string CandidatesDialog::chosen() const {
    const int column = table_->currentColumn();
    if (column >= 0 && column < static_cast<int>(letters_.size()))
        return letters_[static_cast<std::size_t>(column)];
    return context_.axis() != nullptr ? context_.axis()->candidate : std::string();
}

void CandidatesDialog::change(const QString& name, const std::function<void(Project&, int)>& how) {
    if (context_.axis() == nullptr) return;
    context_.document.change(name, [&](Project& p) { how(p, context_.session.axis()); });
    refresh(); // what was asked for here is shown at once
}

void CandidatesDialog::keyPressEvent(QKeyEvent* event) {
    const std::string letter = event->text().toUpper().toStdString();
    if (std::find(letters_.begin(), letters_.end(), letter) != letters_.end()) {
        change(tr("Use drive %1").arg(QString::fromStdString(letter)),
               [&](Project& p, int axis) { useCandidate(p, axis, letter); });
        return;
    }
    QDialog::keyPressEvent(event);
}

void CandidatesDialog::refresh() {
    const Axis* axis = context_.axis();
    if (axis == nullptr) return;
    letters_ = candidateLetters(*axis);
    const int axisIndex = context_.session.axis();
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    // Every verdict that one of the drives gets is a row, in the order of the rules.
    std::vector<Assessment> assessments;
    std::map<int, QString> judged;
    for (const std::string& letter : letters_) {
        assessments.push_back(assess(with(context_.document.project(), axisIndex, letter)));
        for (const Verdict& v : assessments.back().verdicts)
            if (v.axis == axisIndex) judged[v.rule] = QString::fromStdString(title(v));
    }
    QStringList rows{tr("Motor"),
                     tr("Drive"),
                     tr("Total ratio"),
                     tr("Steps per unit"),
                     tr("Torque margin"),
                     tr("Torque needed"),
                     tr("Largest acceleration"),
                     tr("Top speed"),
                     tr("Step in the picture"),
                     tr("Play in the picture"),
                     tr("Case"),
                     tr("Weight of the motor"),
                     tr("Price"),
                     tr("Over, at risk, tight"),
                     tr("Worst verdict"),
                     tr("Note")};
    for (const auto& [rule, name] : judged) rows << name;
    table_->setRowCount(static_cast<int>(rows.size()));
    table_->setVerticalHeaderLabels(rows);
    table_->setColumnCount(static_cast<int>(letters_.size()));
    std::vector<CurveOverlay::Line> lines;
    TorquePoint demand;
    for (int column = 0; column < static_cast<int>(letters_.size()); ++column) {
        const std::string& letter = letters_[static_cast<std::size_t>(column)];
        const Assessment& a = assessments[static_cast<std::size_t>(column)];
        const Axis own = withCandidate(*axis, letter);
        const AxisEvaluation& e = a.evaluation.axes[static_cast<std::size_t>(axisIndex)];
        const ShotEvaluation* s = e.worst();
        int over = 0, atRisk = 0, tight = 0;
        const Verdict* worst = nullptr;
        for (const Verdict& v : a.verdicts) {
            if (v.axis != axisIndex) continue;
            over += v.state == State::Over;
            atRisk += v.state == State::AtRisk;
            tight += v.state == State::Tight;
            if (worst == nullptr || worseThan(v, *worst)) worst = &v;
        }
        QString head = QString::fromStdString(letter);
        if (letter == axis->candidate) head += tr(" · in use");
        if (letter == axis->fittedToday || (axis->fittedToday.empty() && letter == axis->candidate))
            head += tr(" · fitted today");
        table_->setHorizontalHeaderItem(column, new QTableWidgetItem(head));
        const Figure none = Figure::none(Reason::NotApplicable);
        QStringList cells{
            QString::fromStdString(nameOf(own.motor).empty() ? std::string(labelOf(own.motor))
                                                             : nameOf(own.motor)),
            driveInShort(context_, own, e),
            context_.show(e.totalRatio, Kind::Ratio),
            context_.show(e.steps.stepsPerUnit, Kind::Ratio, 5),
            context_.show(s ? s->torque.margin : none, Kind::Ratio),
            context_.show(s ? s->torque.needed : none, Kind::Torque),
            context_.show(s ? s->torque.maxAcceleration : none,
                          linear ? Kind::Acceleration : Kind::AngularAcceleration),
            context_.show(e.maxSpeed, linear ? Kind::Speed : Kind::AngularSpeed),
            context_.show(s ? s->place.step : none, Kind::Pixels),
            context_.show(s ? s->errors.backlash : none, Kind::Pixels),
            context_.show(e.checks.caseTemperature, Kind::Celsius),
            context_.show(bodyOf(own.motor).mass.value, Kind::Mass),
            own.price > 0.0 ? context_.show(own.price, Kind::Money) : QStringLiteral("–"),
            QStringLiteral("%1, %2, %3").arg(over).arg(atRisk).arg(tight),
            worst != nullptr ? QStringLiteral("%1: %2").arg(QString::fromUtf8(stateWord(worst->state).data()),
                                                            QString::fromStdString(title(*worst)))
                             : QStringLiteral("–"),
            QString::fromStdString(own.candidateNote)};
        for (const auto& [rule, name] : judged) {
            const auto& wanted = rule;
            const auto found = std::find_if(a.verdicts.begin(), a.verdicts.end(), [&](const Verdict& v) {
                return v.axis == axisIndex && v.rule == wanted;
            });
            cells << (found == a.verdicts.end() ? QStringLiteral("–") : verdictInShort(context_, *found));
        }
        for (int row = 0; row < cells.size(); ++row) {
            auto* item = new QTableWidgetItem(cells[row]);
            item->setTextAlignment(Qt::AlignCenter);
            item->setToolTip(cells[row]);
            table_->setItem(row, column, item);
        }
        CurveOverlay::Line line;
        line.name = QString::fromStdString(letter);
        const double perRad = e.model.outputPerRad;
        if (s != nullptr && s->motion.topSpeed && s->torque.force)
            demand = {s->motion.topSpeed.value(), s->torque.force.value()};
        const double top = std::max(4.0 * demand.speed, e.maxSpeed ? e.maxSpeed.value() : 0.0) / perRad;
        // Losses of the drive taken off, so that lines are what reaches the load.
        double efficiency = 1.0;
        for (const drivetrain::Stage& stage : e.model.chain.stages) efficiency *= stage.efficiency;
        for (const TorquePoint& q : torqueCurves(e.model, top, 96).nominal)
            line.points.push_back({q.speed * perRad, q.torque / perRad * efficiency});
        lines.push_back(std::move(line));
        table_->setColumnWidth(
            column, std::max(130, (width() - 190) / std::max(1, static_cast<int>(letters_.size()))));
    }
    curves_->show(std::move(lines), demand, linear);
    const bool can = !context_.document.readOnly();
    add_->setEnabled(can && static_cast<int>(letters_.size()) < mostCandidates);
    use_->setEnabled(can);
    fitted_->setEnabled(can);
    drop_->setEnabled(can && chosen() != axis->candidate);
    status_->setText(letters_.size() == 1 ? tr("Only one drive so far. Keep it and start another; change "
                                               "that one in Drives, then compare here.")
                                          : tr("Press a letter to put that drive into use."));
}

} // namespace gantry::app
