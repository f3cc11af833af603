// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/estimate.h"

namespace gantry {

/// Tolerance [1] that a value of a field starts with: what its source usually has, and for a length [m] that
/// was measured with a steel rule 0.5 mm and a thousandth of it.
double usualTolerance(const FieldInfo& info, Source source, double value);

/// An estimate as a field starts it.
Estimate estimateFor(const FieldInfo& info, Source source, double value);

/// Where the value of an uncertain input may lie: within its tolerance, within what its field takes (a share
/// ends at 1), and never below a tenth of what is entered. Both ends are the value where nothing is
/// uncertain.
struct Ends {
    double low = 0.0, high = 0.0;
};
Ends endsOf(const FieldInfo& info, const Estimate& input);

/// An uncertain input of a given Project, with what its field says of it. The pointer lives as long as the
/// Project is neither moved nor changed in shape.
struct UncertainInput {
    Estimate* estimate = nullptr;
    FieldInfo info;
    /// Another that moves with it in proportion, and besides within its own tolerance: break-away friction
    /// comes from the same contacts as running friction, so how much larger it is is known better than
    /// either. Null: none.
    Estimate* follower = nullptr;
};

} // namespace gantry
