// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/intervals.h"

#include "cli/figure_text.h"
#include "cli/known_id.h"
#include "core/evaluate/evaluate.h"
#include "core/model/describe.h"
#include "core/units/spelled_time.h"
#include "core/units/text.h"
#include "io/report/interval_table.h"

namespace gantry::cli {
namespace {

using units::Kind;

std::string spelled(const Figure& f) {
    return f ? units::spelledTime(f.value()) : "-";
}

void print(const Project& project, std::size_t index, const IntervalResults& r, std::ostream& out) {
    const IntervalPlan& plan = project.plans[index];
    out << plan.name << '\t' << figureText(r.pictures, Kind::Count) << " pictures every "
        << spelled(r.interval) << '\t' << spelled(r.duration) << "\tclip of "
        << figureText(r.clip, Kind::Time) << '\t' << figureText(r.speedUp, Kind::Ratio)
        << " times faster\tends " << figureText(r.endsAfter, Kind::TimeOfDay) << '\n';
    const PlanLanes& l = r.lanes;
    if (l.room)
        out << "at picture " << figureText(l.picture, Kind::Count) << "\tmove "
            << figureText(l.move, Kind::Time) << "\tsettle " << figureText(l.settle, Kind::Time) << "\tfocus "
            << figureText(l.focus, Kind::Time) << "\tlag " << figureText(l.lag, Kind::Time) << "\texposure "
            << figureText(l.exposure, Kind::Time) << "\twriting " << figureText(l.write, Kind::Time)
            << "\tspare " << figureText(l.spare, Kind::Time) << "\tshortest interval "
            << figureText(l.least, Kind::Time) << '\n';
    for (std::size_t a = 0; a < r.axes.size(); ++a) {
        const PlanAxisResults& axis = r.axes[a];
        if (!axis.moves) continue;
        const Kind kind = kindOf(project.axes[a]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
        out << project.axes[a].name << '\t' << figureText(axis.from, kind) << " to "
            << figureText(axis.to, kind) << "\tlargest step " << figureText(axis.largestStep, kind);
        if (axis.microsteps)
            out << '\t' << figureText(axis.microsteps, Kind::Count) << " microsteps\toff by up to "
                << figureText(axis.roundingPixels, Kind::Pixels);
        out << '\n';
    }
    const double volts = project.supply.voltage.value;
    if (r.energy.average) out << "power\t" << figureText(r.energy.average, Kind::Power) << " on average";
    if (r.energy.there)
        out << "\t" << figureText(r.energy.needed / volts, Kind::Charge) << " of "
            << figureText(r.energy.there / volts, Kind::Charge);
    if (r.energy.average) out << '\n';
    for (const std::string& trouble : io::planTroubles(project, index, r))
        out << "look again\t" << trouble << '\n';
    if (r.first != FirstFailure::None)
        out << "first to fail\t" << ChoiceNames<FirstFailure>::labels[static_cast<std::size_t>(r.first)]
            << "\tpicture " << figureText(r.firstAt, Kind::Count) << "\tat "
            << figureText(r.firstClock, Kind::TimeOfDay) << '\n';
    else if (r.troubles.empty())
        out << "first to fail\tnothing before the last picture\n";
}

} // namespace

int intervals(const IntervalsCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    if (!knownId(project.plans, call.plan, "plan", err)) return 2;
    if (call.plan.empty()) {
        if (call.json || call.csv) {
            err << "Name a plan; without a name their list is printed.\n";
            return 2;
        }
        for (const IntervalPlan& p : project.plans) out << p.id << '\t' << p.name << '\n';
        return 0;
    }
    const Evaluation evaluation = evaluate(project);
    std::size_t index = 0;
    while (project.plans[index].id != call.plan) ++index;
    const IntervalResults& r = evaluation.plans[index];
    if (call.csv)
        out << io::intervalCsv(project, index, evaluation);
    else if (call.json)
        out << io::intervalJson(project, index, evaluation);
    else
        print(project, index, r, out);
    return r.troubles.empty() && r.first == FirstFailure::None ? 0 : 1;
}

} // namespace gantry::cli
