// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/motion/rocking.h"
#include "core/rigs/rigs.h"
#include "core/tools/structure_curves.h"
#include "core/tools/structure_solve.h"
#include "core/verdicts/fix.h"
#include "support/files.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <numbers>

using namespace gantry;
constexpr double pi = std::numbers::pi, g = 9.80665;

/// Fixes of Structure on rigs made so that each is wanted: they do what they say, and what they promise is
/// what the changed rig then has.
class StructureFixesTest : public QObject {
    Q_OBJECT
    static const RotaryMechanism& boom(const Project& p) {
        return std::get<RotaryMechanism>(p.axes[1].mechanism);
    }
    static RotaryMechanism& boom(Project& p) { return std::get<RotaryMechanism>(p.axes[1].mechanism); }

    static std::optional<Verdict> verdictIn(const Assessment& a, std::string_view rule, int axis = -1) {
        for (const Verdict& v : a.verdicts)
            if (ruleKey(v) == rule && (axis < 0 || v.axis == axis)) return v;
        return std::nullopt;
    }
    /// All fixes of a verdict, each held to a fresh assessment of the rig it leaves behind.
    static std::vector<Fix> fixes(const Project& p, std::string_view rule, int axis = -1) {
        const Assessment now = assess(p);
        const auto verdict = verdictIn(now, rule, axis);
        if (!verdict) return {};
        std::vector<Fix> out = findFixes(p, now, *verdict, {}, 30, stockInShops());
        for (const Fix& fix : out) {
            const Assessment after = assess(fix.result);
            const auto mended = verdictIn(after, rule, verdict->axis);
            if (mended) {
                if (std::abs(fix.ratioAfter - mended->ratio.value()) > 1e-9 * (1 + fix.ratioAfter)) return {};
                if (mended->state != fix.stateAfter) return {};
            }
            // A hazard that was not over may not have become so.
            for (const Verdict& v : after.verdicts)
                if (v.hazard && v.state == State::Over) {
                    const auto before = verdictIn(now, ruleKey(v), v.axis);
                    if (!before || before->state != State::Over) return {};
                }
        }
        return out;
    }
    template <class Changed>
    static const Fix* first(const std::vector<Fix>& all, Changed changed) {
        for (const Fix& f : all)
            if (changed(f.result)) return &f;
        return nullptr;
    }

private slots:
    void theCounterweightIsMovedOrChanged() {
        Project p = demoProject("kettle-jib");
        boom(p).boom.counterweight.behind = 0.3;
        const auto offered = fixes(p, "balance");
        const Fix* fix = first(offered, [&](const Project& q) {
            return boom(q).boom.counterweight != boom(p).boom.counterweight;
        });
        QVERIFY(fix != nullptr);
        // By hand: at level little of what hangs in front is left, and on the camera's side.
        const Project& q = fix->result;
        double front = 0.0, left = 0.0;
        for (const structure::ArmMass& m : armMasses(q.payload, q.axes[1])) {
            left += m.mass * g * m.along;
            front += m.along > 0.0 ? m.mass * g * m.along : 0.0;
        }
        QVERIFY2(left > -0.002 * front && left < 0.1 * front,
                 qPrintable(QString("%1 of %2").arg(left).arg(front)));
        // Balanced to nothing the play of the drive would be let go, which this rig cannot stand.
        Project none = p;
        boom(none).boom.counterweight = *balanceWith(p, p.axes[1]);
        QVERIFY(verdictIn(assess(none), "jitter", 1)->state == State::Over);
        QVERIFY(verdictIn(assess(q), "jitter", 1)->state != State::Over);
        // On its bar.
        const Counterweight& w = boom(q).boom.counterweight;
        QVERIFY(w.behind >= w.nearest && w.behind <= w.farthest);
    }
    void aSecondTetherIsOffered() {
        Project p = demoProject("moss-orbit");
        p.base.tethered = false;
        const auto offered = fixes(p, "tether");
        QCOMPARE(offered.size(), 1u);
        QVERIFY(offered[0].result.base.tethered);
        p.base.tethered = true;
        QVERIFY(fixes(p, "tether").empty());
    }
    void aThickerPinStandsIt() {
        Project p = demoProject("kettle-jib");
        boom(p).boom.pivot.pinDiameter = 0.003;
        boom(p).boom.pivot.cheekGap = 0.06;
        const auto offered = fixes(p, "pivot", 1);
        QVERIFY(!offered.empty());
        for (const Fix& f : offered) {
            Project q = f.result;
            const double d = boom(q).boom.pivot.pinDiameter;
            QVERIFY(d > 0.003);
            // Bending of a pin held at its ends and loaded in the middle, with shear in two sections.
            double weight = 0.0;
            for (const structure::ArmMass& m : armMasses(q.payload, q.axes[1])) weight += m.mass * g;
            const double bending = weight * 0.06 / 4 * 32 / (pi * d * d * d),
                         shear = weight / 2 / (pi / 4 * d * d);
            const double stress = std::sqrt(bending * bending + 3 * shear * shear);
            VERIFY_NEAR(f.ratioAfter, boom(q).boom.pivot.pinLimit / stress, 0.02);
        }
    }
    void stepsAreTakenSlowerWithinTheirInterval() {
        const Project p = demoProject("kettle-jib");
        const auto offered = fixes(p, "settling", 1);
        QVERIFY(!offered.empty());
        int slower = 0, longer = 0;
        for (const Fix& f : offered)
            for (std::size_t s = 0; s < p.shots.size(); ++s) {
                const Shot &before = p.shots[s], &after = f.result.shots[s];
                if (after.stepTime > before.stepTime) ++slower;
                if (after.settle > before.settle) ++longer;
                if (after.kind == ShotKind::Interval)
                    QVERIFY(after.stepTime + after.settle + after.exposure <= after.interval + 1e-9);
            }
        QVERIFY(slower > 0);
        QVERIFY(longer > 0);
    }
    /// Everything else stiff: pads decide, and stiffer ones mend it.
    void padsAreMadeStiffer() {
        Project p = demoProject("kettle-jib");
        boom(p).boom.section.material = BeamMaterial::Steel;
        boom(p).boom.section.width = boom(p).boom.section.height = 0.08;
        boom(p).boom.mastTurning = estimate(0.0, Source::Measured);
        boom(p).boom.counterweight = *balanceWith(p, p.axes[1]);
        p.base.padStiffness = estimate(20e3, Source::Measured);
        p.base.padDamping = estimate(0.03, Source::Measured);
        const auto offered = fixes(p, "settling", 1);
        const Fix* fix = first(
            offered, [&](const Project& q) { return q.base.padStiffness.value > p.base.padStiffness.value; });
        if (fix == nullptr) {
            // Then no pad of the list is enough: eight times as stiff must still be over.
            Project q = p;
            q.base.padStiffness.value *= 8;
            const auto still = verdictIn(assess(q), "settling", 1);
            QVERIFY(still && still->state == State::Over);
        } else {
            QVERIFY(describe(*fix, p, units::System::Metric).find("pads") != std::string::npos);
        }
        // Whatever is offered, the pads are what gives most.
        QCOMPARE(evaluate(p).axes[1].structure.soft.front().cause, SoftCause::Pads);
    }
    void lockedFieldsAreLeftAlone() {
        Project p = demoProject("kettle-jib");
        boom(p).boom.counterweight.behind = 0.3;
        p.lockedFields = {"axes/boom/mechanism/boom/counterweight/behind_m",
                          "axes/boom/mechanism/boom/counterweight/mass_kg"};
        for (Fix& f : fixes(p, "balance"))
            QCOMPARE(boom(f.result).boom.counterweight, boom(p).boom.counterweight);
    }
    /// A part alone swings down by its decrement: after the time that is told the envelope is at the limit.
    void settlingAloneIsTheEnvelope() {
        const Project p = demoProject("kettle-jib");
        const Evaluation e = evaluate(p);
        int looked = 0;
        for (const ShotEvaluation& s : e.axes[1].shots) {
            if (s.problem != Reason::None) continue;
            for (const SoftEntry& part : e.axes[1].structure.soft) {
                const motion::Mode mode{part.part.frequency, part.part.damping};
                const double start = 2.0 * motion::mostRockingAfter(s.profile, mode) * s.pixelsPerUnit;
                if (!(start > 0.0)) continue;
                const double limit = 0.3 * start;
                const Figure time = settlesAlone(s, part.part, limit);
                QVERIFY(time);
                const double left =
                    start * std::exp(-part.part.damping * 2 * pi * part.part.frequency * time.value());
                VERIFY_NEAR(left, limit, 1e-6);
                QCOMPARE(settlesAlone(s, part.part, 2.0 * start).value(), 0.0); // never above it
                QVERIFY(!settlesAlone(s, {part.part.frequency, 0.0}, limit));   // nothing damps it
                ++looked;
            }
        }
        QVERIFY(looked >= 3);
    }
};

QTEST_GUILESS_MAIN(StructureFixesTest)
#include "structure_fixes_test.moc"
