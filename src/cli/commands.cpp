// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

#include "cli/command_line.h"
#include "cli/results_table.h"
#include "core/rigs/rigs.h"
#include "core/tools/capability.h"
#include "core/units/plain_text.h"
#include "core/units/text.h"
#include "core/verdicts/ranges.h"
#include "io/exports/settings_forms.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "io/report/settings.h"
#include "io/report/texts.h"
#include "io/templates/settings_template.h"

#include <algorithm>
#include <optional>
#include <ostream>
#include <sstream>

namespace gantry::cli {
namespace {

/// Prints a rig to start from as a project, or the list of them.
int startingRig(const std::string& name, std::ostream& out, std::ostream& err) {
    for (const rigs::RigInfo& info : rigs::all()) {
        if (name.empty())
            out << info.key << "\t" << info.sentence << '\n';
        else if (info.key == name) {
            out << io::writeProject(rigs::make(info.kind));
            return 0;
        }
    }
    if (name.empty()) return 0;
    err << "There is no rig “" << name << "”. `calm-gantry-cli rig` lists them.\n";
    return 2;
}

std::optional<io::LoadedProject> load(const std::string& file, std::ostream& err) {
    std::string error;
    const std::optional<std::string> text = io::readTextFile(file, io::largestFile, error);
    if (!text) {
        err << error << '\n';
        return std::nullopt;
    }
    auto result = io::readProject(*text);
    if (auto* problem = std::get_if<io::LoadError>(&result)) {
        err << file << ": " << problem->sentence << '\n';
        return std::nullopt;
    }
    return std::get<io::LoadedProject>(std::move(result));
}

std::string show(const Figure& f, units::Kind kind) {
    return f ? units::format(f.value(), kind, units::System::Metric)
             : "not known (" + std::string(words::reasonText(f.reason())) + ")";
}

void printAxis(const Project& project, std::size_t index, const AxisEvaluation& e, std::ostream& out) {
    using units::Kind;
    const Axis& axis = project.axes[index];
    const bool linear = e.model.kind == AxisKind::Linear;
    const Kind travel = linear ? Kind::Length : Kind::Angle,
               speed = linear ? Kind::Speed : Kind::AngularSpeed;
    const Kind acceleration = linear ? Kind::Acceleration : Kind::AngularAcceleration;
    out << axis.name << " (" << axis.id << ")\n"
        << "  steps per " << (linear ? "mm" : "degree") << ": "
        << (e.steps.stepsPerUnit ? units::plainNumber(e.steps.stepsPerUnit.value(), 6) : std::string())
        << (e.model.exactStepsPerUnit ? " (exactly " + e.model.exactStepsPerUnit->text() + ")" : "") << '\n'
        << "  one microstep: " << show(e.step, travel) << '\n'
        << "  natural frequency: " << show(e.resonance.frequency, Kind::Frequency) << '\n';
    const Capability c = capability(axis, e);
    out << "  can do at margin " << units::format(c.margin, Kind::Ratio, units::System::Metric) << ": "
        << show(c.load.value, linear ? Kind::Mass : Kind::LoadInertia)
        << (linear ? " or " + show(c.slope.value, Kind::Angle) : "") << " or "
        << show(c.acceleration.value, acceleration) << " or " << show(c.speed.value, speed) << '\n';
    for (const ShotEvaluation& s : e.shots)
        out << "  shot " << project.shots[s.shot.at()].id << ": " << show(s.motion.topSpeed, speed) << ", "
            << show(s.motion.motorSpeed, Kind::RotationRate) << ", " << show(s.pulseRate, Kind::Frequency)
            << ", needs " << show(s.torque.needed, Kind::Torque) << " of "
            << show(s.torque.available, Kind::Torque) << ", margin " << show(s.torque.margin, Kind::Ratio)
            << ", microstep " << show(s.place.step, Kind::Pixels) << '\n';
}

int exportSettings(const ExportCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const io::SettingsSheet sheet = io::settingsSheet(project, assess(project));
    if (!call.templateFile.empty()) {
        std::string error;
        const std::optional<std::string> text =
            io::readTextFile(call.templateFile, io::largestTemplate, error);
        if (!text) {
            err << error << '\n';
            return 2;
        }
        const io::FilledTemplate filled = io::fillTemplate(*text, sheet);
        if (!filled.error.empty()) {
            err << filled.error << '\n';
            return 2;
        }
        if (!filled.missingNames.empty()) {
            err << "The template uses names that the settings do not have:";
            for (const std::string& name : filled.missingNames) err << ' ' << name;
            err << ".\n";
            if (!call.allowMissing) {
                err << "Correct the template, or give --allow-missing to leave them empty.\n";
                return 2;
            }
        }
        out << filled.text;
        return 0;
    }
    const io::SettingsForm* form = io::findSettingsForm(call.format.empty() ? "text" : call.format);
    out << form->write(sheet); // the command line has refused any other
    return 0;
}

} // namespace

namespace {

/// What each call does. Those on a project read it first.
struct Runner {
    std::ostream& out;
    std::ostream& err;

