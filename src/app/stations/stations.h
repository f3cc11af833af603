// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/station.h"

#include <span>

namespace gantry::app {

/// A page that the window offers. Its id stays when names are translated and pages come in between.
struct StationEntry {
    QLatin1StringView id;
    Station* (*make)(const Context& context, QWidget* parent);
};

/// Every station, in the order of the rail. One is added by its folder and its line in stations.cpp.
std::span<const StationEntry> stationEntries();

} // namespace gantry::app
