// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <nlohmann/json.hpp>

/// Whether every number in a printed evaluation is finite, and every null has its reason beside it or is one
/// of the keys that may be empty.
inline bool everyNumberIsFinite(const nlohmann::json& j, std::string& culprit) {
    if (j.is_object()) {
        for (const auto& [key, value] : j.items()) {
            const bool mayBeEmpty = key == "worst_shot" || key == "steps_per_unit_exact" || key == "shot" ||
                                    key == "oversized_from" || key == "ratio_low";
            if (value.is_null() && !mayBeEmpty && !j.contains(key + "_why")) {
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
