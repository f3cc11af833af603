// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/files/file_calls.h"

#include <QString>
#include <QStringList>
#include <algorithm>
#include <cerrno>

/// The operating system with faults on order, and a list of what it was asked.
class FaultyCalls : public gantry::io::FileCalls {
public:
    int failAt = -1; ///< the call that fails, counted from 0
    int error = EIO;
    std::size_t room = SIZE_MAX;       ///< [bytes] until the disk is full
    std::size_t mostAtOnce = SIZE_MAX; ///< [bytes] that one write takes
    bool interrupts = false;           ///< every second write and read is interrupted
    bool links = true;
    bool corrupts = false;     ///< what is read is not what was written
    bool leavesStrays = false; ///< nothing is removed, as after a kill

    QStringList names() const { return names_; }
    int count() const { return static_cast<int>(names_.size()); }

    int create(const std::string& path, unsigned mode) override {
        return fails("create") ? -error : FileCalls::create(path, mode);
    }
    int openToRead(const std::string& path) override {
        return fails("openToRead") ? -error : FileCalls::openToRead(path);
    }
    long write(int file, const char* bytes, std::size_t n) override {
        if (interrupts && (turn_ = !turn_)) return -EINTR;
        if (fails("write")) return -error;
        const std::size_t fits = std::min({n, room, mostAtOnce});
        if (fits == 0) return -ENOSPC;
        const long done = FileCalls::write(file, bytes, fits);
        if (done > 0) room -= std::min(room, static_cast<std::size_t>(done));
        return done;
    }
    long read(int file, char* bytes, std::size_t n) override {
        if (interrupts && (turn_ = !turn_)) return -EINTR;
        if (fails("read")) return -error;
        const long done = FileCalls::read(file, bytes, n);
        if (corrupts && done > 0) bytes[0] = static_cast<char>(bytes[0] ^ 1);
        return done;
    }
    int sync(int file) override { return fails("sync") ? -error : FileCalls::sync(file); }
    int close(int file) override {
        const int done = FileCalls::close(file);
        return fails("close") ? -error : done;
    }
    int rename(const std::string& from, const std::string& to) override {
        return fails(to.ends_with("~") ? "rename backup" : "rename new") ? -error
                                                                         : FileCalls::rename(from, to);
    }
    int link(const std::string& from, const std::string& to) override {
        if (!links) return -EPERM;
        return fails("link") ? -error : FileCalls::link(from, to);
    }
    int remove(const std::string& path) override { return leavesStrays ? 0 : FileCalls::remove(path); }
    int syncFolder(const std::string& path) override {
        return fails("syncFolder") ? -error : FileCalls::syncFolder(path);
    }

private:
    bool fails(const char* name) {
        names_ << QString::fromLatin1(name);
        return static_cast<int>(names_.size()) - 1 == failAt;
    }
    QStringList names_;
    bool turn_ = false;
};
