// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/evaluation_json.h"

#include "core/evaluate/capability.h"
#include "core/evaluate/chain_table.h"
#include "core/evaluate/compare_ramps.h"
#include "core/evaluate/limits.h"
#include "core/evaluate/spread.h"
#include "io/report/structure_json.h"

#include <array>
#include <nlohmann/json.hpp>
#include <numbers>

namespace gantry::io {
namespace {

using Json = nlohmann::ordered_json;
constexpr double rpm = 2.0 * std::numbers::pi / 60.0;

Json shotJson(const Project& project, const ShotEvaluation& s, const std::string& u) {
    Json j;
    j["id"] = project.shots[static_cast<std::size_t>(s.shot)].id;
    put(j, "top_speed_" + u + "_s", s.topSpeed);
    put(j, "acceleration_" + u + "_s2", s.acceleration);
    put(j, "distance_" + u, s.distance);
    put(j, "motor_speed_rpm", s.motorSpeed, rpm);
    put(j, "pulse_rate_hz", s.pulseRate);
    put(j, u == "m" ? "force_needed_N" : "load_torque_needed_Nm", s.forceNeeded);
    put(j, "torque_needed_Nm", s.torqueNeeded);
    put(j, "torque_available_Nm", s.torqueAvailable);
    put(j, "torque_available_low_voltage_Nm", s.torqueAvailableLow);
    put(j, "torque_margin", s.torqueMargin);
    put(j, "breakaway_torque_Nm", s.breakawayTorque);
    put(j, "least_current_rms_A", s.leastCurrent);
    put(j, "step_px", s.stepPixels);
    put(j, "stepping_px", s.steppingPixels);
    put(j, "step_accuracy_px", s.accuracyPixels);
    put(j, "lag_rad", s.lag);
    put(j, "lag_px", s.lagPixels);
    put(j, "backlash_px", s.backlashPixels);
    j["load_reverses"] = s.loadReverses;
    put(j, "lets_go_at_s", s.letsGoAt);
    put(j, "stretch_" + u, s.stretchTravel);
    put(j, "stretch_px", s.stretchPixels);
    put(j, "idle_shift_px", s.idleShiftPixels);
    put(j, "friction_band_px", s.frictionBandPixels);
    put(j, "rounding_px", s.roundingPixels);
    put(j, "rocking_px", s.rockingPixels);
    put(j, "rocking_time_s", s.rockingTime);
    put(j, "drift_px_per_frame", s.driftPixels);
    put(j, "jitter_px", s.jitterPixels);
    put(j, "repeat_px", s.repeatPixels);
    put(j, "framing_px", s.framingPixels);
    put(j, "picture_speed_px_s", s.pictureSpeed);
    put(j, "picture_speed_px_per_frame", s.pixelsPerFrame);
    put(j, "blur_px", s.blurPixels);
    put(j, "crossing_time_s", s.crossingTime);
    put(j, "max_acceleration_" + u + "_s2", s.maxAcceleration);
    put(j, "stopping_distance_" + u, s.stoppingDistance);
    put(j, "time_s", s.time);
    j["follows_subject"] = s.follows;
    put(j, "torque_rms_Nm", s.torqueRms);
    put(j, "torque_continuous_Nm", s.torqueContinuous);
    put(j, u == "m" ? "carried_N" : "carried_Nm", s.carried);
    put(j, "source_current_A", s.sourceCurrent);
    put(j, "speed_setting", s.speedSetting);
    put(j, "electrical_power_W", s.electricalPower);
    put(j, "regulator_heat_W", s.regulatorHeat);
    put(j, "regulator_temperature_C", s.regulatorTemperature);
    put(j, "slack_deceleration_m_s2", s.slackDeceleration);
    put(j, "guide_px", s.guidePixels);
    put(j, "sag_px", s.sagPixels);
    put(j, "sag_px_per_frame", s.sagDrift);
    j["noise_rank"] = static_cast<int>(s.noise.rank);
    return j;
}

/// The drive-train table of the worst shot, part by part, in SI.
Json chainJson(const Axis& axis, const AxisEvaluation& e) {
    static constexpr std::array names{"driver", "motor", "link", "output", "belt", "load", "picture"};
    Json list = Json::array();
    if (e.worstShot < 0) return list;
    for (const ChainColumn& c : chainColumns(axis, e, e.shots[static_cast<std::size_t>(e.worstShot)])) {
        Json j;
        j["part"] = names[static_cast<std::size_t>(c.part)];
        if (c.link >= 0) j["link"] = linkId(axis.links[static_cast<std::size_t>(c.link)]);
        const auto add = [&](const char* key, const Cell& cell) {
            if (cell.figure.reason() != Reason::NotApplicable) put(j, key, cell.figure);
        };
        add("speed", c.speed);
        add("needed", c.needed);
        add("available", c.available);
        add("inertia", c.inertia);
        add("microstep", c.microstep);
        add("lag", c.lag);
        add("stretch", c.stretch);
        add("play", c.play);
        list.push_back(j);
    }
    return list;
}

Json capabilityJson(const Axis& axis, const AxisEvaluation& e, const std::string& u) {
    const Capability c = capability(axis, e);
    Json j;
    j["margin"] = c.margin;
    put(j, u == "m" ? "mass_kg" : "inertia_kgm2", c.load.value);
    put(j, "slope_rad", c.slope.value);
    put(j, "acceleration_" + u + "_s2", c.acceleration.value);
    put(j, "speed_" + u + "_s", c.speed.value);
    j["speed_bound_by"] = c.speed.binding == Binding::PulseRate ? "pulse_rate" : "torque";
    return j;
}

/// What each link and the output stand, and the findings about the axis as a machine.
Json checksJson(const Axis& axis, const AxisEvaluation& e, const std::string& u) {
    Json j;
    Json parts = Json::array();
    for (const PartCheck& p : e.parts) {
        Json part;
        part["part"] =
            p.link < 0 ? std::string("output") : linkId(axis.links[static_cast<std::size_t>(p.link)]);
        const auto add = [&](const char* key, const Figure& f) {
            if (f.reason() != Reason::NotApplicable) put(part, key, f);
        };
        add("strength", p.strength);
        add("mesh_share_of_six", p.meshes);
        add("undercut", p.undercut);
        add("contact_ratio", p.contactRatio);
        add("grip", p.slip);
        add("centre_distance_m", p.centreDistance);
        add("load", p.load);
        add("allowed", p.allowed);
        parts.push_back(part);
    }
    j["parts"] = parts;
    const auto add = [&](const std::string& key, const Figure& f) {
        if (f.reason() != Reason::NotApplicable) put(j, key, f);
    };
    add("motor_top_speed_" + u + "_s", e.motorTopSpeed);
    add("case_temperature_C", e.caseTemperature);
    add("case_limit_C", e.caseLimit);
    add("shaft_radial_N", e.shaftRadial);
    add("shaft_axial_N", e.shaftAxial);
    add("stall_current_A", e.stallCurrent);
    add("reversal_current_A", e.reversalCurrent);
    add("whirl_speed_m_s", e.whirlSpeed);
    add("buckling_load_N", e.bucklingLoad);
    add("cord_ratio", e.cordRatio);
    add("winding_layers", e.windingLayers);
    add("steps_per_unit_first_layer", e.stepsPerUnitFirst);
    add("steps_per_unit_last_layer", e.stepsPerUnitLast);
    add("guide_rotation_rad", e.guideRotation);
    add("binding_ratio", e.bindingRatio);
    add("bearing_load_N", e.bearingLoad);
    add("guide_friction_N", e.guideFriction);
    add("turning_radius_m", e.turningRadius);
    add("pan_bar_turn_rad", e.panBarTurn);
    j["locks_at_rest"] = e.locks;
    return j;
}

/// How fast, how hard, how soft: each list of limits ascending, the ramps of the worst shot compared.
Json limitsJson(const Project& project, const Axis& axis, const AxisEvaluation& e, const std::string& u) {
    const AxisLimits l = axisLimits(project, axis, e);
    Json j;
    if (l.problem != Reason::None) {
        j["why"] = words::reasonText(l.problem);
        return j;
    }
    const auto list = [](const std::vector<Limit>& limits) {
        Json out = Json::array();
        for (const Limit& limit : limits) {
            Json one;
            one["reason"] = limitName(limit.reason);
            one["value"] = limit.value;
            out.push_back(one);
        }
        return out;
    };
    j["speed_" + u + "_s"] = list(l.speed);
    j["acceleration_" + u + "_s2"] = list(l.acceleration);
    j["jerk_" + u + "_s3"] = list(l.jerk);
    const auto triple = [&](const Triple& t) {
        Json out;
        out["speed_" + u + "_s"] = t.speed;
        out["acceleration_" + u + "_s2"] = t.acceleration;
        out["jerk_" + u + "_s3"] = t.jerk;
        return out;
    };
    j["largest"] = triple(l.largest);
    j["recommended"] = triple(l.recommended);
    put(j, "start_stop_" + u + "_s", l.startStop);
    put(j, "instant_speed_step_" + u + "_s", l.instantStep);
    put(j, "stopping_ordinary_" + u, l.stoppingOrdinary);
    put(j, "stopping_emergency_" + u, l.stoppingEmergency);
    put(j, "finest_move_" + u, l.finestMove);
    j["useful_microsteps"] = l.usefulMicrosteps;
    put(j, "detent_ripple_px", l.ripplePixels);
    put(j, "stick_slip_px", l.stickSlipPixels);
    put(j, "power_up_jump_px", l.powerUpPixels);
    put(j, "rocking_frequency_hz",
        l.mode ? Figure::of(l.mode->frequency) : Figure::none(Reason::NotApplicable));
    j["rocking_measured"] = l.modeMeasured;
    static constexpr std::array bands{"rotor_resonance", "full_steps_on_mode", "microsteps_on_mode",
                                      "visible_steps", "noise"};
    j["bands"] = Json::array();
    for (const SpeedBand& b : l.bands) {
        Json band;
        band["reason"] = bands[static_cast<std::size_t>(b.reason)];
        band["low_" + u + "_s"] = b.low;
        band["high_" + u + "_s"] = b.high;
        j["bands"].push_back(band);
    }
    j["ramps"] = Json::array();
    if (e.worstShot >= 0)
        for (const RampRow& r : compareRamps(project, e, e.shots[static_cast<std::size_t>(e.worstShot)])) {
            Json row;
            row["shape"] = shapeName(r.shape);
            row["offered"] = r.offered;
            put(row, "time_s", r.time);
            put(row, "acceleration_" + u + "_s2", r.acceleration);
            put(row, "left_px", r.rocking);
            put(row, "leaning_px", r.leaning);
            put(row, "settling_s", r.settling);
            j["ramps"].push_back(row);
        }
    return j;
}

/// Everything about an axis that has a number, or could have one.
void putFigures(Json& j, const Project& project, const Axis& axis, const AxisEvaluation& e) {
    const bool linear = e.model.kind == AxisKind::Linear;
    const std::string u = linear ? "m" : "rad";
    put(j, "steps_per_unit", e.stepsPerUnit);
    j["structure"] = structureJson(e.structure, u);
    put(j, "hand_pushed_V", e.handVoltage);
    put(j, "steps_per_unit_kept", e.stepsPerUnitKept);
    put(j, "rounding_over_travel_" + u, e.roundingOverTravel);
    put(j, "total_ratio", e.totalRatio);
    put(j, "travel_per_motor_rev_" + u, e.travelPerMotorRev);
    put(j, linear ? "step_m" : "step_rad", e.step);
    put(j, "usable_travel_" + u, e.usableTravel);
    put(j, "inertia_at_motor_kgm2", e.inertiaAtMotor);
    put(j, "load_inertia_kgm2", e.loadInertia);
    put(j, "inertia_ratio", e.inertiaRatio);
    put(j, "natural_frequency_hz", e.naturalFrequency);
    put(j, "resonance_speed_" + u + "_s", e.resonanceSpeed);
    put(j, "resonance_low_" + u + "_s", e.resonanceLow);
    put(j, "resonance_high_" + u + "_s", e.resonanceHigh);
    put(j, "corner_speed_rpm", e.cornerSpeed, rpm);
    j["shots"] = Json::array();
    for (const ShotEvaluation& s : e.shots) j["shots"].push_back(shotJson(project, s, u));
    put(j, "max_speed_" + u + "_s", e.maxSpeed);
    put(j, "torque_limit_speed_" + u + "_s", e.torqueLimitSpeed);
    put(j, "pulse_limit_speed_" + u + "_s", e.pulseLimitSpeed);
    put(j, "stopping_distance_" + u, e.stoppingDistance);
    put(j, "hold_torque_needed_Nm", e.holdNeeded);
    put(j, "hold_torque_available_Nm", e.holdAvailable);
    Json off;
    off["falls"] = e.powerOff.falls;
    put(off, linear ? "gravity_N" : "gravity_Nm", e.powerOff.gravity);
    put(off, linear ? "friction_N" : "friction_Nm", e.powerOff.friction);
    put(off, "energy_J", e.powerOff.energy);
    put(off, linear ? "speed_m_s" : "speed_rad_s", e.powerOff.speed);
    j["power_off"] = off;
    Json stop;
    static constexpr std::array outcomes{"stays", "creeps", "falls"};
    const bool known = e.stopRatio.reason() != Reason::NeedsStopBehaviour;
    stop["outcome"] = known ? outcomes[static_cast<std::size_t>(e.onStop)] : "unknown";
    put(stop, "ratio", e.stopRatio);
    j["emergency_stop"] = stop;
    j["checks"] = checksJson(axis, e, u);
}

/// Leaves numbers only, and the ids that tell which shot or part they belong to.
void keepNumbers(Json& j) {
    for (auto it = j.begin(); it != j.end();) {
        if (it->is_structured()) keepNumbers(*it);
        const bool keep = it->is_number_float() || it->is_structured() ||
                          (j.is_object() && (it.key() == "id" || it.key() == "part"));
        it = keep ? std::next(it) : j.erase(it);
    }
}

Json axisJson(const Project& project, std::size_t index, const AxisEvaluation& e) {
    const Axis& axis = project.axes[index];
    const bool linear = e.model.kind == AxisKind::Linear;
    const std::string u = linear ? "m" : "rad";
    Json j;
    j["id"] = axis.id;
    j["kind"] = linear ? "linear" : "rotary";
    j["unit"] = linear ? "mm" : "deg";
    if (e.model.exactStepsPerUnit)
        j["steps_per_unit_exact"] = e.model.exactStepsPerUnit->text();
    else
        putNone(j, "steps_per_unit_exact",
                e.stepsPerUnit ? "it is no fraction of whole numbers" : "this drive takes no steps");
    if (e.worstShot >= 0)
        j["worst_shot"] =
            project.shots[static_cast<std::size_t>(e.shots[static_cast<std::size_t>(e.worstShot)].shot)].id;
    else
        putNone(j, "worst_shot", "no shot moves this axis");
    putFigures(j, project, axis, e);
    j["capability"] = capabilityJson(axis, e, u);
    j["limits"] = limitsJson(project, axis, e, u);
    j["chain"] = chainJson(axis, e);
    j["softest"] = softestJson(e.structure);
    // The same keys once more, each with how far its value may lie off either way.
    const AxisEvaluation spread = axisSpread(project, index, e, Searches::Yes);
    Json ranges = Json::object();
    putFigures(ranges, project, axis, spread);
    keepNumbers(ranges);
    j["ranges"] = ranges;
    return j;
}

Json verdictJson(const Project& project, const Verdict& v) {
    Json j;
    j["id"] = ruleKey(v);
    j["axis"] = project.axes[static_cast<std::size_t>(v.axis)].id;
    if (v.shot >= 0)
        j["shot"] = project.shots[static_cast<std::size_t>(v.shot)].id;
    else
        putNone(j, "shot", "it is about no single shot");
    put(j, "ratio", v.ratio);
    if (v.ratio)
        j["ratio_low"] = v.low;
    else
        putNone(j, "ratio_low", "there is no ratio");
    j["range_switches"] = v.switches;
    j["wanted"] = v.bounds.wanted;
    if (v.bounds.oversizedFrom > 0.0)
        j["oversized_from"] = v.bounds.oversizedFrom;
    else
        putNone(j, "oversized_from", "no ratio is too large here");
    j["state"] = stateWord(v.state);
    j["title"] = title(v);
    j["text"] = sentence(v, project, units::System::Metric);
    if (const SetAside* aside = setAsideFor(project, v)) j["set_aside"] = aside->reason;
    return j;
}

} // namespace

std::string evaluationJson(const Project& project, const Assessment& assessment) {
    Json root;
    root["format"] = "calm-gantry-evaluation";
    root["version"] = 1;
    root["axes"] = Json::array();
    for (std::size_t i = 0; i < assessment.evaluation.axes.size(); ++i)
        root["axes"].push_back(axisJson(project, i, assessment.evaluation.axes[i]));
    const SupplyEvaluation& supply = assessment.evaluation.supply;
    put(root["supply"], "power_W", supply.power);
    put(root["supply"], "current_A", supply.current);
    put(root["supply"], "voltage_at_drivers_V", supply.voltage);
    put(root["supply"], "voltage_drop_V", supply.drop);
    put(root["supply"], "battery_time_s", supply.runTime);
    root["rig"] = rigJson(project, assessment.evaluation.rig);
    root["verdicts"] = Json::array();
    for (const Verdict& v : assessment.verdicts) root["verdicts"].push_back(verdictJson(project, v));
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace gantry::io
