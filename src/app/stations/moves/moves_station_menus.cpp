// SPDX-License-Identifier: GPL-3.0-or-later
// What the menus "Move" and "Aim at" of the station offer.
#include "app/stations/moves/move_desk.h"
#include "app/stations/moves/moves_station.h"
#include "app/stations/moves/parallax_dialog.h"
#include "core/model/edit_moves.h"
#include "core/tools/fit_move.h"
#include "core/tools/ready_moves.h"

#include <QMenu>
#include <QPushButton>
#include <algorithm>

namespace gantry::app {

using units::Kind;

void MovesStation::makeMenus() {
    auto* menu = new QMenu(this);
    menu->addAction(tr("New move"), this, &MovesStation::newMove);
    auto* ready = menu->addMenu(tr("Ready-made moves"));
    ready->setObjectName(QStringLiteral("readyMoves"));
    ready->setToolTipsVisible(true);
    for (const ReadyMoveInfo& info : readyMoves()) {
        QAction* a = ready->addAction(QString::fromUtf8(info.name.data()), this, [this, kind = info.kind] {
            int made = -1;
            context_.document.change(tr("Add a ready-made move"),
                                     [&](Project& p) { made = addReadyMove(p, kind); });
            if (made >= 0)
                desk_->setMove(made);
            else
                emit message(tr("This rig cannot turn its head far enough for that move."), true);
            refresh();
        });
        a->setToolTip(QString::fromUtf8(info.effect.data()));
    }
    connect(ready, &QMenu::aboutToShow, this, [this, ready] {
        const auto infos = readyMoves();
        for (qsizetype i = 0; i < ready->actions().size(); ++i)
            ready->actions()[i]->setEnabled(
                suits(context_.document.project(), infos[static_cast<std::size_t>(i)].kind));
    });
    menu->addSeparator();
    const auto edit = [&](const QString& text, auto how) {
        menu->addAction(text, this, [this, text, how] {
            change(text, how);
            refresh();
        });
    };
    edit(tr("Duplicate the move"), [](Project& p, int move) { copyMove(p, move); });
    edit(tr("Reverse the move"), [this](Project& p, int move) { reverseMove(p, move, desk_->duration()); });
    edit(tr("Mirror the move"), [](Project& p, int move) { mirrorMove(p, move); });
    edit(tr("Half the speed"), [](Project& p, int move) { retimeMove(p, move, 2.0); });
    edit(tr("Twice the speed"), [](Project& p, int move) { retimeMove(p, move, 0.5); });
    edit(tr("Remove the move"), [](Project& p, int move) { removeMove(p, move); });
    menu->addSeparator();
    menu->addAction(tr("Fit to a time"), this, &MovesStation::askForTime);
    auto* lengths = menu->addMenu(tr("Fit to a usual time"));
    lengths->setObjectName(QStringLiteral("usualTimes"));
    constexpr double minute = 60.0, hour = 3600.0;
    for (const double time :
         {10.0, 20.0, 30.0, minute, 5.0 * minute, 20.0 * minute, hour, 3.0 * hour, 6.0 * hour})
        lengths->addAction(context_.show(time, Kind::Time), this, [this, time] { fitToTime(time); });
    menu->addAction(tr("Run in the least time"), this, [this] {
        bool done = false;
        change(tr("Run in the least time"), [&](Project& p, int move) { done = runInLeastTime(p, move); });
        if (!done) emit message(tr("Nothing of this move can be timed yet."), true);
        refresh();
    });
    addBlockMenus(*menu);
    menu->addAction(tr("Parallax"), this,
                    [this] { ToolWindow::open<ParallaxDialog>(context_, this, std::as_const(*desk_)); });
    menu->addSeparator();
    const auto pose = [&](const QString& text, auto how) {
        menu->addAction(text, this, [this, text, how] {
            if (desk_->pose() < 0) {
                emit message(tr("No pose is in hand. Press its flag first."), true);
                return;
            }
            int then = desk_->pose();
            change(text, [&](Project& p, int move) { then = how(p, move, desk_->pose()); });
            desk_->setPose(then);
        });
    };
    menu->addAction(tr("Go to the pose"), this, [this] { desk_->goTo(desk_->pose()); });
    menu->addAction(tr("Store the pose anew"), this, [this] {
        if (desk_->pose() < 0) return;
        const std::vector<double> places = desk_->places();
        change(tr("Store the pose anew"),
               [&](Project& p, int move) { restorePose(p, move, desk_->pose(), places); });
    });
    pose(tr("Move the pose forward"), [](Project& p, int move, int at) { return movePose(p, move, at, -1); });
    pose(tr("Move the pose back"), [](Project& p, int move, int at) { return movePose(p, move, at, 1); });
    pose(tr("Remove the pose"), [](Project& p, int move, int at) {
        removePose(p, move, at);
        return std::max(0, at - 1);
    });
    menu->addSeparator();
    menu->addAction(tr("Save as a table (CSV)"), this, [this] { saveTable(false); });
    menu->addAction(tr("Save joints and camera (JSON)"), this, [this] { saveTable(true); });
    menu_->setMenu(menu);

    auto* aim = new QMenu(this);
    aim->setObjectName(QStringLiteral("aimMenu"));
    connect(aim, &QMenu::aboutToShow, this, [this, aim] {
        aim->clear();
        aim->addAction(tr("What the camera sees now, two metres away"), this, &MovesStation::addTarget);
        const RigMove* m = desk_->current();
        aim->addAction(tr("Store this view of something in the middle of the picture"), this,
                       &MovesStation::storeView);
        if (desk_->views().size() >= 2)
            aim->addAction(
                tr("What %n views have in their middle", nullptr, static_cast<int>(desk_->views().size())),
                this, &MovesStation::targetFromViews);
        if (!desk_->views().empty())
            aim->addAction(tr("Forget the stored views"), this, [this] { desk_->forgetViews(); });
        if (m == nullptr) return;
        addTurntables(*aim);
        aim->addSeparator();
        const int to = std::max(desk_->pose(), 1);
        for (const AimTarget& t : m->targets)
            aim->addAction(tr("%1, coming to %2")
                               .arg(QString::fromStdString(t.name),
                                    QString::fromStdString(poseLetter(static_cast<std::size_t>(to)))),
                           this, [this, id = t.id, to] {
                               change(tr("Aim"), [&](Project& p, int move) {
                                   auto& poses = p.moves[static_cast<std::size_t>(move)].poses;
                                   if (to >= static_cast<int>(poses.size())) return;
                                   poses[static_cast<std::size_t>(to)].arrive.kind = SegmentKind::Aimed;
                                   poses[static_cast<std::size_t>(to)].arrive.target = id;
                               });
                           });
    });
    target_->setMenu(aim);
}

/// Blocks of one axis: begun at the play head, or taken out.
void MovesStation::addBlockMenus(QMenu& menu) {
    auto* add = menu.addMenu(tr("Add a block of one axis"));
    add->setObjectName(QStringLiteral("addBlock"));
    auto* remove = menu.addMenu(tr("Remove a block"));
    remove->setObjectName(QStringLiteral("removeBlock"));
    connect(&menu, &QMenu::aboutToShow, this, [this, add, remove] {
        add->clear();
        remove->clear();
        const RigMove* m = desk_->current();
        const Project& project = context_.document.project();
        add->setEnabled(m != nullptr && desk_->duration() > 0.0);
        remove->setEnabled(m != nullptr && !m->blocks.empty());
        if (m == nullptr) return;
        for (std::size_t a = 0; a < project.axes.size(); ++a)
            add->addAction(tr("%1, from the play head on").arg(QString::fromStdString(project.axes[a].name)),
                           this, [this, a] {
                               const double end = desk_->duration();
                               const double start =
                                   desk_->time() < end - desk_->frameTime() ? desk_->time() : 0.0;
                               change(tr("Add a block"), [&](Project& p, int move) {
                                   addBlock(p, move, static_cast<int>(a), start, end);
                               });
                               desk_->setPose(-1);
                           });
        for (std::size_t b = 0; b < m->blocks.size(); ++b) {
            const Axis* axis = findAxis(project, m->blocks[b].axis);
            remove->addAction(tr("%1 at %2")
                                  .arg(QString::fromStdString(axis != nullptr ? axis->name : ""),
                                       context_.show(m->blocks[b].start, Kind::Time)),
                              this, [this, b] {
                                  change(tr("Remove a block"), [&](Project& p, int move) {
                                      removeBlock(p, move, static_cast<int>(b));
                                  });
                              });
        }
    });
}

/// Targets that ride on a turntable of the rig, or stand still.
void MovesStation::addTurntables(QMenu& menu) {
    const Project& project = context_.document.project();
    const RigMove* m = desk_->current();
    for (const Axis& axis : project.axes) {
        if (axis.role != Role::Turntable) continue;
        for (std::size_t i = 0; i < m->targets.size(); ++i) {
            const AimTarget& t = m->targets[i];
            QAction* rides = menu.addAction(
                tr("%1 rides on %2").arg(QString::fromStdString(t.name), QString::fromStdString(axis.name)),
                this, [this, i, id = axis.id] {
                    change(tr("Ride on a turntable"),
                           [&](Project& p, int move) { rideOn(p, move, static_cast<int>(i), id); });
                    desk_->setPose(-1);
                });
            rides->setCheckable(true);
            rides->setChecked(t.rides == axis.id);
        }
    }
}

} // namespace gantry::app
