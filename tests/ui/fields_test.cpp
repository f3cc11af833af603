// SPDX-License-Identifier: GPL-3.0-or-later
// The fields that stations show against the description of a project: none is shown that the project does not
// have, and none is had that nobody can reach.
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/rigs/rigs.h"
#include "io/project/project_file.h"
#include "support/window.h"

#include <QComboBox>
#include <QTabBar>
#include <set>

using namespace gantry;
using namespace gantry::app;

class FieldsTest : public QObject {
    Q_OBJECT
    TestHome home_;
    std::set<std::string> shown_, had_, seen_;

    /// A path with ids taken out: "axes/*/motor/name".
    static std::string shape(const std::string& path) {
        static const std::set<std::string> lists{"axes",    "links",    "items", "shots",     "moves",
                                                 "payload", "keep_out", "discs", "profiles",  "candidates",
                                                 "marks",   "tests",    "later", "set_aside", "rooms",
                                                 "springs", "speeds",   "times", "plans"};
        std::string out;
        bool id = false;
        for (const QString& part : QString::fromStdString(path).split('/')) {
            const std::string s = part.toStdString();
            if (!out.empty()) out += '/';
            out += id ? "*" : s;
            id = !id && lists.contains(s);
        }
        return out;
    }
    void look(const WindowDriver& d) {
        QCoreApplication::processEvents();
        for (const FieldEditor* e : d.window->findChildren<FieldEditor*>()) {
            if (!e->isVisibleTo(d.window.get())) continue;
            const std::string path = e->path().toStdString();
            QVERIFY2(findField(const_cast<Project&>(d.project()), path).has_value(), path.c_str());
            shown_.insert(shape(path));
        }
    }
    void lookAtPages(const WindowDriver& d, const char* name) {
        auto* pages = d.find<QTabBar>(name);
        look(d);
        for (int i = 0; pages != nullptr && i < pages->count(); ++i) {
            pages->setCurrentIndex(i);
            look(d);
        }
    }
    /// At one axis, or at all of them.
    void lookEverywhere(const WindowDriver& d, int only) {
        for (const FieldRef& f : allFields(const_cast<Project&>(d.project()))) had_.insert(shape(f.path));
        for (const QString& station : d.window->stationIds())
            for (int axis = 0; axis < static_cast<int>(d.project().axes.size()); ++axis) {
                if (only >= 0 && axis != only) continue;
                d.window->session().setAxis(axis);
                d.window->showStation(station);
                d.unfold();
                look(d);
                if (station == QLatin1String("drives"))
                    for (int c = 0; c < 12; ++c) {
                        d.window->session().setChainColumn(c);
                        lookAtPages(d, "partPages");
                    }
                if (auto* part = d.find<QComboBox>("structurePart"))
                    for (int i = 0; i < part->count(); ++i) {
                        part->setCurrentIndex(i);
                        emit part->activated(i);
                        lookAtPages(d, "structurePages");
                    }
                if (auto* table = d.find<QAbstractItemView>("shotTable"))
                    for (int row = 0; row < table->model()->rowCount(); ++row) {
                        table->setCurrentIndex(table->model()->index(row, 0));
                        look(d);
                    }
            }
    }

private slots:
    void everyFieldIsThereAndReached() {
        std::vector<Project> rigs;
        for (const rigs::RigInfo& info : rigs::all()) rigs.push_back(rigs::make(info.kind));
        // Every kind of motor, link and output once.
        for (std::size_t kind = 0; kind < kindsOf<Motor>().size(); ++kind) {
            Project p = rigs::make(rigs::RigKind::BeltSlider);
            p.axes[0].motor = makeKind<Motor>(kind);
            rigs.push_back(p);
        }
        for (std::size_t kind = 0; kind < kindsOf<Link>().size(); ++kind) {
            Project p = rigs::make(rigs::RigKind::BeltSlider);
            Link link = makeKind<Link>(kind);
            linkId(link) = "one";
            p.axes[0].links = {link};
            rigs.push_back(p);
        }
        for (std::size_t kind = 0; kind < kindsOf<LinearOutput>().size(); ++kind) {
            Project p = rigs::make(rigs::RigKind::BeltSlider);
            std::get<LinearMechanism>(p.axes[0].mechanism).output = makeKind<LinearOutput>(kind);
            rigs.push_back(p);
        }
        for (std::size_t kind = 0; kind < kindsOf<RotaryOutput>().size(); ++kind) {
            Project p = rigs::make(rigs::RigKind::SubjectTurntable);
            std::get<RotaryMechanism>(p.axes[0].mechanism).output = makeKind<RotaryOutput>(kind);
            rigs.push_back(p);
        }
        // Movements of turning axes that begin at a place of their own.
        Project placed = rigs::make(rigs::RigKind::PanTiltHead);
        for (Shot& s : placed.shots)
            for (ShotMove& m : s.moves) std::visit([](auto& x) { x.placed = true; }, m.movement);
        rigs.push_back(placed);
        Project rolled = rigs::make(rigs::RigKind::PanTiltHead);
        rolled.axes.push_back(rolled.axes.back());
        rolled.axes.back().id = "roll";
        rolled.axes.back().role = Role::Roll;
        rigs.push_back(rolled);
        WindowDriver d(false);
        const auto lookAt = [&](const Project& p, int axis) {
            d.window->document().change(QStringLiteral("another rig"), [&](Project& now) { now = p; });
            lookEverywhere(d, axis);
        };
        for (const Project& p : rigs) lookAt(p, -1);
        for (const char* demo : {"fernhouse-dolly", "kettle-jib", "moss-orbit"})
            lookAt(demoProject(demo), -1);
        // Each choice and each flag the other way, since pages follow them.
        Project clamped = rigs::make(rigs::RigKind::BeltSlider);
        std::get<LinearMechanism>(clamped.axes[0].mechanism).rail.clampBolts = 2;
        Project geared = clamped;
        geared.axes[0].motor = GearedDc{};
        for (Project p : {clamped, geared, rigs::make(rigs::RigKind::JibCrane), demoProject(),
                          demoProject("kettle-jib"), demoProject("moss-orbit")}) {
            for (const FieldRef& f : allFields(p)) {
                if (f.path.starts_with("plans/")) continue; // its pages are turned elsewhere
                int axis = 0;
                for (std::size_t a = 0; a < p.axes.size(); ++a)
                    if (f.path.starts_with("axes/" + p.axes[a].id + "/")) axis = static_cast<int>(a);
                if (auto* const* flag = std::get_if<bool*>(&f.target);
                    flag != nullptr && seen_.insert(shape(f.path)).second) {
                    **flag = !**flag;
                    lookAt(p, axis);
                    **flag = !**flag;
                }
                const auto* c = std::get_if<ChoiceRef>(&f.target);
                if (c == nullptr || !seen_.insert(shape(f.path)).second) continue;
                for (int i = 0; i < static_cast<int>(c->labels.size()); ++i) {
                    c->assign(c->target, i);
                    lookAt(p, axis);
                }
                c->assign(c->target, c->index);
            }
            if (QTest::currentTestFailed()) return;
        }
        // Not fields of a page: ids, which axis a movement is of, and what has dialogs of its own (drives
        // side by side, the counterweight chart).
        const auto elsewhere = [](const std::string& path) {
            // What a pose says is shown when its flag is pressed: moves_station_test.
            // On what a target rides is chosen under "Aim at", and only then its fields are there:
            // moves_tools_test.
            const bool riding =
                path.ends_with("/rides_on") || path.ends_with("/about_x_m") || path.ends_with("/about_y_m");
            // The pages of a plan are turned in intervals_station_test.
            return riding || path.starts_with("plans/") || path.starts_with("moves/*/poses/") ||
                   path.ends_with("/id") || path.ends_with("/moves/*/axis") || path.starts_with("kits/") ||
                   path == "axes/*/candidate" || path == "axes/*/fitted_today";
        };
        QVERIFY(had_.size() > 300);
        std::string missing;
        for (const std::string& path : had_)
            if (!shown_.contains(path) && !elsewhere(path)) missing += path + ' ';
        QVERIFY2(missing.empty(), ("no station shows " + missing).c_str());
    }
};

QTEST_MAIN(FieldsTest)
#include "fields_test.moc"
