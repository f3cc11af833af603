// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/project/versions.h"

#include "io/files/checked_writer.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <filesystem>
#include <set>

namespace gantry::io {
namespace {

namespace fs = std::filesystem;
constexpr std::size_t dayLetters = 10; // of "2026-05-14T…"

/// What is given up: all but the last ones and the first of each day; of these the oldest beyond the size.
std::vector<Version> givenUp(const std::vector<Version>& newestFirst) {
    std::set<std::size_t> kept;
    for (std::size_t i = 0; i < newestFirst.size(); ++i) {
        const bool firstOfDay =
            i + 1 == newestFirst.size() ||
            newestFirst[i + 1].stamp.substr(0, dayLetters) != newestFirst[i].stamp.substr(0, dayLetters);
        if (i < lastVersions || firstOfDay) kept.insert(i);
    }
    std::vector<Version> out;
    std::uintmax_t bytes = 0;
    for (std::size_t i = 0; i < newestFirst.size(); ++i) {
        if (kept.contains(i)) bytes += newestFirst[i].size;
        if (!kept.contains(i) || (bytes > mostVersionBytes && i > 0)) out.push_back(newestFirst[i]);
    }
    return out;
}

} // namespace

std::string versionFolder(const std::string& allVersions, const std::string& projectFile) {
    const std::string path = finalPath(projectFile);
    std::array<char, 16> digits{};
    const auto [end, problem] =
        std::to_chars(digits.data(), digits.data() + digits.size(), fingerprintOf(path).digest, 16);
    const std::string name = fs::path(path).stem().string().substr(0, 40);
    return allVersions + "/" + name + "-" +
           std::string(digits.data(), problem == std::errc() ? end : digits.data());
}

std::string keepVersion(const std::string& folder, std::string_view text, const std::string& stamp,
                        FileCalls& calls) {
    std::error_code ec;
    fs::create_directories(folder, ec);
    std::vector<Version> all = versionsIn(folder);
    if (!all.empty() && all.front().size == text.size()) {
        std::string error;
        const auto newest = readTextFile(all.front().file, largestFile, error);
        if (newest && *newest == text) return {};
    }
    std::string file = folder + "/" + stamp + ".gantry";
    for (int n = 2; fs::exists(file, ec) && n < 1000; ++n)
        file = folder + "/" + stamp + "." + std::to_string(n) + ".gantry"; // twice in one second
    const WriteResult result = writeFile({file, text, false, std::nullopt}, calls);
    if (!result.written) return "No earlier version was kept: " + result.sentence;
    for (const Version& v : givenUp(versionsIn(folder))) fs::remove(v.file, ec);
    return {};
}

std::vector<Version> versionsIn(const std::string& folder) {
    std::vector<Version> out;
    std::error_code ec;
    for (fs::directory_iterator it(folder, ec), end; !ec && it != end; it.increment(ec)) {
        if (it->path().extension() != ".gantry") continue;
        std::error_code sizeError;
        out.push_back({it->path().string(), it->path().stem().string(), it->file_size(sizeError)});
    }
    std::sort(out.begin(), out.end(), [](const Version& a, const Version& b) { return a.stamp > b.stamp; });
    return out;
}

} // namespace gantry::io
