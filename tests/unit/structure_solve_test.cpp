// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/structure_solve.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/optics/picture.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>
#include <random>

using namespace gantry;
using namespace hand;

/// What the structure's solvers propose: stands, counterweights, discs for each kit, sections to try.
class StructureSolveTest : public QObject {
    Q_OBJECT
    static Section section(SectionShape shape, double width, double height, double wall = 0.002) {
        Section s;
        s.shape = shape;
        s.width = width;
        s.height = height;
        s.wall = wall;
        s.price = 10.0;
        return s;
    }
    /// Moment of the level arm without what is behind it [kg·m]: tube of 2.8 m whose middle lies 0.6 m before
    /// the pivot, and what hangs on it.
    static double momentOf(Project& p) {
        double m = tubeMass() * 2.8 * 0.6;
        for (const MassItem& i : boom(p).items) m += i.mass.value * i.along;
        return m;
    }

private slots:
    void stockSectionsByHand() {
        struct Row {
            const char* name;
            Section like;
            std::vector<std::array<double, 4>> wanted; ///< width, height, wall [mm], turned
        };
        const Row rows[] = {
            {"profile 40 x 40",
             section(SectionShape::SlottedProfile, 0.04, 0.04),
             {{30, 30, 2, 0}, {45, 45, 2, 0}, {60, 60, 2, 0}, {40, 80, 2, 0}}},
            {"profile 20 x 20, none smaller",
             section(SectionShape::SlottedProfile, 0.02, 0.02),
             {{30, 30, 2, 0}, {40, 40, 2, 0}, {20, 40, 2, 0}}},
            {"profile 80 x 40",
             section(SectionShape::SlottedProfile, 0.08, 0.04),
             {{60, 60, 2, 0}, {40, 80, 2, 0}, {80, 40, 2, 1}}},
            {"box 40 x 40",
             section(SectionShape::HollowRectangle, 0.04, 0.04),
             {{30, 30, 2, 0}, {50, 50, 2, 0}, {60, 60, 2, 0}, {40, 40, 3, 0}}},
            {"box 20 x 50",
             section(SectionShape::HollowRectangle, 0.02, 0.05),
             {{40, 40, 2, 0}, {60, 60, 2, 0}, {80, 80, 2, 0}, {20, 50, 3, 0}, {20, 50, 2, 1}}},
            {"tube 25, its height means nothing",
             section(SectionShape::RoundTube, 0.025, 0.1),
             {{20, 20, 2, 0}, {30, 30, 2, 0}, {40, 40, 2, 0}, {25, 100, 3, 0}}},
            {"rods of 16",
             section(SectionShape::RodPair, 0.016, 0.1),
             {{20, 100, 2, 0}, {25, 100, 2, 0}, {30, 100, 2, 0}}},
            {"plank",
             section(SectionShape::SolidRectangle, 0.1, 0.02),
             {{100, 25, 2, 0}, {100, 30, 2, 0}, {100, 40, 2, 0}, {100, 20, 2, 1}}},
            {"tee",
             section(SectionShape::Tee, 0.05, 0.05),
             {{50, 62.5, 2, 0}, {50, 75, 2, 0}, {50, 100, 2, 0}, {50, 50, 2, 1}}},
        };
        for (const Row& r : rows) {
            const std::vector<Section> found = stockSections(r.like, stockInShops());
            QVERIFY2(found.size() == r.wanted.size(), r.name);
            for (std::size_t i = 0; i < found.size(); ++i) {
                const Section& s = found[i];
                QVERIFY2(isNear(s.width * 1e3, r.wanted[i][0], 1e-9) &&
                             isNear(s.height * 1e3, r.wanted[i][1], 1e-9) &&
                             isNear(s.wall * 1e3, r.wanted[i][2], 1e-9) && s.onEdge == (r.wanted[i][3] != 0),
                         (std::string(r.name) + ' ' + std::to_string(i)).c_str());
                QVERIFY2(s.shape == r.like.shape && s.material == r.like.material, r.name);
            }
        }
        // Paid by weight: two rods of 20 weigh (20/16)² of two of 16.
        const auto rods = stockSections(rows[6].like, stockInShops());
        VERIFY_NEAR(rods[0].price, 10.0 * 400 / 256, 1e-9);
        VERIFY_NEAR(stockSections(rows[7].like, stockInShops())[2].price, 20.0, 1e-9);
        QVERIFY(stockSections(Section{}, stockInShops()).empty());
    }
    /// Only what can be had: nothing larger without a shop, its own price where it says one.
    void sectionsAreThoseOfTheStock() {
        const Section now = section(SectionShape::SlottedProfile, 0.04, 0.04);
        QVERIFY(stockSections(now, {}).empty());
        parts::Part mine{"section",
                         "Mine",
                         1,
                         55.0,
                         {},
                         {{"width_m", 0.05}, {"height_m", 0.05}},
                         {{"shape", "slotted_profile"}}};
        const std::vector<parts::Part> shelf{mine};
        const auto one = stockSections(now, {{}, shelf});
        QCOMPARE(one.size(), std::size_t(1));
        QCOMPARE(one[0].width, 0.05);
        QCOMPARE(one[0].price, 55.0);
        const auto all = stockSections(now, {shippedParts(), shelf});
        QCOMPARE(all[1].width, 0.045);
        QCOMPARE(all[2].width, 0.05); // the next two larger, wherever they lie
    }
    void whatHasAnEdge() {
        QVERIFY(hasEdge(section(SectionShape::SlottedProfile, 0.04, 0.08)));
        QVERIFY(!hasEdge(section(SectionShape::SlottedProfile, 0.04, 0.04)));
        QVERIFY(hasEdge(section(SectionShape::Tee, 0.04, 0.04)) &&
                hasEdge(section(SectionShape::Own, 0.04, 0.04)));
        for (const auto shape : {SectionShape::NotGiven, SectionShape::RoundTube, SectionShape::RodPair})
            QVERIFY(!hasEdge(section(shape, 0.04, 0.08)));
    }
    void sectionsToTryByHand() {
        Project p = slider();
        const Section now = rail(p).rail.section;
        const auto alone = sectionsToTry(p, now, stockInShops());
        QCOMPARE(alone.size(), stockSections(now, stockInShops()).size());
        const auto list = [&](const Section& s) {
            Profile listed;
            listed.id = "p" + std::to_string(p.profiles.size());
            listed.section = s;
            p.profiles.push_back(listed);
        };
        list(now);       // is in use
        list(Section{}); // says nothing
        Section one = alone[1];
        one.price = 99.0; // known at another price
        list(one);
        list(one); // twice
        const auto found = sectionsToTry(p, now, stockInShops());
        QCOMPARE(found.size(), alone.size());
        QVERIFY(found[0] == one);
        QCOMPARE(std::count_if(found.begin(), found.end(),
                               [&](const Section& s) { return s.width == one.width && s.wall == one.wall; }),
                 1);
    }
    /// The proposal against a walk over all places on a grid of a centimetre.
    void standsBeatEveryPlaceOnAGrid() {
        for (const bool withShot : {false, true}) {
            Project p = slider();
            rail(p).carriageLength = 0.2;
            const AxisEvaluation e = evaluate(p).axes[0];
            const auto best = bestStands(p, p.axes[0], withShot ? &e : nullptr);
            QVERIFY(best);
            structure::PictureFactors picture{1.0, 1.0};
            if (withShot) {
                const Shot& shot = p.shots[e.worst()->shot.at()];
                const double focal = deliveredFocal(p.camera, shot);
                // An object at the subject's distance moves by focal length [px] over distance; a turn by the
                // focal length.
                picture = {focal / shot.subjectDistance, focal};
            }
            const auto spread = [&](double first, double second) {
                Axis axis = p.axes[0];
                Rail& r = std::get<LinearMechanism>(axis.mechanism).rail;
                r.firstStand = first;
                r.secondStand = second;
                Reason why = Reason::None;
                const auto s = railSetting(axis, massesOf(p, axis), why);
                return structure::pictureSpread(s->rail, s->carriage, picture, s->low, s->high);
            };
            double least = 1e300;
            for (int a = 0; a < 50; ++a)
                for (int b = 51; b <= 100; ++b) least = std::min(least, spread(a * 0.01, b * 0.01));
            const double found = spread(best->first, best->second);
            QVERIFY2(found <= least * 1.02, qPrintable(QStringLiteral("%1 %2").arg(found).arg(least)));
            // On whole millimetres, on the rail.
            for (const double at : {best->first, best->second})
                VERIFY_NEAR(at * 1e3, std::round(at * 1e3), 1e-9);
            QVERIFY(best->first >= 0.0 && best->second <= 1.0 && best->first < best->second);
        }
        Project p = jib();
        QVERIFY(!bestStands(p, p.axes[1], nullptr));
        p = slider();
        rail(p).rail.section.shape = SectionShape::NotGiven;
        QVERIFY(!bestStands(p, p.axes[0], nullptr));
    }
    void counterweightByHand() {
        Project p = jib();
        Counterweight& w = boom(p).boom.counterweight;
        w.nearest = 0.3;
        w.farthest = 0.7;
        w.behind = 0.5;
        const double moment = momentOf(p);
        // None there yet: the mass that does it where the bar is.
        QCOMPARE(balanceWith(p, p.axes[1])->behind, 0.5);
        VERIFY_NEAR(balanceWith(p, p.axes[1])->mass.value, std::round(moment / 0.5 * 100) / 100, 1e-9);
        // One that can be moved to it stays what it is.
        w.mass = estimate(moment / 0.6123, Source::Measured);
        QCOMPARE(balanceWith(p, p.axes[1])->behind, 0.612);
        QVERIFY(balanceWith(p, p.axes[1])->mass == w.mass);
        for (const double at : {0.3, 0.7}) { // the ends of the bar count
            w.mass = estimate(moment / at * (at < 0.5 ? 0.9999 : 1.0001), Source::Measured);
            QCOMPARE(balanceWith(p, p.axes[1])->behind, at);
            QVERIFY(balanceWith(p, p.axes[1])->mass == w.mass);
        }
        // Too heavy or too light for its bar, it becomes another, at the bar's nearest place to where it is.
        for (const double mass : {moment / 0.25, moment / 0.75}) {
            w.mass = estimate(mass, Source::Measured);
            for (const auto& [now, then] : {std::pair{0.5, 0.5}, {0.1, 0.3}, {0.9, 0.7}}) {
                w.behind = now;
                QCOMPARE(balanceWith(p, p.axes[1])->behind, then);
                VERIFY_NEAR(balanceWith(p, p.axes[1])->mass.value, std::round(moment / then * 100) / 100,
                            1e-9);
            }
        }
        // A bar that was entered the wrong way round is the same bar.
        std::swap(w.nearest, w.farthest);
        w.behind = 0.9;
        QCOMPARE(balanceWith(p, p.axes[1])->behind, 0.7);
        w.behind = 0.1;
        QCOMPARE(balanceWith(p, p.axes[1])->behind, 0.3);

        Project rearHeavy = jib();
        boom(rearHeavy).items = {{"tail", "Tail", estimate(30.0, Source::Measured), -0.5}};
        QVERIFY(!balanceWith(rearHeavy, rearHeavy.axes[1]));
        QVERIFY(!balanceWith(p, p.axes[0])); // swings about the upright
        QVERIFY(counterweightChart(p, p.axes[0]).empty());
        Project unknown = jib();
        unknown.kits.resize(1);
        boom(unknown).boom.section.shape = SectionShape::NotGiven;
        QVERIFY(!balanceWith(unknown, unknown.axes[1]) &&
                counterweightChart(unknown, unknown.axes[1]).empty());
        QVERIFY(!balanceWith(slider(), slider().axes[0]));
    }
    /// Every combination of discs walked through, for arms, bars and kits as they come.
    void chartIsThatOfEveryCombination() {
        std::mt19937 random(3);
        const auto between = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        const auto whole = [&](int low, int high) {
            return std::uniform_int_distribution<int>(low, high)(random);
        };
        int reached = 0, missed = 0;
        for (int round = 0; round < 200; ++round) {
            Project p = jib();
            RotaryMechanism& r = boom(p);
            r.lowAngle = between(-0.9, 0.2);
            r.range = between(0.3, 1.4);
            r.boom.tipOffset = between(-0.1, 0.2);
            r.boom.arm = whole(0, 1) == 0 ? ArmKind::Plain : ArmKind::ParallelLinks;
            // The head in the middle stays, what hangs at the end makes way for the kit.
            r.items.push_back({"head", "Head", estimate(between(0.1, 3.0), Source::Measured),
                               between(-0.5, 1.7), between(-0.1, 0.1)});
            r.items.push_back({"tip", "Tip", estimate(2.0, Source::Measured), between(1.8, 2.1)});
            Counterweight& w = r.boom.counterweight;
            w.mass.value = between(0.0, 20.0);
            w.above = between(-0.2, 0.2);
            w.nearest = between(0.2, 0.5);
            w.farthest = between(0.5, 0.9);
            w.bare = whole(0, 3) == 0 ? 0.0 : between(0.1, 2.0);
            r.boom.discs.clear();
            for (int i = whole(0, 3); i > 0; --i)
                r.boom.discs.push_back({"d" + std::to_string(i), "Disc", 0.5 * whole(1, 16), whole(0, 4)});
            p.kits = {{"a", "A", estimate(between(1.0, 8.0), Source::Measured), between(-0.3, 0.3)},
                      {"b", "B", estimate(between(1.0, 8.0), Source::Measured), between(-0.3, 0.3)}};
            const auto chart = counterweightChart(p, p.axes[1]);
            QCOMPARE(chart.size(), std::size_t(2));
            for (std::size_t k = 0; k < 2; ++k) {
                const ChartRow& row = chart[k];
                QCOMPARE(row.kit, static_cast<int>(k));
                const bool links = r.boom.arm == ArmKind::ParallelLinks;
                const double kit = p.kits[k].mass.value, end = links ? 2.0 : 2.0 + r.boom.tipOffset;
                const MassItem& head = r.items[1];
                const double moment = tubeMass() * 2.8 * 0.6 + head.mass.value * head.along + kit * end;
                int fewest = 1000;
                double lightest = 1e300, nearest = 1e300;
                std::vector<int> counts(r.boom.discs.size(), 0);
                const std::function<void(std::size_t, double, int)> walk = [&](std::size_t d, double mass,
                                                                               int n) {
                    if (d < counts.size()) {
                        for (int i = 0; i <= r.boom.discs[d].count; ++i)
                            walk(d + 1, mass + i * r.boom.discs[d].mass, n + i);
                        return;
                    }
                    const bool reaches = mass * w.nearest <= moment && moment <= mass * w.farthest;
                    if (reaches && std::pair(n, mass) < std::pair(fewest, lightest))
                        fewest = n, lightest = mass;
                    nearest =
                        std::min(nearest, std::max(mass * w.nearest - moment, moment - mass * w.farthest));
                };
                walk(0, w.bare, 0);
                QCOMPARE(row.reaches, fewest < 1000);
                double mass = w.bare;
                int n = 0;
                for (std::size_t d = 0; d < counts.size(); ++d) {
                    QVERIFY(row.discs[d] >= 0 && row.discs[d] <= r.boom.discs[d].count);
                    mass += row.discs[d] * r.boom.discs[d].mass;
                    n += row.discs[d];
                }
                VERIFY_NEAR(row.mass, mass, 1e-12);
                QVERIFY(row.behind >= w.nearest - 1e-12 && row.behind <= w.farthest + 1e-12);
                if (row.reaches) {
                    ++reached;
                    QCOMPARE(n, fewest);
                    VERIFY_NEAR(mass, lightest, 1e-12);
                    VERIFY_NEAR(mass * row.behind, moment, 1e-9);
                } else {
                    ++missed;
                    VERIFY_NEAR(std::abs(mass * row.behind - moment), nearest, 1e-9);
                }
                // What stays where it is worst: what parallel links carry moves as the joint that carries it.
                const double height = mass * w.above +
                                      (!links || head.along <= 0.0 ? head.mass.value * head.above : 0.0) +
                                      (links ? 0.0 : kit * p.kits[k].above);
                double left = 0.0;
                for (int i = 0; i <= 1000; ++i) {
                    const double at = r.lowAngle + r.range * i / 1000;
                    left = std::max(left, std::abs(g * ((moment - mass * row.behind) * std::cos(at) -
                                                        height * std::sin(at))));
                }
                QVERIFY2(isNear(row.left, left, 0.005, 1e-6),
                         qPrintable(QStringLiteral("%1 %2").arg(row.left).arg(left)));
            }
        }
        QVERIFY2(reached > 50 && missed > 50, qPrintable(QStringLiteral("%1 %2").arg(reached).arg(missed)));
    }
    /// Sections compared are the axis with each of them in turn, and what its shots then show.
    void comparedIsEvaluatedAfresh() {
        for (Project p : {slider(), jib()}) {
            const std::size_t axis = p.axes.size() - 1;
            const std::vector<Section> all = sectionsToTry(p, sectionOf(p.axes[axis]), stockInShops());
            const auto rows = compareSections(p, p.axes[axis], all);
            QCOMPARE(rows.size(), all.size() + 1);
            for (std::size_t i = 0; i < rows.size(); ++i) {
                Project with = p;
                if (i > 0) sectionOf(with.axes[axis]) = all[i - 1];
                const AxisEvaluation e = evaluate(with).axes[axis];
                double pixels = 0.0;
                for (const ShotEvaluation& s : e.shots) pixels = std::max(pixels, s.sag.pixels.valueOr(0.0));
                VERIFY_NEAR(rows[i].pixels, pixels, 1e-9);
                QVERIFY(rows[i].section == sectionOf(with.axes[axis]));
                VERIFY_NEAR(rows[i].found.sag.valueOr(-1.0), e.structure.sag.valueOr(-1.0), 1e-9);
                const double length = axis == 0 ? 1.0 : 2.8;
                VERIFY_NEAR(rows[i].price, sectionOf(with.axes[axis]).price * length, 1e-12);
            }
        }
        Axis stranger = slider().axes[0];
        stranger.id = "of another rig";
        QVERIFY(compareSections(slider(), stranger, {}).empty());
    }
};

QTEST_APPLESS_MAIN(StructureSolveTest)
#include "structure_solve_test.moc"
