// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

namespace gantry::app {

/// "at margin ×2: 7.07 kg or 24.7° or …": what the drive of the chosen axis can do.
QString capabilitySentence(const Context& context);

} // namespace gantry::app
