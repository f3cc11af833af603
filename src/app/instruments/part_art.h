// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/tools/chain_table.h"

class QPainter;
class QRectF;

namespace gantry::app {

/// Draws one part of a drive into a box: wheels with their true tooth counts, screws, drums, the load at its
/// slope.
void paintPart(QPainter& painter, const QRectF& box, const Axis& axis, const ChainColumn& column);

/// Whether both axes look the same in this part.
bool sameArt(const Axis& a, const Axis& b, const ChainColumn& column);

/// Two wheels with radii in the ratio of their teeth, meshing or joined by a belt.
void paintStage(QPainter& painter, const QRectF& box, int motorTeeth, int loadTeeth, bool belt);

} // namespace gantry::app
