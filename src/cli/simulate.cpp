// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/simulate.h"

#include "cli/known_id.h"
#include "cli/long_job.h"
#include "core/evaluate/evaluate.h"
#include "core/tools/simulation_view.h"
#include "core/units/text.h"
#include "core/words/messages.h"

#include <nlohmann/json.hpp>
#include <ostream>

namespace gantry::cli {
namespace {

using Json = nlohmann::ordered_json;

/// How far behind it was; of a motor that takes no steps also how late.
std::string lagWords(const Axis& axis, const simulation::AxisSimulation& input,
                     const simulation::SimulationResult& r) {
    const units::Kind travel = kindOf(axis) == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle;
    const Lag lag = lagOf(input, r);
    std::string behind = units::format(lag.place, travel, units::System::Metric) + " behind at most";
    if (lag.inSteps) return "keeps in step, " + behind;
    if (!lag.time) return behind;
    return behind + ", which is " + units::format(*lag.time, units::Kind::Time, units::System::Metric) +
           " late";
}

Json resultJson(const Project& project, const Axis& axis, const ShotEvaluation& shot,
                const simulation::AxisSimulation& input, const simulation::SimulationResult& r) {
    const std::string u = kindOf(axis) == AxisKind::Linear ? "m" : "rad";
    Json j;
    j["axis"] = axis.id;
    j["shot"] = project.shots[shot.shot.at()].id;
    j["lost_full_steps"] = r.lostFullSteps;
    j["lost_at_s"] = r.lostAt >= 0.0 ? Json(r.lostAt) : Json(nullptr);
    if (r.lostAt < 0.0) j["lost_at_s_why"] = "it keeps in step";
    j["peak_lag_" + u] = r.peakLag;
    const Lag lag = lagOf(input, r);
    j["peak_lag_s"] = lag.time ? Json(*lag.time) : Json(nullptr);
    if (!lag.time) j["peak_lag_s_why"] = "it hardly moves where it is farthest behind";
    j["final_error_" + u] = r.finalError;
    const bool seen = shot.pixelsPerUnit > 0.0;
    const char* unseen = "it is not known what the picture makes of this axis";
    j["final_error_px"] = seen ? Json(r.finalError * shot.pixelsPerUnit) : Json(nullptr);
    if (!seen) j["final_error_px_why"] = unseen;
    j["framing_allowed_px"] = framingAllowed(project.camera, project.shots[shot.shot.at()]);
    j["rocking_px"] = seen ? Json(r.rocking * shot.pixelsPerUnit) : Json(nullptr);
    if (!seen) j["rocking_px_why"] = unseen;
    j["settled_s"] = r.settled >= 0.0 ? Json(r.settled) : Json(nullptr);
    if (r.settled < 0.0) j["settled_s_why"] = "it does not settle within the time that is simulated";
    j["supplied_J"] = r.energy.supplied;
    j["copper_heat_J"] = r.energy.copper;
    j["energy_imbalance"] = r.energy.imbalance();
    return j;
}

} // namespace

int simulate(const SimulateCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    if (!knownId(project.axes, call.axis, "axis", err) || !knownId(project.shots, call.shot, "shot", err))
        return 2;
    Json list = Json::array();
    bool lost = false;
    LongJob job("Simulating");
    for (const Axis& axis : project.axes) {
        if (!call.axis.empty() && axis.id != call.axis) continue;
        const AxisEvaluation e = evaluateAxis(project, axis);
        for (const ShotEvaluation& s : e.shots) {
            const Shot& shot = project.shots[s.shot.at()];
            if (!call.shot.empty() && shot.id != call.shot) continue;
            const auto input = simulationOf(axis, e, s);
            if (!input) {
                const std::string why(words::reasonText(simulationProblem(e, s)));
                if (call.json)
                    list.push_back(
                        {{"axis", axis.id}, {"shot", shot.id}, {"simulated", false}, {"why", why}});
                else
                    out << axis.name << ", " << shot.name << ": cannot be simulated: " << why << '\n';
                continue;
            }
            const double band = s.pixelsPerUnit > 0.0 ? shot.limits.jitter / s.pixelsPerUnit : 0.0;
            const auto r = simulation::simulate(*input, band, job.token(), job.progress());
            if (!r.finished) {
                if (const int code = job.conclude(err); code != 0) return code;
                break;
            }
            lost = lost || r.lostFullSteps != 0;
            if (call.json) {
                list.push_back(resultJson(project, axis, s, *input, r));
                list.back()["skipped_s"] = input->leftOut;
                continue;
            }
            const auto text = [](double v, units::Kind kind) {
                return units::format(v, kind, units::System::Metric);
            };
            out << axis.name << ", " << shot.name << ": ";
            if (r.lostFullSteps != 0)
                out << "loses " << std::abs(r.lostFullSteps) << " full steps from "
                    << text(r.lostAt, units::Kind::Time) << " on";
            else
                out << lagWords(axis, *input, r);
            if (s.pixelsPerUnit > 0.0)
                out << ", vibrates " << text(r.rocking * s.pixelsPerUnit, units::Kind::Pixels)
                    << " after the stop, ends "
                    << text(std::abs(r.finalError) * s.pixelsPerUnit, units::Kind::Pixels)
                    << " off, where framing allows "
                    << text(framingAllowed(project.camera, shot), units::Kind::Pixels);
            else
                out << ", ends "
                    << text(std::abs(r.finalError),
                            kindOf(axis) == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle)
                    << " off";
            if (input->leftOut > 0.0)
                out << " (" << text(input->leftOut, units::Kind::Time)
                    << " of the steady middle are left out, which only repeats itself)";
            out << '\n';
        }
    }
    if (call.json) out << list.dump(2) << '\n';
    if (lost) err << "A shot loses steps.\n";
    return lost ? 1 : 0;
}

} // namespace gantry::cli
