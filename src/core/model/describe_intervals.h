// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/interval_parts.h"

namespace gantry {

template <>
struct ChoiceNames<IntervalMode> {
    static constexpr std::array<std::string_view, 6> keys{"stops",  "runs",   "stop_motion",
                                                          "pulses", "timers", "separate_head"};
    static constexpr std::array<std::string_view, 6> labels{"stop each time", "keep moving", "stop motion",
                                                            "motor pulses",   "free timers", "separate head"};
};
template <>
struct ChoiceNames<FollowingFact> {
    static constexpr std::array<std::string_view, 3> keys{"pictures", "interval", "duration"};
    static constexpr std::array<std::string_view, 3> labels{"pictures", "interval", "duration"};
};
template <>
struct ChoiceNames<GapsGo> {
    static constexpr std::array<std::string_view, 3> keys{"even", "linear", "geometric"};
    static constexpr std::array<std::string_view, 3> labels{"even", "linear", "geometric"};
};
template <>
struct ChoiceNames<StepsGo> {
    static constexpr std::array<std::string_view, 3> keys{"even", "smooth", "ramps"};
    static constexpr std::array<std::string_view, 3> labels{"even", "smooth", "with ramps"};
};
template <>
struct ChoiceNames<PictureOrder> {
    static constexpr std::array<std::string_view, 2> keys{"move_first", "picture_first"};
    static constexpr std::array<std::string_view, 2> labels{"move first", "picture first"};
};
template <>
struct ChoiceNames<IfMissed> {
    static constexpr std::array<std::string_view, 4> keys{"waits", "repeats", "skips", "stops"};
    static constexpr std::array<std::string_view, 4> labels{"waits for it", "takes it again", "skips it",
                                                            "stops"};
};
template <>
struct ChoiceNames<SettleBy> {
    static constexpr std::array<std::string_view, 2> keys{"computed", "entered"};
    static constexpr std::array<std::string_view, 2> labels{"computed", "as entered"};
};
template <>
struct ChoiceNames<Weekday> {
    static constexpr std::array<std::string_view, 7> keys{"monday", "tuesday",  "wednesday", "thursday",
                                                          "friday", "saturday", "sunday"};
    static constexpr std::array<std::string_view, 7> labels{"Monday", "Tuesday",  "Wednesday", "Thursday",
                                                            "Friday", "Saturday", "Sunday"};
};
template <>
struct ChoiceNames<AtWayEnd> {
    static constexpr std::array<std::string_view, 2> keys{"stays", "turns_back"};
    static constexpr std::array<std::string_view, 2> labels{"stays there", "turns back"};
};
template <>
struct ChoiceNames<EndSign> {
    static constexpr std::array<std::string_view, 4> keys{"none", "light", "tone", "middle"};
    static constexpr std::array<std::string_view, 4> labels{"none", "a light", "a tone", "to the middle"};
};
template <>
struct ChoiceNames<DrawsWhen> {
    static constexpr std::array<std::string_view, 5> keys{"always", "moving", "standing", "awake",
                                                          "exposing"};
    static constexpr std::array<std::string_view, 5> labels{"always", "rig moves", "rig at rest",
                                                            "camera awake", "shutter open"};
};

template <class V, Of<PlanCamera> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Camera"), s.name);
    v.field(FieldInfo{"focus_s", "Wake and focus", K::Time, 0, 3600, 0, 5}, s.focus);
    v.field(FieldInfo{"lag_s", "Shutter lag", K::Time, 0, 60, 0, 1}, s.lag);
    v.field(FieldInfo{"write_s", "Writing", K::Time, 0, 3600, 0, 20}, s.write);
    v.field(FieldInfo{"picture_bytes", "Size of a picture", K::Storage, 0, 1e12, 1e5, 2e8}, s.picture);
    v.field(FieldInfo{"card_bytes", "Card", K::Storage, 0, 1e16, 0, 4e12}, s.card);
    v.field(textField("bulb", "Trigger is held"), s.bulb);
    v.field(FieldInfo{"close_lag_s", "Lag of closing", K::Time, 0, 60, 0, 1}, s.closeLag);
    v.field(FieldInfo{"least_press_s", "Least press", K::Time, 0, 60, 0, 2}, s.leastPress);
    v.field(FieldInfo{"least_gap_s", "Least release", K::Time, 0, 60, 0, 2}, s.leastGap);
}

template <class V, Of<ExposureMark> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"picture", "At picture", K::Count, 1, 1e7, 1, 1e5}, s.picture);
    v.field(FieldInfo{"exposure_s", "Exposure", K::Time, 1e-6, 1e6, 1e-4, 3600}, s.exposure);
}

