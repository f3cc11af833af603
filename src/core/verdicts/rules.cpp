// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {
namespace {

using M = words::MessageId;
constexpr std::array table{
    Rule{criteria::torque, M::TorqueTitle, torque},
    Rule{criteria::pulseRate, M::PulseTitle, pulseRate},
    Rule{criteria::powerOff, M::PowerOffTitle, powerOff},
    Rule{criteria::standstill, M::StandstillTitle, standstill},
    Rule{criteria::resonance, M::ResonanceTitle, resonance},
    Rule{criteria::stepping, M::SteppingTitle, stepping},
    Rule{criteria::vibration, M::VibrationTitle, vibration},
    Rule{criteria::drift, M::DriftTitle, drift},
    Rule{criteria::jitter, M::JitterTitle, jitter},
    Rule{criteria::repeatError, M::RepeatTitle, repeatError},
    Rule{criteria::framing, M::FramingTitle, framing},
    Rule{criteria::backlash, M::BacklashTitle, backlash},
    Rule{criteria::judder, M::JudderTitle, judder},
    Rule{criteria::rounding, M::RoundingTitle, rounding},
    Rule{criteria::motorCurrent, M::CurrentTitle, motorCurrent},
    Rule{criteria::driverRating, M::RatingTitle, driverRating},
    Rule{criteria::stopping, M::StoppingTitle, stopping},
    Rule{criteria::travel, M::TravelTitle, travel},
    Rule{criteria::settings, M::SettingsTitle, settings},
    Rule{criteria::ease, M::EaseTitle, ease},
    Rule{criteria::motorSize, M::OversizeTitle, oversize},
    Rule{criteria::duty, M::DutyTitle, duty},
    Rule{criteria::caseTemperature, M::CaseTitle, caseTemperature},
    Rule{criteria::regulatorHeat, M::RegulatorTitle, regulatorHeat},
    Rule{criteria::shaftLoad, M::ShaftTitle, shaftLoad},
    Rule{criteria::noise, M::NoiseTitle, noise},
    Rule{criteria::motorSpeed, M::MotorSpeedTitle, motorSpeed},
    Rule{criteria::following, M::FollowingTitle, following},
    Rule{criteria::servoRange, M::ServoRangeTitle, servoRange},
    Rule{criteria::toothStrength, M::StrengthTitle, toothStrength},
    Rule{criteria::gearForm, M::GearFormTitle, gearForm},
    Rule{criteria::beltMesh, M::MeshTitle, beltMesh},
    Rule{criteria::grip, M::GripTitle, grip},
    Rule{criteria::cordSlack, M::CordSlackTitle, cordSlack},
    Rule{criteria::cordStrength, M::CordStrengthTitle, cordStrength},
    Rule{criteria::whirl, M::WhirlTitle, whirl},
    Rule{criteria::buckling, M::BucklingTitle, buckling},
    Rule{criteria::guides, M::GuideTitle, guides},
    Rule{criteria::binding, M::BindingTitle, binding},
    Rule{criteria::bearingLoad, M::BearingTitle, bearingLoad},
    Rule{criteria::frictionSources, M::FrictionSourcesTitle, frictionSources},
    Rule{criteria::emergencyStop, M::StopTitle, emergencyStop},
    Rule{criteria::lensRing, M::LensRingTitle, lensRing},
    Rule{criteria::panBar, M::PanBarTitle, panBar},
    Rule{criteria::sag, M::SagTitle, sag},
    Rule{criteria::settling, M::SettlingTitle, settling},
    Rule{criteria::railTipping, M::RailTippingTitle, railTipping},
    Rule{criteria::railClamps, M::RailClampTitle, railClamps},
    Rule{criteria::beamStrength, M::BeamStrengthTitle, beamStrength},
    Rule{criteria::pivot, M::PivotTitle, pivot},
    Rule{criteria::balance, M::BalanceTitle, balance},
    Rule{criteria::handDriven, M::HandTitle, handDriven},
    Rule{criteria::tipping, M::TippingTitle, nullptr, tipping},
    Rule{criteria::anchors, M::AnchorTitle, nullptr, anchors},
    Rule{criteria::tether, M::TetherTitle, nullptr, tether},
    Rule{criteria::clearance, M::ClearanceTitle, nullptr, clearance},
    Rule{criteria::weight, M::WeightTitle, nullptr, weight},
    Rule{criteria::money, M::MoneyTitle, nullptr, money},
};

} // namespace

std::span<const Rule> all() {
    return table;
}

int indexOf(std::string_view key) {
    const auto it = std::find_if(table.begin(), table.end(), [&](const Rule& r) { return r.key() == key; });
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
