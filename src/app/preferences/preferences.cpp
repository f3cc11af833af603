// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preferences/preferences.h"

#include "app/model/write_bytes.h"
#include "app/theme/tokens.h"
#include "io/files/text_file.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>

namespace gantry::app {
namespace {

constexpr std::size_t largest = 1u << 20; // [bytes]
constexpr qsizetype mostRecent = 8;

QJsonObject onDisk() {
    std::string unread; // none yet, or not readable: the usual ones
    const auto text = io::readTextFile(QFile::encodeName(Preferences::path()).toStdString(), largest, unread);
    return text ? QJsonDocument::fromJson(QByteArray::fromStdString(*text)).object() : QJsonObject();
}

} // namespace

Preferences::Preferences(QObject* parent) : QObject(parent) {
    const QJsonObject s = onDisk();
    night_ = s[QStringLiteral("night")].toBool();
    system_ = s[QStringLiteral("inch")].toBool() ? units::System::Inch : units::System::Metric;
    for (const QJsonValue& path : s[QStringLiteral("recent")].toArray())
        if (path.isString() && recent_.size() < mostRecent) recent_ << path.toString();
    app::setNight(night_);
}

QString Preferences::path() {
    return QStandardPaths::writableLocation(QStandardPaths::AppConfigLocation) +
           QStringLiteral("/preferences.json");
}

void Preferences::setNight(bool night) {
    if (night == night_) return;
    night_ = night;
    app::setNight(night);
    save(QStringLiteral("night"), night);
    emit changed();
}

void Preferences::setSystem(units::System system) {
    if (system == system_) return;
    system_ = system;
    save(QStringLiteral("inch"), system == units::System::Inch);
    emit changed();
}

void Preferences::addRecentFile(const QString& path) {
    if (recent_.value(0) == path) return;
    recent_.removeAll(path);
    recent_.prepend(path);
    while (recent_.size() > mostRecent) recent_.removeLast();
    save(QStringLiteral("recent"), QJsonArray::fromStringList(recent_)); // nothing on screen looks different
}

void Preferences::save(const QString& key, const QJsonValue& value) {
    // Other windows may have changed the other ones, and a newer version may know more.
    QJsonObject all = onDisk();
    all[key] = value;
    QDir().mkpath(QFileInfo(path()).path());
    if (const QString problem = writeBytes(path(), QJsonDocument(all).toJson()); !problem.isEmpty())
        qWarning("preferences: %s", qPrintable(problem));
}

} // namespace gantry::app
