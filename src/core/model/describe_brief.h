// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/brief_parts.h"
#include "core/model/describe_base.h"

namespace gantry {

template <>
struct ChoiceNames<ShotKind> {
    static constexpr std::array<std::string_view, 5> keys{"live", "creep", "interval", "stop_motion",
                                                          "repeat_pass"};
    static constexpr std::array<std::string_view, 5> labels{"live move", "slow creep", "interval pictures",
                                                            "stop motion", "repeated passes"};
};

template <class V, Of<Equipment> S>
void describe(V& v, S& s) {
    v.field(textField("end_stops", "End switches"), s.endStops);
    v.field(textField("hard_blocks", "Blocks behind them"), s.hardBlocks);
    v.field(textField("homing", "Homing place"), s.homing);
    v.field(textField("cable_path", "Cable path"), s.cablePath);
    v.field(textField("slip_ring", "Slip ring"), s.slipRing);
    v.field(textField("tie_down", "Tie-down"), s.tieDown);
    v.field(textField("catch_strap", "Catch strap"), s.catchStrap);
    v.field(textField("emergency_stop", "Emergency stop"), s.emergencyStop);
    v.field(textField("spare_parts", "Spare parts"), s.spareParts);
}

template <class V, Of<LaterAxis> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Later"), s.name);
    v.field(FieldInfo{"mass_kg", "Adds at the camera", K::Mass, 0, 1e4, 0.05, 20}, s.mass);
}

template <class V, Of<TestRecord> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("date", "Date"), s.date);
    v.field(textField("path", "Field"), s.path);
    v.field(textField("note", "Note"), s.note);
    v.field(FieldInfo{"value", "Value, SI", K::Ratio, -1e12, 1e12, -1e12, 1e12}, s.value);
    v.field(textField("fingerprint", "State of the rig"), s.fingerprint);
}

} // namespace gantry
