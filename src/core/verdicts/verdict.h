// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/words/messages.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace gantry {

/// Over: fails as entered. At risk: holds as entered, not at the low end of the tolerances.
enum class State { Over, AtRisk, Tight, Fine, Oversized, Unknown };

/// over < 1 ≤ tight < wanted ≤ fine < oversizedFrom.
struct Bounds {
    double wanted = 1.0;
    double oversizedFrom = 0.0; ///< 0: never oversized
};

/// The state that a ratio of "there over needed" has within bounds, tolerances left aside. Not finite:
/// Unknown.
State stateOf(double ratio, const Bounds& bounds);

/// One judgement about one axis, at its worst shot. Carries ids and quantities; words/ makes the sentence.
struct Verdict {
    int rule = 0;     ///< index in rules::all()
    int axis = 0;     ///< index in Project::axes
    ShotIndex shot;   ///< none: not about a shot
    Figure ratio;     ///< there over needed, nominal
    double low = 0.0; ///< low end of its range; equals the ratio until ranges() has run
    Figure worst = Figure::none(Reason::NotApplicable); ///< everything at its worst, of what can hurt
    /// Paths of the inputs that put it at risk, the larger first; ≤ 2. Of all that holds on an axis only the
    /// verdict nearest to its target has one: what counts most there.
    std::vector<std::string> deciding;
    /// Value of the only deciding input beyond which it no longer holds, all others as entered.
    Figure holdsUntil = Figure::none(Reason::NotApplicable);
    units::Kind holdsUntilKind = units::Kind::Ratio; ///< of that value
    bool holdsBelow = true;                          ///< up to it, not down to it
    bool switches =
        false; ///< within the tolerances another limit or shot binds, so the range is only indicative
    Bounds bounds;
    State state = State::Unknown;
    State ceiling = State::Oversized; ///< a rule may cap its state at Tight (friction is not a brake)
    bool hazard = false;              ///< falling, tipping, overhead: stays visible when set aside
    std::string part;                 ///< what gives way or comes near, for the sentence
    std::string with;                 ///< what it comes near to
    int move = -1; ///< index in Project::moves of the move it is about; −1: about none …
    Figure moment = Figure::none(Reason::NotApplicable); ///< [s] … and when in it
    int plan = -1; ///< index in Project::plans of the plan it is about; −1: about none
    words::Message sentence = words::unknownText;
    words::Arguments arguments{};
};

std::string_view stateWord(State state); ///< as it is said: "at risk"
std::string_view stateKey(State state);  ///< as it is written for programs: "at_risk"

/// The state of a verdict with its ratio, low end, bounds and ceiling.
State stateOf(const Verdict& verdict);

/// Whether something has to be done about it: over, at risk or tight.
bool mendable(State state);

namespace rules {
struct Rule;
}

/// The rule that made it.
const rules::Rule& ruleOf(const Verdict& verdict);

/// Whether a verdict belongs to what is said of an axis: it is about it, or about all of them at once.
bool concerns(const Verdict& verdict, int axis);

/// Key of the verdict's rule: "torque".
std::string_view ruleKey(const Verdict& verdict);
std::string title(const Verdict& verdict);
/// What would have to change, where nothing that can be offered mends it.
std::string advice(const Verdict& verdict);
/// What the rule says, and what the tolerances leave open.
std::string sentence(const Verdict& verdict, const Project& project, units::System system);
std::span<const words::Message> doubtTexts(); ///< what may be said of tolerances, for the catalogue

/// A ratio with as few figures as keep it on its side of 1 and of what is wanted, at least two: "0.997",
/// "1.3".
std::string ratioText(double ratio, const Bounds& bounds, units::System system);

/// Whether the user has set this verdict aside, and why; null if not.
const SetAside* setAsideFor(const Project& project, const Verdict& verdict);

/// Worse states and, within a state, smaller ratios come first.
bool worseThan(const Verdict& a, const Verdict& b);

/// Every verdict about a project, in order of axis and rule, then those about the rig as a whole, each with
/// the axis that it concerns most. Pure; cheap.
std::vector<Verdict> judge(const Project& project, const Evaluation& evaluation);

/// The verdicts about the rig as a whole.
void judgeRig(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& out);

/// The verdicts about one axis.
void judgeAxis(const Project& project, int axisIndex, const AxisEvaluation& evaluation,
               std::vector<Verdict>& out);

} // namespace gantry
