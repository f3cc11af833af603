// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/log.h"

#include "app/model/state_folder.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QMutex>
#include <cstdio>

namespace gantry::app {
namespace {

constexpr qint64 largest = 1 << 20;

QString logPath() {
    return QDir(stateFolder()).absoluteFilePath(QStringLiteral("calm-gantry.log"));
}

void write(QtMsgType type, const QMessageLogContext& context, const QString& message) {
    static QMutex mutex;
    const QMutexLocker lock(&mutex);
    const char* level = type == QtDebugMsg     ? "debug"
                        : type == QtInfoMsg    ? "info"
                        : type == QtWarningMsg ? "warning"
                                               : "error";
    const QByteArray line =
        QStringLiteral("%1 %2 [%3] %4\n")
            .arg(QDateTime::currentDateTime().toString(Qt::ISODateWithMs), QLatin1String(level),
                 QLatin1String(context.category ? context.category : "default"), message)
            .toUtf8();
    QFile file(logPath());
    if (file.size() > largest) {
        QFile::remove(logPath() + QStringLiteral(".1"));
        file.rename(logPath() + QStringLiteral(".1"));
        file.setFileName(logPath());
    }
    if (file.open(QIODevice::Append)) file.write(line);
    if (type != QtDebugMsg && type != QtInfoMsg) std::fputs(line.constData(), stderr);
}

} // namespace

void startLog() {
    qInstallMessageHandler(write);
}

} // namespace gantry::app
