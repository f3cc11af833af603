// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/intervals/plan_desk.h"

#include <QPolygonF>
#include <QWidget>

namespace gantry::app {

/// The whole run against picture number and clock: the step, what still rocks or smears, the exposure, the
/// battery, who is there. The play head is pressed, dragged or stepped by keys.
class RunPlot : public QWidget {
    Q_OBJECT
public:
    RunPlot(const Context& context, PlanDesk& desk, QWidget* parent = nullptr);
    void refresh();
    /// Where a picture stands [px].
    double xOf(double picture) const;
    QString inWords() const { return words_; }

signals:
    void playWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Strip {
        QString name, range;
        int axis = -1;       ///< whose colour it has; −1: none of its own
        QPolygonF curve;     ///< picture, and a share of the strip
        double limit = -1.0; ///< share of the strip where a limit is drawn; below 0: none
        QString limitName;
        double fails = -1.0; ///< picture at which it comes to its end; below 0: it does not
        QString failsName;
        bool over = false;
    };
    struct Span {
        double from = 0.0, to = 0.0; ///< pictures
        bool missed = false;
    };
    QRectF stripBox(std::size_t strip) const;
    void collect();
    void collectSteps(const IntervalCourse& c, const std::vector<std::int64_t>& looks);
    void collectSharpness(const IntervalCourse& c, const std::vector<std::int64_t>& looks);
    void collectExposure(const IntervalCourse& c, const std::vector<std::int64_t>& looks);
    void collectBattery(const IntervalCourse& c, const std::vector<std::int64_t>& looks);
    void collectSpans(const IntervalCourse& c);
    void paintStrips(QPainter& p) const;
    void paintSpans(QPainter& p) const;
    void paintScale(QPainter& p) const;
    void paintHead(QPainter& p) const;
    QString readOut() const;
    void headTo(double x);

    Context context_;
    PlanDesk& desk_;
    std::vector<Strip> strips_;
    std::vector<Span> spans_;
    bool presence_ = false;
    QString words_;
};

} // namespace gantry::app
