// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/recovery.h"

#include "app/shell/document.h"
#include "io/project/project_file.h"
#include "io/text_file.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QLockFile>
#include <QSaveFile>
#include <QUuid>

namespace gantry::app {
namespace {

/// The copy is an ordinary project file; where it belongs stands in a second file beside it.
QString pathFile(const QString& copy) {
    return copy + QStringLiteral(".from");
}

void writeFile(const QString& name, const QByteArray& content) {
    QSaveFile file(name);
    if (file.open(QIODevice::WriteOnly) && file.write(content) == content.size())
        file.commit();
    else
        qWarning("recovery copy %s cannot be written: %s", qPrintable(name), qPrintable(file.errorString()));
}

} // namespace

QString Recovery::folder() {
    QString state = qEnvironmentVariable("XDG_STATE_HOME");
    if (state.isEmpty()) state = QDir::homePath() + QStringLiteral("/.local/state");
    const QString folder = state + QStringLiteral("/calm-gantry/recovery");
    QDir().mkpath(folder);
    return folder;
}

Recovery::Recovery(Document& document, QObject* parent)
    : QObject(parent), document_(document), writer_(new QObject) {
    file_ = folder() + QLatin1Char('/') + QUuid::createUuid().toString(QUuid::WithoutBraces) +
            QStringLiteral(".gantry");
    alive_ = std::make_unique<QLockFile>(file_ + QStringLiteral(".lock"));
    alive_->setStaleLockTime(0);
    alive_->tryLock(0);
    writer_->moveToThread(&thread_);
    connect(&thread_, &QThread::finished, writer_, &QObject::deleteLater);
    thread_.setObjectName(QStringLiteral("recovery"));
    thread_.start(QThread::LowPriority);
    timer_.setSingleShot(true);
    timer_.setInterval(1000); // the promise is two seconds
    connect(&timer_, &QTimer::timeout, this, &Recovery::write);
    connect(&document_, &Document::changed, this, [this] {
        if (document_.edited() && !timer_.isActive()) timer_.start();
    });
    connect(&document_, &Document::fileChanged, this, [this] {
        if (!document_.edited())
            forget();
        else if (!timer_.isActive())
            timer_.start();
    });
}

Recovery::~Recovery() {
    forget();
    thread_.quit();
    thread_.wait();
}

void Recovery::write() {
    if (!document_.edited()) return;
    QMetaObject::invokeMethod(writer_,
                              [project = document_.project(), path = document_.path(), file = file_] {
                                  writeFile(pathFile(file), path.toUtf8());
                                  writeFile(file, QByteArray::fromStdString(io::writeProject(project)));
                              });
}

void Recovery::writeNow() {
    timer_.stop();
    write();
    // The writer works in order, so an empty call that has returned means that the copy is written.
    QMetaObject::invokeMethod(
        writer_, [] {}, Qt::BlockingQueuedConnection);
}

void Recovery::forget() {
    timer_.stop();
    // In the writer's own thread and turn, so that a write under way cannot bring the copy back.
    QMetaObject::invokeMethod(writer_, [file = file_] {
        QFile::remove(file);
        QFile::remove(pathFile(file));
    });
}

QList<RecoveredCopy> Recovery::abandoned() {
    QList<RecoveredCopy> out;
    const QDir dir(folder());
    for (const QFileInfo& info : dir.entryInfoList({QStringLiteral("*.gantry")}, QDir::Files, QDir::Time)) {
        QLockFile lock(info.filePath() + QStringLiteral(".lock"));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0)) continue; // its window is alive
        std::string error;
        const auto text = io::readTextFile(info.filePath().toStdString(), io::largestFile, error);
        if (!text) continue;
        auto read = io::readProject(*text);
        if (auto* loaded = std::get_if<io::LoadedProject>(&read)) {
            QFile from(pathFile(info.filePath()));
            const QString path =
                from.open(QIODevice::ReadOnly) ? QString::fromUtf8(from.readAll()) : QString();
            out.push_back({info.filePath(), std::move(loaded->project), path, info.lastModified()});
        }
    }
    return out;
}

void Recovery::discard(const RecoveredCopy& copy) {
    QFile::remove(copy.file);
    QFile::remove(pathFile(copy.file));
}

} // namespace gantry::app
