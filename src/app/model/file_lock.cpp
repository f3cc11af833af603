// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/file_lock.h"

#include "app/model/state_folder.h"
#include "io/files/checked_writer.h"

#include <QFile>
#include <QLockFile>
#include <sys/stat.h>

namespace gantry::app {

FileLock::FileLock(const QString& path)
    : path_(QString::fromStdString(io::finalPath(QFile::encodeName(path).toStdString()))) {
    heldElsewhere_ = !claim(beside_, path_ + QStringLiteral(".lock"));
    renew();
}

FileLock::~FileLock() = default;

void FileLock::renew() {
    struct stat info {};
    if (::stat(QFile::encodeName(path_).constData(), &info) != 0) return;
    std::unique_ptr<QLockFile> next;
    const QString name = stateFolder(QStringLiteral("locks")) +
                         QStringLiteral("/%1-%2.lock").arg(quint64(info.st_dev)).arg(quint64(info.st_ino));
    if (inode_ != nullptr && inode_->fileName() == name) return;
    if (!claim(next, name)) heldElsewhere_ = true;
    inode_ = std::move(next);
}

bool FileLock::claim(std::unique_ptr<QLockFile>& lock, const QString& name) {
    lock = std::make_unique<QLockFile>(name);
    lock->setStaleLockTime(0);
    return lock->tryLock(0) || lock->error() != QLockFile::LockFailedError;
}

} // namespace gantry::app
