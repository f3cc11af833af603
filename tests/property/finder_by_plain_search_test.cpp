// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ratiofinder/finder.h"
#include "support/near.h"
#include "support/plain_search.h"

#include <QTest>
#include <algorithm>
#include <map>
#include <numbers>
#include <random>

using namespace gantry::ratiofinder;
using gantry::drivetrain::Ratio;

namespace {

struct Random {
    std::mt19937 engine;
    int of(int low, int high) { return std::uniform_int_distribution<int>(low, high)(engine); }
    double between(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    }
    bool sometimes() { return of(0, 1) == 1; }
};

struct Shop {
    std::vector<Wheel> wheels;
    std::vector<Family> families;
    const Wheel& wheel(int i) const { return wheels[static_cast<std::size_t>(i)]; }
    const Family& family(int wheelIndex) const {
        return families[static_cast<std::size_t>(wheel(wheelIndex).family)];
    }
    double diameter(int i) const { return wheel(i).teeth * family(i).module; }
    /// A solid disc of 2 g/cm³.
    double inertia(int i) const {
        const double r = diameter(i) / 2;
        return std::numbers::pi * r * r * wheel(i).width * 2000.0 * r * r / 2;
    }
    double ratio(const Stage& s) const {
        return static_cast<double>(wheel(s.driven).teeth) / wheel(s.driver).teeth;
    }
};

/// Two families, of gears and of pulleys, in sizes that give many equal ratios.
Shop randomShop(Random& r) {
    Shop shop;
    shop.families = {
        {"gears", true, r.between(0.0005, 0.002), r.between(0.85, 0.99), r.between(0.0, 0.01)},
        {"pulleys", false, r.between(0.0005, 0.002), r.between(0.85, 0.99), r.between(0.0, 0.01)}};
    for (int i = r.of(4, 6); i > 0; --i) {
        const int count = r.of(1, 3);
        shop.wheels.push_back({6 * r.of(2, 9), count, r.of(0, 1), r.of(0, count), r.between(0.004, 0.02)});
    }
    return shop;
}

/// What is told of stages in this order, from the motor on.
Train told(const Shop& shop, const std::vector<Stage>& stages) {
    Train t;
    t.stages = stages;
    double before = 1.0;
    std::map<int, int> used;
    for (const Stage& s : stages) {
        t.inertia += shop.inertia(s.driver) / (before * before);
        before *= shop.ratio(s);
        t.inertia += shop.inertia(s.driven) / (before * before);
        t.size += (shop.diameter(s.driver) + shop.diameter(s.driven)) / 2;
        t.efficiency *= shop.family(s.driver).efficiency;
        t.reverses ^= shop.family(s.driver).gears;
        ++used[s.driver];
        ++used[s.driven];
    }
    for (const Stage& s : stages) {
        // A stage's play is seen at the output after what stands behind it has divided it.
        before /= shop.ratio(s);
        t.backlash += shop.family(s.driver).backlash / before;
    }
    for (const auto& [wheel, n] : used) t.toBuy += std::max(0, n - shop.wheel(wheel).onHand);
    return t;
}

/// The best of all orders of drivers and of driven wheels.
Train bestOrder(const Shop& shop, std::vector<int> drivers, std::vector<int> driven) {
    Train best;
    best.inertia = 1e300;
    std::sort(drivers.begin(), drivers.end());
    do {
        std::sort(driven.begin(), driven.end());
        do {
            std::vector<Stage> stages;
            bool meshes = true;
            for (std::size_t i = 0; i < drivers.size(); ++i) {
                stages.push_back({drivers[i], driven[i]});
                meshes = meshes && shop.wheel(drivers[i]).family == shop.wheel(driven[i]).family;
            }
            if (!meshes) continue;
            const Train t = told(shop, stages);
            if (t.inertia < best.inertia * (1 - 1e-11)) best = t;
        } while (std::next_permutation(driven.begin(), driven.end()));
    } while (std::next_permutation(drivers.begin(), drivers.end()));
    return best;
}

bool allowed(const Shop& shop, const Query& q, const Train& t) {
    for (const Stage& s : t.stages)
        if (q.largestDiameter > 0 &&
            std::max(shop.diameter(s.driver), shop.diameter(s.driven)) > q.largestDiameter)
            return false;
    return t.efficiency >= q.leastEfficiency && (q.largestBacklash <= 0 || t.backlash <= q.largestBacklash) &&
           (q.sense == Sense::Any || t.reverses == (q.sense == Sense::Opposite)) &&
           (!q.accept || q.accept(t.ratio));
}

/// All trains of different ratio in the order that finder.h promises, by forming every set of wheels.
std::vector<Train> plainList(const Shop& shop, const Query& q) {
    std::map<std::pair<std::int64_t, std::int64_t>, Train> byRatio;
    for (int stages = q.leastStages; stages <= q.mostStages; ++stages) {
        std::map<std::pair<std::vector<int>, std::vector<int>>, bool> sets;
        plainSearch(shop.wheels, stages, [&](std::vector<int> d, std::vector<int> g) {
            std::sort(d.begin(), d.end());
            std::sort(g.begin(), g.end());
            sets[{d, g}] = true;
        });
        std::map<std::pair<std::int64_t, std::int64_t>, Train> here;
        for (const auto& [set, yes] : sets) {
            Train t = bestOrder(shop, set.first, set.second);
            for (const Stage& s : t.stages)
                t.ratio = *t.ratio.times(*Ratio::of(shop.wheel(s.driven).teeth, shop.wheel(s.driver).teeth));
            t.error = t.ratio.value() / q.target.value() - 1.0;
            if (!allowed(shop, q, t)) continue;
            const auto key = std::pair(t.ratio.numerator(), t.ratio.denominator());
            if (byRatio.contains(key)) continue; // fewer stages do it
            auto [it, isNew] = here.try_emplace(key, t);
            if (isNew) continue;
            const int gearSets = it->second.gearSets + 1;
            if (std::tuple(t.toBuy, t.inertia, t.size) <
                std::tuple(it->second.toBuy, it->second.inertia, it->second.size))
                it->second = t;
            it->second.gearSets = gearSets;
        }
        byRatio.merge(here);
    }
    std::vector<Train> out;
    for (const auto& [key, t] : byRatio) out.push_back(t);
    std::sort(out.begin(), out.end(), [&](const Train& x, const Train& y) {
        if (std::abs(std::abs(x.error) - std::abs(y.error)) > 1e-13)
            return std::abs(x.error) < std::abs(y.error);
        return std::tuple(x.stages.size(), x.toBuy, x.inertia) <
               std::tuple(y.stages.size(), y.toBuy, y.inertia);
    });
    if (out.size() > q.most) out.resize(q.most);
    return out;
}

/// The least worst errors that so many fixed stages and one swapped mesh allow, best first.
std::vector<double> plainChangeGears(const Shop& shop, const std::vector<Ratio>& targets, int fixedStages,
                                     bool sameCentre) {
    std::vector<double> out;
    std::map<std::vector<std::pair<int, int>>, bool> seen;
    const auto withFixed = [&](const std::vector<int>& d, const std::vector<int>& g) {
        std::vector<std::pair<int, int>> key;
        for (std::size_t i = 0; i < d.size(); ++i) key.emplace_back(d[i], g[i]);
        std::sort(key.begin(), key.end());
        if (std::exchange(seen[key], true)) return;
        double ratio = 1.0;
        std::vector<int> left;
        for (const Wheel& w : shop.wheels) left.push_back(w.count);
        for (std::size_t i = 0; i < d.size(); ++i) {
            ratio *= shop.ratio({d[i], g[i]});
            --left[static_cast<std::size_t>(d[i])];
            --left[static_cast<std::size_t>(g[i])];
        }
        // Nearest mesh for each target, within a family and, on fixed shafts, a sum of teeth.
        std::map<std::pair<int, int>, std::vector<Stage>> groups;
        for (int a = 0; a < static_cast<int>(left.size()); ++a)
            for (int b = 0; b < static_cast<int>(left.size()); ++b)
                if (shop.wheel(a).family == shop.wheel(b).family)
                    groups[{shop.wheel(a).family, sameCentre ? shop.wheel(a).teeth + shop.wheel(b).teeth : 0}]
                        .push_back({a, b});
        for (const auto& [group, meshes] : groups) {
            double worst = 0.0;
            for (const Ratio& target : targets) {
                double nearest = 1e300;
                for (const Stage& m : meshes) {
                    auto rest = left;
                    const bool there = --rest[static_cast<std::size_t>(m.driver)] >= 0;
                    if (--rest[static_cast<std::size_t>(m.driven)] < 0 || !there) continue;
                    nearest = std::min(nearest, std::abs(ratio * shop.ratio(m) / target.value() - 1.0));
                }
                worst = std::max(worst, nearest);
            }
            if (worst < 1e300) out.push_back(worst);
        }
    };
    if (fixedStages == 0)
        withFixed({}, {});
    else
        plainSearch(shop.wheels, fixedStages, withFixed);
    std::sort(out.begin(), out.end());
    return out;
}

} // namespace

