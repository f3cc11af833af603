// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/stations.h"

#include "app/stations/brief/brief_station.h"
#include "app/stations/controller/controller_station.h"
#include "app/stations/drives/drives_station.h"
#include "app/stations/intervals/intervals_station.h"
#include "app/stations/limits/limits_station.h"
#include "app/stations/moves/moves_station.h"
#include "app/stations/structure/structure_station.h"

#include <array>

namespace gantry::app {
namespace {

template <class S>
Station* make(const Context& context, QWidget* parent) {
    return new S(context, parent);
}

constexpr std::array entries{StationEntry{QLatin1StringView("brief"), make<BriefStation>},
                             StationEntry{QLatin1StringView("structure"), make<StructureStation>},
                             StationEntry{QLatin1StringView("drives"), make<DrivesStation>},
                             StationEntry{QLatin1StringView("limits"), make<LimitsStation>},
                             StationEntry{QLatin1StringView("moves"), make<MovesStation>},
                             StationEntry{QLatin1StringView("intervals"), make<IntervalsStation>},
                             StationEntry{QLatin1StringView("controller"), make<ControllerStation>}};

} // namespace

std::span<const StationEntry> stationEntries() {
    return entries;
}

} // namespace gantry::app
