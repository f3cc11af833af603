// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <memory>

class QLockFile;

namespace gantry::app {

/// One window's claim on a project file. The file is known by where its path leads in the end, so that a
/// symbolic link is the same file, and by its inode, so that a hard link is. The first claim stands beside
/// the file and is seen by other users and machines; the second in the user's state folder. Claims of
/// programs that ended badly do not count.
class FileLock {
public:
    explicit FileLock(const QString& path);
    ~FileLock();

    /// Whether another window has the file open.
    bool heldElsewhere() const { return heldElsewhere_; }

    /// To be called after a save, which gives the file another inode.
    void renew();

private:
    /// Claims one name; false if somebody alive has it. Where no claim can be made nobody has one either.
    static bool claim(std::unique_ptr<QLockFile>& lock, const QString& name);

    QString path_;
    std::unique_ptr<QLockFile> beside_, inode_;
    bool heldElsewhere_ = false;
};

} // namespace gantry::app
