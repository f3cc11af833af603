// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/parts/library.h"

#include <QObject>
#include <QString>

namespace gantry::app {

using io::partsLibrary;

/// Parts on hand: what this user owns, in a table of the user's data folder that a spreadsheet can edit.
/// Saved on every change, together with what other windows wrote meanwhile; columns and lines that the
/// program does not understand stay.
class Shelf : public QObject {
    Q_OBJECT
public:
    explicit Shelf(QObject* parent = nullptr);

    const std::vector<parts::Part>& parts() const { return parts_; }
    /// Replaces the shelf and saves it; on failure the old file stays and `error` says why.
    bool set(std::vector<parts::Part> parts, QString& error);
    static QString path();

signals:
    void changed();

private:
    std::vector<parts::Part> parts_; ///< what this window last read or wrote
};

} // namespace gantry::app
