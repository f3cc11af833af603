// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/acceptable.h"
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/project_change.h"
#include "core/model/retired_ids.h"
#include "core/model/size_limits.h"
#include "core/units/plain_text.h"
#include "core/words/differences.h"
#include "io/parts/parts_csv.h"
#include "io/project/project_file.h"
#include "io/project/versions.h"
#include "io/templates/settings_template.h"
#include "support/broken_files.h"
#include "support/cpu_clock.h"
#include "support/files.h"
#include "support/random_project.h"

#include <QTemporaryDir>
#include <QTest>

using namespace gantry;
using nlohmann::json;

/// That what is entered stays, can be read again, and stays apart from what it does not belong to.
class KeepTest : public QObject {
    Q_OBJECT
    static Project read(const std::string& text) {
        auto r = io::readProject(text);
        if (const auto* e = std::get_if<io::LoadError>(&r)) qWarning("%s", e->sentence.c_str());
        return std::holds_alternative<io::LoadedProject>(r) ? std::get<io::LoadedProject>(r).project
                                                            : Project{};
    }
    static std::vector<std::string> keptAt(const Project& p, std::string_view owner) {
        std::vector<std::string> out;
        for (const KeptKey& k : p.kept)
            if (k.owner == owner) out.push_back(k.key);
        return out;
    }

private slots:
    /// ---- limits
    void tooManyOfAnythingIsRefusedInASentence() {
        struct Case {
            std::function<void(Project&)> fill;
            const char* mentions;
        };
        const std::vector<Case> cases{
            {[](Project& p) { p.tests.resize(mostOf("tests") + 1); }, "tests"},
            {[](Project& p) { p.axes.resize(mostOf("axes") + 1); }, "axes"},
            {[](Project& p) { p.shots.resize(mostOf("shots") + 1); }, "shots"},
            {[](Project& p) { p.axes[0].links.resize(mostOf("links") + 1); }, "links"},
            {[](Project& p) { p.notes = std::string(mostLetters + 1, 'x'); }, "Notes"},
            {[](Project& p) { p.lockedFields.resize(mostLinkedTexts + 1); }, "locked_fields"},
            {[](Project& p) { p.lockedFields.push_back(std::string(mostLettersOfOne + 1, 'x')); },
             "locked_fields"},
            {[](Project& p) { p.kept.resize(mostKeptKeys + 1); }, "not understood"},
            {[](Project& p) {
                 for (int i = 0; i < 20; ++i)
                     p.shots.push_back(p.shots[0]), p.shots.back().moves.assign(100, p.shots[0].moves[0]);
             },
             "1500"},
        };
        for (const Case& c : cases) {
            Project p = demoProject();
            c.fill(p);
            const QString why = QString::fromStdString(io::fileObjection(p));
            QVERIFY2(why.contains(c.mentions), qPrintable(why));
            QVERIFY2(!refusal(io::writeProject(p)).isEmpty(), c.mentions); // the reader agrees
        }
        QVERIFY(io::fileObjection(demoProject()).empty());
    }
    /// As much as is allowed can be written and read.
    void justEnoughIsTaken() {
        Project p = demoProject();
        for (std::size_t i = 0; i < mostOf("tests"); ++i) {
            p.tests.emplace_back().id = "t" + std::to_string(i);
            p.tests.back().note = "as seen";
        }
        p.notes = std::string(mostLetters, 'x');
        p.name.clear();
        for (std::size_t i = 0; i < mostLetters; ++i) p.name += "é"; // letters, not bytes
        QCOMPARE(io::fileObjection(p), std::string());
        QVERIFY(read(io::writeProject(p)) == p);
    }
    void theSizeOfAFileIsKeptTo() {
        Project p = demoProject();
        for (int i = 0; i < 600; ++i) {
            p.tests.emplace_back().id = "t" + std::to_string(i);
            p.tests.back().note = std::string(mostLetters, 'n');
        }
        QVERIFY(QString::fromStdString(io::fileObjection(p)).contains("8 MiB"));
        p.tests.resize(300);
        QCOMPARE(io::fileObjection(p), std::string());
        QVERIFY(read(io::writeProject(p)) == p);
    }
    /// The bound never falls short of what is written, and is no wild guess.
    void theBoundOnTheSizeHolds() {
        std::mt19937_64 random(11);
        for (int i = 0; i < 300; ++i) {
            Project p = randomProject(random);
            p.notes = std::string(random() % 500, random() % 2 ? '"' : 'a');
            p.kept.push_back({"", "k" + std::to_string(i), R"({"a": [1, 2, {"b": null}]})"});
            const std::size_t bound = writtenSizeAtMost(p), is = io::writeProject(p).size();
            QVERIFY2(bound >= is, qPrintable(QStringLiteral("%1 < %2").arg(bound).arg(is)));
            QVERIFY(bound < 3 * is + 1000);
        }
    }
    /// 7.9 MiB in one line stay within 8 MiB when they are written again.
    void aCompactFileCanBeWrittenAgain() {
        json j = json::parse(demoText());
        json& big = j["survey"];
        for (int i = 0; i < 440000; ++i) big.push_back({i, -i});
        const std::string text = j.dump();
        QVERIFY(text.size() < io::largestFile && text.size() > io::largestFile * 3 / 4);
        const Project p = read(text);
        QCOMPARE(p.kept.size(), std::size_t(1));
        const std::string again = io::writeProject(p);
        QVERIFY(again.size() <= io::largestFile);
        QVERIFY(read(again) == p);
    }
    /// Ten times the keys take about ten times as long, not a hundred times.
    void manyUnknownKeysAreWrittenInLinearTime() {
        const auto timeFor = [](int keys) {
            json j = json::parse(demoText());
            for (int i = 0; i < keys; ++i) j["key" + std::to_string(i)] = i;
            const std::string given = j.dump();
            CpuClock clock;
            clock.start();
            const Project p = read(given);
            const std::string text = io::writeProject(p);
            const long long took = clock.elapsed();
            return p.kept.size() == static_cast<std::size_t>(keys) && read(text) == p ? took : -1;
        };
        const long long some = timeFor(10000), many = timeFor(100000);
        QVERIFY(some >= 0 && many >= 0);
        QVERIFY2(many < 30 * std::max(some, 20LL), qPrintable(QStringLiteral("%1 %2").arg(some).arg(many)));
    }
    /// ---- numbers and texts of a file
    void refusalsNameTheValueAndTheLimit_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QStringList>("mentions");
        const auto row = [](const char* name, const std::string& text, const QStringList& mentions) {
            QTest::newRow(name) << QByteArray::fromStdString(text) << mentions;
        };
        row("below a least",
            edited([](json& j) { j["axes"][0]["mechanism"]["motion"]["max_speed_m_s"] = 0; }),
            {"axes/slide/mechanism/motion/max_speed_m_s", "Top speed", " 0;", "1e-09"});
        row("beyond 2^53", edited([](json& j) { j["camera"]["pixels_across"] = 9007199254740993; }),
            {"9007199254740993", "digits"});
        std::string wrapped = edited([](json& j) { j["camera"]["pixels_across"] = 4242; });
        wrapped.replace(wrapped.find("4242"), 4, "18446744073709551615");
        row("wrapped", wrapped, {"18446744073709551615"});
        wrapped.replace(wrapped.find("18446744073709551615"), 20, "184467440737095516159");
        row("beyond 64 bits", wrapped, {"184467440737095516159"});
        row("wrapped int", edited([](json& j) { j["camera"]["pixels_across"] = 4294971136; }),
            {"camera/pixels_across", "4294971136", "100000"});
        row("fraction", edited([](json& j) { j["axes"][0]["driver"]["microsteps"] = 16.5; }),
            {"axes/slide/driver/microsteps", "16.5", "whole"});
        row("no kind", edited([](json& j) { j["shots"][0]["moves"][0]["movement"].erase("kind"); }),
            {"shots/reveal/moves/slide/movement", "“kind” is missing", "linear_by_speed"});
        row("no movement", edited([](json& j) { j["shots"][0]["moves"][0].erase("movement"); }),
            {"shots/reveal/moves/slide", "“movement” is missing"});
        row("no such kind", edited([](json& j) { j["axes"][0]["motor"]["kind"] = "steam"; }),
            {"axes/slide/motor/kind", "steam", "stepper"});
        row("a list", edited([](json& j) { j["camera"] = json::array(); }),
            {"camera", "a list", "an object"});
        row("a text", edited([](json& j) { j["camera"]["pixels_across"] = "many"; }),
            {"many", "whole numbers"});
        row("too many", edited([](json& j) {
                for (int i = 0; i < 300; ++i) j["kits"].push_back({{"id", "k" + std::to_string(i)}});
            }),
            {"kits", "300", "200"});
        row("slash", edited([](json& j) { j["kits"] = {{{"id", "a/b"}}}; }), {"a/b"});
    }
    void refusalsNameTheValueAndTheLimit() {
        QFETCH(QByteArray, text);
        QFETCH(QStringList, mentions);
        const QString why = refusal(text.toStdString());
        for (const QString& m : mentions) QVERIFY2(why.contains(m), qPrintable(why + " | " + m));
        QVERIFY(!why.contains("0.000000"));
    }
    void wholeNumbersMayHaveAPoint() {
        const Project p = read(edited([](json& j) { j["axes"][0]["driver"]["microsteps"] = 32.0; }));
        QCOMPARE(p.axes.at(0).driver.microsteps, 32);
        // What is not understood keeps its form.
        std::string text = edited([](json& j) { j["van"] = 1; });
        text.replace(text.find("\"van\":1"), 7, "\"van\":7.0");
        QCOMPARE(read(text).kept.at(0).rawJson, std::string("7.0"));
    }
    void whatIsTooSmallToBeRealIsNothing() {
        const Project p = read(edited([](json& j) {
            j["axes"][0]["mechanism"]["windArea"] = 0;
            j["axes"][0]["mechanism"]["wind_area_m2"] = 5e-324;
            j["axes"][0]["mechanism"]["moving_mass_kg"]["tolerance"] = 1e-310;
        }));
        QCOMPARE(std::get<LinearMechanism>(p.axes.at(0).mechanism).windArea, 0.0);
        Project q = demoProject();
        QVERIFY(setNumberAt(q, "axes/slide/mechanism/wind_area_m2", 1e-300));
        QCOMPARE(std::get<LinearMechanism>(q.axes[0].mechanism).windArea, 0.0);
        // No field has its least value below what its kind can be.
        for (const FieldRef& f : allFields(q)) {
            const double least = units::leastMagnitude(f.info.kind);
            QVERIFY2(f.info.min <= 0.0 || f.info.min >= least, f.path.c_str());
            QVERIFY2(settled(f.info, f.info.max) == f.info.max, f.path.c_str());
        }
    }
    void charactersThatCannotBeShownAreReplacedAndListed() {
        auto r = io::readProject(edited([](json& j) {
            j["axes"][0]["name"] = "Sl\x1b[31mide";
            j["notes"] = "one\ntwo\tthree";
            j["te\x07ht"] = 1;
        }));
        const auto& loaded = std::get<io::LoadedProject>(r);
        QCOMPARE(loaded.project.axes[0].name, std::string("Sl\xEF\xBF\xBD[31mide"));
        QCOMPARE(loaded.project.notes, std::string("one\ntwo\tthree"));
        QCOMPARE(loaded.notices.size(), std::size_t(2));
        for (const std::string& n : loaded.notices) QVERIFY(units::isPlainText(n));
        QVERIFY(loaded.notices[0].find("axes/slide/name") != std::string::npos);
        QVERIFY(io::writeProject(loaded.project).find("te\\u0007ht") != std::string::npos); // kept as it came
        // Sentences about such files are plain too.
        const QString why = refusal(edited([](json& j) { j["axes"][0]["id"] = "a/\x1b[2J"; }));
        QVERIFY(units::isPlainText(why.toStdString()) && !why.isEmpty());
    }
    void plainText_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QByteArray>("plain");
        const char* r = "\xEF\xBF\xBD";
        QTest::newRow("plain") << QByteArray("Ü 日本 \n\t€") << QByteArray("Ü 日本 \n\t€");
        QTest::newRow("escape") << QByteArray("a\x1b") << QByteArray("a") + r;
        QTest::newRow("C1") << QByteArray("a\xC2\x9B") << QByteArray("a") + r;
        QTest::newRow("delete") << QByteArray("\x7F") << QByteArray(r);
        QTest::newRow("override") << QByteArray("\xE2\x80\xAEx") << QByteArray(r) + "x";
        QTest::newRow("isolate") << QByteArray("\xE2\x81\xA6") << QByteArray(r);
        QTest::newRow("latin 1") << QByteArray("\xFC"
                                               "ber")
                                 << QByteArray(r) + "ber";
        QTest::newRow("overlong") << QByteArray("\xC0\x80") << QByteArray(r) + r;
        QTest::newRow("surrogate") << QByteArray("\xED\xA0\x80") << QByteArray(r) + r + r;
        QTest::newRow("cut") << QByteArray("\xE6\x97") << QByteArray(r) + r;
    }
    void plainText() {
        QFETCH(QByteArray, text);
        QFETCH(QByteArray, plain);
        QCOMPARE(QByteArray::fromStdString(units::plainText(text.toStdString())), plain);
        QCOMPARE(units::isPlainText(text.toStdString()), text == plain);
    }
    void sentencesStaySentences() {
        QCOMPARE(units::plainSentence("axes/" + std::string(300, 'x') + "/teeth is 0; it takes 1 to 9."),
                 "axes/" + std::string(60, 'x') + "…/teeth is 0; it takes 1 to 9.");
        std::string wide;
        for (int i = 0; i < 100; ++i) wide += "é";
        QVERIFY(units::isPlainText(units::plainSentence(wide)));
        QCOMPARE(units::plainSentence("short\x1b words"), std::string("short\xEF\xBF\xBD words"));
        const QString why = refusal(edited([](json& j) {
            j["payload"] = {{{"id", std::string(19000, 'x')}, {"mass_kg", {{"value", -5}}}}};
        }));
        QVERIFY2(why.size() < 400 && why.contains("-5"), qPrintable(why));
    }
    /// ---- ids
    void idsAreNeverUsedAgain() {
        Project p = demoProject();
        p.lockedFields = {"axes/slide/mechanism/rail_length_m", "axes/pan/driver/microsteps"};
        p.setAside = {{"torque", "slide", "", "seen"}, {"torque", "pan", "", "seen"}};
        p.kept = {{"axes/slide", "a", "1"}, {"axes/slide/motor", "b", "2"}, {"axes/pan", "c", "3"}};
        const Project before = p;
        removeAxis(p, 0);
        settleRemoved(before, p);
        QCOMPARE(p.lockedFields, std::vector<std::string>{"axes/pan/driver/microsteps"});
        QCOMPARE(p.setAside.size(), std::size_t(1));
        QCOMPARE(p.kept.size(), std::size_t(1));
        QVERIFY(isRetired(p, "slide"));
        const int added = addAxis(p, Role::Slide);
        QCOMPARE(p.axes[static_cast<std::size_t>(added)].id, std::string("slide-2"));
        const Project then = p;
        removeAxis(p, added);
        settleRemoved(then, p);
        QCOMPARE(freeId(p, "Slide"), std::string("slide-3"));
        QCOMPARE(p.retiredIds, std::vector<std::string>{"slide-2"}); // one for the family
        QVERIFY(!isRetired(p, "slider") && !isRetired(p, "slide-3") && isRetired(p, "slide"));
        QVERIFY(read(io::writeProject(p)) == p);
        // Nor after an earlier version is put back, which does not know that they were given.
        Project restored = before;
        settleRemoved(p, restored);
        QCOMPARE(freeId(restored, "Slide"), std::string("slide-3"));
    }
    void aCopyHasItsOriginalsUnknownKeys() {
        Project p = demoProject();
        p.kept = {{"axes/slide", "a", "1"},
                  {"axes/slide/mechanism/output", "b", "2"},
                  {"axes/slider", "c", "3"},
                  {"shots/reveal/moves/slide", "d", "4"}};
        copyAxis(p, 0);
        QCOMPARE(p.axes[1].id, std::string("slide-2"));
        QCOMPARE(keptAt(p, "axes/slide-2"), std::vector<std::string>{"a"});
        QCOMPARE(keptAt(p, "axes/slide-2/mechanism/output"), std::vector<std::string>{"b"});
        QCOMPARE(keptAt(p, "shots/reveal/moves/slide-2"), std::vector<std::string>{"d"});
        QCOMPARE(p.kept.size(), std::size_t(7));
        std::erase_if(p.kept, [](const KeptKey& k) { return k.owner == "axes/slider"; });
        settle(p);
        QVERIFY(read(io::writeProject(p)) == p);
    }
    void unknownKeysStayWithTheirDrive() {
        Project p = demoProject();
        p.axes[0].candidates.clear();
        p.axes[0].candidate = "A";
        p.kept = {{"axes/slide/motor", "of_a", "1"},
                  {"axes/slide/mechanism/output", "out_a", "1"},
                  {"axes/slide", "axis", "1"}};
        QCOMPARE(addCandidate(p, 0), std::string("B"));
        QCOMPARE(keptAt(p, "axes/slide/candidates/A/motor"), std::vector<std::string>{"of_a"});
        QCOMPARE(keptAt(p, "axes/slide/motor"), std::vector<std::string>{"of_a"}); // B began as a copy
        std::erase_if(p.kept, [](const KeptKey& k) { return k.owner == "axes/slide/motor"; });
        p.kept.push_back({"axes/slide/motor", "of_b", "2"});
        p.kept.push_back({"axes/slide/candidates/A", "own_a", "3"});
        const Project b = p;
        QVERIFY(useCandidate(p, 0, "A"));
        QCOMPARE(keptAt(p, "axes/slide/motor"), std::vector<std::string>{"of_a"});
        QCOMPARE(keptAt(p, "axes/slide/candidates/B/motor"), std::vector<std::string>{"of_b"});
        QCOMPARE(keptAt(p, "axes/slide/mechanism/output").size(), std::size_t(1));
        QVERIFY(read(io::writeProject(p)).kept.size() == p.kept.size());
        QVERIFY(useCandidate(p, 0, "B"));
        QCOMPARE(keptAt(p, "axes/slide/candidates/A"), std::vector<std::string>{"own_a"});
        const auto settled = [](Project q) {
            settle(q);
            return q;
        };
        QVERIFY(settled(p) == settled(b)); // there and back
        // A letter is not given twice, and a drive that is dropped takes its keys along.
        dropCandidate(p, 0, "A");
        QVERIFY(keptAt(p, "axes/slide/candidates/A").empty() &&
                keptAt(p, "axes/slide/candidates/A/motor").empty());
        QCOMPARE(addCandidate(p, 0), std::string("C"));
    }
    void unknownKeysStayWithTheirSetAside() {
        const Project p = read(edited([](json& j) {
            j["set_aside"] = {{{"rule", "torque"}, {"axis", "slide"}, {"reason", "x"}, {"seen", 1}},
                              {{"rule", "torque"}, {"axis", "pan"}, {"reason", "y"}}};
        }));
        const json back = json::parse(io::writeProject(p));
        QVERIFY(back["set_aside"][0].contains("seen"));
        QVERIFY(!back["set_aside"][1].contains("seen"));
    }
    void aVerdictIsSetAsideOnce() {
        for (const auto& [list, mentions] : {std::pair{json{{{"rule", "torque"}, {"axis", "slide"}},
                                                            {{"rule", "torque"}, {"axis", "slide"}}},
                                                       "stands twice"},
                                             std::pair{json{{{"axis", "slide"}}}, "rule is missing"}}) {
            const QString why = refusal(edited([&, l = list](json& j) { j["set_aside"] = l; }));
            QVERIFY2(why.contains(mentions), qPrintable(why));
        }
    }
    /// ---- undo by what changed
    void changesLeadThereAndBack() {
        std::mt19937_64 random(5);
        for (int i = 0; i < 300; ++i) {
            Project a = randomProject(random), b = i % 3 == 0 ? randomProject(random) : a;
            if (i % 3 == 1 && !b.axes.empty()) b.axes[random() % b.axes.size()].name = "x";
            if (i % 3 == 2) b.shots.insert(b.shots.begin(), Shot{});
            if (i % 5 == 0) b.retiredIds.push_back("gone"), b.kept.push_back({"", "k", "1"});
            const ProjectChange change(a, b);
            Project x = a;
            change.redo(x);
            QVERIFY(x == b);
            change.undo(x);
            QVERIFY(x == a);
            QCOMPARE(change.empty(), a == b);
        }
    }
    void aChangeHoldsOnlyWhatChanged() {
        Project a = demoProject();
        for (int i = 0; i < 100000; ++i) a.kept.push_back({"", "key" + std::to_string(i), "\"value\""});
        Project b = a;
        b.axes[0].name = "Other";
        QVERIFY(ProjectChange(a, b).bytes() < 60000);
        b.kept[50000].rawJson = "2";
        QVERIFY(ProjectChange(a, b).bytes() < 60000);
    }
    /// ---- versions and what differs
    void theLastTenAndTheFirstOfEachDayAreKept() {
        const QTemporaryDir dir;
        const std::string folder = dir.filePath("v").toStdString();
        for (int day = 1; day <= 4; ++day)
            for (int save = 0; save < 12; ++save)
                QCOMPARE(io::keepVersion(folder, "text " + std::to_string(100 * day + save),
                                         "2026-05-0" + std::to_string(day) + "T10-00-" +
                                             std::to_string(10 + save)),
                         std::string());
        const auto all = io::versionsIn(folder);
        QCOMPARE(all.size(), std::size_t(14)); // ten of the fourth day, and the first of each
        QCOMPARE(all.front().stamp, std::string("2026-05-04T10-00-21"));
        QCOMPARE(all.back().stamp, std::string("2026-05-01T10-00-10"));
        QCOMPARE(io::keepVersion(folder, "text 411", "2026-05-05T10-00-00"), std::string());
        QCOMPARE(io::versionsIn(folder).size(), std::size_t(14)); // the same as the newest is none
    }
    void versionsKeepToTheirSize() {
        const QTemporaryDir dir;
        const std::string folder = dir.filePath("v").toStdString();
        for (int i = 0; i < 9; ++i)
            io::keepVersion(folder, std::string(io::largestFile, static_cast<char>('a' + i)),
                            "2026-05-0" + std::to_string(i + 1) + "T10-00-00");
        std::uintmax_t bytes = 0;
        for (const io::Version& v : io::versionsIn(folder)) bytes += v.size;
        QVERIFY(bytes <= io::mostVersionBytes && bytes > io::mostVersionBytes / 2);
        QCOMPARE(io::versionsIn(folder).front().stamp, std::string("2026-05-09T10-00-00"));
        // A path through a link is the same file; another file has another folder.
        QVERIFY(io::versionFolder("x", "/tmp/a/../b.gantry") == io::versionFolder("x", "/tmp/b.gantry"));
        QVERIFY(io::versionFolder("x", "/tmp/b.gantry") != io::versionFolder("x", "/tmp/c.gantry"));
    }
    void differencesAreSaidInWords() {
        const Project a = demoProject();
        Project b = a;
        std::size_t total = 99;
        QVERIFY(
            words::differences({a, "the file"}, {b, "the copy"}, units::System::Metric, 10, total).empty());
        QCOMPARE(total, std::size_t(0));
        std::get<LinearMechanism>(b.axes[0].mechanism).railLength = 1.25;
        b.axes[1].driver.microsteps *= 2;
        addAxis(b, Role::Tilt);
        b.shots.pop_back();
        b.shots[0].name = "Other";
        const auto lines =
            words::differences({a, "the file"}, {b, "the copy"}, units::System::Metric, 3, total);
        QCOMPARE(lines.size(), std::size_t(3));
        QStringList seen;
        for (const std::string& l : lines) seen << QString::fromStdString(l);
        QVERIFY2(total >= 4, qPrintable(seen.join(" | ")));
        const auto all =
            words::differences({a, "the file"}, {b, "the copy"}, units::System::Metric, 100, total);
        const auto has = [&](const std::string& text) {
            return std::any_of(all.begin(), all.end(),
                               [&](const std::string& l) { return l.find(text) != std::string::npos; });
        };
        QVERIFY(has(a.shots.back().name + ": only in the file"));
        QVERIFY(has("Tilt: only in the copy"));
        QVERIFY(has("1250 mm"));
        QVERIFY(has(a.axes[1].name + ", Microsteps: "));
        QVERIFY(has("“Other”"));
    }
    /// ---- templates and tables
    void templatesNestAsTheParserSees() {
        io::SettingsSheet sheet;
        for (const char* blank : {"", " ", "\n", "\r\n", "\v", "\f\t"}) {
            std::string text;
            for (int i = 0; i < 18722; ++i) text += std::string("{{") + blank + "#axes}}";
            QVERIFY(io::fillTemplate(text.substr(0, io::largestTemplate), sheet).error.find("32 deep") !=
                    std::string::npos);
            QVERIFY(
                io::fillTemplate(std::string("{{") + blank + "=<% %>=}}", sheet).error.find("delimiters") !=
                std::string::npos);
        }
        // Side by side and in comments they are no nesting.
        std::string flat;
        for (int i = 0; i < 100; ++i) flat += "{{#axes}}{{/axes}}{{! {{#axes}}";
        QCOMPARE(io::fillTemplate(flat, sheet).error, std::string());
    }
    void theShelfKeepsWhatItDoesNotUnderstand() {
        const std::string text = "family,Ort,name,count,teeth,pitch_m,teeth_colour\n"
                                 "pulley,drawer 3,GT 20,2,20,0.002,\"red, shiny\"\n"
                                 "flux capacitor,attic,Old one,1,,,\n"
                                 "# a remark\n"
                                 "stepper,,Motor,1,20,,blue,extra\n";
        const io::ShelfTable table = io::readShelf(text);
        QCOMPARE(table.parts.size(), std::size_t(2));
        QCOMPARE(table.lines.size(), std::size_t(2));
        const std::string again = io::writeParts(table.parts, table.lines);
        for (const char* piece :
             {"drawer 3", "\"red, shiny\"", "flux capacitor", "attic", "# a remark", "extra", "blue", "Ort"})
            QVERIFY2(again.find(piece) != std::string::npos, piece);
        const io::ShelfTable back = io::readShelf(again);
        QVERIFY(back.parts == table.parts);
        QCOMPARE(back.lines.size(), table.lines.size());
        QCOMPARE(io::writeParts(back.parts, back.lines), again);
    }
    void twoWindowsShareAShelf() {
        const auto part = [](const char* name, int count) {
            parts::Part p;
            p.family = "pulley";
            p.name = name;
            p.count = count;
            return p;
        };
        using List = std::vector<parts::Part>;
        const List before{part("a", 1), part("b", 1), part("c", 1)};
        const List ours{part("a", 2), part("b", 1), part("d", 1)}; // a counted, c gone, d new
        const List theirs{part("a", 1), part("b", 1), part("c", 1), part("e", 1)};
        QVERIFY(io::merged(before, ours, theirs) ==
                (List{part("b", 1), part("e", 1), part("a", 2), part("d", 1)}));
        QVERIFY(io::merged(before, ours, before) == ours);
        QVERIFY(io::merged(before, before, theirs) == theirs);
        // The same part changed by both: nothing is lost.
        const List both = io::merged(before, ours, {part("a", 5), part("b", 1)});
        QVERIFY(std::count(both.begin(), both.end(), part("a", 2)) == 1);
        QVERIFY(std::count(both.begin(), both.end(), part("a", 5)) == 1);
    }
};

QTEST_APPLESS_MAIN(KeepTest)
#include "keep_test.moc"
