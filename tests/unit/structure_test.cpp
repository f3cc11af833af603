// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/balance.h"
#include "core/structure/beam.h"
#include "core/structure/pads.h"
#include "core/structure/rail.h"
#include "core/structure/section.h"
#include "core/structure/softness.h"
#include "core/structure/strength.h"
#include "core/structure/tipping.h"
#include "support/files.h"
#include "support/frame_elements.h"
#include "support/near.h"

#include <Eigen/Eigenvalues>
#include <QTest>
#include <random>

using namespace gantry::structure;
constexpr double pi = std::numbers::pi, g = 9.80665;

class StructureTest : public QObject {
    Q_OBJECT
    static double between(std::mt19937_64& random, double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    }
    static std::vector<ArmMass> massesOf(const nlohmann::json& in) {
        std::vector<ArmMass> out;
        for (const auto& m : in["masses"]) out.push_back({m["m"], m["x"], m["h"], m["levelled"]});
        return out;
    }
private slots:
    void workedBeams() {
        for (const auto& c : referenceCases("t05_beams")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const std::string kind = in["kind"];
            if (kind == "section") {
                const SectionFigures s = in["shape"] == "rect"
                                             ? solidRectangle(in["b"], in["h"])
                                             : tee(in["web_t"], in["web_h"], in["flange_b"], in["flange_t"]);
                VERIFY_NEAR(s.area, out["A"].get<double>(), 1e-6);
                VERIFY_NEAR(s.upright, out["I"].get<double>(), 1e-6);
                VERIFY_NEAR(s.centroid, out["yc"].get<double>(), 1e-6);
                continue;
            }
            if (kind == "cantilever") {
                const Cantilever b{in["L"], in["EI"], in["mb"], in["M"], 0.0};
                const Bend tip = cantileverTip(b, g);
                VERIFY_NEAR(tip.sag, out["tip_sag"].get<double>(), 1e-6);
                VERIFY_NEAR(tip.slope, out["tip_slope"].get<double>(), 1e-6);
                VERIFY_NEAR(cantileverFrequency(b), out["f1_approx_0_24"].get<double>(), 1e-6);
                // The exact frequency is the bar: 0.5 %, and 0.6 % high without any tip mass.
                VERIFY_NEAR(cantileverFrequency(b), out["f1"].get<double>(), b.tipMass > 0.0 ? 0.005 : 0.006);
                continue;
            }
            Bend found;
            const std::array load{PointLoad{0.0, in["P"]}};
            if (kind == "central_support") {
                const double half = in["Lh"];
                const Beam beam{2.0 * half, in["EI"], in["w"]};
                const CentralSupport at{half, in.value("ktheta", 0.0)};
                const std::array moved{PointLoad{half + in["s"].get<double>(), in["P"]}};
                found = bendAt(beam, at, moved, moved[0].at);
            } else {
                const double before = in.value("c1", 0.0), after = in.value("c2", 0.0), span = in["L"];
                const Beam beam{before + span + after, in["EI"], in["w"]};
                const TwoSupports on{before, before + span};
                const std::array moved{PointLoad{before + in["x"].get<double>(), load[0].force}};
                found = bendAt(beam, on, moved, moved[0].at);
            }
            VERIFY_NEAR(found.sag, out["sag"].get<double>(), 1e-6);
            QVERIFY(isNear(found.slope, out["slope"].get<double>(), 1e-6, 1e-9));
        }
    }
    void workedArmsAndTipping() {
        for (const auto& c : referenceCases("t06_crane")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            if (in["kind"] == "tipping") {
                const auto feet = feetOnCircle(in["feet"], in["radius"], in["first_foot_angle"]);
                const double weight = in["total_mass"].get<double>() * g, moment = in["overturning_moment"];
                VERIFY_NEAR(tippingRatio(feet, weight, moment, in["boom_azimuth"]),
                            out["ratio"].get<double>(), 1e-6);
                double worst = 1e9;
                for (int i = 0; i < 3600; ++i)
                    worst = std::min(worst, tippingRatio(feet, weight, moment, i * pi / 1800));
                VERIFY_NEAR(worst, out["ratio_worst_azimuth"].get<double>(), 1e-6);
                VERIFY_NEAR(worst,
                            weight * in["radius"].get<double>() * std::cos(pi / in["feet"].get<int>()) /
                                moment,
                            1e-6);
                // The same moment from a push at 1 m, against the same weight in the middle.
                const std::array weights{Weight{in["total_mass"], {}, 0.5}};
                const std::array pushes{Push{moment, 1.0}};
                VERIFY_NEAR(tipping({feet, 0, 0}, weights, pushes)->ratio, worst, 1e-6);
                const double ballast = *ballastNeeded({feet, 0, 0}, weights, pushes, in["wanted_ratio"], {});
                QVERIFY(isNear(ballast, out["ballast_for_wanted_ratio_worst"].get<double>(), 1e-6, 1e-9));
                continue;
            }
            std::vector<ArmMass> masses = massesOf(in);
            const double behind = in["counterweight_distance"];
            const double weight = balancingMass(masses, -behind);
            VERIFY_NEAR(weight, out["balance_counterweight"].get<double>(), 1e-6);
            VERIFY_NEAR(balancingPlace(masses, weight), -behind, 1e-9);
            VERIFY_NEAR(-moments(masses).above / weight,
                        out["counterweight_h_for_all_angle_balance"].get<double>(), 1e-6);
            for (std::size_t i = 0; i < in["elevations"].size(); ++i)
                VERIFY_NEAR(gravityTorque(masses, in["elevations"][i]), out["torque"][i].get<double>(), 1e-6);
            std::vector<ArmMass> balanced = masses;
            balanced.push_back({weight, -behind, 0.0, false});
            for (std::size_t i = 0; i < in["elevations"].size(); ++i) {
                QVERIFY(isNear(gravityTorque(balanced, in["elevations"][i]),
                               out["torque_balanced_h0"][i].get<double>(), 1e-6, 1e-9));
            }
            VERIFY_NEAR(inertiaAboutPivot(balanced), out["inertia_elevation_balanced"].get<double>(), 1e-6);
            // With the weight at that height too, every angle balances.
            balanced.back().above = -moments(masses).above / weight;
            for (double angle = -1.5; angle <= 1.5; angle += 0.3)
                QVERIFY(std::abs(gravityTorque(balanced, angle)) < 1e-9);
        }
    }
    /// 200 random rails against finite elements: sag and slope under a two-wheel carriage, any supports.
    void railsAgreeWithFiniteElements() {
        std::mt19937_64 random(11);
        for (int i = 0; i < 200; ++i) {
            const double length = between(random, 0.5, 4.0), ei = between(random, 300, 20000),
                         mass = between(random, 0.5, 5.0);
            const int n = 120;
            const auto grid = [&](double x) { return std::round(x / length * n) * length / n; };
            const double carried = between(random, 0.0, 12.0),
                         base = grid(between(random, 0.05, 0.3) * length);
            const double at = between(random, 0.5 * base, length - 0.5 * base);
            RailView rail{{length, ei, mass * g}, TwoSupports{}, 100.0};
            BeamElements fem(length, n, ei, mass);
            if (i % 2 == 0) {
                const TwoSupports s{grid(between(random, 0.0, 0.4) * length),
                                    grid(between(random, 0.6, 1.0) * length)};
                rail.supports = s;
                fem.spring(s.first, 1e12);
                fem.spring(s.second, 1e12);
            } else {
                const CentralSupport s{grid(between(random, 0.3, 0.7) * length), between(random, 2e3, 2e4)};
                rail.supports = s;
                fem.spring(s.at, 1e12);
                fem.turningSpring(s.at, s.turning);
            }
            fem.ownWeight(g);
            fem.load(at - base / 2, carried * g / 2);
            fem.load(at + base / 2, carried * g / 2);
            fem.solve();
            const RailPoint p = railPoint(rail, {carried * g, base, 0.0}, at);
            const double first = fem.sag(at - base / 2), second = fem.sag(at + base / 2);
            const double scale = std::max(std::abs(first), std::abs(second));
            QVERIFY(std::abs(p.sag - 0.5 * (first + second)) < 0.01 * scale + 1e-9);
            QVERIFY(std::abs(p.slope - (second - first) / base) < 0.01 * scale / base + 1e-8);
        }
    }
    /// 200 random booms: tip sag, slope and first frequency, with offset and a clamp that turns.
    void boomsAgreeWithFiniteElements() {
        std::mt19937_64 random(12);
        for (int i = 0; i < 200; ++i) {
            Cantilever c{between(random, 0.5, 4.0), between(random, 300, 20000), between(random, 0.3, 4.0), 0,
                         between(random, 0.0, 0.2)};
            c.tipMass = c.mass * between(random, 0.4, 5.0);
            BeamElements fem(c.length, 24, c.bendingStiffness, c.mass / c.length);
            fem.spring(0, 1e12);
            const bool soft = i % 2 == 1;
            const double clamp = between(random, 3.0, 30.0) * c.bendingStiffness / c.length;
            fem.turningSpring(0, soft ? clamp : 1e12);
            fem.mass(c.length, c.tipMass, c.tipOffset);
            const double f = soft ? cantileverFrequency(c, clamp) : cantileverFrequency(c);
            VERIFY_NEAR(f, fem.firstFrequency(), 0.01);
            if (soft) continue;
            fem.ownWeight(g);
            fem.load(c.length, c.tipMass * g);
            fem.moment(c.length, c.tipMass * g * c.tipOffset);
            fem.solve();
            VERIFY_NEAR(cantileverTip(c, g).sag, fem.sag(c.length), 0.01);
            VERIFY_NEAR(cantileverTip(c, g).slope, fem.slope(c.length), 0.01);
        }
    }
    /// Own weight alone, sag of the ends as that of the middle: supports 22.3 % in from each end.
    void findsTheKnownBestSupports() {
        const RailView rail{{2.0, 800.0, 15.0}, TwoSupports{}, 100.0};
        const auto best = bestSupports(rail, {0.0, 0.01, 0.0}, {1000.0, 0.0}, 0.0, 2.0);
        QVERIFY(best.has_value());
        QVERIFY(std::abs(best->first / 2.0 - 0.2232) < 0.005 * 0.2232);
        QVERIFY(std::abs(1.0 - best->second / 2.0 - 0.2232) < 0.005 * 0.2232);
        // With a heavy carriage no other pair on a fine grid does better.
        const CarriageView heavy{80.0, 0.15, 0.0};
        RailView loaded = rail;
        const auto places = bestSupports(rail, heavy, {4000.0, 3700.0}, 0.1, 1.9);
        loaded.supports = *places;
        const double found = pictureSpread(loaded, heavy, {4000.0, 3700.0}, 0.1, 1.9);
        for (double a = 0.0; a < 0.9; a += 0.02)
            for (double b = 1.1; b <= 2.0; b += 0.02) {
                loaded.supports = TwoSupports{a, b};
                QVERIFY(pictureSpread(loaded, heavy, {4000.0, 3700.0}, 0.1, 1.9) > found * 0.995);
            }
    }
    /// A carriage of a sixth of the span sags 7 % less than a point load.
    void twoWheelsSagLess() {
        const RailView rail{{1.2, 840.0, 0.0}, TwoSupports{0.0, 1.2}, 100.0};
        const double wide = railPoint(rail, {49.0, 0.2, 0.0}, 0.6).sag;
        const double point = railPoint(rail, {49.0, 1e-6, 0.0}, 0.6).sag;
        QVERIFY(std::abs(wide / point - 0.93) < 0.01);
        VERIFY_NEAR(point, 49.0 * 1.2 * 1.2 * 1.2 / (48 * 840.0), 1e-6);
    }
    /// Twist: nothing at a support, T L / 4GJ in the middle of a span, T c / GJ at the end of an overhang.
    void twistIsHeldAtSupports() {
        const RailView rail{{2.0, 840.0, 0.0}, TwoSupports{0.5, 1.5}, 50.0};
        const CarriageView c{40.0, 0.1, 2.0};
        QCOMPARE(railPoint(rail, c, 0.5).twist, 0.0);
        VERIFY_NEAR(railPoint(rail, c, 1.0).twist, 2.0 * 1.0 / 4 / 50.0, 1e-12);
        VERIFY_NEAR(railPoint(rail, c, 1.9).twist, 2.0 * 0.4 / 50.0, 1e-12);
    }
    /// Pitch stiffness from a couple is what two slopes differ by under a real couple of loads.
    void pitchIsTheDifferenceOfSlopes() {
        const RailView rail{{1.2, 840.0, 10.0}, TwoSupports{0.1, 1.1}, 50.0};
        const double k = pitchStiffness(rail, 0.2, 0.8);
        const std::array push{PointLoad{0.7, -5.0}, PointLoad{0.9, 5.0}}; // 1 N·m
        const Beam bare{1.2, 840.0, 0.0};
        const double slope = (bendAt(bare, TwoSupports{0.1, 1.1}, push, 0.9).sag -
                              bendAt(bare, TwoSupports{0.1, 1.1}, push, 0.7).sag) /
                             0.2;
        VERIFY_NEAR(k, 1.0 / slope, 1e-9);
        // A simple span turned by a couple in its middle: k = 12 EI / L.
        const RailView plain{{1.0, 840.0, 0.0}, TwoSupports{0.0, 1.0}, 50.0};
        VERIFY_NEAR(pitchStiffness(plain, 1e-3, 0.5), 12 * 840.0, 0.01);
    }
    /// Tips where weight times lever on one side beats the other: by hand.
    void railTipsOverItsSupport() {
        const RailView rail{{2.0, 840.0, 10.0}, TwoSupports{0.5, 1.5}, 50.0};
        // At 1.9: 40 N × 0.4 m + 10 N/m × 0.5²/2 over; 10 N/m × 1.5²/2 holds.
        VERIFY_NEAR(railTippingRatio(rail, {40.0, 1e-6, 0.0}, {}, 0.0, 1.9), 11.25 / (16.0 + 1.25), 1e-5);
        VERIFY_NEAR(railTippingRatio(rail, {40.0, 1e-6, 0.0}, {}, 30.0, 1.9), (11.25 + 30.0) / 17.25, 1e-5);
        QVERIFY(railTippingRatio(rail, {40.0, 1e-6, 0.0}, {}, 0.0, 1.0) > 8.0);
    }
    /// A carriage in its worst place and worst stop presses and pulls on both stands as beam elements say.
    void stopsAndSlopesTipRails() {
        for (const auto& c : referenceCases("t54_tipping", "rail_on_stands")) {
            const auto& in = c["inputs"];
            const auto& expected = c["expected"];
            const double g = 9.80665, slope = in["slope"].get<double>() * std::numbers::pi / 180.0,
                         mass = in["carriage_mass"], length = in["length"],
                         railWeight = in["rail_mass"].get<double>() * g * std::cos(slope);
            const RailView rail{
                {length, 840.0, railWeight / length}, TwoSupports{in["stand"][0], in["stand"][1]}, 50.0};
            const CarriageView carriage{mass * g * std::cos(slope), 1e-6, 0.0};
            const AlongRail along{mass * in["deceleration"].get<double>(), mass * g * std::sin(slope),
                                  in["height"]};
            const double stand = in["stand_mass"].get<double>() * g * std::cos(slope);
            double tips = 1e9, pull = 0.0;
            for (const double at :
                 {in["carriage_range"][0].get<double>(), in["carriage_range"][1].get<double>()}) {
                tips = std::min(tips, railTippingRatio(rail, carriage, along, stand, at));
                pull = std::max(pull, clampPull(rail, carriage, along, {1, 0.05}, at));
            }
            const double least = expected["least_reaction"], anchor = expected["anchor_pull"];
            // What a clamp holds against is the lifting reaction; what tips is what the stand's weight
            // leaves.
            QVERIFY(std::abs(pull - std::max(0.0, -least)) < 1e-4);
            QCOMPARE(tips<1.0, anchor> 0.0);
            // Anchors at that stand just as strong as the pull on them hold it in balance.
            if (anchor > 0.0) {
                double held = 1e9;
                for (const double at :
                     {in["carriage_range"][0].get<double>(), in["carriage_range"][1].get<double>()})
                    held = std::min(held, railTippingRatio(rail, carriage, along, stand + anchor, at));
                VERIFY_NEAR(held, 1.0, 1e-6);
            }
        }
    }
    /// Downhill is towards the beginning where the slope is positive, and a stop goes either way.
    void whatPullsAlongARailHasItsSide() {
        const RailView rail{{2.0, 840.0, 10.0}, TwoSupports{0.5, 1.5}, 50.0};
        const CarriageView carriage{40.0, 1e-6, 0.0};
        // At 1.9: 17.25 N·m over, 11.25 hold. 10 N downhill at 0.3 m hold 3 N·m more; the other way, less.
        VERIFY_NEAR(railTippingRatio(rail, carriage, {0.0, 10.0, 0.3}, 0.0, 1.9), 14.25 / 17.25, 1e-5);
        VERIFY_NEAR(railTippingRatio(rail, carriage, {0.0, -10.0, 0.3}, 0.0, 1.9), 11.25 / 20.25, 1e-5);
        VERIFY_NEAR(railTippingRatio(rail, carriage, {10.0, 0.0, 0.3}, 0.0, 1.9), 11.25 / 20.25, 1e-5);
        VERIFY_NEAR(railTippingRatio(rail, carriage, {10.0, 10.0, 0.3}, 0.0, 0.1), 11.25 / 23.25, 1e-5);
    }
    void reactionsCarryAllWeight() {
        const std::array loads{PointLoad{0.3, 20.0}, PointLoad{1.8, 35.0}};
        const Beam beam{2.0, 500.0, 12.0};
        const Reactions r = reactions(beam, {0.4, 1.5}, loads);
        VERIFY_NEAR(r.first + r.second, 55.0 + 24.0, 1e-12);
        VERIFY_NEAR(r.first * 0.4 + r.second * 1.5, 20.0 * 0.3 + 35.0 * 1.8 + 24.0 * 1.0, 1e-12);
        // Largest moment of a simple span: P L / 4.
        const std::array middle{PointLoad{1.0, 40.0}};
        VERIFY_NEAR(largestMoment({2.0, 500.0, 0.0}, TwoSupports{0.0, 2.0}, middle), 20.0, 1e-12);
    }
    void sections() {
        // A thin round tube: I = π r³ t, J = 2 I; a square tube by its closed form.
        VERIFY_NEAR(roundTube(0.04, 0.0005).upright, pi * std::pow(0.01975, 3) * 0.0005, 1e-3);
        VERIFY_NEAR(roundTube(0.04, 0.002).torsion, 2 * roundTube(0.04, 0.002).upright, 1e-12);
        VERIFY_NEAR(hollowRectangle(0.04, 0.04, 0.002).upright, (std::pow(0.04, 4) - std::pow(0.036, 4)) / 12,
                    1e-12);
        VERIFY_NEAR(hollowRectangle(0.04, 0.04, 0.002).torsion, std::pow(0.038, 3) * 0.002, 1e-12);
        // A square bar twists with 0.1406 a⁴, a wide strip with a b³/3.
        VERIFY_NEAR(solidRectangle(0.02, 0.02).torsion, 0.1406 * std::pow(0.02, 4), 5e-3);
        VERIFY_NEAR(solidRectangle(1.0, 0.001).torsion, 1e-9 / 3, 1e-3);
        VERIFY_NEAR(rodPair(0.012, 0.1).upright, 2 * pi * std::pow(0.006, 4) / 4, 1e-12);
        const SectionFigures flat = solidRectangle(0.08, 0.04), edge = turned(flat);
        VERIFY_NEAR(edge.upright / flat.upright, 4.0, 1e-12);
        QCOMPARE(edge.uprightEdge, 0.04);
        QVERIFY(hollowRectangle(0.04, 0.02, 0.02).area == solidRectangle(0.04, 0.02).area);
    }
    void tippingByHand() {
        // Square of 1 m feet, weight off the middle by 0.2 m towards the edge that is pushed at.
        const std::vector<Plan> square{{0.5, 0.5}, {-0.5, 0.5}, {-0.5, -0.5}, {0.5, -0.5}};
        const std::array weights{Weight{10.0, {0.2, 0.0}, 1.0}};
        const std::array push{Push{20.0, 1.0}};
        VERIFY_NEAR(tipping({square, 0, 0}, weights, push)->ratio, 10 * g * 0.3 / 20.0, 1e-9);
        // Uphill and downhill: g sin at its height against g cos at its lever.
        const double tilt = 0.1;
        VERIFY_NEAR(tipping({square, tilt, 0.0}, weights, {})->ratio, 0.3 / std::tan(tilt), 1e-9);
        VERIFY_NEAR(tipping({square, tilt, pi}, weights, {})->ratio, 0.7 / std::tan(tilt), 1e-9);
        // Beyond the feet it has fallen already.
        const std::array outside{Weight{10.0, {0.7, 0.0}, 1.0}};
        QCOMPARE(tipping({square, 0, 0}, outside, {})->ratio, 0.0);
        QVERIFY(!ballastNeeded({square, 0, 0}, outside, push, 1.0, {0.9, 0.0}).has_value());
        QVERIFY(!tipping({{{0, 0}, {1, 0}, {2, 0}}, 0, 0}, weights, push).has_value());
        QVERIFY(!tipping({{}, 0, 0}, weights, push).has_value());
    }
    void strengthAndSoftness() {
        VERIFY_NEAR(bendingStress(100.0, 0.02, solidRectangle(0.02, 0.04).upright),
                    100.0 * 6 / (0.02 * 0.0016), 1e-12);
        // A short thick pin: shear of two sections, √3 τ.
        VERIFY_NEAR(pinStress({0.01, 0.0}, 1000.0), std::sqrt(3.0) * 500.0 / (pi * 2.5e-5), 1e-9);
        // Bolts on a circle carry a linear share: the sum of F r cosines gives the moment back.
        const double f = boltForce(6, 0.05, 30.0);
        double moment = 0;
        for (int i = 0; i < 6; ++i) moment += f * std::cos(i * pi / 3) * 0.05 * std::cos(i * pi / 3);
        VERIFY_NEAR(moment, 30.0, 1e-12);
        const std::array parts{SoftPart{3.0, 0.01}, SoftPart{4.0, 0.05}};
        const Softness all = inSeries(parts);
        VERIFY_NEAR(all.frequency, 2.4, 1e-12); // 1/9 + 1/16 = 1/5.76
        VERIFY_NEAR(shareOf(parts[0], all), 0.64, 1e-12);
        VERIFY_NEAR(all.damping, 0.64 * 0.01 + 0.36 * 0.05, 1e-12);
        QCOMPARE(inSeries({}).frequency, 0.0);
    }

