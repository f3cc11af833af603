// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/versions_dialog.h"

#include "app/model/document.h"
#include "core/words/differences.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "io/project/versions.h"

#include <QFile>
#include <QFileInfo>
#include <QLocale>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace gantry::app {
namespace {
constexpr std::size_t mostLines = 200;
}

VersionsDialog::VersionsDialog(Document& document, units::System system, QWidget* parent)
    : QDialog(parent), pane_(new TablePane(QStringLiteral("versionsDialog"), tr("Earlier versions"), this)),
      document_(document), system_(system), differences_(new QPlainTextEdit), restore_(nullptr) {
    resize(760, 520);
    differences_->setReadOnly(true);
    differences_->setObjectName(QStringLiteral("versionDifferences"));
    differences_->setAccessibleName(tr("What the chosen version would change"));
    differences_->setTabChangesFocus(true);
    pane_->content()->insertWidget(TablePane::belowTable, differences_, 1);
    restore_ = pane_->addButton(tr("Restore this version"), QStringLiteral("restoreVersion"));
    connect(restore_, &QPushButton::clicked, this, &VersionsDialog::restore);
    connect(pane_->table(), &QTableWidget::itemSelectionChanged, this, &VersionsDialog::showDifferences);
    fill();
}

void VersionsDialog::fill() {
    entries_.clear();
    const auto add = [&](const QString& file, const QString& when, const QString& what) {
        entries_ << Entry{file, when, what};
    };
    const QString backup = document_.path() + QLatin1Char('~');
    QList<QStringList> rows;
    for (const io::Version& v : io::versionsIn(QFile::encodeName(document_.versionFolder()).toStdString())) {
        const QString stamp = QString::fromStdString(v.stamp).left(19);
        const QDateTime when = QDateTime::fromString(stamp, QStringLiteral("yyyy-MM-ddTHH-mm-ss"));
        add(QFile::decodeName(v.file.c_str()),
            when.isValid() ? QLocale::c().toString(when, QStringLiteral("d MMM yyyy HH:mm:ss")) : stamp,
            tr("kept at a save"));
    }
    if (const QFileInfo info(backup); !document_.path().isEmpty() && info.exists())
        add(backup, QLocale::c().toString(info.lastModified(), QStringLiteral("d MMM yyyy HH:mm:ss")),
            tr("backup beside the file"));
    for (const Entry& e : entries_)
        rows << QStringList{e.when, e.size, tr("%1 KiB").arg((QFileInfo(e.file).size() + 1023) / 1024)};
    pane_->setTable({tr("Saved"), tr("Kept as"), tr("Size")}, rows);
    pane_->setSentence(rows.isEmpty()
                           ? tr("There is no earlier version yet. Each save keeps one: the last ten, and "
                                "the first of each day.")
                           : tr("Choose a version to see what it would change. Restoring it is one step "
                                "that Undo takes back."));
    if (!rows.isEmpty()) pane_->table()->selectRow(0);
    showDifferences();
}

std::optional<Project> VersionsDialog::chosen() {
    const int row = pane_->chosenRow();
    if (row < 0 || row >= entries_.size()) return std::nullopt;
    std::string error;
    const auto text =
        io::readTextFile(QFile::encodeName(entries_[row].file).toStdString(), io::largestFile, error);
    if (!text) {
        differences_->setPlainText(QString::fromStdString(error));
        return std::nullopt;
    }
    auto read = io::readProject(*text);
    if (const auto* problem = std::get_if<io::LoadError>(&read)) {
        differences_->setPlainText(QString::fromStdString(problem->sentence));
        return std::nullopt;
    }
    return std::move(std::get<io::LoadedProject>(read).project);
}

void VersionsDialog::showDifferences() {
    restore_->setEnabled(false);
    differences_->clear();
    const std::optional<Project> version = chosen();
    if (!version) return;
    std::size_t total = 0;
    QStringList lines;
    for (const std::string& line : words::differences({document_.project(), "what is open"},
                                                      {*version, "this version"}, system_, mostLines, total))
        lines << QString::fromStdString(line);
    if (total > mostLines) lines << tr("… and %1 more").arg(total - mostLines);
    differences_->setPlainText(lines.isEmpty() ? tr("It is the same as what is open.")
                                               : tr("From what is open to this version:") +
                                                     QLatin1Char('\n') + lines.join(QLatin1Char('\n')));
    restore_->setEnabled(total > 0 && !document_.readOnly());
}

void VersionsDialog::restore() {
    std::optional<Project> version = chosen();
    if (!version) return;
    document_.edit(tr("Restore an earlier version"), std::move(*version));
    accept();
}

} // namespace gantry::app
