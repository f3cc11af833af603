// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <QObject>
#include <QStringList>

class QJsonValue;

namespace gantry::app {

/// What belongs to the person, not to the project. Kept in a file of the user's configuration folder.
class Preferences : public QObject {
    Q_OBJECT
public:
    explicit Preferences(QObject* parent = nullptr);

    bool night() const { return night_; }
    void setNight(bool night);
    units::System system() const { return system_; }
    void setSystem(units::System system);
    QStringList recentFiles() const { return recent_; }
    void addRecentFile(const QString& path);
    static QString path();

signals:
    void changed();

private:
    void save(const QString& key, const QJsonValue& value);

    bool night_ = false;
    units::System system_ = units::System::Metric;
    QStringList recent_;
};

} // namespace gantry::app
