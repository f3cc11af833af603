// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

class QPainter;
class QRect;

namespace gantry::app {

/// Paints a card: sheet with a line of one pixel around and round corners.
void paintCard(QPainter& painter, const QRect& box);

} // namespace gantry::app
