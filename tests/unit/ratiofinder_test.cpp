// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ratiofinder/arrange.h"
#include "core/ratiofinder/finder.h"
#include "support/files.h"
#include "support/near.h"
#include "support/plain_search.h"

#include <QTest>
#include <map>
#include <random>

using namespace gantry::ratiofinder;
using gantry::drivetrain::Ratio;

namespace {

struct PlainBest {
    double error = 1e9;
    int sets = 0;
};

/// Least error for exactly so many stages, and how many sets of wheels reach it.
PlainBest plainBest(const std::vector<Wheel>& wheels, int stages, const Ratio& target) {
    std::set<std::pair<std::vector<int>, std::vector<int>>> sets;
    PlainBest best;
    plainSearch(wheels, stages, [&](std::vector<int> d, std::vector<int> g) {
        long double p = 1, q = 1;
        for (const int i : g) p *= wheels[static_cast<std::size_t>(i)].teeth;
        for (const int i : d) q *= wheels[static_cast<std::size_t>(i)].teeth;
        const double error =
            static_cast<double>(std::abs(p / q /
                                             (static_cast<long double>(target.numerator()) /
                                              static_cast<long double>(target.denominator())) -
                                         1));
        if (error > best.error + 1e-13) return;
        if (error < best.error - 1e-13) {
            best.error = error;
            sets.clear();
        }
        std::sort(d.begin(), d.end());
        std::sort(g.begin(), g.end());
        sets.insert({d, g});
    });
    best.sets = static_cast<int>(sets.size());
    return best;
}

Ratio decimal(const std::string& text) {
    // "31.4159265" or "1436.06818/60", exactly.
    const auto slash = text.find('/');
    const std::string number = text.substr(0, slash);
    const auto point = number.find('.');
    std::int64_t digits = 0, scale = 1;
    for (std::size_t i = 0; i < number.size(); ++i) {
        if (i == point) continue;
        digits = digits * 10 + (number[i] - '0');
        if (point != std::string::npos && i > point) scale *= 10;
    }
    const std::int64_t divisor = slash == std::string::npos ? 1 : std::stoll(text.substr(slash + 1));
    return *Ratio::of(digits, scale * divisor);
}

} // namespace

