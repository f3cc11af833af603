// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/import_dialog.h"

#include "io/files/text_file.h"

#include <QComboBox>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>

namespace gantry::app {

ImportDialog::ImportDialog(const QString& path, QWidget* parent)
    : QDialog(parent), columns_(new QTableWidget(0, 2)), errors_(new QTableWidget(0, 3)),
      fallback_(new QComboBox), status_(new QLabel), progress_(new QProgressBar),
      import_(new QPushButton(tr("Import"))), stop_(new QPushButton(tr("Stop"))) {
    setObjectName(QStringLiteral("importDialog"));
    setWindowTitle(tr("Import parts from %1").arg(QFileInfo(path).fileName()));
    resize(720, 560);
    constexpr std::size_t largestTable = 64u << 20; // [bytes]
    std::string problem;
    if (auto text = io::readTextFile(QFile::encodeName(path).toStdString(), largestTable, problem))
        text_ = std::move(*text);
    else
        status_->setText(QString::fromStdString(problem));
    const std::vector<std::string> header = io::csvHeader(text_);
    const io::ColumnMap suggested = io::suggestedColumns(header);
    QStringList meanings;
    for (const std::string& m : io::columnMeanings())
        meanings << (m.empty() ? tr("left out") : QString::fromStdString(m));
    columns_->setObjectName(QStringLiteral("importColumns"));
    columns_->setHorizontalHeaderLabels({tr("Column of the table"), tr("means")});
    columns_->setRowCount(static_cast<int>(header.size()));
    for (int i = 0; i < static_cast<int>(header.size()); ++i) {
        columns_->setItem(i, 0,
                          new QTableWidgetItem(QString::fromStdString(header[static_cast<std::size_t>(i)])));
        auto* box = new QComboBox;
        box->addItems(meanings);
        const QString s = QString::fromStdString(suggested[static_cast<std::size_t>(i)]);
        box->setCurrentIndex(s.isEmpty() ? 0 : static_cast<int>(meanings.indexOf(s)));
        box->setAccessibleName(tr("Meaning of column %1").arg(i + 1));
        columns_->setCellWidget(i, 1, box);
    }
    columns_->verticalHeader()->hide();
    columns_->horizontalHeader()->setStretchLastSection(true);
    columns_->setColumnWidth(0, 260);
    fallback_->setObjectName(QStringLiteral("importFamily"));
    fallback_->addItem(tr("every line says its kind"), QString());
    for (const parts::Family& f : parts::families())
        fallback_->addItem(QString::fromUtf8(f.label.data()), QString::fromUtf8(f.key));
    errors_->setObjectName(QStringLiteral("importErrors"));
    errors_->setHorizontalHeaderLabels({tr("Line"), tr("Column"), tr("What is wrong")});
    errors_->horizontalHeader()->setStretchLastSection(true);
    errors_->verticalHeader()->hide();
    errors_->setColumnWidth(0, 60);
    errors_->setColumnWidth(1, 70);
    progress_->setRange(0, 1000);
    progress_->hide();
    status_->setObjectName(QStringLiteral("importStatus"));
    status_->setWordWrap(true);
    stop_->setEnabled(false);
    import_->setProperty("role", "primary");
    import_->setEnabled(!header.empty());
    auto* kind = new QHBoxLayout;
    kind->addWidget(new QLabel(tr("Lines without a kind are")));
    kind->addWidget(fallback_, 1);
    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"));
    buttons->addWidget(progress_, 1);
    buttons->addStretch();
    for (QPushButton* b : {import_, stop_, close}) {
        b->setAutoDefault(false);
        buttons->addWidget(b);
    }
    auto* all = new QVBoxLayout(this);
    all->addWidget(columns_, 2);
    all->addLayout(kind);
    all->addWidget(errors_, 1);
    all->addWidget(status_);
    all->addLayout(buttons);
    pool_.setMaxThreadCount(1);
    connect(import_, &QPushButton::clicked, this, &ImportDialog::run);
    connect(stop_, &QPushButton::clicked, this, [this] { stopSource_.request_stop(); });
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

ImportDialog::~ImportDialog() {
    stopSource_.request_stop();
    pool_.waitForDone();
}

void ImportDialog::run() {
    io::ColumnMap map;
    for (int i = 0; i < columns_->rowCount(); ++i) {
        const auto* box = qobject_cast<QComboBox*>(columns_->cellWidget(i, 1));
        map.push_back(box->currentIndex() == 0 ? std::string() : box->currentText().toStdString());
    }
    import_->setEnabled(false);
    stop_->setEnabled(true);
    progress_->show();
    stopSource_ = std::stop_source();
    pool_.start([this, map, family = fallback_->currentData().toString().toStdString(),
                 token = stopSource_.get_token()] {
        const io::PartsTable table = io::readParts(text_, map, family, token, [this](double share) {
            QMetaObject::invokeMethod(
                this, [this, share] { progress_->setValue(static_cast<int>(1000 * share)); },
                Qt::QueuedConnection);
        });
        QMetaObject::invokeMethod(
            this, [this, table] { finishRead(table); }, Qt::QueuedConnection);
    });
}

void ImportDialog::finishRead(const io::PartsTable& table) {
    import_->setEnabled(true);
    stop_->setEnabled(false);
    progress_->hide();
    errors_->setRowCount(static_cast<int>(table.errors.size()));
    for (int i = 0; i < static_cast<int>(table.errors.size()); ++i) {
        const io::CsvError& e = table.errors[static_cast<std::size_t>(i)];
        errors_->setItem(i, 0, new QTableWidgetItem(QString::number(e.line)));
        errors_->setItem(i, 1, new QTableWidgetItem(QString::number(e.column)));
        errors_->setItem(i, 2, new QTableWidgetItem(QString::fromStdString(e.sentence)));
    }
    status_->setText(
        table.stopped
            ? tr("Stopped: nothing was taken over.")
            : tr("Parts taken over: %1. Lines left out: %2.").arg(table.parts.size()).arg(table.badLines));
    if (!table.stopped && !table.parts.empty()) emit imported(table.parts);
}

} // namespace gantry::app
