// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/rig_bodies.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/rigs/rigs.h"
#include "core/tools/structure_solve.h"
#include "core/verdicts/ranges.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// What a rig is put together from: sections with their prices, ballast, pads and clamps, by hand.
class RigPartsTest : public QObject {
    Q_OBJECT
private slots:
    /// A head on a tripod weighs what its axes list; on a carriage or an arm that has it already, nothing
    /// more.
    void aHeadWeighsWhatItLists() {
        Project p = rigs::make(rigs::RigKind::PanTiltHead);
        double camera = 0.0;
        for (const MassItem& item : p.payload) camera += item.mass.value;
        const auto& pan = std::get<RotaryMechanism>(p.axes[0].mechanism);
        VERIFY_NEAR(evaluate(p).rig.mass.value(), p.base.mass.value + pan.items[0].mass.value + camera,
                    1e-12);
        p.axes[1].carriesPayload = false;
        VERIFY_NEAR(evaluate(p).rig.mass.value(), p.base.mass.value + pan.items[0].mass.value, 1e-12);
        Project slides = rigs::make(rigs::RigKind::MultiAxis);
        const double with = evaluate(slides).rig.mass.value();
        std::get<RotaryMechanism>(slides.axes[1].mechanism).items.clear();
        VERIFY_NEAR(evaluate(slides).rig.mass.value(), with, 1e-12);
    }
    /// The carriage of a lift begins half its length above the foot of its column, and the ground below is
    /// level however upright the column is.
    void aLiftStandsOnLevelGround() {
        Project p = rigs::make(rigs::RigKind::LiftColumn);
        auto& lift = std::get<LinearMechanism>(p.axes[0].mechanism);
        VERIFY_NEAR(chainOf(setupOf(p)).links.at(0).shift.z,
                    p.base.height + lift.carriageLength / 2.0 + lift.bumperLength, 1e-12);
        for (const BaseKind kind : {BaseKind::Legs, BaseKind::Rectangle}) {
            p.base.kind = kind;
            const Assessment a = assess(p);
            for (const Verdict& v : a.verdicts)
                if (ruleKey(v) == "clearance")
                    QVERIFY2(v.state == State::Fine, sentence(v, p, units::System::Metric).c_str());
        }
    }
    /// Section by the metre, discs by the piece, drives as they are.
    void pricesAddUp() {
        Project p = jib();
        p.axes[0].price = 120;
        boom(p).boom.section.price = 15;
        boom(p).boom.discs = {{"small", "Small", 1.0, 4, 3.0}, {"large", "Large", 5.0, 2, 11.0}};
        VERIFY_NEAR(evaluate(p).rig.price.value(), 120 + 15 * 2.8 + 4 * 3 + 2 * 11, 1e-12);
        Project s = slider();
        rail(s).rail.section.price = 40;
        rail(s).railLength = 2.5;
        VERIFY_NEAR(evaluate(s).rig.price.value(), 100.0, 1e-12);
        rail(s).rail.section.shape = SectionShape::NotGiven;
        QCOMPARE(evaluate(s).rig.price.value(), 0.0);
    }
    /// What the user lists is compared flat and on edge, at the price that was entered; stock sizes by
    /// weight.
    void listedSectionsAreCompared() {
        Project p = slider();
        Profile listed;
        listed.id = "shelf";
        listed.section.shape = SectionShape::SlottedProfile;
        listed.section.width = 0.08;
        listed.section.height = 0.04;
        listed.section.price = 22;
        p.profiles.push_back(listed);
        rail(p).rail.section.price = 10;
        const std::vector<Section> all = sectionsToTry(p, rail(p).rail.section, stockInShops());
        QCOMPARE(all[0], listed.section);
        QVERIFY(all[1].onEdge && all[1].width == 0.08);
        // The same piece at another price is listed too, and goes with its own price.
        Project cheaper = p;
        cheaper.profiles[0].section = rail(p).rail.section;
        cheaper.profiles[0].section.price = 7;
        const auto dear = sectionsToTry(cheaper, rail(cheaper).rail.section, stockInShops());
        QCOMPARE(dear[0], cheaper.profiles[0].section);
        const auto rows = compareSections(p, p.axes[0], all);
        QCOMPARE(rows.size(), all.size() + 1);
        QVERIFY(rows[2].found.sag.value() < rows[1].found.sag.value()); // on edge it sags less
        QVERIFY(rows[1].price == 22 && rows[2].price == 22);            // a metre of it
        for (std::size_t i = 3; i < rows.size(); ++i)
            VERIFY_NEAR(rows[i].price / rows[i].found.ownMass.value(), 10 / rows[0].found.ownMass.value(),
                        1e-9);
    }
    /// Ballast on a leg: the weights' moment about each edge by hand, and a leg that is not there.
    void ballastOnALeg() {
        Project p = jib();
        p.base.legs = 4;
        p.base.firstLeg = pi / 4;
        p.base.legRadius = std::sqrt(2.0); // feet at ±1, ±1
        p.base.ballast = estimate(10.0, Source::Measured);
        const auto centre = [&] { return layRig(setupOf(p), shownPose(p.axes)).centre; };
        const double mass = layRig(setupOf(p), shownPose(p.axes)).mass;
        const Place middle = centre();
        p.base.ballastLeg = 2; // the second, anticlockwise: (−1, 1)
        VERIFY_NEAR(centre().x - middle.x, -10.0 / mass, 1e-12);
        VERIFY_NEAR(centre().y - middle.y, 10.0 / mass, 1e-12);
        p.base.ballastLeg = 5;
        const auto v = verdict(p, "tipping");
        QVERIFY(v && v->state == State::Unknown);
        QVERIFY(sentence(*v, p, units::System::Metric).find("no leg of that number") != std::string::npos);
    }
    /// Where an arm looks one way only, the foot behind it needs the least, and the program finds that.
    void ballastGoesWhereTheLeastDoes() {
        Project p = jib();
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.lowAngle = -0.05;
        swing.range = 0.1;
        p.base.legs = 4;
        p.base.firstLeg = 0.0; // the first points along the arm, the third behind it
        p.base.legRadius = 0.35;
        p.base.mass = estimate(3.0, Source::Measured);
        const Assessment a = assess(p);
        const auto tipping = std::find_if(a.verdicts.begin(), a.verdicts.end(),
                                          [](const Verdict& v) { return ruleKey(v) == "tipping"; });
        QVERIFY(tipping->state == State::Over);
        bool offered = false;
        for (const Fix& fix : findFixes(p, a, *tipping, {}, 20, stockInShops())) {
            if (fix.result.base.ballastLeg == 0) continue;
            offered = true;
            QCOMPARE(fix.result.base.ballastLeg, 3);
            const auto& pose = a.evaluation.rig.tippingPose;
            Project bare = p;
            bare.base.ballast.value = 0.0;
            const double behind =
                             ballastNeededAt(setupOf(bare), a.evaluation.axes, pose, {-0.35, 0.0}).value(),
                         middle = ballastNeededAt(setupOf(bare), a.evaluation.axes, pose, {0.0, 0.0}).value();
            QVERIFY(behind < 0.7 * middle && fix.result.base.ballast.value >= behind);
        }
        QVERIFY(offered);
    }
    /// Pads under the feet become one of the soft parts, in series with the others, until they are stiff.
    void padsAreASoftPart() {
        Project p = slider();
        p.base.kind = BaseKind::Rectangle;
        p.base.height = 0.8;
        const double stiff = evaluate(p).axes[0].structure.frequency.value();
        const auto with = [&](double k) {
            p.base.padStiffness = estimate(k, Source::Measured);
            const AxisStructure s = evaluate(p).axes[0].structure;
            const auto pads = std::find_if(s.soft.begin(), s.soft.end(),
                                           [](const SoftEntry& e) { return e.cause == SoftCause::Pads; });
            const double f = pads != s.soft.end() ? pads->part.frequency : 0.0;
            // In series with all the others.
            const double all = 1 / (f * f) + 1 / (stiff * stiff);
            return std::abs(1 / (s.frequency.value() * s.frequency.value()) / all - 1) < 1e-9 ? f : 0.0;
        };
        // Level with the weight helping over left out, the frequency goes with the root of the stiffness.
        VERIFY_NEAR(with(4e8) / with(1e8), 2.0, 1e-3);
        QVERIFY(with(1e12) > 100 * stiff);
        p.base.padStiffness.value = 0.0;
        QCOMPARE(evaluate(p).axes[0].structure.frequency.value(), stiff);
    }
    /// Where soft pads make it swing too long, stiffer ones are offered, and they do help.
    void stifferPadsAreOffered() {
        Project p = demoProject("kettle-jib");
        p.base.padStiffness = estimate(12e3, Source::Measured);
        p.base.padDamping = estimate(0.02, Source::Measured);
        const Assessment a = assess(p);
        const auto settling = std::find_if(a.verdicts.begin(), a.verdicts.end(), [](const Verdict& v) {
            return ruleKey(v) == "settling" && v.axis == 1;
        });
        QVERIFY(settling != a.verdicts.end() && settling->state == State::Over);
        QCOMPARE(settling->part, softName(SoftCause::Pads)); // what gives most is named
        // Guessed pads leave more open than measured ones.
        Project guessed = p;
        guessed.base.padStiffness = estimate(12e3, Source::Guess);
        guessed.base.padDamping = estimate(0.02, Source::Guess);
        QVERIFY(guessed.base.padStiffness.tolerance > p.base.padStiffness.tolerance);
        for (const Verdict& v : assess(guessed).verdicts)
            if (ruleKey(v) == "settling" && v.axis == 1) {
                QCOMPARE(v.ratio.value(), settling->ratio.value());
                QVERIFY(v.low < settling->low);
            }
        for (double stiffer : {4.0, 16.0}) {
            Project q = p;
            q.base.padStiffness.value *= stiffer;
            for (const Verdict& v : assess(q).verdicts)
                if (ruleKey(v) == "settling" && v.axis == 1)
                    QVERIFY(v.ratio.value() > settling->ratio.value());
        }
    }
    /// The bolts of a clamp: what stands beyond a stand pulls on the other one's.
    void clampsOfARail() {
        Project p = slider();
        QVERIFY(!verdict(p, "rail_clamps")); // not entered, not judged
        rail(p).rail.firstStand = 0.5;
        rail(p).rail.clampBolts = 2;
        rail(p).rail.clampBoltLimit = 400;
        rail(p).bumperLength = 0.0;
        const double own = evaluate(p).axes[0].structure.ownMass.value();
        // Carriage at its low end, 5 cm on the rail: 0.45 m beyond the stand, the rail's middle on it.
        double ramp = 0.0;
        const AxisEvaluation moved = evaluate(p).axes[0];
        for (const ShotEvaluation& s : moved.shots) ramp = std::max(ramp, s.motion.acceleration.value());
        const double stop = 5 * ramp * rail(p).guide.massHeight;
        VERIFY_NEAR(evaluate(p).axes[0].structure.clampRatio.value(), 400 / ((5 * g * 0.45 + stop) / 0.5 / 2),
                    1e-6);
        QVERIFY(own > 0.0);
        rail(p).rail.clampBoltLimit = 10;
        const auto v = verdict(p, "rail_clamps");
        QVERIFY(v && v->state == State::Over && v->hazard);
        const Assessment a = assess(p);
        const auto at = std::find_if(a.verdicts.begin(), a.verdicts.end(),
                                     [](const Verdict& x) { return ruleKey(x) == "rail_clamps"; });
        QVERIFY(!findFixes(p, a, *at, {}, 5, stockInShops()).empty());
    }
};

QTEST_APPLESS_MAIN(RigPartsTest)
#include "rig_parts_test.moc"
