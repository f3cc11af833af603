// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/move.h"

#include "cli/figure_text.h"
#include "cli/known_id.h"
#include "core/evaluate/evaluate.h"
#include "core/tools/least_move_time.h"
#include "core/units/text.h"
#include "core/verdicts/moves/move_view.h"
#include "io/report/move_table.h"

namespace gantry::cli {
namespace {

using units::Kind;

/// Whether the rig can run it as it is meant.
bool holds(const MoveResults& r) {
    bool out = r.troubles.empty();
    for (const MoveSegmentResults& s : r.segments) out = out && !less(rules::limitRatio(s), 1.0);
    return out && !less(r.travelRoom, 1.0 - 1e-9);
}

void print(const Project& project, std::size_t index, const MoveResults& r, std::ostream& out) {
    const RigMove& m = project.moves[index];
    out << m.name << '\t' << figureText(r.time, Kind::Time) << '\t' << figureText(r.frames, Kind::Count)
        << " frames\n";
    for (const MoveSegmentResults& s : r.segments) {
        out << poseLetter(s.pose - 1) << " to " << poseLetter(s.pose) << '\t'
            << figureText(s.time, Kind::Time) << (s.aimed ? ", aimed" : "");
        if (s.least)
            out << "\tat least " << figureText(s.least, Kind::Time) << ": "
                << ChoiceNames<MoveBinds>::labels[static_cast<std::size_t>(s.binds)] << " of "
                << project.axes[static_cast<std::size_t>(s.axis)].name << " at "
                << figureText(s.at, Kind::Time);
        if (s.drift) out << "\ttarget drifts " << figureText(s.drift, Kind::Pixels);
        out << '\n';
    }
    for (std::size_t a = 0; a < r.axes.size(); ++a) {
        const Axis& axis = project.axes[a];
        const bool linear = kindOf(axis) == AxisKind::Linear;
        const Kind place = linear ? Kind::Length : Kind::Angle,
                   speed = linear ? Kind::Speed : Kind::AngularSpeed;
        out << axis.name << '\t' << figureText(r.axes[a].lowest, place) << " to "
            << figureText(r.axes[a].highest, place) << '\t' << figureText(r.axes[a].topSpeed, speed) << '\n';
    }
    for (const MoveTrouble& t : r.troubles)
        out << "look again\t" << rules::troubleText(project, m, t, units::System::Metric) << '\n';
}

void printLeast(const Project& project, std::size_t index, std::ostream& out) {
    const RigMove& m = project.moves[index];
    const RigSetup rig = setupOf(project, Courses::No);
    const MoveScene scene = sceneOf(rig, m);
    const auto least = leastMoveTime(m, scene, planMove(m, scene));
    if (!least) {
        out << "no least time: nothing could be planned\n";
        return;
    }
    for (const LeastRun& r : least->runs) {
        out << "at best\t" << poseLetter(r.fromPose) << " to " << poseLetter(r.toPose) << '\t'
            << units::format(r.least, Kind::Time, units::System::Metric);
        if (r.binds >= 0)
            out << "\t" << project.axes[static_cast<std::size_t>(r.binds)].name << " limits it most";
        out << '\n';
    }
    out << "at best\tthe whole move\t" << units::format(least->time, Kind::Time, units::System::Metric)
        << '\n';
}

} // namespace

int move(const MoveCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    if (!knownId(project.moves, call.move, "move", err)) return 2;
    if (call.move.empty()) {
        if (call.json || call.csv) {
            err << "Name a move; without a name their list is printed.\n";
            return 2;
        }
        for (const RigMove& m : project.moves) out << m.id << '\t' << m.name << '\n';
        return 0;
    }
    const Evaluation evaluation = evaluate(project);
    for (std::size_t i = 0; i < project.moves.size(); ++i) {
        if (project.moves[i].id != call.move) continue;
        const MoveResults& r = evaluation.moves[i];
        if (call.csv)
            out << io::moveCsv(project, project.moves[i], call.rate);
        else if (call.json)
            out << io::moveJson(project, project.moves[i], r, call.rate);
        else
            print(project, i, r, out);
        if (call.least) printLeast(project, i, out);
        return holds(r) ? 0 : 1;
    }
    return 2;
}

} // namespace gantry::cli
