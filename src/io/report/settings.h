// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/ranges.h"

#include <string>
#include <vector>

namespace gantry::io {

/// One number or word to type into a controller. Values are text as controllers want it: points, no units.
struct Setting {
    std::string key;   ///< name in templates and CSV: "steps_per_unit"
    std::string label; ///< for people: "Steps per unit"
    std::string value; ///< "80"; empty where `note` says why there is none
    std::string unit;  ///< "steps/mm"
    std::string note;  ///< anything to know about it
};

struct AxisSettings {
    std::string id, name, kind, unit;
    std::vector<Setting> rows;
};

struct SettingsSheet {
    std::string project, controller;
    std::vector<AxisSettings> axes;
    std::vector<std::string>
        cautions; ///< falling axes and whatever was set aside about them, with the reason
};

/// Everything to type in, in the units that the project's controller wants.
SettingsSheet settingsSheet(const Project& project, const Assessment& assessment);

} // namespace gantry::io
