// SPDX-License-Identifier: GPL-3.0-or-later
// Rigs that are changed in a way whose outcome is known, evaluated by the command line before and after.
#include "cli/commands.h"
#include "core/evaluate/evaluate.h"
#include "io/project/project_file.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTemporaryDir>
#include <QTest>
#include <cmath>
#include <fstream>
#include <functional>
#include <map>
#include <nlohmann/json.hpp>
#include <sstream>

using namespace gantry;
using nlohmann::json;

namespace {

using Numbers = std::map<std::string, double>;

void flatten(const json& j, const std::string& path, Numbers& out) {
    if (j.is_object()) {
        for (const auto& [key, value] : j.items()) flatten(value, path + "/" + key, out);
    } else if (j.is_array()) {
        for (std::size_t i = 0; i < j.size(); ++i) flatten(j[i], path + "/" + std::to_string(i), out);
    } else if (j.is_number()) {
        out[path] = j.get<double>();
    }
}
Numbers numbersOf(const json& j) {
    Numbers out;
    flatten(j, {}, out);
    return out;
}

const json& byId(const json& list, const std::string& id) {
    for (const json& j : list)
        if (j["id"] == id) return j;
    throw std::runtime_error("no " + id);
}

/// The rig as an engineer would sketch it first: one belt, one carriage, one shot, nothing of its own.
Project plain() {
    Project p = hand::slider();
    auto& m = hand::rail(p);
    m.items.clear();
    m.cableDrag.value = m.disturbance.value = m.windArea = 0.0;
    p.axes[0].carriesPayload = false;
    p.payload.clear();
    p.shots.resize(1);
    p.shots[0].kind = ShotKind::Live;
    p.shots[0].keepFramed = false;
    p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 0.5}}};
    return p;
}

} // namespace

class MetamorphicTest : public QObject {
    Q_OBJECT
    QTemporaryDir folder_;

