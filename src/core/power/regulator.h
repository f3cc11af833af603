// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::power {

/// Heat [W] of a linear regulator that turns `input` into `output` [V] at `load` [A], with its own
/// `quiescent` current [A]: what does not reach the load. Domain: input ≥ output ≥ 0, currents ≥ 0. Exact.
double regulatorHeat(double input, double output, double load, double quiescent = 0.0);

} // namespace gantry::power
