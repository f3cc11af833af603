// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preferences/shelf.h"

#include "app/model/write_bytes.h"
#include "io/files/text_file.h"
#include "io/parts/parts_csv.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLockFile>
#include <QStandardPaths>

namespace gantry::app {
namespace {

constexpr std::size_t largestShelf = 64u << 20; // [bytes]

/// The table on disk; nothing, with a sentence, if it is there and cannot be read.
std::optional<io::ShelfTable> onDisk(QString& error) {
    if (!QFileInfo::exists(Shelf::path())) return io::ShelfTable{};
    std::string why;
    const auto text = io::readTextFile(QFile::encodeName(Shelf::path()).toStdString(), largestShelf, why);
    if (!text) {
        error = QString::fromStdString(why);
        return std::nullopt;
    }
    return io::readShelf(*text);
}

} // namespace

Shelf::Shelf(QObject* parent) : QObject(parent) {
    QString error;
    if (const auto table = onDisk(error)) parts_ = table->parts;
}

QString Shelf::path() {
    return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) +
           QStringLiteral("/parts-on-hand.csv");
}

bool Shelf::set(std::vector<parts::Part> parts, QString& error) {
    QDir().mkpath(QFileInfo(path()).path());
    // Windows take turns from reading what the other wrote to writing both.
    QLockFile turn(path() + QStringLiteral(".lock"));
    turn.tryLock(2000);
    const auto table = onDisk(error);
    if (!table) return false;
    std::vector<parts::Part> next = io::merged(parts_, parts, table->parts);
    error = writeBytes(path(), QByteArray::fromStdString(io::writeParts(next, table->lines)));
    if (!error.isEmpty()) return false;
    parts_ = std::move(next);
    emit changed();
    return true;
}

} // namespace gantry::app
