// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/file_watch.h"

#include <QFileInfo>

namespace gantry::app {

FileWatch::FileWatch(const QString& path, QObject* parent) : QObject(parent) {
    settle_.setSingleShot(true);
    settle_.setInterval(200); // writers take several steps
    watcher_.addPaths({path, QFileInfo(path).path()});
    const auto look = [this, path] {
        // A file that was replaced is no longer watched.
        if (!watcher_.files().contains(path) && QFileInfo::exists(path)) watcher_.addPath(path);
        settle_.start();
    };
    connect(&watcher_, &QFileSystemWatcher::fileChanged, this, look);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, look);
    connect(&settle_, &QTimer::timeout, this, &FileWatch::touched);
}

} // namespace gantry::app
