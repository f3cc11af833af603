// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

class QCustomPlot;
class QCPAxisRect;
class QCPItemText;
class QToolButton;

namespace gantry::app {

/// A card with a title, a plot, a read-out that follows the cursor, and a menu that saves SVG, PNG or CSV.
class Plot : public QWidget {
    Q_OBJECT
public:
    Plot(const Context& context, const QString& title, QWidget* parent = nullptr);

    /// Recolours for the theme in force.
    virtual void applyTheme();
    /// Saves by the file's ending; false with a sentence in `error` if it cannot be written.
    bool saveTo(const QString& path, QString& error);

signals:
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

    /// What stands at a place of the plot, for the read-out; empty outside.
    virtual QString readOut(QPointF pixel) const = 0;
    virtual std::string csv() const = 0;
    void styleRect(QCPAxisRect* rect) const;
    /// Labels that must not cover each other, the most important first; to be called whenever their places,
    /// given in the coordinates of the plot, are new. Each keeps its side of its point if that is free, else
    /// takes another side, else the nearest free line above or below; one that finds no room is left out.
    void keepApart(const QList<QCPItemText*>& texts);
    /// Puts a label on a side of a point, in the coordinates of the plot, wherever it stood before.
    static void put(QCPItemText* label, double x, double y, Qt::Alignment side);
    /// Replaces the drawing by a sentence ("" shows the drawing again).
    void setEmptyText(const QString& text);

    Context context_;
    QCustomPlot* plot_;

private:
    void save();
    bool eventFilter(QObject* watched, QEvent* event) override;

    void placeLabels();

    struct Label {
        QCPItemText* item;
        QPointF at; ///< in the coordinates of the plot
        Qt::Alignment side;
    };
    QList<Label> labels_;
    QString title_, readOut_, empty_;
    QToolButton* menu_;
};

} // namespace gantry::app
