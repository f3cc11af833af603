// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/chain_table.h"

#include <QWidget>
#include <optional>

namespace gantry::app {

/// The drive drawn link by link, pulse to picture: wheels with their true tooth counts, the carriage at its
/// slope. Click or arrow keys choose a part.
class ChainView : public QWidget {
    Q_OBJECT
public:
    explicit ChainView(const Context& context, QWidget* parent = nullptr);

    void setColumns(const std::vector<ChainColumn>& columns);
    void setSelected(int column);
    void setLabelWidth(int width) { labelWidth_ = width; }

signals:
    void selected(int column);
    /// The chosen link was dragged or pushed by Ctrl and an arrow key by so many places towards the load.
    void moveWanted(int step);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    QRectF tile(int column) const;
    int columnAt(const QPointF& place) const;
    bool chosen(int column) const;

    Context context_;
    std::vector<ChainColumn> columns_;
    /// What stands under each tile, and the axis that is drawn in them.
    struct Words {
        QString name, detail;
        bool operator==(const Words&) const = default;
    };
    std::vector<Words> words_;
    std::optional<Axis> drawn_;

    int selected_ = 0;
    int dragged_ = -1, over_ = -1; ///< columns while a link is dragged
    int labelWidth_ = 92;
};

} // namespace gantry::app
