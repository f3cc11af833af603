// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <string>
#include <string_view>
#include <vector>

namespace gantry::evidence {

/// Path of a test that no field takes: the lean [rad] at which the whole rig tips.
inline constexpr std::string_view tipAngle = "base/tip_angle_rad";

/// What the outcome of a workshop test hangs on, as it is now: mass, height, supports, motor and lens of the
/// axis that the tested field belongs to (of all axes for a field of none), places of what an arm carries,
/// and of tests of the base its feet, as `key=value` joined by `;`.
std::string fingerprint(const Project& project, std::string_view path);

/// What has changed since a test was noted, in words ("mass", "lens"); empty while it still holds.
std::vector<std::string> changedSince(const Project& project, const TestRecord& test);

} // namespace gantry::evidence
