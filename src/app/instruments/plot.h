// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

class QCustomPlot;
class QCPAxisRect;
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
    /// Replaces the drawing by a sentence ("" shows the drawing again).
    void setEmptyText(const QString& text);

    Context context_;
    QCustomPlot* plot_;

private:
    void save();
    bool eventFilter(QObject* watched, QEvent* event) override;

    QString title_, readOut_, empty_;
    QToolButton* menu_;
};

} // namespace gantry::app
