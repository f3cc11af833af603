// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/capability.h"
#include "core/verdicts/fix.h"

#include <QDateTime>
#include <QObject>
#include <QString>
#include <QUndoStack>
#include <functional>
#include <memory>

class QLockFile;

namespace gantry::app {

/// The open project: its value, its assessment, undo, its file. Every edit goes through `edit` and recomputes
/// all.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    const Project& project() const { return project_; }
    const Assessment& assessment() const { return assessment_; }
    /// Grows with every change; results of background work carry the revision they belong to.
    quint64 revision() const { return revision_; }

    /// Replaces the project as one undoable step. Steps with the same non-empty merge key that follow each
    /// other become one. Nothing happens if the project is unchanged or read-only.
    void edit(const QString& name, Project next, const QString& mergeKey = {});
    /// Changes a copy and applies it.
    void change(const QString& name, const std::function<void(Project&)>& how, const QString& mergeKey = {});

    QUndoStack* undoStack() { return &undo_; }

    /// Empty project without a file; forgets undo.
    void newProject(Project project);
    /// Opens a file; on failure the document stays and `error` says why.
    bool open(const QString& path, QString& error, QStringList& notices);
    bool save(QString& error);
    bool saveAs(const QString& path, QString& error);
    /// Continues a recovered project: edited, with the file it came from, if any.
    void recover(Project project, const QString& path);

    QString path() const { return path_; }
    QString displayName() const;
    bool edited() const { return !undo_.isClean() || recovered_; }
    bool readOnly() const { return readOnly_; }
    QDateTime savedAt() const { return savedAt_; }

signals:
    void changed();     ///< project and assessment are new
    void fileChanged(); ///< path, edited or saved time are new

private:
    friend class SnapshotCommand;
    void set(const Project& project);
    void takeFile(const QString& path);

    Project project_;
    Assessment assessment_;
    QUndoStack undo_;
    QString path_;
    QDateTime savedAt_;
    std::unique_ptr<QLockFile> lock_;
    quint64 revision_ = 0;
    bool readOnly_ = false;
    bool recovered_ = false;
};

} // namespace gantry::app
