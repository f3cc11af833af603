// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"
#include "core/tools/winch_curve.h"

#include <array>

class QCPGraph;

namespace gantry::app {

/// Speed of the cart, and steps per millimetre where there are any, over the cord on the drum.
class WinchPlot : public Plot {
    Q_OBJECT
public:
    explicit WinchPlot(const Context& context, QWidget* parent = nullptr);
    void show(std::vector<WinchPoint> curve);
    void applyTheme() override;

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    std::vector<WinchPoint> curve_;
    std::array<QCPAxisRect*, 2> rects_{};
    std::array<QCPGraph*, 2> graphs_{};
};

} // namespace gantry::app