    /// What the command line prints about a project.
    json evaluated(const Project& p, const std::vector<std::string>& options = {}) {
        const std::string path = folder_.filePath("rig.gantry").toStdString();
        std::ofstream(path) << io::writeProject(p);
        std::vector<std::string> call{"evaluate", "--json", path};
        call.insert(call.end(), options.begin(), options.end());
        std::ostringstream out, err;
        cli::run(call, out, err);
        return json::parse(out.str());
    }
    /// Paths of numbers that differ by more than a share, those with one of the words left aside.
    static QStringList differing(const Numbers& a, const Numbers& b, double share,
                                 const std::vector<std::string>& aside = {}) {
        QStringList out;
        for (const auto& [path, value] : a) {
            if (std::any_of(aside.begin(), aside.end(),
                            [&](const std::string& w) { return path.find(w) != std::string::npos; }))
                continue;
            const auto it = b.find(path);
            if (it == b.end())
                out << QString::fromStdString(path) + " is gone";
            else if (std::abs(it->second - value) > share * std::abs(value) + 1e-12)
                out << QString::fromStdString(path) + QStringLiteral(": %1 to %2").arg(value).arg(it->second);
        }
        return out;
    }

private slots:
    /// Twice the mass on a level rail takes twice the force beyond friction, holds twice the energy, and
    /// weighs as much more.
    void twiceTheMass() {
        Project p = plain();
        const json once = evaluated(p);
        const double mass = hand::rail(p).movingMass.value, friction = hand::rail(p).runningFriction.value;
        hand::rail(p).movingMass.value *= 2.0;
        const json twice = evaluated(p);
        const json &a = once["axes"][0], &b = twice["axes"][0], &s = a["shots"][0], &t = b["shots"][0];
        VERIFY_NEAR(t["force_needed_N"].get<double>() - friction,
                    2 * (s["force_needed_N"].get<double>() - friction), 1e-9);
        VERIFY_NEAR(b["load_inertia_kgm2"].get<double>() - a["load_inertia_kgm2"].get<double>(),
                    mass * std::pow(a["travel_per_motor_rev_m"].get<double>() / (2 * M_PI), 2), 1e-9);
        VERIFY_NEAR(t["kinetic_energy_J"].get<double>() - s["kinetic_energy_J"].get<double>(),
                    0.5 * mass * 0.04, 1e-9);
        VERIFY_NEAR(twice["rig"]["mass_kg"].get<double>() - once["rig"]["mass_kg"].get<double>(), mass, 1e-9);
        for (const char* same :
             {"time_s", "top_speed_m_s", "pulse_rate_hz", "torque_available_Nm", "blur_px"})
            QVERIFY2(t[same] == s[same], same);
    }
    /// Uphill to the right is uphill to the left, driven the other way.
    void mirroredSlope() {
        Project p = plain();
        hand::rail(p).slope.value = 0.3;
        const Numbers up = numbersOf(evaluated(p)["axes"][0]["shots"]);
        hand::rail(p).slope.value = -0.3;
        std::get<BySpeed<AxisKind::Linear>>(p.shots[0].moves[0].movement).distance *= -1.0;
        const QStringList off = differing(up, numbersOf(evaluated(p)["axes"][0]["shots"]), 1e-9);
        QVERIFY2(off.isEmpty(), qPrintable(off.join("\n")));
        // And it is not the level rail.
        hand::rail(p).slope.value = 0.0;
        QVERIFY(!differing(up, numbersOf(evaluated(p)["axes"][0]["shots"]), 1e-9).isEmpty());
    }
    /// Shots in another order, and axes that do not stand on each other.
    void orderDoesNotMatter() {
        Project p = demoProject();
        const json before = evaluated(p);
        Project turned = p;
        std::reverse(turned.shots.begin(), turned.shots.end());
        const json after = evaluated(turned);
        for (const json& axis : before["axes"]) {
            const json& other = byId(after["axes"], axis["id"]);
            for (const json& shot : axis["shots"]) {
                const QStringList off =
                    differing(numbersOf(shot), numbersOf(byId(other["shots"], shot["id"])), 1e-9);
                QVERIFY2(off.isEmpty(), qPrintable(off.join("\n")));
            }
        }
        const QStringList rig = differing(numbersOf(before["rig"]), numbersOf(after["rig"]), 1e-9);
        QVERIFY2(rig.isEmpty(), qPrintable(rig.join("\n")));
        // A table beside a slider.
        Project both = plain();
        Project table = bareRig(rigs::RigKind::SubjectTurntable);
        both.axes.push_back(table.axes[0]);
        both.axes.back().id = "table";
        both.shots[0].moves.push_back({"table", BySpeed<AxisKind::Rotary>{1.0, 0.5, 1.0}});
        const json one = evaluated(both);
        std::swap(both.axes[0], both.axes[1]);
        const json two = evaluated(both);
        for (const json& axis : one["axes"]) {
            const QStringList off =
                differing(numbersOf(axis), numbersOf(byId(two["axes"], axis["id"])), 1e-9);
            QVERIFY2(off.isEmpty(), qPrintable(off.join("\n")));
        }
    }
    /// The same gears, larger: as many teeth again, half as large.
    void bothGearsScaled() {
        Project p = plain();
        GearStage gear;
        gear.id = "gear";
        gear.motorTeeth = 20;
        gear.loadTeeth = 60;
        gear.module = 0.001;
        p.axes[0].links = {gear};
        const json small = evaluated(p);
        auto& g = std::get<GearStage>(p.axes[0].links[0]);
        g.motorTeeth = 40;
        g.loadTeeth = 120;
        g.module = 0.0005;
        const json large = evaluated(p);
        const QStringList off = differing(numbersOf(small["axes"][0]), numbersOf(large["axes"][0]), 1e-9,
                                          {"/checks/", "/verdicts", "/chain/", "/limits/"});
        QVERIFY2(off.isEmpty(), qPrintable(off.join("\n")));
    }
    /// What margin is wanted changes what is recommended, never what there is.
    void wantedMarginChangesNoPhysics() {
        for (const char* demo : {"fernhouse-dolly", "kettle-jib", "moss-orbit"}) {
            Project p = demoProject(demo);
            const Numbers two = numbersOf(evaluated(p));
            for (Axis& a : p.axes) a.wantedMargin = 3.0;
            const QStringList off =
                differing(two, numbersOf(evaluated(p)), 1e-9,
                          {"max_acceleration", "torque_limit_speed", "max_speed", "least_current", "/limits/",
                           "/capability/", "/verdicts/", "/ranges", "/chain/0/"});
            QVERIFY2(off.isEmpty(), qPrintable(off.join("\n")));
        }
    }
    /// Nobody measures where an item sits to a fifth of a millimetre: a hundredth is what it may change, or
    /// twice the share that it is of the lever of all that an axis carries.
    void itemsAFifthOfAMillimetreOff() {
        constexpr double off = 2e-4;
        int moves = 0;
        std::vector<Project> rigs{demoProject(), demoProject("kettle-jib"), demoProject("moss-orbit")};
        for (const rigs::RigInfo& info : rigs::all()) rigs.push_back(bareRig(info.kind));
        for (const Project& p : rigs) {
            const json before = evaluated(p)["axes"];
            const Evaluation now = evaluate(p);
            QStringList all;
            const auto moved = [&](const std::function<void(Project&)>& move) {
                ++moves;
                Project q = p;
                move(q);
                const json after = evaluated(q)["axes"];
                for (std::size_t a = 0; a < p.axes.size(); ++a) {
                    const double lever = now.axes[a].model.carriedReach,
                                 share = lever > 0.0 ? std::max(0.01, 2.0 * off / lever) : 0.01;
                    // A drift is what weights in balance differ by from one moment to the next.
                    all += differing(numbersOf(before[a]), numbersOf(after[a]), share,
                                     {"/ranges", "/limits/", "drift_px_per_frame"});
                }
            };
            for (std::size_t a = 0; a < p.axes.size(); ++a) {
                const std::size_t items =
                    std::visit([](const auto& m) { return m.items.size(); }, p.axes[a].mechanism);
                for (std::size_t i = 0; i < items; ++i)
                    for (const bool along : {true, false})
                        moved([&](Project& q) {
                            std::visit([&](auto& m) { (along ? m.items[i].along : m.items[i].above) += off; },
                                       q.axes[a].mechanism);
                        });
            }
            for (std::size_t i = 0; i < p.payload.size(); ++i)
                moved([&](Project& q) { q.payload[i].along += off; });
            all.removeDuplicates();
            QVERIFY2(all.isEmpty(), qPrintable(QString::fromStdString(p.name) + "\n" + all.join("\n")));
        }
        QVERIFY(moves > 20);
    }
};

QTEST_APPLESS_MAIN(MetamorphicTest)
#include "metamorphic_test.moc"
