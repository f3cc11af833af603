// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/evaluation_json.h"
#include "io/report/interval_table.h"
#include "io/report/move_table.h"

#include "core/tools/capability.h"
#include "core/tools/chain_table.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "core/tools/spread.h"
#include "core/units/names.h"
#include "io/report/results_json.h"
#include "io/report/verdicts_json.h"

#include <array>

namespace gantry::io {
namespace {

/// The drive-train table of the worst shot, part by part, in SI.
Json chainJson(const Project& project, const Axis& axis, const AxisEvaluation& e) {
    static constexpr std::array names{"driver", "motor", "link", "output", "belt", "load", "picture"};
    Json list = Json::array();
    if (e.worst() == nullptr) return list;
    for (const ChainColumn& c : chainColumns(axis, e, *e.worst())) {
        Json j;
        j["part"] = names[static_cast<std::size_t>(c.part)];
        if (c.link >= 0) j["link"] = linkId(axis.links[static_cast<std::size_t>(c.link)]);
        ResultsWriter writer(j, project, &axis, true);
        describe(writer, c);
        list.push_back(j);
    }
    return list;
}

std::string_view bindingKey(Binding binding) {
    return units::nameOf<Binding::Nothing>(binding, "torque", "standing", "pulse_rate", "nothing");
}

Json capabilityJson(const Axis& axis, const AxisEvaluation& e, const std::string& u) {
    const Capability c = capability(axis, e);
    Json j;
    j["margin"] = c.margin;
    put(j, u == "m" ? "mass_kg" : "inertia_kgm2", c.load.value);
    put(j, "slope_rad", c.slope.value);
    put(j, "acceleration_" + u + "_s2", c.acceleration.value);
    put(j, "speed_" + u + "_s", c.speed.value);
    j["load_bound_by"] = bindingKey(c.load.binding);
    j["speed_bound_by"] = bindingKey(c.speed.binding);
    if (c.slope.value.reason() != Reason::NotApplicable) j["slope_bound_by"] = bindingKey(c.slope.binding);
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
    j["shots_beyond_recommended"] = Json::array();
    for (const StripShot& s : l.shots)
        if (s.tooFast || s.tooHard) j["shots_beyond_recommended"].push_back(project.shots[s.shot.at()].id);
    ResultsWriter writer(j, project, &axis);
    describe(writer, l);
    put(j, "rocking_frequency_hz",
        l.mode ? Figure::of(l.mode->frequency) : Figure::none(Reason::NotApplicable));
    j["rocking_measured"] = l.modeMeasured;
    static constexpr std::array bands{"rotor_resonance",    "rotor_on_drive", "full_steps_on_mode",
                                      "microsteps_on_mode", "visible_steps",  "noise"};
    j["bands"] = Json::array();
    for (const SpeedBand& b : l.bands) {
        Json band;
        band["reason"] = bands[static_cast<std::size_t>(b.reason)];
        band["low_" + u + "_s"] = b.low;
        band["high_" + u + "_s"] = b.high;
        j["bands"].push_back(band);
    }
    j["ramps"] = Json::array();
    if (e.worst() != nullptr)
        for (const RampRow& r : compareRamps(project, e, *e.worst())) {
            Json row;
            row["shape"] = shapeName(r.shape);
            ResultsWriter rowWriter(row, project, &axis);
            describe(rowWriter, r);
            j["ramps"].push_back(row);
        }
    return j;
}

/// What gives way, softest first, with its share of the movement.
Json softestJson(const AxisStructure& s) {
    Json list = Json::array();
    for (const SoftEntry& e : s.soft)
        list.push_back({{"part", softName(e.cause)},
                        {"frequency_hz", e.part.frequency},
                        {"damping", e.part.damping},
                        {"share", structure::shareOf(e.part, s.all)}});
    return list;
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
                e.steps.stepsPerUnit ? "it is no fraction of whole numbers" : "this drive takes no steps");
    if (e.worst() != nullptr)
        j["worst_shot"] = project.shots[e.worst()->shot.at()].id;
    else
        putNone(j, "worst_shot", "no shot moves this axis");
    ResultsWriter writer(j, project, &axis);
    describe(writer, e);
    j["capability"] = capabilityJson(axis, e, u);
    j["limits"] = limitsJson(project, axis, e, u);
    j["chain"] = chainJson(project, axis, e);
    j["softest"] = softestJson(e.structure);
    // The same keys once more, each with how far its value may lie off either way.
    const AxisEvaluation spread = axisSpread(project, index, e, Searches::Yes);
    Json ranges = Json::object();
    ResultsWriter rangesWriter(ranges, project, &axis);
    describe(rangesWriter, spread);
    keepNumbers(ranges);
    j["ranges"] = ranges;
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
    const Evaluation& e = assessment.evaluation;
    ResultsWriter writer(root, project, nullptr);
    writer.part("supply", e.supply);
    writer.part("rig", e.rig);
    if (e.rig.clearance.keepOut >= 0)
        root["rig"]["nearest"] = project.keepOut[static_cast<std::size_t>(e.rig.clearance.keepOut)].id;
    if (e.rig.clearance.axis >= 0) {
        Json& at = root["rig"]["clearance_at"];
        const Axis& axis = project.axes[static_cast<std::size_t>(e.rig.clearance.axis)];
        const std::string unit = kindOf(axis) == AxisKind::Linear ? "_m" : "_rad";
        at["body"] = e.rig.clearance.body;
        at["with"] = e.rig.clearance.with;
        at["axis"] = axis.id;
        at["place" + unit] = e.rig.clearance.place;
        if (e.rig.clearance.clearRange) {
            at["clear_from" + unit] = e.rig.clearance.clearRange->first;
            at["clear_to" + unit] = e.rig.clearance.clearRange->second;
        }
    }
    root["moves"] = Json::array();
    for (std::size_t i = 0; i < project.moves.size(); ++i)
        root["moves"].push_back(moveResultsJson(project, project.moves[i], e.moves[i]));
    root["plans"] = Json::array();
    for (std::size_t i = 0; i < project.plans.size(); ++i)
        root["plans"].push_back(planResultsJson(project, project.plans[i], e.plans[i]));
    root["verdicts"] = Json::array();
    for (const Verdict& v : assessment.verdicts) root["verdicts"].push_back(verdictJson(project, v));
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace gantry::io
