// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace gantry::io {

/// Puts a figure under a key: its number in `unit`, or null and the reason under `<key>_why`.
void put(nlohmann::ordered_json& j, const std::string& key, const Figure& f, double unit = 1.0);

/// Puts a null under a key, and why under `<key>_why`.
void putNone(nlohmann::ordered_json& j, const std::string& key, std::string_view why);

/// How a rail or arm gives way, holds and balances; u is "m" or "rad". What has no meaning for an axis is
/// left out.
nlohmann::ordered_json structureJson(const AxisStructure& s, const std::string& u);

/// What gives way, softest first, with its share of the movement.
nlohmann::ordered_json softestJson(const AxisStructure& s);

/// The rig as a whole.
nlohmann::ordered_json rigJson(const Project& project, const RigStructure& rig);

} // namespace gantry::io
