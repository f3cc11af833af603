// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/ratio_dialog.h"

#include "app/instruments/train_view.h"
#include "core/drivetrain/electronic_gear.h"
#include "core/model/kind_traits.h"
#include "core/parts/bins.h"
#include "core/units/text.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr std::int64_t largestTerm = 1'000'000;

QString number(double value, int decimals) {
    return QString::fromStdString(units::plainNumber(value, decimals));
}

/// "57/11", "3.6" or "3:1" as an exact fraction.
std::optional<drivetrain::Ratio> readRatio(const QString& text) {
    const QString t = text.trimmed();
    const auto mark =
        t.indexOf(QLatin1Char('/')) >= 0 ? t.indexOf(QLatin1Char('/')) : t.indexOf(QLatin1Char(':'));
    const auto value = [](const QString& part) -> std::optional<double> {
        const auto parsed = units::parse(part.trimmed().toStdString(), Kind::Ratio, units::System::Metric);
        const auto* v = std::get_if<double>(&parsed);
        return v != nullptr && *v > 0.0 ? std::optional(*v) : std::nullopt;
    };
    if (mark < 0) {
        const auto v = value(t);
        return v ? drivetrain::nearestFraction(*v, largestTerm) : std::nullopt;
    }
    const auto p = value(t.left(mark)), q = value(t.mid(mark + 1));
    return p && q ? drivetrain::nearestFraction(*p / *q, largestTerm) : std::nullopt;
}

std::optional<double> readQuantity(const QString& text, Kind kind, units::System system) {
    const auto parsed = units::parse(text.toStdString(), kind, system);
    const auto* v = std::get_if<double>(&parsed);
    return v != nullptr && *v > 0.0 ? std::optional(*v) : std::nullopt;
}

bool isToothed(const Link& link) {
    return traitsOf(link).toothed;
}

} // namespace

RatioDialog::RatioDialog(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("ratioDialog"), tr("Find a ratio"), parent), wanted_(new QComboBox),
      source_(new QComboBox), sense_(new QComboBox), first_(new QLineEdit), second_(new QLineEdit),
      largest_(new QLineEdit), efficiency_(new QLineEdit), backlash_(new QLineEdit), firstLabel_(new QLabel),
      secondLabel_(new QLabel), status_(new QLabel), stages_(new QSpinBox), table_(new QTableWidget(0, 9)),
      view_(new TrainView), use_(new QPushButton(tr("Use this train"))),
      search_(new QPushButton(tr("Search"))), stopButton_(new QPushButton(tr("Stop"))) {
    resize(1000, 560);
    wanted_->addItems({tr("a ratio"), tr("an output speed"), tr("one ratio for all shots"),
                       tr("whole steps per unit"), tr("change gears")});
    source_->addItems({tr("parts on hand"), tr("stock gears, module 0.5"), tr("stock gears, module 1"),
                       tr("stock pulleys, 2 mm"), tr("stock pulleys, 3 mm"), tr("stock pulleys, 5 mm")});
    source_->setCurrentIndex(3);
    sense_->addItems({tr("either direction"), tr("same as the motor"), tr("against the motor")});
    stages_->setRange(1, 4);
    stages_->setValue(2);
    wanted_->setObjectName(QStringLiteral("ratioWanted"));
    source_->setObjectName(QStringLiteral("ratioSource"));
    first_->setObjectName(QStringLiteral("ratioFirst"));
    second_->setObjectName(QStringLiteral("ratioSecond"));
    stages_->setObjectName(QStringLiteral("ratioStages"));
    table_->setObjectName(QStringLiteral("ratioTable"));
    status_->setObjectName(QStringLiteral("ratioStatus"));
    status_->setWordWrap(true);
    use_->setProperty("role", "primary");
    use_->setEnabled(false);
    largest_->setPlaceholderText(tr("any"));
    efficiency_->setPlaceholderText(tr("any"));
    backlash_->setPlaceholderText(tr("any"));
    table_->setHorizontalHeaderLabels({tr("Ratio"), tr("Error"), tr("Train"), tr("Inertia"), tr("Size"),
                                       tr("Backlash"), tr("To buy"), tr("Pulses"), tr("Step")});
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->horizontalHeader()->setStretchLastSection(false);
    table_->setAccessibleName(tr("Trains, best first"));

    auto* form = new QFormLayout;
    form->addRow(tr("Target"), wanted_);
    form->addRow(firstLabel_, first_);
    form->addRow(secondLabel_, second_);
    form->addRow(tr("From"), source_);
    form->addRow(tr("Stages, at most"), stages_);
    form->addRow(tr("Largest wheel"), largest_);
    form->addRow(tr("Least efficiency"), efficiency_);
    form->addRow(tr("Largest backlash"), backlash_);
    form->addRow(tr("Output turns"), sense_);
    auto* left = new QVBoxLayout;
    left->addLayout(form);
    auto* run = new QHBoxLayout;
    run->addWidget(search_);
    run->addWidget(stopButton_);
    left->addLayout(run);
    left->addWidget(status_);
    left->addStretch();
    auto* right = new QVBoxLayout;
    right->addWidget(table_, 1);
    right->addWidget(view_);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    auto* close = new QPushButton(tr("Close"));
    buttons->addWidget(use_);
    buttons->addWidget(close);
    right->addLayout(buttons);
    auto* all = new QHBoxLayout(this);
    auto* leftBox = new QWidget;
    leftBox->setLayout(left);
    leftBox->setFixedWidth(290);
    all->addWidget(leftBox);
    all->addLayout(right, 1);

    connect(wanted_, &QComboBox::activated, this, [this] {
        refreshWanted();
        search();
    });
    for (QComboBox* box : {source_, sense_}) connect(box, &QComboBox::activated, this, &RatioDialog::search);
    stages_->setButtonSymbols(QAbstractSpinBox::NoButtons); // one digit, typed or stepped by keys
    connect(stages_, &QSpinBox::valueChanged, this, &RatioDialog::search);
    for (QLineEdit* edit : {first_, second_, largest_, efficiency_, backlash_})
        connect(edit, &QLineEdit::editingFinished, this, &RatioDialog::search);
    connect(search_, &QPushButton::clicked, this, &RatioDialog::search);
    connect(stopButton_, &QPushButton::clicked, this, [this] { stop_.request_stop(); });
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(use_, &QPushButton::clicked, this, &RatioDialog::use);
    connect(table_, &QTableWidget::itemSelectionChanged, this, &RatioDialog::showChoice);
    search_->setAutoDefault(false);
    close->setAutoDefault(false);
    use_->setAutoDefault(false);
    stopButton_->setAutoDefault(false);
    stopButton_->setEnabled(false);
    pool_.setMaxThreadCount(1);
}

