// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

/// Where a file of the source tree, or of its data folder, lies.
std::string sourcePath(const std::string& relative);
std::string dataPath(const std::string& relative);

std::string textOfFile(const std::string& path);

/// One of the demo rigs that ship.
std::string demoText(const std::string& rig = "fernhouse-dolly");
gantry::Project demoProject(const std::string& rig = "fernhouse-dolly");

/// Worked cases of one topic whose inputs have this "kind" (all of them for an empty kind).
std::vector<nlohmann::json> referenceCases(const std::string& topic, const std::string& kind = {});
