// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <nlohmann/json.hpp>

/// Whether every number in a printed evaluation is finite, and every null has its reason beside it.
inline bool everyNumberIsFinite(const nlohmann::json& j, std::string& culprit) {
    if (j.is_object()) {
        for (const auto& [key, value] : j.items()) {
            if (value.is_null() && !j.contains(key + "_why")) {
                culprit = key;
                return false;
            }
            if (!everyNumberIsFinite(value, culprit)) return false;
        }
    } else if (j.is_array()) {
        for (const auto& value : j)
            if (!everyNumberIsFinite(value, culprit)) return false;
    } else if (j.is_number_float() && !std::isfinite(j.get<double>())) {
        culprit = "not finite";
        return false;
    }
    return true;
}
