// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding railTipping(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.tippingRatio) return std::nullopt;
    Verdict v = found(nullptr, s.tippingRatio.value(), Reason::None, M::RailTippingText,
                      {{{Kind::Length, s.tippingAt.value()}, {Kind::Ratio, s.tippingRatio.value()}}});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