void RatioDialog::follow() {
    if (searchNumber_ > 0) return showTrains(); // what was found, with the drive as it is now
    first_->setText(number(linksRatio(), 4));
    refreshWanted();
    search();
}

RatioDialog::~RatioDialog() {
    stop_.request_stop();
    pool_.waitForDone();
}

double RatioDialog::linksRatio() const {
    double ratio = 1.0;
    if (const Axis* axis = context_.axis())
        for (const Link& link : axis->links) {
            if (const auto* g = std::get_if<GearStage>(&link))
                ratio *= static_cast<double>(g->loadTeeth) / g->motorTeeth;
            if (const auto* b = std::get_if<BeltStage>(&link))
                ratio *= static_cast<double>(b->loadTeeth) / b->motorTeeth;
        }
    return ratio;
}

void RatioDialog::refreshWanted() {
    const int wanted = wanted_->currentIndex();
    firstLabel_->setText(wanted == OutputSpeed   ? tr("Motor turns at")
                         : wanted == ChangeGears ? tr("Ratios, by ;")
                                                 : tr("Ratio"));
    secondLabel_->setText(wanted == OutputSpeed  ? tr("Output turns at")
                          : wanted == WholeSteps ? tr("near the ratio")
                                                 : QString());
    const bool second = wanted == OutputSpeed;
    second_->setVisible(second);
    secondLabel_->setVisible(second);
    first_->setVisible(wanted != Span);
    firstLabel_->setVisible(wanted != Span);
    if (wanted == OutputSpeed && second_->text().isEmpty()) {
        first_->setText(QStringLiteral("300 rpm"));
        second_->setText(QStringLiteral("60 rpm"));
    }
    if ((wanted == Ratio || wanted == WholeSteps) && !readRatio(first_->text()))
        first_->setText(number(linksRatio(), 4));
    if (wanted == ChangeGears && !first_->text().contains(QLatin1Char(';')))
        first_->setText(QStringLiteral("%1; %2").arg(number(linksRatio(), 3), number(2.0 * linksRatio(), 3)));
}

