// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/part.h"

#include <algorithm>
#include <cmath>

namespace gantry::parts {
namespace {

/// Single wheels, belts and batteries are parts that a project has only as members of other parts.
struct PulleyPart {
    int teeth = 20;
    double pitch = 0.002;
    BeltProfile profile = BeltProfile::Round;
    double width = 0.006;
};
struct GearPart {
    int teeth = 20;
    double module = 0.001;
    GearMaterial material = GearMaterial::Acetal;
    double faceWidth = 0.008;
};
struct BeltPart {
    int teeth = 100;
    double pitch = 0.002;
    BeltProfile profile = BeltProfile::Round;
    double width = 0.006;
};
struct BatteryPart {
    double voltage = 12.0, lowVoltage = 10.5, capacity = 25200.0;
};

/// A metre of profile, tube or rod.
struct SectionPart {
    SectionShape shape = SectionShape::SlottedProfile;
    double width = 0.04, height = 0.04, wall = 0.002;
};
struct PinPart {
    double diameter = 0.01;
};

template <class V>
void describe(V& v, PulleyPart& s) {
    v.field(FieldInfo{"teeth", "Teeth", K::Count, 1, 100000, 9, 200}, s.teeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.choice(textField("profile", "Tooth shape"), s.profile);
    v.field(FieldInfo{"width_m", "Width", K::PartLength, 1e-4, 1, 0.003, 0.05}, s.width);
}
template <class V>
void describe(V& v, GearPart& s) {
    v.field(FieldInfo{"teeth", "Teeth", K::Count, 1, 100000, 8, 400}, s.teeth);
    v.field(FieldInfo{"module_m", "Module", K::PartLength, 1e-5, 0.1, 3e-4, 0.01}, s.module);
    v.choice(textField("material", "Material"), s.material);
    v.field(FieldInfo{"face_width_m", "Face width", K::PartLength, 1e-4, 1, 0.002, 0.05}, s.faceWidth);
}
template <class V>
void describe(V& v, BeltPart& s) {
    v.field(FieldInfo{"belt_teeth", "Teeth of the belt", K::Count, 1, 100000, 40, 3000}, s.teeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.choice(textField("profile", "Tooth shape"), s.profile);
    v.field(FieldInfo{"width_m", "Width", K::PartLength, 1e-4, 1, 0.003, 0.05}, s.width);
}
template <class V>
void describe(V& v, SectionPart& s) {
    v.choice(textField("shape", "Section"), s.shape);
    v.field(FieldInfo{"width_m", "Section width", K::PartLength, 1e-4, 5, 0.006, 0.3}, s.width);
    v.field(FieldInfo{"height_m", "Section height", K::PartLength, 1e-4, 5, 0.006, 0.3}, s.height);
    v.field(FieldInfo{"wall_m", "Wall or web", K::PartLength, 1e-5, 1, 5e-4, 0.03}, s.wall);
}
template <class V>
void describe(V& v, PinPart& s) {
    v.field(FieldInfo{"pin_diameter_m", "Pivot pin", K::PartLength, 0, 1, 0.004, 0.06}, s.diameter);
}
template <class V>
void describe(V& v, BatteryPart& s) {
    v.field(FieldInfo{"voltage_V", "Voltage", K::Voltage, 0.1, 1000, 3, 60}, s.voltage);
    v.field(FieldInfo{"low_voltage_V", "Lowest voltage", K::Voltage, 0.1, 1000, 3, 60}, s.lowVoltage);
    v.field(FieldInfo{"capacity_As", "Capacity", K::Charge, 1, 1e9, 1e3, 1e6}, s.capacity);
}

/// Lists the numbers and choices of a described part; nested parts by "loop/…" paths.
class Lister {
public:
    explicit Lister(Family& family) : family_(family) {}
    template <class T>
    void field(const FieldInfo& info, T&) {
        if constexpr (!std::same_as<T, std::string>)
            if (depth_ == 0) {
                family_.numbers.push_back(info);
                if constexpr (std::same_as<T, bool>) family_.numbers.back().max = 1.0; // 0 or 1 in a table
            }
    }
    template <class E>
    void choice(const FieldInfo& info, E&) {
        if (depth_ == 0) family_.choices.push_back({info.key, ChoiceNames<E>::keys});
    }
    template <class T>
    void part(std::string_view, T& part) {
        ++depth_;
        describe(*this, part);
        --depth_;
    }
    template <class T>
    void parts(std::string_view, std::vector<T>&) {}

private:
    Family& family_;
    int depth_ = 0;
};

/// Sets what the part says; figures count as data sheet.
class Setter {
public:
    explicit Setter(const Part& part) : part_(part) {}
    void field(const FieldInfo& info, double& v) { take(info, v); }
    void field(const FieldInfo& info, int& v) {
        double x = v;
        take(info, x);
        v = static_cast<int>(std::llround(x));
    }
    void field(const FieldInfo& info, bool& v) {
        if (const auto x = numberOf(part_, info.key)) v = *x != 0.0;
    }
    void field(const FieldInfo& info, Estimate& e) {
        if (const auto x = numberOf(part_, info.key))
            e = estimate(std::clamp(*x, info.min, info.max), Source::DataSheet);
    }
    void field(const FieldInfo& info, std::string& text) {
        if (info.key == "name") text = part_.name;
    }
    template <class E>
    void choice(const FieldInfo& info, E& v) {
        for (const auto& [key, member] : part_.choices)
            if (key == info.key)
                for (std::size_t i = 0; i < ChoiceNames<E>::keys.size(); ++i)
                    if (ChoiceNames<E>::keys[i] == member) v = static_cast<E>(i);
    }
    template <class T>
    void part(std::string_view, T& inner) {
        describe(*this, inner);
    }
    template <class T>
    void parts(std::string_view, std::vector<T>&) {}

private:
    void take(const FieldInfo& info, double& v) {
        if (const auto x = numberOf(part_, info.key)) v = std::clamp(*x, info.min, info.max);
    }
    const Part& part_;
};

template <class T>
Family familyOf(std::string_view key, std::string_view label) {
    Family f{key, label, {}, {}};
    T sample{};
    Lister lister(f);
    describe(lister, sample);
    return f;
}
template <class T>
Family familyOf() {
    return familyOf<T>(KindName<T>::key, KindName<T>::label);
}

template <class T>
T made(const Part& part) {
    T t{};
    Setter setter(part);
    describe(setter, t);
    return t;
}

/// The link made of a gearhead, or nothing.
std::optional<Link> gearhead(const Part& part) {
    if (part.family == KindName<PlanetaryStage>::key) return made<PlanetaryStage>(part);
    if (part.family == KindName<StrainWaveStage>::key) return made<StrainWaveStage>(part);
    if (part.family == KindName<WormStage>::key) return made<WormStage>(part);
    if (part.family == KindName<ReducerStage>::key) return made<ReducerStage>(part);
    return std::nullopt;
}

/// Puts a pulley or a gear where one turns; says whether the part has a place for it. A new kind of link or
/// output does not compile before it says so too.
struct WheelInto {
    const Part& part;
    bool pulley() const { return part.family == "pulley"; }
    int teeth() const { return static_cast<int>(numberOf(part, "teeth").value_or(20.0)); }

    bool operator()(BeltStage& belt) const {
        if (!pulley()) return false;
        Setter(part).field(FieldInfo{"pitch_m", "", K::PartLength, 1e-5, 0.2, 0, 0}, belt.pitch);
        Setter(part).choice(textField("profile", ""), belt.profile);
        belt.motorTeeth = teeth();
        return true;
    }
    bool operator()(GearStage& gear) const {
        if (pulley()) return false;
        gear.module = numberOf(part, "module_m").value_or(gear.module);
        Setter(part).choice(textField("material", ""), gear.material);
        gear.motorTeeth = teeth();
        return true;
    }
    bool operator()(PlanetaryStage&) const { return false; }
    bool operator()(StrainWaveStage&) const { return false; }
    bool operator()(WormStage&) const { return false; }
    bool operator()(ReducerStage&) const { return false; }
    bool operator()(RollerStage&) const { return false; }
    bool operator()(Coupling&) const { return false; }

    bool operator()(BeltOutput& belt) const {
        if (!pulley()) return false;
        belt.teeth = teeth();
        if (const auto pitch = numberOf(part, "pitch_m")) belt.pitch = {*pitch, Source::DataSheet, 0.0};
        return true;
    }
    bool operator()(RackOutput& rack) const {
        if (pulley()) return false;
        rack.teeth = teeth();
        if (const auto module = numberOf(part, "module_m")) rack.module = {*module, Source::DataSheet, 0.0};
        return true;
    }
    bool operator()(RingOutput& ring) const {
        if (pulley()) return false;
        ring.pinionTeeth = teeth();
        ring.module = numberOf(part, "module_m").value_or(ring.module);
        return true;
    }
    bool operator()(ScrewOutput&) const { return false; }
    bool operator()(WheelOutput&) const { return false; }
    bool operator()(WinchOutput&) const { return false; }
    bool operator()(DirectOutput&) const { return false; }
    bool operator()(LensRingOutput&) const { return false; }
};

std::string useWheel(Axis& axis, int link, const Part& part) {
    const WheelInto into{part};
    if (link >= 0)
        return std::visit(into, axis.links[static_cast<std::size_t>(link)])
                   ? std::string()
                   : "This wheel does not fit the chosen link; choose a belt stage for a pulley and a gear "
                     "pair "
                     "for a gear.";
    return std::visit([&](auto& mechanism) { return std::visit(into, mechanism.output); }, axis.mechanism)
               ? std::string()
               : "This axis has no place for such a wheel; choose a link or an output that takes it.";
}

/// Material, spacing and what was measured stay as they are; a price that is told comes along.
std::string useSection(Section& section, const Part& part) {
    Setter(part).choice(textField("shape", ""), section.shape);
    const SectionPart size = made<SectionPart>(part);
    section.width = size.width;
    section.height = numberOf(part, "height_m") ? size.height : size.width; // one figure: square or round
    if (numberOf(part, "wall_m")) section.wall = size.wall;
    if (part.price > 0.0) section.price = part.price;
    section.onEdge = false;
    return {};
}

std::string useOutput(Axis& axis, const Part& part) {
    auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    if (linear == nullptr) return "A " + part.family + " moves along a line; this axis turns.";
    if (part.family == KindName<ScrewOutput>::key)
        linear->output = made<ScrewOutput>(part);
    else
        linear->output = made<WheelOutput>(part);
    return {};
}

} // namespace

const std::vector<Family>& families() {
    static const std::vector<Family> all{familyOf<Stepper>(),
                                         familyOf<ServoMotor>(),
                                         familyOf<DcServo>(),
                                         familyOf<GearedDc>(),
                                         familyOf<HobbyServo>(),
                                         familyOf<PlanetaryStage>(),
                                         familyOf<StrainWaveStage>(),
                                         familyOf<WormStage>(),
                                         familyOf<ReducerStage>(),
                                         familyOf<PulleyPart>("pulley", "Pulley"),
                                         familyOf<GearPart>("gear", "Gear"),
                                         familyOf<BeltPart>("belt", "Closed belt"),
                                         familyOf<ScrewOutput>(),
                                         familyOf<WheelOutput>(),
                                         familyOf<Brake>("brake", "Brake"),
                                         familyOf<SectionPart>("section", "Profile or tube"),
                                         familyOf<PinPart>("pin", "Pivot pin"),
                                         familyOf<Driver>("driver", "Driver"),
                                         familyOf<Supply>("supply", "Supply"),
                                         familyOf<BatteryPart>("battery", "Battery")};
    return all;
}

const Family* findFamily(std::string_view key) {
    const auto& all = families();
    const auto it = std::find_if(all.begin(), all.end(), [&](const Family& f) { return f.key == key; });
    return it == all.end() ? nullptr : &*it;
}

std::optional<double> numberOf(const Part& part, std::string_view key) {
    for (const auto& [k, v] : part.numbers)
        if (k == key) return v;
    return std::nullopt;
}

Place placeOf(std::string_view family) {
    for (const std::string_view motor :
         {KindName<Stepper>::key, KindName<ServoMotor>::key, KindName<DcServo>::key, KindName<GearedDc>::key,
          KindName<HobbyServo>::key})
        if (family == motor) return Place::Motor;
    for (const std::string_view link : {KindName<PlanetaryStage>::key, KindName<StrainWaveStage>::key,
                                        KindName<WormStage>::key, KindName<ReducerStage>::key})
        if (family == link) return Place::Link;
    if (family == "pulley" || family == "gear" || family == "belt" || family == KindName<ScrewOutput>::key ||
        family == KindName<WheelOutput>::key)
        return Place::Output;
    if (family == "driver") return Place::Driver;
    if (family == "supply" || family == "battery") return Place::Supply;
    if (family == "brake") return Place::Brake;
    if (family == "section") return Place::Section;
    if (family == "pin") return Place::Pivot;
    return Place::Nowhere;
}

std::string usePart(Project& project, int axisIndex, int link, const Part& part) {
    if (axisIndex < 0 || axisIndex >= static_cast<int>(project.axes.size()))
        return "There is no axis to put it in; add one first.";
    Axis& axis = project.axes[static_cast<std::size_t>(axisIndex)];
    if (link >= static_cast<int>(axis.links.size())) link = -1;
    switch (placeOf(part.family)) {
    case Place::Motor:
        if (part.family == KindName<Stepper>::key)
            axis.motor = made<Stepper>(part);
        else if (part.family == KindName<ServoMotor>::key)
            axis.motor = made<ServoMotor>(part);
        else if (part.family == KindName<DcServo>::key)
            axis.motor = made<DcServo>(part);
        else if (part.family == KindName<GearedDc>::key)
            axis.motor = made<GearedDc>(part);
        else
            axis.motor = made<HobbyServo>(part);
        return {};
    case Place::Link: {
        Link head = *gearhead(part);
        if (link >= 0) {
            linkId(head) = linkId(axis.links[static_cast<std::size_t>(link)]);
            axis.links[static_cast<std::size_t>(link)] = head;
        } else {
            linkId(head) = freeId(project, axis.id + '-' + part.family);
            axis.links.insert(axis.links.begin(), head);
        }
        return {};
    }
    case Place::Output:
        if (part.family == "belt") {
            auto* stage =
                link >= 0 ? std::get_if<BeltStage>(&axis.links[static_cast<std::size_t>(link)]) : nullptr;
            if (stage == nullptr) return "Choose a belt stage for a closed belt.";
            Setter(part).field(FieldInfo{"belt_teeth", "", K::Count, 1, 100000, 0, 0}, stage->beltTeeth);
            Setter(part).field(FieldInfo{"width_m", "", K::PartLength, 1e-4, 1, 0, 0}, stage->width);
            return {};
        }
        if (part.family == "pulley" || part.family == "gear") return useWheel(axis, link, part);
        return useOutput(axis, part);
    case Place::Driver: {
        const Driver before = axis.driver;
        axis.driver = made<Driver>(part);
        // What is set stays set, within the new driver's rating.
        axis.driver.microsteps = before.microsteps;
        axis.driver.runCurrent = std::min(before.runCurrent, axis.driver.maxCurrent);
        axis.driver.holdCurrent = std::min(before.holdCurrent, axis.driver.maxCurrent);
        axis.driver.idleDelay = before.idleDelay;
        return {};
    }
    case Place::Supply: {
        Supply supply = made<Supply>(part);
        if (!numberOf(part, "low_voltage_V")) supply.lowVoltage = assumed(0.95 * supply.voltage.value, 0.05);
        // The cable stays where it lies.
        supply.cableLength = project.supply.cableLength;
        supply.cableSection = project.supply.cableSection;
        project.supply = supply;
        return {};
    }
    case Place::Brake: {
        const BrakePlace place = axis.brake.place;
        axis.brake = made<Brake>(part);
        axis.brake.fitted = true;
        axis.brake.place = place;
        return {};
    }
    case Place::Section:
        return useSection(sectionOf(axis), part);
    case Place::Pivot: {
        auto* turning = std::get_if<RotaryMechanism>(&axis.mechanism);
        if (turning == nullptr) return "A pin turns in a pivot; this axis runs along a line.";
        turning->boom.pivot.pinDiameter = made<PinPart>(part).diameter;
        return {};
    }
    case Place::Nowhere:
        break;
    }
    return "“" + part.family + "” is not a kind of part that a drive takes.";
}

} // namespace gantry::parts
