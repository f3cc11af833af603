// SPDX-License-Identifier: GPL-3.0-or-later
// The window and its file: opening, saving, leaving, recovering, and other programs that change it meanwhile.
#include "app/shell/main_window.h"

#include "app/model/recovery.h"
#include "app/shell/axis_column.h"
#include "app/shell/versions_dialog.h"
#include "app/theme/tokens.h"

#include <QAction>
#include <QApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <utility>

namespace gantry::app {

bool MainWindow::openFile(const QString& path) {
    QString error;
    QStringList notices;
    if (!document_.open(path, error, notices)) {
        say(error, true);
        return false;
    }
    preferences_.addRecentFile(document_.path());
    session_.setAxis(0);
    session_.setShot(-1);
    refreshAll();
    if (!notices.isEmpty()) {
        constexpr qsizetype shown = 5;
        QString text = notices.mid(0, shown).join(QStringLiteral("; "));
        if (notices.size() > shown) text += tr("; … and %1 more, in the log").arg(notices.size() - shown);
        say(text, false);
        qInfo("%s", qPrintable(notices.mid(0, 1000).join(QLatin1Char('\n'))));
    }
    return true;
}

bool MainWindow::offerRecovery() {
    const auto clock = [](const QDateTime& t) { return t.toString(QStringLiteral("d MMM HH:mm:ss")); };
    const QList<RecoveredCopy> copies = Recovery::abandoned();
    for (const RecoveredCopy& copy : copies)
        if (!copy.problem.isEmpty()) {
            QMessageBox box(QMessageBox::Warning, tr("Recover your work"),
                            tr("A recovery copy of %1, of %2, cannot be read: %3")
                                .arg(copy.path.isEmpty() ? tr("an untitled project") : copy.path,
                                     clock(copy.written), copy.problem),
                            QMessageBox::Ok, this);
            box.setObjectName(QStringLiteral("unreadableCopyBox"));
            box.setTextFormat(Qt::PlainText);
            box.setInformativeText(tr("It stays where it is, for a text editor: %1").arg(copy.file));
            box.exec();
        }
    for (const RecoveredCopy& copy : copies) {
        if (!copy.problem.isEmpty()) continue;
        const QString name =
            copy.project.name.empty() ? tr("Untitled") : QString::fromStdString(copy.project.name);
        QString text =
            tr("“%1” was being edited when the program ended unexpectedly. A copy from %2 is here.")
                .arg(name, clock(copy.written));
        if (copy.fileIsNewer)
            text +=
                QLatin1Char(' ') + tr("The file was saved later, on %1: the copy is the older of the two.")
                                       .arg(clock(copy.fileSaved));
        else if (copy.fileSaved.isValid())
            text += QLatin1Char(' ') + tr("The file was last saved on %1: the copy is the newer of the two.")
                                           .arg(clock(copy.fileSaved));
        else if (!copy.path.isEmpty())
            text += QLatin1Char(' ') + tr("The file %1 is gone or cannot be read.").arg(copy.path);
        QMessageBox box(QMessageBox::Question, tr("Recover your work"), text, QMessageBox::NoButton, this);
        box.setObjectName(QStringLiteral("recoveryBox"));
        box.setTextFormat(Qt::PlainText);
        if (!copy.differences.isEmpty())
            box.setInformativeText(tr("From the file to the copy:") + QLatin1Char('\n') +
                                   copy.differences.join(QLatin1Char('\n')) +
                                   (copy.moreDifferences > 0
                                        ? QLatin1Char('\n') + tr("… and %1 more").arg(copy.moreDifferences)
                                        : QString()));
        QPushButton* take = box.addButton(tr("Continue with the copy"), QMessageBox::AcceptRole);
        QPushButton* file = copy.fileSaved.isValid() ? box.addButton(tr("Open the file, discard the copy"),
                                                                     QMessageBox::ActionRole)
                                                     : nullptr;
        QPushButton* drop =
            file == nullptr ? box.addButton(tr("Discard the copy"), QMessageBox::DestructiveRole) : nullptr;
        QPushButton* later = box.addButton(tr("Decide later"), QMessageBox::RejectRole);
        box.setDefaultButton(copy.fileIsNewer ? file : take);
        box.setEscapeButton(later);
        box.exec();
        if (file != nullptr && box.clickedButton() == file && openFile(copy.path)) {
            Recovery::discard(copy);
            return true;
        }
        if (box.clickedButton() == take) {
            document_.recover(copy.project, copy.path);
            recovery_->writeNow(); // before the old copy goes
            Recovery::discard(copy);
            session_.setAxis(0);
            refreshAll();
            return true;
        }
        if (drop != nullptr && box.clickedButton() == drop) Recovery::discard(copy);
    }
    return false;
}

void MainWindow::commitTyping() {
    if (QWidget* focus = QApplication::focusWidget()) focus->clearFocus();
}

bool MainWindow::mayLeave() {
    commitTyping();
    if (document_.saving()) document_.waitForSave();
    if (!document_.edited()) return true;
    const auto answer = QMessageBox::question(
        this, tr("Keep the changes?"),
        tr("“%1” has changes that are not saved.").arg(document_.displayName()),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Save) return saveBeforeLeaving();
    return answer == QMessageBox::Discard;
}

bool MainWindow::saveBeforeLeaving() {
    const QString path = document_.path().isEmpty() ? askForName() : document_.path();
    if (path.isEmpty()) return false;
    leaving_ = true;
    const SaveOutcome end = document_.saveAndWait(path);
    leaving_ = false;
    if (end.changedByOthers) return settleConflict(path, true);
    if (!end.sentence.isEmpty()) say(end.sentence, true);
    // Written but with trouble: the person who leaves must have read it.
    return end.saved && end.sentence.isEmpty();
}

void MainWindow::saved(const SaveOutcome& outcome) {
    if (leaving_) return;
    if (outcome.changedByOthers) {
        settleConflict(outcome.path, false);
        return;
    }
    if (outcome.saved) preferences_.addRecentFile(document_.path());
    if (!outcome.sentence.isEmpty()) say(outcome.sentence, true);
}

bool MainWindow::settleConflict(const QString& path, bool wait) {
    QMessageBox box(
        QMessageBox::Warning, tr("Changed by another program"),
        tr("“%1” was changed by another program on %2, after it was opened or saved here. Nothing was "
           "written yet.")
            .arg(path, QFileInfo(path).lastModified().toString(QStringLiteral("d MMM HH:mm:ss"))),
        QMessageBox::NoButton, this);
    box.setObjectName(QStringLiteral("conflictBox"));
    box.setTextFormat(Qt::PlainText);
    box.setInformativeText(
        tr("If you save yours, theirs stays beside the file as “~” and under “Restore an earlier "
           "version…”. If you load theirs, Undo brings yours back."));
    QPushButton* ours = box.addButton(tr("Save mine over it"), QMessageBox::AcceptRole);
    QPushButton* theirs = box.addButton(tr("Load theirs"), QMessageBox::DestructiveRole);
    QPushButton* copy = box.addButton(tr("Save mine as a copy…"), QMessageBox::ActionRole);
    QPushButton* cancel = box.addButton(QMessageBox::Cancel);
    box.setDefaultButton(copy);
    box.setEscapeButton(cancel);
    box.exec();
    QString name;
    if (box.clickedButton() == theirs) {
        QString error;
        if (!document_.takeFromDisk(error)) say(error, true);
        return false;
    }
    if (box.clickedButton() == ours)
        name = path;
    else if (box.clickedButton() == copy)
        name = askForName();
    if (name.isEmpty()) return false;
    if (!wait) {
        document_.startSave(name, name == path);
        return false;
    }
    leaving_ = true;
    const SaveOutcome end = document_.saveAndWait(name, name == path);
    leaving_ = false;
    if (!end.sentence.isEmpty()) say(end.sentence, true);
    return end.saved;
}

void MainWindow::showVersions() {
    commitTyping();
    auto* dialog = new VersionsDialog(document_, preferences_.system(), this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
}

void MainWindow::saveFile() {
    commitTyping();
    const QString path = document_.path().isEmpty() ? askForName() : document_.path();
    if (!path.isEmpty()) document_.startSave(path);
    refreshFileState();
}

void MainWindow::saveFileAs() {
    commitTyping();
    if (const QString path = askForName(); !path.isEmpty()) document_.startSave(path);
    refreshFileState();
}

QString MainWindow::askForName() {
    QString path = QFileDialog::getSaveFileName(this, tr("Save project"),
                                                document_.displayName() + QStringLiteral(".gantry"),
                                                tr("Calm Gantry projects (*.gantry)"));
    if (!path.isEmpty() && QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".gantry");
    return path;
}

void MainWindow::openDialog() {
    if (!mayLeave()) return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open project"), {},
                                                      tr("Calm Gantry projects (*.gantry);;All files (*)"));
    if (!path.isEmpty()) openFile(path);
}

void MainWindow::startEmpty() {
    document_.newProject({});
    session_.setAxis(0);
    session_.setShot(-1);
    showStation(u"brief");
}

void MainWindow::fillRecent() {
    recentMenu_->clear();
    for (const QString& path : preferences_.recentFiles())
        recentMenu_
            ->addAction(QFileInfo(path).fileName().replace(QLatin1Char('&'), QLatin1String("&&")), this,
                        [this, path] {
                            if (mayLeave()) openFile(path);
                        })
            ->setToolTip(path);
    if (recentMenu_->isEmpty()) recentMenu_->addAction(tr("nothing yet"))->setEnabled(false);
}

void MainWindow::refreshFileState() {
    QString state = document_.edited() ? tr("edited") : tr("not edited");
    if (document_.savedAt().isValid()) {
        const QString at = document_.savedAt().toString(QStringLiteral("HH:mm"));
        state = document_.edited() ? tr("edited · saved %1").arg(at) : tr("saved %1").arg(at);
    } else if (document_.path().isEmpty())
        state = document_.edited() ? tr("edited · not saved yet") : tr("not saved yet");
    const bool onDisk = document_.changedOnDiskAt().isValid();
    const bool trouble = onDisk || !recovery_->trouble().isEmpty();
    if (document_.saving()) state = tr("saving …");
    if (!recovery_->trouble().isEmpty()) state = tr("edited · no recovery copy");
    if (onDisk)
        state =
            tr("changed on disk %1").arg(document_.changedOnDiskAt().toString(QStringLiteral("HH:mm:ss")));
    if (document_.readOnly()) state = tr("read-only: open in another window");
    saved_->setText(state);
    saved_->setToolTip(onDisk ? tr("Another program changed this file. Saving asks which one to keep; "
                                   "“Load what is on disk” is in the Project menu.")
                              : recovery_->trouble());
    saved_->setStyleSheet(trouble ? QStringLiteral("color: %1").arg(tokens().brick.name()) : QString());
    takeFromDisk_->setEnabled(onDisk);
    versions_->setEnabled(!document_.path().isEmpty());
    setWindowTitle(tr("%1 · %2 · Calm Gantry").arg(document_.displayName(), state));
    title_->setText(document_.displayName());
    // The axes change with a file only in whether they can be edited; each save would paint them twice.
    if (std::exchange(axesReadOnly_, document_.readOnly()) != document_.readOnly()) axes_->refresh();
}

} // namespace gantry::app