/// The finder against the plain way to do the same: every set of wheels formed, every order tried.
class FinderByPlainSearchTest : public QObject {
    Q_OBJECT
private slots:
    void listsAreThoseOfPlainSearch() {
        Random r{std::mt19937(4)};
        int trains = 0, ties = 0;
        for (int round = 0; round < 150; ++round) {
            const Shop shop = randomShop(r);
            Query q;
            q.target = *Ratio::of(r.of(1, 40), r.of(1, 12));
            q.leastStages = r.of(1, 2);
            q.mostStages = r.of(q.leastStages, round % 10 == 0 ? 4 : 3);
            q.most = static_cast<std::size_t>(r.of(1, 25));
            if (r.sometimes()) q.largestDiameter = r.between(0.02, 0.1);
            if (r.sometimes()) q.leastEfficiency = r.between(0.6, 0.95);
            if (r.sometimes()) q.largestBacklash = r.between(0.001, 0.02);
            if (r.sometimes()) q.sense = r.sometimes() ? Sense::Same : Sense::Opposite;
            if (r.sometimes()) q.accept = [](const Ratio& x) { return x.numerator() % 2 == 0; };
            const Bin bin(shop.wheels, shop.families);
            const std::vector<Train> found = bin.find(q), plain = plainList(shop, q);
            QCOMPARE(found.size(), plain.size());
            for (std::size_t i = 0; i < found.size(); ++i) {
                const Train &t = found[i], &p = plain[i];
                ++trains;
                ties += p.gearSets > 1;
                const QByteArray what =
                    QByteArray::number(round) + ": " + QByteArray::number(static_cast<int>(i));
                QVERIFY2(t.ratio == p.ratio && isNear(t.error, p.error, 1e-12, 1e-14), what);
                QVERIFY2(t.stages.size() == p.stages.size() && t.toBuy == p.toBuy && t.gearSets == p.gearSets,
                         what);
                QVERIFY2(isNear(t.inertia, p.inertia, 1e-10, 0.0), what);
                // Its own figures, of the order in which it stands.
                const Train own = told(shop, t.stages);
                QVERIFY2(isNear(t.size, own.size, 1e-12) && isNear(t.efficiency, own.efficiency, 1e-12) &&
                             isNear(t.backlash, own.backlash, 1e-10) &&
                             isNear(t.inertia, own.inertia, 1e-10, 0.0),
                         what);
                QVERIFY2(t.reverses == own.reverses && t.toBuy == own.toBuy, what);
            }
        }
        QVERIFY2(trains > 500 && ties > 100, qPrintable(QStringLiteral("%1 %2").arg(trains).arg(ties)));
    }
    void changeGearsAreThoseOfPlainSearch() {
        Random r{std::mt19937(5)};
        int found = 0;
        for (int round = 0; round < 120; ++round) {
            const Shop shop = randomShop(r);
            std::vector<Ratio> targets;
            for (int i = r.of(1, 3); i > 0; --i) targets.push_back(*Ratio::of(r.of(1, 12), r.of(1, 4)));
            const int fixedStages = r.of(0, 2);
            const bool sameCentre = r.sometimes();
            const std::size_t most = static_cast<std::size_t>(r.of(1, 9));
            const auto out =
                findChangeGears(Bin(shop.wheels, shop.families), targets, fixedStages, sameCentre, most);
            const std::vector<double> plain = plainChangeGears(shop, targets, fixedStages, sameCentre);
            QCOMPARE(out.size(), std::min(most, plain.size()));
            for (std::size_t i = 0; i < out.size(); ++i) {
                QVERIFY(isNear(out[i].worstError, plain[i], 1e-10, 1e-13));
                QCOMPARE(static_cast<int>(out[i].fixed.size()), fixedStages);
                QCOMPARE(out[i].swapped.size(), targets.size());
                double fixedRatio = 1.0, worst = 0.0;
                for (const Stage& s : out[i].fixed) fixedRatio *= shop.ratio(s);
                for (std::size_t k = 0; k < targets.size(); ++k) {
                    const Stage& s = out[i].swapped[k];
                    worst = std::max(worst, std::abs(fixedRatio * shop.ratio(s) / targets[k].value() - 1.0));
                    // Each of them can be put on with what is not in the fixed stages.
                    std::map<int, int> used{{s.driver, 1}};
                    ++used[s.driven];
                    for (const Stage& f : out[i].fixed) ++used[f.driver], ++used[f.driven];
                    for (const auto& [wheel, n] : used) QVERIFY(n <= shop.wheel(wheel).count);
                    const auto sum = [&](const Stage& m) {
                        return shop.wheel(m.driver).teeth + shop.wheel(m.driven).teeth;
                    };
                    if (sameCentre) QCOMPARE(sum(s), sum(out[i].swapped[0]));
                }
                QVERIFY(isNear(worst, out[i].worstError, 1e-10, 1e-13));
                ++found;
            }
        }
        QVERIFY(found > 200);
    }
};

QTEST_APPLESS_MAIN(FinderByPlainSearchTest)
#include "finder_by_plain_search_test.moc"
