// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

namespace gantry::app {

/// Each number that was told against what the parts give, on one scale of ratios: in the middle they agree,
/// to the right more was told than is there.
class ClaimBars : public QWidget {
    Q_OBJECT
public:
    struct Bar {
        QString told;      ///< the claim as it was written
        double over = 1.0; ///< [1] told over there
        bool plausible = true;

        friend bool operator==(const Bar&, const Bar&) = default;
    };
    explicit ClaimBars(QWidget* parent);
    void show(QList<Bar> bars);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QList<Bar> bars_;
};

} // namespace gantry::app
