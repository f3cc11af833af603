// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/parts/part.h"
#include "core/rigs/rigs.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <algorithm>
#include <set>

using namespace gantry;
using parts::Part;

/// Parts of the library put into an axis: every figure they have arrives, as what it is, and what they have
/// no say in stays.
class UsePartTest : public QObject {
    Q_OBJECT
    static Part part(std::string family, std::vector<std::pair<std::string, double>> numbers,
                     std::vector<std::pair<std::string, std::string>> choices = {}) {
        return {std::move(family), "One of them", 1, 0.0, {}, std::move(numbers), std::move(choices)};
    }
    static BeltStage& beltStage(Project& p) { return std::get<BeltStage>(p.axes[0].links[0]); }
    static LinearMechanism& line(Project& p) { return std::get<LinearMechanism>(p.axes[0].mechanism); }
    /// A slider with a link of that kind before its output.
    template <class L>
    static Project withLink() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        p.axes[0].links = {L{}};
        return p;
    }
    /// What a described field of this key holds, under a place in the project.
    static std::vector<FieldRef> under(Project& p, const std::string& place, std::string_view key) {
        std::vector<FieldRef> out;
        for (const FieldRef& f : allFields(p))
            if (f.path.starts_with(place + '/') && f.path.ends_with('/' + std::string(key))) out.push_back(f);
        return out;
    }
    /// Where an axis of the rig keeps parts of that family.
    static std::string placeIn(const Project& p, std::string_view family) {
        const std::string axis = "axes/" + p.axes[0].id;
        switch (parts::placeOf(family)) {
        case parts::Place::Motor:
            return axis + "/motor";
        case parts::Place::Link:
            return axis + "/links/" + linkId(p.axes[0].links[0]);
        case parts::Place::Driver:
            return axis + "/driver";
        case parts::Place::Supply:
            return "supply";
        case parts::Place::Brake:
            return axis + "/brake";
        case parts::Place::Section:
            return axis + "/mechanism/rail/section";
        default:
            return axis + "/mechanism/output";
        }
    }

