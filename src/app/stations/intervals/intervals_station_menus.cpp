// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/write_bytes.h"
#include "app/stations/intervals/intervals_station.h"
#include "app/stations/intervals/plan_desk.h"
#include "core/model/edit_plans.h"
#include "core/tools/ready_plans.h"
#include "io/report/interval_table.h"
#include "io/report/plan_sheet.h"

#include <QBuffer>
#include <QComboBox>
#include <QFileDialog>
#include <QMenu>
#include <QMessageBox>
#include <QPdfWriter>
#include <QPushButton>
#include <QTextDocument>

namespace gantry::app {

/// What a plan may have several of.
template <class F>
static void eachList(F f) {
    f(IntervalsStation::tr("Camera"), "cameras", "camera", &IntervalPlan::cameras);
    f(IntervalsStation::tr("Exposure from a picture on"), "exposures", "exposure", &IntervalPlan::exposures);
    f(IntervalsStation::tr("Missed picture"), "faults", "missed", &IntervalPlan::faults);
    f(IntervalsStation::tr("Something that draws power"), "consumers", "consumer", &IntervalPlan::consumers);
    f(IntervalsStation::tr("Reading of the battery"), "readings", "reading", &IntervalPlan::readings);
    f(IntervalsStation::tr("Sensor of presence"), "sensors", "sensor", &IntervalPlan::sensors);
    f(IntervalsStation::tr("Pause"), "pauses", "pause", &IntervalPlan::pauses);
}

/// How one of them is told from the others.
static QString nameOf(const PlanCamera& part) {
    return QString::fromStdString(part.name);
}
static QString nameOf(const PlanConsumer& part) {
    return QString::fromStdString(part.name);
}
static QString nameOf(const PlanSensor& part) {
    return QString::fromStdString(part.name);
}
static QString nameOf(const ExposureMark& part) {
    return IntervalsStation::tr("exposure from picture %1").arg(part.picture);
}
static QString nameOf(const PlanFault& part) {
    return IntervalsStation::tr("missed picture %1").arg(part.picture);
}
static QString nameOf(const PackReading& part) {
    return IntervalsStation::tr("reading at picture %1").arg(part.picture);
}
static QString nameOf(const PlanPause& part) {
    return IntervalsStation::tr("pause at %1 s").arg(part.start);
}

/// The page on which a list's fields stand.
static int pageOf(std::string_view list) {
    return list == "cameras" || list == "faults"       ? 1
           : list == "exposures"                       ? 2
           : list == "consumers" || list == "readings" ? 3
                                                       : 4;
}

void IntervalsStation::makeMenu() {
    auto* kinds = new QMenu(this);
    kinds->setToolTipsVisible(true);
    for (const ReadyPlanInfo& info : readyPlans())
        kinds
            ->addAction(QString::fromUtf8(info.name.data()), this,
                        [this, kind = info.kind] { newPlan(static_cast<int>(kind)); })
            ->setToolTip(QString::fromUtf8(info.what.data()));
    new_->setMenu(kinds);
    auto* menu = new QMenu(this);
    QMenu* more = menu->addMenu(tr("Add"));
    more->setObjectName(QStringLiteral("addToPlan"));
    eachList([&](const QString& label, const char* key, const char* wish, auto list) {
        more->addAction(label, this, [this, label, key, wish, list] {
            int at = -1;
            const int plan = desk_->plan();
            context_.document.change(tr("Add: %1").arg(label),
                                     [&](Project& p) { at = addPart(p, plan, list, key, wish); });
            if (at < 0)
                emit message(tr("No more of these are possible in one plan."), true);
            else
                page_->setCurrentIndex(pageOf(key));
            refresh();
        });
    });
    remove_ = menu->addMenu(tr("Remove"));
    remove_->setObjectName(QStringLiteral("removeFromPlan"));
    menu->addSeparator();
    QAction* copy = menu->addAction(tr("Copy the plan"), this, [this] {
        int made = -1;
        const int plan = desk_->plan();
        context_.document.change(tr("Copy the plan"), [&](Project& p) { made = copyPlan(p, plan); });
        if (made >= 0) desk_->setPlan(made);
    });
    QAction* gone = menu->addAction(tr("Remove the plan"), this, [this] {
        const int plan = desk_->plan();
        context_.document.change(tr("Remove the plan"), [&](Project& p) { removePlan(p, plan); });
        refresh();
    });
    menu->addSeparator();
    QAction* pause = menu->addAction(tr("Pause here"), this, &IntervalsStation::pauseHere);
    QAction* miss = menu->addAction(tr("Miss this picture"), this, &IntervalsStation::missHere);
    QAction* on = menu->addAction(tr("Go on from this picture…"), this, &IntervalsStation::goOn);
    menu->addSeparator();
    QAction* list = menu->addAction(tr("Save the frame list…"), this, &IntervalsStation::saveList);
    QAction* sheet = menu->addAction(tr("Save the plan sheet…"), this, &IntervalsStation::saveSheet);
    connect(menu, &QMenu::aboutToShow, this, [=, this] {
        const bool has = desk_->current() != nullptr, can = has && !context_.document.readOnly();
        for (QAction* a : {more->menuAction(), remove_->menuAction(), copy, gone}) a->setEnabled(can);
        for (QAction* a : {pause, miss}) a->setEnabled(can && desk_->course() != nullptr);
        for (QAction* a : {on, list, sheet}) a->setEnabled(has);
        fillRemoveMenu();
    });
    menu_->setMenu(menu);
}

void IntervalsStation::fillRemoveMenu() {
    remove_->clear();
    const IntervalPlan* plan = desk_->current();
    if (plan == nullptr) return;
    eachList([&](const QString& label, const char* key, const char*, auto list) {
        const auto& parts = plan->*list;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            // A run without a camera takes no pictures.
            if (std::string_view(key) == "cameras" && parts.size() == 1) continue;
            remove_->addAction(nameOf(parts[i]), this, [this, label, list, i] {
                const int index = desk_->plan();
                context_.document.change(tr("Remove: %1").arg(label), [&](Project& p) {
                    removePart(p, index, list, static_cast<int>(i));
                });
                refresh();
            });
        }
    });
    if (remove_->isEmpty()) remove_->addAction(tr("nothing to remove"))->setEnabled(false);
}

