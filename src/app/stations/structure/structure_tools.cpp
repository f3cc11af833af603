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

} // namespace

QMenu* structureTools(const Context& context, QWidget* station) {
    auto* menu = new QMenu(station);
    const auto open = [](QDialog* dialog) {
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->open();
    };
    menu->addAction(tr("Error budget"), station,
                    [=, &context] { open(new BudgetDialog(context, station->window())); });
    menu->addAction(tr("Compare sections"), station,
                    [=, &context] { open(new SectionsDialog(context, station->window())); });
    menu->addAction(tr("Counterweight chart"), station,
                    [=, &context] { open(new ChartDialog(context, station->window())); });
    menu->addAction(tr("Tests and what is stale"), station,
                    [=, &context] { open(new TestsDialog(context, station->window())); });
    menu->addSeparator();
    const auto edit = [=, &context](const QString& name, auto change) {
        menu->addAction(name, station, [=, &context] {
            if (!context.document.readOnly())
                context.document.change(name, [&](Project& p) { change(p, context.session.axis()); });
        });
    };
    // The drawing in the pose of the nearest approach; pan and tilt are drawn straight ahead all the same.
    menu->addAction(tr("Draw where it comes nearest"), station, [=, &context] {
        const std::vector<double> pose = context.document.assessment().evaluation.rig.clearancePose;
        if (pose.empty() || context.document.readOnly()) return;
        context.document.change(tr("Draw where it comes nearest"), [&](Project& p) {
            for (std::size_t i = 0; i < std::min(pose.size(), p.axes.size()); ++i) {
                if (turnsOnHead(p.axes[i].role)) continue;
                std::visit(
                    [&](auto& m) {
                        if constexpr (requires { m.rail; })
                            m.rail.shownAt = pose[i];
                        else
                            m.boom.shownAt = pose[i];
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
    return menu;
}

} // namespace gantry::app
