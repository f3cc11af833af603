// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/structure_solve.h"

#include <QWidget>

namespace gantry::app {

/// Sections side by side to one scale, each with the sag that it leaves as a bar below, to another.
class SectionSketch : public QWidget {
    Q_OBJECT
public:
    explicit SectionSketch(const Context& context, QWidget* parent);
    void show(const std::vector<SectionRow>& rows, int chosen);
    static constexpr int most = 8; ///< that find room

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    std::vector<SectionRow> rows_;
    int chosen_ = -1;
};

} // namespace gantry::app
