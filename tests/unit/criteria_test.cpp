// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/evaluate/drive/checks.h"
#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"
#include "core/tools/capability.h"
#include "core/tools/limits.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"

#include "support/files.h"
#include "support/near.h"

#include <QRegularExpression>
#include <QTest>
#include <algorithm>

using namespace gantry;

/// Every number of judgement is stated twice, here and in docs/models/criteria.md, and what leans on it does.
class CriteriaTest : public QObject {
    Q_OBJECT

    static LinearMechanism& slide(Project& p) { return std::get<LinearMechanism>(p.axes[0].mechanism); }
    /// A slide with shots of these speeds and accelerations, in this order.
    static Project withShots(const std::vector<std::pair<double, double>>& shots) {
        Project p = demoProject();
        const Shot like = p.shots.front();
        p.shots.clear();
        p.controller.ramps = RampKind::Trapezoid; // shots reach the acceleration they ask
        for (const auto& [speed, acceleration] : shots) {
            Shot s = like;
            s.id = "shot-" + std::to_string(p.shots.size());
            s.keepFramed = false;
            s.moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.6, speed, acceleration}}};
            p.shots.push_back(s);
        }
        return p;
    }

private slots:
    void thePageSaysTheSame() {
        const QStringList lines =
            QString::fromStdString(textOfFile(sourcePath("docs/models/criteria.md"))).split('\n');
        const QRegularExpression row(
            R"(^\| `(\w+)` \| (.+) \| ([-+.0-9e]+) \| (\S+) \| ([.0-9]*) ?\| (.+) \|$)");
        std::size_t at = 0;
        for (const QString& line : lines) {
            if (!line.startsWith("| `")) continue;
            const auto match = row.match(line);
            QVERIFY2(match.hasMatch(), qPrintable(line));
            QVERIFY2(at < criteria::all().size(), qPrintable(line));
            const criteria::Criterion& c = criteria::all()[at++];
            QCOMPARE(match.captured(1).toStdString(), std::string(c.id));
            QCOMPARE(match.captured(2).toStdString(), std::string(c.what));
            QVERIFY2(match.captured(3).toDouble() == double(c), qPrintable(line));
            QVERIFY2(match.captured(5).toDouble() == c.oversizedFrom, qPrintable(line));
            QVERIFY2(match.captured(6).size() >= 7, qPrintable(line)); // where it comes from
        }
        QCOMPARE(at, criteria::all().size());
    }
    /// A rule wants what the criterion of its name says, and no two criteria share a name.
    void rulesWantThem() {
        for (const criteria::Criterion& c : criteria::all())
            QCOMPARE(std::count_if(criteria::all().begin(), criteria::all().end(),
                                   [&](const criteria::Criterion& o) { return o.id == c.id; }),
                     1);
        for (const rules::Rule* r : rules::all()) {
            QVERIFY(std::any_of(criteria::all().begin(), criteria::all().end(),
                                [&](const criteria::Criterion& c) { return c.id == r->key(); }));
            QCOMPARE(r->bounds().wanted, r->wants.value);
        }
    }
    /// physics.md 19: at least 3 in load paths near people; overhead 5.
    void safetyFactors() {
        for (const char* key : {"tooth_strength", "beam_strength", "rail_clamps", "pivot", "buckling"})
            QCOMPARE(rules::all()[static_cast<std::size_t>(rules::indexOf(key))]->bounds().wanted, 3.0);
        QCOMPARE(rules::all()[static_cast<std::size_t>(rules::indexOf("anchors"))]->bounds().wanted, 5.0);
    }
    /// Driven at the acceleration that its weakest part allows, the part stands just the factor that its rule
    /// wants, whichever shots were there when the limit was found.
    void partLimitsMeetTheRule() {
        for (const auto& shots : {std::vector<std::pair<double, double>>{{0.25, 0.8}},
                                  {{0.4, 0.3}, {0.1, 1.5}},
                                  {{0.1, 1.5}, {0.4, 0.3}}}) {
            Project p = withShots(shots);
            std::get<BeltOutput>(slide(p).output).tensileStiffness.value =
                2.4e4; // a weak one, so that it binds
            slide(p).motion.maxAcceleration = 50.0;
            const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
            const AxisLimits l = axisLimits(p, p.axes[0], e);
            const auto part = std::find_if(l.acceleration.begin(), l.acceleration.end(), [](const Limit& x) {
                return x.reason == LimitReason::PartStrength;
            });
            QVERIFY(part != l.acceleration.end() && part->value > 0.5);
            const Project at = withShots({{0.3, part->value}});
            Project driven = at;
            std::get<BeltOutput>(slide(driven).output).tensileStiffness.value = 2.4e4;
            slide(driven).motion.maxAcceleration = 50.0;
            VERIFY_NEAR(evaluateAxis(driven, driven.axes[0]).checks.parts.back().strength.value(), 3.0, 1e-9);
        }
    }
    /// Where break-away decides, all shots have the same margin; what the axis can do is then told for the
    /// hardest of them and not for the first.
    void capabilityDoesNotDependOnTheOrder() {
        const auto of = [](std::vector<std::pair<double, double>> shots) {
            Project p = withShots(shots);
            slide(p).staticFriction = estimate(40.0, Source::Measured);
            const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
            for (const ShotEvaluation& s : e.shots)
                if (s.torque.margin.value() != e.shots[0].torque.margin.value())
                    qFatal("break-away must decide");
            return std::pair{capability(p.axes[0], e), e.worst()->motion.acceleration.value()};
        };
        const auto [one, hardest] = of({{0.05, 0.1}, {0.08, 0.3}, {0.06, 0.2}});
        QCOMPARE(hardest, 0.3);
        const auto [other, again] = of({{0.06, 0.2}, {0.05, 0.1}, {0.08, 0.3}});
        QCOMPARE(again, 0.3);
        const auto same = [](const Figure& a, const Figure& b) {
            return a.reason() == b.reason() && a.valueOr(0.0) == b.valueOr(0.0);
        };
        QVERIFY(same(one.load.value, other.load.value));
        QVERIFY(same(one.speed.value, other.speed.value));
        QVERIFY(same(one.acceleration.value, other.acceleration.value));
    }
    /// A shot that cannot be planned is not the worst by torque as long as another can be judged; the verdict
    /// still says that it is missing.
    void whatCannotBePlannedIsSaidNotMeasured() {
        Project p = withShots({{0.25, 0.8}, {0.1, 0.2}});
        p.shots[1].moves[0].movement = ByTime<AxisKind::Linear>{0.6, 0.01, 0.0, 0.0};
        const Assessment a = assess(p);
        QCOMPARE(a.evaluation.axes[0].worst()->shot, ShotIndex(0));
        const auto torque = std::find_if(a.verdicts.begin(), a.verdicts.end(), [](const Verdict& v) {
            return ruleKey(v) == "torque" && v.axis == 0;
        });
        QCOMPARE(torque->state, State::Unknown);
        QCOMPARE(torque->shot, ShotIndex(1));
    }
};

QTEST_APPLESS_MAIN(CriteriaTest)
#include "criteria_test.moc"
