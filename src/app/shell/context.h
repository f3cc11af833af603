// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/model/document.h"
#include "app/preferences/preferences.h"
#include "app/preferences/shelf.h"

#include <QObject>

namespace gantry::app {

/// What is looked at: not undoable, not in the file. An index of −1 for the shot means the worst of all.
class Session : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    int axis() const { return axis_; }
    int shot() const { return shot_; }
    int chainColumn() const { return column_; }
    void setAxis(int axis);
    void setShot(int shot);
    void setChainColumn(int column);
    /// Brings the indices back into the project after an edit; emits nothing.
    void fit(const Project& project);

signals:
    void changed();

private:
    int axis_ = 0, shot_ = -1, column_ = 1;
};

/// What every part of the window works with.
struct Context {
    Document& document;
    Session& session;
    Preferences& preferences;
    Shelf& shelf;

    units::System system() const { return preferences.system(); }
    const Axis* axis() const; ///< null if there is none
    const AxisEvaluation* axisEvaluation() const;
    /// The chosen shot of the chosen axis, or its worst; null if no shot moves it.
    const ShotEvaluation* shotEvaluation() const;
    QString show(const Figure& f, units::Kind kind, int digits = 3) const;
    QString show(double si, units::Kind kind, int digits = 3) const;
    QString unit(units::Kind kind) const; ///< as it is written on plots: "mm", "°/s"
    /// As a person would type it into a field: 5 digits and the ordinary unit; every field reads it back.
    QString typed(double si, units::Kind kind) const;
};

} // namespace gantry::app
