// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

class QPainter;
class QRect;
class QString;

namespace gantry::app {

/// Paints a card: sheet with a line of one pixel around and round corners.
void paintCard(QPainter& painter, const QRect& box);
/// The same with its title, that many pixels below the upper edge.
void paintCard(QPainter& painter, const QRect& box, const QString& title, int below);

} // namespace gantry::app
