// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preferences/shelf.h"

#include "io/parts/parts_csv.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QSaveFile>
#include <QStandardPaths>

namespace gantry::app {
namespace {

std::vector<parts::Part> read(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return {};
    const QByteArray text = file.readAll();
    const std::string_view view(text.constData(), static_cast<std::size_t>(text.size()));
    return io::readParts(view, io::suggestedColumns(io::csvHeader(view))).parts;
}

} // namespace

const std::vector<parts::Part>& partsLibrary() {
    static const std::vector<parts::Part> library = read(QStringLiteral(":/parts/library.csv"));
    return library;
}

Shelf::Shelf(QObject* parent) : QObject(parent), parts_(read(path())) {}

QString Shelf::path() {
    return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) +
           QStringLiteral("/parts-on-hand.csv");
}

bool Shelf::set(std::vector<parts::Part> parts, QString& error) {
    QDir().mkpath(QFileInfo(path()).path());
    QSaveFile file(path());
    const std::string text = io::writeParts(parts);
    if (!file.open(QIODevice::WriteOnly) || file.write(text.data(), static_cast<qint64>(text.size())) < 0 ||
        !file.commit()) {
        error = tr("Parts on hand cannot be saved to %1: %2. Check that the folder can be written.")
                    .arg(path(), file.errorString());
        return false;
    }
    parts_ = std::move(parts);
    emit changed();
    return true;
}

} // namespace gantry::app
