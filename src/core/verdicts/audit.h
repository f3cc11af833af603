// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"

#include <stop_token>
#include <string>
#include <vector>

namespace gantry {

/// A fix and what a careful reader has to say against it; nothing: it is a good one.
struct AuditedFix {
    Fix fix;
    std::vector<std::string> objections;
    bool good() const { return objections.empty(); }
};

/// A verdict that wants mending and what is offered for it.
struct AuditedVerdict {
    Verdict verdict;
    std::vector<AuditedFix> fixes;
    bool cured() const; ///< whether one at least is good
};

/// What the whole of a project's fixes is worth: every fix of every verdict that is over, at risk or tight
/// and not set aside, applied and assessed anew, from the result alone and by no rule of the search that
/// found it.
///
/// Objected to is a fix that
/// - leaves the verdict where it was, or makes it unknown, or says another state or ratio than it leaves;
/// - changes nothing, or the same as another of the same verdict;
/// - puts another verdict over or at risk, or worsens one without saying so;
/// - sets more current at standstill than in motion, or more than motor or driver are rated for;
/// - lets the movements of a shot that ended together end apart;
/// - is offered before others although it takes three times as long, lets the shot wait for more than 10 s,
/// or
///   takes more ballast than 30 kg or than the rig weighs; or is called so and is not;
/// - costs more than one that is offered after it, or as much and mends or spares less.
std::vector<AuditedVerdict> audit(const Project& project, const parts::Sources& stock,
                                  const std::stop_token& stop = {});

} // namespace gantry
