// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace gantry::io {

inline constexpr int formatVersion = 2;
inline constexpr std::size_t largestFile = 8u << 20; ///< [bytes]
inline constexpr int deepestNesting = 64;

/// A file that could not be read: one sentence that names the place and says what to do.
struct LoadError {
    std::string sentence;
};

struct LoadedProject {
    Project project;
    std::vector<std::string> notices; ///< "axes/slide/teht_in: kept, not understood"
};

/// Reads the text of a .gantry file. Never throws; refuses what is too large, too deeply nested, not JSON, of
/// a newer version, outside the schema, or inconsistent. Keys that are missing take their marked defaults;
/// unknown keys are kept and listed.
std::variant<LoadedProject, LoadError> readProject(std::string_view text);

/// The text of a .gantry file: UTF-8 JSON with keys in fixed order, ending in a newline.
/// Requires a project whose numbers are finite and whose texts are UTF-8, as all readers and editors keep it;
/// texts that are not are written with replacement characters.
std::string writeProject(const Project& project);

/// Whether the text of a project is within the size that can be read again.
bool fitsAFile(const Project& project);

/// Why a project could not be written and read again, in one sentence; empty if it can. Cheap enough for
/// every edit.
std::string fileObjection(const Project& project);

/// JSON Schema (draft 7) of the project file, generated from the description of the fields.
std::string projectSchema();

} // namespace gantry::io
