// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/interval_table.h"

#include "core/evaluate/interval/interval_frames.h"
#include "core/evaluate/setup_of.h"
#include "core/units/constants.h"
#include "core/units/text.h"
#include "core/verdicts/intervals/plan_view.h"
#include "core/words/messages.h"
#include "io/tables/csv.h"

#include <functional>

namespace gantry::io {
namespace {

using units::Kind;

double unitOf(const Axis& axis) {
    return kindOf(axis) == AxisKind::Linear ? 1e-3 : units::degree;
}

/// Calls for every picture of a plan that runs, with its seconds from the first one.
void eachFrame(const Project& project, std::size_t plan, const Evaluation& evaluation,
               const std::function<void(const IntervalFrame&, double)>& take) {
    const RigSetup rig = setupWithMoves(project);
    const IntervalCourse course(rig, project.plans[plan], evaluation.axes);
    if (!course.runs()) return;
    const IntervalRun run(course, evaluation.axes);
    const double begins = course.clockAt(0);
    for (std::int64_t i = 0; i < run.frames(); ++i) {
        const IntervalFrame frame = run.at(i);
        take(frame, frame.opens - begins);
    }
}

} // namespace

std::vector<std::string> planTroubles(const Project& project, std::size_t plan,
                                      const IntervalResults& results) {
    words::Names names;
    names.part = project.plans[plan].name;
    std::vector<std::string> out;
    for (const PlanTrouble t : results.troubles)
        out.push_back(words::render(rules::planTroubleMessage(t), {}, names, units::System::Metric));
    return out;
}

Json planResultsJson(const Project& project, const IntervalPlan& plan, const IntervalResults& results) {
    Json j;
    j["id"] = plan.id;
    ResultsWriter writer(j, project, nullptr);
    describe(writer, results);
    for (std::size_t i = 0; i < results.cameras.size(); ++i) j["cameras"][i]["id"] = plan.cameras[i].id;
    j["axes"] = Json::array();
    for (std::size_t a = 0; a < results.axes.size(); ++a) {
        Json axis;
        axis["id"] = project.axes[a].id;
        ResultsWriter of(axis, project, &project.axes[a]);
        describe(of, results.axes[a]);
        j["axes"].push_back(axis);
    }
    j["readings"] = Json::array();
    for (std::size_t i = 0; i < results.readingErrors.size(); ++i) {
        Json reading;
        reading["id"] = plan.readings[i].id;
        put(reading, "read_less_predicted_V", results.readingErrors[i]);
        j["readings"].push_back(reading);
    }
    return j;
}

std::string intervalJson(const Project& project, std::size_t plan, const Evaluation& evaluation) {
    Json root;
    root["format"] = "calm-gantry-intervals";
    root["version"] = 1;
    root["results"] = planResultsJson(project, project.plans[plan], evaluation.plans[plan]);
    root["troubles"] = planTroubles(project, plan, evaluation.plans[plan]);
    root["pictures"] = Json::array();
    eachFrame(project, plan, evaluation, [&](const IntervalFrame& f, double since) {
        Json frame;
        frame["number"] = f.number;
        frame["opens_s"] = since;
        frame["exposure_s"] = f.exposure;
        frame["places"] = f.places;
        frame["steps"] = f.steps;
        frame["delete"] = f.deleted;
        root["pictures"].push_back(frame);
    });
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

std::string intervalCsv(const Project& project, std::size_t plan, const Evaluation& evaluation) {
    CsvWriter table;
    for (const char* head : {"number", "time_of_day", "opens_s", "exposure_s"}) table.cell(head);
    for (const Axis& axis : project.axes)
        table.cell(axis.id + (kindOf(axis) == AxisKind::Linear ? "_mm" : "_deg")).cell(axis.id + "_steps");
    table.cell("delete");
    table.endLine();
    // To a microsecond, a nanometre, a few nanoradians: what is finer is rounding.
    const auto number = [](double value) { return units::plainNumber(value, 6); };
    eachFrame(project, plan, evaluation, [&](const IntervalFrame& f, double since) {
        table.cell(std::to_string(f.number))
            .cell(units::format(f.opens, Kind::TimeOfDay, units::System::Metric))
            .cell(number(since))
            .cell(number(f.exposure));
        for (std::size_t a = 0; a < f.places.size(); ++a)
            table.cell(number(f.places[a] / unitOf(project.axes[a]))).cell(std::to_string(f.steps[a]));
        table.cell(f.deleted ? "delete" : "");
        table.endLine();
    });
    return table.text();
}

} // namespace gantry::io
