// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/limits.h"

#include <QWidget>

namespace gantry::app {

/// One ruler of speed in the axis' unit: bands to stay out of, limits, and the shots with the nearest good
/// speed.
class SpeedStrip : public QWidget {
    Q_OBJECT
public:
    explicit SpeedStrip(const Context& context, QWidget* parent = nullptr);
    void show(const AxisLimits& limits, AxisKind kind, const QStringList& shotNames);
    /// The same in words, for screen readers and the tooltip.
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    double place(double speed) const;

    Context context_;
    AxisLimits limits_;
    AxisKind kind_ = AxisKind::Linear;
    QStringList names_;
    QString words_;
};

} // namespace gantry::app
