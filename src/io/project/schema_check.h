// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace gantry::io {

/// What is wrong with a document under the project schema, as "place: what and why"; empty if nothing is.
/// List elements are named by their id where they have one.
std::string schemaObjection(const nlohmann::json& document);

} // namespace gantry::io
