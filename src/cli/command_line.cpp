// SPDX-License-Identifier: GPL-3.0-or-later
// The only file that includes the command-line library, which compiles slowly.
#include "cli/command_line.h"

#include "core/units/text.h"
#include "io/exports/settings_forms.h"

#include "cli/completion.h"

#include <CLI/CLI.hpp>

namespace gantry::cli {
namespace {

constexpr const char* program = "calm-gantry-cli";

/// What completion needs to know of the commands.
std::vector<CommandWords> wordsOf(const CLI::App& app) {
    std::vector<CommandWords> out;
    for (const CLI::App* sub : app.get_subcommands([](const CLI::App*) { return true; })) {
        CommandWords words{sub->get_name(), {}, {}};
        for (const CLI::Option* option : sub->get_options())
            for (const std::string& name : option->get_lnames()) words.options.push_back("--" + name);
        for (const CLI::Option* option :
             sub->get_options([](const CLI::Option* o) { return o->get_positional(); }))
            words.argument = option->get_name();
        out.push_back(std::move(words));
    }
    return out;
}

} // namespace

Command readCommandLine(const std::vector<std::string>& arguments) {
    CLI::App app(
        "Sizes and configures the drives of motorised camera rigs; the same numbers as in the window.",
        program);
    app.set_version_flag("--version", std::string(GANTRY_VERSION));
    app.require_subcommand(1);
    app.footer(
        "Exit code 1: something is not as it should be, which the help of each command names. "
        "2: the call or a file was wrong. 3: the output could not be written. 130: stopped by Ctrl+C.");
    Command command = Answer{};

    const auto add = [&](const char* name, const char* what, auto& call) {
        CLI::App* sub = app.add_subcommand(name, what);
        sub->callback([&command, &call] { command = call; });
        return sub;
    };
    const auto file = [](CLI::App* sub, std::string& target) {
        sub->add_option("FILE", target, "Project file")->required();
    };
    const auto json = [](CLI::App* sub, bool& target) {
        sub->add_flag("--json", target, "Print JSON, in SI");
    };

    EvaluateCall evaluate;
    CLI::App* sub = add("evaluate", "The numbers of every axis", evaluate);
    file(sub, evaluate.file);
    json(sub, evaluate.json);
    sub->add_flag("--all", evaluate.all, "Every figure, one a line")->excludes("--json");

    const auto shelf = [](CLI::App* of, std::string& target) {
        return of->add_option("--shelf", target, "Table of parts on hand, to choose fixes from");
    };
    OnFile<VerdictsCall> verdicts;
    sub =
        add("verdicts",
            "Every verdict, worst first, with its nominal and low end; exit code 1 if one is over or at risk "
            "and not set aside",
            verdicts);
    file(sub, verdicts.file);
    json(sub, verdicts.call.json);
    CLI::Option* fixes =
        sub->add_flag("--fixes", verdicts.call.fixes, "Try the fixes of each and print them");
    shelf(sub, verdicts.call.shelf)->needs(fixes);

    AuditCall audit;
    sub =
        add("audit",
            "Applies every fix of every verdict and assesses the rig anew; exit code 1 if one is not what it "
            "says, or less than 90 % of the verdicts have a good one",
            audit);
    sub->add_option("FILE", audit.files, "Project files")->required();
    shelf(sub, audit.shelf);

    CheckCall check;
    file(add("check", "Reads a file and lists what is kept without being understood", check), check.file);

    ExportCall out;
    sub = add("export", "Settings for the controller, or the file in normal form", out);
    file(sub, out.file);
    sub->add_option("--as", out.as, "What to write")
        ->required()
        ->check(CLI::IsMember({"settings", "project"}));
    std::vector<std::string> forms;
    for (const io::SettingsForm& form : io::settingsForms()) forms.emplace_back(form.id);
    sub->add_option("--format", out.format, "Form of the settings")->check(CLI::IsMember(forms));
    CLI::Option* mustache =
        sub->add_option("--template", out.templateFile, "Fill this template (docs/templates.md)");
    sub->add_flag("--allow-missing", out.allowMissing, "Leave names empty that the settings do not have")
        ->needs(mustache);

    OnFile<SimulateCall> simulate;
    sub = add("simulate", "Shots in time: lost steps, lag, vibration, heat", simulate);
    file(sub, simulate.file);
    sub->add_option("--axis", simulate.call.axis, "Only the axis with this id");
    sub->add_option("--shot", simulate.call.shot, "Only the shot with this id");
    json(sub, simulate.call.json);

    OnFile<ConfidenceCall> confidence;
    sub = add("confidence", "Chances of a stall within the tolerances, and the input that matters most",
              confidence);
    file(sub, confidence.file);
    sub->add_option("--axis", confidence.call.axis, "Only the axis with this id");
    sub->add_option("--samples", confidence.call.samples, "Rigs to draw")->check(CLI::Range(100, 1000000));
    json(sub, confidence.call.json);

    OnFile<LadderCall> ladder;
    sub =
        add("stall-ladder", "Tests from easy to hopeless, and what their outcomes say of the motor", ladder);
    file(sub, ladder.file);
    sub->add_option("--axis", ladder.call.axis, "The axis with this id")->required();
    sub->add_option("--outcomes", ladder.call.outcomes,
                    "One letter a rung: p passed, l lost steps, - not run");
    json(sub, ladder.call.json);

    RatioCall ratio;
    sub = add("find-ratio", "Trains of wheels for a ratio, best first", ratio);
    sub->add_option("RATIO", ratio.ratio, "3.6, 57/11 or 57:11")->required();
    sub->add_option("--stages", ratio.stages, "At most so many stages")->check(CLI::Range(1, 4));
    sub->add_option("--from", ratio.from,
                    "gears-0.5, gears-1, pulleys-2, pulleys-3, pulleys-5, or a table of parts");
    sub->add_option("--most", ratio.most, "At most so many trains")->check(CLI::Range(1, 1000));
    json(sub, ratio.json);

    OnFile<ClaimsCall> claims;
    sub = add("claims",
              "What a listing, a seller or a settings page says, held against the parts; exit code 1 if "
              "something cannot be",
              claims);
    file(sub, claims.file);
    sub->add_option("--axis", claims.call.axis, "Only the axis with this id");
    sub->add_option("--told", claims.call.told, "This claim, in place of those in the project");

    OnFile<WinchCall> winch;
    sub = add("winch", "Speed and steps along the travel of a winch, layer by layer", winch);
    file(sub, winch.file);
    sub->add_option("--axis", winch.call.axis, "The axis with this id; otherwise the first winch");

    OnFile<PanBarCall> panBar;
    std::string turn;
    sub = add("pan-bar", "The angle of a pan bar for the turn it shall give; exit code 1 if no bar does that",
              panBar);
    file(sub, panBar.file);
    sub->add_option("--axis", panBar.call.axis, "The axis with this id; otherwise the first straight one");
    sub->add_option("--turn", turn, "How far the camera shall turn over the travel: 20, \"0.3 rad\"")
        ->required()
        ->check([&panBar](const std::string& text) {
            const auto angle = units::parse(text, units::Kind::Angle, units::System::Metric);
            const auto* value = std::get_if<double>(&angle);
            if (value == nullptr || *value == 0.0) return "“" + text + "” is no angle";
            panBar.call.turn = *value;
            return std::string();
        });

    OnFile<SectionsCall> sections;
    sub = add("sections", "Other sections for a rail or an arm, over the same span with the same load",
              sections);
    file(sub, sections.file);
    sub->add_option("--axis", sections.call.axis,
                    "The axis with this id; otherwise the first with a section");
    shelf(sub, sections.call.shelf);

    OnFile<CompletenessCall> completeness;
    file(add("completeness", "What the rig needs beside its drives; exit code 1 if something is missing",
             completeness),
         completeness.file);

    OnFile<StaleCall> stale;
    file(add("stale", "Tests that were noted, and whether they still hold; exit code 1 if one does not",
             stale),
         stale.file);

    OnFile<ExplainCall> explain;
    sub = add("explain", "How a figure comes about, with its formulas; without a path what can be explained",
              explain);
    file(sub, explain.file);
    auto* figure =
        sub->add_option("PATH", explain.call.path,
                        "A figure, axes/slide/shots/pass/torque_margin, or a verdict, verdicts/slide/jitter");
    sub->add_flag("--json", explain.call.json, "Print JSON instead of text")->needs(figure);

    OnFile<MoveCall> move;
    sub = add("move",
              "A move as it is planned; without an id their list; exit code 1 if it cannot run as it is "
              "meant or needs "
              "more of an axis than is set",
              move);
    file(sub, move.file);
    sub->add_option("ID", move.call.move, "Id of the move");
    CLI::Option* asJson = sub->add_flag("--json", move.call.json, "Joint values and camera moment by moment");
    sub->add_flag("--csv", move.call.csv, "The same as a table, units in the header")->excludes(asJson);
    sub->add_flag("--least", move.call.least, "Search for the least time in which its path can be run")
        ->excludes("--json")
        ->excludes("--csv");
    sub->add_option("--rate", move.call.rate, "Lines a second, in place of the frame rate")
        ->check(CLI::Range(1e-3, 1e4));

    OnFile<IntervalsCall> intervals;
    sub =
        add("intervals",
            "An interval plan, and what fails first; without an id their list; exit code 1 if it cannot run "
            "as it is meant or something fails before its last picture",
            intervals);
    file(sub, intervals.file);
    sub->add_option("ID", intervals.call.plan, "Id of the plan");
    CLI::Option* planAsJson =
        sub->add_flag("--json", intervals.call.json, "Everything about it and its pictures, in SI");
    sub->add_flag("--csv", intervals.call.csv, "The list of its pictures as a table, units in the header")
        ->excludes(planAsJson);

    RigCall rig;
    sub = add("rig", "A rig to start from, as a project; without a name their list", rig);
    sub->add_option("NAME", rig.name, "Name from the list");

    SchemaCall schema;
    add("schema", "JSON Schema of the project file", schema);

    ResultsCall results;
    add("results", "What evaluate --json prints, key by key", results);

    TextsCall texts;
    add("texts", "Every text that rules, fixes, fields and results show: the catalogue for translation",
        texts);

    std::string shell;
    sub = app.add_subcommand("completion", "A script that completes commands and options in a shell");
    sub->add_option("SHELL", shell, "bash")->required()->check(CLI::IsMember({"bash"}));
    sub->callback([&] { command = Answer{completionScript(program, wordsOf(app)), 0}; });

    try {
        // The library takes them from the back.
        app.parse(std::vector<std::string>(arguments.rbegin(), arguments.rend()));
    } catch (const CLI::CallForHelp&) {
        return Answer{app.help(), 0};
    } catch (const CLI::CallForAllHelp&) {
        return Answer{app.help("", CLI::AppFormatMode::All), 0};
    } catch (const CLI::CallForVersion&) {
        return Answer{std::string(GANTRY_VERSION) + '\n', 0};
    } catch (const CLI::ParseError& e) {
        const auto chosen = app.get_subcommands();
        const std::string of =
            chosen.empty() ? program : std::string(program) + ' ' + chosen.front()->get_name();
        std::string why = e.what();
        if (chosen.empty() && !arguments.empty() && !arguments.front().starts_with('-'))
            why = "“" + arguments.front() + "” is no command."; // the library only says that one is missing
        if (!why.empty() && why.back() != '.') why += '.';
        return Answer{why + " `" + of + " --help` says what is possible.\n", 2};
    }
    return command;
}

} // namespace gantry::cli
