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
};

} // namespace

std::span<const Rule> all() {
    return table;
}

int indexOf(std::string_view key) {
    const auto it = std::find_if(table.begin(), table.end(), [&](const Rule& r) { return r.key == key; });
    return it == table.end() ? -1 : static_cast<int>(it - table.begin());
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
