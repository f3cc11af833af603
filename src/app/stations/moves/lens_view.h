// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/moves/move_desk.h"

#include <QWidget>

namespace gantry::app {

/// Through the lens at the play head: horizon, ground, targets, rooms, safe frame, and the way that the
/// target takes in the picture along the segment.
class LensView : public QWidget {
    Q_OBJECT
public:
    LensView(const Context& context, MoveDesk& desk, QWidget* parent = nullptr);
    void refresh();
    /// The picture within the card.
    QRectF frame() const;
    /// Where the target in hand is shown, in pixels of the delivered picture from its middle; nothing where
    /// it is behind the camera or there is none.
    std::optional<QPointF> targetSeen() const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::optional<QPointF> project(const kinematics::Moving& camera, geometry::Place at) const;
    void paintLine(QPainter& p, const kinematics::Moving& camera, geometry::Place from,
                   geometry::Place to) const;
    QString footLine() const;

    Context context_;
    MoveDesk& desk_;
    QString words_;
};

} // namespace gantry::app
