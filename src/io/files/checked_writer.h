// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/files/file_calls.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::io {

/// What tells one content of a file from another. Not meant against an adversary.
struct Fingerprint {
    std::uint64_t size = 0;
    std::uint64_t digest = 0; ///< FNV-1a, 64 bits

    friend bool operator==(const Fingerprint&, const Fingerprint&) = default;
};
Fingerprint fingerprintOf(std::string_view content);

struct WriteRequest {
    std::string path;         ///< a symbolic link stays, and what it points to is replaced
    std::string_view content; ///< all of the new content
    bool backup = false;      ///< what was there before stays beside it as `path` + "~"
    std::optional<Fingerprint> expected =
        std::nullopt; ///< writes nothing if the file holds anything else by now
};

struct WriteResult {
    bool written = false;         ///< the new content stands at the path
    bool durable = false;         ///< and the system has confirmed that it is on the disk
    bool changedByOthers = false; ///< nothing was written, since the file does not hold what was expected
    std::string sentence;         ///< what went wrong, where, and what to do; empty if nothing did
    bool hadOtherNames = false;   ///< the old file had further names (hard links), which keep the old content

    /// Written, read back equal, and on the disk as far as the system tells.
    explicit operator bool() const { return written && sentence.empty(); }
};

/// The one writer of every file this program writes: into a new file in the same folder, synced, closed and
/// read back; then renamed over the old one, and the folder synced. Until the rename nothing that was there
/// is touched: neither the file nor its backup. Never throws; blocks while the disk works.
WriteResult writeFile(const WriteRequest& request, FileCalls& calls = systemCalls());

/// Files that a save of `path` which was killed has left in its folder, newest first.
std::vector<std::string> strayFilesOf(const std::string& path);

/// Where a path leads in the end: links followed, as far as they lead to something. Stays as it is where the
/// system does not say.
std::string finalPath(const std::string& path);

} // namespace gantry::io