class RatioFinderTest : public QObject {
    Q_OBJECT
private slots:
    void workedCases() {
        const auto cases = referenceCases("t09_gears");
        QVERIFY(!cases.empty());
        for (const auto& c : cases) {
            std::vector<Wheel> wheels;
            for (const auto& [teeth, count] : c["inputs"]["bin"].items())
                wheels.push_back({std::stoi(teeth), count, 0, count, 0.008});
            const Bin bin(wheels, {{"module 1", true, 0.001, 0.95, 0.003}});
            Query q;
            q.target = decimal(c["inputs"]["target"]);
            const auto trains = bin.find(q);
            QVERIFY(!trains.empty());
            VERIFY_NEAR(std::abs(trains[0].error), c["expected"]["best_rel_error"].get<double>(), 1e-9);
            // The fewest stages that reach it.
            QCOMPARE(static_cast<int>(trains[0].stages.size()),
                     c["expected"]["best_stage_counts"][0].get<int>());
            for (const auto& [stages, expected] : c["expected"]["per_stage_count"].items()) {
                Query one = q;
                one.leastStages = one.mostStages = std::stoi(stages);
                one.most = 1;
                const auto best = bin.find(one);
                VERIFY_NEAR(std::abs(best.at(0).error), expected["rel_error"].get<double>(), 1e-9);
                QCOMPARE(best[0].gearSets, expected["distinct_gear_sets"].get<int>());
            }
        }
    }
    /// Random small bins with two families against plain recursion.
    void provenByBruteForce() {
        std::mt19937_64 random(20261123);
        const auto below = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
        for (int round = 0; round < 60; ++round) {
            std::vector<Wheel> wheels;
            std::set<std::pair<int, int>> sizes;
            while (static_cast<int>(wheels.size()) < 4 + below(4)) {
                Wheel w{10 + below(50), 1 + below(3), below(2), 1, 0.008};
                w.onHand = w.count;
                if (sizes.insert({w.teeth, w.family}).second) wheels.push_back(w);
            }
            const Bin bin(wheels, {{"a", true, 0.001, 0.95, 0.0}, {"b", false, 0.0006, 0.95, 0.0}});
            Query q;
            q.target = *Ratio::of(100 + below(4000), 100 + below(300));
            for (int stages = 1; stages <= (round < 20 ? 4 : 3); ++stages) {
                q.leastStages = q.mostStages = stages;
                q.most = 1;
                const auto found = bin.find(q);
                const PlainBest best = plainBest(wheels, stages, q.target);
                if (best.sets == 0) {
                    QVERIFY(found.empty());
                    continue;
                }
                QVERIFY(std::abs(std::abs(found.at(0).error) - best.error) < 1e-12);
                // A ratio and its mirror at the same error are two ratios; the sets of the one found are
                // among these.
                QVERIFY(found[0].gearSets <= best.sets && found[0].gearSets >= 1);
            }
        }
    }
    /// The whole list, not only its head: twenty ratios of a small bin in the order of plain search.
    void listIsComplete() {
        std::vector<Wheel> wheels;
        for (const int t : {12, 15, 20, 28, 36, 45}) wheels.push_back({t, 2, 0, 2, 0.008});
        const Bin bin(wheels, {{"m1", true, 0.001, 0.95, 0.0}});
        Query q;
        q.target = *Ratio::of(355, 113);
        q.mostStages = 3;
        std::map<double, int> plain; // |error| → least stages
        for (int stages = 1; stages <= 3; ++stages)
            plainSearch(wheels, stages, [&](const auto& d, const auto& g) {
                Ratio r;
                for (std::size_t i = 0; i < d.size(); ++i)
                    r = *r.times(*Ratio::of(wheels[static_cast<std::size_t>(g[i])].teeth,
                                            wheels[static_cast<std::size_t>(d[i])].teeth));
                plain.try_emplace(std::abs(r.value() / q.target.value() - 1), stages);
            });
        const auto trains = bin.find(q);
        QCOMPARE(trains.size(), std::size_t(20));
        auto it = plain.begin();
        for (const Train& t : trains) {
            VERIFY_NEAR(std::abs(t.error), it->first, 1e-12);
            QCOMPARE(static_cast<int>(t.stages.size()), it->second);
            ++it;
        }
    }
    void onlyFitsMesh() {
        // A perfect 3:1 exists only across modules.
        const Bin bin({{20, 1, 0, 1, 0.01}, {60, 1, 1, 1, 0.01}, {50, 1, 0, 1, 0.01}},
                      {{"m1", true, 0.001}, {"m0.8", true, 0.0008}});
        Query q;
        q.target = *Ratio::of(3, 1);
        for (const Train& t : bin.find(q))
            for (const Stage& s : t.stages)
                QCOMPARE(bin.wheels()[static_cast<std::size_t>(s.driver)].family,
                         bin.wheels()[static_cast<std::size_t>(s.driven)].family);
        QVERIFY(std::abs(bin.find(q).at(0).error) > 0.1);
    }
    void limitsHold() {
        std::vector<Wheel> wheels;
        for (const int t : {15, 20, 30, 45, 60, 90}) wheels.push_back({t, 2, 0, 2, 0.008});
        const Bin bin(wheels, {{"m1", true, 0.001, 0.9, 0.004}});
        Query q;
        q.target = *Ratio::of(9, 1);
        q.sense = Sense::Opposite;
        for (const Train& t : bin.find(q)) QCOMPARE(t.stages.size() % 2, std::size_t(1));
        q.sense = Sense::Any;
        q.leastEfficiency = 0.8;
        for (const Train& t : bin.find(q)) QVERIFY(t.stages.size() <= 2);
        q.leastEfficiency = 0;
        q.largestDiameter = 0.061;
        for (const Train& t : bin.find(q))
            for (const Stage& s : t.stages) QVERIFY(wheels[static_cast<std::size_t>(s.driven)].teeth <= 60);
        q.largestDiameter = 0;
        q.accept = [](const Ratio& r) { return 200 * r.numerator() % r.denominator() == 0; };
        for (const Train& t : bin.find(q)) QCOMPARE(200 * t.ratio.numerator() % t.ratio.denominator(), 0);
    }
    void ownedWheelsComeFirst() {
        // Both reach 4:1; one has to be bought.
        const Bin bin(
            {{15, 1, 0, 0, 0.008}, {60, 1, 0, 0, 0.008}, {20, 1, 0, 1, 0.008}, {80, 1, 0, 1, 0.008}},
            {{"m1", true, 0.001}});
        Query q;
        q.target = *Ratio::of(4, 1);
        q.mostStages = 1;
        const auto trains = bin.find(q);
        QCOMPARE(trains.at(0).toBuy, 0);
        QCOMPARE(trains[0].gearSets, 2);
    }
    void arrangementHasLeastInertia() {
        const std::vector<Wheel> wheels{
            {12, 1, 0, 1, 0.01}, {20, 1, 0, 1, 0.01}, {40, 1, 0, 1, 0.01}, {60, 1, 0, 1, 0.01}};
        const std::vector<Family> families{{"m1", true, 0.001, 0.9, 0.01}};
        const std::array drivers{0, 1}, driven{2, 3};
        const Train t = arranged(wheels, families, drivers, driven);
        // By hand, all four arrangements.
        double least = 1e9;
        for (const auto& [d, g] : {std::pair{std::array{0, 1}, std::array{2, 3}},
                                   {{0, 1}, {3, 2}},
                                   {{1, 0}, {2, 3}},
                                   {{1, 0}, {3, 2}}}) {
            const auto j = [&](int i) {
                return wheelInertia(wheels[static_cast<std::size_t>(i)], families[0]);
            };
            const double i1 = static_cast<double>(wheels[static_cast<std::size_t>(g[0])].teeth) /
                              wheels[static_cast<std::size_t>(d[0])].teeth;
            const double whole = 10.0;
            least = std::min(least, j(d[0]) + (j(g[0]) + j(d[1])) / (i1 * i1) + j(g[1]) / (whole * whole));
        }
        VERIFY_NEAR(t.inertia, least, 1e-12);
        VERIFY_NEAR(t.efficiency, 0.81, 1e-12);
        QVERIFY(!t.reverses);
    }
    void changeGearsServeSeveralSpeeds() {
        std::vector<Wheel> wheels;
        for (int t = 20; t <= 60; t += 4) wheels.push_back({t, 1, 0, 1, 0.008});
        const Bin bin(wheels, {{"m1", true, 0.001}});
        const std::array targets{*Ratio::of(1, 2), *Ratio::of(2, 1)};
        const auto found = findChangeGears(bin, targets, 0, true, 5);
        QVERIFY(!found.empty());
        // The same pair turned round serves both exactly.
        VERIFY_NEAR(1.0 + found[0].worstError, 1.0, 1e-12);
        const auto sum = [&](const Stage& s) {
            return wheels[static_cast<std::size_t>(s.driver)].teeth +
                   wheels[static_cast<std::size_t>(s.driven)].teeth;
        };
        QCOMPARE(sum(found[0].swapped[0]), sum(found[0].swapped[1]));
        const std::array three{*Ratio::of(3, 1), *Ratio::of(5, 1), *Ratio::of(7, 1)};
        const auto with = findChangeGears(bin, three, 1, false, 3),
                   without = findChangeGears(bin, three, 0, false, 3);
        QVERIFY(with.at(0).worstError < without.at(0).worstError);
    }
    void stopsWhenAsked() {
        std::vector<Wheel> wheels;
        for (int t = 12; t < 52; ++t) wheels.push_back({t, 2, 0, 2, 0.008});
        const Bin bin(wheels, {{"m1", true, 0.001}});
        std::stop_source stop;
        stop.request_stop();
        Query q;
        q.target = *Ratio::of(31415926, 1000000);
        QVERIFY(bin.find(q, stop.get_token()).size() <= 20);
    }
};

QTEST_APPLESS_MAIN(RatioFinderTest)
#include "ratiofinder_test.moc"
