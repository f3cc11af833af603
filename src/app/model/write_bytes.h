// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QByteArray>
#include <QString>

class QImage;

namespace gantry::app {

/// Writes an export through the one checked writer. Returns a sentence if it did not go well, else nothing.
QString writeBytes(const QString& path, const QByteArray& bytes);
QString writePng(const QString& path, const QImage& image);

} // namespace gantry::app