    /// One mass on massless legs: its give is that of rocking and of shear one after the other.
    void swayOnPadsByHand() {
        const std::array feet{Plan{0.4, 0.3}, Plan{-0.4, 0.3}, Plan{-0.4, -0.3}, Plan{0.4, -0.3}};
        const double m = 12, h = 1.5, k = 40e3;
        const std::array weights{Weight{m, {0, 0}, h}};
        const PadsView pads{feet, weights, k};
        const auto by = [&](double arm) {
            const double rocking = k * 4 * arm * arm - m * g * h, shear = 4 * k / 3;
            return std::sqrt(1 / (m * (h * h / rocking + 1 / shear))) / (2 * pi);
        };
        VERIFY_NEAR(swayOnPads(pads, 0.0), by(0.4), 1e-9);
        VERIFY_NEAR(swayOnPads(pads, pi / 2), by(0.3), 1e-9);
        VERIFY_NEAR(swayOnPads(pads), by(0.3), 1e-9); // the softest
        VERIFY_NEAR(bounceOnPads(pads), std::sqrt(4 * k / m) / (2 * pi), 1e-12);
        // Soft enough, the weight tips it over: K = m g h at k = m g h / Σr².
        const double least = m * g * h / (4 * 0.3 * 0.3);
        QCOMPARE(swayOnPads({feet, weights, 0.99 * least}), 0.0);
        QVERIFY(swayOnPads({feet, weights, 1.01 * least}) > 0.0);
    }
    /// Two masses on a stiff mast: against both modes of the exact eigenproblem of slide and tilt. Dunkerley
    /// is a lower bound, and close where one part gives most.
    void swayOnPadsAgainstEigenvalues() {
        std::mt19937_64 random(7);
        for (int i = 0; i < 100; ++i) {
            const int legs = 3 + static_cast<int>(random() % 3);
            const auto feet = feetOnCircle(legs, between(random, 0.3, 1.0), between(random, 0, 3));
            const std::array weights{Weight{between(random, 2, 30), {0, 0}, between(random, 0.1, 0.6)},
                                     Weight{between(random, 1, 10), {0, 0}, between(random, 0.8, 2.5)}};
            const double k = between(random, 30e3, 400e3), direction = between(random, 0, 3);
            double spread = 0.0, m = 0.0, mh = 0.0, mhh = 0.0;
            for (const Plan& f : feet)
                spread += std::pow(f.x * std::cos(direction) + f.y * std::sin(direction), 2);
            for (const Weight& w : weights) {
                m += w.mass;
                mh += w.mass * w.height;
                mhh += w.mass * w.height * w.height;
            }
            Eigen::Matrix2d mass, stiffness;
            mass << m, mh, mh, mhh;
            stiffness << legs * k / 3, 0, 0, k * spread - g * mh;
            const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::Matrix2d> exact(stiffness, mass);
            const double f = std::sqrt(exact.eigenvalues()(0)) / (2 * pi);
            const double found = swayOnPads({feet, weights, k}, direction);
            QVERIFY2(found <= f * (1 + 1e-9) && found > 0.85 * f,
                     qPrintable(QString("%1 found, %2 exact").arg(found).arg(f)));
            // On a circle every direction is as soft.
            VERIFY_NEAR(swayOnPads({feet, weights, k}), found, 1e-9);
        }
    }
    void turningOnPads() {
        const auto feet = feetOnCircle(3, 0.5, 0.2);
        const std::array weights{Weight{4, {2.0, 0.0}, 1}, Weight{8, {-1.0, 0.0}, 1}};
        const double inertia = 4 * 4 + 8 * 1, turning = 3 * 20e3 / 3 * 0.25;
        VERIFY_NEAR(turnOnPads({feet, weights, 20e3}), std::sqrt(turning / inertia) / (2 * pi), 1e-9);
    }
    /// Reactions of a beam by hand, and equilibrium: what one stand lifts the other carries too much.
    void clampsByHand() {
        RailView rail{{2.0, 1e4, 30.0}, TwoSupports{0.5, 1.2}, 100.0};
        const CarriageView carriage{100.0, 0.2, 0.0};
        // Carriage at 1.9, 0.7 beyond the second stand; the rail's middle is 0.2 before it.
        const double lift = (100 * 0.7 - 60 * 0.2) / 0.7;
        VERIFY_NEAR(clampPull(rail, carriage, {}, {4, 0.05}, 1.9), lift / 4, 1e-12);
        QCOMPARE(clampPull(rail, carriage, {}, {4, 0.05}, 0.9), 0.0); // between them nothing lifts
        // The same from the other end, by symmetry.
        rail.supports = TwoSupports{0.8, 1.5};
        VERIFY_NEAR(clampPull(rail, carriage, {}, {4, 0.05}, 0.1), lift / 4, 1e-12);
        rail.supports = CentralSupport{0.9, 1e4};
        const double moment = 60 * 0.1 + 100 * (1.6 - 0.9);
        VERIFY_NEAR(clampPull(rail, carriage, {}, {4, 0.08}, 1.6), moment / 0.08 / 2, 1e-12);
        // What pulls along the rail adds where it turns the same way: 10 N of stop either way, 4 N downhill.
        VERIFY_NEAR(clampPull(rail, carriage, {10.0, 4.0, 0.3}, {4, 0.08}, 1.6),
                    (moment + 0.3 * (10.0 - 4.0)) / 0.08 / 2, 1e-12);
        VERIFY_NEAR(clampPull(rail, carriage, {10.0, -4.0, 0.3}, {4, 0.08}, 1.6),
                    (moment + 0.3 * (10.0 + 4.0)) / 0.08 / 2, 1e-12);
        const double back = 100 * (0.9 - 0.2) - 60 * 0.1; // on the other side of its head
        VERIFY_NEAR(clampPull(rail, carriage, {10.0, 4.0, 0.3}, {4, 0.08}, 0.2),
                    (back + 0.3 * (10.0 + 4.0)) / 0.08 / 2, 1e-12);
        VERIFY_NEAR(clampPull(rail, carriage, {}, {1, 0.08}, 1.6), moment / 0.08, 1e-12);
    }
};

QTEST_APPLESS_MAIN(StructureTest)
#include "structure_test.moc"
