// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/intervals/plan_desk.h"

#include <QWidget>

namespace gantry::app {

/// One interval of a run as lanes: what the rig does, when the picture is still, what each camera does, and
/// what is left. Ends of what is entered can be dragged; with the keys, the end in hand.
class IntervalLanes : public QWidget {
    Q_OBJECT
public:
    IntervalLanes(const Context& context, PlanDesk& desk, QWidget* parent = nullptr);
    void refresh();

    /// What the end of a bar changes.
    enum class End { None, Settle, Focus, Exposure, Write, Interval };
    /// Where an end stands [px], of the first camera; for tests.
    QPointF endAt(End end) const;
    QString inWords() const { return words_; }

signals:
    void message(const QString& sentence, bool refused);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;

private:
    struct Bar {
        int lane = 0;
        double from = 0.0, to = 0.0; ///< [s]
        QString name;
        int look = 0; ///< which of the fills
        End end = End::None;
        int camera = -1;
    };
    double xOf(double time) const;
    double timeAt(double x) const;
    QRectF boxOf(const Bar& bar) const;
    QRectF laneBox(int lane) const;
    const Bar* barEndAt(QPointF at) const;
    void collect();
    void drag(double x);
    void paintBars(QPainter& p) const;
    void paintScale(QPainter& p) const;

    Context context_;
    PlanDesk& desk_;
    std::vector<Bar> bars_;
    QStringList lanes_;
    double gap_ = 0.0, shown_ = 1.0; ///< [s] the interval, and what the width shows
    Bar held_;                       ///< whose end is dragged
    double heldScale_ = 0.0;
    QString words_;
};

} // namespace gantry::app