/// Five minutes from the moment that is looked at, as when somebody walks in.
void IntervalsStation::pauseHere() {
    PlanPause pause;
    pause.start = std::round(desk_->time());
    const int plan = desk_->plan();
    context_.document.change(tr("Pause here"), [&](Project& p) {
        addPart(p, plan, &IntervalPlan::pauses, "pauses", "pause", pause);
    });
    page_->setCurrentIndex(Presence);
    refresh();
}

void IntervalsStation::missHere() {
    PlanFault fault;
    fault.picture = static_cast<int>(desk_->picture()) + 1;
    const int plan = desk_->plan();
    context_.document.change(tr("Miss this picture"), [&](Project& p) {
        addPart(p, plan, &IntervalPlan::faults, "faults", "missed", fault);
    });
    page_->setCurrentIndex(Camera);
    refresh();
}

void IntervalsStation::goOn() {
    const std::string text =
        io::goingOn(context_.document.project(), static_cast<std::size_t>(desk_->plan()),
                    context_.document.results().evaluation(), desk_->picture(), context_.system());
    QMessageBox box(QMessageBox::NoIcon, tr("Go on from picture %1").arg(desk_->picture() + 1),
                    QString::fromStdString(text), QMessageBox::Close, this);
    box.setObjectName(QStringLiteral("goingOn"));
    box.setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    box.exec();
}

void IntervalsStation::saveList() {
    const IntervalPlan* plan = desk_->current();
    if (plan == nullptr) return;
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save the frame list"), QString::fromStdString(plan->id) + QStringLiteral(".csv"),
        tr("Table (*.csv)"));
    if (path.isEmpty()) return;
    const std::string text =
        io::intervalCsv(context_.document.project(), static_cast<std::size_t>(desk_->plan()),
                        context_.document.results().evaluation());
    const QString wrong = writeBytes(path, QByteArray::fromStdString(text));
    emit message(wrong.isEmpty() ? tr("Written to “%1”.").arg(path) : wrong, !wrong.isEmpty());
}

/// As a page to print, or as text where the name asks for it.
void IntervalsStation::saveSheet() {
    const IntervalPlan* plan = desk_->current();
    if (plan == nullptr) return;
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save the plan sheet"), QString::fromStdString(plan->id) + QStringLiteral(".pdf"),
        tr("Page to print (*.pdf);;Text (*.md)"));
    if (path.isEmpty()) return;
    const QByteArray text = QByteArray::fromStdString(
        io::planSheet(context_.document.project(), static_cast<std::size_t>(desk_->plan()),
                      context_.document.results().evaluation(), context_.system()));
    QByteArray bytes = text;
    if (!path.endsWith(QStringLiteral(".md"), Qt::CaseInsensitive)) {
        bytes.clear();
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setTitle(QString::fromStdString(plan->name));
        QTextDocument page;
        page.setMarkdown(QString::fromUtf8(text));
        page.print(&pdf);
    }
    const QString wrong = writeBytes(path, bytes);
    emit message(wrong.isEmpty() ? tr("Written to “%1”.").arg(path) : wrong, !wrong.isEmpty());
}

} // namespace gantry::app
