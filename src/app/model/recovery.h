// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <QDateTime>
#include <QObject>
#include <QThread>
#include <QTimer>

class QLockFile;

namespace gantry::app {

class Document;

/// A copy left behind by a window that did not end well.
struct RecoveredCopy {
    QString file;    ///< the copy
    QString problem; ///< why it cannot be read; empty if it can
    Project project;
    QString path; ///< the project file it belongs to; empty for an untitled project
    QDateTime written;
    QDateTime fileSaved;      ///< when that file was saved; invalid if it is gone or unreadable
    bool fileIsNewer = false; ///< the file was saved after the copy was written
    QStringList differences;  ///< from the file to the copy, the first few; empty where there is no file
    qsizetype moreDifferences = 0;
};

/// Keeps a copy of the document in the user's state folder, at most two seconds behind its edits, written and
/// read back by a worker thread. The copy is removed when the document is saved or closed in order; whatever
/// remains is from a crash.
class Recovery : public QObject {
    Q_OBJECT
public:
    explicit Recovery(Document& document, QObject* parent = nullptr);
    ~Recovery() override;

    /// Copies of windows that are gone, newest first, also those that cannot be read. A copy that says the
    /// same as its file is removed. Reads small files; call once at start.
    static QList<RecoveredCopy> abandoned();
    static void discard(const RecoveredCopy& copy);
    static QString folder();

    /// Removes this window's copy: the work is saved, or was given up on purpose.
    void forget();

    /// Writes the copy and returns when it is there.
    void writeNow();

    /// Why there is no copy at the moment; empty when there is one or none is needed.
    QString trouble() const { return trouble_; }

signals:
    void troubleChanged();

private:
    void write();
    void report(const QString& trouble);

    Document& document_;
    QThread thread_;
    QObject* writer_;
    QTimer timer_;
    QString file_, trouble_;
    bool writing_ = false, again_ = false; // a copy is under way; the document has changed since
    std::unique_ptr<QLockFile> alive_;
};

} // namespace gantry::app
