// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/constants.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/fixes/families.h"

#include <array>
#include <type_traits>
#include <utility>
#include <vector>

/// What a family of fixes is made of. Candidates change a copy of the project through its types, so a field
/// that does not exist does not compile; which fields they touched is found by comparing.
namespace gantry::fixes {

using units::Kind;
using words::Message;

struct Candidate {
    FixCost cost;
    Message label;
    words::Arguments arguments{};
    ShotIndex shot; ///< that the label names
    Project result;
    std::string part{};          ///< that the label names, as it is sold
    std::vector<FixStep> more{}; ///< what it takes besides
};
using Candidates = std::vector<Candidate>;

/// What families work on.
struct Problem {
    const Project& project;
    const Assessment& now;
    const Verdict& verdict;
    parts::Sources stock{};

    const Axis& axis() const { return axisIn(project); }
    Axis& axisIn(Project& p) const { return p.axes[static_cast<std::size_t>(verdict.axis)]; }
    const Axis& axisIn(const Project& p) const { return p.axes[static_cast<std::size_t>(verdict.axis)]; }
    const AxisEvaluation& evaluation() const {
        return now.evaluation.axes[static_cast<std::size_t>(verdict.axis)];
    }
    bool linear() const { return evaluation().model.kind == AxisKind::Linear; }
    Kind speedKind() const { return linear() ? Kind::Speed : Kind::AngularSpeed; }
    Kind accelerationKind() const { return linear() ? Kind::Acceleration : Kind::AngularAcceleration; }
    Kind jerkKind() const { return linear() ? Kind::Jerk : Kind::AngularJerk; }
    /// What people set a speed or an acceleration in: a millimetre or a degree.
    double setIn() const { return linear() ? 1e-3 : units::degree; }
    /// The shot the verdict is about, as evaluated; where it is about all of them, the one that pulls
    /// hardest. Null if no shot moves the axis.
    const ShotEvaluation* shot() const;
    /// The same shot as it was entered.
    const Shot& entered(const ShotEvaluation& e) const { return project.shots[e.shot.at()]; }
};

/// A kind of change: its candidates for a problem, gentlest first. The tries stop at the first that mends the
/// verdict.
struct Family {
    std::string_view name;
    std::span<const Message> labels; ///< every one that its candidates may carry
    Candidates (*candidates)(const Problem&);
};

/// Adds a candidate: `change` gets the verdict's axis, its whole project, or with a shot that shot, of a copy
/// of the project. Values that their fields do not take are weeded out before anything is tried.
template <class Change>
void add(Candidates& out, const Problem& p, FixCost cost, Message label, words::Arguments shown,
         Change change, const ShotEvaluation* shot = nullptr) {
    Candidate& c = out.emplace_back(
        Candidate{cost, label, shown, shot != nullptr ? shot->shot : ShotIndex(), p.project});
    if constexpr (std::is_invocable_v<Change, Axis&>)
        change(p.axisIn(c.result));
    else if constexpr (std::is_invocable_v<Change, Shot&>)
        change(c.result.shots[shot->shot.at()]);
    else
        change(c.result);
}

/// Rounds to two significant digits in `unit`, towards zero or away from it, as people set things.
double rounded(double value, double unit, bool up);

} // namespace gantry::fixes
