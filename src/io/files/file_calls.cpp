// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/files/file_calls.h"

#include <cerrno>
#include <cstdio>
#include <fcntl.h>
#include <unistd.h>

namespace gantry::io {
namespace {

template <class Result>
Result orError(Result result) {
    return result < 0 ? static_cast<Result>(-errno) : result;
}

} // namespace

int FileCalls::create(const std::string& path, unsigned mode) {
    return orError(::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, mode));
}
int FileCalls::openToRead(const std::string& path) {
    return orError(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
}
long FileCalls::write(int file, const char* bytes, std::size_t count) {
    return orError(::write(file, bytes, count));
}
long FileCalls::read(int file, char* bytes, std::size_t count) {
    return orError(::read(file, bytes, count));
}
int FileCalls::sync(int file) {
    return orError(::fsync(file));
}
int FileCalls::close(int file) {
    return orError(::close(file));
}
int FileCalls::rename(const std::string& from, const std::string& to) {
    return orError(std::rename(from.c_str(), to.c_str()));
}
int FileCalls::link(const std::string& from, const std::string& to) {
    return orError(::link(from.c_str(), to.c_str()));
}
int FileCalls::remove(const std::string& path) {
    return orError(::unlink(path.c_str()));
}
int FileCalls::syncFolder(const std::string& path) {
    const int folder = orError(::open(path.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (folder < 0) return folder;
    int result = orError(::fsync(folder));
    if (result == -EINVAL) result = 0; // a file system whose folders have nothing to sync
    ::close(folder);
    return result;
}

FileCalls& systemCalls() {
    static FileCalls calls;
    return calls;
}

} // namespace gantry::io
