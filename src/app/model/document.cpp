// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/document.h"

#include "app/model/file_lock.h"
#include "app/model/file_watch.h"
#include "app/model/state_folder.h"
#include "core/evaluate/pose_search.h"
#include "core/evaluate/setup_of.h"
#include "core/model/acceptable.h"
#include "core/model/retired_ids.h"
#include "core/units/plain_text.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "io/project/versions.h"

#include <QEventLoop>
#include <QFile>
#include <QFileInfo>

namespace gantry::app {
namespace {

std::string encoded(const QString& path) {
    return QFile::encodeName(path).toStdString();
}

struct ReadFile {
    std::string text;
    io::LoadedProject loaded;
};

/// A project file; nothing, with a sentence in `error`, if it cannot be read.
std::optional<ReadFile> readFile(const QString& path, QString& error) {
    std::string why;
    auto text = io::readTextFile(encoded(path), io::largestFile, why);
    if (!text) {
        error = QString::fromStdString(why);
        return std::nullopt;
    }
    auto result = io::readProject(*text);
    if (const auto* problem = std::get_if<io::LoadError>(&result)) {
        error = QString::fromStdString(problem->sentence);
        return std::nullopt;
    }
    return ReadFile{std::move(*text), std::move(std::get<io::LoadedProject>(result))};
}

QString stampNow() {
    return QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH-mm-ss"));
}

} // namespace

struct Document::SaveJob {
    Project project;
    QString path;
    quint64 state;
    std::optional<io::Fingerprint> expected;
    std::string versions, stamp;
    io::FileCalls* calls;
};

struct Document::SaveResult {
    SaveOutcome outcome;
    quint64 state = 0;
    bool replaced = false; ///< the file has the new content, whether or not the disk confirms it
    io::Fingerprint written;
};

Document::Document(QObject* parent)
    : QObject(parent), history_(project_, [this](Project next) { set(std::move(next)); }) {
    saver_.setMaxThreadCount(1);
    searcher_.setMaxThreadCount(1);
    searchTimer_.setSingleShot(true);
    searchTimer_.setInterval(120); // while a handle is dragged nothing is looked through in vain
    connect(&searchTimer_, &QTimer::timeout, this, &Document::searchPoses);
    connect(&history_, &EditHistory::cleanChanged, this, &Document::fileChanged);
    results_.renew();
}

Document::~Document() {
    saver_.waitForDone(); // a save under way is finished
    searcher_.waitForDone();
    history_.disconnect(this);
}

void Document::edit(const QString& name, Project next, const QString& mergeKey) {
    if (readOnly_ || next == project_) return;
    settle(next);
    settleRemoved(project_, next);
    if (next == project_) return;
    if (const std::string why = io::fileObjection(next); !why.empty()) {
        emit refused(tr("Not taken: %1").arg(QString::fromStdString(units::plainSentence(why))));
        return;
    }
    history_.push(name, std::move(next), mergeKey);
}

void Document::apply(const QString& name, const Fix& fix) {
    computed_.emplace(fix.result, fix.after);
    edit(name, fix.result);
    computed_.reset();
}

void Document::change(const QString& name, const std::function<void(Project&)>& how,
                      const QString& mergeKey) {
    Project next = project_;
    how(next);
    edit(name, std::move(next), mergeKey);
}

void Document::set(Project project) {
    project_ = std::move(project);
    if (computed_ && computed_->first == project_)
        results_.renew(std::move(computed_->second));
    else
        results_.renew();
    computed_.reset();
    ++revision_;
    emit changed();
    if (results_.wantsPoses())
        searchTimer_.start();
    else
        searchTimer_.stop();
}

/// Looks through all poses beside the window; what it finds is shown if the project is still the same.
void Document::searchPoses() {
    searcher_.clear(); // of what is no longer there
    searcher_.start([this, project = project_, revision = revision_] {
        auto found = gantry::searchPoses(setupWithMoves(project));
        QMetaObject::invokeMethod(
            this,
            [this, found = std::move(found), revision] {
                if (revision != revision_) return;
                results_.takePoses(found);
                emit changed();
            },
            Qt::QueuedConnection);
    });
}

void Document::newProject(Project project) {
    saver_.waitForDone(); // what was to be saved still is; how it ended concerns nobody here
    ++saveTicket_;
    saving_ = false;
    saveAgain_ = nullptr;
    lock_.reset();
    watch_.reset();
    onDisk_.reset();
    path_.clear();
    savedAt_ = changedOnDiskAt_ = {};
    readOnly_ = recovered_ = false;
    project_ = {}; // what comes is no edit of what was
    history_.clear();
    set(std::move(project));
    emit fileChanged();
}

void Document::takeFile(const QString& path) {
    path_ = QFileInfo(path).absoluteFilePath();
    if (nextLock_ != nullptr)
        lock_ = std::move(nextLock_);
    else {
        lock_.reset(); // before it is asked for again
        lock_ = std::make_unique<FileLock>(path_);
    }
    readOnly_ = lock_->heldElsewhere();
    changedOnDiskAt_ = {};
    watch_ = std::make_unique<FileWatch>(QString::fromStdString(io::finalPath(encoded(path_))));
    connect(watch_.get(), &FileWatch::touched, this, &Document::lookAtDisk);
}

bool Document::open(const QString& path, QString& error, QStringList& notices) {
    auto file = readFile(path, error);
    if (!file) return false;
    auto& [text, loaded] = *file;
    for (const std::string& n : loaded.notices) notices << QString::fromStdString(n);
    newProject(std::move(loaded.project));
    takeFile(path);
    onDisk_ = io::fingerprintOf(text);
    savedAt_ = QFileInfo(path_).lastModified();
    // What a save that was killed left behind is kept as an earlier version if it can be read, and removed.
    if (!readOnly_)
        for (const std::string& stray : io::strayFilesOf(encoded(path_))) {
            std::string unread;
            const auto left = io::readTextFile(stray, io::largestFile, unread);
            if (left && *left != text && std::holds_alternative<io::LoadedProject>(io::readProject(*left))) {
                const std::string when = QFileInfo(QString::fromStdString(stray))
                                             .lastModified()
                                             .toString(QStringLiteral("yyyy-MM-ddTHH-mm-ss"))
                                             .toStdString();
                if (!io::keepVersion(versionFolder().toStdString(), *left, when).empty()) continue;
                notices << tr(
                    "A save that did not finish left a copy; it is under “Restore an earlier version…”");
            }
            QFile::remove(QString::fromStdString(stray));
        }
    emit fileChanged();
    return true;
}

void Document::startSave(const QString& path, bool overwrite) {
    if (saving_) {
        saveAgain_ = [this, path, overwrite] { startSave(path, overwrite); };
        return;
    }
    const auto refuse = [&](const QString& sentence) { emit saveEnded({false, false, path, sentence}); };
    const bool same = QFileInfo(path).absoluteFilePath() == path_;
    if (readOnly_ && same)
        return refuse(
            tr("“%1” is open in another window. Close it there, or save under another name.").arg(path));
    if (!same) {
        // The same file under another name is still this window's own.
        const bool own =
            !path_.isEmpty() && !readOnly_ && io::finalPath(encoded(path)) == io::finalPath(encoded(path_));
        nextLock_.reset();
        if (!own) nextLock_ = std::make_unique<FileLock>(path);
        if (nextLock_ != nullptr && nextLock_->heldElsewhere()) {
            nextLock_.reset();
            return refuse(
                tr("“%1” is open in another window. Close it there, or choose another name.").arg(path));
        }
    }
    saving_ = true;
    SaveJob job{project_,
                path,
                history_.state(),
                same && !overwrite ? onDisk_ : std::nullopt,
                io::versionFolder(stateFolder(QStringLiteral("versions")).toStdString(), encoded(path)),
                stampNow().toStdString(),
                calls_};
    saver_.start([this, job = std::move(job), ticket = saveTicket_] {
        SaveResult result = carryOut(job);
        QMetaObject::invokeMethod(
            this,
            [this, ticket, result = std::move(result)] {
                if (ticket == saveTicket_) endSave(result); // else the project was left meanwhile
            },
            Qt::QueuedConnection);
    });
}

Document::SaveResult Document::carryOut(const SaveJob& job) {
    SaveResult out;
    out.state = job.state;
    out.outcome.path = job.path;
    const std::string text = io::writeProject(job.project), path = encoded(job.path);
    out.written = io::fingerprintOf(text);
    // What would not open again is not called saved.
    const auto back = io::readProject(text);
    const auto* loaded = std::get_if<io::LoadedProject>(&back);
    if (loaded == nullptr || loaded->project != job.project) {
        out.outcome.sentence =
            tr("“%1” was not saved, since it would not open as it is: %2 The file on disk is unchanged.")
                .arg(job.path, loaded == nullptr
                                   ? QString::fromStdString(std::get<io::LoadError>(back).sentence)
                                   : tr("something in it is lost on the way."));
        return out;
    }
    // What somebody else wrote and is written over on purpose stays as a version.
    std::string unread;
    const auto before = job.expected ? std::nullopt : io::readTextFile(path, io::largestFile, unread);
    const io::WriteResult written = io::writeFile({path, text, true, job.expected}, *job.calls);
    out.outcome.saved = written.durable;
    out.replaced = written.written;
    out.outcome.changedByOthers = written.changedByOthers;
    out.outcome.sentence = QString::fromStdString(written.sentence);
    if (!written.written) return out;
    const auto note = [&](const QString& sentence) {
        out.outcome.sentence += (out.outcome.sentence.isEmpty() ? QString() : QStringLiteral(" ")) + sentence;
    };
    if (written.hadOtherNames)
        note(
            tr("Saved. The file had a second name on this disk (a hard link), which keeps the old content."));
    if (before && !before->empty()) {
        // Of two with one stamp the one that is kept later counts as the newer.
        const std::string trouble = io::keepVersion(job.versions, *before, job.stamp);
        if (!trouble.empty()) note(QString::fromStdString(trouble));
    }
    if (const std::string trouble = io::keepVersion(job.versions, text, job.stamp); !trouble.empty())
        note(QString::fromStdString(trouble));
    return out;
}

void Document::endSave(const SaveResult& result) {
    saving_ = false;
    const SaveOutcome& outcome = result.outcome;
    if (result.replaced) {
        if (QFileInfo(outcome.path).absoluteFilePath() != path_) takeFile(outcome.path);
        if (lock_ != nullptr) lock_->renew(); // the file has another inode now
        onDisk_ = result.written;
        changedOnDiskAt_ = {};
    }
    if (outcome.saved) {
        savedAt_ = QDateTime::currentDateTime();
        recovered_ = false;
        history_.setClean(result.state);
    }
    nextLock_.reset();
    emit fileChanged();
    emit saveEnded(outcome);
    if (const auto again = std::exchange(saveAgain_, nullptr)) again();
}

void Document::waitForSave() {
    while (saving_) {
        QEventLoop loop;
        connect(this, &Document::saveEnded, &loop, &QEventLoop::quit);
        loop.exec(QEventLoop::ExcludeUserInputEvents);
    }
}

SaveOutcome Document::saveAndWait(const QString& path, bool overwrite) {
    SaveOutcome end;
    QEventLoop loop;
    bool ended = false;
    waitForSave(); // for one that was begun before
    const auto connection = connect(this, &Document::saveEnded, &loop, [&](const SaveOutcome& outcome) {
        end = outcome;
        ended = true;
        loop.quit();
    });
    startSave(path, overwrite);
    if (!ended) loop.exec(QEventLoop::ExcludeUserInputEvents);
    disconnect(connection);
    return end;
}

bool Document::save(QString& error) {
    return saveAs(path_, error);
}

bool Document::saveAs(const QString& path, QString& error) {
    const SaveOutcome end = saveAndWait(path);
    error = end.sentence;
    return end.saved;
}

void Document::recover(Project project, const QString& path) {
    newProject(std::move(project));
    if (!path.isEmpty()) {
        takeFile(path);
        std::string unread;
        if (const auto text = io::readTextFile(encoded(path), io::largestFile, unread))
            onDisk_ = io::fingerprintOf(*text);
    }
    recovered_ = true;
    emit fileChanged();
}

QString Document::displayName() const {
    if (!project_.name.empty()) return QString::fromStdString(project_.name);
    return path_.isEmpty() ? tr("Untitled") : QFileInfo(path_).completeBaseName();
}

QString Document::versionFolder() const {
    if (path_.isEmpty()) return {};
    return QString::fromStdString(
        io::versionFolder(stateFolder(QStringLiteral("versions")).toStdString(), encoded(path_)));
}

void Document::lookAtDisk() {
    if (saving_ || path_.isEmpty() || !onDisk_) return;
    std::string unread;
    const auto text = io::readTextFile(encoded(path_), io::largestFile, unread);
    QDateTime at;
    if (!text || io::fingerprintOf(*text) != *onDisk_)
        at = QFile::exists(path_) ? QFileInfo(path_).lastModified() : QDateTime::currentDateTime();
    if (at.isValid() == changedOnDiskAt_.isValid()) return;
    changedOnDiskAt_ = at;
    emit fileChanged();
}

bool Document::takeFromDisk(QString& error) {
    auto file = readFile(path_, error);
    if (!file) return false;
    edit(tr("Load what is on disk"), file->loaded.project);
    onDisk_ = io::fingerprintOf(file->text);
    savedAt_ = QFileInfo(path_).lastModified();
    changedOnDiskAt_ = {};
    // Ids that were retired here are not forgotten; then what is open is more than the file holds.
    if (project_ == file->loaded.project) {
        recovered_ = false;
        history_.setClean();
    }
    emit fileChanged();
    return true;
}

} // namespace gantry::app
