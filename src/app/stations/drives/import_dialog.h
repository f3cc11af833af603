// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/parts/parts_csv.h"

#include <QDialog>
#include <QThreadPool>

class QComboBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QTableWidget;

namespace gantry::app {

/// Import of a table of parts: what each column means, progress, and the lines that could not be read.
class ImportDialog : public QDialog {
    Q_OBJECT
public:
    ImportDialog(const QString& path, QWidget* parent);
    ~ImportDialog() override;

signals:
    void imported(const std::vector<parts::Part>& parts);

private:
    void run();
    void finishRead(const io::PartsTable& table);

    std::string text_;
    QTableWidget *columns_, *errors_;
    QComboBox* fallback_;
    QLabel* status_;
    QProgressBar* progress_;
    QPushButton *import_, *stop_;
    QThreadPool pool_;
    std::stop_source stopSource_;
};

} // namespace gantry::app
