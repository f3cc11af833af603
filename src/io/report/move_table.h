// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/move/move_frames.h"
#include "io/report/results_json.h"

#include <string>

namespace gantry::io {

/// What evaluate found of a move, by the keys of `calm-gantry-cli results`, with ids of poses and axes.
Json moveResultsJson(const Project& project, const RigMove& move, const MoveResults& results);

/// A move moment by moment, RFC 4180: time_s, of every axis ID_m or ID_deg, its speed and its acceleration,
/// then where the lens' pupil is and looks. One line a frame of the shot, or `rate` times a second where that
/// is > 0.
std::string moveCsv(const Project& project, const RigMove& move, double rate);

/// The same as JSON, in SI units: joint values, and the camera as place and three directions; with the
/// results.
std::string moveJson(const Project& project, const RigMove& move, const MoveResults& results, double rate);

} // namespace gantry::io
