// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {
namespace {

using M = words::MessageId;
constexpr std::array table{
    Rule{"torque", M::TorqueTitle, {2.0, 6.0}, torque},
    Rule{"pulse_rate", M::PulseTitle, {1.25}, pulseRate},
    Rule{"power_off", M::PowerOffTitle, {2.0}, powerOff},
    Rule{"standstill", M::StandstillTitle, {2.0}, standstill},
    Rule{"resonance", M::ResonanceTitle, {1.5}, resonance},
    Rule{"stepping", M::SteppingTitle, {1.5}, stepping},
    Rule{"vibration", M::VibrationTitle, {1.5}, vibration},
    Rule{"drift", M::DriftTitle, {1.5}, drift},
    Rule{"jitter", M::JitterTitle, {1.5}, jitter},
    Rule{"repeat", M::RepeatTitle, {1.5}, repeatError},
    Rule{"framing", M::FramingTitle, {1.5}, framing},
    Rule{"backlash", M::BacklashTitle, {1.5}, backlash},
    Rule{"judder", M::JudderTitle, {1.4}, judder},
    Rule{"rounding", M::RoundingTitle, {2.0}, rounding},
    Rule{"motor_current", M::CurrentTitle, {1.0}, motorCurrent},
    Rule{"driver_rating", M::RatingTitle, {1.1}, driverRating},
    Rule{"stopping", M::StoppingTitle, {1.5}, stopping},
    Rule{"travel", M::TravelTitle, {1.0}, travel},
    Rule{"settings", M::SettingsTitle, {1.0}, settings},
    Rule{"ease", M::EaseTitle, {1.0}, ease},
    Rule{"motor_size", M::OversizeTitle, {1.0, 3.0}, oversize},
    Rule{"duty", M::DutyTitle, {1.3}, duty},
    Rule{"case_temperature", M::CaseTitle, {1.2}, caseTemperature},
    Rule{"regulator_heat", M::RegulatorTitle, {1.2}, regulatorHeat},
    Rule{"shaft_load", M::ShaftTitle, {1.5}, shaftLoad},
    Rule{"noise", M::NoiseTitle, {1.0}, noise},
    Rule{"motor_speed", M::MotorSpeedTitle, {1.2}, motorSpeed},
    Rule{"following", M::FollowingTitle, {1.5}, following},
    Rule{"servo_range", M::ServoRangeTitle, {1.0}, servoRange},
    Rule{"tooth_strength", M::StrengthTitle, {3.0}, toothStrength},
    Rule{"gear_form", M::GearFormTitle, {1.0}, gearForm},
    Rule{"belt_mesh", M::MeshTitle, {1.0}, beltMesh},
    Rule{"grip", M::GripTitle, {1.5}, grip},
    Rule{"cord_slack", M::CordSlackTitle, {1.5}, cordSlack},
    Rule{"cord_strength", M::CordStrengthTitle, {2.0}, cordStrength},
    Rule{"whirl", M::WhirlTitle, {1.0}, whirl},
    Rule{"buckling", M::BucklingTitle, {3.0}, buckling},
    Rule{"guides", M::GuideTitle, {1.0}, guides},
    Rule{"binding", M::BindingTitle, {1.5}, binding},
    Rule{"bearing_load", M::BearingTitle, {2.0}, bearingLoad},
    Rule{"friction_sources", M::FrictionSourcesTitle, {1.5}, frictionSources},
    Rule{"emergency_stop", M::StopTitle, {2.0}, emergencyStop},
    Rule{"lens_ring", M::LensRingTitle, {1.0}, lensRing},
    Rule{"pan_bar", M::PanBarTitle, {1.1}, panBar},
    Rule{"sag", M::SagTitle, {1.5}, sag},
    Rule{"settling", M::SettlingTitle, {1.3}, settling},
    Rule{"rail_tipping", M::RailTippingTitle, {1.5}, railTipping},
    Rule{"rail_clamps", M::RailClampTitle, {3.0}, railClamps},
    Rule{"beam_strength", M::BeamStrengthTitle, {3.0}, beamStrength},
    Rule{"pivot", M::PivotTitle, {3.0}, pivot},
    Rule{"balance", M::BalanceTitle, {2.0}, balance},
    Rule{"hand_driven", M::HandTitle, {1.2}, handDriven},
    Rule{"tipping", M::TippingTitle, {1.5}, nullptr, tipping},
    Rule{"anchors", M::AnchorTitle, {5.0}, nullptr, anchors},
    Rule{"tether", M::TetherTitle, {1.0}, nullptr, tether},
    Rule{"clearance", M::ClearanceTitle, {1.0}, nullptr, clearance},
    Rule{"weight", M::WeightTitle, {1.05}, nullptr, weight},
    Rule{"money", M::MoneyTitle, {1.0}, nullptr, money},
};

} // namespace

std::span<const Rule> all() {
    return table;
}

int indexOf(std::string_view key) {
    const auto it = std::find_if(table.begin(), table.end(), [&](const Rule& r) { return r.key == key; });
    return it == table.end() ? -1 : static_cast<int>(it - table.begin());
}

units::Kind AxisView::partKind(const PartCheck& part) const {
    if (part.link < 0) return forceKind();
    const Link& link = axis.links[static_cast<std::size_t>(part.link)];
    return std::holds_alternative<BeltStage>(link) || std::holds_alternative<GearStage>(link)
               ? units::Kind::Force
               : units::Kind::Torque;
}

bool AxisView::printed(const PartCheck& part) const {
    if (part.link < 0) return false;
    const auto* gear = std::get_if<GearStage>(&axis.links[static_cast<std::size_t>(part.link)]);
    return gear != nullptr &&
           (gear->material == GearMaterial::PrintedPla || gear->material == GearMaterial::PrintedPetg);
}

Verdict found(const ShotEvaluation* shot, double ratio, Reason reason, words::MessageId sentence,
              words::Arguments arguments) {
    Verdict v;
    v.shot = shot != nullptr ? shot->shot : -1;
    v.ratio = Figure::of(ratio, shot != nullptr && shot->problem != Reason::None ? shot->problem : reason);
    if (v.ratio) {
        v.sentence = sentence;
        v.arguments = arguments;
    } else {
        v.sentence = M::UnknownText;
        v.arguments[0].value = static_cast<double>(v.ratio.reason());
    }
    return v;
}

} // namespace gantry::rules
