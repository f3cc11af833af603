// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <QColor>
#include <QFont>
#include <QPen>

namespace gantry::app {

/// Every colour of one theme. Nothing else in the application names a colour.
struct Tokens {
    QColor paper, sheet, line, faintLine;
    QColor ink, second, third;
    QColor lake, onLake, lakeWash;
    QColor moss, straw, brick, heather, rust, plum;
};

const Tokens& dayTokens();
const Tokens& nightTokens();

/// Those in force.
const Tokens& tokens();
void setNight(bool night);
bool isNight();

/// Colour of a state; it only repeats what word and bubble say.
QColor stateColour(State state);

/// Each axis' own colour and dash pattern, the same everywhere.
QPen axisPen(int axisIndex, qreal width = 2.0);

/// B612 under its own name, shipped with the application (data/fonts/README.md). Sizes in px: 12 body, 14
/// titles.
QFont textFont(int px = 12, bool bold = false);
void loadFonts();

/// Style sheet of the standard controls, for the theme in force.
QString styleSheet();

} // namespace gantry::app
