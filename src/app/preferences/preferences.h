// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <QObject>
#include <QStringList>

namespace gantry::app {

/// What belongs to the person, not to the project. Stored by QSettings.
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

signals:
    void changed();

private:
    bool night_ = false;
    units::System system_ = units::System::Metric;
    QStringList recent_;
};

} // namespace gantry::app
