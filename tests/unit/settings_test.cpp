// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "io/exports/settings_forms.h"
#include "io/templates/settings_template.h"
#include "support/files.h"

#include <QTest>
#include <sstream>

using namespace gantry;

class SettingsTest : public QObject {
    Q_OBJECT
    static io::SettingsSheet sheetOf(const Project& p) { return io::settingsSheet(p, assess(p)); }
    static std::string value(const io::SettingsSheet& s, std::size_t axis, const std::string& key) {
        for (const io::Setting& row : s.axes[axis].rows)
            if (row.key == key) return row.value;
        return "no such key";
    }
private slots:
    void demoSheet() {
        const auto s = sheetOf(demoProject());
        QCOMPARE(value(s, 0, "steps_per_unit"), std::string("80"));
        QCOMPARE(value(s, 1, "steps_per_unit"), std::string("46.222"));
        QCOMPARE(value(s, 0, "max_speed"), std::string("300"));
        QCOMPARE(value(s, 0, "jerk"), std::string("4000"));
        QCOMPARE(value(s, 0, "run_current_rms"), std::string("1.2"));
        QCOMPARE(value(s, 0, "run_current_peak"), std::string("1.6971"));
        QCOMPARE(value(s, 0, "soft_max"), std::string("935"));
        QCOMPARE(value(s, 0, "shortest_pulse"), std::string("2"));
        for (const char* key : {"reversed", "positive_end", "travel", "soft_min", "home_end", "homing_speed",
                                "homing_back_off", "microsteps", "hold_current_rms", "idle_delay",
                                "enable_active_low", "instant_speed_step", "max_acceleration"})
            QVERIFY2(!value(s, 1, key).empty() && value(s, 1, key) != "no such key", key);
    }
    void followsTheControllersUnits() {
        Project p = demoProject();
        p.controller.speedUnit = SpeedUnit::UnitPerMinute;
        p.controller.ramps = RampKind::Trapezoid;
        p.controller.decimalsKept = 1;
        const auto s = sheetOf(p);
        QCOMPARE(value(s, 0, "max_speed"), std::string("18000"));
        QCOMPARE(value(s, 0, "jerk"), std::string());
        QCOMPARE(value(s, 1, "steps_per_unit"), std::string("46.2"));
    }
    void fallingIsPrintedEvenWhenSetAside() {
        Project p = demoProject();
        QCOMPARE(sheetOf(p).cautions.size(), std::size_t(1));
        p.setAside.push_back({"power_off", "slide", "", "strapped, Friday"});
        const auto s = sheetOf(p);
        QVERIFY(QString::fromStdString(s.cautions.at(0)).contains("strapped, Friday"));
        QVERIFY(io::settingsText(s).find("strapped, Friday") != std::string::npos);
        QVERIFY(io::settingsCsv(s).find("strapped, Friday") != std::string::npos);
    }
    void csvIsQuoted() {
        Project p = demoProject();
        p.axes[0].id = "a\"b,c";
        p.shots.clear();
        QVERIFY(io::settingsCsv(sheetOf(p)).find("\"a\"\"b,c\",steps_per_unit") != std::string::npos);
    }
    void shippedTemplatesFillCompletely() {
        const auto s = sheetOf(demoProject());
        const auto header = io::fillTemplate(textOfFile(dataPath("templates/constants-header.mustache")), s);
        QVERIFY2(header.error.empty() && header.missingNames.empty(), header.error.c_str());
        QVERIFY(header.text.find("#define SLIDE_STEPS_PER_UNIT 80 // Steps per unit, steps/mm\n#define "
                                 "SLIDE_MAX_SPEED 300 ") != std::string::npos);
        QVERIFY(header.text.find("#define PAN_HOME_END \"low\"") != std::string::npos);
        const auto list = io::fillTemplate(textOfFile(dataPath("templates/numbered-list.mustache")), s);
        QVERIFY(list.error.empty() && list.missingNames.empty());
        QVERIFY(list.text.find("\n1.1  Steps per unit: 80 steps/mm\n1.2 ") != std::string::npos);
        QVERIFY(list.text.find("2.1  Steps per unit: 46.222 steps/°  (exactly 416/9") != std::string::npos);
        QVERIFY(list.text.find("()") == std::string::npos);
    }
    void textIsNotEscaped() {
        Project p = demoProject();
        p.name = "A<b> & \"c\"";
        QCOMPARE(io::fillTemplate("{{project}}", sheetOf(p)).text, p.name);
    }
    void missingNamesAreListedOnce() {
        const auto f = io::fillTemplate("{{projekt}} {{#axes}}{{teeth}}{{/axes}}", sheetOf(demoProject()));
        QVERIFY(f.error.empty());
        QCOMPARE(f.missingNames, (std::vector<std::string>{"projekt", "teeth"}));
    }
    void hostileTemplatesAreRefused() {
        const auto s = sheetOf(demoProject());
        QVERIFY(io::fillTemplate("{{#axes}}", s).error.size() > 10);
        QVERIFY(QString::fromStdString(io::fillTemplate("{{> project}}", s).error).contains("partial"));
        QVERIFY(QString::fromStdString(io::fillTemplate("{{=<% %>=}}", s).error).contains("delimiters"));
        QVERIFY(
            QString::fromStdString(io::fillTemplate(std::string(300u << 10, 'x'), s).error).contains("256"));
        std::string deep;
        for (int i = 0; i < 40; ++i) deep += "{{#axes}}";
        for (int i = 0; i < 40; ++i) deep += "{{/axes}}";
        QVERIFY(QString::fromStdString(io::fillTemplate(deep, s).error).contains("32"));
        std::string many;
        for (int i = 0; i < 9; ++i) many += "{{#axes}}{{#settings}}";
        many += "{{value}}";
        for (int i = 0; i < 9; ++i) many += "{{/settings}}{{/axes}}";
        QVERIFY(QString::fromStdString(io::fillTemplate(many, s).error).contains("too many"));
    }
    /// Each form has an id and an ending of its own, writes every value, and is found by its id.
    void everyForm() {
        const io::SettingsSheet sheet = sheetOf(demoProject());
        QSet<QString> ids;
        for (const io::SettingsForm& form : io::settingsForms()) {
            const QString id = QString::fromUtf8(form.id.data(), static_cast<qsizetype>(form.id.size()));
            QVERIFY(!ids.contains(id));
            ids.insert(id);
            QVERIFY(io::findSettingsForm(form.id) == &form);
            QVERIFY(!form.extension.empty() && form.extension.front() != '.');
            const std::string text = form.write(sheet);
            for (const io::AxisSettings& axis : sheet.axes)
                for (const io::Setting& s : axis.rows) {
                    // Its value on the line of its label.
                    bool there = false;
                    std::istringstream lines(text);
                    for (std::string line; std::getline(lines, line);) {
                        const auto label = line.find(s.label);
                        there = there || (label != std::string::npos &&
                                          line.find(s.value, label + s.label.size()) != std::string::npos);
                    }
                    QVERIFY2(there, s.label.c_str());
                }
            for (const std::string& caution : sheet.cautions)
                QVERIFY(text.find(caution.substr(0, 20)) != std::string::npos);
        }
        QVERIFY(io::findSettingsForm("nonsense") == nullptr);
    }
};

QTEST_APPLESS_MAIN(SettingsTest)
#include "settings_test.moc"
