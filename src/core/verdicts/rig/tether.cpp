// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message tetherText{"What hangs overhead needs a second, independent tether that can catch it. "
                             "Local rules and a qualified rigger decide."};

static Finding judgeTether(const RigView& view) {
    if (view.project.base.kind != BaseKind::Overhead || view.project.base.tethered) return std::nullopt;
    Verdict v = found(nullptr, 0.0, tetherText, {});
    v.hazard = true;
    return v;
}

constinit const Rule tether = advising({"Fit a second, independent tether before anybody stands below."},
                                       judging(criteria::tether, {"Second tether"}, judgeTether,
                                               words::listOf<tetherText>, tries<&fixes::secondTether>));

} // namespace gantry::rules
