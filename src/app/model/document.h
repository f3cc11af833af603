// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/model/edit_history.h"
#include "app/model/results.h"
#include "core/verdicts/fix.h"
#include "io/files/checked_writer.h"

#include <QDateTime>
#include <QObject>
#include <QString>
#include <QThreadPool>
#include <QTimer>
#include <functional>
#include <memory>
#include <optional>

namespace gantry::app {

class FileLock;
class FileWatch;

/// How a save ended. `saved` with a sentence means that the file is written but something beside it is not.
struct SaveOutcome {
    bool saved = false;
    bool changedByOthers = false; ///< nothing was written, since somebody else changed the file
    QString path;
    QString sentence; ///< what went wrong or should be known; empty if nothing
};

/// The open project: its value, its assessment, undo, its file. Every edit goes through `edit` and recomputes
/// all. Saving runs in a worker thread; edits go on meanwhile.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    const Project& project() const { return project_; }
    const Assessment& assessment() const { return results_.assessment(); }
    /// All that is computed of the project as it is now.
    const Results& results() const { return results_; }
    /// Grows with every change; results of background work carry the revision they belong to.
    quint64 revision() const { return revision_; }

    /// Replaces the project as one undoable step. Steps with the same non-empty merge key that follow each
    /// other become one. Nothing happens if the project is unchanged or read-only; what could not be read
    /// from a file again is refused.
    void edit(const QString& name, Project next, const QString& mergeKey = {});
    /// The same for a fix: what trying it has computed is not computed again.
    void apply(const QString& name, const Fix& fix);
    /// Changes a copy and applies it.
    void change(const QString& name, const std::function<void(Project&)>& how, const QString& mergeKey = {});

    EditHistory* undoStack() { return &history_; }

    /// Empty project without a file; forgets undo.
    void newProject(Project project);
    /// Opens a file; on failure the document stays and `error` says why. A file that somebody else has open
    /// is opened read-only.
    bool open(const QString& path, QString& error, QStringList& notices);
    /// Continues a recovered project: edited, with the file it came from, if any.
    void recover(Project project, const QString& path);

    /// Begins to save; `saveEnded` says how it went. One save at a time: another one begins when it has
    /// ended.
    /// @param overwrite also what somebody else has written since this window last read or wrote the file
    void startSave(const QString& path, bool overwrite = false);
    bool saving() const { return saving_; }
    /// Waits for the save under way while the window goes on painting.
    void waitForSave();
    /// Saves and waits in the same way.
    SaveOutcome saveAndWait(const QString& path, bool overwrite = false);
    bool save(QString& error);
    bool saveAs(const QString& path, QString& error);

    QString path() const { return path_; }
    QString displayName() const;
    bool edited() const { return !history_.isClean() || recovered_; }
    bool readOnly() const { return readOnly_; }
    QDateTime savedAt() const { return savedAt_; }
    /// When somebody else changed the file, as far as it was seen; invalid if nobody did.
    QDateTime changedOnDiskAt() const { return changedOnDiskAt_; }
    /// Folder with the earlier versions of the open file; empty if there is none.
    QString versionFolder() const;
    /// Reads what is on disk now as one undoable edit.
    bool takeFromDisk(QString& error);

    /// For tests: the calls that saving goes through.
    void setFileCalls(io::FileCalls& calls) { calls_ = &calls; }

signals:
    void changed();                        ///< project and assessment are new
    void fileChanged();                    ///< path, edited, saved time or what is on disk are new
    void refused(const QString& sentence); ///< an edit was not taken
    void saveEnded(const gantry::app::SaveOutcome& outcome);

private:
    struct SaveJob;
    struct SaveResult;
    void set(Project project);
    void searchPoses();
    void takeFile(const QString& path);
    static SaveResult carryOut(const SaveJob& job);
    void endSave(const SaveResult& result);
    void lookAtDisk();

    Project project_;
    Results results_{project_};
    std::optional<std::pair<Project, Assessment>> computed_; ///< of the project that an edit leads to
    EditHistory history_;
    QString path_;
    QDateTime savedAt_, changedOnDiskAt_;
    std::unique_ptr<FileLock> lock_, nextLock_;
    std::unique_ptr<FileWatch> watch_;
    std::optional<io::Fingerprint> onDisk_; ///< what this window last read or wrote
    io::FileCalls* calls_ = &io::systemCalls();
    QThreadPool saver_, searcher_;
    QTimer searchTimer_;
    std::function<void()> saveAgain_;
    quint64 revision_ = 0, saveTicket_ = 0;
    bool readOnly_ = false;
    bool recovered_ = false;
    bool saving_ = false;
};

} // namespace gantry::app
