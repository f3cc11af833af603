// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/structure_lists.h"

#include "app/instruments/list_card.h"
#include "core/model/retired_ids.h"

namespace gantry::app {
namespace {

constexpr int listGap = 8;

/// The mechanism of an axis, if it is one of that kind.
template <class Mechanism>
Mechanism* mechanismOf(Project& p, int axis) {
    if (axis < 0 || axis >= static_cast<int>(p.axes.size())) return nullptr;
    return std::get_if<Mechanism>(&p.axes[static_cast<std::size_t>(axis)].mechanism);
}

std::vector<PlacedBody>* bodiesOf(Project& p, int axis) {
    if (axis < 0 || axis >= static_cast<int>(p.axes.size())) return nullptr;
    return std::visit([](auto& m) { return &m.bodies; }, p.axes[static_cast<std::size_t>(axis)].mechanism);
}

/// A body beside what is there, where nothing meets it.
PlacedBody bodyIn(const Project& p, const std::vector<PlacedBody>& list, const QString& name, double left,
                  double above) {
    PlacedBody body;
    body.id = freeIdIn(p, list, "body");
    body.name = name.toStdString();
    body.left = left;
    body.above = above;
    return body;
}

/// A row of fields for each element, and its name.
template <class T>
void fill(ListCard* card, const QString& title, const QString& prefix, const std::vector<T>& list,
          std::initializer_list<const char*> keys, const QString& note, bool can) {
    QList<FieldSlot> fields;
    QStringList names;
    for (const T& each : list) {
        const qsizetype first = fields.size();
        for (const char* key : keys)
            fields << FieldSlot{
                prefix + QString::fromStdString(each.id) + QLatin1Char('/') + QLatin1String(key), {}, 1.0};
        fields[first].startsRow = true;
        names << QString::fromStdString(each.name);
    }
    card->fields()->setTitle(title, note);
    card->fields()->setFields(fields);
    card->setRows(names, can);
}

} // namespace

StructureLists::StructureLists(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), rooms_(new ListCard(context, QStringLiteral("roomList"), this)),
      discs_(new ListCard(context, QStringLiteral("discList"), this)),
      axisBodies_(new ListCard(context, QStringLiteral("axisBodyList"), this)),
      columnBodies_(new ListCard(context, QStringLiteral("columnBodyList"), this)),
      loads_(new ListCard(context, QStringLiteral("loadList"), this)) {
    for (ListCard* card : {rooms_, discs_, axisBodies_, columnBodies_, loads_}) {
        card->fields()->setColumns(4);
        if (card != discs_) card->setLinesEach(2);
        connect(card, &ListCard::message, this, &StructureLists::message);
    }
    const Session* session = &context_.session;
    connectList(
        rooms_, context_.document, [](Project& p) { return &p.keepOut; },
        [](const Project& p) {
            KeepOut room;
            room.id = freeIdIn(p, p.keepOut, "room");
            room.name = tr("Subject").toStdString();
            return room;
        },
        tr("the rooms"));
    connectList(
        discs_, context_.document,
        [session](Project& p) {
            auto* r = mechanismOf<RotaryMechanism>(p, session->axis());
            return r != nullptr ? &r->boom.discs : nullptr;
        },
        [session](Project& p) {
            Disc disc;
            disc.id = freeIdIn(p, mechanismOf<RotaryMechanism>(p, session->axis())->boom.discs, "disc");
            return disc;
        },
        tr("the discs"));
    connectList(
        axisBodies_, context_.document, [session](Project& p) { return bodiesOf(p, session->axis()); },
        [session](Project& p) { return bodyIn(p, *bodiesOf(p, session->axis()), tr("Motor"), 0.1, 0.0); },
        tr("what sticks out"));
    connectList(
        columnBodies_, context_.document, [](Project& p) { return &p.base.bodies; },
        [](Project& p) { return bodyIn(p, p.base.bodies, tr("Column motor"), -0.1, -0.25); },
        tr("what sticks out of the column"));
    connectList(
        loads_, context_.document,
        [session](Project& p) {
            auto* linear = mechanismOf<LinearMechanism>(p, session->axis());
            return linear != nullptr ? &linear->rail.loads : nullptr;
        },
        [session](Project& p) {
            RailLoad load;
            load.id = freeIdIn(p, mechanismOf<LinearMechanism>(p, session->axis())->rail.loads, "load");
            load.name = tr("Battery").toStdString();
            return load;
        },
        tr("what sits on the rail"));
}

void StructureLists::refresh(int which) {
    const Project& p = context_.document.project();
    const Axis* axis = context_.axis();
    const bool can = axis != nullptr && !context_.document.readOnly();
    const auto* linear = axis != nullptr ? std::get_if<LinearMechanism>(&axis->mechanism) : nullptr;
    const auto* rotary = axis != nullptr ? std::get_if<RotaryMechanism>(&axis->mechanism) : nullptr;
    const QString mechanism = axis != nullptr
                                  ? QStringLiteral("axes/%1/mechanism/").arg(QString::fromStdString(axis->id))
                                  : QString();
    shown_.clear();
    const auto shows = [&](ListCard* card, bool there) {
        card->setVisible(there);
        if (there) shown_ << card;
        return there;
    };
    const auto size = {"name", "along_m", "left_m", "above_m", "length_m", "width_m", "height_m"};
    if (shows(rooms_, (which & Rooms) != 0))
        fill(rooms_, tr("Rooms to keep out of"), QStringLiteral("keep_out/"), p.keepOut,
             {"name", "x_m", "y_m", "z_m", "length_m", "width_m", "height_m"},
             p.keepOut.empty() ? tr("none: walls, tables and the subject that nothing may enter") : QString(),
             can);
    if (shows(discs_, (which & Discs) != 0 && rotary != nullptr))
        fill(discs_, tr("Discs on hand"), mechanism + QStringLiteral("boom/discs/"), rotary->boom.discs,
             {"name", "mass_kg", "count", "price"}, QString(), can);
    if (shows(axisBodies_, (which & AxisBodies) != 0 && axis != nullptr)) {
        // A turntable stands beside the rig, nobody says where: nothing on it can be compared.
        const bool placed = axis->role != Role::Turntable;
        fill(axisBodies_, tr("On %1").arg(QString::fromStdString(axis->name)),
             mechanism + QStringLiteral("bodies/"), linear != nullptr ? linear->bodies : rotary->bodies, size,
             placed ? tr("motors, gears, batteries that might touch something")
                    : tr("a turntable stands beside the rig, nothing on it can be compared"),
             can && placed);
    }
    if (shows(columnBodies_, (which & ColumnBodies) != 0))
        fill(columnBodies_, tr("On the column"), QStringLiteral("base/bodies/"), p.base.bodies, size,
             QString(), can);
    if (shows(loads_, (which & Loads) != 0 && linear != nullptr))
        fill(loads_, tr("On the rail"), mechanism + QStringLiteral("rail/loads/"), linear->rail.loads,
             {"name", "mass_kg", "at_m", "left_m", "above_m", "length_m", "width_m", "height_m"}, QString(),
             can);
    setVisible(!shown_.isEmpty());
    resizeEvent(nullptr);
}

int StructureLists::heightFor(int width) const {
    int height = 0;
    for (const ListCard* card : shown_) height += card->heightFor(width) + listGap;
    return height;
}

void StructureLists::resizeEvent(QResizeEvent*) {
    int y = 0;
    for (ListCard* card : shown_) {
        card->setGeometry(0, y, width(), card->heightFor(width()));
        y += card->height() + listGap;
    }
}

} // namespace gantry::app
