// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/rig/rig_layout.h"

#include <QWidget>

namespace gantry::app {

/// The rig to scale, from the side or from above, made from its geometry: weights, supports, centre of
/// gravity and the line over which it tips. Weights, stands, carriage, ballast, feet and the arm can be
/// dragged; each has a field that does the same.
class RigView : public QWidget {
    Q_OBJECT
public:
    explicit RigView(const Context& context, QWidget* parent = nullptr);
    void setFromAbove(bool on);
    /// Only the outline, for the column of axes: no words, nothing to drag.
    void setSmall();
    /// The drawing and its scale alone, what it weighs in its title: for a small place beside fields.
    void setQuiet() { quiet_ = true; }
    /// Takes the project over again.
    void refresh();
    /// Middle of what can be dragged, in pixels; for tests and keyboard help. Null if it is not drawn.
    QPointF handleAt(const QString& path) const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    /// Something that follows the mouse: a field whose value grows along a direction of the drawing, or round
    /// a pivot.
    struct Handle {
        QString path;
        Place at;     ///< where it is grabbed
        Place origin; ///< where its value is 0, or the pivot
        Place along;  ///< change of place for one unit; unused when it turns
        bool turns = false;
        double offset = 0.0; ///< [rad] of the value 0 above level, or from x seen from above
        QString name;
    };
    static constexpr int head_ = 26; ///< [px] of the card's title line

    void fit();
    /// Sets a field to a value in SI; what is dragged on is one step to undo.
    void drag(const QString& path, double value);
    void collectHandles();
    QPointF toScreen(Place p) const;
    void paintBody(QPainter& p, std::size_t body) const;
    QPolygonF outlineOf(const geometry::Solid& solid) const;
    void paintFeet(QPainter& p) const;
    void paintMount(QPainter& p) const;
    bool standsOnAnchors() const;
    void paintMasses(QPainter& p) const;
    void paintBend(QPainter& p) const;
    void paintScale(QPainter& p) const;
    /// Paints words in a box, or as many lines above or below it as it takes to stand on no other words.
    void paintWords(QPainter& p, QRectF box, Qt::Alignment side, const QString& words) const;

    mutable QList<QRectF> wordBoxes_; ///< where words stand, while it is painted
    Context context_;
    bool above_ = false, small_ = false, quiet_ = false;
    RigLayout layout_;
    std::vector<geometry::Solid> solids_; ///< that its bodies fill
    std::vector<Handle> handles_;
    int held_ = -1;
    double scale_ = 100.0, heading_ = 0.0;
    QPointF origin_;
    QString words_;
};

} // namespace gantry::app
