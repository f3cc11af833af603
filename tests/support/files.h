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

/// Where a rig lies: one of the demos that ship, or "slide-and-pan", the plain dolly that most tests work on.
std::string rigPath(const std::string& rig = "slide-and-pan");
std::string demoText(const std::string& rig = "slide-and-pan");
gantry::Project demoProject(const std::string& rig = "slide-and-pan");

/// Worked cases of one topic whose inputs have this "kind" (all of them for an empty kind).
std::vector<nlohmann::json> referenceCases(const std::string& topic, const std::string& kind = {});
