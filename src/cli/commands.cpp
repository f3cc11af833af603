// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

#include "cli/confidence.h"
#include "cli/find_ratio.h"
#include "cli/simulate.h"
#include "cli/stall_ladder.h"
#include "core/evaluate/capability.h"
#include "core/rigs/rigs.h"
#include "core/units/plain_text.h"
#include "core/units/text.h"
#include "core/verdicts/ranges.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "io/report/settings.h"
#include "io/templates/settings_template.h"

#include <algorithm>
#include <iostream>
#include <map>
#include <optional>
#include <sstream>

namespace gantry::cli {
namespace {

constexpr std::string_view usage =
    "Usage:\n"
    "  calm-gantry-cli evaluate FILE [--json]\n"
    "  calm-gantry-cli verdicts FILE\n"
    "  calm-gantry-cli check FILE\n"
    "  calm-gantry-cli export FILE --as settings [--format csv|text] "
    "[--template TEMPLATE [--allow-missing]]\n"
    "  calm-gantry-cli export FILE --as project\n"
    "  calm-gantry-cli simulate FILE [--axis ID] [--shot ID] [--json]\n"
    "  calm-gantry-cli confidence FILE [--axis ID] [--samples N] [--json]\n"
    "  calm-gantry-cli stall-ladder FILE --axis ID [--outcomes pppl] [--json]\n"
    "  calm-gantry-cli find-ratio RATIO [--stages N] [--from gears-0.5|gears-1|pulleys-2|"
    "pulleys-3|pulleys-5|TABLE.csv] [--most N] [--json]\n"
    "  calm-gantry-cli rig [NAME]\n"
    "  calm-gantry-cli schema\n"
    "Exit code 1: a verdict is over, a shot loses steps, or nothing was found. 2: the call or a file was "
    "wrong.\n"
    "3: the output could not be written. 130: stopped by Ctrl+C.\n";

struct Call {
    std::string command, file, as, format, templateFile, stages, from, most, axis, shot, samples, outcomes;
    bool json = false, allowMissing = false;
};

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

const std::map<std::string_view, std::string Call::*> textOptions{{"--as", &Call::as},
                                                                  {"--format", &Call::format},
                                                                  {"--stages", &Call::stages},
                                                                  {"--from", &Call::from},
                                                                  {"--most", &Call::most},
                                                                  {"--axis", &Call::axis},
                                                                  {"--shot", &Call::shot},
                                                                  {"--samples", &Call::samples},
                                                                  {"--outcomes", &Call::outcomes},
                                                                  {"--template", &Call::templateFile}};

/// Reads the arguments; nothing, with a sentence on err, if they are off.
std::optional<Call> readCall(const std::vector<std::string>& arguments, std::ostream& err) {
    Call call;
    std::vector<std::string> plain;
    for (std::size_t i = 0; i < arguments.size(); ++i) {
        const std::string& a = arguments[i];
        const auto value = [&](std::string& target) {
            if (i + 1 >= arguments.size()) {
                err << a << " needs a value.\n";
                return false;
            }
            target = arguments[++i];
            return true;
        };
        if (a == "--json")
            call.json = true;
        else if (a == "--allow-missing")
            call.allowMissing = true;
        else if (const auto option = textOptions.find(a); option != textOptions.end()) {
            if (!value(call.*option->second)) return std::nullopt;
        } else if (a.starts_with("--") && a != "--help") {
            err << "Unknown option " << a << ".\n";
            return std::nullopt;
        } else
            plain.push_back(a);
    }
    if (plain.empty() || plain.front() == "--help" || plain.size() > 2) return std::nullopt;
    call.command = plain.front();
    if (plain.size() == 2) call.file = plain[1];
    return call;
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
        << units::plainNumber(e.stepsPerUnit.value(), 6)
        << (e.model.exactStepsPerUnit ? " (exactly " + e.model.exactStepsPerUnit->text() + ")" : "") << '\n'
        << "  one microstep: " << show(e.step, travel) << '\n'
        << "  natural frequency: " << show(e.naturalFrequency, Kind::Frequency) << '\n';
    const Capability c = capability(axis, e);
    out << "  can do at margin " << units::format(c.margin, Kind::Ratio, units::System::Metric) << ": "
        << show(c.load.value, linear ? Kind::Mass : Kind::LoadInertia)
        << (linear ? " or " + show(c.slope.value, Kind::Angle) : "") << " or "
        << show(c.acceleration.value, acceleration) << " or " << show(c.speed.value, speed) << '\n';
    for (const ShotEvaluation& s : e.shots)
        out << "  shot " << project.shots[static_cast<std::size_t>(s.shot)].id << ": "
            << show(s.topSpeed, speed) << ", " << show(s.motorSpeed, Kind::RotationRate) << ", "
            << show(s.pulseRate, Kind::Frequency) << ", needs " << show(s.torqueNeeded, Kind::Torque)
            << " of " << show(s.torqueAvailable, Kind::Torque) << ", margin "
            << show(s.torqueMargin, Kind::Ratio) << ", microstep " << show(s.stepPixels, Kind::Pixels)
            << '\n';
}

int verdicts(const Project& project, std::ostream& out, std::ostream& err) {
    Assessment a = assess(project);
    std::stable_sort(a.verdicts.begin(), a.verdicts.end(), worseThan);
    bool over = false;
    for (const Verdict& v : a.verdicts) {
        const SetAside* aside = setAsideFor(project, v);
        over = over || (v.state == State::Over && aside == nullptr);
        out << stateWord(v.state) << '\t'
            << (v.ratio ? "×" + units::format(v.ratio.value(), units::Kind::Ratio, units::System::Metric, 2)
                        : "-")
            << '\t' << project.axes[static_cast<std::size_t>(v.axis)].name << '\t' << title(v) << ": "
            << sentence(v, project, units::System::Metric)
            << (aside != nullptr ? " [set aside: " + aside->reason + "]" : "") << '\n';
    }
    if (over) err << "A verdict is over and not set aside.\n";
    return over ? 1 : 0;
}

int exportSettings(const Call& call, const Project& project, std::ostream& out, std::ostream& err) {
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
    if (call.format == "csv")
        out << io::settingsCsv(sheet);
    else if (call.format.empty() || call.format == "text")
        out << io::settingsText(sheet);
    else {
        err << "Unknown format “" << call.format << "”: use csv or text.\n";
        return 2;
    }
    return 0;
}

} // namespace

namespace {

int carryOut(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err) {
    const std::optional<Call> call = readCall(arguments, err);
    if (!call) {
        err << "This call is not understood.\n" << usage;
        return 2;
    }
    if (call->command == "schema") {
        out << io::projectSchema();
        return 0;
    }
    if (call->command == "find-ratio" && !call->file.empty())
        return findRatio({call->file, call->stages, call->from, call->most, call->json}, out, err);
    if (call->command == "rig") return startingRig(call->file, out, err);
    if (call->file.empty()) {
        err << "“" << call->command << "” needs a file.\n" << usage;
        return 2;
    }
    const std::optional<io::LoadedProject> loaded = load(call->file, err);
    if (!loaded) return 2;
    const Project& project = loaded->project;
    if (call->command == "evaluate") {
        const Assessment a = assess(project);
        if (call->json)
            out << io::evaluationJson(project, a);
        else
            for (std::size_t i = 0; i < project.axes.size(); ++i)
                printAxis(project, i, a.evaluation.axes[i], out);
        return 0;
    }
    if (call->command == "verdicts") return verdicts(project, out, err);
    if (call->command == "simulate") return simulate({call->axis, call->shot, call->json}, project, out, err);
    if (call->command == "confidence")
        return confidence({call->axis, call->samples, call->json}, project, out, err);
    if (call->command == "stall-ladder")
        return stallLadder({call->axis, call->outcomes, call->json}, project, out, err);
    if (call->command == "check") {
        for (const std::string& notice : loaded->notices) out << notice << '\n';
        out << units::plainText(call->file) << ": " << project.axes.size() << " axes, "
            << project.shots.size() << " shots, reads well.\n";
        return 0;
    }
    if (call->command == "export" && call->as == "settings") return exportSettings(*call, project, out, err);
    if (call->command == "export" && call->as == "project") {
        out << io::writeProject(project);
        return 0;
    }
    err << "“" << call->command << "” is no command" << (call->as.empty() ? "" : " for “" + call->as + "”")
        << ".\n"
        << usage;
    return 2;
}

} // namespace

int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err) {
    // Complaints quote file names and arguments, which may hold what a terminal would obey.
    std::ostringstream said;
    const int code = carryOut(arguments, out, said);
    err << units::plainText(said.str());
    return code;
}

} // namespace gantry::cli
