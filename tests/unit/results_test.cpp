// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"
#include "core/tools/chain_table.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "core/tools/spread.h"
#include "support/files.h"

#include <QTest>
#include <cstring>
#include <map>
#include <set>

using namespace gantry;

namespace {
/// Counts the keys that stand side by side; what parts and lists hold stands in objects of its own.
struct Keys {
    std::map<std::string, int>& seen;
    bool linear;
    void take(const FigureInfo& info) { ++seen[std::string(info.keyFor(linear))]; }
    void figure(const FigureInfo& info, const Figure&) { take(info); }
    void flag(const FigureInfo& info, bool) { take(info); }
    void rank(const FigureInfo& info, const auto&) { take(info); }
    void outcome(const FigureInfo& info, const auto&) { take(info); }
    void part(std::string_view key, const auto&) { ++seen[std::string(key)]; }
    void list(std::string_view key, const auto&) { ++seen[std::string(key)]; }
};
} // namespace

/// Results are described like inputs: nothing that is in a struct is missing from its description, and what
/// is done to all of them reaches each.
class ResultsTest : public QObject {
    Q_OBJECT

    /// Places within an object that look like a figure with this reason and no number, by their bytes; so it
    /// finds figures that the description forgot. Lists are not entered.
    template <class T>
    static int figuresByBytes(const T& object, Reason why) {
        const Figure wanted = Figure::none(why);
        int count = 0;
        const auto* bytes = reinterpret_cast<const unsigned char*>(&object);
        for (std::size_t at = 0; at + sizeof(Figure) <= sizeof(T); at += alignof(Figure)) {
            Figure f;
            std::memcpy(static_cast<void*>(&f), bytes + at, sizeof(Figure));
            // Only what is exactly a figure without number: no plain double reads so.
            double number = 1.0;
            std::memcpy(&number, bytes + at, sizeof number);
            count += number == 0.0 && f.reason() == wanted.reason();
        }
        return count;
    }
    template <class T>
    static void describesAll(const char* name) {
        constexpr Reason mark = Reason::NoSuchLeg; // 8 bytes off a count or an index nothing holds its number
        T object{};
        const int there = figuresByBytes(object, Reason::NotApplicable);
        int told = 0;
        std::set<std::string_view> keys;
        results::forEachFigure([&](const FigureInfo&, Figure&) { ++told; }, object);
        QVERIFY2(told > 0 && told == there,
                 qPrintable(QString("%1: %2 figures, %3 described").arg(name).arg(there).arg(told)));
        results::failAll(object, mark);
        QCOMPARE(figuresByBytes(object, mark), there);
        QCOMPARE(figuresByBytes(object, Reason::NotApplicable), 0);
    }
    static std::vector<Project> rigsToStart() {
        std::vector<Project> out{demoProject()};
        for (const rigs::RigInfo& info : rigs::all()) out.push_back(rigs::make(info.kind));
        return out;
    }
    /// Gives every movement of a project a time in which it cannot be done.
    static Project hurried(Project p) {
        for (Shot& shot : p.shots) {
            shot.kind = ShotKind::Live;
            for (ShotMove& m : shot.moves) {
                const double distance = std::abs(distanceOf(m.movement));
                if (kindOf(m.movement) == AxisKind::Linear)
                    m.movement = ByTime<AxisKind::Linear>{distance, 1e-3, 4e-4, 0.0};
                else
                    m.movement = ByTime<AxisKind::Rotary>{distance, 1e-3, 4e-4, 0.0};
            }
        }
        return p;
    }

private slots:
    void everyFigureIsDescribed() {
        describesAll<ShotEvaluation>("shot");
        describesAll<AxisEvaluation>("axis");
        describesAll<PartCheck>("part");
        describesAll<SupplyEvaluation>("supply");
        describesAll<RigStructure>("rig");
        describesAll<AxisLimits>("limits");
        describesAll<RampRow>("ramp");
        describesAll<ChainColumn>("column");
    }
    /// No two figures of one place share a key, for either kind of axis.
    void keysAreDifferent() {
        const auto check = [](auto object) {
            for (const bool linear : {true, false}) {
                std::map<std::string, int> seen;
                Keys keys{seen, linear};
                describe(keys, object);
                for (const auto& [key, count] : seen) QVERIFY2(count == 1, key.c_str());
            }
        };
        check(ShotEvaluation{});
        check(AxisEvaluation{});
        check(AxisChecks{});
        check(AxisStructure{});
        check(RigStructure{});
        check(SupplyEvaluation{});
        check(AxisLimits{});
    }
    /// A shot that cannot be planned: whatever had a number has the plan's reason, whatever had no meaning
    /// for the drive still has none.
    void aFailedPlanLeavesNoNumber() {
        int compared = 0;
        for (const Project& p : rigsToStart()) {
            const Evaluation good = evaluate(p), bad = evaluate(hurried(p));
            for (std::size_t a = 0; a < p.axes.size(); ++a)
                for (std::size_t i = 0; i < good.axes[a].shots.size() && i < bad.axes[a].shots.size(); ++i) {
                    const ShotEvaluation &before = good.axes[a].shots[i], &after = bad.axes[a].shots[i];
                    if (before.problem != Reason::None || after.problem == Reason::None || before.follows)
                        continue;
                    ++compared;
                    results::forEachFigure(
                        [&](const FigureInfo& info, const Figure& b, const Figure& f) {
                            const std::string_view key = info.key;
                            if (key == "distance_m" || key == "carried_N") return; // are there without a plan
                            if (b) {
                                QVERIFY2(!f,
                                         qPrintable(QString::fromUtf8(key.data(), qsizetype(key.size()))));
                                QCOMPARE(f.reason(), after.problem);
                            } else if (b.reason() == Reason::NotApplicable && !key.starts_with("lets_go") &&
                                       !key.starts_with("flank_") && key != "last_shaft_torque_Nm" &&
                                       key != "least_current_rms_A") {
                                QVERIFY2(f.reason() == Reason::NotApplicable,
                                         qPrintable(QString::fromUtf8(key.data(), qsizetype(key.size()))));
                            }
                        },
                        before, after);
                }
        }
        QVERIFY2(compared > 15, qPrintable(QString::number(compared)));
    }
    /// Where everything is known exactly, nothing has a range: a figure that repeats its value as its range
    /// was never gone over.
    void exactInputsLeaveNoRange() {
        for (Project p : rigsToStart()) {
            for (Axis& axis : p.axes)
                for (Estimate* e : estimatesOf(axis)) e->tolerance = 0.0;
            for (MassItem& item : p.payload) item.mass.tolerance = 0.0;
            for (Estimate* e :
                 {&p.supply.voltage, &p.supply.sourceResistance, &p.base.padStiffness, &p.base.padDamping})
                e->tolerance = 0.0;
            // A clamped rail on one head, so that its bolts are judged too.
            if (auto* linear =
                    p.axes.empty() ? nullptr : std::get_if<LinearMechanism>(&p.axes[0].mechanism)) {
                linear->rail.clampBolts = 2;
                linear->rail.clampSpacing = 0.05;
                linear->rail.clampBoltLimit = 2000.0;
            }
            for (std::size_t a = 0; a < p.axes.size(); ++a) {
                const AxisEvaluation nominal = evaluateAxis(p, p.axes[a]);
                const AxisEvaluation spread = axisSpread(p, a, nominal, Searches::Yes);
                results::forEachFigure(
                    [&](const FigureInfo& info, const Figure& n, const Figure& s) {
                        QCOMPARE(s.reason(), n.reason());
                        QVERIFY2(!s || s.value() == 0.0, std::string(info.key).c_str());
                    },
                    nominal, spread);
            }
        }
    }
    void worksOnSeveralAtOnce() {
        ShotEvaluation a, b;
        a.motion.time = Figure::of(3.0);
        b.motion.time = Figure::of(5.0);
        double sum = 0.0;
        results::forEachFigure(
            [&](const FigureInfo& info, const Figure& x, const Figure& y) {
                if (info.key == "time_s") sum = x.value() + y.value();
            },
            a, b);
        QCOMPARE(sum, 8.0);
        // What has no meaning stays without, what had a number has the reason.
        results::failWhatApplies(a, Reason::NoDistance);
        QCOMPARE(a.motion.time.reason(), Reason::NoDistance);
        QCOMPARE(a.motion.topSpeed.reason(), Reason::NotApplicable);
    }
};

QTEST_APPLESS_MAIN(ResultsTest)
#include "results_test.moc"
