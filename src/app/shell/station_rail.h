// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <QWidget>

namespace gantry::app {

/// The stations as sleepers of a rail; a carriage stands where you are, a lozenge shows each station's worst
/// verdict.
class StationRail : public QWidget {
    Q_OBJECT
public:
    explicit StationRail(QWidget* parent = nullptr);

    void setStations(const QStringList& names);
    const QStringList& names() const { return names_; }
    void setCurrent(int station);
    /// Unknown draws no mark.
    void setWorst(int station, State state);

signals:
    void chosen(int station);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    qreal place(int station) const;
    void describe();

    QStringList names_;
    QList<State> worst_;
    int current_ = 0;
};

} // namespace gantry::app
