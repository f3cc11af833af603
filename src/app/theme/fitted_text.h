// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFontMetrics>
#include <QString>
#include <QStringList>

namespace gantry::app {

/// A text as it is painted where no more than `width` [px] is free: cut at its end with an ellipsis if it
/// does not fit. Every painted text that may be cut goes through here, so that tests see each one that is.
QString fitted(const QFontMetrics& metrics, const QString& text, int width);

/// The first parts of a text that fit, parts being set off by “ · ”: whole ones or none, at least the first.
QString wholeParts(const QFontMetrics& metrics, const QString& text, int width);

/// From now on notes every text that is cut, for tests; null: no more.
void noteCutTexts(QStringList* into);

} // namespace gantry::app
