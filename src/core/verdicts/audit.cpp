// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/audit.h"

#include "core/model/fields.h"
#include "core/verdicts/low_ends.h"
#include "core/verdicts/rules.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace gantry {
namespace {

/// How much a state wants to be mended, said once more than in the search that is audited; unknown stands
/// beside at risk.
int rank(State state) {
    switch (state) {
    case State::Over:
        return 3;
    case State::AtRisk:
    case State::Unknown:
        return 2;
    case State::Tight:
        return 1;
    case State::Fine:
    case State::Oversized:
        break;
    }
    return 0;
}

/// Verdicts by what they judge: a rule about the whole rig names one axis of it, now this and now that.
using ByMatter = std::map<std::pair<int, int>, const Verdict*>;
ByMatter byMatter(const std::vector<Verdict>& verdicts) {
    ByMatter out;
    for (const Verdict& v : verdicts) {
        const Verdict*& worst = out[{v.rule, aboutRig(v) ? -1 : v.axis}];
        if (worst == nullptr || rank(v.state) > rank(worst->state)) worst = &v;
    }
    return out;
}

/// Times of the axes of each shot.
std::vector<std::map<std::string, double>> timesOf(const Project& p, const Evaluation& e) {
    std::vector<std::map<std::string, double>> out(p.shots.size());
    for (std::size_t a = 0; a < e.axes.size(); ++a)
        for (const ShotEvaluation& s : e.axes[a].shots)
            if (s.motion.time && !s.follows && p.shots[s.shot.at()].kind != ShotKind::Interval &&
                p.shots[s.shot.at()].kind != ShotKind::StopMotion)
                out[s.shot.at()][p.axes[a].id] = s.motion.time.value();
    return out;
}

double longest(const std::map<std::string, double>& times) {
    double out = 0.0;
    for (const auto& [axis, time] : times) out = std::max(out, time);
    return out;
}

class Auditor {
public:
    Auditor(const Project& project, const Assessment& now, const Verdict& verdict)
        : project_(project), now_(now), verdict_(verdict), before_(byMatter(now.verdicts)) {}

    std::vector<std::string> objections(const Fix& fix) {
        out_.clear();
        const Assessment after = assess(fix.result, {}, Poses::Search, now_.evaluation.known());
        const ByMatter is = byMatter(after.verdicts);
        const bool measures = !fix.measures.empty();
        say(fix.result == project_, "changes nothing");
        say(std::any_of(seen_.begin(), seen_.end(), [&](const Project& p) { return p == fix.result; }),
            "is offered twice");
        seen_.push_back(fix.result);
        say(measures != (fix.cost == FixCost::Measure), "says measure and changes, or the other way");
        mended(fix, is);
        if (measures) needless(fix);
        worsened(fix, is);
        currents(fix.result);
        together(fix.result, after.evaluation);
        extremes(fix, after.evaluation);
        inOrder(fix, is);
        return out_;
    }

private:
    void say(bool when, std::string what) {
        if (when) out_.push_back(std::move(what));
    }
    std::pair<int, int> matter() const { return {verdict_.rule, aboutRig(verdict_) ? -1 : verdict_.axis}; }

