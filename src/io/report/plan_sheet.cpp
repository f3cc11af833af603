// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/plan_sheet.h"

#include "core/evaluate/interval/interval_frames.h"
#include "core/evaluate/setup_of.h"
#include "core/model/describe.h"
#include "core/units/spelled_time.h"
#include "core/units/text.h"
#include "io/report/interval_table.h"

#include <algorithm>

namespace gantry::io {
namespace {

using units::Kind;

class Sheet {
public:
    Sheet(const Project& project, std::size_t plan, const Evaluation& evaluation, units::System system)
        : project_(project), plan_(project.plans[plan]), results_(evaluation.plans[plan]),
          evaluation_(evaluation), system_(system), index_(plan) {}

    std::string text() {
        out_ = "# " + plain(plan_.name) + "\n\n" + plain(project_.name) + "\n\n";
        facts();
        for (const std::string& trouble : planTroubles(project_, index_, results_))
            out_ += "**Look again:** " + plain(trouble) + "\n\n";
        interval();
        axes();
        ticks();
        return out_;
    }

private:
    std::string show(const Figure& f, Kind kind, int digits = 3) const {
        return f ? units::format(f.value(), kind, system_, digits) : "–";
    }
    static std::string spelled(const Figure& f) {
        return f ? units::spelledTime(f.value()) : std::string("–");
    }
    /// Of what people typed nothing is a mark of Markdown.
    static std::string plain(const std::string& text) {
        std::string out;
        for (const char c : text) {
            if (std::string_view("\\`*_{}[]<>#+-.!|").find(c) != std::string_view::npos) out += '\\';
            out += c == '\n' || c == '\r' ? ' ' : c;
        }
        return out;
    }
    void row(const std::string& what, const std::string& value) {
        out_ += "| " + what + " | " + value + " |\n";
    }
    void facts() {
        out_ += "| The run | |\n| --- | --- |\n";
        row("Pictures", show(results_.pictures, Kind::Count, 8) + " (" +
                            show(results_.pictures - 1.0, Kind::Count, 8) + " gaps)");
        row("Interval", spelled(results_.interval));
        row("Duration", spelled(results_.duration));
        row("Starts", units::format(plan_.startClock, Kind::TimeOfDay, system_));
        row("Ends", show(results_.endsAfter, Kind::TimeOfDay));
        row("Clip",
            show(results_.clip, Kind::Time) + ", " + show(results_.speedUp, Kind::Ratio) + " times faster");
        row("Way", std::string(ChoiceNames<IntervalMode>::labels[static_cast<std::size_t>(plan_.mode)]));
        row("First to fail",
            results_.first == FirstFailure::None
                ? std::string("nothing before the last picture")
                : std::string(ChoiceNames<FirstFailure>::labels[static_cast<std::size_t>(results_.first)]) +
                      ", picture " + show(results_.firstAt, Kind::Count, 8) + ", " +
                      show(results_.firstClock, Kind::TimeOfDay));
        out_ += '\n';
    }
    void interval() {
        const PlanLanes& l = results_.lanes;
        if (!l.room) return;
        out_ += "| One interval, picture " + show(l.picture, Kind::Count, 8) + " | |\n| --- | --- |\n";
        row("Move", show(l.move, Kind::Time));
        row("Settle", show(l.settle, Kind::Time));
        row("Focus and lag", show(l.focus + l.lag, Kind::Time));
        row("Exposure", show(l.exposure, Kind::Time));
        row("Write", show(l.write, Kind::Time));
        row("Spare", show(l.spare, Kind::Time));
        out_ += '\n';
    }
    void axes() {
        const RigSetup rig = setupWithMoves(project_, evaluation_.planned);
        const IntervalCourse course(rig, plan_, evaluation_.axes);
        if (!course.runs()) return;
        const std::vector<double> first = course.placesAt(0), last = course.placesAt(course.pictures() - 1);
        out_ += "| Axis | First picture | Last picture | Largest step |\n| --- | --- | --- | --- |\n";
        for (std::size_t a = 0; a < first.size(); ++a) {
            const Kind kind = kindOf(project_.axes[a]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
            out_ += "| " + plain(project_.axes[a].name) + " | " + units::format(first[a], kind, system_, 5) +
                    " | " + units::format(last[a], kind, system_, 5) + " | " +
                    (course.moves(a) ? show(results_.axes[a].largestStep, kind, 4) : std::string("stays")) +
                    " |\n";
        }
        out_ += '\n';
    }
    void tick(const std::string& what) { out_ += "- [ ] " + what + "\n"; }
    /// Of what is on the list only what this plan needs.
    void ticks() {
        out_ += "## Before\n\n";
        const auto cameras = plan_.cameras;
        tick("Clocks of camera and rig set to the same time");
        if (std::any_of(cameras.begin(), cameras.end(), [](const PlanCamera& c) { return c.focus <= 0.0; }))
            tick("Focused by hand, focus ring taped");
        tick("Exposure, white balance and sensitivity set by hand; long-exposure noise reduction off");
        if (results_.sharp.filterStops && results_.sharp.filterStops.value() > 0.0)
            tick("Filter of " + show(results_.sharp.filterStops, Kind::Ratio) + " stops on the lens");
        if (std::any_of(cameras.begin(), cameras.end(), [](const PlanCamera& c) { return c.bulb; }))
            tick("Camera on bulb, trigger cable held by a tie");
        tick("Cards empty: " + show(results_.pictures, Kind::Count, 8) + " pictures");
        if (project_.supply.capacity > 0.0) {
            tick("Battery full, its voltage noted at picture 1");
            for (const AxisEvaluation& axis : evaluation_.axes)
                if (axis.powerOff.falls) {
                    tick("What falls without power is secured, and nobody stands below it");
                    break;
                }
        }
        tick("Rig at its first picture, backlash taken up, feet and clamps tight");
        tick("Whole way run once by hand: cables free, fingers and hair clear of belts and wheels");
        tick("Ten pictures taken and looked at, then the run begun");
        if (!plan_.sensors.empty())
            tick("Sensors warmed up, and looked at by somebody who walks where people will");
        out_ += "\n## After\n\n";
        switch (plan_.sign) {
        case EndSign::Light:
            tick("Light seen: the last shutter has closed");
            break;
        case EndSign::Tone:
            tick("Tone heard: the last shutter has closed");
            break;
        case EndSign::Middle:
            tick("Rig has gone to the middle of its travel: the last shutter has closed");
            break;
        case EndSign::None:
            break;
        }
        tick("Pictures counted: " + show(results_.pictures, Kind::Count, 8));
        tick("Battery's voltage noted, motors and drivers cooled before they are touched");
        tick("Frame list kept with the pictures");
    }

    const Project& project_;
    const IntervalPlan& plan_;
    const IntervalResults& results_;
    const Evaluation& evaluation_;
    units::System system_;
    std::size_t index_;
    std::string out_;
};

} // namespace

std::string planSheet(const Project& project, std::size_t plan, const Evaluation& evaluation,
                      units::System system) {
    return Sheet(project, plan, evaluation, system).text();
}

std::string goingOn(const Project& project, std::size_t plan, const Evaluation& evaluation,
                    std::int64_t picture, units::System system) {
    const RigSetup rig = setupWithMoves(project, evaluation.planned);
    const IntervalCourse course(rig, project.plans[plan], evaluation.axes);
    if (!course.runs()) return "The plan cannot run yet.\n";
    const IntervalRun run(course, evaluation.axes);
    if (run.frames() == 0) return "Nobody is there all along, so no picture is taken.\n";
    picture = std::clamp<std::int64_t>(picture, 0, run.frames() - 1);
    const IntervalFrame frame = run.at(picture);
    const auto number = [](std::int64_t n) { return std::to_string(n); };
    std::string out = "Picture " + number(picture + 1) + " of " + number(run.frames()) + ", planned for " +
                      units::format(frame.opens, Kind::TimeOfDay, system) + ".\n";
    for (std::size_t a = 0; a < frame.places.size(); ++a) {
        if (!course.moves(a)) continue;
        const Axis& axis = project.axes[a];
        const Kind kind = kindOf(axis) == AxisKind::Linear ? Kind::Length : Kind::Angle;
        const double sense = course.stepAt(std::min(picture, course.pictures() - 2), a) < 0.0 ? -1.0 : 1.0;
        out += axis.name + ": go to " + units::format(frame.places[a], kind, system, 5);
        if (run.stepOf(a) > 0.0) out += ", " + number(frame.steps[a]) + " steps from the first picture";
        // From the side that the run comes from, so far that the play is used up for certain.
        constexpr double twice = 2.0;
        const double back = twice * evaluation.axes[a].model.backlash;
        if (back > 0.0)
            out += "; come from " + units::format(frame.places[a] - sense * back, kind, system, 5) +
                   ", so that backlash is taken up";
        out += ".\n";
    }
    const std::int64_t left = run.frames() - picture;
    out +=
        number(left) + " pictures are left, " +
        units::format(static_cast<double>(left) * project.plans[plan].heldFor / project.plans[plan].clipRate,
                      Kind::Time, system) +
        " of the clip. Taken up at the same place nothing of the way is lost; light and clouds jump by "
        "the time that it stood.\n";
    return out;
}

} // namespace gantry::io
