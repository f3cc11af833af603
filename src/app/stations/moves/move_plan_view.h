// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/moves/move_desk.h"

#include <QWidget>

namespace gantry::app {

/// The move from above or from the side, to scale: the rig where the play head has it, the way of the lens,
/// what the camera sees at each pose, targets and rooms that nothing may enter. Targets and poses can be
/// dragged.
class MovePlanView : public QWidget {
    Q_OBJECT
public:
    MovePlanView(const Context& context, MoveDesk& desk, QWidget* parent = nullptr);
    void setFromAbove(bool on);
    bool fromAbove() const { return above_; }
    void refresh();
    /// Where a pose's camera or a target is drawn; for tests. Null if it is not.
    QPointF poseAt(int pose) const;
    QPointF targetAt(int target) const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    struct Camera {
        geometry::Place at, ahead, left, right; ///< and the ends of what it sees, at the length of a frustum
    };
    enum class Held { Nothing, Pose, Target };
    void collect();
    void fit();
    QPointF toScreen(geometry::Place p) const;
    /// The place under a point of the screen, at the depth of another.
    geometry::Place placeAt(QPointF screen, geometry::Place like) const;
    Camera cameraOf(const geometry::Frame& lens, double focal) const; ///< [px]
    void dragPose(geometry::Place to);
    void paintRig(QPainter& p) const;
    void paintRooms(QPainter& p) const;
    void paintCameras(QPainter& p) const;
    void paintTargets(QPainter& p) const;
    void paintScale(QPainter& p) const;

    Context context_;
    MoveDesk& desk_;
    bool above_ = true;
    std::vector<Camera> cameras_;      ///< of the poses
    std::vector<geometry::Place> way_; ///< of the lens
    double scale_ = 100.0;
    QPointF origin_;
    Held held_ = Held::Nothing;
    int index_ = -1;
    QString words_;
};

} // namespace gantry::app
