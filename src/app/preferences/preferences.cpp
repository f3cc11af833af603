// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preferences/preferences.h"

#include "app/theme/tokens.h"

#include <QSettings>

namespace gantry::app {

Preferences::Preferences(QObject* parent) : QObject(parent) {
    const QSettings s;
    night_ = s.value(QStringLiteral("night"), false).toBool();
    system_ = s.value(QStringLiteral("inch"), false).toBool() ? units::System::Inch : units::System::Metric;
    recent_ = s.value(QStringLiteral("recent")).toStringList();
    app::setNight(night_);
}

void Preferences::setNight(bool night) {
    if (night == night_) return;
    night_ = night;
    app::setNight(night);
    QSettings().setValue(QStringLiteral("night"), night);
    emit changed();
}

void Preferences::setSystem(units::System system) {
    if (system == system_) return;
    system_ = system;
    QSettings().setValue(QStringLiteral("inch"), system == units::System::Inch);
    emit changed();
}

void Preferences::addRecentFile(const QString& path) {
    if (recent_.value(0) == path) return;
    recent_.removeAll(path);
    recent_.prepend(path);
    while (recent_.size() > 8) recent_.removeLast();
    QSettings().setValue(QStringLiteral("recent"), recent_); // nothing that is on screen looks different
}

} // namespace gantry::app
