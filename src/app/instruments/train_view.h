// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <vector>

namespace gantry::app {

/// A train of wheels drawn to one scale, meshing or joined by belts, motor at the left.
class TrainView : public QWidget {
    Q_OBJECT
public:
    struct Stage {
        int driver = 20, driven = 60;                ///< teeth
        double driverSize = 0.02, drivenSize = 0.06; ///< [m] pitch diameters
        bool gears = true;
    };
    explicit TrainView(QWidget* parent = nullptr);
    void setStages(std::vector<Stage> stages, const QString& words);
    QSize sizeHint() const override { return {420, 130}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<Stage> stages_;
};

} // namespace gantry::app
