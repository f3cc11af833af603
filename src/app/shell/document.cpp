// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/document.h"

#include "io/project/project_file.h"
#include "io/text_file.h"

#include <QFile>
#include <QFileInfo>
#include <QLockFile>
#include <QSaveFile>

namespace gantry::app {

/// Whole-value undo: copying a project costs a microsecond.
class SnapshotCommand : public QUndoCommand {
public:
    SnapshotCommand(Document& document, const QString& name, Project before, Project after, QString mergeKey)
        : QUndoCommand(name), document_(document), before_(std::move(before)), after_(std::move(after)),
          mergeKey_(std::move(mergeKey)) {}

    void undo() override { document_.set(before_); }
    void redo() override { document_.set(after_); }
    int id() const override { return mergeKey_.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const SnapshotCommand*>(other);
        if (next->mergeKey_ != mergeKey_) return false;
        after_ = next->after_;
        if (after_ == before_) setObsolete(true);
        return true;
    }

private:
    Document& document_;
    Project before_, after_;
    QString mergeKey_;
};

Document::Document(QObject* parent) : QObject(parent) {
    undo_.setUndoLimit(500);
    connect(&undo_, &QUndoStack::cleanChanged, this, &Document::fileChanged);
    assessment_ = assess(project_);
}

Document::~Document() {
    undo_.disconnect(this);
}

void Document::edit(const QString& name, Project next, const QString& mergeKey) {
    if (readOnly_ || next == project_) return;
    undo_.push(new SnapshotCommand(*this, name, project_, std::move(next), mergeKey));
}

void Document::change(const QString& name, const std::function<void(Project&)>& how,
                      const QString& mergeKey) {
    Project next = project_;
    how(next);
    edit(name, std::move(next), mergeKey);
}

void Document::set(const Project& project) {
    project_ = project;
    assessment_ = assess(project_);
    ++revision_;
    emit changed();
}

void Document::newProject(Project project) {
    undo_.clear();
    lock_.reset();
    path_.clear();
    savedAt_ = {};
    readOnly_ = recovered_ = false;
    set(project);
    emit fileChanged();
}

void Document::takeFile(const QString& path) {
    path_ = QFileInfo(path).absoluteFilePath();
    lock_ = std::make_unique<QLockFile>(path_ + QStringLiteral(".lock"));
    lock_->setStaleLockTime(0);
    // A folder that cannot be written to has no lock either; only another live window makes this one
    // read-only.
    readOnly_ = !lock_->tryLock(0) && lock_->error() == QLockFile::LockFailedError;
}

bool Document::open(const QString& path, QString& error, QStringList& notices) {
    std::string why;
    const auto text = io::readTextFile(path.toStdString(), io::largestFile, why);
    if (!text) {
        error = QString::fromStdString(why);
        return false;
    }
    auto result = io::readProject(*text);
    if (const auto* problem = std::get_if<io::LoadError>(&result)) {
        error = QString::fromStdString(problem->sentence);
        return false;
    }
    auto& loaded = std::get<io::LoadedProject>(result);
    for (const std::string& n : loaded.notices) notices << QString::fromStdString(n);
    newProject(std::move(loaded.project));
    takeFile(path);
    savedAt_ = QFileInfo(path_).lastModified();
    emit fileChanged();
    return true;
}

bool Document::save(QString& error) {
    return saveAs(path_, error);
}

bool Document::saveAs(const QString& path, QString& error) {
    if (readOnly_ && QFileInfo(path).absoluteFilePath() == path_) {
        error = tr("“%1” is open in another window. Close it there, or save under another name.").arg(path);
        return false;
    }
    if (QFile::exists(path)) {
        const QString backup = path + QLatin1Char('~');
        QFile::remove(backup);
        if (!QFile::copy(path, backup)) {
            error = tr("The backup “%1” cannot be written. Check the folder's permissions or save elsewhere.")
                        .arg(backup);
            return false;
        }
    }
    QSaveFile file(path);
    const std::string text = io::writeProject(project_);
    if (!file.open(QIODevice::WriteOnly) ||
        file.write(text.data(), static_cast<qint64>(text.size())) != static_cast<qint64>(text.size()) ||
        !file.commit()) {
        error = tr("“%1” cannot be written: %2. Nothing was changed; save elsewhere.")
                    .arg(path, file.errorString());
        return false;
    }
    if (QFileInfo(path).absoluteFilePath() != path_) takeFile(path);
    savedAt_ = QDateTime::currentDateTime();
    recovered_ = false;
    undo_.setClean();
    emit fileChanged();
    return true;
}

void Document::recover(Project project, const QString& path) {
    newProject(std::move(project));
    if (!path.isEmpty()) takeFile(path);
    recovered_ = true;
    emit fileChanged();
}

QString Document::displayName() const {
    if (!project_.name.empty()) return QString::fromStdString(project_.name);
    return path_.isEmpty() ? tr("Untitled") : QFileInfo(path_).completeBaseName();
}

} // namespace gantry::app
