// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/tools/compare_ramps.h"
#include "core/tools/error_budget.h"
#include "core/tools/limits.h"
#include "core/tools/simulation_view.h"
#include "core/tools/stall_ladder.h"
#include "core/tools/structure_curves.h"
#include "core/tools/structure_solve.h"
#include "core/tools/winch_curve.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/fix.h"
#include "io/exports/settings_forms.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "io/templates/settings_template.h"
#include "support/finite.h"
#include "support/stock.h"

#include <chrono>
#include <condition_variable>
#include <mutex>
#include <stop_token>
#include <string>
#include <thread>

/// Everything that the program computes of a project without being asked for more: evaluate, judge, ranges,
/// fixes of one verdict, limits, ladder, settings, template, write, read. Returns what is wrong, or nothing.
/// @param which picks the verdict whose fixes are looked for
inline std::string wholeRun(const gantry::Project& p, std::size_t which) {
    using namespace gantry;
    const Assessment a = assess(p);
    std::string culprit;
    if (!everyNumberIsFinite(nlohmann::json::parse(io::evaluationJson(p, a)), culprit))
        return "no number: " + culprit;
    for (std::size_t i = 0; i < p.axes.size(); ++i) {
        const AxisEvaluation& e = a.evaluation.axes[i];
        const AxisLimits l = axisLimits(p, p.axes[i], e);
        if (!std::isfinite(l.recommended.speed) || !std::isfinite(l.recommended.acceleration) ||
            !std::isfinite(l.recommended.jerk))
            return "recommended limits are no numbers";
        for (const Rung& r : stallLadder(e))
            if (!std::isfinite(r.margin) || !std::isfinite(r.distance)) return "a rung is no number";
        for (const ShotEvaluation& s : e.shots) {
            for (const RampRow& r : compareRamps(p, e, s))
                if (!r.time || !r.acceleration) return "a compared ramp is no number";
            if (const auto sim = simulationOf(p.axes[i], e, s))
                if (!(sim->profile.time() <= longestSimulated * 1.001))
                    return "the simulation would take too long";
        }
        for (const WinchPoint& w : winchCurve(p.axes[i], e, 10.0))
            if (!std::isfinite(w.speed)) return "the winch's curve is no number";
        (void)counterweightChart(p, p.axes[i]);
    }
    for (const Verdict& v : a.verdicts)
        if (const std::string s = sentence(v, p, units::System::Metric);
            s.empty() || s.find(" inf ") != std::string::npos || s.find(" nan ") != std::string::npos ||
            s.find("-inf") != std::string::npos)
            return "a sentence without a number: " + s;
    std::vector<const Verdict*> bad;
    for (const Verdict& v : a.verdicts)
        if (v.state == State::Over || v.state == State::Tight) bad.push_back(&v);
    if (!bad.empty()) {
        // Every change tried judges the whole rig again, and there may be hundreds: what must hold is that
        // the search stops soon when somebody has waited long enough.
        std::stop_source impatient;
        const std::jthread clock([&](const std::stop_token& done) {
            std::mutex alone;
            std::unique_lock lock(alone);
            std::condition_variable_any woken;
            woken.wait_for(lock, done, std::chrono::seconds(1), [] { return false; });
            impatient.request_stop();
        });
        for (const Fix& f :
             findFixes(p, a, *bad[which % bad.size()], impatient.get_token(), 5, stockInShops()))
            if (const std::string why = io::fileObjection(f.result); !why.empty()) return "a fix: " + why;
    }
    const io::SettingsSheet sheet = io::settingsSheet(p, a);
    (void)io::settingsCsv(sheet);
    (void)io::settingsText(sheet);
    const io::FilledTemplate filled = io::fillTemplate(
        "{{project}} {{#axes}}{{name}} {{#settings}}{{label}}: {{value}} {{unit}}\n{{/settings}}{{/axes}}",
        sheet);
    if (!filled.error.empty()) return filled.error;
    const std::string text = io::writeProject(p);
    const auto back = io::readProject(text);
    if (const auto* e = std::get_if<io::LoadError>(&back)) return "does not open again: " + e->sentence;
    if (!(std::get<io::LoadedProject>(back).project == p)) return "opens as another project";
    return {};
}