    template <class F>
    int withProject(const std::string& file, F f) const {
        const std::optional<io::LoadedProject> loaded = load(file, err);
        return loaded ? f(*loaded) : 2;
    }

    int operator()(const Answer& answer) const {
        (answer.code == 0 ? out : err) << answer.text;
        return answer.code;
    }
    int operator()(const SchemaCall&) const {
        out << io::projectSchema();
        return 0;
    }
    int operator()(const ResultsCall&) const {
        printResultKeys(out);
        return 0;
    }
    int operator()(const TextsCall&) const {
        out << io::textsCsv();
        return 0;
    }
    int operator()(const RigCall& call) const { return startingRig(call.name, out, err); }
    int operator()(const RatioCall& call) const { return findRatio(call, out, err); }
    int operator()(const EvaluateCall& call) const {
        return withProject(call.file, [&](const io::LoadedProject& loaded) {
            const Project& project = loaded.project;
            const Assessment a = assess(project);
            if (call.json)
                out << io::evaluationJson(project, a);
            else if (call.all)
                printAll(project, a.evaluation, out);
            else
                for (std::size_t i = 0; i < project.axes.size(); ++i)
                    printAxis(project, i, a.evaluation.axes[i], out);
            return 0;
        });
    }
    int operator()(const AuditCall& call) const {
        std::vector<Project> projects;
        for (const std::string& file : call.files) {
            std::optional<io::LoadedProject> loaded = load(file, err);
            if (!loaded) return 2;
            projects.push_back(std::move(loaded->project));
        }
        return audit(call, projects, out, err);
    }
    int operator()(const CheckCall& call) const {
        return withProject(call.file, [&](const io::LoadedProject& loaded) {
            for (const std::string& notice : loaded.notices) out << notice << '\n';
            out << units::plainText(call.file) << ": " << loaded.project.axes.size() << " axes, "
                << loaded.project.shots.size() << " shots, reads well.\n";
            return 0;
        });
    }
    int operator()(const ExportCall& call) const {
        return withProject(call.file, [&](const io::LoadedProject& loaded) {
            if (call.as == "settings") return exportSettings(call, loaded.project, out, err);
            out << io::writeProject(loaded.project);
            return 0;
        });
    }
    template <class Call>
    int operator()(const OnFile<Call>& on) const {
        return withProject(on.file, [&](const auto& loaded) { return does(on.call, loaded.project); });
    }

    int does(const VerdictsCall& call, const Project& p) const { return verdicts(call, p, out, err); }
    int does(const SimulateCall& call, const Project& p) const { return simulate(call, p, out, err); }
    int does(const ConfidenceCall& call, const Project& p) const { return confidence(call, p, out, err); }
    int does(const LadderCall& call, const Project& p) const { return stallLadder(call, p, out, err); }
    int does(const ClaimsCall& call, const Project& p) const { return claims(call, p, out, err); }
    int does(const WinchCall& call, const Project& p) const { return winch(call, p, out, err); }
    int does(const ExplainCall& call, const Project& p) const { return explain(call, p, out, err); }
    int does(const MoveCall& call, const Project& p) const { return move(call, p, out, err); }
    int does(const IntervalsCall& call, const Project& p) const { return intervals(call, p, out, err); }
    int does(const PanBarCall& call, const Project& p) const { return panBar(call, p, out, err); }
    int does(const SectionsCall& call, const Project& p) const { return sections(call, p, out, err); }
    int does(const CompletenessCall& call, const Project& p) const { return completeness(call, p, out, err); }
    int does(const StaleCall& call, const Project& p) const { return stale(call, p, out, err); }
};

} // namespace

int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err) {
    // Complaints quote file names and arguments, which may hold what a terminal would obey.
    std::ostringstream said;
    const int code = std::visit(Runner{out, said}, readCommandLine(arguments));
    err << units::plainText(said.str());
    return code;
}

} // namespace gantry::cli
