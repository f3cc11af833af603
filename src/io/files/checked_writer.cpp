// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/files/checked_writer.h"

#include "core/units/plain_text.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <cerrno>
#include <charconv>
#include <csignal>
#include <filesystem>
#include <sys/stat.h>
#include <system_error>
#include <unistd.h>

namespace gantry::io {
namespace {

namespace fs = std::filesystem;

std::string quoted(const std::string& path) {
    return "“" + units::plainText(path) + "”";
}

/// What a refusal of the system means, and what a person can do about it.
std::string adviceOn(int error) {
    switch (-error) {
    case ENOSPC:
        return "the disk is full. Free some space there, or save elsewhere.";
    case EDQUOT:
        return "your share of the disk is used up. Free some space there, or save elsewhere.";
    case EACCES:
    case EPERM:
        return "you may not create files in this folder. Change its permissions, or save elsewhere.";
    case EROFS:
        return "this disk can only be read. Save elsewhere.";
    case ENOENT:
    case ENOTDIR:
        return "there is no such folder. Make it, or save elsewhere.";
    case ENAMETOOLONG:
        return "the name is too long. Choose a shorter one.";
    case EIO:
        return "the disk reports an error. Save elsewhere, and check the disk.";
    case EFBIG:
        return "the disk takes no file of this size. Save elsewhere.";
    default:
        return std::generic_category().message(-error) + ". Save elsewhere.";
    }
}

/// Names of unfinished files begin alike for one file, whatever process made them.
std::string strayPrefix(const fs::path& target) {
    std::array<char, 16> digits{};
    const auto [end, problem] = std::to_chars(digits.data(), digits.data() + digits.size(),
                                              fingerprintOf(target.filename().string()).digest, 16);
    return "." + std::string(digits.data(), problem == std::errc() ? end : digits.data()) + "-";
}
constexpr std::string_view newEnding = ".saving", oldEnding = ".previous";

std::string strayName(const fs::path& target, std::string_view ending) {
    static std::atomic<unsigned> count{0};
    return (target.parent_path() /
            (strayPrefix(target) + std::to_string(::getpid()) + "-" + std::to_string(++count)))
        .string()
        .append(ending);
}

/// A file that is removed at the end unless it has found its place.
class Unfinished {
public:
    Unfinished(FileCalls& calls, std::string path) : calls_(calls), path_(std::move(path)) {}
    Unfinished(const Unfinished&) = delete;
    Unfinished& operator=(const Unfinished&) = delete;
    ~Unfinished() {
        if (made_) calls_.remove(path_);
    }
    const std::string& path() const { return path_; }
    void made() { made_ = true; }
    void placed() { made_ = false; }

private:
    FileCalls& calls_;
    std::string path_;
    bool made_ = false;
};

int writeAll(FileCalls& calls, int file, std::string_view content) {
    while (!content.empty()) {
        const long n = calls.write(file, content.data(), content.size());
        if (n == -EINTR) continue;
        if (n < 0) return static_cast<int>(n);
        if (n == 0) return -EIO; // a write that takes nothing would never end
        content.remove_prefix(static_cast<std::size_t>(n));
    }
    return 0;
}

/// The content of a file; −errno in `error` if it cannot be read.
std::string readAll(FileCalls& calls, const std::string& path, int& error) {
    std::string content;
    const int file = calls.openToRead(path);
    if (file < 0) {
        error = file;
        return content;
    }
    std::string chunk(64u << 10, '\0');
    for (;;) {
        const long n = calls.read(file, chunk.data(), chunk.size());
        if (n == -EINTR) continue;
        if (n < 0) error = static_cast<int>(n);
        if (n <= 0) break;
        content.append(chunk, 0, static_cast<std::size_t>(n));
    }
    calls.close(file);
    return content;
}

/// Writes a new file and reads it back. Returns 0, −errno, or 1 when what came back was something else.
int writeNew(FileCalls& calls, Unfinished& to, std::string_view content, unsigned mode) {
    const int file = calls.create(to.path(), mode);
    if (file < 0) return file;
    to.made();
    int error = writeAll(calls, file, content);
    if (error == 0) error = calls.sync(file);
    const int closed = calls.close(file);
    if (error == 0) error = closed;
    if (error != 0) return error;
    const std::string back = readAll(calls, to.path(), error);
    if (error != 0) return error;
    return back == content ? 0 : 1;
}

} // namespace

Fingerprint fingerprintOf(std::string_view content) {
    std::uint64_t digest = 14695981039346656037u;
    for (const char c : content) digest = (digest ^ static_cast<unsigned char>(c)) * 1099511628211u;
    return {content.size(), digest};
}

std::string finalPath(const std::string& path) {
    std::error_code ec;
    // weakly_canonical stops at a link that leads nowhere, which a save is to create the target of.
    fs::path at = fs::absolute(path, ec);
    for (int hops = 0; hops < 40 && fs::is_symlink(at, ec); ++hops) {
        const fs::path to = fs::read_symlink(at, ec);
        at = to.is_absolute() ? to : at.parent_path() / to;
    }
    const fs::path found = fs::weakly_canonical(at, ec);
    return ec ? at.string() : found.string();
}

WriteResult writeFile(const WriteRequest& request, FileCalls& calls) {
    WriteResult out;
    const fs::path target = finalPath(request.path);
    const auto fail = [&](const std::string& why) {
        out.sentence =
            quoted(request.path) + " was not saved: " + why + " What was there before is unchanged.";
        return out;
    };
    struct stat before {};
    const bool exists = ::stat(target.c_str(), &before) == 0;
    if (exists && !S_ISREG(before.st_mode))
        return fail(std::string(S_ISDIR(before.st_mode) ? "it is a folder." : "it is not an ordinary file.") +
                    " Choose another name.");
    out.hadOtherNames = exists && before.st_nlink > 1;
    if (request.expected && exists) {
        int error = 0;
        const bool sameSize = static_cast<std::uint64_t>(before.st_size) == request.expected->size;
        const std::string there = sameSize ? readAll(calls, target.string(), error) : std::string();
        if (!sameSize || (error == 0 && fingerprintOf(there) != *request.expected)) {
            out.changedByOthers = true;
            return fail("it was changed by another program.");
        }
    }

    Unfinished fresh(calls, strayName(target, newEnding));
    const unsigned mode = exists ? before.st_mode & 07777u : 0666u;
    if (const int error = writeNew(calls, fresh, request.content, mode); error != 0)
        return fail(
            error > 0
                ? "the disk gave back something else than was written. Save elsewhere, and check the disk."
                : adviceOn(error));
    if (exists) ::chmod(fresh.path().c_str(), mode); // what the umask took away

    // The next backup stands, under a name of its own, before anything else changes. An empty file is no
    // backup of anything.
    Unfinished previous(calls, strayName(target, oldEnding));
    const bool keeps = request.backup && exists && before.st_size > 0;
    if (keeps) {
        int error = calls.link(target.string(), previous.path());
        if (error == 0)
            previous.made();
        else { // a file system without links
            error = 0;
            const std::string there = readAll(calls, target.string(), error);
            if (error == 0) error = writeNew(calls, previous, there, mode);
        }
        if (error != 0)
            return fail("its backup cannot be written: " +
                        (error > 0 ? std::string("the disk gave back something else than was written.")
                                   : adviceOn(error)));
    }

    if (const int error = calls.rename(fresh.path(), target.string()); error < 0)
        return fail(adviceOn(error));
    fresh.placed();
    out.written = true;
    if (keeps) {
        if (const int error = calls.rename(previous.path(), target.string() + "~"); error < 0)
            out.sentence =
                quoted(request.path) +
                " is saved, but the backup “~” could not be renewed and is an older one: " + adviceOn(error);
        else
            previous.placed();
    }
    const int error = calls.syncFolder(target.parent_path().string());
    out.durable = error >= 0;
    if (!out.durable)
        out.sentence = quoted(request.path) +
                       " is written, but the disk does not confirm it, so a power cut could still take it: " +
                       adviceOn(error);
    return out;
}

std::vector<std::string> strayFilesOf(const std::string& path) {
    const fs::path target = finalPath(path);
    const std::string prefix = strayPrefix(target);
    std::vector<std::pair<fs::file_time_type, std::string>> found;
    std::error_code ec;
    for (fs::directory_iterator it(target.parent_path(), ec), end; !ec && it != end; it.increment(ec)) {
        const std::string name = it->path().filename().string();
        if (!name.starts_with(prefix) || !(name.ends_with(newEnding) || name.ends_with(oldEnding))) continue;
        pid_t maker = 0;
        std::from_chars(name.data() + prefix.size(), name.data() + name.size(), maker);
        if (maker > 0 && maker != ::getpid() && ::kill(maker, 0) == 0) continue; // still at work
        if (maker == ::getpid()) continue;
        std::error_code timeError;
        found.emplace_back(it->last_write_time(timeError), it->path().string());
    }
    std::sort(found.rbegin(), found.rend());
    std::vector<std::string> out;
    for (auto& [time, name] : found) out.push_back(std::move(name));
    return out;
}

} // namespace gantry::io
