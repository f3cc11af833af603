// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/files/file_calls.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

/// Earlier versions of a project file, kept beside one another in a folder of their own: the first of each
/// day and the last `lastVersions`, the oldest given up first where they pass `mostVersionBytes`.
inline constexpr std::size_t lastVersions = 10;
inline constexpr std::uintmax_t mostVersionBytes = 64u << 20;

struct Version {
    std::string file;
    std::string stamp; ///< when it was saved: "2026-05-14T09-30-00"
    std::uintmax_t size = 0;
};

/// The folder for one project file, within the folder for all of them.
std::string versionFolder(const std::string& allVersions, const std::string& projectFile);

/// Keeps a text as a version and gives up what is too old. Does nothing where it is the newest one already.
/// Returns a sentence if it cannot be written.
std::string keepVersion(const std::string& folder, std::string_view text, const std::string& stamp,
                        FileCalls& calls = systemCalls());

/// Newest first.
std::vector<Version> versionsIn(const std::string& folder);

} // namespace gantry::io
