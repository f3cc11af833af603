// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/plain_labels.h"

#include <QApplication>
#include <QLabel>

namespace gantry::app {

void PlainLabels::install() {
    static PlainLabels* filter = nullptr;
    if (filter != nullptr) return;
    filter = new PlainLabels(qApp);
    connect(filter, &QObject::destroyed, [] { filter = nullptr; });
    qApp->installEventFilter(filter);
}

bool PlainLabels::eventFilter(QObject* watched, QEvent* event) {
    // Tooltips and the texts of message boxes are labels too; all are polished before they are first shown.
    if (event->type() == QEvent::Polish || event->type() == QEvent::Show)
        if (auto* label = qobject_cast<QLabel*>(watched);
            label != nullptr && label->textFormat() == Qt::AutoText)
            label->setTextFormat(Qt::PlainText);
    return false;
}

} // namespace gantry::app
