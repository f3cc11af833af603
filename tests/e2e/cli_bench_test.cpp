// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/evidence/fingerprint.h"
#include "core/rigs/rigs.h"
#include "io/project/project_file.h"
#include "support/files.h"
#include "support/formula.h"
#include "support/near.h"

#include <QRegularExpression>
#include <QStringList>
#include <QTemporaryDir>
#include <QTest>
#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>
#include <numbers>
#include <sstream>

using namespace gantry;

/// The tools of the window on the command line: their tables against numbers found otherwise, and their exit
/// codes.
class CliBenchTest : public QObject {
    Q_OBJECT
    struct Result {
        int code;
        QString out, err;
        QStringList row(int line) const { return out.split('\n').value(line).split('\t'); }
    };
    static Result run(const std::vector<std::string>& arguments) {
        std::ostringstream out, err;
        const int code = cli::run(arguments, out, err);
        return {code, QString::fromStdString(out.str()), QString::fromStdString(err.str())};
    }
    /// The number that a cell begins with.
    static double number(const QString& cell) {
        static const QRegularExpression start("^-?[0-9.]+");
        return start.match(cell).captured().toDouble();
    }
    std::string kept(const Project& p, const QString& name = "x") {
        const std::string path = folder_.filePath(name + ".gantry").toStdString();
        std::ofstream(path) << io::writeProject(p);
        return path;
    }
    QTemporaryDir folder_;
    const std::string demo_ = rigPath();

private slots:
    /// 200 steps of 1/16 on 20 teeth of 2 mm are 80 a millimetre; 160 are not.
    void claimsAreHeldAgainstTheParts() {
        const Result right = run({"claims", demo_, "--axis", "slide", "--told", "steps/mm = 80"});
        QCOMPARE(right.code, 0);
        QCOMPARE(right.row(0).value(0), QString("plausible"));
        const Result wrong = run({"claims", demo_, "--axis", "slide", "--told", "steps/mm = 160"});
        QCOMPARE(wrong.code, 1);
        QCOMPARE(wrong.row(0).mid(0, 3), (QStringList{"look again", "Slide", "steps/mm = 160"}));
        QVERIFY(wrong.out.contains("right with\t1/32 microsteps instead of 1/16"));
        QVERIFY(run({"claims", demo_, "--axis", "slide", "--told", "81"}).out.startsWith("not understood\t"));
        // What the project itself was told counts, of every axis.
        Project p = demoProject();
        p.axes[1].told = {"speed = 1000000 °/s"};
        const Result told = run({"claims", kept(p)});
        QCOMPARE(told.code, 1);
        QCOMPARE(told.row(0).value(1), QString::fromStdString(p.axes[1].name));
        const Result nothing = run({"claims", demo_});
        QCOMPARE(nothing.code, 0);
        QVERIFY(nothing.err.contains("Nothing was told"));
        QCOMPARE(run({"claims", demo_, "--told", "x = 1 mm"}).code, 2); // of which axis?
        QCOMPARE(run({"claims", demo_, "--axis", "nowhere"}).code, 2);
    }
    /// What is printed gives the figure that evaluate prints, read by a reader of its own.
    void explainedFigures() {
        const Result all = run({"explain", demo_});
        QCOMPARE(all.code, 0);
        QVERIFY(all.out.count('\n') > 200);
        using nlohmann::json;
        const json evaluated = json::parse(run({"evaluate", demo_, "--json"}).out.toStdString());
        const json& shot = evaluated["axes"][0]["shots"][0];
        const std::string place = "axes/slide/shots/" + shot["id"].get<std::string>() + "/";
        for (const char* key : {"torque_needed_Nm", "torque_margin", "jitter_px", "framing_px", "lag_px"}) {
            QVERIFY2(all.out.contains(QString::fromStdString(place + key) + "\t"), key);
            const Result r = run({"explain", demo_, place + key, "--json"});
            QCOMPARE(r.code, 0);
            const json w = json::parse(r.out.toStdString());
            std::map<std::string, double> values;
            for (const json& q : w["quantities"]) {
                const double value = q["value"];
                if (q.contains("formula"))
                    QVERIFY(std::abs(Formula(q["formula"], values).value() - value) <=
                            1e-9 * std::abs(value));
                else
                    QVERIFY(q.contains("input") ? q.contains("known") : q.contains("from"));
                values[q["symbol"]] = value;
            }
            const double figure = shot[key];
            QVERIFY(std::abs(w["value"].get<double>() - figure) <= 1e-9 * figure);
            QVERIFY(!w["moved_by"].empty());
            const Result text = run({"explain", demo_, place + key});
            QVERIFY(text.out.contains("Put in:") && text.out.contains("moves it most"));
        }
    }
    void whatCannotBeExplained() {
        const Result none = run({"explain", demo_, "axes/slide/nothing"});
        QCOMPARE(none.code, 2);
        QVERIFY(none.err.contains("axes/slide/nothing"));
        QCOMPARE(run({"explain", demo_, "axes/slide/usable_travel_m"}).code, 1);
        const Result knob = run({"explain", demo_, "axes/slide/shots/reveal/speed_setting"});
        QCOMPARE(knob.code, 1);
        QVERIFY(knob.err.contains("has no number"));
        QCOMPARE(run({"explain", demo_, "--json"}).code, 2);
    }
    /// Steps a millimetre are those of a turn over the cord that a turn winds, on the middle of the cord.
    void winchLayerByLayer() {
        Project p = rigs::make(rigs::RigKind::WinchedCart);
        auto& winch = std::get<WinchOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        winch.drumDiameter = assumed(0.03);
        winch.cordDiameter = assumed(0.002);
        winch.drumWidth = 0.05;
        const Result r = run({"winch", kept(p)});
        QCOMPARE(r.code, 0);
        const double perTurn = 200.0 * 16.0 * 3.0; // 30:90
        VERIFY_NEAR(number(r.row(1).value(3)), perTurn / (std::numbers::pi * 32.0), 1e-4);
        int layers = 0;
        for (int line = 1; line < r.out.count('\n'); ++line) {
            const int layer = r.row(line).value(1).toInt();
            QVERIFY(layer == layers || layer == layers + 1);
            layers = layer;
        }
        QVERIFY(layers >= 2);
        QVERIFY(number(r.row(2 * layers).value(3)) < number(r.row(1).value(3)));
        QVERIFY(number(r.row(2 * layers).value(2)) > number(r.row(1).value(2)));
        QCOMPARE(run({"winch", demo_}).code, 2);
        QVERIFY(run({"winch", demo_, "--axis", "pan"}).err.contains("is no winch"));
    }
    /// An arm of length L on a bar at an angle a turns by asin(x sin a / L) at x from the middle.
    void panBarByItsTriangle() {
        Project p = demoProject();
        const double half = usableTravel(p.axes[0]) / 2.0;
        const Result r = run({"pan-bar", demo_, "--turn", "20"});
        QCOMPARE(r.code, 0);
        const double angle = number(r.row(1).value(0)) * std::numbers::pi / 180.0;
        VERIFY_NEAR(2.0 * std::asin(half * std::sin(angle) / 0.3) * 180.0 / std::numbers::pi, 20.0, 1e-3);
        std::get<LinearMechanism>(p.axes[0].mechanism).panBar.armLength = 0.01;
        std::get<LinearMechanism>(p.axes[0].mechanism).panBar.offset = 0.2;
        const Result none = run({"pan-bar", kept(p), "--turn", "20"});
        QCOMPARE(none.code, 1);
        QVERIFY(none.err.contains("arm of 10 mm"));
        QCOMPARE(run({"pan-bar", demo_, "--turn", "wide"}).code, 2);
        QCOMPARE(run({"pan-bar", demo_}).code, 2);
        QCOMPARE(run({"pan-bar", demo_, "--turn", "20", "--axis", "pan"}).code, 2);
    }
    /// A box tube on edge and flat sag as their second moments of area have it, by hand.
    void sectionsSagAsTheirMoments() {
        const Result r = run({"sections", demo_});
        QCOMPARE(r.code, 0);
        double edge = 0.0, flat = 0.0;
        for (int line = 1; line < r.out.count('\n'); ++line) {
            if (r.row(line).value(0) == "box tube 40 mm × 60 mm, wall 2 mm, on edge")
                edge = number(r.row(line).value(1));
            if (r.row(line).value(0) == "box tube 40 mm × 60 mm, wall 2 mm, flat")
                flat = number(r.row(line).value(1));
        }
        const auto moment = [](double b, double h) {
            return (b * h * h * h - (b - 4) * std::pow(h - 4, 3)) / 12.0;
        };
        QVERIFY(edge > 0.0);
        VERIFY_NEAR(flat / edge, moment(40, 60) / moment(60, 40), 5e-3); // three digits are printed
        QCOMPARE(r.row(1).value(0), QString("slotted profile 40 mm × 40 mm"));
        QCOMPARE(run({"sections", demo_, "--axis", "pan"}).code, 2);
        QCOMPARE(run({"sections", demo_, "--shelf", "/nowhere"}).code, 2);
    }
    void completenessSaysWhatIsMissing() {
        const Result r = run({"completeness", demo_});
        QCOMPARE(r.code, 1);
        QVERIFY(r.out.contains("missing\tEnd switches\t"));
        QVERIFY(r.out.contains("not needed\tSlip ring\t"));
        Project p = demoProject();
        p.equipment = {true, true, true, true, true, true, true, true, true};
        const Result all = run({"completeness", kept(p)});
        QVERIFY2(!all.out.contains("missing"), qPrintable(all.out));
        QCOMPARE(all.code, 0);
    }
    /// A test holds until what it hangs on changes.
    void staleTests() {
        QCOMPARE(run({"stale", demo_}).code, 0);
        QVERIFY(run({"stale", demo_}).err.contains("No test"));
        Project p = demoProject();
        const std::string path = "axes/slide/mechanism/running_friction_N";
        p.tests.push_back({"pull", "2026-05-14", path, "luggage scale", 2.5, evidence::fingerprint(p, path)});
        const Result fresh = run({"stale", kept(p)});
        QCOMPARE(fresh.code, 0);
        QCOMPARE(fresh.row(0),
                 (QStringList{"holds", "2026-05-14", "Running friction", "2.5 N", "", "luggage scale"}));
        std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value += 1.0;
        const Result old = run({"stale", kept(p)});
        QCOMPARE(old.code, 1);
        QCOMPARE(old.row(0).value(0), QString("stale"));
        QVERIFY2(old.row(0).value(4).startsWith("changed: mass"), qPrintable(old.out));
    }
};

QTEST_APPLESS_MAIN(CliBenchTest)
#include "cli_bench_test.moc"
