// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/plot.h"

#include <array>
#include <optional>

class QCPItemStraightLine;
class QCPGraph;
class QCPAxisRect;

namespace gantry::app {

/// Position, speed and acceleration of a shot over time, one above the other, with a cursor through all
/// three.
class ProfilePlot : public Plot {
    Q_OBJECT
public:
    explicit ProfilePlot(const Context& context, QWidget* parent = nullptr);
    void show(const AxisEvaluation* axis, const ShotEvaluation* shot);
    void applyTheme() override;

protected:
    QString readOut(QPointF pixel) const override;
    std::string csv() const override;

private:
    /// What the curves are drawn from, so that those that stay the same are not drawn again.
    struct Drawn {
        motion::Profile profile;
        AxisKind kind;
        units::System system;
        bool night;
        bool operator==(const Drawn&) const = default;
    };
    std::optional<Drawn> drawn_;
    motion::Profile profile_;
    AxisKind kind_ = AxisKind::Linear;
    std::array<QCPAxisRect*, 3> rects_{};
    std::array<QCPGraph*, 3> graphs_{};
    std::array<QCPItemStraightLine*, 3> cursors_{};
};

} // namespace gantry::app
