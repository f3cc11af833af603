// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/fitted_text.h"

namespace gantry::app {
namespace {
QStringList* noted = nullptr;
}

QString fitted(const QFontMetrics& metrics, const QString& text, int width) {
    QString out = metrics.elidedText(text, Qt::ElideRight, width);
    if (noted != nullptr && out != text) *noted << text;
    return out;
}

QString wholeParts(const QFontMetrics& metrics, const QString& text, int width) {
    const QString between = QStringLiteral(" · ");
    QStringList parts = text.split(between);
    while (parts.size() > 1 && metrics.horizontalAdvance(parts.join(between)) > width) parts.removeLast();
    return fitted(metrics, parts.join(between), width);
}

void noteCutTexts(QStringList* into) {
    noted = into;
}

} // namespace gantry::app
