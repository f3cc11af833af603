// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_pane.h"
#include "core/model/project.h"
#include "core/units/kind.h"

class QPlainTextEdit;

namespace gantry::app {

class Document;

/// Earlier versions of the open file, what each would change, and a button that puts one in place as one
/// undoable edit.
class VersionsDialog : public QDialog {
    Q_OBJECT
public:
    VersionsDialog(Document& document, units::System system, QWidget* parent);

private:
    struct Entry {
        QString file, when, size;
    };
    void fill();
    void showDifferences();
    void restore();
    /// The project of the chosen version; nothing, and a sentence shown, if it cannot be read.
    std::optional<Project> chosen();

    TablePane* pane_;
    Document& document_;
    units::System system_;
    QList<Entry> entries_;
    QPlainTextEdit* differences_;
    QPushButton* restore_;
};

} // namespace gantry::app
