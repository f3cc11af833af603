// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <string>

namespace gantry::io {

/// The calls to the operating system that writing a file consists of (POSIX.1-2017), so that a test can let
/// each of them fail and can watch their order. Every call returns what the system returns, or −errno.
class FileCalls {
public:
    FileCalls() = default;
    FileCalls(const FileCalls&) = delete;
    FileCalls& operator=(const FileCalls&) = delete;
    virtual ~FileCalls() = default;

    virtual int create(const std::string& path,
                       unsigned mode); ///< a new file to write; −EEXIST if it is there
    virtual int openToRead(const std::string& path);
    virtual long write(int file, const char* bytes, std::size_t count); ///< may write less than `count`
    virtual long read(int file, char* bytes, std::size_t count);        ///< 0 at the end
    virtual int sync(int file);
    virtual int close(int file);
    virtual int rename(const std::string& from, const std::string& to);
    virtual int link(const std::string& from, const std::string& to);
    virtual int remove(const std::string& path);
    virtual int syncFolder(const std::string& path);
};

/// The operating system itself.
FileCalls& systemCalls();

} // namespace gantry::io
