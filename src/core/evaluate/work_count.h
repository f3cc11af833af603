// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>

namespace gantry {

/// Counts evaluations that other threads made for this one to what axisEvaluations() says of it.
void addAxisEvaluations(std::uint64_t made);

} // namespace gantry
