// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/solve/crew.h"

namespace gantry::app {

/// A crew of one thread for each processor, the calling one among them: for what somebody waits for.
Crew allProcessors();

} // namespace gantry::app
