// SPDX-License-Identifier: GPL-3.0-or-later
// What the fixes are worth: every one of every verdict that wants mending, over the rigs to start from, the
// demos, the judged rigs and 300 rigs drawn at random, applied and assessed anew.
#include "core/rigs/rigs.h"
#include "core/verdicts/audit.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/rules.h"
#include "support/drawn_rigs.h"
#include "support/files.h"
#include "support/fix_cases.h"
#include "support/judged_rigs.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>
#include <map>
#include <random>
#include <set>
#include <sstream>

using namespace gantry;

namespace {

#ifdef __SANITIZE_ADDRESS__
constexpr int drawn = 2, each = 9; // sanitizers look at how it is computed, Release at what
#else
constexpr int drawn = 300, each = 1;
#endif

/// Every label that was offered, of all rigs, and every family with the rule that it cured,
/// "torque/run_current".
std::set<std::string_view> offeredLabels;
std::set<std::string> cures;

/// Notes which family of a verdict's rule a step of a fix comes from.
void noteCure(const Verdict& verdict, const FixStep& step) {
    for (const fixes::Family* family : ruleOf(verdict).fixes)
        if (std::find(family->labels.begin(), family->labels.end(), step.label) != family->labels.end())
            cures.insert(std::string(ruleKey(verdict)) + '/' + std::string(family->name));
}

struct Tally {
    bool kept =
        true; ///< rigs drawn at random are others after the next new field, and tell nothing of what is lost
    int bad = 0, cured = 0, offered = 0, good = 0, measuredOnce = 0, measuredMore = 0;
    std::map<std::string, int> uncured;
    QStringList objections;

    void take(const Project& p) {
        for (const AuditedVerdict& v : audit(p, stockInShops())) {
            ++bad;
            cured += v.cured();
            if (!v.cured())
                ++uncured[std::string(ruleKey(v.verdict)) + " " + std::string(stateWord(v.verdict.state))];
            if (!v.cured() && qEnvironmentVariableIsSet("GANTRY_AUDIT"))
                qInfo("%s / %s: %s", p.name.c_str(),
                      p.axes[static_cast<std::size_t>(v.verdict.axis)].name.c_str(),
                      (std::string(stateWord(v.verdict.state)) + " " + title(v.verdict) + ": " +
                       sentence(v.verdict, p, units::System::Metric))
                          .c_str());
            for (const AuditedFix& f : v.fixes) {
                ++offered;
                good += f.good();
                measuredOnce += f.fix.measures.size() == 1;
                measuredMore += f.fix.measures.size() > 1;
                for (const FixStep& step : f.fix.steps) offeredLabels.insert(step.label.text);
                if (f.fix.steps.size() == 1 && kept) noteCure(v.verdict, f.fix.steps.front());
                for (const std::string& why : f.objections)
                    objections << QString::fromStdString(p.name + ", " + title(v.verdict) + ", " +
                                                         describe(f.fix, p, units::System::Metric) + ": " +
                                                         why);
            }
        }
    }
    void say(const char* what) const {
        qInfo("%s: %d of %d verdicts have a good fix; %d of %d fixes are good; %d want one measurement, %d "
              "more",
              what, cured, bad, good, offered, measuredOnce, measuredMore);
        for (const auto& [rule, times] : uncured) qInfo("  without: %s, %d times", rule.c_str(), times);
        for (const QString& s : objections) qInfo("  %s", qPrintable(s));
    }
    double share() const { return static_cast<double>(cured) / bad; }
};

} // namespace

class AuditTest : public QObject {
    Q_OBJECT
private slots:
    void rigsThatShip() {
        Tally t;
        for (const rigs::RigInfo& info : rigs::all())
            if (each == 1 || info.kind == rigs::RigKind::BeltSlider) t.take(rigs::make(info.kind));
        if (each == 1)
            for (const char* demo :
                 {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
                t.take(demoProject(demo));
        t.say("rigs that ship");
        QVERIFY(each > 1 || t.bad > 20);
        QVERIFY(t.objections.isEmpty());
        QVERIFY(each > 1 || t.share() >= 0.9);
    }
    void judgedRigs() {
        Tally t;
        for (const nlohmann::json& c : judged::cases()) {
            const std::string id = c["id"];
            if (!judged::canBuild(id) || (&c - judged::cases().data()) % each != 0) continue;
            std::string variants;
            for (const auto& e : c["expected"])
                for (const char v : e.value("variant", "a"))
                    if (v != ',' && variants.find(v) == std::string::npos) variants += v;
            for (const char v : variants) {
                Project p = judged::rigOf(c, v);
                p.name = id + v;
                t.take(p);
            }
        }
        t.say("judged rigs");
        QVERIFY(each > 1 || t.bad > 40);
        QVERIFY(t.objections.isEmpty());
        QVERIFY(each > 1 || t.share() >= 0.9);
    }
    void drawnRigs() {
        std::mt19937 random(15);
        Tally t;
        t.kept = false;
        for (int i = 0; i < drawn; ++i) t.take(drawn_rigs::variation(random));
        t.say("drawn rigs");
        // Where one measurement leaves it in doubt, what decides of the rest is named as well.
        QVERIFY(each > 1 || (t.measuredOnce >= 10 && t.measuredMore >= 2));
        QVERIFY(t.objections.isEmpty());
        QVERIFY(each > 1 || t.share() >= 0.9);
    }
    /// The rigs on which each family has a case by hand.
    void casesByHand() {
        Tally t;
        for (std::size_t i = 0; i < fixcases::cases.size(); i += static_cast<std::size_t>(each))
            t.take(fixcases::projectOf(fixcases::cases[i]));
        t.say("cases by hand");
        QVERIFY(t.objections.isEmpty());
    }
    /// What has cured a rule on any of these rigs does so still: tests/data/cures.txt has a line for each. A
    /// line goes only with a reason; new ones are added by what this test prints.
    void nothingThatCuredIsLost() {
#ifdef __SANITIZE_ADDRESS__
        QSKIP("too few rigs are looked at");
#endif
        std::istringstream kept(textOfFile(sourcePath("tests/data/cures.txt")));
        std::set<std::string> known;
        for (std::string line; std::getline(kept, line);)
            if (!line.empty()) known.insert(line);
        std::string lost;
        for (const std::string& cure : known)
            if (!cures.contains(cure)) lost += cure + ' ';
        for (const std::string& cure : cures)
            if (!known.contains(cure)) qInfo("new: %s", cure.c_str());
        QVERIFY(known.size() > 100);
        QVERIFY2(lost.empty(), lost.c_str());
    }
    /// A family that no rig of all these is offered is tried in vain; by hand a case is made for it.
    void familiesAreOffered() {
#ifdef __SANITIZE_ADDRESS__
        QSKIP("too few rigs are drawn");
#endif
        std::set<std::string_view> names, idle;
        for (const rules::Rule* rule : rules::all())
            for (const fixes::Family* family : rule->fixes) {
                names.insert(family->name);
                if (std::none_of(family->labels.begin(), family->labels.end(),
                                 [](const words::Message& m) { return offeredLabels.contains(m.text); }))
                    idle.insert(family->name);
            }
        for (const std::string_view name : idle) qInfo("never offered: %s", std::string(name).c_str());
        QVERIFY(names.size() > 70);
        QVERIFY(idle.size() <= names.size() / 3);
    }
};

QTEST_APPLESS_MAIN(AuditTest)
#include "audit_test.moc"
