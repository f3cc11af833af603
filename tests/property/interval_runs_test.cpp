// SPDX-License-Identifier: GPL-3.0-or-later
// Whole runs of interval plans: the closed forms against runs that are walked picture by picture and event by
// event.
#include "core/intervals/budget.h"
#include "core/intervals/facts.h"
#include "core/intervals/run_times.h"
#include "support/dice.h"
#include "support/near.h"

#include <QElapsedTimer>
#include <QTest>
#include <algorithm>
#include <iostream>
#include <map>

using namespace gantry::intervals;

namespace {

constexpr double microsecond = 1e-6;

/// A run as something that happens, one picture after the other.
struct Walked {
    std::vector<double> opened, counted;
    std::vector<std::int64_t> lost;
};

struct Drawn {
    Gaps gaps;
    Budget budget;
    std::vector<CameraTimes> cameras;
    std::vector<Stand> pauses;
    std::vector<Missed> missed;
    MissedRule rule = MissedRule::Waits;
};

Walked walk(const Drawn& d, double need, double again) {
    Walked out;
    std::map<std::int64_t, Missed> faults;
    for (const Missed& m : d.missed) faults[m.picture] = m;
    double opens = 0.0, readyFrom = 0.0;
    bool putOff = false;
    for (std::int64_t k = 0; k < d.gaps.pictures; ++k) {
        if (k > 0) {
            opens += d.gaps.gap(k - 1);
            if (putOff) opens = std::max(opens, readyFrom + need);
        }
        for (const Stand& p : d.pauses)
            if (opens >= p.from && opens < p.to) opens = p.to;
        out.opened.push_back(opens);
        double counts = opens;
        putOff = false;
        if (const auto fault = faults.find(k); fault != faults.end()) {
            if (d.rule == MissedRule::Skips || d.rule == MissedRule::Stops) out.lost.push_back(k);
            if (d.rule == MissedRule::Repeats)
                for (int i = 0; i < fault->second.tries; ++i) counts += again;
            readyFrom = d.rule == MissedRule::Waits ? opens + fault->second.waited : counts;
            putOff = readyFrom > opens;
        }
        out.counted.push_back(counts);
        if (!out.lost.empty() && d.rule == MissedRule::Stops) break;
    }
    return out;
}

} // namespace

class IntervalRunsTest : public QObject, Dice {
    Q_OBJECT
public:
    IntervalRunsTest() : Dice(17) {}

private:
    Drawn draw(int round) {
        Drawn d;
        d.budget.order = round % 2 == 0 ? Order::MoveFirst : Order::PictureFirst;
        d.budget.writesWhileMoving = round % 3 != 0;
        d.budget.move = within(0.1, 3.0);
        d.budget.settle = within(0.0, 2.0);
        d.cameras.resize(static_cast<std::size_t>(1 + round % 2));
        for (CameraTimes& c : d.cameras)
            c = {within(0.0, 1.0), within(0.0, 0.3), within(0.001, 4.0), within(0.0, 3.0)};
        const double least = budgetOf(d.budget, d.cameras).least;
        d.gaps = {static_cast<std::int64_t>(within(1.0, 120.0)), least * within(1.0, 3.0),
                  least * within(1.0, 3.0), static_cast<GapLaw>(round % 3)};
        double at = 0.0;
        for (int i = 0; i < round % 5; ++i) {
            at += within(0.0, 40.0) * least;
            const double to = at + within(0.1, 20.0) * least;
            d.pauses.push_back({at, to});
            at = to + 1e-3;
        }
        std::int64_t picture = -1;
        for (int i = 0; i < round % 7; ++i) {
            picture += static_cast<std::int64_t>(within(1.0, 30.0));
            d.missed.push_back({picture, static_cast<int>(within(1.0, 4.0)), within(0.0, 4.0) * least});
        }
        d.rule = static_cast<MissedRule>(round % 4);
        return d;
    }

private slots:
    /// Counts exact, times to a microsecond, over 20,000 drawn plans.
    void closedFormsAreThoseOfTheWalk() {
        std::int64_t pictures = 0, put = 0, again = 0;
        for (int round = 0; round < 20000; ++round) {
            const Drawn d = draw(round);
            const BudgetResults b = budgetOf(d.budget, d.cameras);
            const RunTimes run(d.gaps, b.least, b.camera, d.pauses, d.missed, d.rule);
            const Walked walked = walk(d, b.least, b.camera);
            QCOMPARE(run.pictures(), static_cast<std::int64_t>(walked.opened.size()));
            QCOMPARE(run.lost(), walked.lost);
            for (std::size_t k = 0; k < walked.opened.size(); ++k) {
                VERIFY_NEAR_ABS(run.opens(static_cast<std::int64_t>(k)), walked.opened[k], microsecond);
                VERIFY_NEAR_ABS(run.counts(static_cast<std::int64_t>(k)), walked.counted[k], microsecond);
                again += walked.counted[k] > walked.opened[k];
            }
            pictures += run.pictures();
            put += run.late() > 0.0;
            // Undisturbed it takes what the three facts say.
            if (d.gaps.law == GapLaw::Even) {
                const RunTimes plain(d.gaps, b.least, b.camera, {}, {}, d.rule);
                const double exposure = d.cameras[0].exposure;
                VERIFY_NEAR_ABS(plain.opens(plain.pictures() - 1) + exposure,
                                durationOf(d.gaps.pictures, d.gaps.first, exposure), microsecond);
                VERIFY_NEAR_ABS(plain.late(), 0.0, 0.0);
            }
        }
        std::cout << pictures << " pictures, " << put << " runs put off, " << again << " taken again"
                  << std::endl;
        QVERIFY(put > 5000 && again > 5000);
    }

