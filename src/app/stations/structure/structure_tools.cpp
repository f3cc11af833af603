// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/structure_tools.h"

#include "app/stations/structure/budget_dialog.h"
#include "app/stations/structure/chart_dialog.h"
#include "app/stations/structure/sections_dialog.h"
#include "app/stations/structure/tests_dialog.h"
#include "core/evaluate/rig/rig_layout.h"

#include <QCoreApplication>
#include <QMenu>

namespace gantry::app {
namespace {

QString tr(const char* text) {
    return QCoreApplication::translate("StructureTools", text);
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
    return menu;
}

} // namespace gantry::app
