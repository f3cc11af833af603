// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/structure_tools.h"

#include "app/stations/structure/budget_dialog.h"
#include "app/stations/structure/chart_dialog.h"
#include "app/stations/structure/sections_dialog.h"
#include "app/stations/structure/tests_dialog.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/model/retired_ids.h"

#include <QCoreApplication>
#include <QMenu>

namespace gantry::app {
namespace {

QString tr(const char* text) {
    return QCoreApplication::translate("StructureTools", text);
}

Boom* boomOf(Project& p, int axis) {
    if (axis < 0 || axis >= static_cast<int>(p.axes.size())) return nullptr;
    auto* r = std::get_if<RotaryMechanism>(&p.axes[static_cast<std::size_t>(axis)].mechanism);
    return r != nullptr ? &r->boom : nullptr;
}

Rail* railOf(Project& p, int axis) {
    if (axis < 0 || axis >= static_cast<int>(p.axes.size())) return nullptr;
    auto* linear = std::get_if<LinearMechanism>(&p.axes[static_cast<std::size_t>(axis)].mechanism);
    return linear != nullptr ? &linear->rail : nullptr;
}

} // namespace

QMenu* structureTools(const Context& context, QWidget* station) {
    auto* menu = new QMenu(station);
    menu->addAction(tr("Error budget"), station,
                    [=, &context] { ToolWindow::open<BudgetDialog>(context, station->window()); });
    menu->addAction(tr("Compare sections"), station,
                    [=, &context] { ToolWindow::open<SectionsDialog>(context, station->window()); });
    menu->addAction(tr("Counterweight chart"), station,
                    [=, &context] { ToolWindow::open<ChartDialog>(context, station->window()); });
    menu->addAction(tr("Tests and what is stale"), station,
                    [=, &context] { ToolWindow::open<TestsDialog>(context, station->window()); });
    menu->addSeparator();
    const auto edit = [=, &context](const QString& name, auto change) {
        return menu->addAction(name, station, [=, &context] {
            if (!context.document.readOnly())
                context.document.change(name, [&](Project& p) { change(p, context.session.axis()); });
        });
    };
    // The drawing in the pose of the nearest approach.
    menu->addAction(tr("Draw where it comes nearest"), station, [=, &context] {
        const std::vector<double> pose = context.document.assessment().evaluation.rig.clearance.pose;
        if (pose.empty() || context.document.readOnly()) return;
        context.document.change(tr("Draw where it comes nearest"), [&](Project& p) {
            for (std::size_t i = 0; i < std::min(pose.size(), p.axes.size()); ++i) {
                const bool onHead = turnsOnHead(p.axes[i].role);
                std::visit(
                    [&](auto& m) {
                        if constexpr (requires { m.rail; })
                            m.rail.shownAt = pose[i];
                        else
                            m.boom.shownAt = onHead ? pose[i] - straightAhead(m) : pose[i];
                    },
                    p.axes[i].mechanism);
            }
        });
    });
    edit(tr("Add a room to keep out of"), [](Project& p, int) {
        KeepOut room;
        room.id = freeIdIn(p, p.keepOut, "room");
        room.name = tr("Subject").toStdString();
        p.keepOut.push_back(room);
    });
    edit(tr("Remove the last room"), [](Project& p, int) {
        if (!p.keepOut.empty()) p.keepOut.pop_back();
    });
    edit(tr("Add a disc on hand"), [](Project& p, int axis) {
        if (Boom* boom = boomOf(p, axis)) {
            Disc disc;
            disc.id = freeIdIn(p, boom->discs, "disc");
            boom->discs.push_back(disc);
        }
    });
    edit(tr("Remove the last disc"), [](Project& p, int axis) {
        if (Boom* boom = boomOf(p, axis); boom != nullptr && !boom->discs.empty()) boom->discs.pop_back();
    });
    // On the selected axis, or on what all of it stands.
    const auto bodies = [](Project& p, int axis) -> std::vector<PlacedBody>& {
        return std::visit([](auto& m) -> std::vector<PlacedBody>& { return m.bodies; },
                          p.axes[static_cast<std::size_t>(axis)].mechanism);
    };
    // Beside what is there, where nothing meets it.
    const auto added = [](Project& p, std::vector<PlacedBody>& list, const char* name, double left,
                          double above) {
        PlacedBody body;
        body.left = left;
        body.above = above;
        body.id = freeIdIn(p, list, "body");
        body.name = tr(name).toStdString();
        list.push_back(body);
    };
    // A turntable stands beside the rig, nobody says where: nothing on it can be compared.
    QAction* place = edit(tr("Add a body on this axis"), [=](Project& p, int axis) {
        if (axis >= 0) added(p, bodies(p, axis), QT_TRANSLATE_NOOP("StructureTools", "Motor"), 0.1, 0.0);
    });
    QObject::connect(menu, &QMenu::aboutToShow, station, [=, &context] {
        place->setEnabled(context.axis() != nullptr && context.axis()->role != Role::Turntable);
    });
    edit(tr("Remove the last body of this axis"), [=](Project& p, int axis) {
        if (axis >= 0 && !bodies(p, axis).empty()) bodies(p, axis).pop_back();
    });
    edit(tr("Add a body on the column"), [=](Project& p, int) {
        added(p, p.base.bodies, QT_TRANSLATE_NOOP("StructureTools", "Column motor"), -0.1, -0.25);
    });
    edit(tr("Remove the last body of the column"), [](Project& p, int) {
        if (!p.base.bodies.empty()) p.base.bodies.pop_back();
    });
    edit(tr("Add a load on the rail"), [](Project& p, int axis) {
        if (Rail* rail = railOf(p, axis)) {
            RailLoad load;
            load.id = freeIdIn(p, rail->loads, "load");
            load.name = tr("Battery").toStdString();
            rail->loads.push_back(load);
        }
    });
    edit(tr("Remove the last load of the rail"), [](Project& p, int axis) {
        if (Rail* rail = railOf(p, axis); rail != nullptr && !rail->loads.empty()) rail->loads.pop_back();
    });
    return menu;
}

} // namespace gantry::app