    /// Every run as events of the rig and its cameras: nothing moves while a shutter is open or is about to,
    /// no camera is woken before it is ready.
    void nothingMovesWhileAShutterIsOpen() {
        for (int round = 0; round < 4000; ++round) {
            Drawn d = draw(round);
            d.rule = round % 2 == 0 ? MissedRule::Waits : MissedRule::Repeats;
            const BudgetResults b = budgetOf(d.budget, d.cameras);
            const RunTimes run(d.gaps, b.least, b.camera, d.pauses, d.missed, d.rule);
            double wakes = 0.0, closes = 0.0, ready = 0.0;
            for (const CameraTimes& c : d.cameras) {
                wakes = std::max(wakes, c.focus + c.lag);
                closes = std::max(closes, c.toClosed());
                ready = std::max(ready, c.toReady());
            }
            const double first = d.cameras[0].focus + d.cameras[0].lag;
            for (std::int64_t k = 1; k < run.pictures(); ++k) {
                // Counted from the trigger, which the times of both pictures share.
                const double before = run.counts(k - 1) - first, next = run.opens(k) - first;
                const double free = before + (d.budget.writesWhileMoving ? closes : ready);
                QVERIFY(next - free >= d.budget.move + d.budget.settle - microsecond);
                QVERIFY(next - before >= ready - microsecond);
            }
        }
    }

    /// Any of half a million pictures at once, with all pauses of a year.
    void aYearCostsNothing() {
        std::vector<Stand> nights;
        for (int day = 0; day < 365; ++day)
            nights.push_back({day * 86400.0 + 61200.0, day * 86400.0 + 115200.0});
        const Gaps gaps{500000, 60.0};
        QElapsedTimer clock;
        clock.start();
        const RunTimes run(gaps, 10.0, 5.0, nights, {}, MissedRule::Skips);
        double sum = 0.0;
        for (std::int64_t k = 0; k < run.pictures(); k += 500) sum += run.opens(k);
        const double ms = static_cast<double>(clock.nsecsElapsed()) * 1e-6;
        std::cout << "a year and a thousand of its pictures: " << ms << " ms" << std::endl;
        QVERIFY(sum > 0.0);
        QVERIFY(ms < 30.0);
        // The whole list in order: each picture later than the one before, none of them at night.
        double before = -1.0;
        std::size_t night = 0;
        for (std::int64_t k = 0; k < run.pictures(); ++k) {
            const double at = run.opens(k);
            QVERIFY(at > before);
            before = at;
            while (night < nights.size() && nights[night].to <= at) ++night;
            QVERIFY(night == nights.size() || at < nights[night].from || at >= nights[night].to);
        }
    }
};

QTEST_APPLESS_MAIN(IntervalRunsTest)
#include "interval_runs_test.moc"
