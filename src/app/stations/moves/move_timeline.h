// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/moves/move_desk.h"

#include <QWidget>

namespace gantry::app {

/// What the lanes of the timeline show of each axis.
enum class LaneShows { Speed, Place, Acceleration };

/// The move in time: poses as flags on top, the segments between them, a lane for each axis with its limits,
/// and one for what the picture errs. The play head is dragged or stepped by keys; a flag is pressed to take
/// its pose in hand, or dragged to give the segment that comes to it another time.
class MoveTimeline : public QWidget {
    Q_OBJECT
public:
    MoveTimeline(const Context& context, MoveDesk& desk, QWidget* parent = nullptr);
    void refresh();
    void setShows(LaneShows shows);
    /// Middle of a pose's flag, and of the play head's carriage; for tests.
    QPointF flagAt(int pose) const;
    QPointF headAt() const;
    QPointF blockAt(int block) const; ///< middle of a block in its lane
    /// Where a moment lies [px].
    double xOf(double time) const;
    QString inWords() const { return words_; }

signals:
    void playWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Lane {
        int axis = -1;   ///< −1: the picture, against what it may err
        QPolygonF curve; ///< value over time, in shares of the lane: 0 below, 1 above
        double low = 0.0, high = 1.0, limit = 0.0; ///< [U]
        bool over = false;                         ///< beyond its limit somewhere
        QString name, range;
        QList<QPolygonF> past; ///< what of the curve lies past the poses beside it, down to their level
        QPolygonF second;      ///< of the picture: blur of focus beside the way of the target
    };
    double timeAt(double x) const;
    double whole() const; ///< [s] that the width shows
    QRectF laneBox(std::size_t lane) const;
    void collect();
    void collectPast(Lane& lane, const PlannedMove& m) const;
    void collectPicture(QStringList& said);
    void dragFlag(double x);
    void dragBlock(double x);
    QRectF blockBox(std::size_t block) const;
    void paintBlocks(QPainter& p) const;
    void paintFlags(QPainter& p) const;
    void paintLanes(QPainter& p) const;
    void paintTimes(QPainter& p) const;
    void paintHead(QPainter& p) const;

    Context context_;
    MoveDesk& desk_;
    LaneShows shows_ = LaneShows::Speed;
    std::vector<Lane> lanes_;
    int flag_ = -1;          ///< that is dragged …
    int block_ = -1;         ///< … or this, taken hold of …
    double blockHeld_ = 0.0; ///< … so long [s] after its start
    double held_ = 0.0;      ///< [s] … on the scale that it was taken on; 0: none is
    bool scrubs_ = false, moved_ = false, again_ = false;
    QString words_;
};

} // namespace gantry::app