template <class V, Of<PlanConsumer> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Consumer"), s.name);
    v.choice(textField("when", "Draws"), s.when);
    v.field(FieldInfo{"power_W", "Power then", K::Power, 0, 1e5, 0.01, 200}, s.power);
    v.field(FieldInfo{"otherwise_W", "Power otherwise", K::Power, 0, 1e5, 0, 100}, s.otherwise);
}

template <class V, Of<PlanSensor> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Sensor"), s.name);
    v.field(FieldInfo{"hold_s", "Holds on", K::Time, 0, 1e6, 1, 3600}, s.hold);
    v.field(FieldInfo{"warm_up_s", "Warm-up", K::Time, 0, 1e5, 0, 300}, s.warmUp);
    v.field(FieldInfo{"seen_every_s", "Sees one still", K::Time, 1e-3, 1e6, 1, 600}, s.seenEvery);
    v.field(FieldInfo{"triggers_itself", "Sees the rig move", K::Percentage, 0, 1, 0, 1}, s.triggersItself);
    v.field(textField("deaf_while_moving", "Off in moves"), s.deafWhileMoving);
}

template <class V, Of<PlanPause> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"start_s", "Pauses at", K::Time, 0, 1e9, 0, 1e6}, s.start);
    v.field(FieldInfo{"length_s", "Pauses for", K::Time, 1e-3, 1e9, 1, 1e6}, s.length);
}

template <class V, Of<PackReading> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"picture", "Read at picture", K::Count, 1, 1e7, 1, 1e5}, s.picture);
    v.field(FieldInfo{"volts_V", "Read", K::Voltage, 0.1, 1000, 3, 60}, s.volts);
}

template <class V, Of<PlanFault> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"picture", "Missed picture", K::Count, 1, 1e7, 1, 1e5}, s.picture);
    v.field(FieldInfo{"tries", "Missed times", K::Count, 1, 1000, 1, 5}, s.tries);
    v.field(FieldInfo{"waited_s", "Confirmed after", K::Time, 0, 1e6, 0, 600}, s.waited);
}

template <class V, Of<PlanPasser> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"speed_m_s", "Passer-by's speed", K::Speed, 1e-3, 100, 0.3, 15}, s.speed);
    v.field(FieldInfo{"width_m", "Passer-by's width", K::Length, 1e-3, 100, 0.1, 5}, s.width);
    v.field(FieldInfo{"distance_m", "Passes at", K::Length, 0, 1e5, 0, 200}, s.distance);
}

template <class V, Of<PlanHours> S>
void describe(V& v, S& s) {
    constexpr std::array<FieldInfo, 7> names{
        textField("monday", "Monday"),       textField("tuesday", "Tuesday"),
        textField("wednesday", "Wednesday"), textField("thursday", "Thursday"),
        textField("friday", "Friday"),       textField("saturday", "Saturday"),
        textField("sunday", "Sunday")};
    v.field(textField("kept", "Working hours"), s.kept);
    v.field(FieldInfo{"open_s", "Opens at", K::TimeOfDay, 0, 86400, 0, 86400}, s.open);
    v.field(FieldInfo{"close_s", "Closes at", K::TimeOfDay, 0, 86400, 0, 86400}, s.close);
    for (std::size_t d = 0; d < names.size(); ++d) v.field(names[d], s.days[d]);
}

template <class V, Of<PlanClocks> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"camera_slow", "Camera clock slow", K::PartsPerMillion, -0.1, 0.1, -5e-4, 5e-4},
            s.cameraSlow);
    v.field(FieldInfo{"rig_interval_s", "Rig's interval", K::Time, 1e-3, 1e6, 0.5, 3600}, s.rigInterval);
    v.field(FieldInfo{"rig_slow", "Rig clock slow", K::PartsPerMillion, -0.1, 0.1, -5e-4, 5e-4}, s.rigSlow);
    v.field(FieldInfo{"offset_s", "Rig starts after", K::Time, -1e6, 1e6, -60, 60}, s.offset);
    v.field(textField("counts_from_end", "From shutter close"), s.countsFromEnd);
}

template <class V, Of<PlanPulses> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"pulse_s", "Pulse", K::Time, 1e-3, 1e4, 0.02, 30}, s.pulse);
    v.field(FieldInfo{"speed_m_s", "Speed it comes to", K::Speed, 1e-7, 10, 1e-4, 0.5}, s.speed);
    v.field(FieldInfo{"dead_time_s", "Dead time", K::Time, 0, 10, 0, 0.5}, s.deadTime);
    v.field(FieldInfo{"run_up_s", "Run-up", K::Time, 0, 10, 0, 1}, s.runUp);
    v.field(FieldInfo{"coast_time_s", "Coasting", K::Time, 0, 100, 0, 2}, s.coastTime);
    v.field(FieldInfo{"coast_brake_m_s2", "Braked by friction", K::Acceleration, 1e-6, 100, 0.01, 10},
            s.coastBrake);
    v.field(FieldInfo{"pulse_scatter_s", "Pulses differ by", K::Time, 0, 10, 0, 0.2}, s.pulseScatter);
    v.field(FieldInfo{"speed_scatter", "Speeds differ by", K::Percentage, 0, 1, 0, 0.2}, s.speedScatter);
    v.field(FieldInfo{"speed_drift", "All fast by", K::Percentage, 0, 1, 0, 0.3}, s.speedDrift);
}