    void mended(const Fix& fix, const ByMatter& is) {
        const auto it = is.find(matter());
        const State state = it == is.end() ? State::Fine : it->second->state;
        say(state == State::Unknown, "ends in unknown");
        say(verdict_.state == State::Oversized ? state == State::Oversized
                                               : rank(state) >= rank(verdict_.state),
            "does not mend it");
        say(state != fix.stateAfter, "ends in another state than it says");
        const Verdict* after = it == is.end() ? nullptr : it->second;
        say(fix.ratioAfter != (after != nullptr ? after->ratio.valueOr(0.0) : 0.0),
            "ends at another ratio than it says");
        say(fix.lowAfter != (after != nullptr && after->ratio ? after->low : 0.0),
            "ends at another lower end than it says");
    }
    /// Measured is only what is wanted: with the last of it left as it was the verdict is still in doubt.
    void needless(const Fix& fix) {
        Project but = fix.result;
        const auto is = findField(but, fix.measures.back());
        Project before = project_;
        const auto was = findField(before, fix.measures.back());
        if (!is || !was || !std::holds_alternative<Estimate*>(is->target)) return;
        *std::get<Estimate*>(is->target) = *std::get<Estimate*>(was->target);
        const Assessment after = assess(but, {}, Poses::Search, now_.evaluation.known());
        const ByMatter matters = byMatter(after.verdicts);
        const auto it = matters.find(matter());
        say(it == matters.end() || rank(it->second->state) < rank(verdict_.state),
            "measures what need not be");
    }
    void worsened(const Fix& fix, const ByMatter& is) {
        for (const auto& [key, found] : is) {
            const Verdict* v = found; // what a lambda may take along
            if (key == matter()) continue;
            const auto was = before_.find(key);
            const int before = was != before_.end() ? rank(was->second->state) : 0;
            const bool deeper = was != before_.end() && rank(v->state) == before && before > 0 &&
                                was->second->ratio && v->ratio &&
                                v->ratio.value() < 0.97 * was->second->ratio.value();
            if (rank(v->state) <= before && !deeper) continue;
            const bool said =
                std::any_of(fix.sideEffects.begin(), fix.sideEffects.end(), [&](const SideEffect& s) {
                    return s.after.rule == v->rule && (aboutRig(*v) || s.after.axis == v->axis);
                });
            say(!deeper && (v->state == State::Over || v->state == State::AtRisk),
                "puts " + std::string(ruleKey(*v)) + " " + std::string(stateWord(v->state)));
            say(!said, "worsens " + std::string(ruleKey(*v)) + " without saying so");
        }
    }
    void currents(const Project& after) {
        for (std::size_t i = 0; i < after.axes.size(); ++i) {
            const Driver &is = after.axes[i].driver, &was = project_.axes[i].driver;
            if (is == was) continue;
            say(is.holdCurrent > is.runCurrent && was.holdCurrent <= was.runCurrent,
                "holds with more than it runs with");
            say(is.runCurrent > is.maxCurrent && was.runCurrent <= was.maxCurrent,
                "sets more than the driver is rated for");
            if (const auto* m = std::get_if<Stepper>(&after.axes[i].motor))
                say(is.runCurrent > was.runCurrent && is.runCurrent > m->ratedCurrent.value * 1.0001,
                    "sets more than the motor is rated for");
        }
    }
    void together(const Project& after, const Evaluation& evaluation) {
        constexpr double alike = 0.01;
        const auto was = timesOf(project_, now_.evaluation), is = timesOf(after, evaluation);
        for (std::size_t s = 0; s < was.size(); ++s)
            for (const auto& [a, time] : was[s])
                for (const auto& [b, other] : was[s]) {
                    if (!(a < b) || std::abs(time - other) > alike * time || !is[s].contains(a) ||
                        !is[s].contains(b))
                        continue;
                    const double x = is[s].at(a), y = is[s].at(b);
                    say(std::abs(x - y) > 2.0 * alike * std::max(x, y),
                        std::string("lets ").append(a).append(" and ").append(b).append(
                            " of a shot end apart"));
                }
    }
    /// What is hard to live with comes after all others, and says so.
    void extremes(const Fix& fix, const Evaluation& evaluation) {
        const auto was = timesOf(project_, now_.evaluation), is = timesOf(fix.result, evaluation);
        bool extreme = false;
        for (std::size_t s = 0; s < was.size(); ++s) {
            extreme = extreme || longest(is[s]) > 3.001 * longest(was[s]);
            extreme = extreme || (fix.result.shots[s].settle > 10.0 &&
                                  fix.result.shots[s].settle > project_.shots[s].settle);
        }
        const double ballast = fix.result.base.ballast.value, had = project_.base.ballast.value;
        const double own = now_.evaluation.rig.mass.valueOr(1e9) - had;
        extreme = extreme || (ballast > had && (ballast > 30.0 || ballast > own));
        say(extreme && fix.drawback == Drawback::None, "is hard to live with and does not say so");
        say(!extreme && fix.drawback != Drawback::None, "is said to be hard to live with and is not");
        say(!extreme && extreme_, "comes after what is hard to live with");
        extreme_ = extreme_ || extreme;
    }

    /// By cost, then by what it leaves of the verdict, then by what else it worsens.
    void inOrder(const Fix& fix, const ByMatter& is) {
        const auto it = is.find(matter());
        const std::array<int, 3> comes{static_cast<int>(fix.cost),
                                       it == is.end() ? 0 : rank(it->second->state),
                                       static_cast<int>(fix.sideEffects.size())};
        say(comes < last_.second && last_.first == extreme_, "comes after one that costs more or mends less");
        last_ = {extreme_, comes};
    }

    const Project& project_;
    const Assessment& now_;
    const Verdict& verdict_;
    ByMatter before_;
    std::vector<Project> seen_;
    std::vector<std::string> out_;
    bool extreme_ = false;                       ///< the fix that is looked at, or one before it
    std::pair<bool, std::array<int, 3>> last_{}; ///< of the fix before: extreme, and its place in the order
};

} // namespace

bool AuditedVerdict::cured() const {
    return std::any_of(fixes.begin(), fixes.end(), [](const AuditedFix& f) { return f.good(); });
}

std::vector<AuditedVerdict> audit(const Project& project, const parts::Sources& stock,
                                  const std::stop_token& stop) {
    const Assessment now = assess(project);
    std::vector<AuditedVerdict> out;
    for (const Verdict& v : now.verdicts) {
        if (!mendable(v.state) || setAsideFor(project, v) != nullptr) continue;
        if (stop.stop_requested()) break;
        Auditor auditor(project, now, v);
        AuditedVerdict& audited = out.emplace_back();
        audited.verdict = v;
        for (Fix& fix : findFixes(project, now, v, stop, 30, stock)) {
            std::vector<std::string> objections = auditor.objections(fix);
            audited.fixes.push_back({std::move(fix), std::move(objections)});
        }
    }
    return out;
}

} // namespace gantry
