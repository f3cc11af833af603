// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

class QMenu;
class QWidget;

namespace gantry::app {

/// Menu of the tools of Structure: compare sections, counterweight chart, error budget, what is stale, and
/// adding or removing rooms, discs, kits.
QMenu* structureTools(const Context& context, QWidget* station);

} // namespace gantry::app
