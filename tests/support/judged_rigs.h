// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

/// Rigs that an experienced engineer has judged: tests/data/judged-rigs.json, turned into projects.
namespace judged {

/// Every case of the file.
const std::vector<nlohmann::json>& cases();
const nlohmann::json& caseOf(const std::string& id);

/// The rig of a case, in a variant (0: it has none). Throws if an input of the case meets no field.
gantry::Project rigOf(const nlohmann::json& judgedCase, char variant);

/// Whether a case can be turned into a project yet.
bool canBuild(const std::string& id);

} // namespace judged