private slots:
    /// A profile goes to the rail or the arm, with a price where it has one; a pin to a pivot.
    void profilesAndPins() {
        Project p = rigs::make(rigs::RigKind::JibCrane);
        Boom& boom = std::get<RotaryMechanism>(p.axes[1].mechanism).boom;
        boom.section.price = 7.0;
        boom.section.wall = 0.003;
        boom.section.onEdge = true;
        boom.section.material = BeamMaterial::Steel;
        Part tube = part("section", {{"width_m", 0.05}, {"height_m", 0.03}}, {{"shape", "hollow_rectangle"}});
        QCOMPARE(parts::usePart(p, 1, -1, tube), std::string());
        QCOMPARE(boom.section.shape, SectionShape::HollowRectangle);
        QCOMPARE(boom.section.width, 0.05);
        QCOMPARE(boom.section.height, 0.03);
        QCOMPARE(boom.section.wall, 0.003); // not told
        QCOMPARE(boom.section.price, 7.0);
        QVERIFY(!boom.section.onEdge && boom.section.material == BeamMaterial::Steel);
        Part square = part("section", {{"width_m", 0.06}}, {{"shape", "slotted_profile"}});
        QCOMPARE(parts::usePart(p, 1, -1, square), std::string());
        QCOMPARE(boom.section.height, 0.06); // of one figure
        QCOMPARE(parts::usePart(p, 1, -1, tube), std::string());
        tube.price = 11.0;
        tube.numbers.push_back({"wall_m", 0.002});
        QCOMPARE(parts::usePart(p, 1, -1, tube), std::string());
        QCOMPARE(boom.section.wall, 0.002);
        QCOMPARE(boom.section.price, 11.0);
        QCOMPARE(parts::usePart(p, 1, -1, part("pin", {{"pin_diameter_m", 0.016}})), std::string());
        QCOMPARE(boom.pivot.pinDiameter, 0.016);
        Project slider = rigs::make(rigs::RigKind::BeltSlider);
        const Project before = slider;
        QVERIFY(parts::usePart(slider, 0, -1, part("pin", {{"pin_diameter_m", 0.016}})).find("pivot") !=
                std::string::npos);
        QVERIFY(slider == before);
    }
    /// Sizes of one outline, ascending, owned before bought, none twice.
    void sizesOfProfiles() {
        const auto of = [](const char* shape, double w, double h, double wall, int count) {
            Part out = part("section", {{"width_m", w}}, {{"shape", shape}});
            out.count = count;
            if (h > 0.0) out.numbers.push_back({"height_m", h});
            if (wall > 0.0) out.numbers.push_back({"wall_m", wall});
            return out;
        };
        const std::vector<Part> shop{of("round_tube", 0.04, 0, 0, 0), of("round_tube", 0.02, 0, 0, 0),
                                     of("slotted_profile", 0.02, 0.06, 0, 0),
                                     of("round_tube", 0.03, 0, 0.002, 0), part("brake", {{"width_m", 0.01}})};
        const std::vector<Part> shelf{of("round_tube", 0.04, 0, 0, 2), of("round_tube", 0.03, 0, 0.001, 0)};
        const auto tubes = parts::sectionSizes({shop, shelf}, SectionShape::RoundTube);
        QCOMPARE(tubes.size(), std::size_t(4));
        const double widths[]{0.02, 0.03, 0.03, 0.04};
        for (std::size_t i = 0; i < 4; ++i) {
            QCOMPARE(tubes[i].width, widths[i]);
            QCOMPARE(tubes[i].height, widths[i]);
            QCOMPARE(tubes[i].owned, i == 3); // on the shelf, and not used up
        }
        QCOMPARE(*tubes[1].wall, 0.001);
        QCOMPARE(*tubes[2].wall, 0.002);
        QVERIFY(!tubes[0].wall);
        Section s;
        s.shape = SectionShape::RoundTube;
        s.width = 0.04;
        s.height = 0.7; // says nothing of a tube
        s.wall = 0.002;
        const auto owned = [&](const parts::Sources& stock) { return parts::owns(stock, s, 0.002); };
        QVERIFY(owned({shop, shelf}));
        QVERIFY(!owned({shop, {}}));
        s.wall = 0.003; // of the one on the shelf nobody told the wall, so it is the usual one
        QVERIFY(!owned({shop, shelf}));
        s.wall = 0.002;
        s.width = 0.03;
        QVERIFY(!owned({shop, shelf}));
        const std::vector<Part> box{of("hollow_rectangle", 0.04, 0.02, 0.004, 1)};
        s = {};
        s.shape = SectionShape::HollowRectangle;
        s.wall = 0.004;
        for (const bool turned : {false, true}) { // the same piece on its other side
            s.width = turned ? 0.02 : 0.04;
            s.height = turned ? 0.04 : 0.02;
            QVERIFY(owned({{}, box}));
        }
        s.wall = 0.002;
        QVERIFY(!owned({{}, box}));
        s.wall = 0.004;
        s.height = 0.03;
        QVERIFY(!owned({{}, box}));
        // A profile has no wall of its own.
        const std::vector<Part> profile{of("slotted_profile", 0.04, 0.08, 0, 1)};
        s.shape = SectionShape::SlottedProfile;
        s.width = 0.04;
        s.height = 0.08;
        s.wall = 0.009;
        QVERIFY(owned({{}, profile}));
    }
    /// Each figure of each family at a value of its own, and once beyond what is accepted.
    void everyFigureArrives() {
        int seen = 0;
        // Of a driver these are settings, which stay; a closed belt, gears and pulleys go into others' parts.
        const std::set<std::string_view> kept{"microsteps",   "run_current_rms_A", "hold_current_rms_A",
                                              "idle_delay_s", "cable_length_m",    "cable_section_m2",
                                              "fitted"};
        // So is the place of a brake.
        for (const parts::Family& family : parts::families()) {
            if (family.key == "pulley" || family.key == "gear" || family.key == "belt") continue;
            if (family.key == "pin") continue;                   // this axis has no pivot
            for (const double share : {0.25, 0.75, 2.0, -1.0}) { // of the way between what is usual
                Part one = part(std::string(family.key), {});
                for (const FieldInfo& f : family.numbers)
                    one.numbers.emplace_back(f.key, share > 1.0 ? 2.0 * std::abs(f.max) + 1.0
                                                    : share < 0.0
                                                        ? f.min - 1.0
                                                        : f.usualMin + share * (f.usualMax - f.usualMin));
                for (const auto& [key, members] : family.choices)
                    one.choices.emplace_back(key, share == 0.25 ? members.front() : members.back());
                Project p = rigs::make(rigs::RigKind::BeltSlider);
                QCOMPARE(parts::usePart(p, 0, -1, one), std::string());
                const std::string place = placeIn(p, family.key);
                for (std::size_t i = 0; i < family.numbers.size(); ++i) {
                    const FieldInfo& info = family.numbers[i];
                    if (kept.contains(info.key)) continue;
                    const std::vector<FieldRef> fields = under(p, place, info.key);
                    const QByteArray what = (place + ' ' + std::string(info.key)).c_str();
                    QVERIFY2(!fields.empty(), what);
                    // What the project accepts; a battery of nothing is none.
                    const double wanted =
                        std::clamp(one.numbers[i].second, fields[0].info.min, fields[0].info.max);
                    const double tried = one.numbers[i].second;
                    if (const auto* e = std::get_if<Estimate*>(&fields[0].target)) {
                        QVERIFY2(isNear((*e)->value, wanted, 1e-12), what);
                        QVERIFY2((*e)->source == Source::DataSheet && (*e)->tolerance == 0.1, what);
                    } else if (const auto* d = std::get_if<double*>(&fields[0].target)) {
                        QVERIFY2(isNear(**d, wanted, 1e-12), what);
                    } else if (const auto* n = std::get_if<int*>(&fields[0].target)) {
                        QVERIFY2(**n == std::llround(wanted), what);
                    } else if (const auto* b = std::get_if<bool*>(&fields[0].target)) {
                        QVERIFY2(**b == (tried != 0.0), what);
                    }
                    ++seen;
                }
                for (std::size_t i = 0; i < family.choices.size() && family.key != "brake"; ++i)
                    for (const FieldRef& f : under(p, place, family.choices[i].first))
                        if (const auto* c = std::get_if<ChoiceRef>(&f.target)) {
                            QCOMPARE(std::string(c->keys[static_cast<std::size_t>(c->index)]),
                                     one.choices[i].second);
                            ++seen;
                        }
            }
        }
        QVERIFY2(seen > 400, qPrintable(QString::number(seen)));
    }
    void wheelsByHand() {
        const auto family = [](std::string_view key) {
            std::string out;
            for (const FieldInfo& f : parts::findFamily(key)->numbers)
                out += std::string(f.key) + ' ' + QByteArray::number(f.min).toStdString() + ' ' +
                       QByteArray::number(f.max).toStdString() + ' ' +
                       QByteArray::number(f.usualMin).toStdString() + ' ' +
                       QByteArray::number(f.usualMax).toStdString() + "; ";
            for (const auto& c : parts::findFamily(key)->choices) out += std::string(c.first);
            return out;
        };
        QCOMPARE(family("pulley"),
                 "teeth 1 100000 9 200; pitch_m 1e-05 0.2 0.0009 0.02; width_m 0.0001 1 0.003 0.05; profile");
        QCOMPARE(family("gear"), "teeth 1 100000 8 400; module_m 1e-05 0.1 0.0003 0.01; face_width_m 0.0001 "
                                 "1 0.002 0.05; material");
        QCOMPARE(family("belt"), "belt_teeth 1 100000 40 3000; pitch_m 1e-05 0.2 0.0009 0.02; width_m 0.0001 "
                                 "1 0.003 0.05; profile");
        QCOMPARE(family("battery"),
                 "voltage_V 0.1 1000 3 60; low_voltage_V 0.1 1000 3 60; capacity_As 1 1e+09 1000 1e+06; ");
    }
    void wheelsGoWhereTheyMesh() {
        const Part pulley = part("pulley", {{"teeth", 24}, {"pitch_m", 0.003}},
                                 {{"profile", std::string(ChoiceNames<BeltProfile>::keys[1])}});
        const Part gear = part("gear", {{"teeth", 18}, {"module_m", 0.0008}},
                               {{"material", std::string(ChoiceNames<GearMaterial>::keys[1])}});
        Project p = withLink<BeltStage>();
        QCOMPARE(parts::usePart(p, 0, 0, pulley), std::string());
        QCOMPARE(beltStage(p).motorTeeth, 24);
        QCOMPARE(beltStage(p).pitch, estimate(0.003, Source::DataSheet));
        QCOMPARE(beltStage(p).profile, static_cast<BeltProfile>(1));
        QVERIFY(parts::usePart(p, 0, 0, gear).starts_with("This wheel does not fit the chosen link"));
        QCOMPARE(beltStage(p).motorTeeth, 24);
        QCOMPARE(parts::usePart(p, 0, 0, part("belt", {{"belt_teeth", 133}, {"width_m", 0.009}})),
                 std::string());
        QCOMPARE(beltStage(p).beltTeeth, 133);
        QCOMPARE(beltStage(p).width, 0.009);
        for (const int link : {-1, 7}) // a link that is not there is none
            QVERIFY(parts::usePart(p, 0, link, part("belt", {{"belt_teeth", 133}}))
                        .starts_with("Choose a belt stage"));

        p = withLink<GearStage>();
        auto& pair = std::get<GearStage>(p.axes[0].links[0]);
        QCOMPARE(parts::usePart(p, 0, 0, gear), std::string());
        QCOMPARE(pair.motorTeeth, 18);
        QCOMPARE(pair.module, 0.0008);
        QCOMPARE(pair.material, static_cast<GearMaterial>(1));
        // What the part does not say stays; without teeth it has twenty.
        QCOMPARE(parts::usePart(p, 0, 0, part("gear", {})), std::string());
        QCOMPARE(pair.module, 0.0008);
        QCOMPARE(pair.motorTeeth, 20);
        QVERIFY(!parts::usePart(p, 0, 0, pulley).empty());

        // Behind them, at the output.
        line(p).output = BeltOutput{};
        QCOMPARE(parts::usePart(p, 0, -1, pulley), std::string());
        QCOMPARE(std::get<BeltOutput>(line(p).output).teeth, 24);
        QCOMPARE(std::get<BeltOutput>(line(p).output).pitch, (Estimate{0.003, Source::DataSheet, 0.0}));
        QVERIFY(parts::usePart(p, 0, -1, gear).starts_with("This axis has no place for such a wheel"));
        line(p).output = RackOutput{};
        QCOMPARE(parts::usePart(p, 0, -1, gear), std::string());
        QCOMPARE(std::get<RackOutput>(line(p).output).teeth, 18);
        QCOMPARE(std::get<RackOutput>(line(p).output).module, (Estimate{0.0008, Source::DataSheet, 0.0}));
        QVERIFY(!parts::usePart(p, 0, -1, pulley).empty());
        Project turning = rigs::make(rigs::RigKind::OrbitBoom);
        auto& output = std::get<RotaryMechanism>(turning.axes[0].mechanism).output;
        output = RingOutput{};
        QCOMPARE(parts::usePart(turning, 0, -1, gear), std::string());
        QCOMPARE(std::get<RingOutput>(output).pinionTeeth, 18);
        QCOMPARE(std::get<RingOutput>(output).module, 0.0008);
        QVERIFY(!parts::usePart(turning, 0, -1, pulley).empty());
        output = DirectOutput{};
        QVERIFY(!parts::usePart(turning, 0, -1, gear).empty());
        QVERIFY(parts::usePart(turning, 0, -1, part("screw", {})).find("this axis turns") !=
                std::string::npos);
    }
    void outputsTakeTheAxisOver() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        QCOMPARE(parts::usePart(p, 0, -1, part(std::string(KindName<ScrewOutput>::key), {{"lead_m", 0.005}})),
                 std::string());
        QCOMPARE(std::get<ScrewOutput>(line(p).output).lead.value, 0.005);
        QCOMPARE(
            parts::usePart(p, 0, -1, part(std::string(KindName<WheelOutput>::key), {{"diameter_m", 0.06}})),
            std::string());
        QVERIFY(std::holds_alternative<WheelOutput>(line(p).output));
    }
    void gearheadsGoFirstOrInPlace() {
        Project p = withLink<BeltStage>();
        linkId(p.axes[0].links[0]) = "belt";
        const Part head = part(std::string(KindName<PlanetaryStage>::key), {});
        QCOMPARE(parts::usePart(p, 0, -1, head), std::string());
        QCOMPARE(p.axes[0].links.size(), std::size_t(2));
        QVERIFY(std::holds_alternative<PlanetaryStage>(p.axes[0].links[0]));
        QCOMPARE(linkId(p.axes[0].links[1]), std::string("belt"));
        QVERIFY(!linkId(p.axes[0].links[0]).empty() && linkId(p.axes[0].links[0]) != "belt");
        QCOMPARE(parts::usePart(p, 0, 1, head), std::string());
        QCOMPARE(p.axes[0].links.size(), std::size_t(2));
        QVERIFY(std::holds_alternative<PlanetaryStage>(p.axes[0].links[1]));
        QCOMPARE(linkId(p.axes[0].links[1]), std::string("belt"));
    }
    void settingsStay() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        Driver& d = p.axes[0].driver;
        d.microsteps = 32;
        d.runCurrent = 1.5;
        d.holdCurrent = 0.5;
        d.idleDelay = 0.25;
        QCOMPARE(parts::usePart(p, 0, -1, part("driver", {{"max_current_rms_A", 2.0}})), std::string());
        QCOMPARE(d.microsteps, 32);
        QCOMPARE(d.runCurrent, 1.5);
        QCOMPARE(d.holdCurrent, 0.5);
        QCOMPARE(d.idleDelay, 0.25);
        // A weaker one cannot give them.
        QCOMPARE(parts::usePart(p, 0, -1, part("driver", {{"max_current_rms_A", 0.4}})), std::string());
        QCOMPARE(d.runCurrent, 0.4);
        QCOMPARE(d.holdCurrent, 0.4);

        p.supply.cableLength = 7.5;
        p.supply.cableSection = 2.5e-6;
        QCOMPARE(parts::usePart(p, 0, -1, part("supply", {{"voltage_V", 36.0}})), std::string());
        QCOMPARE(p.supply.cableLength, 7.5);
        QCOMPARE(p.supply.cableSection, 2.5e-6);
        QCOMPARE(p.supply.voltage, estimate(36.0, Source::DataSheet));
        QCOMPARE(p.supply.lowVoltage, assumed(0.95 * 36.0, 0.05)); // regulated, unless it says otherwise
        QCOMPARE(parts::usePart(
                     p, 0, -1,
                     part("battery", {{"voltage_V", 14.8}, {"low_voltage_V", 12.8}, {"capacity_As", 36000}})),
                 std::string());
        QCOMPARE(p.supply.lowVoltage, estimate(12.8, Source::DataSheet));

        p.axes[0].brake.fitted = false;
        const BrakePlace place = p.axes[0].brake.place = BrakePlace::LoadSide;
        QCOMPARE(parts::usePart(p, 0, -1, part("brake", {{"holding_torque_Nm", 2.0}})), std::string());
        QVERIFY(p.axes[0].brake.fitted && p.axes[0].brake.place == place);
    }
    void whatFitsNowhereSaysSo() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        const Project before = p;
        QVERIFY(parts::usePart(p, 0, -1, part("kettle", {})).find("kettle") != std::string::npos);
        QVERIFY(parts::usePart(p, -1, -1, part("gear", {})).starts_with("There is no axis"));
        QVERIFY(parts::usePart(p, static_cast<int>(p.axes.size()), -1, part("gear", {}))
                    .starts_with("There is no axis"));
        QVERIFY(p == before);
        QVERIFY(parts::findFamily("kettle") == nullptr);
        QVERIFY(parts::placeOf("kettle") == parts::Place::Nowhere);
    }
};

QTEST_APPLESS_MAIN(UsePartTest)
#include "use_part_test.moc"
