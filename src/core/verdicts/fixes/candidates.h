// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"

#include <string>
#include <vector>

/// The declared list of changes. A family is a function that adds candidates, gentlest first; the tries stop
/// at the first of a family that mends the verdict.
namespace gantry::fixes {

struct Candidate {
    FixCost cost;
    words::MessageId label;
    words::Arguments arguments{};
    int shot = -1;
    std::vector<std::string> touched; ///< paths of the fields it changes, for locks
    Project result;
};
using Family = std::vector<Candidate>;

/// What families work on.
struct Problem {
    const Project& project;
    const Assessment& now;
    const Verdict& verdict;
    std::span<const parts::Part> shelf{}; ///< what the builder owns

    const Axis& axis() const { return project.axes[static_cast<std::size_t>(verdict.axis)]; }
    const AxisEvaluation& evaluation() const {
        return now.evaluation.axes[static_cast<std::size_t>(verdict.axis)];
    }
    std::string axisPath(std::string_view rest) const {
        return "axes/" + axis().id + "/" + std::string(rest);
    }
    /// The shot the verdict is about, as evaluated; where it is about all of them, the one that pulls
    /// hardest. Null if no shot moves the axis.
    const ShotEvaluation* shot() const;
};

Family outputTeeth(const Problem&); ///< other stock pulley or pinion
Family reduction(const Problem&);   ///< a stock belt stage in front
Family microsteps(const Problem&);
Family shotAcceleration(const Problem&); ///< gentler ramps
Family tunedRamps(const Problem&);       ///< ramps of whole periods of what rocks
Family slowerShot(const Problem&);
Family fasterShot(const Problem&); ///< past a resonance
Family supplyVoltage(const Problem&);
Family runCurrent(const Problem&);
Family holdCurrent(const Problem&); ///< only ever more
Family brake(const Problem&);
Family subjectDistance(const Problem&);
Family controllerPulses(const Problem&);
Family controllerDecimals(const Problem&);
Family
settingsUpToShot(const Problem&); ///< raises the controller's speed and acceleration to what the shot asks

Family bestStandPlaces(const Problem&); ///< of a rail, found by search
Family standsOutwards(const Problem&);  ///< so that the rail does not tip over them
Family stockSection(const Problem&);    ///< of the same outline, and on edge
Family counterweight(const Problem&);   ///< its place or its mass
Family ballast(const Problem&);
Family ballastOnLeg(const Problem&); ///< all of it on the foot where the least does
Family stifferPads(const Problem&);  ///< under the feet
Family clampBolts(const Problem&);
Family widerFeet(const Problem&);
Family lowerColumn(const Problem&);
Family longerSettle(const Problem&); ///< the shot waits
Family slowerSteps(const Problem&);  ///< of an interval or stop-motion shot
Family thickerPin(const Problem&);
Family secondTether(const Problem&);

/// A candidate that sets numeric fields; nothing if one of them is refused.
void addSetting(Family& family, const Problem& p, FixCost cost, words::MessageId label, words::Argument shown,
                int shot, const std::vector<std::pair<std::string, double>>& fields);

/// Rounds to two significant digits in `unit`, towards zero or away from it, as people set things.
double rounded(double value, double unit, bool up);

/// Families to try for a rule; empty if none is declared.
std::vector<Family (*)(const Problem&)> familiesFor(std::string_view ruleKey);

} // namespace gantry::fixes
