// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/motion/profile.h"
#include "core/motion/rocking.h"
#include "core/tools/compare_ramps.h"

#include <QWidget>

namespace gantry::app {

/// What each shape of ramp leaves swinging after the stop, all in one scale of pixels and seconds, with the
/// jitter limit as a band.
class RampSketch : public QWidget {
    Q_OBJECT
public:
    explicit RampSketch(const Context& context, QWidget* parent);
    /// @param limit [px] peak to peak that is allowed
    void show(std::vector<RampRow> ramps, const motion::Mode& mode, double limit);
    QSize sizeHint() const override;
    /// What is drawn, in words: "S-curve: 0.2 px, within the limit".
    QString inWords() const;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    double left(const RampRow& row) const; ///< [px] peak to peak
    Context context_;
    std::vector<RampRow> ramps_;
    motion::Mode mode_;
    double limit_ = 0.0;
};

} // namespace gantry::app