std::vector<drivetrain::Ratio> RatioDialog::targets() {
    const int wanted = wanted_->currentIndex();
    const auto refuse = [&](const QString& why) {
        status_->setText(why);
        return std::vector<drivetrain::Ratio>{};
    };
    if (wanted == OutputSpeed) {
        const auto in = readQuantity(first_->text(), Kind::RotationRate, context_.system());
        const auto out = readQuantity(second_->text(), Kind::RotationRate, context_.system());
        if (!in || !out)
            return refuse(tr("“%1” or “%2” is no shaft speed; write one such as 300 rpm.")
                              .arg(first_->text(), second_->text()));
        const auto r = drivetrain::nearestFraction(*in / *out, largestTerm);
        return r ? std::vector{*r} : refuse(tr("These speeds are too far apart for any train."));
    }
    if (wanted == Span) {
        // The window between what pulses and motor allow the fastest shot and what the slowest shot's steps
        // may show.
        const AxisEvaluation* e = context_.axisEvaluation();
        if (e == nullptr || e->shots.empty()) return refuse(tr("No shot moves this axis; add one in Brief."));
        double most = 1e9, least = 0.0;
        for (const ShotEvaluation& s : e->shots) {
            if (s.problem != Reason::None) continue;
            const double jitter = context_.document.project().shots[s.shot.at()].limits.jitter;
            if (s.place.step) least = std::max(least, s.place.step.value() / jitter);
            if (s.pulseRate)
                most = std::min(most, context_.document.project().controller.pulseCeiling /
                                          s.pulseRate.value() / 1.25);
            if (less(0.0, e->cornerSpeed))
                most = std::min(most, (e->cornerSpeed / s.motion.motorSpeed).valueOr(most));
            most = std::min(most, (e->checks.motorTopSpeed / s.motion.topSpeed / 1.1).valueOr(most));
        }
        const double now = linksRatio();
        if (least > most)
            return refuse(tr("No one ratio serves all shots: steps need %1:1 or more, speed allows %2:1. Use "
                             "finer microsteps or change gears.")
                              .arg(number(now * least, 2), number(now * most, 2)));
        const double middle = now * std::sqrt(std::max(least, most / 100.0) * most);
        status_->setText(tr("From %1:1 (steps just seen) to %2:1 (fastest shot).")
                             .arg(number(now * least, 2), number(now * most, 2)));
        const auto r = drivetrain::nearestFraction(middle, 1000);
        return r ? std::vector{*r} : std::vector<drivetrain::Ratio>{};
    }
    std::vector<drivetrain::Ratio> out;
    const QStringList words = wanted == ChangeGears
                                  ? first_->text().split(QLatin1Char(';'), Qt::SkipEmptyParts)
                                  : QStringList{first_->text()};
    for (const QString& word : words) {
        const auto r = readRatio(word);
        if (!r) return refuse(tr("“%1” is no ratio; write one such as 3.6 or 57/11.").arg(word.trimmed()));
        out.push_back(*r);
    }
    if (wanted == ChangeGears && (out.size() < 2 || out.size() > 3))
        return refuse(tr("Change gears serve two or three ratios; write them as 2; 3.5."));
    return out;
}

