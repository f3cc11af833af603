// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/stage_view.h"
#include "core/model/acceptable.h"
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kind_traits.h"
#include "core/model/references.h"
#include "core/tools/change_kind.h"
#include "io/project/project_file.h"
#include "support/every_rig.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;
using namespace hand;

/// What a project may hold, what edits of its axes make, and what another kind of link keeps.
class ModelByHandTest : public QObject {
    Q_OBJECT
    static std::optional<double*> numberOf(const FieldRef& f) {
        if (auto* const* d = std::get_if<double*>(&f.target)) return *d;
        if (auto* const* e = std::get_if<Estimate*>(&f.target)) return &(*e)->value;
        return std::nullopt;
    }
    static drivetrain::Ratio ratioOf(const Link& link) { return *stageView(link).ratio; }
    template <class T>
    static Link as(const Link& old) {
        return changedKind(old, Link(T{}).index());
    }

private slots:
    /// Every number of every rig, just within and just beyond what its field takes: the refusal names the
    /// place and both ends.
    void everyNumberHasItsEnds() {
        int checked = 0;
        EveryRig rigs;
        for (Project& p : rigs.projects) {
            QCOMPARE(objectionTo(p), std::string());
            for (const FieldRef& f : allFields(p)) {
                const auto number = numberOf(f);
                if (!number) continue;
                double& v = **number;
                const double was = v;
                const auto refused = [&](double value) {
                    v = value;
                    const std::string o = objectionTo(p);
                    v = was;
                    return o.find(f.path) != std::string::npos && o.find("it takes") != std::string::npos;
                };
                const auto beyond = [](double end, double sign) {
                    return end + sign * (std::abs(end) * 1e-6 + 1e-300);
                };
                QVERIFY2(refused(beyond(f.info.max, 1.0)), f.path.c_str());
                QVERIFY2(refused(beyond(f.info.min, -1.0)), f.path.c_str());
                QVERIFY2(refused(std::nan("")), f.path.c_str());
                QVERIFY2(!refused(f.info.max) && !refused(f.info.min), f.path.c_str());
                ++checked;
            }
        }
        QVERIFY(checked > 1000);
    }
    void everyToleranceHasItsEnds() {
        Project p = demoProject();
        for (const FieldRef& f : allFields(p))
            if (auto* const* e = std::get_if<Estimate*>(&f.target)) {
                const double was = (*e)->tolerance;
                for (const double wrong : {-0.001, 10.001, std::nan("")}) {
                    (*e)->tolerance = wrong;
                    QVERIFY2(objectionTo(p).find(f.path) != std::string::npos, f.path.c_str());
                }
                for (const double right : {0.0, 10.0}) {
                    (*e)->tolerance = right;
                    QCOMPARE(objectionTo(p), std::string());
                }
                (*e)->tolerance = was;
            }
    }
    void everyTextIsPlain() {
        Project p = demoProject();
        int checked = 0;
        for (const FieldRef& f : allFields(p))
            if (auto* const* s = std::get_if<std::string*>(&f.target);
                s != nullptr && !f.path.ends_with("/id") && !f.path.ends_with("/axis") &&
                // names of other parts, which have to be there
                namesFor(p, f.path).empty()) {
                const std::string was = **s;
                **s = "a\x1b[31mb";
                QVERIFY2(objectionTo(p).find("cannot be shown") != std::string::npos, f.path.c_str());
                settle(p);
                QVERIFY((*s)->find('\x1b') == std::string::npos);
                QVERIFY2(objectionTo(p).empty(), (f.path + ": " + objectionTo(p)).c_str());
                **s = std::string(100000, 'x');
                QVERIFY2(objectionTo(p).find("letters") != std::string::npos, f.path.c_str());
                **s = was;
                ++checked;
            }
        QVERIFY(checked > 5);
    }
    /// What fields of a move may name, by name; a name that is taken is one the project stands with.
    void namesOfOthers() {
        Project p = demoProject();
        Axis table = p.axes[1];
        table.id = "table";
        table.name = "Table";
        table.role = Role::Turntable;
        p.axes.push_back(table);
        const std::string move = "moves/" + p.moves[0].id;
        const auto names = [&](const std::string& path) {
            std::vector<std::string> out;
            for (const NamedId& each : namesFor(p, path)) out.push_back(each.id + "=" + each.name);
            return out;
        };
        using Names = std::vector<std::string>;
        QCOMPARE(names(move + "/shot"),
                 (Names{"=the first shot", "reveal=Reveal", "rise=Rise", "creep=Creep"}));
        QCOMPARE(names(move + "/poses/b/arrive/target"), (Names{"=no target", "crown=Fern crown"}));
        QCOMPARE(names(move + "/poses/b/arrive/speed_of"),
                 (Names{"=the first that moves", "slide=Slide", "pan=Pan", "table=Table"}));
        QCOMPARE(names(move + "/targets/crown/rides_on"), (Names{"=no turntable", "table=Table"}));
        for (const char* free : {"/name", "/poses/b/note", "/targets/crown/name"})
            QVERIFY(names(move + free).empty());
        QVERIFY(names("moves/another/shot").empty());
        QVERIFY(names("shots/reveal/name").empty());
        int tried = 0;
        for (const FieldRef& f : allFields(p))
            if (auto* const* s = std::get_if<std::string*>(&f.target))
                for (const NamedId& each : namesFor(p, f.path)) {
                    const std::string was = **s;
                    **s = each.id;
                    QVERIFY2(inconsistencies(p).empty(), (f.path + " " + each.id).c_str());
                    **s = was;
                    ++tried;
                }
        QVERIFY(tried > 10);
    }
    /// What is far below anything real becomes nothing where nothing is allowed, and only there.
    void tooSmallIsNothing() {
        for (const double min : {-1.0, 0.0, 1e-30})
            for (const double max : {1.0, 0.0}) {
                FieldInfo info;
                info.kind = units::Kind::Length;
                info.min = min;
                info.max = max;
                const double least = units::leastMagnitude(info.kind), tiny = 0.5 * least;
                const bool nothing = min <= 0.0 && max >= 0.0;
                QCOMPARE(settled(info, tiny), nothing ? 0.0 : tiny);
                QCOMPARE(settled(info, -tiny), nothing ? 0.0 : -tiny);
                QCOMPARE(settled(info, 2 * least), 2 * least);
                QCOMPARE(settled(info, least), least);
            }
    }
    /// The size a file will have is never said too small, nor far too large.
    void writtenSize() {
        EveryRig rigs;
        for (Project& p : rigs.projects)
            for (const bool kept : {false, true}) {
                if (kept)
                    for (int i = 0; i < 300; ++i)
                        p.kept.push_back(
                            {"camera", "key" + std::to_string(i), "\"" + std::string(i, 'x') + "\""});
                const std::size_t real = io::writeProject(p).size(), said = writtenSizeAtMost(p);
                QVERIFY2(said >= real, qPrintable(QString("%1 %2").arg(said).arg(real)));
                QVERIFY2(said <= 2 * real, qPrintable(QString("%1 %2").arg(said).arg(real)));
            }
    }
    void addedAxes() {
        Project p;
        QCOMPARE(addAxis(p, Role::Slide, true), 0);
        QCOMPARE(addAxis(p, Role::Slide, true), 1);
        QCOMPARE(addAxis(p, Role::Slide, true), 2);
        QCOMPARE(p.axes[0].name, std::string("Slide"));
        QCOMPARE(p.axes[1].name, std::string("Slide 2"));
        QCOMPARE(p.axes[2].name, std::string("Slide 3"));
        QCOMPARE(p.axes[1].id, std::string("slide-2"));
        QCOMPARE(addAxis(p, Role::Lift, true), 3);
        const auto& lift = std::get<LinearMechanism>(p.axes[3].mechanism);
        VERIFY_NEAR(lift.slope.value, pi / 2, 1e-12);
        QVERIFY(std::holds_alternative<ScrewOutput>(lift.output));
        for (const Role role : {Role::Focus, Role::Zoom}) {
            addAxis(p, role, true); // a lens turns, whatever is asked
            const auto& lens = std::get<RotaryMechanism>(p.axes.back().mechanism);
            const auto& ring = std::get<LensRingOutput>(lens.output);
            QCOMPARE(lens.range, ring.ringThrow);
            QCOMPARE(lens.inertia.value, 2e-4);
            QCOMPARE(ring.marks.front().id == "wide", role == Role::Zoom);
            if (role == Role::Zoom) QCOMPARE(ring.marks.back().angle, ring.ringThrow);
        }
        addAxis(p, Role::Pan, true);
        QVERIFY(
            std::holds_alternative<DirectOutput>(std::get<RotaryMechanism>(p.axes.back().mechanism).output) ||
            !std::holds_alternative<LensRingOutput>(
                std::get<RotaryMechanism>(p.axes.back().mechanism).output));
        addAxis(p, Role::Other, true);
        QCOMPARE(kindOf(p.axes.back()), AxisKind::Linear);
        addAxis(p, Role::Other, false);
        QCOMPARE(kindOf(p.axes.back()), AxisKind::Rotary);
    }
    void idsThatAreFree() {
        Project p;
        QCOMPARE(freeId(p, "Slide"), std::string("slide"));
        p.axes.resize(3);
        p.axes[0].id = "slide";
        p.axes[1].id = "slide-2";
        p.axes[2].id = "a-1b";
        QCOMPARE(freeId(p, "slide-2"), std::string("slide-3")); // the next slide, not "slide-2-2"
        QCOMPARE(freeId(p, "SLIDE 2"), std::string("slide-3"));
        QCOMPARE(freeId(p, "a-1b"), std::string("a-1b-2")); // no number behind its dash
        QCOMPARE(freeId(p, "a-"), std::string("a"));
        QCOMPARE(freeId(p, "-7"), std::string("7"));
        QCOMPARE(freeId(p, "— —"), std::string("part"));
        QCOMPARE(freeId(p, "Pan & Tilt!"), std::string("pan-tilt"));
    }
    /// Another kind keeps the ratio where its teeth can make it.
    void anotherKindKeepsTheRatio() {
        BeltStage belt;
        belt.id = "b";
        belt.motorTeeth = 20;
        belt.loadTeeth = 60;
        QCOMPARE(ratioOf(belt).value(), 3.0);
        const Link gear = as<GearStage>(belt);
        QCOMPARE(linkId(gear), std::string("b"));
        QCOMPARE(std::get<GearStage>(gear).motorTeeth, 20);
        QCOMPARE(std::get<GearStage>(gear).loadTeeth, 60);
        // Ring over sun is one less than the ratio; no wheel of fewer teeth than can be made.
        const auto planetary = std::get<PlanetaryStage>(as<PlanetaryStage>(belt));
        QCOMPARE(planetary.ringTeeth, 2 * planetary.sunTeeth);
        QCOMPARE(planetary.stages, 1);
        QCOMPARE(ratioOf(planetary).value(), 3.0);
        const auto worm = std::get<WormStage>(as<WormStage>(belt));
        QCOMPARE(ratioOf(worm).value(), 3.0);
        QVERIFY(worm.starts <= 6 && worm.wheelTeeth == 3 * worm.starts);
        const auto reducer = std::get<ReducerStage>(as<ReducerStage>(belt));
        QCOMPARE(reducer.numerator, 3);
        QCOMPARE(reducer.denominator, 1);
        const auto roller = std::get<RollerStage>(as<RollerStage>(belt));
        VERIFY_NEAR(roller.wheelDiameter.value / roller.rollerDiameter.value, 3.0, 1e-12);
        // A strain wave has two teeth a turn: 50 to 1 is a hundred of them; 3 to 1 it cannot be.
        reducerTo(100, 2, 100);
        reducerTo(61, 2, 61);
        reducerTo(50, 1, 100);
        const int own = StrainWaveStage{}.flexTeeth;
        QCOMPARE(std::get<StrainWaveStage>(as<StrainWaveStage>(belt)).flexTeeth, own);
        ReducerStage third;
        third.numerator = 100;
        third.denominator = 3;
        QCOMPARE(std::get<StrainWaveStage>(as<StrainWaveStage>(third)).flexTeeth, own);
        third.numerator = 29; // 58 teeth are too few
        third.denominator = 1;
        QCOMPARE(std::get<StrainWaveStage>(as<StrainWaveStage>(third)).flexTeeth, own);
        // A coupling says nothing about a ratio; the same kind again is the same.
        QCOMPARE(ratioOf(as<GearStage>(Coupling{})).value(), ratioOf(GearStage{}).value());
        QVERIFY(as<BeltStage>(belt) == Link(belt));
        // Rated torque goes over from gearbox to gearbox.
        PlanetaryStage box;
        box.ratedTorque.value = 7.5;
        QCOMPARE(std::get<ReducerStage>(as<ReducerStage>(box)).ratedTorque.value, 7.5);
    }
    static void reducerTo(int numerator, int denominator, int flexTeeth) {
        ReducerStage r;
        r.numerator = numerator;
        r.denominator = denominator;
        QCOMPARE(std::get<StrainWaveStage>(as<StrainWaveStage>(r)).flexTeeth, flexTeeth);
    }
};

QTEST_APPLESS_MAIN(ModelByHandTest)
#include "model_by_hand_test.moc"
