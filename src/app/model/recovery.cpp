// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/recovery.h"

#include "app/model/document.h"
#include "app/model/state_folder.h"
#include "core/words/differences.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QLockFile>
#include <QUuid>

namespace gantry::app {
namespace {

/// [ms]. The promise is two seconds, and a busy disk takes the better part of one to confirm a file.
constexpr int writeAfter = 400;
constexpr int tryAgainAfter = 2000;
constexpr std::size_t shownDifferences = 4;

/// The copy is an ordinary project file; where it belongs stands in a second file beside it.
QString pathFile(const QString& copy) {
    return copy + QStringLiteral(".from");
}

/// Writes one file; a sentence if it cannot be written.
QString writeFile(const QString& name, std::string_view content) {
    const io::WriteResult result =
        io::writeFile({QFile::encodeName(name).toStdString(), content, false, std::nullopt});
    return result.written ? QString() : QString::fromStdString(result.sentence);
}

QString pathOf(const QString& copy) {
    QFile from(pathFile(copy));
    return from.open(QIODevice::ReadOnly) ? QString::fromUtf8(from.readAll()) : QString();
}

/// Writes both files; a sentence if there is no copy that can be read again.
QString writeCopy(const QString& file, const Project& project, const QString& path) {
    if (const std::string why = io::fileObjection(project); !why.empty()) return QString::fromStdString(why);
    Recovery::folder(); // made again if it has vanished
    // Every file written waits for the disk, so the one that says the same is left.
    if (!QFile::exists(pathFile(file)) || pathOf(file) != path)
        if (const QString trouble = writeFile(pathFile(file), path.toUtf8().toStdString());
            !trouble.isEmpty())
            return trouble;
    return writeFile(file, io::writeProject(project));
}

void compareWithFile(RecoveredCopy& copy) {
    if (copy.path.isEmpty() || !copy.problem.isEmpty()) return;
    std::string error;
    const auto text = io::readTextFile(QFile::encodeName(copy.path).toStdString(), io::largestFile, error);
    if (!text) return;
    const auto read = io::readProject(*text);
    const auto* there = std::get_if<io::LoadedProject>(&read);
    if (there == nullptr) return;
    copy.fileSaved = QFileInfo(copy.path).lastModified();
    copy.fileIsNewer = copy.fileSaved > copy.written;
    std::size_t total = 0;
    for (const std::string& line :
         words::differences({there->project, "the file"}, {copy.project, "the copy"}, units::System::Metric,
                            shownDifferences, total))
        copy.differences << QString::fromStdString(line);
    copy.moreDifferences = static_cast<qsizetype>(total) - copy.differences.size();
}

} // namespace

QString Recovery::folder() {
    return stateFolder(QStringLiteral("recovery"));
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
    thread_.start();
    timer_.setSingleShot(true);
    timer_.setInterval(writeAfter);
    connect(&timer_, &QTimer::timeout, this, &Recovery::write);
    const auto soon = [this] {
        if (!timer_.isActive()) timer_.start(writeAfter);
    };
    connect(&document_, &Document::changed, this, [this, soon] {
        if (document_.edited()) soon();
    });
    connect(&document_, &Document::fileChanged, this,
            [this, soon] { document_.edited() ? soon() : forget(); });
}

Recovery::~Recovery() {
    forget();
    thread_.quit();
    thread_.wait();
}

void Recovery::write() {
    if (!document_.edited()) return;
    // What a slow disk has not taken yet does not queue up: the newest state follows once it has.
    if (writing_) {
        again_ = true;
        return;
    }
    writing_ = true;
    again_ = false;
    QMetaObject::invokeMethod(writer_,
                              [this, project = document_.project(), path = document_.path(), file = file_] {
                                  const QString trouble = writeCopy(file, project, path);
                                  QMetaObject::invokeMethod(
                                      this, [this, trouble] { report(trouble); }, Qt::QueuedConnection);
                              });
}

void Recovery::report(const QString& trouble) {
    writing_ = false;
    if (again_) write();
    if (!trouble.isEmpty() && document_.edited() && !timer_.isActive()) timer_.start(tryAgainAfter);
    // The window that could not say that it is alive says so once it can.
    if (trouble.isEmpty() && !alive_->isLocked()) alive_->tryLock(0);
    if (trouble == trouble_) return;
    trouble_ = trouble;
    if (!trouble.isEmpty()) qWarning("no recovery copy: %s", qPrintable(trouble));
    emit troubleChanged();
}

void Recovery::writeNow() {
    timer_.stop();
    writing_ = false; // behind one under way, in the writer's turn
    write();
    // The writer works in order, so an empty call that has returned means that the copy is written.
    QMetaObject::invokeMethod(
        writer_, [] {}, Qt::BlockingQueuedConnection);
}

void Recovery::forget() {
    timer_.stop();
    again_ = false;
    // In the writer's own thread and turn, so that a write under way cannot bring the copy back.
    QMetaObject::invokeMethod(writer_, [file = file_] {
        QFile::remove(file);
        QFile::remove(pathFile(file));
    });
    if (trouble_.isEmpty()) return;
    trouble_.clear();
    emit troubleChanged();
}

QList<RecoveredCopy> Recovery::abandoned() {
    QList<RecoveredCopy> out;
    const QDir dir(folder());
    for (const QFileInfo& info : dir.entryInfoList({QStringLiteral("*.gantry")}, QDir::Files, QDir::Time)) {
        QLockFile lock(info.filePath() + QStringLiteral(".lock"));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0) && lock.error() == QLockFile::LockFailedError) continue; // its window is alive
        RecoveredCopy copy;
        copy.file = info.filePath();
        copy.written = info.lastModified();
        copy.path = pathOf(info.filePath());
        std::string error;
        const auto text =
            io::readTextFile(QFile::encodeName(info.filePath()).toStdString(), io::largestFile, error);
        if (!text)
            copy.problem = QString::fromStdString(error);
        else {
            auto read = io::readProject(*text);
            if (auto* loaded = std::get_if<io::LoadedProject>(&read))
                copy.project = std::move(loaded->project);
            else
                copy.problem = QString::fromStdString(std::get<io::LoadError>(read).sentence);
        }
        compareWithFile(copy);
        if (copy.fileSaved.isValid() && copy.differences.isEmpty()) {
            qInfo("the recovery copy of %s says the same as the file and is removed", qPrintable(copy.path));
            discard(copy);
            continue;
        }
        out.push_back(std::move(copy));
    }
    return out;
}

void Recovery::discard(const RecoveredCopy& copy) {
    QFile::remove(copy.file);
    QFile::remove(pathFile(copy.file));
}

} // namespace gantry::app
