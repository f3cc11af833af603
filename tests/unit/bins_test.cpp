// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/bins.h"
#include "core/rigs/rigs.h"
#include "support/near.h"
#include "support/told.h"

#include <QTest>
#include <algorithm>
#include <functional>
#include <numbers>

using namespace gantry;

/// Bins of wheels from stock and shelf, what a train of them becomes on an axis, and the other way round:
/// which wheel explains a number that somebody typed.
class BinsTest : public QObject {
    Q_OBJECT
    static parts::Part part(const char* family, double teeth, const char* sizeKey, double size, int count) {
        parts::Part p;
        p.family = family;
        p.count = count;
        p.numbers = {{"teeth", teeth}, {sizeKey, size}};
        return p;
    }

private slots:
    void stockWheelsFitEachOther() {
        for (const auto stock : {parts::Stock::GearsHalf, parts::Stock::GearsOne, parts::Stock::Pulleys2,
                                 parts::Stock::Pulleys3, parts::Stock::Pulleys5}) {
            const ratiofinder::Bin bin = parts::stockBin(stock);
            QCOMPARE(bin.families().size(), std::size_t(1));
            const bool gears = stock == parts::Stock::GearsHalf || stock == parts::Stock::GearsOne;
            QCOMPARE(bin.families()[0].gears, gears);
            int before = 0;
            for (const ratiofinder::Wheel& w : bin.wheels()) {
                QVERIFY(w.teeth > before); // none twice
                before = w.teeth;
                QVERIFY(w.onHand == 0 && w.count > 0 && w.width > 0.0);
            }
            // A pulley's diameter a tooth is its pitch over π: 100 teeth of the coarsest are 159 mm round.
            if (stock == parts::Stock::Pulleys5) VERIFY_NEAR(100 * bin.families()[0].module, 0.159155, 1e-5);
            if (stock == parts::Stock::GearsHalf) VERIFY_NEAR(60 * bin.families()[0].module, 0.03, 1e-12);
        }
    }
    /// What shops keep, and what a shelf becomes, wheel by wheel.
    void binsByHand() {
        struct Row {
            parts::Stock stock;
            std::size_t sizes;
            double module, efficiency, backlash, width;
        };
        const double pi = std::numbers::pi;
        // A play of 0.15 mm at half a wheel of twenty teeth.
        const Row rows[] = {{parts::Stock::GearsHalf, 26, 0.0005, 0.93, 0.00015 / 0.01, 0.004},
                            {parts::Stock::GearsOne, 26, 0.001, 0.93, 0.00015 / 0.02, 0.009},
                            {parts::Stock::Pulleys2, 24, 0.002 / pi, 0.95, 0.0, 0.009},
                            {parts::Stock::Pulleys3, 24, 0.003 / pi, 0.95, 0.0, 0.009},
                            {parts::Stock::Pulleys5, 24, 0.005 / pi, 0.95, 0.0, 0.015}};
        for (const Row& r : rows) {
            const ratiofinder::Bin bin = parts::stockBin(r.stock);
            QCOMPARE(bin.wheels().size(), r.sizes);
            QCOMPARE(bin.wheels().back().teeth, 120);
            for (const ratiofinder::Wheel& w : bin.wheels()) QVERIFY(w.width == r.width && w.count == 8);
            const ratiofinder::Family& f = bin.families()[0];
            VERIFY_NEAR(f.module, r.module, 1e-12);
            QCOMPARE(f.efficiency, r.efficiency);
            VERIFY_NEAR(f.backlash, r.backlash, 1e-12);
            const Link link = parts::linkOf(bin, {0, 3});
            const bool gears = f.gears;
            QCOMPARE(std::holds_alternative<GearStage>(link), gears);
            const auto check = [&](const auto& s) {
                QCOMPARE(s.motorTeeth, bin.wheels()[0].teeth);
                QCOMPARE(s.loadTeeth, bin.wheels()[3].teeth);
                QCOMPARE(s.figures.efficiency, assumed(r.efficiency, 0.04));
                QCOMPARE(s.figures.backlash.value, f.backlash);
            };
            if (gears) {
                check(std::get<GearStage>(link));
                QCOMPARE(std::get<GearStage>(link).module, r.module);
                QCOMPARE(std::get<GearStage>(link).faceWidth, r.width);
            } else {
                check(std::get<BeltStage>(link));
                VERIFY_NEAR(std::get<BeltStage>(link).pitch.value, r.module * pi, 1e-12);
                QCOMPARE(std::get<BeltStage>(link).pitch.tolerance, 0.0);
                QCOMPARE(std::get<BeltStage>(link).width, r.width);
            }
        }
        parts::Part trapezoid = part("pulley", 30, "pitch_m", 0.005, 1),
                    bare = part("gear", 24, "price", 3.0, 2);
        trapezoid.choices = {{"profile", std::string(ChoiceNames<BeltProfile>::keys[2])}};
        trapezoid.numbers.emplace_back("width_m", 0.012);
        parts::Part wide = part("gear", 36, "module_m", 0.002, 1);
        wide.numbers.emplace_back("face_width_m", 0.02);
        const std::vector<parts::Part> shelf{trapezoid,
                                             part("pulley", 30, "pitch_m", 0.005, 1),
                                             bare,
                                             wide,
                                             part("gear", 60000, "module_m", 0.002, 1),
                                             part("gear", 60001, "module_m", 0.002, 1),
                                             part("gear", 1, "module_m", 0.002, 1)};
        const ratiofinder::Bin bin = parts::shelfBin(shelf);
        struct Wheel {
            int teeth, count, family;
            double width;
        };
        const Wheel wheels[] = {{30, 1, 0, 0.012}, {30, 1, 1, 0.008},    {24, 2, 2, 0.008},
                                {36, 1, 3, 0.02},  {60000, 1, 3, 0.008}, {1, 1, 3, 0.008}};
        QCOMPARE(bin.wheels().size(), std::size(wheels));
        for (std::size_t i = 0; i < std::size(wheels); ++i) {
            const ratiofinder::Wheel& w = bin.wheels()[i];
            QVERIFY(w.teeth == wheels[i].teeth && w.count == wheels[i].count && w.onHand == w.count &&
                    w.family == wheels[i].family && w.width == wheels[i].width);
        }
        QCOMPARE(bin.families().size(), std::size_t(4));     // two tooth shapes of one pitch, two modules
        VERIFY_NEAR(bin.families()[2].module, 0.001, 1e-12); // unless it says otherwise
    }
    void aTrainBecomesLinksOfTheSameRatio() {
        for (const auto stock : {parts::Stock::GearsOne, parts::Stock::Pulleys3}) {
            const ratiofinder::Bin bin = parts::stockBin(stock);
            ratiofinder::Query query;
            query.target = *drivetrain::Ratio::of(27, 2);
            query.mostStages = 3;
            query.most = 5;
            const auto trains = bin.find(query);
            QVERIFY(!trains.empty());
            for (const ratiofinder::Train& train : trains) {
                Project p = rigs::make(rigs::RigKind::PanTiltHead);
                Axis& axis = p.axes[0];
                axis.links.clear();
                std::get<RotaryMechanism>(axis.mechanism).output = DirectOutput{};
                double product = 1.0;
                for (const ratiofinder::Stage& s : train.stages) {
                    axis.links.push_back(parts::linkOf(bin, s));
                    product *= static_cast<double>(bin.wheels()[std::size_t(s.driven)].teeth) /
                               bin.wheels()[std::size_t(s.driver)].teeth;
                    const bool gear = std::holds_alternative<GearStage>(axis.links.back());
                    QCOMPARE(gear, stock == parts::Stock::GearsOne);
                }
                VERIFY_NEAR(evaluate(p).axes[0].totalRatio.value(), product, 1e-12);
                VERIFY_NEAR(product, 13.5 * (1 + train.error), 1e-12);
            }
        }
    }
    void theShelfIsSortedByWhatMeshes() {
        const std::vector<parts::Part> shelf{
            part("gear", 20, "module_m", 0.001, 2),  part("gear", 60, "module_m", 0.001, 1),
            part("gear", 20, "module_m", 0.001, 1),  part("gear", 40, "module_m", 0.0005, 1),
            part("pulley", 20, "pitch_m", 0.002, 3), part("pulley", 20, "pitch_m", 0.003, 1),
            part("gear", 30, "module_m", 0.001, 0), // none of it there
            part("screw", 8, "lead_m", 0.008, 5),    part("gear", 0, "module_m", 0.001, 1)};
        const ratiofinder::Bin bin = parts::shelfBin(shelf);
        QCOMPARE(bin.families().size(), std::size_t(4));
        int twenties = 0;
        for (const ratiofinder::Wheel& w : bin.wheels()) {
            QVERIFY(w.teeth != 30 && w.teeth != 8 && w.teeth > 0);
            const ratiofinder::Family& f = bin.families()[std::size_t(w.family)];
            if (w.teeth == 20 && f.gears) twenties = w.count;
        }
        QCOMPARE(twenties, 3); // two and one of the same
        // Gears of two modules do not mesh: 40 teeth of module 0.5 mate with nothing here.
        ratiofinder::Query query;
        query.target = *drivetrain::Ratio::of(2, 1);
        query.mostStages = 1;
        for (const ratiofinder::Train& t : bin.find(query))
            for (const ratiofinder::Stage& s : t.stages)
                QCOMPARE(bin.wheels()[std::size_t(s.driver)].family,
                         bin.wheels()[std::size_t(s.driven)].family);
    }
    /// For every kind of output: build the axis with another wheel, type the number that it would have, and
    /// the check names that wheel.
    void theSwappedWheelIsNamed() {
        struct Case {
            rigs::RigKind rig;
            int axis;
            std::function<void(Axis&)> swap;
            const char* named;
        };
        const auto output = [](Axis & a) -> auto& {
            return std::get<LinearMechanism>(a.mechanism).output;
        };
        const std::vector<Case> cases{
            {rigs::RigKind::BeltSlider, 0, [&](Axis& a) { std::get<BeltOutput>(output(a)).teeth = 16; },
             "16 teeth"},
            {rigs::RigKind::ScrewSlider, 0,
             [&](Axis& a) {
                 auto& lead = std::get<ScrewOutput>(output(a)).lead.value;
                 lead = lead == 0.004 ? 0.005 : 0.004;
             },
             "a lead of"},
            {rigs::RigKind::BeltSlider, 0, [](Axis& a) { a.driver.microsteps *= 2; }, "microsteps"},
        };
        for (const Case& c : cases) {
            const Project p = rigs::make(c.rig);
            Project swapped = p;
            c.swap(swapped.axes[std::size_t(c.axis)]);
            const double typed = evaluate(swapped).axes[std::size_t(c.axis)].steps.stepsPerUnit.value();
            const auto found = told::explained(p, typed, std::size_t(c.axis));
            VERIFY_NEAR(found.computed.value(),
                        evaluate(p).axes[std::size_t(c.axis)].steps.stepsPerUnit.value(), 1e-12);
            // One commanded unit moves as much more as the number is too large.
            VERIFY_NEAR(found.movesForOne, typed / found.computed.value(), 1e-9);
            const bool named = std::any_of(found.suspects.begin(), found.suspects.end(), [&](const auto& s) {
                return s.what.find(c.named) != std::string::npos && std::abs(s.error) < 1e-3;
            });
            QVERIFY2(named, c.named);
            for (std::size_t i = 1; i < found.suspects.size(); ++i)
                QVERIFY(std::abs(found.suspects[i].error) >= std::abs(found.suspects[i - 1].error) - 1e-3);
        }
    }
};

QTEST_GUILESS_MAIN(BinsTest)
#include "bins_test.moc"
