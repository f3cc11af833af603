// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <QPainter>

namespace gantry::app {

/// Where the bubble of a vial sits, 0 left to 1 right: between the lines when fine, right of them when tight,
/// at the right end when over, left when oversized. Continuous in the ratio, so that an edit is seen to move
/// it.
double bubblePlace(const Verdict& verdict);

/// Draws a verdict's vial into a rectangle of about 64 × 14 px.
void paintVial(QPainter& painter, const QRectF& box, State state, double place);

} // namespace gantry::app