void RatioDialog::search() {
    stop_.request_stop();
    status_->clear();
    trains_.clear();
    changes_.clear();
    showTrains();
    const std::vector<drivetrain::Ratio> wanted = targets();
    if (wanted.empty()) return;
    ratiofinder::Query query;
    query.target = wanted.front();
    query.mostStages = stages_->value();
    query.sense = static_cast<ratiofinder::Sense>(sense_->currentIndex());
    const auto limit = [&](QLineEdit* edit, Kind kind, double& target) {
        if (edit->text().trimmed().isEmpty()) return true;
        const auto v = readQuantity(edit->text(), kind, context_.system());
        if (v) target = *v;
        if (!v)
            status_->setText(
                tr("“%1” is not understood; write %2 or leave it empty.")
                    .arg(edit->text(), QString::fromUtf8(units::kindWords(kind).example.data())));
        return v.has_value();
    };
    if (!limit(largest_, Kind::Length, query.largestDiameter) ||
        !limit(efficiency_, Kind::Percentage, query.leastEfficiency) ||
        !limit(backlash_, Kind::Angle, query.largestBacklash))
        return;
    if (wanted_->currentIndex() == WholeSteps) {
        const AxisEvaluation* e = context_.axisEvaluation();
        const auto steps = e != nullptr ? e->model.exactStepsPerUnit : std::nullopt;
        const auto now = drivetrain::nearestFraction(linksRatio(), largestTerm);
        const auto perRatio = steps && now ? steps->dividedBy(*now) : std::nullopt;
        if (!perRatio) {
            status_->setText(tr(
                "This drive has no exact steps per unit; only toothed belts, screws and direct axes have."));
            return;
        }
        query.accept = [perRatio](const drivetrain::Ratio& r) {
            const auto s = perRatio->times(r);
            return s && s->denominator() == 1;
        };
    }
    const int source = source_->currentIndex();
    const bool change = wanted_->currentIndex() == ChangeGears;
    if (source == 0 && context_.shelf.parts().empty()) {
        status_->setText(
            tr("There are no parts on hand yet; enter them under Parts, or search stock sizes."));
        return;
    }
    stop_ = std::stop_source();
    status_->setText(status_->text() + (status_->text().isEmpty() ? QString() : QStringLiteral(" ")) +
                     tr("Looking…"));
    stopButton_->setEnabled(true);
    pool_.start([this, query, wanted, source, change,
                 shelf = source == 0 ? context_.shelf.parts() : std::vector<parts::Part>{},
                 token = stop_.get_token(), number = ++searchNumber_] {
        auto bin = std::make_shared<const ratiofinder::Bin>(
            source == 0 ? parts::shelfBin(shelf) : parts::stockBin(static_cast<parts::Stock>(source - 1)));
        std::vector<ratiofinder::Train> trains;
        std::vector<ratiofinder::ChangeGears> changes;
        if (change)
            changes = ratiofinder::findChangeGears(*bin, wanted, std::min(2, query.mostStages - 1),
                                                   bin->families().empty() || bin->families().front().gears,
                                                   20, token);
        else
            trains = bin->find(query, token);
        QMetaObject::invokeMethod(
            this,
            [this, bin, trains = std::move(trains), changes = std::move(changes), number] {
                if (number != searchNumber_) return;
                bin_ = bin;
                trains_ = trains;
                changes_ = changes;
                stopButton_->setEnabled(false);
                status_->setText(status_->text().remove(tr("Looking…")).trimmed());
                showTrains();
                if (trains_.empty() && changes_.empty())
                    status_->setText(tr("Nothing fits. Allow more stages or larger wheels."));
            },
            Qt::QueuedConnection);
    });
}

QString RatioDialog::trainText(const std::vector<ratiofinder::Stage>& stages) const {
    QStringList words;
    for (const ratiofinder::Stage& s : stages)
        words << QStringLiteral("%1:%2")
                     .arg(bin_->wheels()[static_cast<std::size_t>(s.driver)].teeth)
                     .arg(bin_->wheels()[static_cast<std::size_t>(s.driven)].teeth);
    return words.join(QStringLiteral(" × "));
}

