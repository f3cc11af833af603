// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/caption.h"
#include "app/stations/brief/brief_lists.h"
#include "app/stations/brief/brief_station.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/retired_ids.h"
#include "core/verdicts/later.h"

#include <algorithm>

/// The lists of Brief: payload, what the rig needs besides, and what is to come later.
namespace gantry::app {
using units::Kind;

void BriefStation::connectLists() {
    payload_->fields()->setColumns(4);
    later_->fields()->setColumns(4);
    connect(payload_, &ListCard::message, this, &Station::message);
    connect(later_, &ListCard::message, this, &Station::message);
    connect(payload_, &ListCard::addWanted, this, [this] {
        context_.document.change(tr("Add to the payload"), [](Project& p) {
            MassItem item;
            item.id = freeIdIn(p, p.payload, "payload");
            item.name = p.payload.empty() ? tr("Camera body").toStdString() : tr("Item").toStdString();
            p.payload.push_back(item);
        });
    });
    connect(payload_, &ListCard::removeWanted, this, [this] {
        context_.document.change(tr("Remove from the payload"), [](Project& p) {
            if (!p.payload.empty()) p.payload.pop_back();
        });
    });
    connect(later_, &ListCard::addWanted, this, [this] {
        context_.document.change(tr("Add something for later"), [](Project& p) {
            LaterAxis later;
            later.id = freeIdIn(p, p.later, "later");
            later.name = tr("Roll axis").toStdString();
            p.later.push_back(later);
        });
    });
    connect(later_, &ListCard::removeWanted, this, [this] {
        context_.document.change(tr("Remove what was for later"), [](Project& p) {
            if (!p.later.empty()) p.later.pop_back();
        });
    });
}

void BriefStation::refreshLists() {
    const Project& p = context_.document.project();
    const bool any = !p.axes.empty(), can = !context_.document.readOnly();
    for (QWidget* w : std::initializer_list<QWidget*>{demands_, payload_, completeness_, equipment_, later_})
        w->setVisible(any);
    laterSays_->setVisible(any && !p.later.empty());
    if (!any) return;
    demands_->refresh();
    completeness_->refresh();
    equipment_->setTitle(tr("Checklist"), tr("tick what was built and tried, not what is planned"));
    QList<FieldSlot> ticks;
    for (const char* key : {"end_stops", "hard_blocks", "homing", "cable_path", "slip_ring", "tie_down",
                            "catch_strap", "emergency_stop", "spare_parts"})
        ticks << FieldSlot{QStringLiteral("equipment/") + QLatin1String(key), {}, 1.0};
    equipment_->setFields(ticks);

    double mass = 0.0, along = 0.0, above = 0.0;
    QList<FieldSlot> items;
    for (const MassItem& item : p.payload) {
        mass += item.mass.value;
        along += item.mass.value * item.along;
        above += item.mass.value * item.above;
        for (const char* key : {"name", "mass_kg", "along_m", "above_m"})
            items << FieldSlot{
                QStringLiteral("payload/%1/%2").arg(QString::fromStdString(item.id), QLatin1String(key)),
                {},
                1.0};
    }
    const bool carried =
        std::any_of(p.axes.begin(), p.axes.end(), [](const Axis& a) { return a.carriesPayload; });
    payload_->fields()->setTitle(
        tr("Payload"),
        p.payload.empty()
            ? tr("what is mounted as the camera: body, lens, plate, battery, monitor, microphone")
            : tr("%1, centre of gravity %2 along the lens and %3 above the mount%4")
                  .arg(context_.show(mass, Kind::Mass),
                       context_.show(mass > 0 ? along / mass : 0.0, Kind::Length),
                       context_.show(mass > 0 ? above / mass : 0.0, Kind::Length),
                       carried ? QString() : tr("; tick “Payload on top” on the axis that carries it")));
    payload_->fields()->setFields(items);
    payload_->setCan(can, can && !p.payload.empty());

    QList<FieldSlot> later;
    for (const LaterAxis& l : p.later)
        for (const char* key : {"name", "mass_kg"})
            later << FieldSlot{
                QStringLiteral("later/%1/%2").arg(QString::fromStdString(l.id), QLatin1String(key)), {}, 1.0};
    later_->fields()->setTitle(tr("Planned additions"),
                               p.later.empty()
                                   ? tr("add what may be mounted one day, and see what it would change now")
                                   : tr("what each would change now stands below"));
    later_->fields()->setFields(later);
    later_->setCan(can, can && !p.later.empty());
    if (!p.later.empty()) laterSays_->setText(tr("Would change"), laterWords());
}

QString BriefStation::laterWords() const {
    const Project& p = context_.document.project();
    QStringList said;
    for (std::size_t i = 0; i < p.later.size(); ++i) {
        const LaterAxis& l = p.later[i];
        QStringList changes;
        for (const LaterChange& c : context_.document.results().later(i))
            changes << tr("%1 of %2 from %3 to %4")
                           .arg(QString::fromStdString(title(c.after)),
                                QString::fromStdString(p.axes[static_cast<std::size_t>(c.after.axis)].name),
                                QString::fromUtf8(stateWord(c.before.state).data()),
                                QString::fromUtf8(stateWord(c.after.state).data()));
        said << tr("%1: %2").arg(QString::fromStdString(l.name),
                                 changes.isEmpty() ? tr("no verdict") : changes.join(QStringLiteral(", ")));
    }
    return said.join(QStringLiteral(" · "));
}

QString BriefStation::takenAs(const Shot& shot) const {
    if (shot.kind == ShotKind::RepeatPass)
        return tr("%1 passes that may lie %2 apart")
            .arg(shot.passes)
            .arg(context_.show(shot.limits.repeat, Kind::Pixels));
    if (!stepwise(shot)) return tr("lens and frames");
    return tr("%1 pictures, %2 on screen, %3")
        .arg(picturesOf(shot))
        .arg(context_.show(shownTime(shot), Kind::Time),
             shot.kind == ShotKind::Interval
                 ? tr("taken in %1").arg(context_.show(shootingTime(shot), Kind::Time))
                 : tr("stepped by hand"));
}

} // namespace gantry::app
