// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QColor>
#include <QRect>

class QPainter;

namespace gantry::app {

/// Paints a card: sheet with a line around.
void paintCard(QPainter& painter, const QRect& box);

/// Paints a box with a line of one pixel around and round corners of this radius in pixels.
void paintBox(QPainter& painter, const QRect& box, const QColor& line, const QColor& fill, int radius);

} // namespace gantry::app