void RatioDialog::showTrains() {
    const bool change = !changes_.empty();
    table_->setRowCount(static_cast<int>(change ? changes_.size() : trains_.size()));
    const AxisEvaluation* e = context_.axisEvaluation();
    const double now = linksRatio();
    for (int row = 0; row < table_->rowCount(); ++row) {
        QStringList cells;
        if (change) {
            const ratiofinder::ChangeGears& c = changes_[static_cast<std::size_t>(row)];
            QStringList swapped;
            for (const ratiofinder::Stage& s : c.swapped) swapped << trainText({s});
            cells << tr("%1 ways").arg(c.swapped.size())
                  << QStringLiteral("±%1 %").arg(number(100 * c.worstError, 3))
                  << (c.fixed.empty() ? QString() : trainText(c.fixed) + QStringLiteral(" × ")) +
                         QStringLiteral("(%1)").arg(swapped.join(tr(" or ")));
            for (int i = 3; i < 9; ++i) cells << QString();
        } else {
            const ratiofinder::Train& t = trains_[static_cast<std::size_t>(row)];
            const double change1 = t.ratio.value() / now;
            double fastest = 0.0, step = 0.0, px = 0.0;
            if (e != nullptr)
                for (const ShotEvaluation& s : e->shots) {
                    if (s.pulseRate) fastest = std::max(fastest, s.pulseRate.value() * change1);
                    if (s.place.step) step = std::max(step, s.place.step.value() / change1);
                    px = std::max(px, s.pixelsPerUnit);
                }
            // Play of the train at the axis, through what lies behind it.
            const double behind =
                e != nullptr && !e->model.chain.stages.empty() && e->model.kind == AxisKind::Linear
                    ? 1.0 / e->model.chain.stages.back().ratio
                    : 1.0;
            cells << number(t.ratio.value(), 5) + QStringLiteral(" = ") +
                         QString::fromStdString(t.ratio.text())
                  << (t.error == 0.0 ? tr("exact")
                                     : QStringLiteral("%1%2 %").arg(
                                           t.error > 0 ? QStringLiteral("+") : QString(),
                                           number(100 * t.error, std::abs(t.error) < 1e-4 ? 5 : 3)))
                  << trainText(t.stages) << context_.show(t.inertia, Kind::Inertia, 2)
                  << context_.show(t.size, Kind::Length, 2)
                  << (px > 0.0 ? context_.show(t.backlash * behind * px, Kind::Pixels, 2)
                               : context_.show(t.backlash, Kind::Angle, 2))
                  << (t.toBuy == 0 ? tr("none") : QString::number(t.toBuy))
                  << (fastest > 0.0 ? context_.show(fastest, Kind::Frequency, 3) : QStringLiteral("–"))
                  << (step > 0.0 ? context_.show(step, Kind::Pixels, 2) : QStringLiteral("–"));
        }
        for (int column = 0; column < cells.size(); ++column) {
            auto* item = new QTableWidgetItem(cells[column]);
            if (column != 2) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(row, column, item);
        }
    }
    table_->resizeColumnsToContents();
    if (table_->rowCount() > 0) table_->selectRow(0);
    showChoice();
}

void RatioDialog::showChoice() {
    const int row = table_->currentRow();
    std::vector<ratiofinder::Stage> stages;
    if (row >= 0 && row < static_cast<int>(trains_.size()))
        stages = trains_[static_cast<std::size_t>(row)].stages;
    if (row >= 0 && row < static_cast<int>(changes_.size())) {
        stages = changes_[static_cast<std::size_t>(row)].fixed;
        stages.push_back(changes_[static_cast<std::size_t>(row)].swapped.front());
    }
    std::vector<TrainView::Stage> drawn;
    for (const ratiofinder::Stage& s : stages) {
        const auto &a = bin_->wheels()[static_cast<std::size_t>(s.driver)],
                   &b = bin_->wheels()[static_cast<std::size_t>(s.driven)];
        const auto& family = bin_->families()[static_cast<std::size_t>(a.family)];
        drawn.push_back({a.teeth, b.teeth, a.teeth * family.module, b.teeth * family.module, family.gears});
    }
    view_->setStages(std::move(drawn), stages.empty() ? tr("No train") : trainText(stages));
    use_->setEnabled(!stages.empty() && context_.axis() != nullptr && !context_.document.readOnly());
}

void RatioDialog::use() {
    const int row = table_->currentRow();
    if (row < 0 || bin_ == nullptr) return;
    std::vector<ratiofinder::Stage> stages;
    if (row < static_cast<int>(trains_.size()))
        stages = trains_[static_cast<std::size_t>(row)].stages;
    else if (row < static_cast<int>(changes_.size())) {
        stages = changes_[static_cast<std::size_t>(row)].fixed;
        stages.push_back(changes_[static_cast<std::size_t>(row)].swapped.front());
    }
    context_.document.change(tr("Use a found train"), [&](Project& p) {
        Axis& axis = p.axes[static_cast<std::size_t>(context_.session.axis())];
        std::erase_if(axis.links, isToothed);
        for (const ratiofinder::Stage& s : stages) {
            Link link = parts::linkOf(*bin_, s);
            linkId(link) = freeId(p, axis.id + "-stage");
            axis.links.push_back(std::move(link));
        }
    });
    status_->setText(
        tr("Used. The gear pairs and belt stages of this axis are replaced; undo brings them back."));
    showTrains();
}

} // namespace gantry::app
