// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/arm_modes.h"
#include "core/structure/balance.h"
#include "support/files.h"
#include "support/frame_elements.h"
#include "support/near.h"

#include <QTest>
#include <nlohmann/json.hpp>
#include <random>

using namespace gantry;
using namespace gantry::structure;
using nlohmann::json;

namespace {

ArmSide side(const json& sections) {
    ArmSide out;
    for (const json& s : sections) out.sections.push_back({s[0], s[1], s[2], s[3]});
    return out;
}

} // namespace

/// Arms as the long bodies they are: inertia of their own, bending and turning together, stress at each step.
class LongBodiesTest : public QObject {
    Q_OBJECT
private slots:
    void inertia() {
        for (const json& c : referenceCases("t51_long_bodies", "inertia")) {
            const json& in = c["inputs"];
            const json& wanted = c["expected"];
            const double mass = in["arm_mass"], length = in["arm_length"], tail = in["pivot_from_tail"],
                         width = in["arm_width"], tipMass = in["tip_mass"], tip = in["tip_place"];
            std::vector<ArmMass> all{
                {mass, 0.5 * length - tail, 0.0, false, mass * (length * length + width * width) / 12.0},
                {tipMass, tip, 0.0, false, in["tip_own"].get<double>()}};
            VERIFY_NEAR(inertiaAboutPivot(std::span(all).first(1)), wanted["arm"].get<double>(), 1e-9);
            for (const json& w : in["weights"]) {
                const double m = w[0], x = w[1], along = w[2], across = w[3];
                all.push_back({m, x, 0.0, false, m * (along * along + across * across) / 12.0});
            }
            VERIFY_NEAR(inertiaAboutPivot(all), wanted["total"].get<double>(), 1e-9);
            VERIFY_NEAR(inertiaAboutUpright(all), wanted["total"].get<double>(), 1e-9);
            // Raised, it turns the same about an upright axis and harder about a level one.
            for (ArmMass& m : all) m.above = 0.3;
            VERIFY_NEAR(inertiaAboutUpright(all), wanted["total"].get<double>(), 1e-9);
            double total = 0.0;
            for (const ArmMass& m : all) total += m.mass;
            VERIFY_NEAR(inertiaAboutPivot(all), wanted["total"].get<double>() + total * 0.09, 1e-9);
        }
    }
    void modes() {
        for (const json& c : referenceCases("t51_long_bodies", "modes")) {
            const json& in = c["inputs"];
            ArmSide front = side(in["front"]), back = side(in["back"]);
            front.bodies = {{in["tip_mass"], front.length() + in["tip_ahead"].get<double>(), in["tip_own"]}};
            back.bodies = {
                {in["weight_mass"], back.length() + in["weight_ahead"].get<double>(), in["weight_own"]}};
            VERIFY_NEAR(firstFrequency(front, back, in["pivot_spring"]), c["expected"]["first"].get<double>(),
                        2e-3);
            VERIFY_NEAR(firstFrequency(front, {}, 0.0), c["expected"]["clamped_front"].get<double>(), 2e-3);
            // A pivot stiffer and stiffer is a clamp; an arm stiffer and stiffer only turns.
            VERIFY_NEAR(firstFrequency(front, back, 1e10),
                        std::min(firstFrequency(front, {}, 0.0), firstFrequency(back, {}, 0.0)), 1e-3);
            for (ArmSide* s : {&front, &back})
                for (ArmSection& section : s->sections) section.bendingStiffness *= 1e6;
            VERIFY_NEAR(firstFrequency(front, back, in["pivot_spring"]),
                        c["expected"]["rigid_arm_on_spring"].get<double>(), 1e-4);
        }
    }
    void stress() {
        for (const json& c : referenceCases("t51_long_bodies", "stress")) {
            const json& in = c["inputs"];
            ArmSide front = side(in["front"]);
            front.bodies = {{in["tip_mass"], front.length() + in["tip_ahead"].get<double>(), 0.0}};
            const double gravity =
                (9.80665 + in["vertical_acceleration"].get<double>()) * in["shake"].get<double>();
            VERIFY_NEAR(largestStress(front, gravity), c["expected"]["worst"].get<double>(), 1e-9);
        }
        // A step nearer the tip may be what breaks: 1 m of thick and 1 m of thin tube, 5 kg at the end.
        ArmSide stepped;
        stepped.sections = {{1.0, 1e4, 0.0, 4e-6}, {1.0, 1e3, 0.0, 1e-6}};
        stepped.bodies = {{5.0, 2.0, 0.0}};
        VERIFY_NEAR(largestStress(stepped, 10.0), 5.0 * 10.0 * 1.0 / 1e-6, 1e-9);
        stepped.sections[1].modulus = 3e-6;
        VERIFY_NEAR(largestStress(stepped, 10.0), 5.0 * 10.0 * 2.0 / 4e-6, 1e-9);
    }
    /// Arms drawn at random against finite elements: bodies anywhere along both sides.
    void againstFiniteElements() {
        std::mt19937 random(20261130);
        const auto between = [&](double a, double b) {
            return a + (b - a) * std::uniform_real_distribution<double>()(random);
        };
        for (int i = 0; i < 40; ++i) {
            const double front = 0.1 * std::round(between(8, 30)), rear = 0.1 * std::round(between(3, 12)),
                         ei = between(800, 20000), mu = between(0.3, 2.5), spring = between(500, 20000);
            const auto at = [&](double length) { return 0.05 * std::round(between(1, length / 0.05)); };
            ArmSide a{{{front, ei, mu, 0.0}},
                      {{between(0.5, 6), front, 0.0}, {between(0.1, 2), at(front), 0.0}}};
            ArmSide b{{{rear, ei, mu, 0.0}}, {{between(1, 15), at(rear), 0.0}}};
            const int elements = static_cast<int>(std::lround((front + rear) / 0.05));
            BeamElements fine(front + rear, elements, ei, mu);
            fine.spring(rear, 1e12);
            fine.turningSpring(rear, spring);
            for (const ArmBody& body : a.bodies) fine.mass(rear + body.at, body.mass, 0.0);
            for (const ArmBody& body : b.bodies) fine.mass(rear - body.at, body.mass, 0.0);
            const double found = firstFrequency(a, b, spring), wanted = fine.firstFrequency();
            QVERIFY2(found > 0.999 * wanted && found < 1.01 * wanted,
                     qPrintable(QStringLiteral("%1: %2 for %3").arg(i).arg(found).arg(wanted)));
        }
    }
    void nothingToSwing() {
        QCOMPARE(firstFrequency({}, {}, 0.0), 0.0);
        QCOMPARE(firstFrequency({}, {}, 100.0), 0.0); // no mass
        ArmSide bare;
        bare.bodies = {{2.0, 0.5, 0.0}};
        VERIFY_NEAR(firstFrequency(bare, {}, 100.0), std::sqrt(100.0 / 0.5) / (2 * 3.14159265358979), 1e-9);
        QCOMPARE(largestStress({}, 10.0), 0.0);
    }
};

QTEST_APPLESS_MAIN(LongBodiesTest)
#include "long_bodies_test.moc"
