// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/curves.h"

#include <QWidget>

namespace gantry::app {

/// Force or torque at the output against output speed, one line a drive, so that drives of different ratio
/// compare.
class CurveOverlay : public QWidget {
    Q_OBJECT
public:
    struct Line {
        QString name;
        std::vector<TorquePoint> points; ///< speed [U/s] and force [N] or torque [N·m] at the output
    };
    explicit CurveOverlay(const Context& context, QWidget* parent = nullptr);
    /// `demand`: what the worst shot asks, at the output.
    void show(std::vector<Line> lines, TorquePoint demand, bool linear);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    std::vector<Line> lines_;
    TorquePoint demand_;
    bool linear_ = true;
};

} // namespace gantry::app
