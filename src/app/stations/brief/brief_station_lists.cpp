// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/caption.h"
#include "app/instruments/fold.h"
#include "app/stations/brief/brief_lists.h"
#include "app/stations/brief/brief_station.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/describe.h"
#include "core/model/retired_ids.h"
#include "core/verdicts/later.h"

#include <algorithm>

/// The lists of Brief: payload, what the rig needs besides, and what is to come later.
namespace gantry::app {
using units::Kind;

namespace {
template <class T>
QStringList namesOf(const std::vector<T>& list) {
    QStringList out;
    for (const T& each : list) out << QString::fromStdString(each.name);
    return out;
}
} // namespace

void BriefStation::connectLists() {
    payload_->fields()->setColumns(4);
    later_->fields()->setColumns(4);
    connect(payload_, &ListCard::message, this, &Station::message);
    connect(later_, &ListCard::message, this, &Station::message);
    connectList(
        payload_, context_.document, [](Project& p) { return &p.payload; },
        [](const Project& p) {
            MassItem item;
            item.id = freeIdIn(p, p.payload, "payload");
            item.name = p.payload.empty() ? tr("Camera body").toStdString() : tr("Item").toStdString();
            return item;
        },
        tr("the payload"));
    connectList(
        later_, context_.document, [](Project& p) { return &p.later; },
        [](const Project& p) {
            LaterAxis later;
            later.id = freeIdIn(p, p.later, "later");
            later.name = tr("Roll axis").toStdString();
            return later;
        },
        tr("what is planned"));
}

QList<Fold*> BriefStation::folds() const {
    return {shotFold_, axisFold_, rigFold_, payloadFold_, checklistFold_, laterFold_};
}

/// What is folded away says in a line what it assumes.
void BriefStation::refreshFolds() {
    const Project& p = context_.document.project();
    const Axis* axis = context_.axis();
    const int shot = shotIndex();
    const auto fold = [&](Fold* line, bool there, std::initializer_list<QWidget*> cards,
                          const QString& summary) {
        line->setVisible(there);
        line->setSummary(summary);
        for (QWidget* card : cards) card->setVisible(there && line->isOpen());
    };
    QString summary;
    if (shot >= 0) {
        const Shot& s = p.shots[static_cast<std::size_t>(shot)];
        QStringList said{tr("exposed %1").arg(context_.show(s.exposure, Kind::Time)),
                         tr("settles within %1").arg(context_.show(s.settle, Kind::Time)),
                         tr("jitter %1").arg(context_.show(s.limits.jitter, Kind::Pixels)),
                         tr("drift %1").arg(context_.show(s.limits.drift, Kind::PixelsPerFrame)),
                         tr("repeat %1").arg(context_.show(s.limits.repeat, Kind::Pixels))};
        if (s.thereAndBack) said << tr("there and back");
        if (s.keepFramed) said << tr("subject framed");
        summary = said.join(QStringLiteral(" · "));
    }
    fold(shotFold_, shot >= 0, {shotMore_, limits_}, summary);
    summary.clear();
    if (axis != nullptr) {
        const auto stop = ChoiceNames<OnStop>::labels[static_cast<std::size_t>(axis->onStop)];
        QStringList said{tr("emergency stop: %1").arg(QString::fromUtf8(stop))};
        if (const auto* linear = std::get_if<LinearMechanism>(&axis->mechanism))
            said.prepend(tr("rail %1, carriage %2")
                             .arg(context_.show(linear->railLength, Kind::Length),
                                  context_.show(linear->carriageLength, Kind::Length)));
        if (axis->carriesPayload) said << tr("payload on top");
        summary = said.join(QStringLiteral(" · "));
    }
    axisFold_->setTitle(axis != nullptr ? tr("More of %1").arg(QString::fromStdString(axis->name))
                                        : QString());
    fold(axisFold_, axis != nullptr, {axis_}, summary);
    const bool any = !p.axes.empty();
    QStringList place{tr("sensor %1").arg(context_.show(p.camera.sensorWidth, Kind::PartLength)),
                      tr("%1 px").arg(p.camera.pixelsAcross),
                      context_.show(p.conditions.ambient, Kind::Celsius),
                      p.conditions.windSpeed > 0.0
                          ? tr("wind %1").arg(context_.show(p.conditions.windSpeed, Kind::Speed))
                          : tr("no wind"),
                      p.conditions.weightBudget > 0.0
                          ? tr("at most %1").arg(context_.show(p.conditions.weightBudget, Kind::Mass))
                          : tr("any weight"),
                      p.conditions.moneyBudget > 0.0
                          ? tr("for %1").arg(context_.show(p.conditions.moneyBudget, Kind::Money))
                          : tr("any price")};
    fold(rigFold_, any, {rig_}, place.join(QStringLiteral(" · ")));
    double mass = 0.0;
    QStringList items;
    for (const MassItem& item : p.payload) {
        mass += item.mass.value;
        items << QString::fromStdString(item.name);
    }
    fold(payloadFold_, any, {payload_},
         p.payload.empty()
             ? tr("none listed")
             : tr("%1: %2").arg(context_.show(mass, Kind::Mass), items.join(QStringLiteral(", "))));
    fold(checklistFold_, any, {completeness_, equipment_}, completeness_->summary());
    fold(laterFold_, any, {later_},
         p.later.empty() ? tr("none") : namesOf(p.later).join(QStringLiteral(", ")));
    laterSays_->setVisible(any && laterFold_->isOpen() && !p.later.empty());
}

void BriefStation::refreshLists() {
    const Project& p = context_.document.project();
    const bool any = !p.axes.empty(), can = !context_.document.readOnly();
    demands_->setVisible(any && !p.shots.empty());
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
    payload_->setRows(namesOf(p.payload), can);

    QList<FieldSlot> later;
    for (const LaterAxis& l : p.later)
        for (const char* key : {"name", "mass_kg"})
            later << FieldSlot{
                QStringLiteral("later/%1/%2").arg(QString::fromStdString(l.id), QLatin1String(key)),
                {},
                1.0,
                QLatin1String(key) == QLatin1String("name")};
    later_->fields()->setTitle(tr("Planned additions"),
                               p.later.empty()
                                   ? tr("add what may be mounted one day, and see what it would change now")
                                   : tr("what each would change now stands below"));
    later_->fields()->setFields(later);
    later_->setRows(namesOf(p.later), can);
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
