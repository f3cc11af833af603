// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motion/profile.h"

#include <vector>

namespace gantry::simulation {

/// Times [s] of the step pulses with which a controller follows a profile: the n-th is due when the profile
/// has covered (n − ½) steps, and leaves no sooner than 1/ceiling after the one before. Their number is the
/// distance in whole steps, so a train that the ceiling delays ends late, not short.
/// @param step [U] > 0; @param ceiling [Hz] > 0. At most 50 million pulses; more give an empty train.
std::vector<double> pulseTrain(const motion::Profile& profile, double step, double ceiling);

} // namespace gantry::simulation
