// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/belt.h"
#include "core/drivetrain/winch.h"
#include "core/evaluate/evaluate.h"
#include "core/model/acceptable.h"
#include "core/model/fields.h"
#include "core/model/size_limits.h"
#include "core/motion/profile.h"
#include "core/rigs/rigs.h"
#include "core/solve/root.h"
#include "core/tools/limits.h"
#include "core/tools/stall_ladder.h"
#include "core/units/text.h"
#include "core/verdicts/ranges.h"
#include "support/cpu_clock.h"
#include "support/files.h"
#include "support/progress.h"

#include <QTest>
#include <array>
#include <limits>
#include <random>

using namespace gantry;

/// Numbers at the edges of what a double can be, put past the reader straight into a project: nothing throws
/// and nothing runs on.
class ExtremesTest : public QObject {
    Q_OBJECT
    static constexpr double least = std::numeric_limits<double>::denorm_min(),
                            tiny = std::numeric_limits<double>::min(),
                            huge = std::numeric_limits<double>::max();

    static void set(FieldRef& f, double value) {
        if (auto** d = std::get_if<double*>(&f.target)) **d = value;
        if (auto** e = std::get_if<Estimate*>(&f.target)) (*e)->value = value;
    }
    /// Evaluates, judges, ranges and limits; the time that it took [ms].
    static long long run(const Project& p) {
        CpuClock clock;
        clock.start();
        const Assessment a = assess(p);
        for (std::size_t i = 0; i < p.axes.size(); ++i) {
            (void)axisLimits(p, p.axes[i], a.evaluation.axes[i]);
            (void)stallLadder(a.evaluation.axes[i]);
        }
        return clock.elapsed();
    }
    static std::vector<Project> rigs() {
        std::vector<Project> out;
        for (const rigs::RigInfo& info : rigs::all()) out.push_back(rigs::make(info.kind));
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
            out.push_back(demoProject(demo));
        return out;
    }

private slots:
    /// Every field of every rig in its turn, at two of four edges: fields that rigs share meet all of them.
    void everyFieldAtEveryEdge() {
#ifdef __SANITIZE_ADDRESS__
        constexpr std::size_t stride = 20; // all of them take minutes here; Release takes each
#else
        constexpr std::size_t stride = 1;
#endif
        long runs = 0;
        std::size_t turn = 0;
        for (const Project& rig : rigs()) {
            ++turn;
            Project probe = rig;
            const std::size_t fields = allFields(probe).size();
            for (std::size_t i = 0; i < fields; i += stride)
                for (const double value :
                     (i + turn) % 2 == 0 ? std::array{least, 1e-200} : std::array{tiny, 1e-30}) {
                    Project p = rig;
                    auto refs = allFields(p);
                    if (std::holds_alternative<std::string*>(refs[i].target) ||
                        std::holds_alternative<ChoiceRef>(refs[i].target) ||
                        std::holds_alternative<bool*>(refs[i].target) ||
                        std::holds_alternative<int*>(refs[i].target))
                        break;
                    set(refs[i], value);
                    try {
                        const long long took = run(p);
                        QVERIFY2(took < 2000, (refs[i].path + " " + std::to_string(took) + " ms").c_str());
                    } catch (const std::exception& e) {
                        QFAIL((refs[i].path + ": " + e.what()).c_str());
                    }
                    ++runs;
                }
        }
        QVERIFY(runs > 5000 / static_cast<long>(stride));
    }
    /// Several at once, with the ends of their ranges among them.
    void manyFieldsAtOnce() {
        std::mt19937_64 random(17);
        const auto all = rigs();
#ifdef __SANITIZE_ADDRESS__
        constexpr int tries = 120;
#else
        constexpr int tries = 4000;
#endif
        Progress progress("extremes tried", tries);
        for (int i = 0; i < tries; ++i) {
            progress.step();
            Project p = all[random() % all.size()];
            auto refs = allFields(p);
            std::string touched;
            for (std::size_t n = 1 + random() % 12; n > 0; --n) {
                FieldRef& f = refs[random() % refs.size()];
                const double values[]{least, -least, tiny, 1e-160, f.info.min, f.info.max, 0.0, 1e-15};
                set(f, values[random() % 8]);
                touched += f.path + " ";
            }
            try {
                const long long took = run(p);
                QVERIFY2(took < 2000, touched.c_str());
            } catch (const std::exception& e) {
                QFAIL((touched + e.what()).c_str());
            }
        }
    }
    /// As much of everything as a project may hold is still assessed while a person waits.
    void atTheLimitsTheAnswerComesInTime() {
        Project p = rigs::make(rigs::RigKind::MultiAxis);
        const std::vector<Axis> base = p.axes;
        while (p.axes.size() < mostOf("axes")) {
            p.axes.push_back(base[p.axes.size() % base.size()]);
            p.axes.back().id = "axis" + std::to_string(p.axes.size());
        }
        std::size_t parts = 0;
        for (const Axis& a : p.axes)
            parts += a.links.size() + std::visit([](const auto& m) { return m.items.size(); }, a.mechanism);
        for (std::size_t i = 0; parts < mostAxisParts; ++i, ++parts)
            if (Axis& a = p.axes[i % p.axes.size()]; i % 3 == 0) {
                a.links.push_back(BeltStage{});
                linkId(a.links.back()) = "link" + std::to_string(i);
            } else
                std::visit([&](auto& m) { m.items.emplace_back().id = "item" + std::to_string(i); },
                           a.mechanism);
        const Shot like = p.shots.at(0);
        p.shots.clear();
        for (std::size_t moves = 0; p.shots.size() < mostOf("shots") && moves < mostMovements;) {
            Shot s = like;
            s.id = "shot" + std::to_string(p.shots.size());
            s.moves.clear();
            for (int k = 0; k < 8 && moves < mostMovements; ++k, ++moves) {
                const Axis& a = p.axes[(p.shots.size() * 8 + static_cast<std::size_t>(k)) % p.axes.size()];
                s.moves.push_back({a.id, kindOf(a) == AxisKind::Linear
                                             ? Movement(ByTime<AxisKind::Linear>{})
                                             : Movement(ByTime<AxisKind::Rotary>{})});
            }
            p.shots.push_back(std::move(s));
        }
        const auto fill = [](auto& list, const char* key) {
            while (list.size() < mostOf(key)) {
                list.emplace_back().id = std::string(key) + std::to_string(list.size());
            }
        };
        fill(p.payload, "payload");
        fill(p.keepOut, "keep_out");
        fill(p.kits, "kits");
        fill(p.profiles, "profiles");
        fill(p.later, "later");
        fill(p.tests, "tests");
        QCOMPARE(objectionTo(p), std::string());
        CpuClock clock;
        clock.start();
        (void)assess(p);
        qInfo("assessed at the limits in %lld ms", clock.elapsed());
#ifndef __SANITIZE_ADDRESS__
        QVERIFY(clock.elapsed() < 4000); // the bar is 2 s; a busy machine is half as fast
#endif
    }
    /// Each loop that could run on is brought to its bound.
    void loopsHaveBounds() {
        CpuClock clock;
        clock.start();
        // Ladder: a speed that 15 % do not change.
        AxisEvaluation e = evaluateAxis(demoProject(), demoProject().axes[0]);
        e.shots.clear();
        e.model.settings.speed = least;
        QVERIFY(stallLadder(e).size() < 40);
        // Winch: a cord so thin that it takes more layers than any drum.
        const auto layers = drivetrain::layersOf({1e-9, 1e-12, 1e-12, 1e-12}, 0.0, 1e3);
        QVERIFY(std::isfinite(layers.back().turns) && layers.back().place == 1e3);
        QVERIFY(std::isfinite(drivetrain::winchScale({1e-9, 1e-12, 1e-12, 1e-12}, 0.0, 1e3).perTurn));
        // Chain: an acceleration that nothing limits; motion: times that no ramp reaches.
        for (const double d : {least, 1e-300, 1e-12, 1.0, 1e300})
            for (const double t : {least, 1e-300, 1.0, 1e300})
                for (const double v : {least, 1e-9, 1.0, huge})
                    for (const double j : {0.0, least, 1e-9, 1.0, huge}) {
                        const motion::Limits l{v, v, j};
                        (void)motion::plan(d, l);
                        (void)motion::planInTime(d, t, l);
                        (void)motion::fastestRamp(v, l);
                        (void)motion::rampInTime(v, t, j);
                    }
        for (const int teeth : {1, 10, 2000000})
            for (const double pitch : {least, 0.002, 1e10})
                (void)drivetrain::centreForBelt(teeth, 10, pitch, teeth);
        QVERIFY(clock.elapsed() < 2000);
    }
    void rootsNeedABracket() {
        const auto cubic = [](double x) { return x * x * x - 2.0; };
        QVERIFY(std::abs(*solve::rootBetween(cubic, 0.0, 2.0) - std::cbrt(2.0)) < 1e-12);
        QCOMPARE(*solve::rootBetween([](double x) { return x; }, 0.0, 1.0), 0.0);
        for (const auto& [low, high] :
             {std::pair{2.0, 3.0}, {1.0, 0.0}, {0.0, huge * 2}, {std::nan(""), 1.0}})
            QVERIFY(!solve::rootBetween(cubic, low, high));
        QVERIFY(!solve::rootBetween([](double) { return std::nan(""); }, 0.0, 1.0));
        int calls = 0;
        (void)solve::rootBetween([&](double x) { return ++calls, x < 0.5 ? -1.0 : 1.0; }, 0.0, 1.0);
        QVERIFY(calls < 210);
    }
    /// Shown units make large numbers larger; none of them reads "inf".
    void textsAreFiniteOrADash() {
        for (int k = 0; k < static_cast<int>(units::Kind::kindCount_); ++k)
            for (const double v : {huge, -huge, huge / 10, least, -least, 0.0, std::nan(""), HUGE_VAL}) {
                const auto kind = static_cast<units::Kind>(k);
                for (const units::System s : {units::System::Metric, units::System::Inch})
                    for (const std::string& text :
                         {units::format(v, kind, s), units::formatNumber(v, kind, s),
                          units::formatForEditing(v, kind, s), units::formatForField(v, kind, s)})
                        QVERIFY2(text.find("inf") == std::string::npos &&
                                     text.find("nan") == std::string::npos,
                                 text.c_str());
            }
        for (const char* typed : {"1e308 m", "1e308 in", "1e999", "1e308 rev", "1/1e-320", "1e-320 mm"})
            for (const auto kind : {units::Kind::Length, units::Kind::Angle, units::Kind::Speed}) {
                const auto r = units::parse(typed, kind, units::System::Metric);
                if (const auto* v = std::get_if<double>(&r)) QVERIFY(std::isfinite(*v));
            }
    }
};

QTEST_APPLESS_MAIN(ExtremesTest)
#include "extremes_test.moc"
