// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/rig/rig_structure.h"

#include <QWidget>

namespace gantry::app {

/// How well the base holds for every direction of the boom: the farther out the line, the better; inside the
/// inner ring it tips.
class TippingPolar : public QWidget {
    Q_OBJECT
public:
    explicit TippingPolar(const Context& context, QWidget* parent = nullptr);
    void refresh();
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void paintAnchors(QPainter& p) const;

    Context context_;
    std::vector<TippingCase> cases_;
    QString words_;
};

} // namespace gantry::app