template <class V, Of<PlanHead> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"turn_rad", "Head turns by", K::Angle, -100, 100, -7, 7}, s.turn);
    v.field(FieldInfo{"longest_s", "Head's longest", K::Time, 1, 1e7, 60, 1e5}, s.longest);
    v.field(FieldInfo{"delay_s", "Head starts after", K::Time, 0, 1e5, 0, 600}, s.delay);
}

template <class V, Of<IntervalPlan> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Plan"), s.name);
    v.field(textField("move", "Goes the way of"), s.move);
    v.field(textField("shot", "Taken as shot"), s.shot);
    v.choice(textField("mode", "Way"), s.mode);
    v.choice(textField("follows", "Computed"), s.follows);
    v.field(FieldInfo{"pictures", "Pictures", K::Count, 1, 1e7, 2, 1e5}, s.pictures);
    v.field(FieldInfo{"interval_s", "Interval", K::Time, 1e-3, 1e7, 0.3, 86400}, s.interval);
    v.field(FieldInfo{"duration_s", "Duration", K::Time, 1e-3, 1e10, 1, 4e7}, s.duration);
    v.choice(textField("gaps", "Interval changes"), s.gaps);
    v.field(FieldInfo{"last_interval_s", "Last interval", K::Time, 1e-3, 1e7, 0.3, 86400}, s.lastInterval);
    v.field(FieldInfo{"clip_rate_hz", "Clip rate", K::Frequency, 0.1, 1000, 5, 120}, s.clipRate);
    v.field(FieldInfo{"held_frames", "Each held for", K::Count, 1, 100, 1, 4}, s.heldFor);
    v.choice(textField("order", "Order"), s.order);
    v.field(textField("writes_while_moving", "Writes in moves"), s.writesWhileMoving);
    v.field(FieldInfo{"spare_s", "Target spare", K::Time, 0, 1e6, 0, 60}, s.spare);
    v.choice(textField("settle_by", "Settling"), s.settleBy);
    v.field(FieldInfo{"settle_s", "Settles in", K::Time, 0, 1e5, 0, 60}, s.settle);
    v.field(FieldInfo{"exposure_s", "Exposure", K::Time, 1e-6, 1e6, 1e-4, 3600}, s.exposure);
    v.parts("exposures", s.exposures);
    v.field(FieldInfo{"metered_s", "Metered exposure", K::Time, 0, 1e6, 0, 3600}, s.metered);
    v.part("passer", s.passer);
    v.choice(textField("steps", "Steps"), s.steps);
    v.field(FieldInfo{"ramp", "Ramp at either end", K::Percentage, 0, 0.5, 0, 0.5}, s.ramp);
    v.field(textField("whole_steps", "Whole steps"), s.wholeSteps);
    v.parts("cameras", s.cameras);
    v.choice(textField("if_missed", "Picture missed"), s.ifMissed);
    v.parts("faults", s.faults);
    v.field(FieldInfo{"start_clock_s", "Starts at", K::TimeOfDay, 0, 86400, 0, 86400}, s.startClock);
    v.choice(textField("start_day", "Day it starts"), s.startDay);
    v.part("hours", s.hours);
    v.parts("sensors", s.sensors);
    v.parts("pauses", s.pauses);
    v.field(textField("goes_back", "Back when alone"), s.goesBack);
    v.field(FieldInfo{"active_time_s", "Active time", K::Time, 0, 1e9, 0, 1e6}, s.activeTime);
    v.choice(textField("at_end", "At the way's end"), s.atEnd);
    v.parts("consumers", s.consumers);
    v.field(FieldInfo{"warn_V", "Warns at", K::Voltage, 0, 1000, 0, 60}, s.warnVoltage);
    v.field(FieldInfo{"park_V", "Parks at", K::Voltage, 0, 1000, 0, 60}, s.parkVoltage);
    v.parts("readings", s.readings);
    v.part("clocks", s.clocks);
    v.part("pulses", s.pulses);
    v.part("head", s.head);
    v.choice(textField("sign", "Sign at the end"), s.sign);
}

} // namespace gantry
