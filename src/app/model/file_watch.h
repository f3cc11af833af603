// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>

namespace gantry::app {

/// Tells, a moment later, that a file may have another content: it or its folder was changed. Goes on after
/// the file was replaced, removed or made anew.
class FileWatch : public QObject {
    Q_OBJECT
public:
    explicit FileWatch(const QString& path, QObject* parent = nullptr);

signals:
    void touched();

private:
    QFileSystemWatcher watcher_;
    QTimer settle_;
};

} // namespace gantry::app
