// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding tether(const RigView& view) {
    if (view.project.base.kind != BaseKind::Overhead || view.project.base.tethered) return std::nullopt;
    Verdict v = found(nullptr, 0.0, Reason::None, M::TetherText, {});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
