// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/state_folder.h"

#include <QDir>
#include <pwd.h>
#include <sys/stat.h>
#include <unistd.h>

namespace gantry::app {
namespace {

QString homeState() {
    if (const QString state = qEnvironmentVariable("XDG_STATE_HOME"); QDir::isAbsolutePath(state))
        return state;
    QString home = qEnvironmentVariable("HOME");
    if (!QDir::isAbsolutePath(home))
        if (const passwd* account = ::getpwuid(::getuid())) home = QString::fromLocal8Bit(account->pw_dir);
    if (QDir::isAbsolutePath(home) && QDir(home).exists()) return home + QStringLiteral("/.local/state");
    // Among everybody's temporary files only a folder of this user's own will do.
    const QString own = QDir::tempPath() + QStringLiteral("/calm-gantry-%1").arg(::getuid());
    ::mkdir(own.toLocal8Bit().constData(), 0700);
    return own;
}

} // namespace

QString stateFolder() {
    const QString folder = homeState() + QStringLiteral("/calm-gantry");
    QDir().mkpath(folder);
    return folder;
}

QString stateFolder(const QString& name) {
    const QString folder = stateFolder() + QLatin1Char('/') + name;
    QDir().mkpath(folder);
    return folder;
}

} // namespace gantry::app
