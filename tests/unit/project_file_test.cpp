// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/project/project_file.h"
#include "support/broken_files.h"
#include "support/files.h"

#include <QTest>

using namespace gantry;
using nlohmann::json;

class ProjectFileTest : public QObject {
    Q_OBJECT
private slots:
    void demoIsInNormalForm() {
        QCOMPARE(QString::fromStdString(io::writeProject(demoProject())), QString::fromStdString(demoText()));
    }
    void shippedSchemaIsCurrent() {
        QCOMPARE(QString::fromStdString(io::projectSchema()),
                 QString::fromStdString(textOfFile(dataPath("schema/calm-gantry-project.schema.json"))));
        QVERIFY(io::projectSchema().find("additionalProperties") == std::string::npos);
        QVERIFY(io::projectSchema().find("\"pattern\"") == std::string::npos);
    }
    void roundTrip() {
        Project p = demoProject();
        p.name = "Ümläut \"quoted\" \\ \n 日本";
        p.setAside.push_back({"torque", "slide", "reveal", "tested on the bench"});
        const auto r = io::readProject(io::writeProject(p));
        QVERIFY(std::get<io::LoadedProject>(r).project == p);
    }
    void missingKeysTakeMarkedDefaults() {
        const auto r = io::readProject(
            R"({"format":"calm-gantry","version":1,"axes":[{"id":"a","motor":{"kind":"stepper"},"mechanism":{"kind":"rotary"}}]})");
        const Project& p = std::get<io::LoadedProject>(r).project;
        QCOMPARE(std::get<Stepper>(p.axes[0].motor).holdingTorque.source, Source::Assumed);
        QVERIFY(std::holds_alternative<RotaryMechanism>(p.axes[0].mechanism));
    }
    void toleranceFollowsItsSource() {
        const auto r = io::readProject(
            R"({"format":"calm-gantry","version":1,"supply":{"voltage_V":{"value":12,"source":"label"}}})");
        QCOMPARE(std::get<io::LoadedProject>(r).project.supply.voltage.tolerance,
                 defaultTolerance(Source::Label));
    }
    void unknownKeysAreKeptListedAndWrittenBack() {
        const std::string text = edited([](json& j) {
            j["colour_of_the_van"] = "green";
            j["axes"][0]["teht_in"] = {1, 2};
            j["axes"][0]["motor"]["holding_torque_Nm"]["from"] = "page 4";
            j["shots"][1]["moves"][0]["note"] = {{"a", true}};
        });
        auto r = io::readProject(text);
        auto& loaded = std::get<io::LoadedProject>(r);
        QStringList notices;
        for (const auto& n : loaded.notices) notices << QString::fromStdString(n);
        notices.sort();
        QCOMPARE(notices, (QStringList{"axes/slide/motor/holding_torque_Nm/from: kept, not understood",
                                       "axes/slide/teht_in: kept, not understood",
                                       "colour_of_the_van: kept, not understood",
                                       "shots/rise/moves/slide/note: kept, not understood"}));
        json back = json::parse(io::writeProject(loaded.project));
        QVERIFY(back["colour_of_the_van"] == "green");
        QVERIFY(back["axes"][0]["teht_in"] == json({1, 2}));
        QVERIFY(back["axes"][0]["motor"]["holding_torque_Nm"]["from"] == "page 4");
        QVERIFY(back["shots"][1]["moves"][0]["note"]["a"] == true);
        loaded.project.axes.erase(loaded.project.axes.begin());
        loaded.project.shots.clear();
        back = json::parse(io::writeProject(loaded.project));
        QVERIFY(!back["axes"][0].contains("teht_in")); // goes with its part
    }
    void refusesInASentence_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("mentions");
        const auto row = [](const char* name, const std::string& text, const char* mentions) {
            QTest::newRow(name) << QByteArray::fromStdString(text) << mentions;
        };
        row("empty", "", "not valid JSON");
        row("truncated", demoText().substr(0, demoText().size() / 2), "line");
        row("not json", "hello", "not valid JSON");
        row("other format", R"({"format":"soup","version":1})", "not a Calm Gantry project");
        row("array", "[1,2]", "not a Calm Gantry project");
        row("no version", R"({"format":"calm-gantry"})", "version");
        row("newer", R"({"format":"calm-gantry","version":7})", "newer version");
        row("huge", std::string(9u << 20, ' '), "8 MiB");
        row("nested", std::string(200000, '[') + std::string(200000, ']'), "64 levels");
        row("duplicate key", R"({"format":"calm-gantry","version":1,"name":"a","name":"b"})",
            "“name” stands twice");
        row("too large number", R"({"format":"calm-gantry","version":1,"camera":{"sensor_width_m":1e999}})",
            "too large");
        row("nan", R"({"format":"calm-gantry","version":1,"camera":{"sensor_width_m":NaN}})",
            "not valid JSON");
        row("invalid utf-8", "{\"format\":\"calm-gantry\",\"version\":1,\"name\":\"\xC3\x28\"}",
            "not valid JSON");
        row("wrong type", edited([](json& j) { j["axes"][0]["driver"]["microsteps"] = "many"; }),
            "axes/slide/driver/microsteps");
        row("float for integer", edited([](json& j) { j["axes"][0]["driver"]["microsteps"] = 16.5; }),
            "axes/slide/driver/microsteps");
        row("out of range",
            edited([](json& j) { j["axes"][0]["mechanism"]["moving_mass_kg"]["value"] = -4; }),
            "moving_mass_kg");
        row("unknown kind", edited([](json& j) { j["axes"][0]["motor"]["kind"] = "hamster"; }), "hamster");
        row("missing kind", edited([](json& j) { j["axes"][0]["motor"].erase("kind"); }), "kind");
        row("duplicate id", edited([](json& j) { j["axes"][1]["id"] = "slide"; }), "stands twice");
        row("unknown axis", edited([](json& j) { j["shots"][0]["moves"][0]["axis"] = "crane"; }), "crane");
        row("wrong movement", edited([](json& j) { j["shots"][0]["moves"][0]["axis"] = "pan"; }),
            "wrong kind");
    }
    void refusesInASentence() {
        QFETCH(QByteArray, text);
        QFETCH(QString, mentions);
        const QString why = refusal(text.toStdString());
        QVERIFY2(why.contains(mentions), qPrintable(why));
    }
    void aFractionWhereAWholeNumberBelongsIsNamed() {
        const QString why = refusal(edited([](json& j) { j["controller"]["decimals_kept"] = 3.5; }));
        QVERIFY2(why.contains("controller/decimals_kept") && why.contains("3.5"), qPrintable(why));
        QVERIFY(refusal(edited([](json& j) { j["controller"]["decimals_kept"] = 3.0; })).isEmpty());
    }
};

QTEST_APPLESS_MAIN(ProjectFileTest)
#include "project_file_test.moc"
