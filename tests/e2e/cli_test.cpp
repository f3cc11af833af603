// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/units/plain_text.h"
#include "io/project/project_file.h"
#include "support/files.h"
#include "support/near.h"

#include <nlohmann/json.hpp>

#include <QDirIterator>
#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <csignal>
#include <fstream>
#include <sstream>

class CliTest : public QObject {
    Q_OBJECT
    struct Result {
        int code;
        std::string out, err;
    };
    static Result run(const std::vector<std::string>& arguments) {
        std::ostringstream out, err;
        const int code = gantry::cli::run(arguments, out, err);
        return {code, out.str(), err.str()};
    }
    const std::string demo_ = rigPath();
private slots:
    /// The worked slider's limits: 40 kHz at 80 steps/mm.
    void printsLimits() {
        const Result r = run({"evaluate", rigPath(), "--json"});
        const auto limits = nlohmann::json::parse(r.out)["axes"][0]["limits"];
        double pulses = 0;
        for (const auto& l : limits["speed_m_s"])
            if (l["reason"] == "pulse rate") pulses = l["value"];
        QVERIFY(std::abs(pulses - 0.5) < 1e-9);
        QVERIFY(limits["recommended"]["speed_m_s"].get<double>() <=
                limits["largest"]["speed_m_s"].get<double>());
        QCOMPARE(limits["ramps"].size(), std::size_t(5));
        QVERIFY(limits["rocking_measured"].get<bool>());
    }
    void simulatesShots() {
        const std::string demo = rigPath();
        const Result r = run({"simulate", demo, "--axis", "slide", "--json"});
        QCOMPARE(r.code, 0);
        const auto j = nlohmann::json::parse(r.out);
        QCOMPARE(j.size(), std::size_t(3));
        for (const auto& shot : j) {
            QCOMPARE(shot["axis"].get<std::string>(), std::string("slide"));
            QCOMPARE(shot["lost_full_steps"].get<int>(), 0);
            QVERIFY(std::abs(shot["energy_imbalance"].get<double>()) < 5e-4);
        }
        QVERIFY(run({"simulate", demo, "--shot", "creep"}).out.find("keeps in step") != std::string::npos);
        QCOMPARE(run({"simulate", demo, "--axis", "nowhere"}).code, 2);
        QCOMPARE(run({"simulate", demo, "--shot", "nothing"}).code, 2);
    }
    /// Sampling on the command line: shares within 0 … 1, the same for the same seed, and a rig with an exact
    /// motor is surer than one with a guessed one.
    void tellsConfidence() {
        const Result r = run({"confidence", demo_, "--axis", "slide", "--samples", "2000", "--json"});
        QCOMPARE(r.code, 0);
        const auto j = nlohmann::json::parse(r.out);
        QCOMPARE(j.size(), std::size_t(1));
        QCOMPARE(j[0]["samples"].get<int>(), 2000);
        double sum = 0;
        for (const auto& m : j[0]["matters"]) sum += m["share"].get<double>();
        QVERIFY(std::abs(sum - 1.0) < 1e-9);
        QCOMPARE(run({"confidence", demo_, "--axis", "slide", "--samples", "2000", "--json"}).out, r.out);
        QVERIFY(run({"confidence", demo_, "--samples", "200"}).out.find("lack torque") != std::string::npos);
        for (const char* wrong : {"12", "many", "1e5", "99999999"}) {
            const Result w = run({"confidence", demo_, "--samples", wrong});
            QCOMPARE(w.code, 2);
            QVERIFY(w.err.find(wrong) != std::string::npos);
        }
        QCOMPARE(run({"confidence", demo_, "--axis", "nowhere"}).code, 2);
    }
    /// Whatever ends with another code than 0 says why, in a sentence that a terminal can take.
    void everyFailureHasASentence() {
        const QTemporaryDir dir;
        const auto file = [&](const char* name, const std::string& text) {
            const std::string path = dir.filePath(name).toStdString();
            std::ofstream(path) << text;
            return path;
        };
        const std::string broken = file("broken.gantry", "{"), bad = file("bad.mustache", "{{#a}}"),
                          missing = file("missing.mustache", "{{nothing}}"),
                          jib = dataPath("demo/kettle-jib.gantry");
        const std::vector<std::vector<std::string>> calls{
            {},
            {"--nothing"},
            {"evaluate"},
            {"evaluate", "nowhere.gantry"},
            {"evaluate", broken},
            {"evaluate", "/dev/zero"},
            {"evaluate", dir.path().toStdString()},
            {"fly", demo_},
            {"export", demo_},
            {"export", demo_, "--as", "poem"},
            {"export", demo_, "--as", "settings", "--format", "pdf"},
            {"export", demo_, "--as", "settings", "--template", bad},
            {"export", demo_, "--as", "settings", "--template", missing},
            {"export", demo_, "--as"},
            {"export", demo_, "--as", "settings", "--template", "/dev/full"},
            {"simulate", demo_, "--axis", "x\x1b[2Jy"},
            {"confidence", demo_, "--samples", "7"},
            {"stall-ladder", demo_},
            {"stall-ladder", demo_, "--axis", "slide", "--outcomes", "xyz"},
            {"stall-ladder", demo_, "--axis", "slide", "--outcomes", "lp", "--json"},
            {"find-ratio", "x"},
            {"find-ratio", "3", "--stages", "9"},
            {"find-ratio", "3", "--from", "nowhere.csv"},
            {"find-ratio", "3", "--from", file("empty.csv", "family\n")},
            {"rig", "rocket"},
            {"verdicts", jib}};
        for (const auto& call : calls) {
            const Result r = run(call);
            QStringList words;
            for (const std::string& w : call) words << QString::fromStdString(w);
            const QByteArray what = words.join(' ').toUtf8();
            QVERIFY2(r.code != 0, what);
            QVERIFY2(r.err.size() > 15 && r.err.find('.') != std::string::npos, what);
            QVERIFY2(gantry::units::isPlainText(r.err) && gantry::units::isPlainText(r.out), what);
        }
    }
    static QStringList commands() {
        return {"evaluate",   "verdicts",     "audit",      "check",   "export",    "simulate",
                "confidence", "stall-ladder", "find-ratio", "claims",  "winch",     "pan-bar",
                "sections",   "completeness", "stale",      "explain", "move",      "intervals",
                "rig",        "schema",       "results",    "texts",   "completion"};
    }
    void helpAndVersionAreNoFailures() {
        const Result all = run({"--help"});
        QCOMPARE(all.code, 0);
        QVERIFY(all.err.empty());
        const QString docs = QString::fromStdString(textOfFile(sourcePath("docs/command-line.md")));
        for (const QString& command : commands()) {
            QVERIFY2(all.out.find("\n  " + command.toStdString() + " ") != std::string::npos,
                     qPrintable(command));
            const Result one = run({command.toStdString(), "--help"});
            QCOMPARE(one.code, 0);
            QVERIFY2(one.out.find("calm-gantry-cli " + command.toStdString()) != std::string::npos,
                     qPrintable(command));
            QVERIFY2(docs.contains("calm-gantry-cli " + command),
                     qPrintable(command)); // the docs tell of each
        }
        const Result version = run({"--version"});
        QCOMPARE(version.code, 0);
        QVERIFY(QRegularExpression("^[0-9]+\\.[0-9]+\\.[0-9]+\n$")
                    .match(QString::fromStdString(version.out))
                    .hasMatch());
    }
    /// The page of all keys is what the command prints, and every key of an evaluation stands on it.
    void resultsAreListed() {
        const std::string printed = run({"results"}).out;
        const std::string page = textOfFile(sourcePath("docs/results.md"));
        QVERIFY2(page.ends_with("\n\n" + printed),
                 "docs/results.md is old: append what `calm-gantry-cli results` prints");
        const auto j = nlohmann::json::parse(run({"evaluate", rigPath(), "--json"}).out);
        for (const auto& [key, value] : j.at("axes").at(0).at("shots").at(0).items())
            if (key != "id" && !key.ends_with("_why"))
                QVERIFY2(printed.find("`axes[].shots[]." + key + "`") != std::string::npos, key.c_str());
    }
    /// The catalogue of texts is what the command prints, and every text that stands in the sources of rules,
    /// fixes, fields and results is in it.
    void everyTextIsInTheCatalogue() {
        const std::string printed = run({"texts"}).out;
        QVERIFY2(textOfFile(sourcePath("docs/texts.csv")) == printed,
                 "docs/texts.csv is old: it is what `calm-gantry-cli texts` prints");
        QString said = QString::fromStdString(printed);
        said.replace("\"\"", "\"");
        const QRegularExpression message(
            "constexpr (?:words::)?Message \\w+\\{\\s*((?:\"(?:[^\"\\\\]|\\\\.)*\"\\s*)+)\\}");
        const QRegularExpression described("(?:FieldInfo\\{|textField\\(|result\\(|mark\\()\\s*\"[^\"]*\","
                                           "(?:\\s*K::\\w+,\\s*\"[^\"]*\",\\s*K::\\w+,)?\\s*\"([^\"]*)\"");
        const QRegularExpression piece("\"((?:[^\"\\\\]|\\\\.)*)\"");
        int found = 0;
        QDirIterator sources(QString::fromStdString(sourcePath("src/core")), {"*.cpp", "*.h"}, QDir::Files,
                             QDirIterator::Subdirectories);
        while (sources.hasNext()) {
            const QString file = sources.next();
            if (file.contains("/parts/")) continue; // single parts of the library, shown in its own dialog
            const QString text = QString::fromStdString(textOfFile(file.toStdString()));
            QStringList texts;
            for (auto it = message.globalMatch(text); it.hasNext();) {
                QString whole;
                for (auto part = piece.globalMatch(it.next().captured(1)); part.hasNext();)
                    whole += part.next().captured(1);
                texts << whole;
            }
            for (auto it = described.globalMatch(text); it.hasNext();) texts << it.next().captured(1);
            for (const QString& t : texts) {
                QVERIFY2(said.contains(t), qPrintable(file + ": " + t));
                ++found;
            }
        }
        QVERIFY2(found > 600, qPrintable(QString::number(found)));
    }
    void everyFigureInTheTable() {
        const std::string all = run({"evaluate", rigPath(), "--all"}).out;
        QVERIFY(all.find("slide/shots/reveal\ttorque margin\t") != std::string::npos);
        QVERIFY(all.find("supply\tvoltage that arrives at the drivers\t") != std::string::npos);
        QCOMPARE(run({"evaluate", rigPath(), "--all", "--json"}).code, 2);
    }
    /// Nothing that is typed is ignored.
    void whatIsUnknownIsNamed() {
        for (const auto& [call, named] : std::vector<std::pair<std::vector<std::string>, const char*>>{
                 {{"fly"}, "fly"},
                 {{"evaluate", demo_, "--loud"}, "--loud"},
                 {{"evaluate", demo_, "more"}, "more"},
                 {{"verdicts", demo_, "--all"}, "--all"},
                 {{"audit"}, "FILE"},
                 {{"find-ratio", "3", "--stages", "2.5"}, "2.5"},
                 {{"find-ratio", "3", "--stages", "5"}, "5"},
                 {{"find-ratio", "3", "--stages", "two"}, "two"},
                 {{"find-ratio", "3", "--most", "0"}, "--most"},
                 {{"confidence", demo_, "--samples", "1e3"}, "1e3"},
                 {{"export", demo_, "--as", "poem"}, "poem"},
                 {{"export", demo_, "--as", "settings", "--format", "pdf"}, "pdf"},
                 {{"export", demo_, "--as", "settings", "--allow-missing"}, "--template"},
                 {{"simulate", demo_, "--axis"}, "--axis"},
                 {{"completion", "klingon"}, "klingon"}}) {
            const Result r = run(call);
            QCOMPARE(r.code, 2);
            QVERIFY2(r.err.find(named) != std::string::npos && r.err.find("--help") != std::string::npos,
                     r.err.c_str());
            QVERIFY(r.out.empty());
        }
    }
    /// The script in a real shell: what it offers after each beginning.
    void completionWorksInTheShell() {
        const QTemporaryDir dir;
        const std::string script = dir.filePath("completion").toStdString();
        std::ofstream(script) << run({"completion", "bash"}).out;
        const auto offered = [&](const QString& typed) {
            QStringList words = typed.split(' ');
            QProcess bash;
            bash.setWorkingDirectory(dir.path());
            const QString ask = "source ./completion; COMP_WORDS=(calm-gantry-cli \"$@\"); COMP_CWORD=$#; "
                                "_calm_gantry_cli; printf '%s\\n' \"${COMPREPLY[@]}\"";
            bash.start("bash", QStringList{"--norc", "-c", ask, "bash"} + words);
            if (!bash.waitForFinished()) return QStringList{"bash does not end"};
            QStringList out = QString::fromUtf8(bash.readAllStandardOutput()).split('\n', Qt::SkipEmptyParts);
            out.sort();
            return out;
        };
        QStringList all = commands() + QStringList{"--help", "--version"};
        all.sort();
        QCOMPARE(offered(""), all);
        QCOMPARE(offered("e"), (QStringList{"evaluate", "explain", "export"}));
        QCOMPARE(offered("find-ratio 3 --"),
                 (QStringList{"--from", "--help", "--json", "--most", "--stages"}));
        QCOMPARE(offered("export x --a"), (QStringList{"--allow-missing", "--as"}));
        QCOMPARE(offered("check comp"), QStringList{"completion"}); // the file that lies there
    }
    void namesDoNotReachTheTerminalAsCommands() {
        auto j = nlohmann::json::parse(demoText());
        j["axes"][0]["name"] = "Sl\x1b]0;title\x07ide";
        j["shots"][0]["name"] = "\xC2\x9B"
                                "2J";
        j["te\x1b[31mht"] = 1;
        const QTemporaryDir dir;
        const std::string path = dir.filePath("x.gantry").toStdString();
        std::ofstream(path) << j.dump();
        for (const std::vector<std::string>& call : std::vector<std::vector<std::string>>{
                 {"evaluate", path},
                 {"evaluate", path, "--json"},
                 {"verdicts", path},
                 {"check", path},
                 {"simulate", path},
                 {"confidence", path, "--samples", "100"},
                 {"stall-ladder", path, "--axis", "slide"},
                 {"claims", path, "--axis", "slide", "--told", "steps/mm = 1"},
                 {"sections", path},
                 {"export", path, "--as", "settings"},
                 {"export", path, "--as", "settings", "--format", "csv"}}) {
            const Result r = run(call);
            std::string shown = r.out + r.err;
            std::erase(shown, '\r'); // line ends of tables
            QVERIFY2(gantry::units::isPlainText(shown) && !shown.empty(), call[0].c_str());
        }
        QVERIFY(run({"check", path}).out.find("replaced") != std::string::npos);
    }
    /// A result that could not be written whole is no success: to a full device, and through the real
    /// program.
    void outputThatCannotBeWrittenIsAFailure() {
        const QString program = QCoreApplication::applicationDirPath() + "/calm-gantry-cli";
        for (const QStringList& call :
             {QStringList{"evaluate", "--json"}, {"export", "--as", "project"}, {"check"}}) {
            QStringList arguments = call;
            arguments.insert(1, QString::fromStdString(demo_));
            QProcess full;
            full.setStandardOutputFile("/dev/full");
            full.start(program, arguments);
            QVERIFY(full.waitForFinished());
            QCOMPARE(full.exitCode(), gantry::cli::outputFailed);
            const QByteArray said = full.readAllStandardError();
            QVERIFY2(said.contains("could not be written") && said.toLower().contains("space"), said);
            QProcess well;
            well.start(program, arguments);
            QVERIFY(well.waitForFinished());
            QCOMPARE(well.exitCode(), 0);
        }
    }
    /// Ctrl+C ends long work with a sentence.
    void longWorkCanBeStopped() {
        QProcess p;
        p.start(QCoreApplication::applicationDirPath() + "/calm-gantry-cli",
                {"confidence", QString::fromStdString(demo_), "--samples", "1000000"});
        QVERIFY(p.waitForStarted());
        // Its own answer to the signal must be there first.
        const auto listens = [&] {
            QFile status(QStringLiteral("/proc/%1/status").arg(p.processId()));
            if (!status.open(QIODevice::ReadOnly)) return false;
            for (const QByteArray& line : status.readAll().split('\n'))
                if (line.startsWith("SigCgt:"))
                    return (line.mid(7).trimmed().toULongLong(nullptr, 16) & 2u) != 0;
            return false;
        };
        QTRY_VERIFY_WITH_TIMEOUT(listens(), 20000);
        QTest::qWait(100);
        QVERIFY(::kill(static_cast<pid_t>(p.processId()), SIGINT) == 0);
        QVERIFY(p.waitForFinished(20000));
        QCOMPARE(p.exitStatus(), QProcess::NormalExit);
        QCOMPARE(p.exitCode(), 130);
        QVERIFY(p.readAllStandardError().contains("stopped"));
    }
    /// Six hours are not simulated second by second.
    void longShotsAreSimulatedWithoutTheirSteadyMiddle() {
        auto j = nlohmann::json::parse(demoText());
        for (auto& shot : j["shots"])
            for (auto& m : shot["moves"])
                if (m["axis"] == "slide")
                    m["movement"] = {{"kind", "linear_by_time"}, {"distance_m", 0.8}, {"time_s", 21600}};
        const QTemporaryDir dir;
        const std::string path = dir.filePath("long.gantry").toStdString();
        std::ofstream(path) << j.dump();
        QElapsedTimer clock;
        clock.start();
        const Result r = run({"simulate", path, "--axis", "slide", "--shot", "reveal", "--json"});
        QCOMPARE(r.code, 0);
        const auto shot = nlohmann::json::parse(r.out)[0];
        QVERIFY(std::abs(shot["skipped_s"].get<double>() - (21600 - 60)) < 1.0);
        QCOMPARE(shot["lost_full_steps"].get<int>(), 0);
        QVERIFY(clock.elapsed() < 60000);
        QVERIFY(run({"simulate", path, "--axis", "slide", "--shot", "reveal"}).out.find("left out") !=
                std::string::npos);
        // Ramps that are longer than that are refused in words.
        for (auto& shotJson : j["shots"])
            for (auto& m : shotJson["moves"])
                if (m["axis"] == "slide") m["movement"]["ease_in_s"] = m["movement"]["ease_out_s"] = 9000;
        std::ofstream(path) << j.dump();
        QVERIFY(run({"simulate", path, "--axis", "slide"}).out.find("ramps alone") != std::string::npos);
    }
    /// Passed at a foreseen margin m: the factor is at least 1/m; lost: less.
    void plansAndReadsStallLadder() {
        const Result plan = run({"stall-ladder", demo_, "--axis", "slide", "--json"});
        QCOMPARE(plan.code, 0);
        const auto rungs = nlohmann::json::parse(plan.out)["rungs"];
        QVERIFY(rungs.size() >= 4);
        const Result r = run({"stall-ladder", demo_, "--axis", "slide", "--outcomes", "ppl", "--json"});
        const auto f = nlohmann::json::parse(r.out)["torque_factor"];
        QVERIFY(std::abs(f["low"].get<double>() - 1.0 / rungs[1]["margin"].get<double>()) < 1e-12);
        QVERIFY(std::abs(f["high"].get<double>() - 1.0 / rungs[2]["margin"].get<double>()) < 1e-12);
        QCOMPARE(run({"stall-ladder", demo_, "--axis", "slide", "--outcomes", "lp"}).code, 1);
        QVERIFY(run({"stall-ladder", demo_, "--axis", "slide"}).out.find("catch strap") != std::string::npos);
        const auto code = [&](std::vector<std::string> arguments) {
            arguments.insert(arguments.begin(), {"stall-ladder", demo_});
            return run(arguments).code;
        };
        QCOMPARE(code({}), 2);
        QCOMPARE(code({"--axis", "nowhere"}), 2);
        QCOMPARE(code({"--axis", "slide", "--outcomes", "px"}), 2);
        QCOMPARE(code({"--axis", "slide", "--outcomes", std::string(99, 'p')}), 2);
    }
    void findsRatios() {
        const Result r = run({"find-ratio", "57/11", "--stages", "3", "--from", "gears-1", "--json"});
        QCOMPARE(r.code, 0);
        const auto j = nlohmann::json::parse(r.out);
        QCOMPARE(j["trains"].size(), std::size_t(20));
        double last = 0;
        for (const auto& t : j["trains"]) {
            double ratio = 1;
            for (const auto& s : t["stages"]) ratio *= s["driven"].get<double>() / s["driver"].get<double>();
            QVERIFY(std::abs(ratio - t["ratio"].get<double>()) < 1e-12);
            const double error = std::abs(ratio * 11 / 57 - 1);
            QVERIFY(error >= last - 1e-15);
            last = error;
        }
        QCOMPARE(run({"find-ratio", "nonsense"}).code, 2);
        QCOMPARE(run({"find-ratio", "3", "--stages", "9"}).code, 2);
        QCOMPARE(run({"find-ratio", "3", "--from", "/no/such/table.csv"}).code, 2);
    }
    void printsRigs() {
        QVERIFY(run({"rig"}).out.find("orbit-boom") != std::string::npos);
        const Result r = run({"rig", "winched-cart"});
        QCOMPARE(r.code, 0);
        QVERIFY(std::holds_alternative<gantry::io::LoadedProject>(gantry::io::readProject(r.out)));
        QCOMPARE(run({"rig", "flying-carpet"}).code, 2);
    }
    void evaluateJson() {
        const Result r = run({"evaluate", demo_, "--json"});
        QCOMPARE(r.code, 0);
        const auto j = nlohmann::json::parse(r.out);
        QVERIFY(j["format"] == "calm-gantry-evaluation");
        QVERIFY(j["version"] == 1);
        const auto& slide = j["axes"][0];
        QVERIFY(slide["id"] == "slide");
        QVERIFY(slide["kind"] == "linear");
        QVERIFY(slide["unit"] == "mm");
        QVERIFY(slide["steps_per_unit_exact"] == "80/1");
        QVERIFY(slide["worst_shot"] == "reveal");
        VERIFY_NEAR(slide["steps_per_unit"].get<double>(), 80.0, 1e-12);
        VERIFY_NEAR(slide["travel_per_motor_rev_m"].get<double>(), 0.04, 1e-9);
        VERIFY_NEAR(slide["inertia_at_motor_kgm2"].get<double>(), 1.72e-4, 5e-3);
        VERIFY_NEAR(slide["natural_frequency_hz"].get<double>(), 14.33, 5e-3);
        const auto& reveal = slide["shots"][0];
        const std::vector<std::pair<const char*, double>> worked{
            {"top_speed_m_s", 0.25},  {"acceleration_m_s2", 0.8},   {"motor_speed_rpm", 375},
            {"pulse_rate_hz", 20000}, {"torque_needed_Nm", 0.0988}, {"torque_available_Nm", 0.3106},
            {"torque_margin", 3.143}, {"step_px", 0.0519},          {"lag_px", 0.171}};
        for (const auto& [key, value] : worked) VERIFY_NEAR(reveal[key].get<double>(), value, 5e-3);
        for (const char* key : {"backlash_px", "stretch_px", "max_acceleration_m_s2", "time_s"})
            QVERIFY2(reveal.contains(key), key);
        QVERIFY(slide["power_off"]["falls"] == true);
        for (const char* key : {"energy_J", "speed_m_s"}) QVERIFY(slide["power_off"].contains(key));
        QVERIFY(slide.contains("max_speed_m_s"));
        const auto& pan = j["axes"][1];
        QVERIFY(pan["unit"] == "deg");
        QVERIFY(pan.contains("travel_per_motor_rev_rad") && pan["shots"][0].contains("top_speed_rad_s"));
        bool torqueSeen = false;
        for (const auto& v : j["verdicts"])
            if (v["id"] == "torque" && v["axis"] == "slide") {
                torqueSeen = true;
                QVERIFY(v["shot"] == "reveal");
                QVERIFY(v["wanted"] == 2.0);
                QVERIFY(v["state"] == "fine");
                QVERIFY(v.contains("title") && v.contains("text"));
            }
        QVERIFY(torqueSeen);
    }
    /// Every fix is a change of the file that leads to what it says.
    void fixesForOtherPrograms() {
        using nlohmann::json;
        const json j = json::parse(run({"verdicts", demo_, "--json", "--fixes"}).out);
        QVERIFY(j["format"] == "calm-gantry-verdicts");
        int setting = 0, measuring = 0;
        for (const auto& v : j["verdicts"])
            for (const auto& f : v["fixes"]) {
                if (f["kind"] == "measure") {
                    ++measuring;
                    QVERIFY(f["changes"].empty() && f["path"].is_string());
                    continue;
                }
                QVERIFY(!f["changes"].empty());
                if (f["kind"] != "setting" || v["state"] != "over") continue;
                json file = json::parse(textOfFile(demo_.c_str()));
                bool plain = true;
                for (const auto& c : f["changes"]) {
                    // Lists are found by id; a movement by its axis.
                    json* at = &file;
                    std::istringstream path(c["path"].get<std::string>());
                    for (std::string part; plain && std::getline(path, part, '/');) {
                        if (at->is_array()) {
                            json* found = nullptr;
                            for (json& e : *at)
                                if (e.value("id", e.value("axis", "")) == part) found = &e;
                            plain = found != nullptr;
                            at = found;
                        } else {
                            plain = at->contains(part);
                            if (plain) at = &(*at)[part];
                        }
                    }
                    if (!plain) break;
                    json& value = at->is_object() ? (*at)["value"] : *at;
                    QVERIFY(value == c["from"]);
                    value = c["to"];
                }
                if (!plain) continue;
                const QTemporaryDir dir;
                const std::string changed = dir.filePath("changed.gantry").toStdString();
                std::ofstream(changed) << file.dump();
                const json after = json::parse(run({"verdicts", changed, "--json"}).out);
                std::string state = "fine";
                for (const auto& w : after["verdicts"])
                    if (w["id"] == v["id"] && w["axis"] == v["axis"]) state = w["state"];
                QCOMPARE(f["after"]["state"].get<std::string>(), state);
                ++setting;
            }
        QVERIFY(setting >= 3 && measuring >= 1);
        QCOMPARE(run({"verdicts", demo_, "--shelf", "parts.csv"}).code, 2);
    }
    void verdictsExitCode() {
        const Result r = run({"verdicts", demo_});
        QCOMPARE(r.code, 1);
        QVERIFY(r.out.starts_with("over"));
        QTemporaryDir dir;
        const std::string calm = dir.filePath("calm.gantry").toStdString();
        std::ofstream(calm) << R"({"format":"calm-gantry","version":1,"name":"empty"})";
        QCOMPARE(run({"verdicts", calm}).code, 0);
    }
    void evaluatePlain() {
        const Result r = run({"evaluate", demo_});
        QVERIFY(r.out.find("80 (exactly 80/1)") != std::string::npos);
        QVERIFY(r.out.find("5.98 kg or 17.7° or") != std::string::npos);
    }
    void exports() {
        QVERIFY(run({"export", demo_, "--as", "settings"}).out.find("Steps per unit          80") !=
                std::string::npos);
        QVERIFY(run({"export", demo_, "--as", "settings", "--format", "csv"})
                    .out.starts_with("axis,key,label,value,unit,note\r\nslide,steps_per_unit,"));
        QCOMPARE(run({"export", demo_, "--as", "project"}).out, demoText());
        QCOMPARE(run({"export", demo_, "--as", "settings", "--template",
                      dataPath("templates/numbered-list.mustache")})
                     .code,
                 0);
        QCOMPARE(run({"export", demo_, "--as", "settings", "--format", "xml"}).code, 2);
    }
    void missingTemplateNamesBlock() {
        QTemporaryDir dir;
        const std::string file = dir.filePath("t.mustache").toStdString();
        std::ofstream(file) << "{{no_such}}x";
        const Result blocked = run({"export", demo_, "--as", "settings", "--template", file});
        QCOMPARE(blocked.code, 2);
        QVERIFY(blocked.err.find("no_such") != std::string::npos);
        const Result insisted =
            run({"export", demo_, "--as", "settings", "--template", file, "--allow-missing"});
        QCOMPARE(insisted.code, 0);
        QCOMPARE(insisted.out, std::string("x"));
    }
    void checkListsWhatIsNotUnderstood() {
        QTemporaryDir dir;
        const std::string file = dir.filePath("odd.gantry").toStdString();
        auto j = nlohmann::json::parse(demoText());
        j["axes"][0]["teht_in"] = 3;
        std::ofstream(file) << j.dump();
        const Result r = run({"check", file});
        QCOMPARE(r.code, 0);
        QVERIFY(r.out.find("axes/slide/teht_in: kept, not understood") != std::string::npos);
    }
    void badCallsSayWhy() {
        QCOMPARE(run({}).code, 2);
        QCOMPARE(run({"evaluate"}).code, 2);
        QCOMPARE(run({"evaluate", "/no/such/file"}).code, 2);
        QVERIFY(run({"evaluate", "/no/such/file"}).err.find("cannot be read") != std::string::npos);
        QVERIFY(run({"evaluate", demo_, "--loud"}).err.find("--loud") != std::string::npos);
        QCOMPARE(run({"export", demo_}).code, 2);
    }
};

QTEST_GUILESS_MAIN(CliTest)
#include "cli_test.moc"
